import type { LadderItem } from '@torvek/core/charging';

/** Volts of a cell to a height, with the middle that holds nothing cut out. */
export interface LadderScale {
  toY(perCellV: number): number;
  toV(y: number): number;
  /** Heights between which the scale is cut; null: it is whole. */
  cut: { fromY: number; toY: number } | null;
  /** Where a line with its voltage is drawn. */
  ticks: number[];
}

const cutPx = 26;
/** A part of the range that holds nothing and is larger than this is cut out. */
const emptyFraction = 0.4;

const niceStep = (span: number): number => {
  const raw = span / 6;
  const power = 10 ** Math.floor(Math.log10(raw));
  return ([1, 2, 5, 10].find((one) => one * power >= raw) ?? 10) * power;
};

/** A scale that holds all of them, the highest at the top. */
export function ladderScale(volts: readonly number[], high: number): LadderScale {
  const sorted = [...volts].sort((a, b) => a - b);
  const [low, top] = [sorted[0] ?? 0, sorted.at(-1) ?? 1];
  const span = Math.max(top - low, 0.01);
  let gap = { from: 0, to: 0 };
  for (let i = 1; i < sorted.length; i += 1)
    if (sorted[i]! - sorted[i - 1]! > gap.to - gap.from) gap = { from: sorted[i - 1]!, to: sorted[i]! };
  const isCut = gap.to - gap.from > span * emptyFraction;
  const pad = (isCut ? span - (gap.to - gap.from) : span) * 0.06 + 0.002;
  const pieces = isCut
    ? [
        { from: gap.to - pad, to: top + pad },
        { from: low - pad, to: gap.from + pad },
      ]
    : [{ from: low - pad, to: top + pad }];
  const volted = pieces.reduce((sum, one) => sum + one.to - one.from, 0);
  const perV = (high - (isCut ? cutPx : 0)) / volted;
  let y = 0;
  const placed = pieces.map((one) => {
    const fromY = y;
    y += (one.to - one.from) * perV + cutPx;
    return { ...one, fromY, toY: fromY + (one.to - one.from) * perV };
  });
  const ticks = placed.flatMap(({ from, to }) => {
    const step = niceStep(to - from);
    const first = Math.ceil(from / step - 1e-9) * step;
    const all: number[] = [];
    for (let v = first; v <= to + 1e-9; v += step) all.push(Number(v.toFixed(6)));
    return all;
  });
  return {
    toY(v) {
      const own = placed.find((one) => v >= one.from - 1e-9) ?? placed.at(-1)!;
      return own.fromY + (own.to - Math.min(v, own.to)) * perV;
    },
    toV(at) {
      const own = placed.find((one) => at <= one.toY + cutPx / 2) ?? placed.at(-1)!;
      return own.to - (Math.max(own.fromY, Math.min(at, own.toY)) - own.fromY) / perV;
    },
    cut: placed.length < 2 ? null : { fromY: placed[0]!.toY, toY: placed[1]!.fromY },
    ticks,
  };
}

/** Owners as columns, in the order in which they first stand from the top. */
export const ownersOf = (items: readonly LadderItem[]): string[] => [
  ...new Set([...items].sort((a, b) => b.perCellV - a.perCellV).map(({ owner }) => owner)),
];

/** What is stored where a threshold of this item stands at a voltage by the cell: rounded to a millivolt of a cell, or 0.1 V of a pack. */
export function storedV(item: Pick<LadderItem, 'level' | 'voltageV' | 'perCellV'>, perCellV: number): number {
  const cells = item.perCellV > 0 ? item.voltageV / item.perCellV : 1;
  return item.level === 'pack' ? Math.round(perCellV * cells * 10) / 10 : Math.round(perCellV * 1000) / 1000;
}
