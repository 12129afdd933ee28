import { describe, expect, test } from '@jest/globals';
import { edit, runGeometry, type Design } from '@torvek/core/document';
import { libraryBus } from '../../../../../demo/library-bus';
import { layers, viewsDxf, viewsOf, viewsSvg } from './views';

const { design } = libraryBus;
const views = viewsOf(design, { 'run-dcdc': [[-2.5, 0, 0.72]] }, ['Bus & <truck>', 'version 5']);
const on = (layer: keyof typeof layers) => views.lines.filter((one) => one.layer === layer);

describe('views to take away', () => {
  test('each thing is drawn from above and from the right, in millimetres of the vehicle', () => {
    const box = design.boxes['box-tail']!;
    const boxes = on('BOXES');
    expect(boxes).toHaveLength(2 * Object.keys(design.boxes).length);
    const left = (box.xM! - box.lengthM! / 2) * 1000;
    const [above, beside] = boxes.filter(({ points }) => Math.abs(points[0]![0] - left) < 1e-6);
    expect(above!.points[0]![1]).toBeCloseTo((box.yM! - box.widthM! / 2) * 1000, 6);
    expect(above!.points[2]![1]).toBeCloseTo((box.yM! + box.widthM! / 2) * 1000, 6);
    // As high in the other view, which lies above the first.
    expect(beside!.points[2]![1] - beside!.points[0]![1]).toBeCloseTo(box.heightM! * 1000, 6);
    expect(beside!.points[0]![1]).toBeGreaterThan(above!.points[2]![1]);
    expect(above!.closed).toBe(true);
  });

  test('a run is as long as it is, bends and all, and coolant is on a layer of its own', () => {
    expect(on('HV')).toHaveLength(6);
    expect(on('COOLANT')).toHaveLength(2);
    // Level along the floor: seen from above in its true length, but for the chords of its bends.
    const dcdc = views.lines.find(
      ({ layer, points }) => layer === 'HV' && points[0]![0] === -2500 && points[0]![1] === -400,
    )!;
    const long = dcdc.points.reduce(
      (sum, [x, y], i) =>
        i === 0 ? 0 : sum + Math.hypot(x - dcdc.points[i - 1]![0], y - dcdc.points[i - 1]![1]),
      0,
    );
    const { lengthM } = runGeometry(design.runs!['run-dcdc']!)!.path;
    expect(long / 1000).toBeGreaterThan(lengthM * 0.995);
    expect(long / 1000).toBeLessThan(lengthM);
    expect(on('CONDUIT').length).toBeGreaterThan(0);
    expect(views.circles.filter(({ layer }) => layer === 'CLIPS').map(({ at }) => at[0])).toEqual([
      -2500, -2500,
    ]);
  });

  test('what has no whole place is left out, and what is left is drawn', () => {
    const open = edit(design, (draft) => {
      const bus = draft as Design;
      delete bus.hazards!['hazard-brake']!.points![1]!.yM;
      delete bus.devices['device-dcdc']!.xM;
      delete bus.runs!['run-dcdc']!.points;
    })!.design;
    const fewer = viewsOf(open, {}, []);
    const count = (of: typeof views, layer: string) => of.lines.filter((one) => one.layer === layer).length;
    expect(count(views, 'LINES') - count(fewer, 'LINES')).toBe(2);
    expect(count(views, 'DEVICES') - count(fewer, 'DEVICES')).toBe(2);
    expect(count(views, 'HV') - count(fewer, 'HV')).toBe(2);
    expect(JSON.stringify(fewer)).not.toMatch(/null|NaN/);
  });

  test('no word stands on another', () => {
    const boxes = views.texts.map(({ at: [x, y], heightMm, text }) => ({
      text,
      x,
      y,
      right: x + text.length * heightMm * 0.55,
      top: y + heightMm,
    }));
    const over = boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .flatMap((b) =>
          a.x < b.right && b.x < a.right && a.y < b.top && b.y < a.top ? [`${a.text} on ${b.text}`] : [],
        ),
    );
    expect(over).toEqual([]);
  });

  test('as SVG every layer is a group, words are escaped, and the frame holds all', () => {
    const svg = viewsSvg(views);
    for (const layer of ['BODY', 'BOXES', 'DEVICES', 'ZONES', 'LINES', 'HV', 'CONDUIT', 'COOLANT', 'CLIPS'])
      expect(svg).toContain(`<g id="${layer}"`);
    expect(svg).toContain('Bus &amp; &lt;truck&gt;');
    const [left, top, wide, high] = /viewBox="([^"]+)"/.exec(svg)![1]!.split(' ').map(Number) as number[];
    for (const { points } of views.lines)
      for (const [x, y] of points) {
        expect(x).toBeGreaterThan(left!);
        expect(x).toBeLessThan(left! + wide!);
        expect(-y).toBeGreaterThan(top!);
        expect(-y).toBeLessThan(top! + high!);
      }
    expect(svg).not.toMatch(/NaN|undefined/);
  });

  test('as DXF it is in millimetres, with its layers and as many lines', async () => {
    const text = (await viewsDxf(views)).split(/\r?\n/).map((one) => one.trim());
    const count = (word: string) => text.filter((one) => one === word).length;
    const edges = views.lines.reduce((sum, { points, closed }) => sum + points.length - (closed ? 0 : 1), 0);
    expect(count('LINE')).toBe(edges);
    expect(count('CIRCLE')).toBe(views.circles.length);
    for (const layer of Object.keys(layers)) expect(text).toContain(layer);
    expect(text[text.indexOf('$INSUNITS') + 2]).toBe('4');
  });
});
