// What Torvek is made of that others wrote, by the lock file: `NOTICES.txt` names it, the page `/notices` shows the licences as well.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib.mjs';

const workspaces = ['core', 'server', 'web'];
const byName = (a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : a.version < b.version ? -1 : 1);

/** Where a package that another one needs lies in the lock file: nearest first, as Node looks for it. */
function placeOf(packages, from, name) {
  for (let at = from; ; at = at.slice(0, Math.max(0, at.lastIndexOf('/node_modules/')))) {
    const place = at === '' ? `node_modules/${name}` : `${at}/node_modules/${name}`;
    if (packages[place] !== undefined) return place;
    if (at === '') return null;
  }
}

/** Every package that what is served or runs on the server needs, directly or through others. */
export function shippedPackages(lock) {
  const { packages } = lock;
  const found = new Map();
  const walk = (from, names) => {
    for (const name of names) {
      const place = placeOf(packages, from, name);
      if (place === null || found.has(place)) continue;
      const { version, license, link, os, dependencies = {}, optionalDependencies = {} } = packages[place];
      // Our own workspaces are walked by themselves; what is made for one kind of machine is part of the package that takes it.
      if (link === true || os !== undefined) continue;
      found.set(place, {
        place,
        name: place.slice(place.lastIndexOf('node_modules/') + 13),
        version,
        license,
      });
      walk(place, Object.keys({ ...dependencies, ...optionalDependencies }));
    }
  };
  for (const one of workspaces) walk(one, Object.keys(packages[one].dependencies ?? {}));
  return [...found.values()].sort(byName);
}

/** The texts that a package carries: its licence, and what it must be named with. */
function textOf(place) {
  const folder = join(root, place);
  const files = readdirSync(folder, { withFileTypes: true })
    .filter((one) => one.isFile() && /^(licen[cs]e|copying|notice)/i.test(one.name))
    .map(({ name }) => name)
    .sort();
  return files.map((name) => readFileSync(join(folder, name), 'utf8').trim()).join('\n\n');
}

/** What its own sheet says, where the lock file says nothing. */
const licenceOf = ({ place, license }) =>
  license ?? JSON.parse(readFileSync(join(root, place, 'package.json'), 'utf8')).license ?? 'not said';

const readLock = () => JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));

/** Packages with their licences; a text that several share stands once. */
export function notices() {
  const texts = [];
  const packages = shippedPackages(readLock()).map((one) => {
    const text = textOf(one.place);
    if (text !== '' && !texts.includes(text)) texts.push(text);
    return {
      name: one.name,
      version: one.version,
      license: licenceOf(one),
      ...(text !== '' && { text: texts.indexOf(text) }),
    };
  });
  return { packages, texts };
}

/** The list as a file of the project. */
export function noticesFile() {
  const { packages } = notices();
  return [
    'What others wrote: packages that Torvek is made of and runs with, by the lock file.',
    'The page "What others wrote" of the running product shows each licence in full.',
    'Written by: node scripts/notices.mjs',
    '',
    ...packages.map(({ name, version, license }) => `${name} ${version}: ${license}`),
    '',
  ].join('\n');
}

if (process.argv[1] === import.meta.filename) writeFileSync(join(root, 'NOTICES.txt'), noticesFile());
