import { describe, expect, test } from '@jest/globals';
import { Pchip } from '../../ground/math';
import { fluidAt, glycol50 } from './fluid';
import { loopBalance } from './loop-balance';
import { frictionFactor, lawOf, PumpCurve, type LoopElement } from './laws';
import { solveLoop } from './solve';
import { servedShare, temperaturesOf } from './temperatures';
import { curve, pump, fixed, pipe, water, plates } from './loops-on-paper';

describe('laws of elements', () => {
  test('friction: laminar, linear between, Haaland above', () => {
    expect(frictionFactor(1000, 0)).toBeCloseTo(0.064, 12);
    expect(frictionFactor(2300, 0)).toBeCloseTo(64 / 2300, 12);
    const turbulent = (-1.8 * Math.log10(6.9 / 4000)) ** -2;
    expect(frictionFactor(4000, 0)).toBeCloseTo(turbulent, 12);
    expect(frictionFactor(3150, 0)).toBeCloseTo((64 / 2300 + turbulent) / 2, 12);
    expect(frictionFactor(20_000, 0.01)).toBeGreaterThan(frictionFactor(20_000, 0));
  });

  test('slopes are the derivatives of the drops, everywhere', () => {
    const elements: LoopElement[] = [
      pipe('p', 'a', 'b', 12, 3),
      { ...pipe('p', 'a', 'b', 8, 1), minorK: 2, roughnessMm: 0.2 } as LoopElement,
      fixed('f', 'a', 'b', 0.7, 0.3),
      { id: 'v', kind: 'valve', from: 'a', to: 'b', kv: 1.4, openFraction: 0.3 },
      pump('u', 'a', 'b'),
    ];
    for (const element of elements) {
      const law = lawOf(element, fluidAt(glycol50, 30));
      for (let q = -32.03; q < 34; q += 0.611) {
        const h = 1e-5;
        const numeric = (law.at(q + h).dropKPa - law.at(q - h).dropKPa) / (2 * h);
        expect(Math.abs(law.at(q).slope - numeric)).toBeLessThan(1e-4 * Math.max(1, Math.abs(numeric)));
      }
    }
  });

  test('a valve carries its kv at 1 bar, and of an open part that part', () => {
    const at = (openFraction: number, q: number) =>
      lawOf({ id: 'v', kind: 'valve', from: 'a', to: 'b', kv: 1.2, openFraction }, water).at(q).dropKPa;
    expect(at(1, 20)).toBeCloseTo(100, 9);
    expect(at(0.5, 10)).toBeCloseTo(100, 9);
  });

  test('a pump beyond its curve goes on by its last secant, backward by 1 kPa per L/min', () => {
    const h = new PumpCurve(curve);
    expect(h.at(32).value).toBeCloseTo(3 - 2 * 3.6, 12);
    expect(h.at(-3).value).toBeCloseTo(61, 12);
    expect(curve.map(([q, head]) => h.at(q).value - head).every((off) => Math.abs(off) < 1e-12)).toBe(true);
    expect(
      new PumpCurve([
        [0, 30],
        [10, 10],
      ]).at(4),
    ).toEqual({ value: 22, slope: -2 });
  });

  test('slopes of the cubic by hand', () => {
    // Secants −0.4, −0.8: w1 = w2 = 15, inner slope 30/(15/−0.4 + 15/−0.8); first end (3·(−0.4) − (−0.8))/2.
    const p = new Pchip(curve);
    expect(p.at(5).slope).toBeCloseTo(30 / (15 / -0.4 + 15 / -0.8), 12);
    expect(p.at(0).slope).toBeCloseTo(-0.2, 12);
    const level = new Pchip([
      [0, 5],
      [1, 5],
      [3, 2],
      [4, 2],
    ]);
    expect([level.at(0.5).value, level.at(1).slope, level.at(3).slope]).toEqual([5, 0, 0]);
  });
});

describe('balance of branches', () => {
  test('with its throttle every branch takes the same at the mean, and they share nearly alike', () => {
    const elements = plates([
      { a: 0.9, b: 0.35 },
      { a: 2, b: 0.5 },
      { a: 4, b: 0.9 },
    ]);
    const branches = ['plate0', 'plate1', 'plate2'];
    const { result } = loopBalance.calculate({ fluid: { temperatureC: 20 }, elements, branches });
    const m = result.meanLPerMin;
    expect(result.balancingKPa[2]!.addKPa).toBeCloseTo(0, 9);
    const throttled = elements.map((one) => {
      const add = result.balancingKPa.find(({ id }) => id === one.id)?.addKPa ?? 0;
      return one.kind === 'fixed' ? { ...one, kPaPerLpm: one.kPaPerLpm! + add / m } : one;
    });
    const { result: even } = loopBalance.calculate({
      fluid: { temperatureC: 20 },
      elements: throttled,
      branches,
    });
    const drops = [0.9 * m + 0.35 * m * m, 2 * m + 0.5 * m * m, 4 * m + 0.9 * m * m];
    const sums = drops.map((drop, i) => drop + result.balancingKPa[i]!.addKPa!);
    expect(Math.max(...sums) - Math.min(...sums)).toBeLessThan(1e-6);
    expect(even.worstImbalanceFraction!).toBeLessThan(0.05);
    expect(result.worstImbalanceFraction!).toBeGreaterThan(0.3);
  });

  test('without flow: no ratios, all starved, and nothing to throttle', () => {
    const { result, findings } = loopBalance.calculate({
      fluid: water,
      elements: [
        pump('pump', 'tank', 'out'),
        { id: 'shut', kind: 'valve', from: 'out', to: 's', kv: 1, openFraction: 0 },
        fixed('one', 's', 'tank', 1),
        fixed('two', 's', 'tank', 1),
      ],
      branches: ['one', 'two'],
    });
    expect(result).toMatchObject({
      meanLPerMin: 0,
      worstImbalanceFraction: null,
      starved: ['one', 'two'],
      balancingKPa: [
        { id: 'one', addKPa: null },
        { id: 'two', addKPa: null },
      ],
      branchShareOfPumpFraction: null,
    });
    expect(findings.map(({ rule }) => rule.id)).toEqual(['loop-balance.starved']);
  });

  test('starved is below a fifth of the mean, and not at three tenths of it', () => {
    const few = (share: number) => {
      // Plain resistances side by side: flows go as their inverses.
      const elements = plates([
        { a: 1, b: 0 },
        { a: 1, b: 0 },
        { a: 1 / share, b: 0 },
      ]);
      return loopBalance.calculate({ fluid: water, elements, branches: ['plate0', 'plate1', 'plate2'] })
        .result;
    };
    expect(few(0.25).shares[2]!.ratioToMean).toBeCloseTo(0.25 / 0.75, 6);
    expect(few(0.25).starved).toEqual([]);
    expect(few(0.13).starved).toEqual(['plate2']);
    expect(few(0.13).shares[2]!.ratioToMean!).toBeLessThan(0.2);
  });

  test('a branch that stands still has no throttle, the others have', () => {
    const elements: LoopElement[] = [
      ...plates([
        { a: 1, b: 0.2 },
        { a: 2, b: 0.2 },
      ]),
      { id: 'shut', kind: 'valve', from: 's', to: 'r', kv: 1, openFraction: 0 },
    ];
    const { result } = loopBalance.calculate({
      fluid: water,
      elements,
      branches: ['plate0', 'plate1', 'shut'],
    });
    expect(result.starved).toEqual(['shut']);
    expect(result.balancingKPa.map(({ addKPa }) => addKPa === null)).toEqual([false, false, true]);
  });

  test('branches in one line cannot be throttled apart, and it is said', () => {
    const { result, findings } = loopBalance.calculate({
      fluid: water,
      elements: [pump('pump', 'a', 'b'), fixed('one', 'b', 'c', 1), fixed('two', 'c', 'a', 2)],
      branches: ['one', 'two'],
    });
    expect(result.worstImbalanceFraction).toBeCloseTo(0, 9);
    expect(result.balancingKPa.every(({ addKPa }) => addKPa === null)).toBe(true);
    expect(findings.map(({ rule }) => rule.id)).toEqual(['loop-balance.no-throttle']);
  });

  test.each([
    [['plate0'], 'branches'],
    [['plate0', 'plate0'], 'branches.1'],
    [['plate0', 'pump'], 'branches.1'],
    [['plate0', 'nowhere'], 'branches.1'],
  ])('branches %j are refused', (branches, path) => {
    const parsed = loopBalance.parse({
      fluid: { temperatureC: 20 },
      elements: plates([{ a: 1, b: 1 }]),
      branches,
    });
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path)).toEqual([path]);
  });
});

describe('what is carried along', () => {
  const around = (elements: LoopElement[], loads: string[]) =>
    servedShare(elements, solveLoop(elements, water, 'a')!.flows, new Set(loads));
  const push = {
    id: 'pump',
    kind: 'pump' as const,
    from: 'a',
    to: 'b',
    curve: [
      [0, 50],
      [40, 10],
    ] as [number, number][],
  };

  test('of a flow that is parted, what goes through a load is served; loads in one line count once', () => {
    const parted = [push, fixed('load', 'b', 'a', 3), fixed('past', 'b', 'a', 1)];
    expect(around(parted, ['load'])!).toBeCloseTo(0.25, 9);
    const line = [push, fixed('one', 'b', 'c', 1), fixed('two', 'c', 'a', 1)];
    expect(around(line, ['one', 'two'])).toBeCloseTo(1, 9);
    // Past the first, but not past the second.
    const partly = [push, fixed('one', 'b', 'c', 1), fixed('past', 'b', 'c', 1), fixed('two', 'c', 'a', 1)];
    expect(around(partly, ['one', 'two'])).toBeCloseTo(1, 9);
    expect(around(partly, ['one'])).toBeCloseTo(0.5, 9);
    expect(
      around(
        [
          {
            ...push,
            curve: [
              [0, 0],
              [1, 0],
            ],
          },
          fixed('one', 'b', 'a', 1),
        ],
        ['one'],
      ),
    ).toBeNull();
  });

  test('two streams that meet are mixed by their flow; without a radiator heat has no way out', () => {
    const elements = [
      push,
      fixed('hot', 'b', 'c', 3),
      fixed('cold', 'b', 'c', 1),
      fixed('radiator', 'c', 'a', 0.5),
    ];
    const { flows } = solveLoop(elements, water, 'a')!;
    const coolant = { densityKgM3: 1000, specificHeatJPerKgK: 4000 };
    const doing = new Map([
      ['hot', { heatW: 800 }],
      ['radiator', { radiator: { uaWPerK: 100, airKgPerS: 1e6, airC: 20 } }],
    ]);
    const found = temperaturesOf(elements, flows, doing, coolant)!;
    const wPerK = (q: number) => (q * 1000 * 4000) / 60_000;
    const [, hot, cold, radiator] = found.elements;
    expect((hot!.outC - hot!.inC) * wPerK(flows[1]!)).toBeCloseTo(800, 6);
    expect(radiator!.inC).toBeCloseTo((flows[1]! * hot!.outC + flows[2]! * cold!.outC) / flows[0]!, 9);
    expect((radiator!.inC - radiator!.outC) * wPerK(flows[0]!)).toBeCloseTo(800, 6);
    expect(temperaturesOf(elements, flows, new Map([['hot', { heatW: 800 }]]), coolant)).toBeNull();
  });
});
