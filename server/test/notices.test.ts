import { expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { notices, noticesFile, shippedPackages } from '../../scripts/notices.mjs';

const read = (path: string) => readFileSync(path, 'utf8');

test('the list of what others wrote is that of the lock file, and names all that the workspaces ask for', () => {
  expect(read('NOTICES.txt')).toBe(noticesFile());
  const { packages, texts } = notices();
  const names = packages.map(({ name }) => name);
  for (const workspace of ['core', 'server', 'web']) {
    const { dependencies = {} } = JSON.parse(read(`${workspace}/package.json`)) as {
      dependencies?: Record<string, string>;
    };
    const asked = Object.keys(dependencies).filter((name) => !name.startsWith('@torvek/'));
    expect(asked.filter((name) => !names.includes(name))).toEqual([]);
  }
  const express = packages.find(({ name }) => name === 'express')!;
  expect(express.license).toBe('MIT');
  expect(texts[express.text!]).toContain('Permission is hereby granted');
  for (const one of packages) expect(one.license).not.toBe('');
  expect(packages.filter(({ text }) => text === undefined).length).toBeLessThan(15);
});

test('tools are left out, what is nested is found where it lies, and what is made for one machine goes with its package', () => {
  const lock = {
    packages: {
      core: { dependencies: { a: '1' } },
      server: {},
      web: {},
      'node_modules/a': {
        version: '1',
        license: 'MIT',
        dependencies: { b: '1' },
        optionalDependencies: { x: '1' },
      },
      'node_modules/a/node_modules/b': { version: '2', license: 'ISC', dependencies: { c: '1', a: '1' } },
      'node_modules/b': { version: '1', license: 'MIT' },
      'node_modules/c': { version: '3', license: 'ISC' },
      'node_modules/tool': { version: '9', license: 'MIT', dev: true },
      'node_modules/x': { version: '1', license: 'MIT', os: ['linux'] },
    },
  };
  expect(shippedPackages(lock).map(({ place, version }) => [place, version])).toEqual([
    ['node_modules/a', '1'],
    ['node_modules/a/node_modules/b', '2'],
    ['node_modules/c', '3'],
  ]);
});
