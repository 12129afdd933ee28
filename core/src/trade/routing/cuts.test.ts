import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { conduitFit, cutPlan, pull, type PullSection } from '.';
import { layWell } from './lay-well';
import { compareWorth, layExactly, worthOf, type Laying } from './place-cuts';

/** Every laying there is. */
function* every(reels: number, cuts: number): Generator<Laying> {
  const total = (reels + 1) ** cuts;
  for (let code = 0; code < total; code += 1) {
    let rest = code;
    const reelOf = Array.from({ length: cuts }, () => {
      const digit = rest % (reels + 1);
      rest = Math.floor(rest / (reels + 1));
      return digit - 1;
    });
    yield { reelOf };
  }
}

const tenths = (least: number, most: number) => fc.integer({ min: least, max: most }).map((n) => n / 10);

describe('cuts on reels', () => {
  test('exact: as good as the best of every laying, down to the last criterion', () => {
    fc.assert(
      fc.property(
        fc.array(tenths(5, 40), { minLength: 1, maxLength: 3 }),
        fc.array(tenths(2, 25), { minLength: 1, maxLength: 6 }),
        (reels, cuts) => {
          const kerf = 0.005;
          const worth = (one: Laying) => worthOf(reels, cuts, kerf, one);
          let best: Laying | null = null;
          for (const one of every(reels.length, cuts.length)) {
            const left = [...reels];
            one.reelOf.forEach((reel, i) => reel >= 0 && (left[reel]! -= cuts[i]! + kerf));
            if (left.some((length) => length < -1e-9)) continue;
            if (best === null || compareWorth(worth(one), worth(best)) < 0) best = one;
          }
          const found = layExactly(reels, cuts, kerf);
          expect(compareWorth(worth(found), worth(best!))).toBe(0);
        },
      ),
      { numRuns: 120 },
    );
  });

  test('of many: never worse than first-fit, no reel overfull, each cut once', () => {
    fc.assert(
      fc.property(
        fc.array(tenths(20, 120), { minLength: 1, maxLength: 8 }),
        fc.array(tenths(3, 60), { minLength: 1, maxLength: 30 }),
        (reels, cuts) => {
          const found = layWell(reels, cuts, 0.005);
          const left = [...reels];
          const first = cuts.map((cut) => {
            const reel = left.findIndex((one) => one >= cut + 0.005 - 1e-9);
            if (reel >= 0) left[reel]! -= cut + 0.005;
            return reel;
          });
          const worth = (reelOf: number[]) => worthOf(reels, cuts, 0.005, { reelOf });
          expect(compareWorth(worth(found.reelOf), worth(first))).toBeLessThanOrEqual(0);
          expect(Math.min(...worth(found.reelOf).left)).toBeGreaterThan(-1e-9);
        },
      ),
      { numRuns: 60 },
    );
  });

  const plan = (reels: number[], cuts: number[], change: object = {}) => {
    const parsed = cutPlan.parse({
      reels: reels.map((lengthM, i) => ({ id: `r${i}`, lengthM })),
      cuts: cuts.map((lengthM, i) => ({ id: `c${i}`, lengthM })),
      ...change,
    });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    return cutPlan.calculate(parsed.input);
  };

  test('the most cuts first, though a long one would use more of the reel', () => {
    const { result, findings } = plan([5], [4.9, 2.4, 2.5]);
    expect(result.assignments).toEqual([
      { reelId: 'r0', cutIds: ['c1', 'c2'], leftM: expect.closeTo(0.09, 9) },
    ]);
    expect([result.unplaced, findings[0]!.rule.id]).toEqual([['c0'], 'cut-plan.unplaced']);
  });

  test('a reel that fits exactly with its kerf is used up; the kerf of the last cut counts', () => {
    expect(plan([4.01], [2, 2]).result.assignments[0]!.leftM).toBeCloseTo(0, 9);
    expect(plan([4.009], [2, 2]).result.unplaced).toHaveLength(1);
    expect(plan([4], [2, 2], { kerfM: 0 }).result.unplaced).toEqual([]);
  });

  test('the longest piece is left, then the earliest reel opened', () => {
    // Either fits: the short one leaves the long one whole.
    expect(plan([10, 6], [5]).result.assignments[0]!.reelId).toBe('r1');
    expect(plan([6, 6], [5]).result.assignments[0]!.reelId).toBe('r0');
    expect(plan([], [5]).result).toEqual({ assignments: [], unplaced: ['c0'], reelsUsed: 0 });
    expect(plan([3], []).result).toEqual({ assignments: [], unplaced: [], reelsUsed: 0 });
  });

  test('fifteen on four are exact, sixteen say that they are not', () => {
    const cuts = Array.from({ length: 15 }, (_, i) => 1 + i / 10);
    expect(plan([9, 8, 7, 6], cuts).findings.map(({ rule }) => rule.id)).not.toContain('cut-plan.not-exact');
    expect(plan([9, 8, 7, 6], [...cuts, 1]).findings.map(({ rule }) => rule.id)).toContain(
      'cut-plan.not-exact',
    );
  });
});

describe('pulling', () => {
  const ask = (sections: PullSection[], change: object = {}) => {
    const parsed = pull.parse({
      sections,
      cableKgPerM: 1,
      maxTensionN: 500,
      maxSidewallNPerM: 3000,
      ...change,
    });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    return pull.calculate(parsed.input);
  };

  test('a slope that carries the cable takes no pull, and none below nothing', () => {
    const down = ask([{ kind: 'straight', lengthM: 10, riseDeg: -60 }], { incomingN: 5 }).result;
    expect(down.forward.tensionN).toBe(0);
    // Up: w·g·L·(μ·cos 60° + sin 60°).
    expect(down.backward.tensionN).toBeCloseTo(5 + 98.0665 * (0.5 * 0.5 + Math.sin(Math.PI / 3)), 9);
    expect(down.better).toBe('forward');
  });

  test('the highest tension on the way decides, not the last', () => {
    const { result } = ask(
      [
        { kind: 'straight', lengthM: 10, riseDeg: 90 },
        { kind: 'straight', lengthM: 10, riseDeg: -90 },
      ],
      { maxTensionN: 90 },
    );
    expect([result.forward.ok, result.forward.tensionN]).toEqual([false, expect.closeTo(0, 6)]);
    expect(result.better).toBe('either');
  });

  test('within two percent either end will do', () => {
    const both = (angle: number) =>
      ask([
        { kind: 'straight', lengthM: 5 },
        { kind: 'bend', angleDeg: angle, radiusMm: 300 },
        { kind: 'straight', lengthM: 5 },
      ]).result.better;
    expect(both(30)).toBe('either');
    const uneven = ask([
      { kind: 'bend', angleDeg: 90, radiusMm: 300 },
      { kind: 'straight', lengthM: 5 },
    ]).result;
    expect(uneven.better).toBe('forward');
  });

  test('side-wall pressure is the tension behind the bend over its radius', () => {
    const { result } = ask([{ kind: 'bend', angleDeg: 90, radiusMm: 250 }], {
      incomingN: 100,
      friction: 0.4,
    });
    const tension = 100 * Math.exp(0.4 * (Math.PI / 2));
    expect(result.forward.worstSidewallNPerM).toBeCloseTo(tension / 0.25, 9);
    const refused = pull.parse({
      sections: Array.from({ length: 200 }, () => ({ kind: 'bend', angleDeg: 360, radiusMm: 100 })),
      cableKgPerM: 1,
      incomingN: 1,
      maxTensionN: 1,
      maxSidewallNPerM: 1,
    });
    expect(refused).toMatchObject({ ok: false, issues: [{ path: 'sections' }] });
  });
});

describe('cables in a conduit', () => {
  const ask = (cables: number[], change: object = {}) => {
    const parsed = conduitFit.parse({
      innerDiameterMm: 40,
      cables: cables.map((outerDiameterMm) => ({ outerDiameterMm })),
      totalBendDeg: 90,
      minCableRadiusMm: 60,
      ...change,
    });
    if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
    return conduitFit.calculate(parsed.input);
  };
  const rules = (...asked: Parameters<typeof ask>) => ask(...asked).findings.map(({ rule }) => rule.id);

  test('fill by the number of cables', () => {
    expect(ask([20]).result).toMatchObject({ fillFraction: 0.25, allowedFraction: 0.53, fits: true });
    expect(ask([20, 10]).result).toMatchObject({ fillFraction: 0.3125, allowedFraction: 0.31, fits: false });
    expect(ask([20, 10, 10]).result).toMatchObject({ fillFraction: 0.375, allowedFraction: 0.4, fits: true });
  });

  test('three equal cables jam between 2.8 and 3.2, both included; others do not', () => {
    const od = (ratio: number) => (1.05 * 40) / ratio;
    const jam = (...cables: number[]) => ask(cables).result.jamRisk;
    expect([2.79, 2.8, 3.2, 3.21].map((ratio) => jam(od(ratio), od(ratio), od(ratio)))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect([jam(od(3), od(3)), jam(od(3), od(3), od(3) + 0.001), jam(14, 14, 14, 14)]).toEqual([
      false,
      false,
      false,
    ]);
  });

  test('an elbow that is wide enough in its middle may be too tight on its inside', () => {
    expect(ask([20], { elbowRadiusMm: 65 }).result.radiusOk).toBe(true);
    expect(rules([20], { elbowRadiusMm: 65 })).toEqual(['conduit-fit.elbow-radius']);
    expect(rules([20], { elbowRadiusMm: 70 })).toEqual([]);
    expect([ask([20]).result.radiusOk, ask([20], { elbowRadiusMm: 59 }).result.radiusOk]).toEqual([
      null,
      false,
    ]);
  });

  test('a full turn between pulls, and a lug as wide as the bore', () => {
    expect([
      ask([20], { totalBendDeg: 360 }).result.bendsOk,
      ask([20], { totalBendDeg: 361 }).result.bendsOk,
    ]).toEqual([true, false]);
    expect(ask([20], { lugWidthMm: 40 }).result.terminateAfterPull).toBe(false);
    expect(rules([20], { lugWidthMm: 41 })).toEqual(['conduit-fit.lug-does-not-pass']);
  });
});
