import { describe, expect, test } from '@jest/globals';
import { blankDesign, type Design } from '../../model/document';
import { shapePack } from '../../trade/pack';
import { catalogueOf } from '../../model/parts';
import type { EntryBody } from '../../record';
import { balanceStates } from '.';

const design: Design = blankDesign();
let made = 0;
const part = catalogueOf('module').find(({ data }) => data.cellsInSeries === 2)!;
shapePack(design, { strings: 1, modulesPerString: 2, part }, (prefix) => `${prefix}-${(made += 1)}`);
const [first, second] = design.strings[Object.keys(design.strings)[0]!]!.modules as [string, string];
const one = `${first}/cell-1`;
const two = `${first}/cell-2`;

let seq = 0;
const entry = (takenAt: string, body: EntryBody) => ({ seq: (seq += 1), takenAt, body });
const onOff = (takenAt: string, act: 'on' | 'off', cells: string[]) =>
  entry(takenAt, { kind: 'balance', act, gear: 'load', cells, place: 1, recipe: [] });
const read = (takenAt: string, cell: string, ...samples: [number, number][]) =>
  entry(takenAt, { kind: 'cell-voltages', entered: 'typed', cells: [{ cell, tag: cell, samples }] });

const entries = [
  read('2026-11-16T07:00:00Z', one, [0, 3.29]),
  onOff('2026-11-16T08:00:00Z', 'on', [one, two]),
  onOff('2026-11-16T12:00:00Z', 'off', [one]),
  read('2026-11-16T12:30:00Z', one, [0, 2.8], [1.5, 2.84]),
];

describe('where cells stand in balancing', () => {
  test('a cell of each module, in the order of the string, waiting until something is done', () => {
    const fresh = balanceStates(design, []);
    expect(fresh.map(({ id }) => id)).toEqual([one, two, `${second}/cell-1`, `${second}/cell-2`]);
    expect(fresh[0]).toMatchObject({ phase: 'waiting', round: 0, samples: [], last: null });
    expect(fresh[1]!.tag).toMatch(/\.2$/);
  });

  test('loads and readings, by their times; what was read before the rest is not of it', () => {
    const [a, b, c] = balanceStates(design, entries);
    expect(a).toMatchObject({
      phase: 'resting',
      round: 1,
      sinceMs: Date.parse('2026-11-16T12:00:00Z'),
      last: { voltageV: 2.84, atMs: Date.parse('2026-11-16T14:00:00Z') },
    });
    expect(a!.samples).toEqual([
      [0.5, 2.8],
      [2, 2.84],
    ]);
    expect(b).toMatchObject({ phase: 'on', place: 1, gear: 'load', round: 1 });
    expect(c!.phase).toBe('waiting');
  });

  test('the order of recording does not matter, the times do', () => {
    expect(balanceStates(design, [...entries].reverse())).toEqual(balanceStates(design, entries));
  });

  test('another round begins a rest anew', () => {
    const [a] = balanceStates(design, [
      ...entries,
      onOff('2026-11-17T08:00:00Z', 'on', [one]),
      onOff('2026-11-17T10:00:00Z', 'off', [one]),
      read('2026-11-17T11:00:00Z', one, [0, 2.7]),
    ]);
    expect(a).toMatchObject({ round: 2, samples: [[1, 2.7]] });
    expect(a!.stretches.map(({ fromMs, toMs }) => (toMs! - fromMs) / 3.6e6)).toEqual([4, 2]);
  });

  test('of two readings at one instant the later one counts; cells that are no more are passed over', () => {
    const [a] = balanceStates(design, [
      ...entries,
      read('2026-11-16T14:00:00Z', one, [0, 2.85]),
      read('2026-11-16T14:00:00Z', 'module-gone/cell-1', [0, 2]),
      onOff('2026-11-16T14:00:00Z', 'on', ['module-gone/cell-1']),
    ]);
    expect(a!.samples.at(-1)).toEqual([2, 2.85]);
  });
});
