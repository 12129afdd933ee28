import type { Gap } from '../../ground/figure';
import type { Design, Id } from '../../model/document';
import type { Reader } from '../../model/step';
import { runsIn, type CoolingCase } from './cases';
import { fluidAt, type FluidTable } from './fluid';
import { lawOf, type LoopElement } from './laws';
import type { LoopBalanceResult } from './loop-balance';
import { fluidTableOf, piecesOf, type Piece } from './pieces';
import type { PlatesOverDay } from './plates-over-day';
import type { SettledLoop } from './settle';

/** A loop in a case: flows, and temperatures where nothing is missing for them. */
export interface LoopInCase {
  at: CoolingCase;
  settled: SettledLoop;
  /** Heat into each piece, W. */
  heatW: Record<Id, number>;
  radiators: Record<Id, { uaWPerK: number; airKgPerS: number }>;
  gaps: Gap[];
}

/** How a loop works, as the step has it and pictures show it. */
export interface LoopAnswer {
  elements: LoopElement[];
  groundNode: string;
  /** Coolant at this temperature, °C, where flows are of no case. */
  coolC: number;
  flows: number[];
  residualKPa: number;
  pressures: Record<string, number | null>;
  cases: {
    at: CoolingCase;
    gaps: Gap[];
    flows: number[];
    /** Radiators with air. */
    radiators: Record<Id, { uaWPerK: number; airKgPerS: number }>;
    nodesC: Record<string, number | null> | null;
    piecesC: Record<Id, { inC: number; outC: number; surfaceC: number | null; heatW: number } | null> | null;
  }[];
  balance: { plates: Id[]; result: LoopBalanceResult }[];
  /** Its plates over a day; null: none has modules, or something is missing. */
  day: PlatesOverDay | null;
}

/** Everything a loop is judged by; null with gaps: its plumbing is not complete. */
interface Worked {
  pieces: Piece[];
  elements: LoopElement[];
  gaps: Gap[];
  table: FluidTable;
}

type Slices = Pick<
  Design,
  'plumbing' | 'joins' | 'loops' | 'parts' | 'modules' | 'devices' | 'cooling' | 'vehicle'
>;

export const slicesOf = (read: Reader): Slices => ({
  plumbing: read.at('plumbing') ?? {},
  joins: read.at('joins') ?? {},
  loops: read.at('loops') ?? {},
  parts: read.at('parts'),
  modules: read.at('modules'),
  devices: read.at('devices'),
  cooling: read.at('cooling') ?? {},
  vehicle: read.at('vehicle'),
});

export function worked(slices: Slices, loop: Id): Worked {
  const pieces = piecesOf(slices, loop);
  const part = slices.parts[slices.loops?.[loop]?.coolant ?? ''];
  return {
    pieces,
    elements: pieces.flatMap(({ element }) => (element === null ? [] : [element])),
    gaps:
      pieces.length === 0
        ? [
            {
              kind: 'not-given',
              path: `loops.${loop}`,
              label: `pieces of ${slices.loops?.[loop]?.tag ?? ''}`,
            },
          ]
        : pieces.flatMap(({ gaps }) => gaps),
    table: fluidTableOf(part?.kind === 'coolant' ? part.data : undefined),
  };
}

/** Elements as they are in a case: a pump that is off then stands still, and nothing goes through it. */
export const running = (pieces: readonly Piece[], at: CoolingCase): LoopElement[] =>
  pieces.flatMap(({ element, item }) =>
    element === null || (item.kind === 'pump' && !runsIn(item.switched, at)) ? [] : [element],
  );

export const isPlate = ({ item }: Piece) => item.kind === 'plate';

/** Plates of one kind: they should share the flow alike. */
export function platesAlike(pieces: readonly Piece[]): Id[][] {
  const groups = new Map<string, Id[]>();
  for (const piece of pieces)
    if (isPlate(piece)) {
      const key = piece.item.plate ?? '';
      groups.set(key, [...(groups.get(key) ?? []), piece.id]);
    }
  return [...groups.values()].filter((ids) => ids.length > 1);
}

/** Pressure drop of each piece at its flow, kPa: for tables. */
export const dropsOf = (
  { elements, flows, coolC }: Pick<LoopAnswer, 'elements' | 'flows' | 'coolC'>,
  table: FluidTable,
): number[] =>
  elements.map((element, i) =>
    element.kind === 'valve' && element.openFraction === 0
      ? 0
      : lawOf(element, fluidAt(table, coolC)).at(flows[i]!).dropKPa,
  );
