import { describe, expect, test } from '@jest/globals';
import { hunt, missedAtMost, type HuntTry } from './hunt';
import { donorReadings } from './donor-readings';
import { plugOrder } from './plug-order';
import type { MappedBoard } from './bms-map';
import { spinFuse, spinOf } from './spin';

const ids = (count: number) => Array.from({ length: count }, (_, i) => ({ id: `s${i}` }));
const quiet = (out: string[], starts = 3): HuntTry => ({ out, starts, restarts: 0 });
const loud = (out: string[], starts = 3): HuntTry => ({ out, starts, restarts: starts });

describe('the hunt for what makes a unit restart', () => {
  test('any single cause is found, in no more tries than halving takes', () => {
    for (const count of [1, 2, 3, 5, 8, 13, 21])
      for (let cause = 0; cause < count; cause += 1) {
        const suspects = ids(count);
        const tries: HuntTry[] = [];
        let now = hunt(suspects, tries, 3);
        while (now.next !== null) {
          expect(tries.length).toBeLessThanOrEqual(3 + Math.ceil(Math.log2(count)));
          const gone = now.next.includes(`s${cause}`);
          tries.push(gone ? quiet(now.next, now.startsDue) : loud(now.next, now.startsDue));
          now = hunt(suspects, tries, 3);
        }
        expect(now).toMatchObject({ state: 'found', left: [`s${cause}`] });
      }
  });

  test('begins as it stands; a fault that comes rarely asks for more quiet starts before half is excluded', () => {
    expect(hunt(ids(4), [], 3)).toMatchObject({ state: 'baseline', next: [], startsDue: 3 });
    const rare = { out: [], starts: 10, restarts: 2 };
    const now = hunt(ids(4), [rare], 3);
    // (1 − 0.2)^14 = 0.044
    expect(now).toMatchObject({ state: 'halve', next: ['s0', 's1'], startsNeeded: 14, restartFraction: 0.2 });
    expect((1 - 0.2) ** 14).toBeLessThanOrEqual(missedAtMost);
    expect((1 - 0.2) ** 13).toBeGreaterThan(missedAtMost);
    expect(hunt(ids(4), [rare, quiet(['s0', 's1'], 5)], 3)).toMatchObject({
      state: 'repeat',
      next: ['s0', 's1'],
      startsDue: 9,
      left: ['s0', 's1', 's2', 's3'],
    });
    // The starts of one arrangement add up, whatever order its names are in.
    expect(hunt(ids(4), [rare, quiet(['s0', 's1'], 5), quiet(['s1', 's0'], 9)], 3)).toMatchObject({
      state: 'halve',
      left: ['s0', 's1'],
      next: ['s0'],
    });
  });

  test('a restart that was not seen again stays open until the cold starts have passed', () => {
    expect(hunt(ids(4), [quiet([], 2)], 3)).toMatchObject({ state: 'watch', startsDue: 1, next: [] });
    expect(hunt(ids(4), [quiet([], 2), quiet([], 1)], 3)).toMatchObject({ state: 'vanished', next: null });
    expect(hunt(ids(4), [quiet([], 2), loud([], 1)], 3).state).toBe('halve');
  });

  test('the last one left is proved alone; with all excluded there is no single cause', () => {
    const tries = [loud([]), quiet(['s0', 's1']), loud(['s0'])];
    expect(hunt(ids(4), tries, 3)).toMatchObject({ state: 'confirm', next: ['s1'] });
    expect(hunt(ids(4), [...tries, quiet(['s1'])], 3)).toMatchObject({ state: 'found', left: ['s1'] });
    expect(hunt(ids(4), [...tries, loud(['s1'])], 3)).toMatchObject({ state: 'none-left', next: null });
  });
});

const board = (id: string, modules: string[], cellsEach = 1): MappedBoard =>
  ({
    id,
    cells: modules.flatMap((module, m) =>
      Array.from({ length: cellsEach }, (_, i) => ({
        channel: m * cellsEach + i + 1,
        cell: 0,
        module,
        cellInModule: i + 1,
      })),
    ),
    tiedChannels: [],
    referenceFrom: { module: modules[0]!, tap: 0 },
    jumperFrom: null,
  }) as MappedBoard;

describe('in which order plugs and links go in', () => {
  const modules = ['a', 'b', 'c', 'd', 'e', 'f'];

  test('segments that are whole first; a board over a link that stays out waits for it', () => {
    const { moves, reachOver } = plugOrder(
      [board('low', ['a', 'b']), board('mid', ['c', 'd'], 4), board('top', ['e', 'f'])],
      modules,
      [3],
    );
    expect(moves.map((one) => one.board ?? one.joint)).toEqual(['low', 'top', 3, 'mid']);
    expect(moves[0]!.segment).toEqual([1, 3]);
    expect(moves[2]!.segment).toEqual([1, 6]);
    expect(moves[3]).toMatchObject({ waitedFor: [3] });
    expect(reachOver).toEqual([{ board: 'mid', joint: 3, cellsBefore: 4 }]);
  });

  test('boards that end at the links that stay out wait for nothing', () => {
    const { moves, reachOver } = plugOrder(
      [board('low', ['a', 'b', 'c']), board('top', ['d', 'e', 'f'])],
      modules,
      [3, 3, 0, 9],
    );
    expect(moves.map((one) => one.board ?? one.joint)).toEqual(['low', 'top', 3]);
    expect(reachOver).toEqual([]);
  });

  test('no plug is ever in with a link between its cells out, whatever the boards and links', () => {
    let seed = 7;
    const next = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    for (let k = 0; k < 400; k += 1) {
      const count = 2 + Math.floor(next() * 12);
      const names = Array.from({ length: count }, (_, i) => `m${i}`);
      const boards: MappedBoard[] = [];
      for (let at = 0; at < count;) {
        const take = Math.min(count - at, 1 + Math.floor(next() * 4));
        boards.push(board(`b${at}`, names.slice(at, at + take)));
        at += take;
      }
      const out = names.flatMap((_, i) => (i > 0 && next() < 0.4 ? [i] : []));
      const { moves } = plugOrder(boards, names, out);
      const open = new Set(out);
      for (const move of moves) {
        if (move.joint !== null) open.delete(move.joint);
        else {
          const own = boards
            .find(({ id }) => id === move.board)!
            .cells.map(({ module }) => names.indexOf(module) + 1);
          for (let joint = Math.min(...own); joint < Math.max(...own); joint += 1)
            expect(open.has(joint)).toBe(false);
        }
      }
      expect(open.size).toBe(0);
      expect(moves.filter(({ board: id }) => id !== null)).toHaveLength(boards.length);
    }
  });
});

describe('a first spin on a part of the pack', () => {
  const ask = {
    modulesV: [44, 44, 44, 44],
    modulesMaxV: [50, 50, 50, 50],
    modulesOhm: [0.01, 0.01, 0.01, 0.01],
    minV: 130,
    maxV: 160,
  };
  test('the fewest modules that reach what it works from, their highest, and their short', () => {
    expect(spinOf(ask)).toEqual({ modules: 3, voltageV: 132, highestV: 150, shortA: 5000, tooHigh: false });
    expect(spinOf({ ...ask, minV: 132 }).modules).toBe(3);
    expect(spinOf({ ...ask, minV: 133 })).toMatchObject({ modules: 4, highestV: 200, tooHigh: true });
    expect(spinOf({ ...ask, minV: 177 })).toMatchObject({ modules: null, voltageV: 176 });
  });

  const fuse = (ratedA: number, ratedVoltageV: number, breakingA: number, minBreakingA = 0) => ({
    data: {
      ratedA,
      ratedVoltageV,
      breakingA,
      minBreakingA,
      curve: [],
      currentToleranceFraction: 0,
      arcI2tFactor: 1,
      ambientDerating: [],
    },
  });
  test('the smallest fuse that carries it for long, at its voltage, and breaks the short', () => {
    const list = [fuse(40, 200, 6000), fuse(25, 200, 6000), fuse(20, 200, 6000), fuse(25, 100, 9000)];
    const spin = { highestV: 150, shortA: 5000 };
    expect(spinFuse(list, 20, spin)?.data.ratedA).toBe(25);
    expect(spinFuse(list, 21, spin)?.data.ratedA).toBe(40);
    expect(spinFuse(list, 33, spin)).toBeNull();
    expect(spinFuse(list, 20, { ...spin, shortA: 6001 })).toBeNull();
    expect(spinFuse([fuse(25, 200, 6000, 5500)], 20, spin)).toBeNull();
    expect(spinFuse([fuse(25, 150, 5000)], 20, spin)?.data.ratedVoltageV).toBe(150);
  });
});

test('a donor that knows half of the capacity counts twice as fast, and is empty at half; its cells make its voltage', () => {
  const layout = {
    seriesCells: 90,
    strings: 2,
    part: {
      data: {
        cellsInParallel: 3,
        cell: {
          capacityAh: 40,
          ocvTable: [
            [0, 3],
            [1, 4],
          ],
        },
      },
    },
  } as unknown as Parameters<typeof donorReadings>[0];
  const told = donorReadings(layout, { donorCells: 96, donorAh: 120 }, 5)!;
  expect(told.charge).toEqual([
    [0, 0],
    [0.25, 0],
    [0.5, 0],
    [0.75, 0.5],
    [1, 1],
  ]);
  expect(told.emptyAtFraction).toBeCloseTo(0.5, 12);
  expect(told.voltage[2]).toEqual([0.5, 3.5 * 90, 3.5 * 96]);
  const larger = donorReadings(layout, { donorCells: 90, donorAh: 480 }, 3)!;
  expect(larger).toMatchObject({
    emptyAtFraction: null,
    charge: [
      [0, 0.5],
      [0.5, 0.75],
      [1, 1],
    ],
  });
  expect(donorReadings(layout, { donorCells: 90 })).toBeNull();
});
