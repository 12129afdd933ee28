import { describe, expect, test } from '@jest/globals';
import type { Design } from '@torvek/core/document';
import { deriveNetwork } from '@torvek/core/network';
import ElkBundled from 'elkjs/lib/elk.bundled.js';
import { generatedDesign } from '../../../../demo/generated';
import { libraryBus } from '../../../../demo/library-bus';
import { crosses, layOut, meets, type Diagram, type Elk } from './layout';

const elk = new (ElkBundled as unknown as new () => Elk)();

/** Everything that meets what it should not. */
function clashes({ symbols, lines, frames, width, height }: Diagram): string[] {
  const found: string[] = [];
  const labels = [
    ...symbols.flatMap((one) =>
      [...one.texts, { ...one.state, text: 'state' }].map((text) => ({ of: one.symbol.id, text })),
    ),
    ...frames.map((frame) => ({ of: frame.id, text: frame.title })),
  ];
  labels.forEach(({ of, text }, i) => {
    for (const other of labels.slice(i + 1))
      if (meets(text, other.text))
        found.push(`label ${text.text} of ${of} meets ${other.text.text} of ${other.of}`);
    for (const one of symbols)
      if (one.symbol.id !== of && meets(text, one))
        found.push(`label ${text.text} of ${of} meets ${one.symbol.id}`);
    for (const one of symbols) if (meets(text, one.glyph)) found.push(`label ${text.text} meets a glyph`);
    for (const { line, points } of lines)
      if (crosses(points, text)) found.push(`label ${text.text} of ${of} meets line ${line.id}`);
    if (text.x < 0 || text.y < 0 || text.x + text.width > width || text.y + text.height > height)
      found.push(`label ${text.text} leaves the picture`);
  });
  symbols.forEach((one, i) => {
    for (const other of symbols.slice(i + 1))
      if (meets(one, other)) found.push(`${one.symbol.id} meets ${other.symbol.id}`);
    for (const { line, points } of lines) {
      if (line.from === one.symbol.id || line.to === one.symbol.id) continue;
      if (crosses(points, one)) found.push(`line ${line.id} runs through ${one.symbol.id}`);
    }
  });
  return found;
}

/** Two strings, three boxes, a combiner, eight branches of which two hang before the mains. */
function eightBranches(): Design {
  const design = structuredClone(libraryBus.design) as Design;
  design.devices['device-8'] = { tag: 'Second inverter', kind: 'inverter', busCapacitanceF: 0.0007 };
  design.devices['device-9'] = { tag: 'Seat and screen heaters', kind: 'heater', busCapacitanceF: 0 };
  const branch = {
    role: 'branch' as const,
    fuse: 'calderside-f63@1',
    cable: 'marl-x6@1',
    ends: 'plain' as const,
  };
  design.circuits['circuit-8'] = {
    ...branch,
    tag: 'Second inverter',
    device: 'device-8',
    contactor: 'hollin-k200@1',
    resistor: 'ember-82@1',
  };
  design.circuits['circuit-9'] = { ...branch, tag: 'Seats', device: 'device-9', tap: 'before' };
  return design;
}

describe('the one-line diagram', () => {
  test.each([
    ['demo A', libraryBus.design],
    ['two strings with eight branches', eightBranches()],
  ])('%s: no label meets a label, a symbol or a foreign line', async (_, design) => {
    const diagram = await layOut(deriveNetwork(design), elk);
    expect(clashes(diagram)).toEqual([]);
    expect(diagram.symbols.length).toBeGreaterThan(40);
    for (const { texts } of diagram.symbols)
      for (const { sizePx } of texts) expect(sizePx).toBeGreaterThanOrEqual(11);
  });

  test('many generated designs: the same', async () => {
    for (let seed = 0; seed < 20; seed += 1) {
      const network = deriveNetwork(generatedDesign(seed));
      const diagram = await layOut(network, elk);
      expect([seed, clashes(diagram)]).toEqual([seed, []]);
      expect(diagram.lines).toHaveLength(network.lines.length);
      for (const frame of diagram.frames)
        for (const one of diagram.symbols)
          if (one.symbol.box === frame.id) {
            expect(one.x).toBeGreaterThanOrEqual(frame.x);
            expect(one.x + one.width).toBeLessThanOrEqual(frame.x + frame.width + 0.01);
            expect(one.y + one.height).toBeLessThanOrEqual(frame.y + frame.height + 0.01);
          }
    }
  }, 60_000);

  test('the same input gives the same picture', async () => {
    const network = deriveNetwork(libraryBus.design);
    expect(await layOut(network, elk)).toEqual(await layOut(network, elk));
  });

  test('lines are of horizontal and vertical pieces and end at their symbols', async () => {
    const diagram = await layOut(deriveNetwork(libraryBus.design), elk);
    const at = new Map(diagram.symbols.map((one) => [one.symbol.id, one]));
    for (const { line, points } of diagram.lines) {
      points.slice(1).forEach(([x, y], i) => {
        const [px, py] = points[i]!;
        expect(Math.min(Math.abs(x - px), Math.abs(y - py))).toBeLessThan(0.01);
      });
      const end = at.get(line.to)!;
      expect(points.at(-1)![1]).toBeCloseTo(end.y, 3);
      expect(Math.abs(points.at(-1)![0] - end.x - end.axisX)).toBeLessThan(0.6);
    }
  });
});
