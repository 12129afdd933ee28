import equal from 'fast-deep-equal';
import { fieldValue, partFields, type Part, type PartField } from '../parts';
import { formatNumber } from '../../ground/quantity';

export interface Difference {
  label: string;
  from: string;
  to: string;
}

const names: [keyof Part, string][] = [
  ['make', 'Make'],
  ['number', 'Number'],
  ['label', 'Name'],
  ['source', 'Source'],
];

/** What differs between two parts of one kind: words first, then the data in the order of a sheet. */
export function differences(from: Part, to: Part): Difference[] {
  const words = names.flatMap(([key, label]) =>
    from[key] === to[key]
      ? []
      : [{ label, from: String(from[key] ?? 'none'), to: String(to[key] ?? 'none') }],
  );
  const data = partFields[to.kind].flatMap((field) => {
    const [before, after] = [fieldValue(from.data, field.name), fieldValue(to.data, field.name)];
    return equal(before, after)
      ? []
      : [{ label: field.label, from: sayField(field, before), to: sayField(field, after) }];
  });
  return [...words, ...data];
}

/** A figure of a part in words, with its unit. */
export function sayField(field: PartField, value: unknown): string {
  if (value === undefined) return 'not given';
  switch (field.kind) {
    case 'number':
      return field.unit === 'fraction'
        ? `${formatNumber((value as number) * 100)} %`
        : withUnit(formatNumber(value as number, 4), field.unit);
    case 'choice':
      return withUnit(String(value), field.unit ?? '');
    case 'flag':
      return value === true ? field.yes : field.no;
    default: {
      const rows = value as [number, number][];
      const [x, y] = field.columns;
      const point = ([a, b]: [number, number]) =>
        `${withUnit(formatNumber(a), x.unit)}: ${withUnit(formatNumber(b), y.unit)}`;
      return rows.length === 1
        ? point(rows[0]!)
        : `${rows.length} points, ${point(rows[0]!)} to ${point(rows.at(-1)!)}`;
    }
  }
}

const withUnit = (text: string, unit: string) =>
  unit === '' || unit === 'fraction' ? text : `${text} ${unit}`;
