import type { Gap } from '../../ground/figure';
import { interpolate } from '../../ground/math';
import type { Part, PartKey } from '../parts';
import type { PlumbingItem } from './cooling';
import type { Design } from './design';
import type { Id } from './id';

/** Boxes in which modules stand. */
export const occupied = ({ modules, boxes }: Pick<Design, 'modules' | 'boxes'>): Id[] => {
  const used = new Set(Object.values(modules).map(({ box }) => box));
  return Object.keys(boxes).filter((id) => used.has(id));
};

/** Coolant of which nothing is said: 50 % glycol in water at 20 °C. */
export const usualCoolantKgM3 = 1076;
/** What a pump or heater holds, L: little, and rarely on its sheet. */
const littleL = 0.1;

/** The part of a piece, where its kind has one. */
export function partOfPiece(item: PlumbingItem): PartKey | undefined {
  switch (item.kind) {
    case 'pump':
      return item.pump;
    case 'plate':
    case 'jacket':
      return item.plate;
    case 'radiator':
      return item.radiator;
    case 'heater':
      return item.heater;
    case 'hose':
      return item.hose;
    default:
      return undefined;
  }
}

/** What a piece holds, L, and weighs empty, kg; null: not known. What a jacket is part of is weighed as that. */
export function pieceHolds(
  item: PlumbingItem,
  parts: Readonly<Record<string, Part>>,
): { volumeL: number | null; massKg: number | null } {
  const part = parts[partOfPiece(item) ?? ''];
  switch (item.kind) {
    case 'valve':
      return { volumeL: 0, massKg: null };
    case 'pump':
      return { volumeL: 0, massKg: part?.kind === 'pump' ? part.data.massKg : null };
    case 'hose': {
      const { lengthM } = item;
      if (part?.kind !== 'hose' || lengthM === undefined || !(lengthM > 0))
        return { volumeL: null, massKg: null };
      const { innerMm, massKgPerM } = part.data;
      return {
        volumeL: (1000 * Math.PI * (innerMm / 1000) ** 2 * lengthM) / 4,
        massKg: massKgPerM * lengthM,
      };
    }
    default: {
      const volumeL =
        part === undefined
          ? null
          : part.kind === 'plate' || part.kind === 'radiator'
            ? part.data.volumeL
            : littleL;
      return { volumeL, massKg: part !== undefined && 'massKg' in part.data ? part.data.massKg : null };
    }
  }
}

/** What a loop weighs with its coolant, as far as it is known, where, and of what it is not known. */
export interface LoopMass {
  massKg: number;
  /** Middle of what has a place; absent: nothing has. */
  xM?: number;
  zM?: number;
  /** What is not in it. */
  unknown: Gap[];
}

type LoopSlices = Pick<Design, 'loops' | 'plumbing' | 'joins' | 'modules' | 'boxes' | 'devices' | 'parts'>;

/** Coolant at 20 °C in its pieces (or as filled), and the pieces themselves; null: there is nothing of it yet. */
export function loopMass(id: Id, design: LoopSlices): LoopMass | null {
  const loop = design.loops?.[id];
  const pieces = Object.entries(design.plumbing ?? {}).filter(([, item]) => item.loop === id);
  if (loop === undefined || (pieces.length === 0 && loop.volumeL === undefined)) return null;
  const density = densityOf(design.parts[loop.coolant ?? '']);
  const unknown: Gap[] = [];
  const masses = pieces.map(([at, item]) => {
    const { volumeL, massKg } = pieceHolds(item, design.parts);
    const ofKind = item.kind !== 'valve' && item.kind !== 'jacket';
    if ((volumeL === null && loop.volumeL === undefined) || (massKg === null && ofKind))
      unknown.push({ kind: 'not-given', path: pathOfMass(at, item), label: `mass of ${item.tag}` });
    const fan = design.parts[item.fan ?? ''];
    const ownKg = (massKg ?? 0) + (fan?.kind === 'fan' && item.kind === 'radiator' ? fan.data.massKg : 0);
    return { item, ownKg, volumeL: volumeL ?? 0 };
  });
  const holdsL = masses.reduce((sum, { volumeL }) => sum + volumeL, 0);
  const filledL = loop.volumeL ?? holdsL;
  // Coolant lies where its pieces are, in the tank where they hold nothing.
  const perL = holdsL > 0 ? filledL / holdsL : 0;
  const weighed = masses.map(({ item, ownKg, volumeL }) => ({
    kg: ownKg + (volumeL * perL * density) / 1000,
    place: placeOfPiece(item, design),
  }));
  if (holdsL === 0 && filledL > 0)
    weighed.push({ kg: (filledL * density) / 1000, place: design.joins?.[loop.tank ?? ''] ?? {} });
  const middle = (axis: 'xM' | 'zM') => {
    const there = weighed.filter(({ place, kg }) => place[axis] !== undefined && kg > 0);
    const kg = there.reduce((sum, one) => sum + one.kg, 0);
    return kg > 0 ? there.reduce((sum, one) => sum + one.kg * one.place[axis]!, 0) / kg : undefined;
  };
  const [xM, zM] = [middle('xM'), middle('zM')];
  return {
    massKg: weighed.reduce((sum, { kg }) => sum + kg, 0),
    ...(xM !== undefined && { xM }),
    ...(zM !== undefined && { zM }),
    unknown,
  };
}

function densityOf(part: Part | undefined): number {
  if (part?.kind !== 'coolant') return usualCoolantKgM3;
  return interpolate(part.data.density, 20);
}

/** Where it is typed. */
function pathOfMass(id: Id, item: PlumbingItem): string {
  if (item.kind === 'hose') return `plumbing.${id}.${item.hose === undefined ? 'hose' : 'lengthM'}`;
  return `plumbing.${id}.${item.kind === 'jacket' ? 'plate' : item.kind}`;
}

/** Between its joins; where they have no place, in the box of its modules or at the device that it cools. */
function placeOfPiece(
  { from = '', to = '', modules = [], device = '' }: PlumbingItem,
  { joins = {}, boxes, devices, modules: all }: LoopSlices,
): { xM?: number; zM?: number } {
  const ends = [joins[from], joins[to]];
  const between = (axis: 'xM' | 'zM') => {
    const known = ends.flatMap((one) => (one?.[axis] === undefined ? [] : [one[axis]]));
    if (known.length > 0) return known.reduce((sum, one) => sum + one, 0) / known.length;
    const box = boxes[all[modules[0] ?? '']?.box ?? ''];
    return box?.[axis] ?? devices[device]?.[axis];
  };
  const [xM, zM] = [between('xM'), between('zM')];
  return { ...(xM !== undefined && { xM }), ...(zM !== undefined && { zM }) };
}
