import { describe, expect, test } from '@jest/globals';
import type { Design } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';
import { levelling, newcomerOf, restOf } from './into-string';

const design = {
  parts: {
    'kind@1': {
      kind: 'module',
      label: 'Kind',
      data: {
        cell: {
          ocvTable: [
            [0, 3],
            [1, 4],
          ],
          capacityAh: 100,
          resistanceOhm: 0.002,
          minV: 2.8,
          maxV: 4.1,
        },
        cellsInSeries: 4,
        cellsInParallel: 1,
        continuousA: 100,
      },
    },
  },
  modules: {
    m1: { tag: 'M1', part: 'kind@1' },
    m2: { tag: 'M2', part: 'kind@1' },
    m3: { tag: 'M3', part: 'kind@1' },
    lone: { tag: 'L', part: 'kind@1' },
  },
  strings: {
    s1: { tag: 'String 1', modules: ['m1', 'm2', 'm3'] },
    s2: { tag: 'String 2', modules: ['lone'] },
  },
  pack: { balance: { toleranceV: 0.01, restHours: 24 } },
} as unknown as Design;

let seq = 0;
const at = (takenAt: string, body: object): Entry =>
  ({ seq: (seq += 1), takenAt, subjects: [], body }) as unknown as Entry;
const volts = (takenAt: string, id: string, value: number, more: object = {}) =>
  at(takenAt, {
    kind: 'result',
    step: `intake-voltage:${id}`,
    measured: { kind: 'value', value, unit: 'V', ...more },
  });
const act = (takenAt: string, way: 'on' | 'off') =>
  at(takenAt, { kind: 'balance', act: way, gear: 'load', cells: ['m2/cell-1'], place: null, recipe: [] });

describe('what the record says of a module that goes into its string', () => {
  const begun = [
    volts('2026-11-02T08:00:00Z', 'm1', 14.4),
    volts('2026-11-02T08:00:00Z', 'm2', 14.9),
    volts('2026-11-02T08:05:00Z', 'm2', 14.8),
    volts('2026-11-02T08:10:00Z', 'm3', 99, { over: true }),
    act('2026-11-02T09:00:00Z', 'on'),
  ];

  test('the newest voltage of each; what was beyond the meter is none', () => {
    const found = newcomerOf(design, begun, 'm2')!;
    expect(found.modules.map(({ voltageV }) => voltageV)).toEqual([14.4, 14.8, null]);
    expect([found.moduleV, found.phase, found.gear, found.rest]).toEqual([14.8, 'on', 'load', []]);
    expect(found.sinceMs).toBe(Date.parse('2026-11-02T09:00:00Z'));
    expect(newcomerOf(design, begun, 'lone')).toBeNull();
  });

  test('its target leaves itself out; a typed voltage counts before the recorded one', () => {
    const found = newcomerOf(design, begun, 'm2')!;
    const own = levelling(design, found, 'm2', {})!;
    expect([own.targetV, own.toleranceV, own.way]).toEqual([14.4, 0.04, 'draw down']);
    expect(own.ahToMove).toBeCloseTo(10, 9);
    expect(levelling(design, found, 'm2', { moduleV: 14 })!.way).toBe('charge up');
    expect(levelling(design, { ...found, moduleV: null }, 'm2', {})).toBeNull();
    const measured = { ...found, capacityAh: 80 };
    expect(levelling(design, measured, 'm2', {})!.ahToMove).toBeCloseTo(8, 9);
  });

  test('readings after the load came off are its rest, in hours from there', () => {
    const rested = [
      ...begun,
      act('2026-11-02T13:00:00Z', 'off'),
      volts('2026-11-02T14:00:00Z', 'm2', 14.38),
      volts('2026-11-03T13:00:00Z', 'm2', 14.41),
    ];
    const found = newcomerOf(design, rested, 'm2')!;
    expect([found.phase, found.rest]).toEqual([
      'resting',
      [
        [1, 14.38],
        [24, 14.41],
      ],
    ]);
    const ended = restOf(design, found, levelling(design, found, 'm2', {})!);
    expect([ended.by, ended.settledV, ended.verdict]).toEqual(['rested out', 14.41, 'will settle inside']);
    const early = { ...found, rest: found.rest.slice(0, 1) };
    expect(restOf(design, early, levelling(design, early, 'm2', {})!).by).toBe('too few readings');
  });
});
