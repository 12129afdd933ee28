import { formatQuantity } from '../../ground/quantity';
import { nominalOf } from './expectation';
import type { Case, Hypothesis } from './procedure';

/** Slips of reading: sign, decimal point. */
export function slips({ expected }: Case, value: number): Hypothesis[] {
  const nominal = nominalOf(expected);
  if (nominal === null || nominal === 0) return [];
  const q = (x: number) => formatQuantity(x, expected.unit, 4);
  const within = (x: number) =>
    expected.kind === 'range' && x >= (expected.min ?? -Infinity) && x <= (expected.max ?? Infinity);
  const slip = (factor: number, cause: string, check: string): Hypothesis[] =>
    within(value / factor)
      ? [{ cause, check, because: `${q(value / factor)} would be in place`, predicts: value }]
      : [];
  return [
    ...slip(
      -1,
      'Leads swapped, or the part is labelled the wrong way round',
      'Measure again with the red lead at the marked +; if it stays negative, mark the part.',
    ),
    ...slip(
      10,
      'Meter in another range: ten times too much',
      'Prove the meter on a known source in this range.',
    ),
    ...slip(0.1, 'Meter in another range: a tenth', 'Prove the meter on a known source in this range.'),
    ...slip(
      1000,
      'Unit taken for another: a thousand times too much',
      'Read the prefix on the display again.',
    ),
    ...slip(0.001, 'Unit taken for another: a thousandth', 'Read the prefix on the display again.'),
  ];
}
