import type { LiveMapResult, LiveState, SymbolKind } from '@torvek/core/network';
import { formatNumber } from '@torvek/core/quantity';
import type { DrawnLine, DrawnSymbol } from './layout';

/** What a symbol or a line is in, for a position of the switches. */
export interface Shown {
  state: LiveState;
  text: string;
}

/** State of a symbol: the worst of its terminals, its switches, and the voltage that matters at it. */
export function shownSymbol(
  { symbol }: DrawnSymbol,
  elements: ReadonlyMap<string, { kind: string; a: string; b: string }>,
  map: LiveMapResult,
  open: ReadonlySet<string>,
): Shown {
  const own = symbol.elements.map((id) => ({ id, ...elements.get(id)! }));
  const terminals = symbol.terminals ?? own.flatMap(({ a, b }) => [a, b]);
  const state = worstOf(terminals, map);
  const position = positionOf(symbol.kind, own, open);
  const volts =
    symbol.kind === 'load' || symbol.kind === 'modules' || symbol.kind === 'bus'
      ? spread(terminals, map)
      : null;
  const words = [position, stateWord(state, volts)].filter((text) => text !== '');
  return { state, text: words.join(', ') };
}

/** State of a line: the worst of what it joins. */
export function shownLine({ line }: DrawnLine, map: LiveMapResult): LiveState {
  return worstOf(line.terminals, map);
}

const rank: Record<LiveState, number> = { floating: 0, stored: 1, live: 2 };

function worstOf(terminals: readonly string[], map: LiveMapResult): LiveState {
  let worst: LiveState = 'floating';
  for (const terminal of terminals) {
    const state = map.terminals[terminal]?.state ?? 'floating';
    if (rank[state] > rank[worst]) worst = state;
  }
  return worst;
}

/** Largest difference among terminals of one component. */
function spread(terminals: readonly string[], map: LiveMapResult): number | null {
  const byComponent = new Map<number, number[]>();
  for (const terminal of terminals) {
    const at = map.terminals[terminal];
    if (at?.component == null) continue;
    byComponent.set(at.component, [...(byComponent.get(at.component) ?? []), at.potentialV!]);
  }
  const spreads = [...byComponent.values()].map((volts) => Math.max(...volts) - Math.min(...volts));
  return spreads.length === 0 ? null : Math.max(...spreads);
}

function stateWord(state: LiveState, volts: number | null): string {
  if (state === 'floating') return 'not fed';
  const word = state === 'live' ? 'live' : 'stored';
  return volts === null ? word : `${word} ${formatNumber(volts, 3)} V`;
}

function positionOf(
  kind: SymbolKind,
  own: readonly { id: string; kind: string }[],
  open: ReadonlySet<string>,
): string {
  const switches = own.filter(
    (one) => one.kind !== 'module' && one.kind !== 'load' && one.kind !== 'resistor',
  );
  const count = switches.filter(({ id }) => open.has(id)).length;
  if (switches.length === 0 || kind === 'bus') return '';
  switch (kind) {
    case 'modules':
      return count === 0 ? '' : `${count} out`;
    case 'fuse':
      return count > 0 ? 'out' : '';
    case 'cable':
      return count > 0 ? 'unplugged' : '';
    case 'disconnect':
      return count > 0 ? 'out' : 'in';
    default: {
      const contactors = own.filter((one) => one.kind === 'contactor');
      const opened = contactors.filter(({ id }) => open.has(id)).length;
      if (opened === 0) return 'closed';
      return opened === contactors.length ? 'open' : 'half open';
    }
  }
}

/** Whether a symbol's switches are open: its glyph shows it. */
export function isOpen(
  { symbol }: DrawnSymbol,
  elements: ReadonlyMap<string, { kind: string }>,
  open: ReadonlySet<string>,
): boolean {
  return symbol.elements.some((id) => {
    const kind = elements.get(id)?.kind;
    const counts = kind === 'contactor' || symbol.kind !== 'contactor';
    return counts && open.has(id);
  });
}

/** Path of a way with slightly rounded corners. */
export function linePath(points: readonly [number, number][]): string {
  return points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${round(x)},${round(y)}`).join(' ');
}

/**
 * What a symbol looks like, drawn in a square of 26 around its middle: outline of its kind, and its moving piece when
 * it has one.
 */
export function glyphPath(kind: SymbolKind, opened: boolean): string {
  switch (kind) {
    case 'modules':
      // Cells in a row: long and short plates.
      return 'M-9,-6 H9 M-4,-2 H4 M-9,3 H9 M-4,7 H4';
    case 'fuse':
      return opened ? 'M-5,-10 H5 V10 H-5 Z M0,-13 V-10 M0,10 V13' : 'M-5,-10 H5 V10 H-5 Z M0,-13 V13';
    case 'disconnect':
      return opened
        ? 'M-9,-8 H9 M-9,8 H9 M0,-13 V-8 M0,8 V13'
        : 'M-9,-8 H9 M-9,8 H9 M-3,-8 V8 M3,-8 V8 M0,-13 V-8 M0,8 V13';
    case 'contactor':
      return opened ? 'M0,-13 V-7 M0,13 V7 M0,7 L-8,-6' : 'M0,-13 V13 M-5,-7 H5 M-5,7 H5';
    case 'precharge':
      return opened ? 'M0,-13 V-9 M0,0 L-6,-8 M-4,1 H4 V12 H-4 Z' : 'M0,-13 V1 M-3,-9 H3 M-4,1 H4 V12 H-4 Z';
    case 'cable':
      return opened
        ? 'M-6,-6 A6,6 0 0 0 6,-6 M0,-13 V-8 M-6,8 A6,6 0 0 1 6,8 M0,13 V10'
        : 'M-6,-6 A6,6 0 0 0 6,-6 M-6,6 A6,6 0 0 1 6,6 M0,-13 V13';
    case 'load':
      return 'M-10,-10 H10 V10 H-10 Z M-4,0 A4,4 0 1 0 4,0 A4,4 0 1 0 -4,0';
    case 'bus':
      return '';
  }
}

const round = (value: number) => Math.round(value * 10) / 10;
