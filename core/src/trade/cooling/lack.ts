import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id } from '../../model/document';
import type { Part } from '../../model/parts';
import type { CoolingCase } from './cases';
import type { LoopInCase } from './loop-answer';
import { imbalanceAbove, type LoopBalanceResult } from './loop-balance';
import type { Piece } from './pieces';
import { standsBelowLPerMin } from './temperatures';

/** Pieces that get too little, each told once, by the worst that is known of it. */
export interface Lack {
  /** Heat and no flow. */
  stands: { id: Id; at: CoolingCase; heatW: number }[];
  /** Far less than their like, though not nothing. */
  starved: Id[];
  /** Less than their maker asks for. */
  short: Short[];
  /** The same of plates that share unevenly: that is what is to be mended. */
  shortOfUneven: Short[];
}

export interface Short {
  piece: Piece;
  flowLPerMin: number;
  leastLPerMin: number;
}

/** What a piece needs at least, L/min: as typed, or as its part says. */
export function leastOf({ item }: Piece, parts: Readonly<Record<string, Part>>): number | undefined {
  const part = parts[item.plate ?? ''];
  return item.leastLPerMin ?? (part?.kind === 'plate' ? part.data.leastLPerMin : undefined);
}

export const isUneven = ({ worstImbalanceFraction }: LoopBalanceResult): boolean =>
  (worstImbalanceFraction ?? 0) > imbalanceAbove;

/** In words. */
export const shortText = ({ piece, flowLPerMin, leastLPerMin }: Short): string =>
  `${piece.item.tag} gets ${formatNumber(flowLPerMin)} L/min and needs ${formatNumber(leastLPerMin)}`;

/** The numbers of those words. */
export const shortValues = ({ piece, flowLPerMin, leastLPerMin }: Short): CheckValue[] => [
  { label: `flow of ${piece.item.tag}`, value: flowLPerMin, unit: 'L/min' },
  { label: `${piece.item.tag} needs`, value: leastLPerMin, unit: 'L/min' },
];

/** A throttle that is shut makes a piece stand, starve and miss its least flow at once: that is one thing to be mended. */
export function lackOf({
  pieces,
  loads,
  known,
  parts,
  balance,
  indexOf,
  flowOf,
}: {
  pieces: readonly Piece[];
  loads: readonly Piece[];
  known: readonly LoopInCase[];
  parts: Readonly<Record<string, Part>>;
  balance: readonly { plates: readonly Id[]; result: LoopBalanceResult }[];
  indexOf: ReadonlyMap<Id, number>;
  flowOf: (id: Id) => number | null;
}): Lack {
  const stands = loads.flatMap(({ id }) => {
    const when = known.filter(
      (one) =>
        (one.heatW[id] ?? 0) > 0 &&
        Math.abs(one.settled.solved.flows[indexOf.get(id)!]!) < standsBelowLPerMin,
    );
    return when.length === 0
      ? []
      : [{ id, at: when[0]!.at, heatW: Math.max(...when.map((one) => one.heatW[id]!)) }];
  });
  // What stands in one case only has enough in the others, or too little of its own.
  const told = new Set(
    stands.flatMap(({ id }) => (Math.abs(flowOf(id) ?? 0) < standsBelowLPerMin ? [id] : [])),
  );
  const starved = balance.flatMap(({ result }) => result.starved.filter((id) => !told.has(id)));
  for (const id of starved) told.add(id);
  const uneven = new Set(
    balance.flatMap(({ plates, result }) =>
      isUneven(result) && !plates.some((id) => told.has(id)) ? plates : [],
    ),
  );
  const short = pieces.flatMap((piece) => {
    const leastLPerMin = leastOf(piece, parts);
    const flow = flowOf(piece.id);
    if (leastLPerMin === undefined || flow === null || told.has(piece.id)) return [];
    const flowLPerMin = Math.abs(flow);
    return flowLPerMin < leastLPerMin ? [{ piece, flowLPerMin, leastLPerMin }] : [];
  });
  return {
    stands,
    starved,
    short: short.filter(({ piece }) => !uneven.has(piece.id)),
    shortOfUneven: short.filter(({ piece }) => uneven.has(piece.id)),
  };
}
