import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bmsMap, ladderCheck, topologyCompare, type BmsMapInput } from '.';

/** A ladder of cells, each a little different. */
const ladderOf = (cells: number) => {
  const t = [0];
  for (let k = 1; k <= cells; k += 1) t.push(t[k - 1]! + 3.6 + 0.03 * Math.sin(7 * k));
  return t;
};
const check = (measuredV: number[], cells = measuredV.length, change: object = {}) =>
  ladderCheck.calculate({
    cells,
    cellMinV: 3,
    cellMaxV: 4.2,
    tied: measuredV.length - cells,
    measuredV,
    ...change,
  }).result;
const kinds = (measuredV: number[], cells?: number) =>
  check(measuredV, cells).faults.map(({ kind, taps }) => `${kind} ${taps.join(',')}`);

describe('the ladder of a plug', () => {
  const t = ladderOf(12);
  const good = t.slice(1);

  test('a good one has no faults, with ties and without', () => {
    expect(check(good)).toMatchObject({ ok: true, faults: [], doNotConnect: false });
    expect(check([...good, t[12]!, t[12]! + 0.019], 12).ok).toBe(true);
  });
  test('two taps exchanged, near and far, are named, whichever they are', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 12 }), (a, b) => {
        fc.pre(a !== b);
        const [i, k] = [Math.min(a, b), Math.max(a, b)];
        const v = [...good];
        [v[i - 1], v[k - 1]] = [v[k - 1]!, v[i - 1]!];
        expect(kinds(v)).toEqual([`${k - i === 1 ? 'swapped' : 'swapped-far'} ${i},${k}`]);
      }),
    );
  });
  test('the reference exchanged with a tap', () => {
    for (let k = 1; k <= 12; k += 1) {
      const v = good.map((one, i) => (i === k - 1 ? -t[k]! : one - t[k]!));
      expect(kinds(v)).toEqual([`${k === 1 ? 'swapped' : 'swapped-far'} 0,${k}`]);
    }
  });
  test('two exchanges apart from each other; a rotation of three is unknown', () => {
    const two = [...good];
    [two[1], two[2]] = [two[2]!, two[1]!];
    [two[6], two[10]] = [two[10]!, two[6]!];
    expect(kinds(two)).toEqual(['swapped 2,3', 'swapped-far 7,11']);
    const three = [...good];
    [three[2], three[5], three[8]] = [three[5]!, three[8]!, three[2]!];
    expect(kinds(three)).toEqual(['unknown ']);
    expect(check(three).doNotConnect).toBe(true);
  });
  test('a plug turned round, with its reference and without', () => {
    const without = [...good].reverse();
    expect(check(without).faults.map(({ kind }) => kind)).toEqual(['reversed']);
    const withReference = Array.from({ length: 12 }, (_, i) => t[11 - i]! - t[12]!);
    expect(check(withReference).faults.map(({ kind }) => kind)).toEqual(['reversed']);
  });
  test('an open tap, two in a row, the top, the reference', () => {
    for (let k = 1; k < 12; k += 1) {
      const v = [...good];
      v[k - 1] = 0.2;
      expect(kinds(v)).toEqual([`open ${k}`]);
    }
    const row = [...good];
    row[4] = 1;
    row[5] = 1.2;
    expect(kinds(row)).toEqual(['open 5', 'open 6']);
    const top = [...good];
    top[11] = top[10]! - 1;
    expect(kinds(top)).toEqual(['open 12']);
    expect(kinds(good.map(() => 0.3))).toEqual(['open 0']);
  });
  test('the ties prove an open top that reads like a cell', () => {
    const v = [...good];
    v[11] = v[10]! + 3.1;
    expect(kinds([...v, t[12]!, t[12]!], 12)).toEqual(['open 12']);
    expect(kinds([...good, 2, t[12]!], 12)).toEqual(['missing-tie 13']);
    expect(kinds([...good, 2, 1], 12)).toEqual(['missing-tie 13', 'missing-tie 14']);
  });
  test('from a tap on one pin too low', () => {
    for (let k = 1; k < 11; k += 1) {
      const v = good.map((one, i) => (i + 1 < k ? one : (t[i + 2] ?? t[12]!)));
      expect(kinds(v)).toEqual([`shifted ${k}`]);
    }
  });
  test('cells out of their limits are cells, and the plug may be connected', () => {
    const v = [...good];
    for (let i = 5; i < 12; i += 1) v[i]! -= 1.2;
    expect(kinds(v)).toEqual(['low-cell 6']);
    expect(check(v)).toMatchObject({ ok: false, doNotConnect: false });
    const high = good.map((one, i) => (i >= 5 ? one + 0.9 : one));
    expect(kinds(high)).toEqual(['high-cell 6']);
    // Above a quarter more than its highest it is no cell.
    const wrong = good.map((one, i) => (i >= 5 ? one + 1.9 : one));
    expect(kinds(wrong)).toEqual(['unknown ']);
  });
  test('as many readings as cells and ties', () => {
    const parsed = ladderCheck.parse({ cells: 12, cellMinV: 3, cellMaxV: 4.2, tied: 1, measuredV: good });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['measuredV']);
    const limits = ladderCheck.parse({ cells: 12, cellMinV: 4.2, cellMaxV: 4.2, measuredV: good });
    expect(limits.ok ? [] : limits.issues.map(({ path }) => path)).toEqual(['cellMaxV']);
  });
  test('a hundred cells, all of them odd, are unknown', () => {
    expect(check(Array.from({ length: 100 }, (_, i) => (i % 2 === 0 ? 50 : -50))).faults[0]!.kind).toBe(
      'unknown',
    );
  });
});

describe('the channel map', () => {
  const base: BmsMapInput = {
    modules: [
      { id: 'M1', cells: 6 },
      { id: 'M2', cells: 6 },
    ],
    boards: [
      { id: 'B1', channels: 8 },
      { id: 'B2', channels: 8 },
    ],
    strategy: 'fill',
    breaks: [{ afterModule: 'M1', kind: 'fuse', resistanceOhm: 0.001 }],
    peakCurrentA: 100,
    avoidStraddlingBreaks: true,
  };
  const run = (change: Partial<BmsMapInput>) => bmsMap.calculate({ ...base, ...change });

  test('a board ends at a fuse; where it may not, it straddles it, with its millivolts', () => {
    const ends = run({}).result;
    expect(ends.boards.map(({ cells }) => cells.length)).toEqual([6, 6]);
    expect(ends.straddles).toEqual([]);
    const over = run({ avoidStraddlingBreaks: false }).result;
    expect(over.boards.map(({ cells }) => cells.length)).toEqual([8, 4]);
    expect(over.straddles).toEqual([{ board: 'B1', afterModule: 'M1', kind: 'fuse', mvAtPeak: 100 }]);
    expect(over.boards[1]).toMatchObject({
      referenceFrom: { module: 'M2', tap: 2 },
      jumperFrom: 'B1',
      tiedChannels: [5, 6, 7, 8],
    });
  });
  test('a link does not end a board, and counts also without resistance', () => {
    const { result } = run({ breaks: [{ afterModule: 'M1', kind: 'link' }] });
    expect(result.straddles).toEqual([{ board: 'B1', afterModule: 'M1', kind: 'link', mvAtPeak: 0 }]);
  });
  test('per module: none serves two; a large module takes several', () => {
    const { result } = run({
      strategy: 'per-module',
      modules: [
        { id: 'M1', cells: 10 },
        { id: 'M2', cells: 3 },
      ],
      boards: ['B1', 'B2', 'B3', 'B4'].map((id) => ({ id, channels: 8 })),
      breaks: [],
    });
    expect(result.boards.map(({ id, cells, jumperFrom }) => [id, cells.length, jumperFrom])).toEqual([
      ['B1', 8, null],
      ['B2', 2, 'B1'],
      ['B3', 3, null],
    ]);
    expect([result.wires, result.unusedBoards]).toEqual([13 + 3, ['B4']]);
  });
  test('too few cells for a board, or too few channels for the cells', () => {
    const below = run({
      boards: [
        { id: 'B1', channels: 8 },
        { id: 'B2', channels: 8, minChannels: 7 },
      ],
    });
    expect(below.result.feasible).toBe(false);
    expect(below.findings.map(({ rule }) => rule.id)).toEqual(['bms-map.below-minimum']);
    const left = run({ boards: [{ id: 'B1', channels: 8 }] });
    expect([left.result.feasible, left.result.cellsLeft]).toEqual([false, 6]);
  });
  test('a break after no module is refused', () => {
    const parsed = bmsMap.parse({ ...base, breaks: [{ afterModule: 'M9', kind: 'link' }] });
    expect(parsed.ok ? [] : parsed.issues.map(({ path }) => path)).toEqual(['breaks.0.afterModule']);
  });
});

test('a bleed of just what the leads carry is within', () => {
  const compare = (bleedA: number) =>
    topologyCompare.calculate({
      boxes: [{ id: 'X', modules: [{ cells: 5, sensors: 1 }] }],
      leadLimitA: 0.2,
      options: [{ id: 'a', kind: 'central', channelsPerUnit: 4, bleedA, unitWiresOut: 3 }],
    }).result.options[0]!;
  expect(compare(0.2)).toEqual({
    id: 'a',
    units: 2,
    channelsUsed: 5,
    channelsSpare: 3,
    senseWiresThroughWalls: 8,
    lvWiresThroughWalls: 0,
    bleedWithinLead: true,
  });
  expect(compare(0.21).bleedWithinLead).toBe(false);
});
