import type { Issue } from '../../ground/calculator';
import { designFields, mainCircuit, type Design } from './design';
import type { Fields, Reference } from './field';

/** References that were not looked at before: designs of that time may point at nothing there, and are read as they are. */
export const wasUnchecked = ({ path }: Issue): boolean => /^(bonds|joints|pack\.busbars)\./.test(path);

/** References that point at nothing, by the path of the reference. */
export function danglingReferences(design: Design): Issue[] {
  const issues: Issue[] = [];
  const refer = (path: string, key: string | undefined, map: object, what: string) => {
    if (key !== undefined && !Object.hasOwn(map, key))
      issues.push({ path, message: `names a ${what} that is not there` });
  };
  everyReference(designFields, design, '', (path, key, to) => {
    if (typeof to === 'string') return refer(path, key, design[to], nouns[to]);
    refer(path, key, design.parts, 'part');
    const pinned = design.parts[key];
    if (pinned !== undefined && pinned.kind !== to.part)
      issues.push({ path, message: `names a ${pinned.kind}, not a ${to.part}` });
  });
  const strung = new Set<string>();
  for (const [id, { modules }] of Object.entries(design.strings)) {
    modules.forEach((module, i) => {
      if (strung.has(module))
        issues.push({ path: `strings.${id}.modules.${i}`, message: 'stands in a string already' });
      strung.add(module);
    });
  }
  const fed = new Set<string>();
  for (const [id, circuit] of Object.entries(design.circuits)) {
    if (circuit.role === 'main' && id !== mainCircuit)
      issues.push({ path: `circuits.${id}.role`, message: 'there is one main circuit' });
    if (circuit.device !== undefined && fed.has(circuit.device))
      issues.push({ path: `circuits.${id}.device`, message: 'is fed by another circuit already' });
    if (circuit.device !== undefined) fed.add(circuit.device);
  }
  // What is bonded is a box, a device, a circuit’s conduit, or a body that the bond itself names.
  const bonds = design.bonds ?? {};
  const bodies = { ...design.boxes, ...design.devices, ...design.circuits };
  for (const [id, { to, tag }] of Object.entries(bonds)) {
    refer(`bonds.${id}.to`, to, { ...bodies, ...bonds }, 'body');
    if (tag === undefined) refer(`bonds.${id}`, id, bodies, 'body');
  }
  for (const [key, pinned] of Object.entries(design.parts)) {
    if (key !== `${pinned.id}@${pinned.revision}`)
      issues.push({ path: `parts.${key}`, message: 'has a key that is not its id and revision' });
  }
  return issues;
}

/** Every pinned part that something of the design uses. */
export function partsInUse(design: Design): Set<string> {
  const used = new Set<string>();
  everyReference(designFields, design, '', (_path, key, to) => {
    if (typeof to === 'object') used.add(key);
  });
  return used;
}

/** Another part in every place that names this one. */
export function renamePart(draft: Design, key: string, next: string): void {
  everyReference(designFields, draft, '', (_path, named, to, write) => {
    if (typeof to === 'object' && named === key) write(next);
  });
}

const nouns = {
  modules: 'module',
  boxes: 'box',
  devices: 'device',
  circuits: 'circuit',
  strings: 'string',
} as const;

/** Every field that names something, with what it names. */
function everyReference(
  fields: Fields,
  holder: object,
  path: string,
  found: (path: string, key: string, to: Reference, write: (key: string) => void) => void,
): void {
  const values = holder as Readonly<Record<string, unknown>>;
  for (const [name, { refersTo, inner }] of Object.entries(fields)) {
    const value = values[name];
    const at = path === '' ? name : `${path}.${name}`;
    if (value === undefined) continue;
    if (refersTo !== undefined) {
      if (typeof value === 'string')
        found(at, value, refersTo, (next) => ((holder as Record<string, unknown>)[name] = next));
      else
        (value as string[]).forEach((key, i) =>
          found(`${at}.${i}`, key, refersTo, (next) => ((value as string[])[i] = next)),
        );
    } else if (inner?.kind === 'one') everyReference(inner.fields, value as object, at, found);
    else if (inner !== undefined)
      for (const [key, item] of Object.entries(value as object))
        everyReference(inner.fields, item as object, `${at}.${key}`, found);
  }
}
