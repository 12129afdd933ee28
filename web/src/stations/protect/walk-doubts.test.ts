import { describe, expect, test } from '@jest/globals';
import { doubtsOf } from './walk-doubts';

const read = (...values: number[]) => values.map((value, i) => ({ id: `j${i}`, tag: `J${i}`, value }));
const unknown = () => null;
const asked = (
  values: number[],
  work: 'torque' | 'drop' | 'bond',
  currentA: number | null,
  expected: (id: string) => number | null = unknown,
) => doubtsOf(read(...values), work, currentA, expected).map(({ value }) => value);

describe('readings of a walk that are asked about', () => {
  test('against what is expected: eight times and an eighth are the ends', () => {
    expect(asked([14, 1.4, 112, 113, 1.74], 'torque', null, () => 14)).toEqual([1.4, 113, 1.74]);
    expect(asked([0.0021, -0.0021, 2.1], 'drop', 20, () => 0.002)).toEqual([2.1]);
  });

  test('against the middle of three or more where nothing is expected', () => {
    expect(asked([0.002, 0.0021, 0.021, 0.0022], 'drop', 20)).toEqual([0.021]);
    expect(asked([0.002, 0.021], 'drop', 20)).toEqual([]);
  });

  test('where all are slipped alike: a joint of milliohms a thousand, a bond of kiloohms', () => {
    // Millivolts typed as volts at 20 A, 0.1 Ω each, and the other way round.
    expect(asked([2, 2.1, 2.2, 2], 'drop', 20)).toHaveLength(4);
    expect(asked([2e-6, 2.1e-6, 2.2e-6], 'drop', 20)).toHaveLength(3);
    expect(asked([0.002], 'drop', 20)).toEqual([]);
    expect(asked([0.5, 60], 'bond', 10)).toEqual([60]);
    expect(asked([0.00005], 'bond', 10)).toEqual([0.00005]);
    // No current said yet: nothing can be told.
    expect(asked([2], 'drop', null)).toEqual([]);
    expect(asked([0], 'drop', 20)).toEqual([]);
  });
});
