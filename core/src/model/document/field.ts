import { list, mapOf, number, oneOf, record, table, text, type Schema } from '../../ground/shape';
import type { PartKey, PartKind } from '../parts';
import type { Id } from './id';
import type { Station } from './stations';

/** Where something is edited: a station, and its panel where it has several. */
export type Where = Station | `${Station}/${string}`;

/** What a field names: a thing of the design, or a part that is pinned in it. */
export type Reference =
  | 'modules'
  | 'boxes'
  | 'devices'
  | 'circuits'
  | 'strings'
  | 'loops'
  | 'joins'
  | 'plumbing'
  | 'inlets'
  | 'loads'
  | 'ends'
  | 'wires'
  | 'colours'
  | 'boards'
  | 'datums'
  | 'runs'
  | { part: PartKind };

/** What a field is, beside its type. All of it may be absent. */
export interface FieldMore {
  /** Where it is edited; absent: where the rest of its thing is. */
  at?: Where;
  /** How the number is shown and typed, and stored value over shown value, where that is not as it is stored. */
  shown?: { unit: string; scale: number };
  /** A size by its name, such as a thread: never converted to what a person reads lengths in. */
  asNamed?: true;
  /** What holds where the design does not say, in the unit it is stored in. */
  fallback?: number;
  /** Beyond these it is most likely a slip: another unit, a digit too many. In the unit it is stored in. */
  usual?: readonly [least: number, most: number];
}

/**
 * One field of a thing of the design, said once: its type, what may be in it, its words and its unit, what it names, where it is
 * edited, and what holds where it is absent.
 */
export interface Field<T = unknown, Given extends boolean = boolean> extends FieldMore {
  label: string;
  /** Stored in it; absent for what is no number. */
  unit?: string;
  schema: Schema;
  /** It is always there. */
  given: Given;
  refersTo?: Reference;
  /** Fields of what is in it: of the thing itself, of each of a map, or of each of a list. */
  inner?: { kind: 'one' | 'map' | 'list'; fields: Fields };
  /** Never there: carries the type. */
  readonly holds?: T;
}

export type Fields = Readonly<Record<string, Field>>;

type Held<F> = F extends Field<infer T> ? T : never;

/** The thing that these fields describe. */
export type ItemOf<F extends Fields> = {
  [K in keyof F as F[K]['given'] extends true ? K : never]: Held<F[K]>;
} & {
  [K in keyof F as F[K]['given'] extends true ? never : K]?: Held<F[K]>;
};

type Fallback = FieldMore & { fallback: number };

/** A number; the name of the field ends in its unit as well. */
export function num(label: string, unit: string, more: Fallback): Field<number, false> & { fallback: number };
export function num(label: string, unit: string, more?: FieldMore): Field<number, false>;
export function num(label: string, unit: string, more: FieldMore = {}): Field<number, false> {
  return { label, unit, schema: number.optional(), given: false, ...more };
}

/** A share, stored from 0 to 1, shown in percent. */
export function share(label: string, more: Fallback): Field<number, false> & { fallback: number };
export function share(label: string, more?: FieldMore): Field<number, false>;
export function share(label: string, more: FieldMore = {}): Field<number, false> {
  return num(label, 'fraction', { shown: { unit: '%', scale: 0.01 }, ...more });
}

export const words = (label: string, more: FieldMore = {}): Field<string, false> => ({
  label,
  schema: text.optional(),
  given: false,
  ...more,
});

/** What people call it. */
export const tag: Field<string, true> = { label: 'Name', schema: text(), given: true };

export const choice = <const T extends string | number | boolean>(
  label: string,
  choices: readonly T[],
  more: FieldMore = {},
): Field<T, false> => ({ label, schema: oneOf.optional(choices), given: false, ...more });

/** A choice that is always made. */
export const chosen = <const T extends string | number>(
  label: string,
  choices: readonly T[],
): Field<T, true> => ({ label, schema: oneOf(choices), given: true });

export const flag = (label: string, more: FieldMore = {}): Field<boolean, false> => ({
  label,
  schema: oneOf.optional([true, false]),
  given: false,
  ...more,
});

/** The id of another thing of the design. */
export const refer = (
  label: string,
  refersTo: Extract<Reference, string>,
  more: FieldMore = {},
): Field<Id, false> => ({ ...words(label, more), refersTo });

/** The key of a part that is pinned in the design. */
export const part = (label: string, kind: PartKind, more: FieldMore = {}): Field<PartKey, false> => ({
  ...words(label, more),
  refersTo: { part: kind },
});

/** Pairs; the columns' own rules are those of the calculators that read them. */
export const pairs = (label: string, more: FieldMore = {}): Field<[number, number][], false> => ({
  label,
  schema: table.optional({ columns: [{}, {}], rising: false }),
  given: false,
  ...more,
});

/** Anything else, by a schema of its own. */
export const other = <T>(label: string, schema: Schema, more: FieldMore = {}): Field<T, false> => ({
  label,
  schema,
  given: false,
  ...more,
});

const schemasOf = (fields: Fields) =>
  Object.fromEntries(Object.entries(fields).map(([name, { schema }]) => [name, schema]));

export const one = <F extends Fields>(label: string, at: Where, fields: F): Field<ItemOf<F>, true> => ({
  label,
  at,
  schema: record(schemasOf(fields)),
  given: true,
  inner: { kind: 'one', fields },
});

/** A thing that is there as soon as something is said of it. */
export const maybeOne = <F extends Fields>(label: string, at: Where, fields: F): Field<ItemOf<F>, false> => ({
  ...one(label, at, fields),
  schema: record.optional(schemasOf(fields)),
  given: false,
});

/** Things of one kind by their ids. */
export const many = <F extends Fields>(
  label: string,
  at: Where,
  fields: F,
): Field<Record<Id, ItemOf<F>>, true> => ({
  label,
  at,
  schema: mapOf(record(schemasOf(fields))),
  given: true,
  inner: { kind: 'map', fields },
});

export const maybeMany = <F extends Fields>(
  label: string,
  at: Where,
  fields: F,
): Field<Record<Id, ItemOf<F>>, false> => ({
  ...many(label, at, fields),
  schema: mapOf.optional(record(schemasOf(fields))),
  given: false,
});

/** A few in their order. */
export const few = <F extends Fields>(
  label: string,
  maxRows: number,
  fields: F,
): Field<ItemOf<F>[], false> => ({
  label,
  schema: list.optional(record(schemasOf(fields)), { maxRows }),
  given: false,
  inner: { kind: 'list', fields },
});

/** What holds where fields are absent, by their names: of those that say so. */
export const defaultsOf = <F extends Fields>(
  fields: F,
): { [K in keyof F as F[K] extends { fallback: number } ? K : never]: number } =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, { fallback }]) =>
      fallback === undefined ? [] : [[name, fallback]],
    ),
  ) as never;
