import { describe, expect, test } from '@jest/globals';
import { libraryBus } from '../../../../../demo/library-bus';
import { drawnBoxes } from './chips';
import { alongString, beforeModule, intoBox, tallyOf, tried } from './moves';

const bus = libraryBus.design;

describe('moves of modules', () => {
  test('a module into another box takes its mass along: 31.5 kg from 1.3 m to 4.9 m behind the front axle', () => {
    const before = tallyOf(bus);
    const after = tallyOf(tried(bus, (draft) => intoBox(draft, ['module-105'], 'box-tail')));
    expect(after.boxKg.get('box-tail')! - before.boxKg.get('box-tail')!).toBeCloseTo(31.5, 9);
    expect(after.totalKg).toBeCloseTo(before.totalKg, 9);
    // Floor box at x = −1.3, tail box at −4.9; wheelbase 4.2 m.
    expect(after.axles!.rearKg - before.axles!.rearKg).toBeCloseTo((31.5 * (4.9 - 1.3)) / 4.2, 6);
  });

  test('a module put into the middle of another box’s run adds two joints between boxes', () => {
    const before = tallyOf(bus);
    const after = tallyOf(tried(bus, (draft) => intoBox(draft, ['module-104'], 'box-tail')));
    expect(before.linksBetween).toBe(4);
    expect(after.linksBetween).toBe(6);
    expect(after.linksInside + after.linksBetween).toBe(14);
    expect(after.wayM).toBeGreaterThan(before.wayM);
  });

  test('into no box, and back', () => {
    const loose = tried(bus, (draft) => intoBox(draft, ['module-101', 'module-201'], null));
    expect(tallyOf(loose).loose).toBe(2);
    expect(tallyOf(loose).totalKg).toBeCloseTo(tallyOf(bus).totalKg - 63, 9);
    expect(tried(loose, (draft) => intoBox(draft, ['module-101', 'module-201'], 'box-nose'))).toEqual(bus);
  });

  test('series order: before another module, one place along, and no further than the ends', () => {
    const order = (design: typeof bus) =>
      design.strings['string-1']!.modules.map((id) => Number(id.slice(-1)));
    expect(
      order(tried(bus, (draft) => beforeModule(draft, ['module-107', 'module-103'], 'module-101'))),
    ).toEqual([3, 7, 1, 2, 4, 5, 6, 8]);
    expect(order(tried(bus, (draft) => alongString(draft, 'module-102', 1)))).toEqual([
      1, 3, 2, 4, 5, 6, 7, 8,
    ]);
    expect(tried(bus, (draft) => alongString(draft, 'module-101', -1))).toBe(bus);
    // A module of another string is not taken over.
    expect(tried(bus, (draft) => beforeModule(draft, ['module-207'], 'module-101'))).toBe(bus);
  });
});

describe('the plan', () => {
  test('draws every module once, inside its box', () => {
    const { boxes, chips, loose } = drawnBoxes(bus);
    expect(loose).toEqual([]);
    expect(chips.map(({ id }) => id).sort()).toEqual(Object.keys(bus.modules).sort());
    for (const chip of chips) {
      const box = boxes.find(({ id }) => id === chip.box)!;
      expect(Math.abs(chip.xM - box.xM) + chip.lengthM / 2).toBeLessThanOrEqual(box.lengthM / 2);
      expect(Math.abs(chip.yM - box.yM) + chip.widthM / 2).toBeLessThanOrEqual(box.widthM / 2);
    }
  });

  test('modules that are stacked share their footprint without covering one another', () => {
    const stacked = tried(bus, (draft) => intoBox(draft, Object.keys(bus.modules), 'box-tail'));
    const { chips, boxes } = drawnBoxes(stacked);
    expect(boxes.find(({ id }) => id === 'box-tail')).toMatchObject({ fits: true, count: 16 });
    expect(Math.max(...chips.map(({ layer }) => layer))).toBeGreaterThan(0);
    chips.forEach((one, i) => {
      for (const other of chips.slice(i + 1)) {
        const apart = Math.max(
          Math.abs(one.xM - other.xM) - (one.lengthM + other.lengthM) / 2,
          Math.abs(one.yM - other.yM) - (one.widthM + other.widthM) / 2,
        );
        expect(apart).toBeGreaterThan(-1e-9);
      }
    });
  });

  test('what does not fit stays visible and is said', () => {
    const over = tried(bus, (draft) => intoBox(draft, Object.keys(bus.modules), 'box-collector'));
    const { chips, boxes } = drawnBoxes(over);
    expect(chips).toHaveLength(16);
    expect(boxes.find(({ id }) => id === 'box-collector')).toMatchObject({
      fits: false,
      trouble: 'do not fit',
    });
  });
});
