import type * as yup from 'yup';
import { judgedInParts, typeName } from './judged';
import { isWithin, numberProblem, numberSchema, type NumberRule } from './number';

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

type Wrong = { path: string; message: string } | null;

const rowsAtMost = 20_000;

function tableProblem(
  value: unknown,
  { columns, minRows = 1, maxRows = rowsAtMost, rising = true, whole }: TableRule,
): Wrong {
  const at = (path: string, message: string) => ({ path, message });
  if (!Array.isArray(value)) return at('', `must be a list of pairs, not ${typeName(value)}`);
  if (value.length < minRows) return at('', `must have at least ${minRows} rows`);
  if (value.length > maxRows) return at('', `must have at most ${maxRows} rows`);
  const rows: unknown[] = value;
  const [x, y] = columns;
  for (let i = 0; i < rows.length; i += 1) {
    const row = rows[i];
    if (Array.isArray(row) && row.length === 2 && isWithin(row[0], x) && isWithin(row[1], y)) continue;
    if (!Array.isArray(row) || row.length !== 2) return at(`${i}`, 'must be a pair of numbers');
    for (const column of [0, 1] as const) {
      const message = numberProblem(row[column], columns[column]);
      if (message !== null) return at(`${i}.${column}`, message);
    }
  }
  const pairs = rows as [number, number][];
  const fall = rising ? pairs.findIndex((pair, i) => i > 0 && pair[0] <= pairs[i - 1]![0]) : -1;
  if (fall > 0) return at('', `must rise strictly in its first column (row ${fall} does not)`);
  const message = whole?.(pairs) ?? null;
  return message === null ? null : at('', message);
}

const inList = (wrong: Wrong) => (wrong === null ? [] : [wrong]);

/** A table of pairs, checked in one loop. A wrong cell is named by its own path, a wrong order by the table's. */
const tableShape = (rule: TableRule, optional: boolean): yup.MixedSchema =>
  judgedInParts(
    (value) => inList(tableProblem(value, rule)),
    optional,
    () => ({
      type: 'array',
      minItems: rule.minRows ?? 1,
      maxItems: rule.maxRows ?? rowsAtMost,
      items: {
        type: 'array',
        minItems: 2,
        maxItems: 2,
        prefixItems: rule.columns.map(numberSchema),
        items: false,
      },
      ...((rule.rising ?? true) && { description: 'The first column rises strictly.' }),
    }),
  );

/** A required table of pairs; `table.optional(rule)` where it may be absent. */
export const table = (rule: TableRule): yup.MixedSchema => tableShape(rule, false);
table.optional = (rule: TableRule): yup.MixedSchema => tableShape(rule, true);

function spanProblem(value: unknown, rule: NumberRule): Wrong {
  if (!Array.isArray(value) || value.length !== 2) return { path: '', message: 'must be a pair of numbers' };
  for (const end of [0, 1] as const) {
    const message = numberProblem(value[end], rule);
    if (message !== null) return { path: `${end}`, message };
  }
  const [low, high] = value as [number, number];
  return low < high ? null : { path: '', message: 'must rise: its first value below its second' };
}

/** A required pair `[low, high]` of numbers under one rule, low below high. */
export const span = (rule: NumberRule): yup.MixedSchema =>
  judgedInParts(
    (value) => inList(spanProblem(value, rule)),
    false,
    () => ({
      type: 'array',
      minItems: 2,
      maxItems: 2,
      prefixItems: [numberSchema(rule), numberSchema(rule)],
      items: false,
      description: 'The first lies below the second.',
    }),
  );
