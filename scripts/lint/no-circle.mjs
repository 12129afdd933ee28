import { existsSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';

/** Imports and re-exports that exist at run time: those of types alone are gone by then. */
const atRunTime = /^\s*(?:import|export)\s+(?!type\b)(?:[^'"`;]*?\sfrom\s+)?['"](\.[^'"]+)['"]/gm;

const known = new Map();
const read = (file) => {
  const text = readFileSync(file, 'utf8');
  const code = file.endsWith('.vue')
    ? [...text.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g)].map(([, script]) => script).join('\n')
    : text;
  return [...code.matchAll(atRunTime)].flatMap(([whole, way]) => {
    const names = /\{([^}]*)\}/.exec(whole)?.[1];
    const onlyTypes =
      names !== undefined &&
      !/(?:import|export)\s+\w/.test(whole) &&
      names.split(',').every((name) => name.trim() === '' || name.trim().startsWith('type '));
    const found = onlyTypes ? undefined : fileAt(join(dirname(file), way));
    return found === undefined ? [] : [found];
  });
};
const fileAt = (path) =>
  ['', '.ts', '.mts', '.vue', '/index.ts']
    .map((end) => path + end)
    .find((one) => existsSync(one) && statSync(one).isFile());
const importsOf = (file) => {
  if (!known.has(file)) known.set(file, read(file));
  return known.get(file);
};

/** The shortest way from a file back to itself; null: there is none. */
function circleFrom(file) {
  const cameFrom = new Map([[file, null]]);
  const queue = [file];
  for (const at of queue) {
    for (const next of importsOf(at)) {
      if (next === file) {
        const way = [file];
        for (let back = at; back !== null; back = cameFrom.get(back)) way.unshift(back);
        return way;
      }
      if (cameFrom.has(next)) continue;
      cameFrom.set(next, at);
      queue.push(next);
    }
  }
  return null;
}

/** No file may need itself through others: whichever is loaded first finds the other half made. */
export const noCircle = {
  meta: { type: 'problem', docs: { description: 'no circles of imports' }, schema: [] },
  create: (context) => ({
    Program(node) {
      const circle = circleFrom(context.filename);
      if (circle === null) return;
      const names = circle.map((file) => relative(context.cwd, file));
      context.report({ node, message: `files need each other: ${names.join(' → ')}` });
    },
  }),
};
