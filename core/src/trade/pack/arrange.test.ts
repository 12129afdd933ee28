import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import { fitModules, mostModules, shortestOrder } from '.';
import { size, roomy, permutations } from './boxes-on-paper';

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
