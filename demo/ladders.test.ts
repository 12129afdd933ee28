import { expect, test } from '@jest/globals';
import { times } from '../scripts/testing/thorough';
import { ladderCheck, type LadderCheckResult } from '../core/src/trade/monitoring/ladder-check';

function random(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}
const next = random(2026);
/** Cells near one another, as those of a pack are; ties as the top. */
const ladder = (cells: number, tied: number): number[] => {
  const mean = 3.3 + 0.7 * next();
  const taps: number[] = [];
  for (let i = 0; i < cells; i += 1) taps.push((taps.at(-1) ?? 0) + mean + 0.1 * (next() - 0.5));
  return [...taps, ...Array.from({ length: tied }, () => taps.at(-1)!)];
};
const check = (cells: number, tied: number, measuredV: number[]): LadderCheckResult => {
  const parsed = ladderCheck.parse({ cells, cellMinV: 3, cellMaxV: 4.2, tied, measuredV });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return ladderCheck.calculate(parsed.input).result;
};
const upTo = (most: number) => Math.floor(most * next());

test('every true ladder of 4 to 24 cells passes', () => {
  for (let k = 0; k < times(300, 2500); k += 1) {
    const [cells, tied] = [4 + upTo(21), upTo(4)];
    expect(check(cells, tied, ladder(cells, tied))).toMatchObject({
      ok: true,
      faults: [],
      doNotConnect: false,
    });
  }
});

test('two taps exchanged are named, whichever they are', () => {
  for (let k = 0; k < times(400, 2500); k += 1) {
    const [cells, tied] = [5 + upTo(20), upTo(4)];
    const taps = ladder(cells, tied);
    const a = upTo(cells);
    const b = (a + 1 + upTo(cells - 1)) % cells;
    [taps[a], taps[b]] = [taps[b]!, taps[a]!];
    const [low, high] = [Math.min(a, b) + 1, Math.max(a, b) + 1];
    const { ok, faults, doNotConnect } = check(cells, tied, taps);
    expect([ok, doNotConnect]).toEqual([false, true]);
    // The top with its ties is told by the ties as well: then it may be one exchange or an open top.
    if (high < cells || tied === 0)
      expect([cells, faults]).toEqual([
        cells,
        [{ kind: high - low === 1 ? 'swapped' : 'swapped-far', taps: [low, high] }],
      ]);
  }
});

test('a plug turned round, an open tap, a tie that is missing: named, and none passes', () => {
  for (let k = 0; k < times(400, 2500); k += 1) {
    const [cells, tied] = [5 + upTo(20), upTo(4)];
    const turned = ladder(cells, 0).reverse();
    expect(check(cells, 0, turned)).toMatchObject({ faults: [{ kind: 'reversed' }], doNotConnect: true });
    const open = ladder(cells, tied);
    const tap = upTo(cells - 1);
    open[tap] = 0.01;
    expect(check(cells, tied, open).faults).toEqual([{ kind: 'open', taps: [tap + 1] }]);
    if (tied === 0) continue;
    const missing = ladder(cells, tied);
    const tie = cells + upTo(tied);
    missing[tie] = 0.02;
    expect(check(cells, tied, missing).faults).toEqual([{ kind: 'missing-tie', taps: [tie + 1] }]);
  }
});

test('two faults together never pass as good', () => {
  for (let k = 0; k < times(250, 2500); k += 1) {
    const cells = 6 + upTo(19);
    const taps = ladder(cells, 0);
    const a = upTo(cells - 1);
    [taps[a], taps[a + 1]] = [taps[a + 1]!, taps[a]!];
    taps[(a + 3) % (cells - 1)] = 0.01;
    expect(check(cells, 0, taps)).toMatchObject({ ok: false, doNotConnect: true });
  }
});
