import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fluidAt, glycol50 } from './fluid';
import { hydraulic } from './hydraulic';
import { lawOf, PumpCurve } from './laws';
import { solveLoop } from './solve';
import { curve, pump, fixed, pipe, water, networks, leftOver } from './loops-on-paper';

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
