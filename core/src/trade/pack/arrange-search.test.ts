import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { arrange, rankOf, type ArrangeInput, type ArrangeResult } from '.';
import { size, run, bruteForce, box, vehicle } from './boxes-on-paper';

describe('arrangement search', () => {
  test('equals brute force for ten modules of one kind in three boxes, two strings', () => {
    const input: ArrangeInput = {
      ...vehicle,
      boxes: [box('nose', 0.3, 0.8), box('floor', -1.5, 1.2), box('tail', -4.8, 0.6)],
      kinds: { m: { ...size, massKg: 31.5 } },
      strings: [
        { id: 's1', counts: { m: 5 } },
        { id: 's2', counts: { m: 5 } },
      ],
    };
    const found = run(input);
    const brute = bruteForce(input);
    expect(found.feasible).toBe(brute.feasible);
    expect(found.best.map((one) => String(rankOf(one)))).toEqual(brute.ranks);
    expect(brute.ranks.length).toBeGreaterThan(3);
  });

  test('equals brute force for mixed kinds, one to three strings, boxes of any size', () => {
    const kind = fc.record({
      lengthMm: fc.integer({ min: 300, max: 640 }),
      widthMm: fc.integer({ min: 100, max: 300 }),
      heightMm: fc.integer({ min: 80, max: 200 }),
      massKg: fc.integer({ min: 5, max: 60 }),
    });
    const counts = fc.record({ a: fc.integer({ min: 0, max: 2 }), b: fc.integer({ min: 0, max: 2 }) });
    fc.assert(
      fc.property(
        fc.record({ a: kind, b: kind }),
        fc.array(counts, { minLength: 1, maxLength: 3 }),
        fc.array(
          fc.tuple(
            fc.double({ min: -5, max: 1, noNaN: true }),
            fc.double({ min: 0.3, max: 1.4, noNaN: true }),
          ),
          {
            minLength: 1,
            maxLength: 3,
          },
        ),
        (kinds, perString, places) => {
          const modules = perString.reduce((sum, { a, b }) => sum + a + b, 0);
          fc.pre(modules > 0 && modules <= 7);
          const input: ArrangeInput = {
            ...vehicle,
            kinds,
            boxes: places.map(([xM, lengthM], i) => box(`b${i}`, xM, lengthM)),
            strings: perString.map((one, i) => ({ id: `s${i}`, counts: one })),
            keep: 1000,
          };
          const found = run(input);
          const brute = bruteForce(input);
          expect(found.feasible).toBe(brute.feasible);
          expect(found.best.map((one) => String(rankOf(one)))).toEqual(brute.ranks);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('places every module once, in the boxes that its order names', () => {
    const { best } = run({
      ...vehicle,
      boxes: [box('nose', 0.3, 0.8), box('floor', -1.5, 1.2), box('tail', -4.8, 1.3)],
      kinds: { m: { ...size, massKg: 31.5 } },
      strings: [
        { id: 's1', counts: { m: 8 } },
        { id: 's2', counts: { m: 8 } },
      ],
    });
    for (const one of best) {
      for (const string of ['s1', 's2']) {
        const placed = Object.values(one.counts[string]!).reduce((sum, { m }) => sum + m!, 0);
        expect(placed).toBe(8);
        expect([...one.order[string]!].sort()).toEqual(Object.keys(one.counts[string]!).sort());
      }
      expect(one.frontKg + one.rearKg).toBeCloseTo(6000 + 16 * 31.5, 6);
    }
  });

  test('gives way often, and tells of nothing where nothing fits', () => {
    const search = arrange({
      ...vehicle,
      boxes: [box('a', 0, 1.4), box('b', -1, 1.4), box('c', -3, 1.4), box('d', -5, 1.4)],
      kinds: { m: { ...size, massKg: 31.5 } },
      strings: [{ id: 's1', counts: { m: 24 } }],
    });
    let steps = 0;
    let last = 0;
    for (let step = search.next(); step.done !== true; step = search.next()) {
      steps += 1;
      expect(step.value.fraction).toBeGreaterThanOrEqual(last);
      last = step.value.fraction;
    }
    expect(steps).toBeGreaterThan(3);
    expect(
      run({
        ...vehicle,
        boxes: [box('a', 0, 0.2)],
        kinds: { m: { ...size, massKg: 1 } },
        strings: [{ id: 's', counts: { m: 1 } }],
      }),
    ).toEqual({
      done: true,
      best: [],
      feasible: 0,
      tooHeavy: 0,
    });
  });

  const two: ArrangeInput = {
    ...vehicle,
    boxes: [box('nose', 0.3, 0.8), box('floor', -1.5, 1.2), box('tail', -4.8, 0.9)],
    kinds: { m: { ...size, massKg: 31.5 } },
    strings: [
      { id: 's1', counts: { m: 5 } },
      { id: 's2', counts: { m: 5 } },
    ],
    keep: 1000,
  };
  const held = (one: ArrangeResult['best'][number], string: string, at: string) =>
    one.counts[string]?.[at]?.['m'] ?? 0;

  test('what stays in a box is there in every proposal, string by string, and nothing else is lost', () => {
    const free = run(two);
    const bound = run({
      ...two,
      strings: [
        { id: 's1', counts: { m: 5 }, stay: { nose: { m: 2 }, tail: { m: 1 } } },
        { id: 's2', counts: { m: 5 }, stay: { tail: { m: 2 } } },
      ],
    });
    expect(bound.best.length).toBeGreaterThan(1);
    for (const one of bound.best) {
      expect(held(one, 's1', 'nose')).toBeGreaterThanOrEqual(2);
      expect(held(one, 's1', 'tail')).toBeGreaterThanOrEqual(1);
      expect(held(one, 's2', 'tail')).toBeGreaterThanOrEqual(2);
      for (const string of ['s1', 's2'])
        expect(['nose', 'floor', 'tail'].reduce((sum, at) => sum + held(one, string, at), 0)).toBe(5);
    }
    const inside = free.best.filter((one) => {
      const of = (at: string) => held(one, 's1', at) + held(one, 's2', at);
      return of('nose') >= 2 && of('tail') >= 3;
    });
    expect(bound.feasible).toBe(inside.length);
  });

  test('more that stays than the string has is no arrangement', () => {
    const result = run({ ...two, strings: [{ id: 's1', counts: { m: 1 }, stay: { nose: { m: 2 } } }] });
    expect([result.feasible, result.best]).toEqual([0, []]);
  });

  test('no proposal loads an axle beyond its limit; those that would are counted', () => {
    const free = run(two);
    const rears = free.best.map(({ rearKg }) => rearKg).sort((a, b) => a - b);
    const rearLimitKg = rears[Math.floor(rears.length / 2)]!;
    const kept = run({ ...two, rearLimitKg });
    expect(kept.feasible).toBe(rears.filter((kg) => kg <= rearLimitKg + 1e-6).length);
    expect(kept.feasible + kept.tooHeavy).toBe(free.feasible);
    expect(Math.max(...kept.best.map(({ rearKg }) => rearKg))).toBeLessThanOrEqual(rearLimitKg + 1e-6);
    const front = run({ ...two, frontLimitKg: 100 });
    expect([front.feasible, front.tooHeavy]).toEqual([0, free.feasible]);
  });
});
