import type { Draft } from 'immer';
import {
  partsInUse,
  removeFromPlates,
  removeFromSensors,
  removeString,
  type Design,
  type Id,
} from '../../model/document';
import { partKey, type PartOf } from '../../model/parts';

/** Pins a part in the design, once however often it is used. */
export function pin(draft: Draft<Design>, part: Design['parts'][string]): string {
  const key = partKey(part);
  if (draft.parts[key] === undefined)
    draft.parts[key] = JSON.parse(JSON.stringify(part)) as Draft<typeof part>;
  return key;
}

/** Unpins parts that nothing uses any more. */
export function unpinUnused(draft: Draft<Design>): void {
  const used = partsInUse(draft);
  for (const key of Object.keys(draft.parts)) if (!used.has(key)) delete draft.parts[key];
}

export interface PackShape {
  strings: number;
  modulesPerString: number;
  part: PartOf<'module'>;
}

/**
 * Gives the pack a shape: adds or takes modules at the end of each string, adds or takes strings, and makes
 * every module one of this kind. Modules that stay keep their ids, tags and boxes; new ones go into the boxes
 * with the fewest modules.
 *
 * @param newId makes an id from a prefix; ids are made outside the core
 */
export function shapePack(draft: Draft<Design>, shape: PackShape, newId: (prefix: string) => Id): void {
  const key = pin(draft, shape.part);
  const kept = Object.keys(draft.strings).slice(0, shape.strings);
  for (const id of Object.keys(draft.strings).slice(shape.strings)) removeString(draft, id);
  while (kept.length < shape.strings) {
    const id = newId('string');
    draft.strings[id] = { tag: `S${kept.length + 1}`, modules: [] };
    kept.push(id);
  }
  for (const id of kept) fillString(draft, id, shape.modulesPerString, key, newId);
  for (const module of Object.values(draft.modules)) module.part = key;
  unpinUnused(draft);
}

/**
 * Gives one string another number of modules, or modules of another kind, and leaves the others as they are: one comes out while
 * it is away, or a string is built of what there is.
 *
 * @param shape what does not change is left out
 * @param newId makes an id from a prefix
 */
export function shapeString(
  draft: Draft<Design>,
  string: Id,
  shape: { modules?: number; part?: PartOf<'module'> },
  newId: (prefix: string) => Id,
): void {
  const one = draft.strings[string];
  if (one === undefined) return;
  const own = draft.modules[one.modules.at(-1) ?? '']?.part ?? Object.values(draft.modules)[0]?.part;
  const key = shape.part === undefined ? own : pin(draft, shape.part);
  if (key === undefined) return;
  fillString(draft, string, shape.modules ?? one.modules.length, key, newId);
  if (shape.part !== undefined) for (const id of one.modules) draft.modules[id]!.part = key;
  unpinUnused(draft);
}

/**
 * Takes one module out of the design: its string is shorter by it, and the others of the string close up. Fuse, disconnect and cables
 * stay between the modules they were between; what lay beside the one that goes lies where its neighbours meet.
 */
export function takeModuleOut(draft: Draft<Design>, id: Id): void {
  delete draft.modules[id];
  removeFromPlates(draft, [id]);
  removeFromSensors(draft, [id]);
  for (const [key, string] of Object.entries(draft.strings)) {
    const at = string.modules.indexOf(id);
    if (at < 0) continue;
    string.modules.splice(at, 1);
    const moved = (joint: number) => (joint > at ? joint - 1 : joint);
    if (string.fuseAt !== undefined) string.fuseAt = moved(string.fuseAt);
    if (string.disconnectAt !== undefined) string.disconnectAt = moved(string.disconnectAt);
    for (const lead of Object.values(draft.pack.leads ?? {}))
      if (lead.string === key && lead.joint !== undefined) lead.joint = moved(lead.joint);
  }
  unpinUnused(draft);
}

function fillString(
  draft: Draft<Design>,
  id: Id,
  count: number,
  part: string,
  newId: (prefix: string) => Id,
): void {
  const string = draft.strings[id]!;
  const gone = string.modules.slice(count);
  for (const module of gone) delete draft.modules[module];
  removeFromPlates(draft, gone);
  removeFromSensors(draft, gone);
  string.modules = string.modules.slice(0, count);
  while (string.modules.length < count) {
    const module = newId('module');
    const box = emptiestBox(draft);
    draft.modules[module] = {
      tag: freeTag(draft, string.tag, string.modules.length + 1),
      part,
      ...(box !== undefined && { box }),
    };
    string.modules.push(module);
  }
}

/** The name of a place: by its string and number; the next number that no other place has. */
function freeTag(draft: Draft<Design>, string: string, number: number): string {
  const taken = new Set(Object.values(draft.modules).map(({ tag }) => tag));
  const name = (at: number) => `${string}-M${String(at).padStart(2, '0')}`;
  let at = number;
  while (taken.has(name(at))) at += 1;
  return name(at);
}

function emptiestBox(draft: Draft<Design>): Id | undefined {
  const counts = new Map(Object.keys(draft.boxes).map((id) => [id, 0]));
  for (const { box } of Object.values(draft.modules)) {
    if (box !== undefined) counts.set(box, (counts.get(box) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => a[1] - b[1])[0]?.[0];
}
