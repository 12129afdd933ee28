import { describe, expect, test } from '@jest/globals';
import { liveMapOf } from '@torvek/core/design';
import { deriveNetwork, stagesOf, type SymbolKind } from '@torvek/core/network';
import { libraryBus } from '../../../../demo/library-bus';
import { glyphPath, isOpen, linePath, shownLine, shownSymbol } from './draw';
import type { DrawnLine, DrawnSymbol } from './layout';
import { textWidth, wrapText } from '../../parts/text-size';

const network = deriveNetwork(libraryBus.design);
const elements = new Map(network.elements.map((one) => [one.id, one]));
const symbol = (id: string) => ({ symbol: network.symbols.find((one) => one.id === id)! }) as DrawnSymbol;
const at = (stage: string, change: (open: Set<string>) => void = () => undefined) => {
  const open = new Set(stagesOf(libraryBus.design, network).find(({ id }) => id === stage)!.open);
  change(open);
  const map = liveMapOf(network, open);
  return {
    shown: (id: string) => shownSymbol(symbol(id), elements, map, open),
    opened: (id: string) => isOpen(symbol(id), elements, open),
    line: (id: string) => shownLine({ line: network.lines.find((one) => one.id === id)! } as DrawnLine, map),
  };
};

describe('what a symbol shows', () => {
  test('modules: their voltage, and links that are out', () => {
    expect(at('last-link').shown('string-1/group-6')).toEqual({ state: 'live', text: 'live 151 V' });
    expect(at('boxes').shown('string-1/group-6').text).toBe('2 out, live 50.4 V');
  });

  test('switches: their position before their state', () => {
    expect(at('last-link').shown('string-1/contactor').text).toBe('open, live');
    expect(at('last-link').shown('circuit-main/contactor').text).toBe('open, not fed');
    expect(at('driving').shown('circuit-main/contactor').text).toBe('closed, live');
    expect(at('welded-plus').shown('circuit-main/contactor').text).toBe('half open, live');
    expect(at('locked-off').shown('string-1/disconnect').text).toBe('out, live');
    expect(at('bench').shown('circuit-heater/fuse')).toEqual({ state: 'floating', text: 'out, not fed' });
    expect(at('boxes').shown('circuit-heater/cable').text).toBe('unplugged, not fed');
  });

  test('devices and busses: fed or not, and with how much', () => {
    expect(at('last-link').shown('device-heater').text).toBe('not fed');
    expect(at('driving').shown('device-heater').text).toBe('live 403 V');
    expect(at('driving').shown('hv-bus')).toEqual({ state: 'live', text: 'live 403 V' });
    expect(at('last-link').shown('hv-bus').state).toBe('floating');
  });

  test('a line is as live as what it joins', () => {
    expect(at('last-link').line('circuit-main/contactor>hv-bus')).toBe('floating');
    expect(at('driving').line('circuit-main/contactor>hv-bus')).toBe('live');
    expect(at('last-link').line('string-1/fuse>string-1/lead+')).toBe('live');
  });

  test('one open pole of a pair draws the pair open', () => {
    expect(at('driving').opened('circuit-main/contactor')).toBe(false);
    expect(
      at('driving', (open) => open.add('circuit-main/contactor-')).opened('circuit-main/contactor'),
    ).toBe(true);
    expect(at('driving').opened('circuit-main/precharge')).toBe(true);
  });

  test('every kind has a shape, and what can open has two', () => {
    const kinds: SymbolKind[] = ['fuse', 'disconnect', 'contactor', 'precharge', 'cable'];
    for (const kind of kinds) expect(glyphPath(kind, true)).not.toBe(glyphPath(kind, false));
    for (const kind of ['modules', 'load'] as const)
      expect(glyphPath(kind, true)).toBe(glyphPath(kind, false));
    expect(
      linePath([
        [0, 0],
        [0, 10.04],
        [5.26, 10.04],
      ]),
    ).toBe('M0,0 L0,10 L5.3,10');
  });
});

describe('texts in the diagram', () => {
  test('are broken at spaces, never wider than asked, the rest in the last line', () => {
    const lines = wrapText('Charger, three-phase, under the floor', 12, 90, 2);
    expect(lines).toHaveLength(2);
    expect(lines.join(' ')).toContain('Charger, three-phase');
    expect(textWidth(lines[0]!, 12)).toBeLessThanOrEqual(90);
  });

  test('a number keeps its unit', () => {
    expect(wrapText('fuse, 250\u00a0A', 12, 40, 3)).toEqual(['fuse,', '250\u00a0A']);
  });

  test('a word without end is cut, and says so', () => {
    const [line] = wrapText('x'.repeat(200), 12, 90, 2);
    expect(line!.endsWith('…')).toBe(true);
    expect(textWidth(line!, 12)).toBeLessThanOrEqual(90 * 1.4);
  });

  test('bold and capitals take more room', () => {
    expect(textWidth('Mains', 12, true)).toBeGreaterThan(textWidth('Mains', 12));
    expect(textWidth('MW', 12)).toBeGreaterThan(textWidth('il', 12));
  });
});
