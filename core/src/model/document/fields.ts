import { designFields, type Design } from './design';
import type { Field, Where } from './field';
import type { Station } from './stations';

/** A field of the design found by its place, with what stands on the way to it. */
export interface FoundField {
  /** The field itself: a thing, when the path ends there. */
  field: Field;
  /** From the root: names of things. */
  way: Field[];
  at: Where;
}

/** The field at a dotted path of the design; null: there is none. An item of a list or map is found as the list itself. */
export function fieldAt(path: string): FoundField | null {
  const keys = path.split('.');
  const way: Field[] = [];
  let fields: Readonly<Record<string, Field>> | null = designFields;
  let at: Where = 'pack/pack';
  for (let i = 0; i < keys.length; i += 1) {
    const field: Field | undefined =
      fields !== null && Object.hasOwn(fields, keys[i]!) ? fields[keys[i]!] : undefined;
    if (field === undefined) return null;
    way.push(field);
    at = field.at ?? at;
    const inner: Field['inner'] = field.inner;
    // What a value holds has no fields of its own: the rest of the path leads into it.
    if (inner === undefined) break;
    fields = inner.fields;
    if (inner.kind !== 'one') i += 1;
  }
  return { field: way.at(-1)!, way, at };
}

/** The thing of the pack that a place lies in, by its id: a bar, a cable, sense leads; null: it lies in none. */
export function thingOfPack(path: string): string | null {
  const [root, map = '', id = null, field] = path.split('.');
  const { inner } = designFields.pack.inner!.fields[map] ?? {};
  return root === 'pack' && field !== undefined && inner?.kind === 'map' ? id : null;
}

/** What people call a thing of the design, by its id; of what stands once, its label. Null: there is no such thing. */
export function tagOfThing(design: Design, id: string): string | null {
  const held: Readonly<Record<string, Field>> = designFields;
  if (Object.hasOwn(held, id) && held[id]!.inner?.kind === 'one') return held[id]!.label;
  const tagIn = (owner: object, fields: Readonly<Record<string, Field>>): string | null => {
    for (const [name, { inner }] of Object.entries(fields)) {
      if (inner?.kind !== 'map') continue;
      const things = (owner as Record<string, Record<string, { tag?: string }> | undefined>)[name];
      const tag = things !== undefined && Object.hasOwn(things, id) ? things[id]!.tag : undefined;
      if (tag !== undefined) return tag;
    }
    return null;
  };
  const pack: Readonly<Record<string, Field>> = designFields.pack.inner!.fields;
  return tagIn(design, held) ?? tagIn(design.pack, pack) ?? design.parts[id]?.label ?? null;
}

/** The station in which a place of the design is edited. */
export const stationOfPath = (path: string): Station => whereOf(path)[0];

/** The panel of its station in which a place of the design is edited; null: it has none. */
export const panelOfPath = (path: string): string | null => whereOf(path)[1];

function whereOf(path: string): [Station, string | null] {
  const [station, panel = null] = (fieldAt(path)?.at ?? 'pack').split('/') as [Station, string?];
  return [station, panel];
}
