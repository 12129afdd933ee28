import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cross, distance, minus, plus, times, turned, unit, type Vector } from '../../ground/math';
import type { Point } from '../../ground/space';
import { bendCard, restOfCard, springbackOf, type BendCardInput, type BentBend } from '.';

const points: Point[] = [
  [0, 0, 0],
  [0.8, 0, 0],
  [0.8, 0.9, 0],
  [0.8, 0.9, 0.9],
  [1.8, 1.2, 0.9],
];
const parsed = bendCard.parse({ points, centrelineRadiusMm: 100, tubeOuterMm: 30, wallMm: 2 });
if (!parsed.ok) throw new Error('no card');
const input: BendCardInput = parsed.input;
const card = bendCard.calculate(input).result;

/** The tube by its marks alone: fed to each mark, turned, bent. */
function endOf(
  bends: { startMarkMm: number; angleDeg: number; rotationDeg: number }[],
  lastMm: number,
): Vector {
  let [at, along, normal]: Vector[] = [
    [0, 0, 0],
    [1, 0, 0],
    [0, 0, 1],
  ] as Vector[];
  let usedMm = 0;
  bends.forEach(({ startMarkMm, angleDeg, rotationDeg }, i) => {
    at = plus(at!, times(along!, (startMarkMm - usedMm) / 1000));
    if (i > 0) normal = turned(normal!, along!, (rotationDeg * Math.PI) / 180);
    const angle = (angleDeg * Math.PI) / 180;
    const centre = plus(at, times(cross(normal!, along!), 0.1));
    at = plus(centre, turned(minus(at, centre), normal!, angle));
    along = unit(turned(along!, normal!, angle));
    usedMm = startMarkMm + 100 * angle;
  });
  return plus(at!, times(along!, lastMm / 1000));
}

const off = fc.double({ min: -6, max: 6, noNaN: true, noDefaultInfinity: true });

describe('a card after bends that came out otherwise', () => {
  test('as they should: the rest is the card’s own', () => {
    const made = card.bends
      .slice(0, 2)
      .map(({ angleDeg, rotationDeg }): BentBend => ({ angleDeg, rotationDeg }));
    const rest = restOfCard(input, made);
    if (rest.kind !== 'rest') throw new Error(rest.kind);
    expect(rest.bends).toHaveLength(1);
    for (const [name, value] of Object.entries(card.bends[2]!))
      if (name !== 'straightBeforeMm')
        expect([name, rest.bends[0]![name as 'angleDeg']]).toEqual([name, expect.closeTo(value, 6)]);
    expect(rest.cutLengthMm).toBeCloseTo(card.cutLengthMm, 6);
  });

  test('whatever came out, the rest leads to where the run ends', () => {
    let tried = 0;
    fc.assert(
      fc.property(off, off, off, fc.constantFrom(1, 2), (a, b, turn, count) => {
        const made = [
          { angleDeg: card.bends[0]!.angleDeg + a, rotationDeg: 0 },
          { angleDeg: card.bends[1]!.angleDeg + b, rotationDeg: card.bends[1]!.rotationDeg + turn },
        ].slice(0, count);
        const rest = restOfCard(input, made);
        if (rest.kind !== 'rest') return;
        tried += 1;
        const all = [
          ...made.map((bend, i) => ({ ...bend, startMarkMm: card.bends[i]!.startMarkMm })),
          ...rest.bends,
        ];
        expect(distance(endOf(all, rest.lastStraightMm), points.at(-1)!)).toBeLessThan(1e-6);
        expect(rest.bends.map(({ number }) => number)).toEqual([1, 2, 3].slice(count));
      }),
      { numRuns: 300 },
    );
    expect(tried).toBeGreaterThan(250);
  });

  test('with nothing left to bend it says how far off it ends', () => {
    const made = card.bends.map(({ angleDeg, rotationDeg }) => ({ angleDeg, rotationDeg }));
    const right = restOfCard(input, made);
    expect(right).toEqual({
      kind: 'ends',
      missMm: expect.closeTo(0, 6),
      lastStraightMm: expect.closeTo(card.lastStraightMm, 6),
    });
    made[2] = { ...made[2]!, angleDeg: made[2]!.angleDeg + 2 };
    const wrong = restOfCard(input, made);
    // Two degrees over the last straight of about 0.9 m.
    expect(wrong).toMatchObject({
      kind: 'ends',
      missMm: expect.closeTo(card.lastStraightMm * Math.sin((2 * Math.PI) / 180), 0),
    });
    expect(restOfCard(input, [...made, made[0]!]).kind).toBe('none');
  });

  test('a trial bend says what springs back', () => {
    expect(springbackOf(46.8, 45)).toBeCloseTo(0.04, 12);
    expect([springbackOf(40, 45), springbackOf(45, 0), springbackOf(90, 45)]).toEqual([null, null, null]);
  });
});
