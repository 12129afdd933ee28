import { relative } from 'node:path';
import swc from '@swc/jest';
import { keepsToItself } from './suites.mjs';

/**
 * Jest runs each test file in a context of its own, where every look-up of a global passes through an interceptor, and
 * inner loops that say `Math.abs` are ten times slower than in production. Each module gets them as its own constants.
 */
const globals = ['Array', 'JSON', 'Math', 'Number', 'Object'];
const prelude = `const {${globals.join(',')}}=globalThis;`;

/** A test file that runs with others in one suite keeps its hooks to itself, and its tests say which file they are of. */
function describeFile(code, path) {
  const imports = [...code.matchAll(/^import\b[^;]*;$/gm)];
  const last = imports.at(-1);
  if (last === undefined) return code;
  const end = last.index + last[0].length;
  const name = JSON.stringify(relative(process.cwd(), path));
  return `import{describe as ofFile}from'@jest/globals';${code.slice(0, end)}ofFile(${name},()=>{${code.slice(end)}\n});`;
}

export default {
  createTransformer(options) {
    const inner = swc.createTransformer(options);
    const changed = (result, path, source) => {
      const shares =
        process.env.TORVEK_TEST_SUITES !== undefined &&
        path.endsWith('.test.ts') &&
        !path.includes('.cache') &&
        !keepsToItself.test(source);
      return { ...result, code: prelude + (shares ? describeFile(result.code, path) : result.code) };
    };
    const kind = process.env.TORVEK_TEST_SUITES === undefined ? 'file' : 'suite';
    return {
      canInstrument: inner.canInstrument,
      getCacheKey: (...all) => `${inner.getCacheKey(...all)}-own-globals-2-${kind}`,
      process: (source, path, ...rest) => changed(inner.process(source, path, ...rest), path, source),
      processAsync: async (source, path, ...rest) =>
        changed(await inner.processAsync(source, path, ...rest), path, source),
    };
  },
};
