import type { Issue } from '../../ground/shape';
import { designFields, mainCircuit, type Design } from './design';
import type { PartKey, PartKind } from '../parts';
import { fieldAt } from './fields';
import type { Fields, Reference } from './field';
import type { Id } from './id';
import { isHoseRun, runsOfCircuit } from './laid';
import { runLengths } from './run-lengths';
import { valueOf } from './place';

/** References that were not looked at before: designs of that time may point at nothing there, and are read as they are. */
export const wasUnchecked = ({ path }: Issue): boolean => /^(bonds|joints|pack\.busbars)\./.test(path);

/** References that point at nothing, by the path of the reference. */
export function danglingReferences(design: Design): Issue[] {
  const issues: Issue[] = [];
  const refer = (path: string, key: string | undefined, map: object | undefined, what: string) => {
    if (key !== undefined && !Object.hasOwn(map ?? {}, key))
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
  const ends = { ...design.boxes, ...design.devices };
  for (const [id, run] of Object.entries(design.runs ?? {})) {
    refer(`runs.${id}.from`, run.from, ends, 'box or device');
    refer(`runs.${id}.to`, run.to, ends, 'box or device');
    run.hoses?.forEach((hose, i) => {
      const piece = design.plumbing?.[hose];
      if (piece !== undefined && piece.kind !== 'hose')
        issues.push({ path: `runs.${id}.hoses.${i}`, message: `is a ${piece.kind}, not a hose` });
    });
    run.leads?.forEach((lead, i) =>
      refer(`runs.${id}.leads.${i}`, lead, design.pack.leads ?? {}, 'cable of the pack'),
    );
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

/** A place of a design in which a part that one can hold in hand is fitted: a fuse, a charger, a box. */
export interface PartPlace {
  /** Where the design names the part; of a device or a box the thing itself. */
  path: string;
  /** The thing it belongs to, by id. */
  holder: Id;
  /** What people call it. */
  name: string;
  kind: PartKind | 'device' | 'box';
  /** Key of the designed part; null: the design names none there. */
  part: PartKey | null;
}

/** Every place in which a part is fitted, modules aside: they are things of their own. */
export function partPlaces(design: Design): PartPlace[] {
  const places: PartPlace[] = [];
  everyReference(designFields, design, '', (path, key, to) => {
    if (typeof to === 'string' || to.part === 'module') return;
    const keys = path.split('.');
    const holder = valueOf(design, keys.slice(0, -1).join('.')) as { tag?: string };
    places.push({
      path,
      holder: keys.at(-2)!,
      name: `${holder.tag ?? keys.at(-2)}: ${fieldAt(path)!.field.label.toLowerCase()}`,
      kind: to.part,
      part: key,
    });
  });
  const things = (map: 'devices' | 'boxes', kind: 'device' | 'box') =>
    Object.entries(design[map]).map(([id, { tag }]): PartPlace => ({
      path: `${map}.${id}`,
      holder: id,
      name: tag,
      kind,
      part: null,
    }));
  return [...places, ...things('devices', 'device'), ...things('boxes', 'box')];
}

/** A conductor of a design whose length can be measured once it is cut. */
export interface CutPlace {
  path: string;
  holder: Id;
  name: string;
  /** As designed; null: not given. */
  lengthM: number | null;
}

/**
 * Every cable of a design, by where its length stands: with the run that carries it, else with the circuit, whose way in parts counts as
 * a whole.
 */
export function cutPlaces({ circuits, pack, runs = {} }: Design): CutPlace[] {
  const sum = (lengths: (number | undefined)[]) =>
    lengths.some((one) => one === undefined) ? null : lengths.reduce<number>((at, one) => at + one!, 0);
  const routed = new Set(Object.values(runs).flatMap(({ leads = [] }) => leads));
  return [
    ...Object.entries(runs)
      .filter(
        ([, { circuits: own = [], leads = [], hoses = [], phasesOf }]) =>
          own.length + leads.length + hoses.length > 0 || phasesOf !== undefined,
      )
      .map(([id, run]): CutPlace => ({
        path: `runs.${id}.cutLengthM`,
        holder: id,
        name: `${run.tag}: ${isHoseRun(run) ? 'hose' : 'cable'}`,
        lengthM: runLengths(run)?.cutM ?? null,
      })),
    ...Object.entries(circuits)
      .filter(([id, { cable }]) => cable !== undefined && runsOfCircuit(runs, id).length === 0)
      .map(([id, { tag, lengthM, stretches }]): CutPlace => ({
        path: `circuits.${id}.lengthM`,
        holder: id,
        name: `${tag}: cable`,
        lengthM: stretches === undefined ? (lengthM ?? null) : sum(stretches.map((one) => one.lengthM)),
      })),
    ...Object.entries(pack.leads ?? {})
      .filter(([id, { cable }]) => cable !== undefined && !routed.has(id))
      .map(([id, { tag, lengthM }]): CutPlace => ({
        path: `pack.leads.${id}.lengthM`,
        holder: id,
        name: `${tag}: cable`,
        lengthM: lengthM ?? null,
      })),
  ];
}

const nouns = {
  modules: 'module',
  boxes: 'box',
  devices: 'device',
  circuits: 'circuit',
  strings: 'string',
  loops: 'loop',
  joins: 'join',
  plumbing: 'hose',
  inlets: 'inlet',
  loads: 'load',
  ends: 'end of a loom',
  wires: 'wire',
  colours: 'colour',
  boards: 'board',
  datums: 'mark of the body',
  runs: 'run',
} as const;

/** Of some fields those that name something, or hold what does: most of a design names nothing. */
const naming = new WeakMap<Fields, [name: string, field: Fields[string]][]>();

function namingOf(fields: Fields): [name: string, field: Fields[string]][] {
  const known = naming.get(fields);
  if (known !== undefined) return known;
  const found = Object.entries(fields).filter(
    ([, { refersTo, inner }]) =>
      refersTo !== undefined || (inner !== undefined && namingOf(inner.fields).length > 0),
  );
  naming.set(fields, found);
  return found;
}

/** Every field that names something, with what it names. */
function everyReference(
  fields: Fields,
  holder: object,
  path: string,
  found: (path: string, key: string, to: Reference, write: (key: string) => void) => void,
): void {
  const values = holder as Readonly<Record<string, unknown>>;
  for (const [name, { refersTo, inner }] of namingOf(fields)) {
    const value = values[name];
    if (value === undefined) continue;
    const at = path === '' ? name : `${path}.${name}`;
    if (refersTo !== undefined) {
      if (typeof value === 'string')
        found(at, value, refersTo, (next) => ((holder as Record<string, unknown>)[name] = next));
      else
        (value as string[]).forEach((key, i) =>
          found(`${at}.${i}`, key, refersTo, (next) => ((value as string[])[i] = next)),
        );
    } else if (inner?.kind === 'one') everyReference(inner.fields, value as object, at, found);
    else
      for (const [key, item] of Object.entries(value as object))
        everyReference(inner!.fields, item as object, `${at}.${key}`, found);
  }
}
