import { numberProblem, type NumberRule } from '../../ground/shape';
import { formatNumber } from '../../ground/quantity';
import { partFields } from './fields';
import type { Part } from './kinds';
import { fieldValue } from './part-schema';

/** A figure of a part that nothing of its kind can have. */
export interface Impossible {
  label: string;
  unit: string;
  value: number;
  words: string;
}

/**
 * What cannot be in the data of a part: a design keeps what a sheet once said, whatever it was, and the library's door, which would
 * refuse it, is not asked again.
 */
export function impossibleIn(part: Part): Impossible[] {
  const found: Impossible[] = [];
  const hold = (label: string, unit: string, value: unknown, rule: NumberRule): boolean => {
    if (typeof value !== 'number') return true;
    const problem = numberProblem(value, rule);
    if (problem === null) return true;
    const of = unit === '' ? '' : ` ${unit}`;
    found.push({
      label,
      unit,
      value,
      words: `${label.toLowerCase()} of ${formatNumber(value)}${of} ${problem}`,
    });
    return false;
  };
  for (const field of partFields[part.kind]) {
    const value = fieldValue(part.data, field.name);
    if (field.kind === 'number') hold(field.label, field.unit, value, field.rule);
    else if (field.kind === 'table' && Array.isArray(value))
      // Of a table the first is enough: one slip of a unit makes every row wrong.
      for (const row of value as [number, number][])
        if (
          !field.columns.every(({ label, unit, rule }, i) =>
            hold(`${field.label}, ${label.toLowerCase()}`, unit, row[i], rule),
          )
        )
          break;
  }
  return found;
}
