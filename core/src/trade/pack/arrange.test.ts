import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import {
  arrange,
  fitModules,
  mostModules,
  rankOf,
  shortestOrder,
  type ArrangeInput,
  type ArrangeResult,
} from '.';

const size = { lengthMm: 590, widthMm: 225, heightMm: 108 };
const roomy = { lengthM: 1.3, widthM: 0.75, heightM: 0.4, marginMm: 20 };

function run(input: ArrangeInput): ArrangeResult {
  const search = arrange(input);
  for (;;) {
    const step = search.next();
    if (step.done === true) return step.value;
  }
}

describe('modules in a box', () => {
  test('turned they stand two along and three across, 710 mm of width over 225 mm, in three layers: 18', () => {
    expect(fitModules(roomy, [{ size, count: 18 }])).not.toBeNull();
    expect(fitModules(roomy, [{ size, count: 19 }])).toBeNull();
  });

  test('they stand on the floor before they are stacked', () => {
    const fit = fitModules(roomy, [{ size, count: 5 }])!;
    expect(fit.slots.map(({ xM }) => Number(xM.toFixed(4)))).toEqual([
      0.5175, 0.2925, 0.0675, -0.1575, -0.3825,
    ]);
    const layers = (count: number) => fitModules(roomy, [{ size, count }])!.slots.map(({ layer }) => layer);
    expect(layers(6)).toEqual([0, 0, 0, 0, 0, 0]);
    expect(layers(7)).toEqual([0, 0, 0, 0, 1, 1, 1]);
  });

  test('a link pitch that is held takes room: 260 mm leaves four in a row', () => {
    expect(fitModules({ ...roomy, heightM: 0.2, linkPitchMm: 260 }, [{ size, count: 4 }])).not.toBeNull();
    expect(fitModules({ ...roomy, heightM: 0.2, linkPitchMm: 260 }, [{ size, count: 5 }])).toBeNull();
    expect(fitModules({ ...roomy, heightM: 0.2 }, [{ size, count: 5 }])).not.toBeNull();
  });

  test('modules that fit never overlap and never leave the box', () => {
    const kind = fc.record({
      size: fc.record({
        lengthMm: fc.integer({ min: 100, max: 700 }),
        widthMm: fc.integer({ min: 50, max: 300 }),
        heightMm: fc.integer({ min: 40, max: 200 }),
      }),
      count: fc.integer({ min: 0, max: 9 }),
    });
    fc.assert(
      fc.property(fc.array(kind, { minLength: 1, maxLength: 3 }), (sizes) => {
        const fit = fitModules(roomy, sizes);
        if (fit === null) return;
        expect(fit.slots).toHaveLength(sizes.reduce((sum, { count }) => sum + count, 0));
        const gap = (a: number, b: number, la: number, lb: number) => Math.abs(a - b) - (la + lb) / 2;
        fit.slots.forEach((one, i) => {
          expect(Math.abs(one.xM) + one.lengthM / 2).toBeLessThanOrEqual(0.63 + 1e-6);
          expect(Math.abs(one.yM) + one.widthM / 2).toBeLessThanOrEqual(0.355 + 1e-6);
          expect(Math.abs(one.zM) + one.heightM / 2).toBeLessThanOrEqual(0.18 + 1e-6);
          for (const other of fit.slots.slice(i + 1)) {
            const apart = Math.max(
              gap(one.xM, other.xM, one.lengthM, other.lengthM),
              gap(one.yM, other.yM, one.widthM, other.widthM),
              gap(one.zM, other.zM, one.heightM, other.heightM),
            );
            expect(apart).toBeGreaterThan(-1e-6);
          }
        });
      }),
    );
  });
});

describe('shelves, and modules that may lie', () => {
  test('a shelf of 20 mm halves the height: 370 mm of clear height are two levels of 175 mm, one module each', () => {
    const shelved = { ...roomy, heightM: 0.41, shelves: 1, shelfMm: 20 };
    // Turned they stand two along and three across: six a layer, three layers without the shelf.
    expect(mostModules({ ...roomy, heightM: 0.41 }, size)).toBe(18);
    expect(mostModules(shelved, size)).toBe(12);
    const fit = fitModules(shelved, [{ size, count: 12 }])!;
    expect(fit.slots.map(({ level }) => level)).toEqual([
      ...Array<number>(6).fill(0),
      ...Array<number>(6).fill(1),
    ]);
    // 185 mm below the middle is the floor; the upper level begins 175 + 20 mm above it.
    expect(fit.slots[0]!.zM).toBeCloseTo(-0.185 + 0.054, 9);
    expect(fit.slots[6]!.zM).toBeCloseTo(-0.185 + 0.195 + 0.054, 9);
    expect(fitModules(shelved, [{ size, count: 13 }])).toBeNull();
  });

  test('a shelf that leaves too little height leaves no room at all', () => {
    expect(mostModules({ ...roomy, heightM: 0.2, shelves: 1 }, size)).toBe(0);
    expect(fitModules({ ...roomy, heightM: 0.2, shelves: 1 }, [{ size, count: 1 }])).toBeNull();
  });

  test('in a flat box they fit on their side alone, and only where their maker allows it', () => {
    const tall = { lengthMm: 590, widthMm: 108, heightMm: 225 };
    const flat = { ...roomy, heightM: 0.16 };
    expect(mostModules(flat, tall)).toBe(0);
    expect(fitModules(flat, [{ size: tall, count: 1 }])).toBeNull();
    const side = { ...tall, onSide: true };
    expect(mostModules(flat, side)).toBe(6);
    const [slot] = fitModules(flat, [{ size: side, count: 6 }])!.slots;
    expect([slot!.lengthM, slot!.widthM, slot!.heightM]).toEqual([0.59, 0.225, 0.108]);
  });

  test('on its end a module is as high as it was long', () => {
    const high = { ...roomy, heightM: 0.65 };
    expect(mostModules(high, size)).toBe(30);
    expect(fitModules({ ...high, lengthM: 0.2, widthM: 0.3 }, [{ size, count: 1 }])).toBeNull();
    const [slot] = fitModules({ ...high, lengthM: 0.2, widthM: 0.3 }, [
      { size: { ...size, onEnd: true }, count: 1 },
    ])!.slots;
    expect(slot!.heightM).toBe(0.59);
  });

  test('what a box has room for is what fits, and one more does not', () => {
    fc.assert(
      fc.property(
        fc.record({
          lengthMm: fc.integer({ min: 100, max: 700 }),
          widthMm: fc.integer({ min: 50, max: 300 }),
          heightMm: fc.integer({ min: 40, max: 200 }),
          onSide: fc.boolean(),
          onEnd: fc.boolean(),
        }),
        fc.integer({ min: 0, max: 3 }),
        fc.integer({ min: 0, max: 30 }),
        (one, shelves, shelfMm) => {
          const room = { ...roomy, shelves, shelfMm };
          const most = mostModules(room, one);
          expect(fitModules(room, [{ size: one, count: most + 1 }])).toBeNull();
          const fit = fitModules(room, [{ size: one, count: most }]);
          expect(fit).not.toBeNull();
          const clearM = (0.36 - shelves * (shelfMm / 1000)) / (shelves + 1);
          for (const { zM, heightM, level } of fit!.slots) {
            const floorM = -0.18 + level * (clearM + shelfMm / 1000);
            expect(zM - heightM / 2).toBeGreaterThan(floorM - 1e-9);
            expect(zM + heightM / 2).toBeLessThan(floorM + clearM + 1e-6);
          }
        },
      ),
    );
  });
});

describe('series order', () => {
  const at = (xM: number, yM = 0) => ({ xM, yM, zM: 0 });

  test('boxes along the vehicle are passed on the way out and back once each', () => {
    expect(shortestOrder([at(-4), at(0), at(-2, 1)], at(1))).toEqual({
      order: [0, 2, 1],
      wayM: 5 + 3 + 3 + 1,
    });
  });

  test('is as short as the best of all permutations', () => {
    const place = fc.record({
      xM: fc.integer({ min: -6, max: 2 }),
      yM: fc.integer({ min: -1, max: 1 }),
      zM: fc.integer({ min: 0, max: 2 }),
    });
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 6 }), place, (stops, mains) => {
        const way = (order: number[]) =>
          [mains, ...order.map((i) => stops[i]!), mains].reduce(
            (sum, one, i, all) =>
              i === 0
                ? 0
                : sum +
                  Math.abs(one.xM - all[i - 1]!.xM) +
                  Math.abs(one.yM - all[i - 1]!.yM) +
                  Math.abs(one.zM - all[i - 1]!.zM),
            0,
          );
        const all = permutations(stops.map((_, i) => i));
        const found = shortestOrder(stops, mains);
        expect(found.wayM).toBeCloseTo(Math.min(...all.map(way)), 9);
        expect(way(found.order)).toBeCloseTo(found.wayM, 9);
        expect([...found.order].sort()).toEqual(stops.map((_, i) => i));
      }),
    );
  });
});

function permutations(of: number[]): number[][] {
  if (of.length < 2) return [of];
  return of.flatMap((one) => permutations(of.filter((other) => other !== one)).map((rest) => [one, ...rest]));
}

/** Every single module into every box: the search must find nothing better and nothing worse. */
function bruteForce(input: ArrangeInput): { ranks: string[]; feasible: number } {
  const kinds = Object.keys(input.kinds);
  const modules = input.strings.flatMap(({ counts }, s) =>
    kinds.flatMap((kind) => Array.from({ length: counts[kind] ?? 0 }, () => ({ kind, s }))),
  );
  const divisions = new Map<string, number[]>();
  const known = new Map<string, number | null>();
  const spareOf = (b: number, counts: number[]) => {
    const key = `${b}|${counts.join(',')}`;
    if (!known.has(key)) {
      const sizes = kinds.map((kind, k) => ({ size: input.kinds[kind]!, count: counts[k]! }));
      known.set(key, fitModules(input.boxes[b]!, sizes)?.spareFraction ?? null);
    }
    return known.get(key)!;
  };
  const total = input.boxes.length ** modules.length;
  for (let code = 0; code < total; code += 1) {
    let rest = code;
    const places = modules.map(() => {
      const box = rest % input.boxes.length;
      rest = Math.floor(rest / input.boxes.length);
      return box;
    });
    let spare = Infinity;
    let front = input.frontKg;
    let all = input.frontKg + input.rearKg;
    const fits = input.boxes.every((_, b) => {
      const counts = kinds.map(
        (kind) => modules.filter((one, i) => one.kind === kind && places[i] === b).length,
      );
      if (counts.every((count) => count === 0)) return true;
      const free = spareOf(b, counts);
      spare = Math.min(spare, free ?? 0);
      return free !== null;
    });
    if (!fits) continue;
    modules.forEach(({ kind }, i) => {
      const { massKg } = input.kinds[kind]!;
      front += massKg * (1 + input.boxes[places[i]!]!.xM / input.wheelbaseM);
      all += massKg;
    });
    const before = input.frontKg / (input.frontKg + input.rearKg);
    const linksBetween = input.strings.reduce(
      (sum, _, s) => sum + Math.max(new Set(places.filter((_box, i) => modules[i]!.s === s)).size - 1, 0),
      0,
    );
    const rank = rankOf({
      shiftPoints: (front / all - before) * 100,
      linksBetween,
      spareFraction: Number.isFinite(spare) ? spare : 1,
    });
    const division = input.boxes
      .flatMap((_, b) =>
        kinds.map((kind) => modules.filter((one, i) => one.kind === kind && places[i] === b).length),
      )
      .join(',');
    const earlier = divisions.get(division);
    if (earlier === undefined || rank[1] < earlier[1]!) divisions.set(division, rank);
  }
  const ranks = [...divisions.values()].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]! || a[2]! - b[2]!);
  return { ranks: ranks.slice(0, input.keep ?? 8).map(String), feasible: divisions.size };
}

const box = (id: string, xM: number, lengthM: number, heightM = 0.3) => ({
  id,
  tag: id,
  xM,
  yM: 0,
  zM: 0.6,
  lengthM,
  widthM: 0.7,
  heightM,
  marginMm: 20,
});
const vehicle = {
  wheelbaseM: 4.2,
  frontKg: 2480,
  rearKg: 3520,
  changes: [],
  mains: { xM: 0, yM: 0, zM: 0.6 },
};

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
