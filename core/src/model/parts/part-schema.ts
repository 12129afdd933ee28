import { number, oneOf, record, table, text, type NumberRule } from '../../ground/shape';
import { partFields, partKinds } from './fields';
import type { PartKind } from './kinds';
import type { PartField } from './part-field';

type Schema = ReturnType<typeof record>;

/**
 * The door of a kind's data. The library's takes only what a figure can be; a design's asks for the right types alone,
 * for what a sheet once said is then judged by the calculators.
 */
export function partDataSchema(kind: PartKind, typesOnly = false): Schema {
  const tree: Record<string, Schema | Record<string, Schema>> = {};
  for (const field of partFields[kind]) {
    const [first, second] = field.name.split('.') as [string, string | undefined];
    const schema = typesOnly ? typeOf(field) : schemaOf(field);
    if (second === undefined) tree[first] = schema;
    else tree[first] = { ...(tree[first] as Record<string, Schema>), [second]: schema };
  }
  return record(
    Object.fromEntries(
      Object.entries(tree).map(([key, value]) => [key, isSchema(value) ? value : record(value)]),
    ),
  );
}

/** The door of a part as a whole; the data's depends on its kind. */
export function partSchema(typesOnly = false): Schema {
  const frame = {
    id: typesOnly ? text() : idSchema(),
    revision: number({ min: 1, integer: true }),
    kind: oneOf(partKinds),
    make: text(),
    number: text(),
    label: text(),
    source: text.optional(400),
  };
  const shapes = Object.fromEntries(
    partKinds.map((kind) => [kind, { ...frame, data: partDataSchema(kind, typesOnly) }]),
  ) as Record<PartKind, typeof frame & { data: Schema }>;
  return record.by(shapes, ({ kind }) =>
    Object.hasOwn(shapes, String(kind)) ? (kind as PartKind) : 'module',
  );
}

/** Ids stand in addresses and keys. */
const idSchema = () =>
  text(60).test('id', 'must be of small letters, digits and hyphens', (value) =>
    /^[a-z0-9][a-z0-9-]*$/.test(String(value)),
  );

function typeOf(field: PartField): Schema {
  if (field.kind === 'table') {
    const any = { columns: [{}, {}] as [NumberRule, NumberRule], rising: false };
    return field.optional === true ? table.optional(any) : table(any);
  }
  const numeric = field.kind === 'choice' && typeof field.choices[0] === 'number';
  if (field.kind === 'number' && field.optional === true) return number.optional();
  return field.kind === 'number' || numeric ? number() : schemaOf(field);
}

const isSchema = (value: Schema | Record<string, Schema>): value is Schema =>
  typeof (value as { validateSync?: unknown }).validateSync === 'function';

function schemaOf(field: PartField): Schema {
  switch (field.kind) {
    case 'number':
      return field.optional === true ? number.optional(field.rule) : number(field.rule);
    case 'choice':
      return oneOf(field.choices);
    case 'flag':
      return field.optional === true ? oneOf.optional([true, false]) : oneOf([true, false]);
    default: {
      const rule = {
        columns: [field.columns[0].rule, field.columns[1].rule] as [NumberRule, NumberRule],
        ...(field.minRows !== undefined && { minRows: field.minRows }),
        maxRows: 2000,
        ...(field.falling === true && { whole: fallsStrictly }),
        ...(field.neverRising === true && { whole: neverRises }),
      };
      return field.optional === true ? table.optional(rule) : table(rule);
    }
  }
}

/** Says which row does not fall, or null. */
export function fallsStrictly(rows: [number, number][]): string | null {
  const rise = rows.findIndex(([, y], i) => i > 0 && y >= rows[i - 1]![1]);
  return rise > 0 ? `must fall strictly in time (row ${rise} does not)` : null;
}

/** Says which row rises, or that a curve of a pump does not begin at its shut-off head; null: neither. */
function neverRises(rows: [number, number][]): string | null {
  if (rows[0]![0] !== 0) return 'must begin at a flow of 0';
  const rise = rows.findIndex(([, y], i) => i > 0 && y > rows[i - 1]![1]);
  return rise > 0 ? `must never rise in head (row ${rise} does)` : null;
}

/** What stands at a field's name in a part's data. */
export function fieldValue(data: object, name: string): unknown {
  return name
    .split('.')
    .reduce<unknown>(
      (at, key) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[key] : undefined),
      data,
    );
}

/** Data from values by field name; what is undefined is left out. */
export function dataFrom(values: ReadonlyMap<string, unknown>): Record<string, unknown> {
  const data: Record<string, unknown> = {};
  for (const [name, value] of values) {
    if (value === undefined) continue;
    const [first, second] = name.split('.') as [string, string | undefined];
    if (second === undefined) data[first] = value;
    else data[first] = { ...(data[first] as object | undefined), [second]: value };
  }
  return data;
}
