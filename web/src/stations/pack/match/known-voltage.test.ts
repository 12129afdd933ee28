import { expect, test } from '@jest/globals';
import type { Entry } from '@torvek/core/record';
import { knownVoltage, lastLevelled } from './known-voltage';

const side = { id: 'string-1', tag: 'S1', modules: ['m1', 'm2'] };
const at = (day: number) => `2026-11-${String(day).padStart(2, '0')}T08:00:00.000Z`;
const intake = (days: Record<string, number>) => (module: string) =>
  days[module] === undefined ? null : { voltageV: module === 'm1' ? 44.1 : 44.3, takenAt: at(days[module]) };
const levelled = (day: number, afterV: number, id = 'string-1', seq = day): Entry =>
  ({
    seq,
    takenAt: at(day),
    body: {
      kind: 'levelled',
      sides: [
        { id, tag: 'S1', beforeV: 88, afterV },
        { id: 'string-2', tag: 'S2', beforeV: 89, afterV: 88.7 },
      ],
    },
  }) as unknown as Entry;

test('a side is known by its modules once all of them were measured', () => {
  const known = knownVoltage(side, intake({ m1: 3, m2: 5 }), [])!;
  expect(known).toMatchObject({ from: 'intake', takenAt: at(3) });
  expect(known.voltageV).toBeCloseTo(88.4, 9);
  expect(knownVoltage(side, intake({ m1: 3 }), [])).toBeNull();
});

test('by what it was brought to since; a module that was measured after that says more', () => {
  const after = (day: number) => knownVoltage(side, intake({ m1: 3, m2: 5 }), [levelled(day, 88.71)]);
  expect(after(6)).toEqual({ voltageV: 88.71, from: 'levelled', takenAt: at(6) });
  expect(after(4)).toMatchObject({ from: 'intake' });
  expect(knownVoltage(side, intake({}), [levelled(6, 88.71)])).toMatchObject({ voltageV: 88.71 });
  expect(knownVoltage(side, intake({}), [levelled(6, 88.71, 'string-9')])).toBeNull();
});

test('of several the newest counts, whichever the record has last', () => {
  expect(lastLevelled('string-1', [levelled(9, 2), levelled(7, 1)])?.body.sides[0]!.afterV).toBe(2);
  expect(lastLevelled('string-2', [levelled(7, 1, 'string-9')])?.takenAt).toBe(at(7));
  expect(lastLevelled('string-3', [levelled(7, 1)])).toBeNull();
});
