import type { Gap } from '../../ground/figure';
import {
  partOfPiece,
  pieceHolds,
  plumbingDefaults,
  type Design,
  type Id,
  type PlumbingItem,
} from '../../model/document';
import type { CoolantData, PartKey, PartOf } from '../../model/parts';
import { fitDrop } from './fit-drop';
import { glycol50, type FluidTable } from './fluid';
import type { LoopElement } from './laws';

export type PlumbingSlices = Pick<Design, 'plumbing' | 'joins' | 'loops' | 'parts'>;

/** Something coolant goes through, as the solver takes it, or why it cannot. */
export interface Piece {
  id: Id;
  item: PlumbingItem;
  element: LoopElement | null;
  gaps: Gap[];
  /** What it holds; null: not known. */
  volumeL: number | null;
}

const missing = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });
const invalid = (path: string, label: string, message: string): Gap => ({
  kind: 'invalid',
  path,
  label,
  message,
});

/** Pieces of a loop in their order. */
export const piecesOf = (slices: PlumbingSlices, loop: Id): Piece[] =>
  Object.entries(slices.plumbing ?? {}).flatMap(([id, item]) =>
    item.loop === loop ? [pieceOf(id, item, slices)] : [],
  );

/** Why the volume of pieces is not known. */
export const volumeGapsOf = (pieces: readonly Piece[]): Gap[] =>
  pieces.flatMap((piece): Gap[] =>
    piece.volumeL === null
      ? [missing(`plumbing.${piece.id}`, `what ${piece.item.tag} holds`)]
      : piece.gaps.filter(({ kind }) => kind === 'invalid'),
  );

function pieceOf(id: Id, item: PlumbingItem, { parts }: PlumbingSlices): Piece {
  const at = `plumbing.${id}`;
  const { tag, kind } = item;
  const key = partOfPiece(item);
  const part = key === undefined ? undefined : parts[key];
  const gaps: Gap[] = [];
  for (const end of ['from', 'to'] as const)
    if (item[end] === undefined)
      gaps.push(missing(`${at}.${end}`, `${end === 'from' ? 'beginning' : 'end'} of ${tag}`));
  if (item.from !== undefined && item.from === item.to)
    gaps.push(invalid(`${at}.to`, `end of ${tag}`, 'must be another join than it comes from'));
  const above = (field: 'lengthM' | 'kvM3PerH', words: string, value: number | undefined) => {
    if (value === undefined) gaps.push(missing(`${at}.${field}`, `${words} of ${tag}`));
    else if (!(value > 0)) gaps.push(invalid(`${at}.${field}`, `${words} of ${tag}`, 'must be above 0'));
    return value !== undefined && value > 0 ? value : 1;
  };
  const noLess = (field: 'minorK', words: string, value: number) => {
    if (!(value >= 0)) gaps.push(invalid(`${at}.${field}`, `${words} of ${tag}`, 'must be 0 or more'));
    return Math.max(0, value);
  };
  const ends = { id, from: item.from ?? '', to: item.to ?? '' };
  let element: LoopElement | null = null;
  switch (kind) {
    case 'pump':
      if (part?.kind !== 'pump') gaps.push(missing(`${at}.pump`, `kind of ${tag}`));
      else {
        element = { ...ends, kind: 'pump', curve: part.data.curve.map(([q, h]) => [q, h]) };
        gaps.push(...curveGaps(part, key!));
      }
      break;
    case 'hose': {
      const lengthM = above('lengthM', 'length', item.lengthM);
      const minorK = noLess('minorK', 'bends', item.minorK ?? plumbingDefaults.minorK);
      if (part?.kind !== 'hose') {
        gaps.push(missing(`${at}.hose`, `kind of ${tag}`));
        break;
      }
      const { innerMm, roughnessMm } = part.data;
      if (!(innerMm > 0) || !(roughnessMm >= 0) || roughnessMm > innerMm / 2)
        gaps.push(
          invalid(
            `parts.${key}.data.innerMm`,
            `bore of ${part.label}`,
            'must be above 0, its roughness at most half of it',
          ),
        );
      else element = { ...ends, kind: 'pipe', innerMm, lengthM, minorK, roughnessMm };
      break;
    }
    case 'valve': {
      const kv = above('kvM3PerH', 'flow at 1 bar', item.kvM3PerH);
      const openFraction = item.openFraction ?? plumbingDefaults.openFraction;
      if (!(openFraction >= 0 && openFraction <= 1))
        gaps.push(invalid(`${at}.openFraction`, `opening of ${tag}`, 'must lie between 0 and 100 %'));
      element = { ...ends, kind: 'valve', kv, openFraction: Math.min(1, Math.max(0, openFraction)) };
      break;
    }
    default: {
      const own = dropOf(item, part?.data as Partial<Record<'kPaPerLpm' | 'kPaPerLpm2', number>> | undefined);
      if (own === null) gaps.push(missing(`${at}.${kind === 'jacket' ? 'plate' : kind}`, `kind of ${tag}`));
      else if (!(own.kPaPerLpm >= 0 && own.kPaPerLpm2 >= 0 && own.kPaPerLpm + own.kPaPerLpm2 > 0))
        gaps.push(
          invalid(
            `${at}.kPaPerLpm`,
            `pressure over flow of ${tag}`,
            'or that over its square must be above 0, neither below',
          ),
        );
      else element = { ...ends, kind: 'fixed', ...own };
    }
  }
  const { volumeL } = pieceHolds(item, parts);
  return { id, item, element: gaps.length > 0 ? null : element, gaps, volumeL };
}

function curveGaps(part: PartOf<'pump'>, key: PartKey): Gap[] {
  const { curve } = part.data;
  const isRight =
    curve.length >= 2 &&
    curve[0]![0] === 0 &&
    curve.every(
      ([q, h], i) => Number.isFinite(h) && (i === 0 || (q > curve[i - 1]![0] && h <= curve[i - 1]![1])),
    );
  return isRight
    ? []
    : [
        invalid(
          `parts.${key}.data.curve`,
          `curve of ${part.label}`,
          'must begin at a flow of 0, rise in flow and never in head',
        ),
      ];
}

/** Readings count before what is typed, that before the part’s. */
export function dropOf(
  { readings, kPaPerLpm, kPaPerLpm2 }: Pick<PlumbingItem, 'readings' | 'kPaPerLpm' | 'kPaPerLpm2'>,
  part?: { kPaPerLpm?: number; kPaPerLpm2?: number },
): { kPaPerLpm: number; kPaPerLpm2: number } | null {
  const fitted = readings === undefined ? null : fitDrop(readings);
  if (fitted !== null) return { kPaPerLpm: fitted.kPaPerLpm, kPaPerLpm2: fitted.kPaPerLpm2 };
  if (kPaPerLpm !== undefined || kPaPerLpm2 !== undefined)
    return { kPaPerLpm: kPaPerLpm ?? 0, kPaPerLpm2: kPaPerLpm2 ?? 0 };
  return part?.kPaPerLpm === undefined && part?.kPaPerLpm2 === undefined
    ? null
    : { kPaPerLpm: part.kPaPerLpm ?? 0, kPaPerLpm2: part.kPaPerLpm2 ?? 0 };
}

const tables = new WeakMap<CoolantData, FluidTable>();

/** The table of a coolant; without one, 50 % glycol. Its curves are read at the temperatures of its density. */
export function fluidTableOf(data: CoolantData | undefined): FluidTable {
  if (data === undefined) return glycol50;
  let table = tables.get(data);
  if (table === undefined) {
    const at = (curve: readonly (readonly [number, number])[], c: number) =>
      curve.find(([t]) => t === c)?.[1] ?? curve[0]?.[1] ?? 1;
    table = data.density.map(([c, density]) => [
      c,
      density,
      at(data.specificHeat, c),
      at(data.viscosity, c),
      at(data.conductivity, c),
    ]);
    tables.set(data, table);
  }
  return table;
}
