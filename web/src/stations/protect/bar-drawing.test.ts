import { describe, expect, test } from '@jest/globals';
import type { BusbarItem } from '@torvek/core/document';
import { barDxf, barSvg, drawBar } from './bar-drawing';

const bar: BusbarItem = {
  tag: 'Link <1>',
  widthMm: 25,
  thicknessMm: 3,
  betweenMm: 116,
  holeMm: 8.4,
  otherHoleMm: 6.4,
  flexMm: 30,
};

describe('the drawing of a bar', () => {
  const drawing = drawBar(bar)!;
  test('is as long as the studs are apart and both ends beyond them', () => {
    expect(drawing).toMatchObject({ lengthMm: 140, widthMm: 25, flex: { fromMm: 55, toMm: 85 } });
    expect(drawing.holes).toEqual([
      { xMm: 12, yMm: 12.5, diameterMm: 8.4 },
      { xMm: 128, yMm: 12.5, diameterMm: 6.4 },
    ]);
  });
  test('is none while a size is missing or nothing', () => {
    expect(drawBar({ tag: 'x', widthMm: 25, thicknessMm: 3 })).toBeNull();
    expect(drawBar({ ...bar, widthMm: 0 })).toBeNull();
  });
  test('without a flexible section and without holes it is a plain bar', () => {
    expect(drawBar({ tag: 'x', widthMm: 25, thicknessMm: 3, betweenMm: 50, overhangMm: 10 })).toMatchObject({
      lengthMm: 70,
      holes: [],
      flex: null,
    });
  });
  test('as SVG one unit is a millimetre, and a tag is text', () => {
    const svg = barSvg(drawing);
    expect(svg).toContain('<rect x="0" y="0" width="140" height="25"');
    expect(svg).toContain('<circle cx="128" cy="12.5" r="3.2"');
    expect(svg).toContain('width="156mm"');
    expect(svg).toContain('Link &lt;1>');
  });
  test('as DXF it has four edges, two holes, a flexible section, in millimetres', async () => {
    const lines = (await barDxf(drawing)).split(/\r?\n/).map((line) => line.trim());
    const entities = lines.slice(lines.lastIndexOf('ENTITIES'));
    const count = (name: string) =>
      entities.filter((line, i) => line === name && entities[i - 1] === '0').length;
    expect([count('LINE'), count('CIRCLE'), count('TEXT')]).toEqual([8, 2, drawing.notes.length]);
    // $INSUNITS 4: millimetres.
    const units = lines.indexOf('$INSUNITS');
    expect(lines[units + 2]).toBe('4');
    const circle = entities.indexOf('CIRCLE');
    const radius = entities
      .slice(circle)
      .findIndex((line, i, all) => line === '40' && i % 2 === all.indexOf('40') % 2);
    expect(entities[circle + radius + 1]).toBe('4.2');
  });
});
