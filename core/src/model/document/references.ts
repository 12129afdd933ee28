import type { Issue } from '../../ground/calculator';
import type { PartKind } from '../parts';
import { circuitPartKinds } from './circuit';
import { mainCircuit, type Design } from './design';

/** References that were not looked at before: designs of that time may point at nothing there, and are read as they are. */
export const wasUnchecked = ({ path }: Issue): boolean => /^(bonds|joints|pack\.busbars)\./.test(path);

/** References that point at nothing, by the path of the reference. */
export function danglingReferences(design: Design): Issue[] {
  const issues: Issue[] = [];
  const refer = (path: string, key: string | undefined, map: Record<string, unknown>, what: string) => {
    if (key !== undefined && !Object.hasOwn(map, key))
      issues.push({ path, message: `names a ${what} that is not there` });
  };
  const part = (path: string, key: string | undefined, kind: PartKind) => {
    refer(path, key, design.parts, 'part');
    const pinned = key === undefined ? undefined : design.parts[key];
    if (pinned !== undefined && pinned.kind !== kind)
      issues.push({ path, message: `names a ${pinned.kind}, not a ${kind}` });
  };
  for (const [id, one] of Object.entries(design.modules)) {
    part(`modules.${id}.part`, one.part, 'module');
    refer(`modules.${id}.box`, one.box, design.boxes, 'box');
  }
  refer('pack.combinerBox', design.pack.combinerBox, design.boxes, 'box');
  refer('pack.mainsBox', design.pack.mainsBox, design.boxes, 'box');
  const strung = new Set<string>();
  for (const [id, { modules, fuse, contactor }] of Object.entries(design.strings)) {
    part(`strings.${id}.fuse`, fuse, 'fuse');
    part(`strings.${id}.contactor`, contactor, 'contactor');
    modules.forEach((module, i) => {
      refer(`strings.${id}.modules.${i}`, module, design.modules, 'module');
      if (strung.has(module))
        issues.push({ path: `strings.${id}.modules.${i}`, message: 'stands in a string already' });
      strung.add(module);
    });
  }
  const fed = new Set<string>();
  for (const [id, circuit] of Object.entries(design.circuits)) {
    refer(`circuits.${id}.device`, circuit.device, design.devices, 'device');
    refer(`circuits.${id}.box`, circuit.box, design.boxes, 'box');
    if (circuit.role === 'main' && id !== mainCircuit)
      issues.push({ path: `circuits.${id}.role`, message: 'there is one main circuit' });
    if (circuit.device !== undefined && fed.has(circuit.device))
      issues.push({ path: `circuits.${id}.device`, message: 'is fed by another circuit already' });
    if (circuit.device !== undefined) fed.add(circuit.device);
    for (const kind of circuitPartKinds) {
      part(`circuits.${id}.${kind}`, circuit[kind], kind);
    }
  }
  for (const [id, { circuit }] of Object.entries(design.pack.busbars ?? {}))
    refer(`pack.busbars.${id}.circuit`, circuit, design.circuits, 'circuit');
  for (const [id, { circuit }] of Object.entries(design.joints ?? {}))
    refer(`joints.${id}.circuit`, circuit, design.circuits, 'circuit');
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
