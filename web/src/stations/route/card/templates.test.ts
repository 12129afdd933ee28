import { describe, expect, test } from '@jest/globals';
import type { BendCardResult } from '@torvek/core/routing';
import { bendCard } from '@torvek/core/routing';
import {
  bendTemplate,
  bestTemplate,
  extentOf,
  measure,
  overlapMm,
  printable,
  sheetsOf,
  sheetSvg,
} from './templates';

const cardOf = (centrelineRadiusMm: number): BendCardResult =>
  bendCard.calculate({
    points: [
      [0, 0, 0],
      [0.6, 0, 0],
      [0.6, 0.7, 0],
      [1.2, 0.7, 0.6],
    ],
    centrelineRadiusMm,
    tubeOuterMm: 28,
    wallMm: 2,
    springbackFraction: 0.05,
    startAllowanceMm: 0,
    endAllowanceMm: 0,
    mirror: false,
  } as never).result;
const card = cardOf(110);
const length = (line: readonly (readonly [number, number])[]) =>
  line.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - line[i]![0], y - line[i]![1]), 0);

describe('a bend as large as it is', () => {
  test('its middle is as long as straight, arc and straight, its sides half a tube away, and it turns by its angle', () => {
    const one = bendTemplate(card, 0, 28);
    const { arcMm, angleDeg } = card.bends[0]!;
    expect(angleDeg).toBeCloseTo(90, 9);
    expect([one.beforeMm, one.afterMm, one.radiusMm]).toEqual([140, 140, expect.closeTo(110, 9)]);
    // Chords of 3° are shorter than their arc by a ten-thousandth.
    expect(length(one.middle) / (140 + arcMm + 140)).toBeCloseTo(1, 3);
    expect(one.middle.at(-1)).toEqual([expect.closeTo(110, 6), expect.closeTo(110 + 140, 6)]);
    for (const side of one.sides)
      side.forEach(([x, y], i) => {
        const [mx, my] = one.middle[i]!;
        expect(Math.hypot(x - mx, y - my)).toBeCloseTo(14, 6);
      });
    const begins = one.marks.find(({ at }) => at === 'begins')!;
    expect([begins.from[0], begins.to[0]]).toEqual([expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    expect(Math.hypot(begins.from[0] - begins.to[0], begins.from[1] - begins.to[1])).toBeCloseTo(36, 9);
  });

  test('turned on the paper it is the same bend', () => {
    const [flat, turned] = [bendTemplate(card, 1, 28), bendTemplate(card, 1, 28, 65)];
    expect(length(turned.middle)).toBeCloseTo(length(flat.middle), 9);
    const chord = ({ middle }: typeof flat) =>
      Math.hypot(middle.at(-1)![0] - middle[0]![0], middle.at(-1)![1] - middle[0]![1]);
    expect(chord(turned)).toBeCloseTo(chord(flat), 9);
  });

  test.each([110, 180, 320])(
    'with a radius of %d mm every part of it is on a sheet, and neighbours share crosses',
    (radius) => {
      const one = bestTemplate(cardOf(radius), 0, 28);
      const sheets = sheetsOf(one);
      const extent = extentOf(one);
      const on = ([x, y]: readonly [number, number]) =>
        sheets.filter(
          ({ xMm, yMm }) =>
            x >= xMm && x <= xMm + printable.widthMm && y >= yMm && y <= yMm + printable.heightMm,
        );
      for (const spot of [...one.sides.flat(), ...one.middle]) expect(on(spot).length).toBeGreaterThan(0);
      expect(sheets.length === 1).toBe(
        extent.widthMm <= printable.widthMm && extent.heightMm <= printable.heightMm,
      );
      for (const sheet of sheets) {
        // The only sheet needs none; each of several has two for each neighbour.
        expect(sheet.crosses.length >= (sheets.length === 1 ? 0 : 2)).toBe(true);
        for (const cross of sheet.crosses) expect(on(cross).length).toBeGreaterThan(1);
      }
      const right = sheets.find(({ row, column }) => row === 0 && column === 1);
      if (right !== undefined)
        expect(right.xMm - sheets[0]!.xMm).toBeCloseTo(printable.widthMm - overlapMm, 9);
    },
  );

  test('the fewest sheets are sought, and each carries a measure of 100 mm', () => {
    const big = cardOf(320);
    const best = sheetsOf(bestTemplate(big, 0, 28)).length;
    for (const turn of [0, 15, 45, 90, 135])
      expect(sheetsOf(bendTemplate(big, 0, 28, turn)).length).toBeGreaterThanOrEqual(best);
    const one = bestTemplate(card, 0, 28);
    const svg = sheetSvg(one, sheetsOf(one)[0]!);
    expect(measure.svg).toContain('h100');
    expect(measure.svg).toContain(`0 0 ${measure.widthMm} ${measure.heightMm}`);
    expect(svg).not.toContain('NaN');
    expect(svg).toContain(`${printable.widthMm} ${printable.heightMm}"`);
  });
});
