import * as yup from 'yup';
import { deepest, isDeeperThan } from './depth';
import { isObject, passesQuickly, withQuick } from './quick';

/** Numbers beyond this are refused everywhere: no physical quantity of this trade is larger. */
export const largest = 1e9;

export interface NumberRule {
  /** Least value that passes. */
  min?: number;
  /** Largest value that passes. */
  max?: number;
  /** The value must lie above this. */
  above?: number;
  /** The value must lie below this. */
  below?: number;
  integer?: boolean;
}

/** What is wrong with a value that should be a number, or null. */
export function numberProblem(value: unknown, rule: NumberRule = {}): string | null {
  if (typeof value !== 'number') return `must be a number, not ${typeName(value)}`;
  if (!Number.isFinite(value)) return 'must be a finite number';
  if (Math.abs(value) > largest) return 'must lie within ±1e9';
  if (rule.integer === true && !Number.isInteger(value)) return 'must be a whole number';
  if (rule.min !== undefined && value < rule.min) return `must be ${rule.min} or more`;
  if (rule.max !== undefined && value > rule.max) return `must be ${rule.max} or less`;
  if (rule.above !== undefined && value <= rule.above) return `must be above ${rule.above}`;
  if (rule.below !== undefined && value >= rule.below) return `must be below ${rule.below}`;
  return null;
}

function typeName(value: unknown): string {
  if (value === null) return 'null';
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'string') return 'text';
  return typeof value === 'object' ? 'an object' : `a ${typeof value}`;
}

/**
 * A field judged by one function that returns what is wrong, or null. Absent fields fail unless optional.
 * Yup's own type tests are not used: they echo the value, convert, or let Infinity pass.
 */
function judged(problem: (value: unknown) => string | null, optional: boolean): yup.MixedSchema {
  const schema = yup
    .mixed()
    .test({
      name: 'judged',
      test(value: unknown, context) {
        if (value === undefined) return optional ? true : context.createError({ message: 'is required' });
        const message = problem(value);
        return message === null ? true : context.createError({ message });
      },
    })
    .nullable() as yup.MixedSchema;
  return withQuick(schema, (value) => (value === undefined ? optional : problem(value) === null));
}

/** A required number; `number.optional(rule)` for one with a default. */
export function number(rule: NumberRule = {}): yup.MixedSchema {
  return judged((value) => numberProblem(value, rule), false);
}
number.optional = (rule: NumberRule = {}): yup.MixedSchema =>
  judged((value) => numberProblem(value, rule), true);

/** The same value, or null. */
export function orNull(schema: yup.ISchema<unknown>): yup.Schema {
  const either = yup.lazy((value: unknown) =>
    value === null ? yup.mixed().nullable() : (schema as yup.Schema),
  ) as unknown as yup.Schema;
  return withQuick(either, (value) => value === null || passesQuickly(schema, value));
}

const textProblem = (max: number, min: number) => (value: unknown) => {
  if (typeof value !== 'string') return `must be text, not ${typeName(value)}`;
  if (value.length === 0 && min > 0) return 'must not be empty';
  if (value.length < min) return `must have at least ${min} characters`;
  return value.length > max ? `must be at most ${max} characters` : null;
};

/** A required text of `min` to `max` characters; `text.optional(max)` where it may be absent. */
export function text(max = 200, { min = 1 } = {}): yup.MixedSchema {
  return judged(textProblem(max, min), false);
}
text.optional = (max = 200, { min = 1 } = {}): yup.MixedSchema => judged(textProblem(max, min), true);

type Choice = string | number | boolean;

const choiceProblem = (choices: readonly Choice[]) => (value: unknown) =>
  choices.includes(value as Choice) ? null : `must be one of ${choices.join(', ')}`;

/** One of a list of values; `oneOf.optional(choices)` where it may be absent. */
export function oneOf(choices: readonly Choice[]): yup.MixedSchema {
  return judged(choiceProblem(choices), false);
}
oneOf.optional = (choices: readonly Choice[]): yup.MixedSchema => judged(choiceProblem(choices), true);

export interface TableRule {
  /** Rules of the two columns. */
  columns: [NumberRule, NumberRule];
  minRows?: number;
  maxRows?: number;
  /** The first column rises strictly. */
  rising?: boolean;
  /** What else holds for neighbouring rows or the whole table: a message, or null. */
  whole?: (rows: [number, number][]) => string | null;
}

/**
 * A table of pairs, checked in one loop. A wrong cell is named by its own path, a wrong order by the table's.
 */
function tableSchema(rule: TableRule, optional: boolean): yup.MixedSchema {
  const problem = tableProblem(rule);
  const schema = yup
    .mixed()
    .nullable()
    .test({
      name: 'table',
      test(value: unknown, context) {
        const found =
          value === undefined ? (optional ? null : { path: '', message: 'is required' }) : problem(value);
        return found === null
          ? true
          : context.createError({ path: `${context.path}${found.path}`, message: found.message });
      },
    }) as yup.MixedSchema;
  return withQuick(schema, (value) => (value === undefined ? optional : problem(value) === null));
}

/** Whether a value is a number under a rule: the quick half of `numberProblem`. */
function isWithin(value: unknown, rule: NumberRule): boolean {
  return (
    typeof value === 'number' &&
    value >= -largest &&
    value <= largest &&
    (rule.min === undefined || value >= rule.min) &&
    (rule.above === undefined || value > rule.above) &&
    (rule.max === undefined || value <= rule.max) &&
    (rule.below === undefined || value < rule.below) &&
    (rule.integer !== true || Number.isInteger(value))
  );
}

const tableProblem =
  ({ columns, minRows = 1, maxRows = 20_000, rising = true, whole }: TableRule) =>
  (value: unknown): { path: string; message: string } | null => {
    const at = (path: string, message: string) => ({ path, message });
    if (!Array.isArray(value)) return at('', `must be a list of pairs, not ${typeName(value)}`);
    if (value.length < minRows) return at('', `must have at least ${minRows} rows`);
    if (value.length > maxRows) return at('', `must have at most ${maxRows} rows`);
    const rows: unknown[] = value;
    const [x, y] = columns;
    for (let i = 0; i < rows.length; i += 1) {
      const row = rows[i];
      if (Array.isArray(row) && row.length === 2 && isWithin(row[0], x) && isWithin(row[1], y)) continue;
      if (!Array.isArray(row) || row.length !== 2) return at(`.${i}`, 'must be a pair of numbers');
      for (const column of [0, 1] as const) {
        const message = numberProblem(row[column], columns[column]);
        if (message !== null) return at(`.${i}.${column}`, message);
      }
    }
    const pairs = rows as [number, number][];
    const fall = rising ? pairs.findIndex((pair, i) => i > 0 && pair[0] <= pairs[i - 1]![0]) : -1;
    if (fall > 0) return at('', `must rise strictly in its first column (row ${fall} does not)`);
    const message = whole?.(pairs) ?? null;
    return message === null ? null : at('', message);
  };

/** A required table of pairs; `table.optional(rule)` where it may be absent. */
export function table(rule: TableRule): yup.MixedSchema {
  return tableSchema(rule, false);
}
table.optional = (rule: TableRule): yup.MixedSchema => tableSchema(rule, true);

type Fields = Record<string, yup.ISchema<unknown>>;

/** Shapes by name, and which of them a value must have. */
interface OneShapeOf {
  shapes: Readonly<Record<string, Fields>>;
  pick(value: Record<string, unknown>): string;
}

/** An object with exactly the fields of its shape; each unknown one is named by its own path. */
function recordSchema({ shapes, pick }: OneShapeOf, optional: boolean): yup.Schema {
  const objects = new Map<string, yup.Schema>();
  const objectFor = (name: string): yup.Schema => {
    const object = objects.get(name) ?? objectOf(shapes[name]!);
    objects.set(name, object);
    return object;
  };
  const schema = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed().optional();
    return isObject(value)
      ? objectFor(pick(value))
      : judged((given) => `must be an object, not ${typeName(given)}`, false);
  }) as unknown as yup.Schema;
  return withQuick(schema, (value) => {
    if (value === undefined) return optional;
    return isObject(value) && fieldsPass(shapes[pick(value)]!, value);
  });
}

const always = (fields: Fields): OneShapeOf => ({ shapes: { always: fields }, pick: () => 'always' });

function fieldsPass(fields: Fields, value: Record<string, unknown>): boolean {
  for (const key in value) if (!Object.hasOwn(fields, key)) return false;
  for (const key in fields) if (!passesQuickly(fields[key]!, value[key])) return false;
  return true;
}

function objectOf(fields: Fields): yup.Schema {
  const names = new Set(Object.keys(fields));
  return yup.object(fields as yup.ObjectShape).test({
    name: 'unknown-fields',
    test(given: unknown, context) {
      const unknown = Object.keys(given as object).filter((key) => !names.has(key));
      if (unknown.length === 0) return true;
      return new yup.ValidationError(
        unknown.slice(0, 100).map((key) =>
          context.createError({
            path: (context.path ? `${context.path}.` : '') + (key.length > 60 ? `${key.slice(0, 60)}…` : key),
            message: 'is not a field of this input',
          }),
        ),
      );
    },
  });
}

/**
 * A required object with exactly these fields; `record.optional(fields)` where it may be absent, and
 * `record.by(shapes, pick)` where what it holds decides which of some shapes it must have. The shapes are made once: making one takes
 * longer than holding a thousand values against it.
 */
export function record(fields: Fields): yup.Schema {
  return recordSchema(always(fields), false);
}
record.optional = (fields: Fields): yup.Schema => recordSchema(always(fields), true);
record.by = <Name extends string>(
  shapes: Readonly<Record<Name, Fields>>,
  pick: (value: Record<string, unknown>) => Name,
): yup.Schema => recordSchema({ shapes, pick }, false);
/** The same, where it may be absent. */
record.optionalBy = <Name extends string>(
  shapes: Readonly<Record<Name, Fields>>,
  pick: (value: Record<string, unknown>) => Name,
): yup.Schema => recordSchema({ shapes, pick }, true);

/** Whatever JSON can say, where it is judged elsewhere; absent, too. */
export const anything = (): yup.Schema =>
  withQuick(yup.mixed().nullable(), (value) => !isDeeperThan(value, deepest));

/** What is wrong with an object of items by id as such, or null. */
function mapProblem(value: unknown, maxEntries: number): string | null {
  if (!isObject(value)) return `must be an object, not ${typeName(value)}`;
  const keys = Object.keys(value);
  if (keys.some(isBadId)) return 'has an id that is not allowed';
  return keys.length > maxEntries ? `must have at most ${maxEntries} entries` : null;
}

const isBadId = (key: string) =>
  key.length === 0 || key.length > 80 || key === '__proto__' || /["[\].]/.test(key);

/** An object of like items by id. Ids are 1 to 80 characters and never `__proto__`. */
export function mapOf(of: yup.ISchema<unknown>, maxEntries = 5000): yup.Schema {
  return mapSchema(of, maxEntries, false);
}

function mapSchema(of: yup.ISchema<unknown>, maxEntries: number, optional: boolean): yup.Schema {
  const schema = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed();
    const problem = mapProblem(value, maxEntries);
    if (problem !== null) return judged(() => problem, false);
    return yup.object(Object.fromEntries(Object.keys(value as object).map((key) => [key, of])));
  }) as unknown as yup.Schema;
  return withQuick(schema, (value) => {
    if (value === undefined) return optional;
    if (mapProblem(value, maxEntries) !== null) return false;
    return Object.values(value as object).every((item) => passesQuickly(of, item));
  });
}

/** The same where it may be absent. */
mapOf.optional = (of: yup.ISchema<unknown>, maxEntries = 5000): yup.Schema => mapSchema(of, maxEntries, true);

interface ListRule {
  minRows?: number;
  maxRows?: number;
}

function listSchema(
  of: yup.ISchema<unknown>,
  { minRows = 0, maxRows = 2000 }: ListRule,
  optional: boolean,
): yup.Schema {
  const problem = (value: unknown) => {
    if (!Array.isArray(value)) return `must be a list, not ${typeName(value)}`;
    if (value.length < minRows) return `must have at least ${minRows} entries`;
    return value.length > maxRows ? `must have at most ${maxRows} entries` : null;
  };
  const schema = yup.lazy((value: unknown) => {
    if (value === undefined && optional) return yup.mixed().optional();
    const found = problem(value);
    return found === null ? yup.array().of(of as yup.Schema) : judged(() => found, false);
  }) as unknown as yup.Schema;
  return withQuick(schema, (value) => {
    if (value === undefined) return optional;
    return problem(value) === null && (value as unknown[]).every((item) => passesQuickly(of, item));
  });
}

/** A list of like items, its length judged before its items; `list.optional(of)` where it may be absent. */
export function list(of: yup.ISchema<unknown>, rule: ListRule = {}): yup.Schema {
  return listSchema(of, rule, false);
}
list.optional = (of: yup.ISchema<unknown>, rule: ListRule = {}): yup.Schema => listSchema(of, rule, true);

/** A required pair `[low, high]` of numbers under one rule, low below high. */
export function span(rule: NumberRule): yup.MixedSchema {
  const problem = (value: unknown) => {
    const at = (path: string, message: string) => ({ path, message });
    if (value === undefined) return at('', 'is required');
    if (!Array.isArray(value) || value.length !== 2) return at('', 'must be a pair of numbers');
    for (const end of [0, 1] as const) {
      const message = numberProblem(value[end], rule);
      if (message !== null) return at(`.${end}`, message);
    }
    const [low, high] = value as [number, number];
    return low < high ? null : at('', 'must rise: its first value below its second');
  };
  const schema = yup
    .mixed()
    .nullable()
    .test({
      name: 'span',
      test(value: unknown, context) {
        const found = problem(value);
        return found === null
          ? true
          : context.createError({ path: `${context.path}${found.path}`, message: found.message });
      },
    }) as yup.MixedSchema;
  return withQuick(schema, (value) => problem(value) === null);
}
