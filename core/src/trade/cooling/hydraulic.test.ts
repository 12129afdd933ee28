import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Pchip } from '../../ground/math';
import { fluidAt, glycol50 } from './fluid';
import { hydraulic } from './hydraulic';
import { loopBalance } from './loop-balance';
import { frictionFactor, lawOf, PumpCurve, type LoopElement } from './laws';
import { solveLoop } from './solve';
import { servedShare, temperaturesOf } from './temperatures';

const curve: [number, number][] = [
  [0, 58],
  [5, 56],
  [10, 52],
  [15, 45],
  [20, 35],
  [25, 21],
  [30, 3],
];
const pump = (id: string, from: string, to: string): LoopElement => ({ id, kind: 'pump', from, to, curve });
const fixed = (id: string, from: string, to: string, a: number, b = 0): LoopElement => ({
  id,
  kind: 'fixed',
  from,
  to,
  kPaPerLpm: a,
  kPaPerLpm2: b,
});
const pipe = (id: string, from: string, to: string, innerMm: number, lengthM: number): LoopElement => ({
  id,
  kind: 'pipe',
  from,
  to,
  innerMm,
  lengthM,
});
const water = { densityKgM3: 1000, viscosityMPaS: 1 };

/** Networks of up to 40 elements among a dozen nodes, with pumps anywhere. */
const networks = fc
  .array(
    fc.record({
      kind: fc.integer({ min: 0, max: 9 }),
      from: fc.integer({ min: 0, max: 11 }),
      step: fc.integer({ min: 1, max: 11 }),
      size: fc.double({ min: 0, max: 1, noNaN: true }),
      long: fc.double({ min: 0, max: 1, noNaN: true }),
    }),
    { minLength: 2, maxLength: 40 },
  )
  .map((rows): LoopElement[] => [
    pump('p', '0', '1'),
    ...rows.map(({ kind, from, step, size, long }, i): LoopElement => {
      const ends = { id: `e${i}`, from: String(from), to: String((from + step) % 12) };
      if (kind === 0) return { ...ends, kind: 'pump', curve: curve.map(([q, h]) => [q, h * (0.2 + size)]) };
      if (kind <= 4)
        return { ...ends, kind: 'pipe', innerMm: 4 + 30 * size, lengthM: 0.05 + 8 * long, minorK: 3 * size };
      if (kind <= 7) return { ...ends, kind: 'fixed', kPaPerLpm: 5 * size, kPaPerLpm2: 0.001 + 2 * long };
      return { ...ends, kind: 'valve', kv: 0.05 + 3 * size, openFraction: long < 0.15 ? 0 : long };
    }),
  ]);

const leftOver = (elements: readonly LoopElement[], flows: readonly number[]) => {
  const at = new Map<string, number>();
  elements.forEach(({ from, to }, i) => {
    at.set(from, (at.get(from) ?? 0) - flows[i]!);
    at.set(to, (at.get(to) ?? 0) + flows[i]!);
  });
  return Math.max(...[...at.values()].map(Math.abs));
};

describe('flow in a network', () => {
  test('2000 random networks: nothing is lost at a node, and every element keeps its law', () => {
    let most = 0;
    fc.assert(
      fc.property(networks, (elements) => {
        const solved = solveLoop(elements, fluidAt(glycol50, 25), '0')!;
        most = Math.max(most, solved.iterations);
        expect(leftOver(elements, solved.flows)).toBeLessThan(1e-6);
        expect(solved.residualKPa).toBeLessThan(1e-6);
        elements.forEach((element, i) => {
          const across = solved.across(element.from, element.to);
          const q = solved.flows[i]!;
          if (element.kind === 'valve' && element.openFraction === 0) expect(q).toBe(0);
          else
            expect(Math.abs(lawOf(element, fluidAt(glycol50, 25)).at(q).dropKPa - across!)).toBeLessThan(
              1e-6,
            );
        });
      }),
      { numRuns: 2000, seed: 7 },
    );
    expect(most).toBeLessThan(100);
  });

  test('all elements turned round: all flows turn round', () => {
    fc.assert(
      fc.property(networks, (elements) => {
        const solved = solveLoop(elements, water, '0')!;
        // What a pump does is turned with it by its direction: from delivery to suction.
        const turned = elements.map((one) =>
          one.kind === 'pump' ? one : { ...one, from: one.to, to: one.from },
        );
        const again = solveLoop(turned, water, '0')!;
        elements.forEach(({ kind }, i) => {
          const sign = kind === 'pump' ? 1 : -1;
          expect(Math.abs(solved.flows[i]! - sign * again.flows[i]!)).toBeLessThan(2e-3);
        });
      }),
      { numRuns: 100, seed: 11 },
    );
  });

  test('a wider hose never lowers the flow of the only pump', () => {
    fc.assert(
      fc.property(networks, fc.double({ min: 1, max: 3, noNaN: true }), (all, by) => {
        const elements = all.filter(({ kind, id }) => kind !== 'pump' || id === 'p');
        const wider = elements.map((one) =>
          one.kind === 'pipe' ? { ...one, innerMm: one.innerMm * by } : one,
        );
        const [before, after] = [elements, wider].map((some) => solveLoop(some, water, '0')!.flows[0]!);
        expect(after!).toBeGreaterThan(before! - 1e-6);
      }),
      { numRuns: 200, seed: 3 },
    );
  });

  test('two unlike pumps against each other: the weaker is pushed backward against its shut-off head', () => {
    const answer = hydraulic.calculate({
      fluid: water,
      elements: [
        {
          id: 'strong',
          kind: 'pump',
          from: 'a',
          to: 'b',
          curve: [
            [0, 100],
            [10, 100],
          ],
        },
        {
          id: 'weak',
          kind: 'pump',
          from: 'a',
          to: 'b',
          curve: [
            [0, 60],
            [10, 50],
          ],
        },
      ],
    });
    expect(answer.result.flowsLPerMin['weak']).toBeCloseTo(-40, 6);
    expect(answer.result.flowsLPerMin['strong']).toBeCloseTo(40, 6);
    expect(answer.findings.map(({ rule }) => rule.id).sort()).toEqual([
      'hydraulic.pump-backward',
      'hydraulic.pump-beyond',
    ]);
  });

  test('a part cut off with its own pump is solved, its pressure is not known', () => {
    const { result, findings } = hydraulic.calculate({
      fluid: water,
      elements: [
        pump('one', 'a', 'b'),
        fixed('load', 'b', 'a', 1),
        { id: 'shut', kind: 'valve', from: 'b', to: 'c', kv: 1, openFraction: 0 },
        pump('two', 'c', 'd'),
        fixed('other', 'd', 'c', 2),
      ],
    });
    expect(result.flowsLPerMin['shut']).toBe(0);
    expect(result.flowsLPerMin['two']).toBeCloseTo(result.flowsLPerMin['other']!, 9);
    expect(new PumpCurve(curve).at(result.flowsLPerMin['two']!).value).toBeCloseTo(
      2 * result.flowsLPerMin['two']!,
      6,
    );
    expect(result.nodeKPa).toMatchObject({ a: 0, c: null, d: null });
    expect(findings.map(({ rule }) => rule.id)).toEqual(['hydraulic.node-apart']);
  });

  test.each([
    ['no pump', { elements: [fixed('f', 'a', 'b', 1)] }, 'elements'],
    ['an id twice', { elements: [pump('p', 'a', 'b'), fixed('p', 'b', 'a', 1)] }, 'elements.1.id'],
    ['both ends at one node', { elements: [pump('p', 'a', 'b'), fixed('f', 'b', 'b', 1)] }, 'elements.1.to'],
    [
      'a pipe of nothing',
      { elements: [pump('p', 'a', 'b'), pipe('f', 'b', 'a', 10, 0)] },
      'elements.1.lengthM',
    ],
    ['no coefficient', { elements: [pump('p', 'a', 'b'), fixed('f', 'b', 'a', 0)] }, 'elements.1.kPaPerLpm'],
    [
      'a ground nothing touches',
      { elements: [pump('p', 'a', 'b'), fixed('f', 'b', 'a', 1)], groundNode: 'z' },
      'groundNode',
    ],
    [
      'a curve that rises',
      {
        elements: [
          {
            id: 'p',
            kind: 'pump',
            from: 'a',
            to: 'b',
            curve: [
              [0, 50],
              [5, 51],
            ],
          },
          fixed('f', 'b', 'a', 1),
        ],
      },
      'elements.0.curve',
    ],
    [
      'a curve that begins late',
      {
        elements: [
          {
            id: 'p',
            kind: 'pump',
            from: 'a',
            to: 'b',
            curve: [
              [1, 50],
              [5, 41],
            ],
          },
          fixed('f', 'b', 'a', 1),
        ],
      },
      'elements.0.curve',
    ],
    [
      'coolant colder than its table',
      { fluid: { temperatureC: -21 }, elements: [pump('p', 'a', 'b'), fixed('f', 'b', 'a', 1)] },
      'fluid.temperatureC',
    ],
  ])('%s is refused by its field', (_what, body, path) => {
    const parsed = hydraulic.parse({ fluid: { temperatureC: 20 }, ...body });
    expect(parsed.ok ? [] : parsed.issues.map((issue) => issue.path)).toEqual([path]);
  });
});

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

const plates = (rows: { a: number; b: number; open?: number }[]): LoopElement[] => [
  pump('pump', 'tank', 's'),
  ...rows.map(({ a, b }, i) => fixed(`plate${i}`, 's', 'r', a, b)),
  fixed('radiator', 'r', 'tank', 0.1, 0.012),
];

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
