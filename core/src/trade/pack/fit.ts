import { packDefaults } from '../../model/document';
/** Inner sizes a box has for modules, and how close they may stand. */
export interface BoxRoom {
  lengthM: number;
  widthM: number;
  heightM: number;
  /** Taken off each inner wall. */
  marginMm: number;
  /** Middle to middle of neighbours across their width, where links are used again. */
  linkPitchMm?: number | undefined;
  /** Levels above the floor, and what each takes of the height. */
  shelves?: number | undefined;
  shelfMm?: number | undefined;
}

export interface ModuleSize {
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  /** What its maker allows besides upright: on its long side, on its end. */
  onSide?: boolean | undefined;
  onEnd?: boolean | undefined;
}

/** Where one module sits, over the middle of its box, in metres: x forward, y left, z up. */
export interface Slot {
  xM: number;
  yM: number;
  zM: number;
  lengthM: number;
  widthM: number;
  heightM: number;
  /** Counted from the floor, through all levels. */
  layer: number;
  /** 0: the floor of the box, then its shelves. */
  level: number;
}

export interface Fit {
  /** One for each module, kind after kind. */
  slots: Slot[];
  /** Share of the box's length that stays free when modules are stacked as high as they go. */
  spareFraction: number;
}

/** Off each inner wall, where the design does not say: wall, insulation, clamps. */
export const defaultMarginMm = packDefaults.boxMarginMm;

interface Turn {
  /** Room of one module along and across the box. */
  alongMm: number;
  acrossMm: number;
  perSlice: number;
  across: number;
  /** Its own size along, across and up. */
  own: [alongMm: number, acrossMm: number, upMm: number];
  /** How many lie on one another on the floor and on each shelf. */
  perLevel: number;
}

/**
 * Puts modules into a box: kinds one after another along its length, each in slices as wide and as high as the box
 * lets, turned in plan where that helps, upright unless their maker allows more. Spread out over the floor before they are
 * stacked.
 *
 * @param sizes each kind with how many of it
 * @returns null when they do not fit that way; a person who packs differently may fit more
 */
export function fitModules(room: BoxRoom, sizes: { size: ModuleSize; count: number }[]): Fit | null {
  const inner = (metres: number) => metres * 1000 - 2 * room.marginMm;
  const box = { long: inner(room.lengthM), wide: inner(room.widthM), ...levelsOf(room) };
  const kinds = sizes.filter(({ count }) => count > 0);
  const least: number[] = [];
  for (const { size, count } of kinds) {
    const lengths = turnsOf(size, box, room).map(
      ({ alongMm, perSlice }) => Math.ceil(count / perSlice) * alongMm,
    );
    if (lengths.length === 0) return null;
    least.push(Math.min(...lengths));
  }
  const needed = least.reduce((sum, one) => sum + one, 0);
  if (needed > box.long + 1e-6) return null;
  const slots: Slot[] = [];
  let from = 0;
  kinds.forEach(({ size, count }, i) => {
    const later = least.slice(i + 1).reduce((sum, one) => sum + one, 0);
    const upTo = box.long - later - from;
    const spread = turnsOf(size, box, room)
      .map((turn) => spreadOut(turn, count, upTo))
      .filter((one) => one !== null)
      .sort((a, b) => a.layers - b.layers || a.lengthMm - b.lengthMm)[0]!;
    slots.push(...slotsOf(spread, count, box, from));
    from += spread.lengthMm;
  });
  return { slots, spareFraction: box.long <= 0 ? 0 : Math.max(1 - needed / box.long, 0) };
}

/**
 * How many of one kind fit, alone.
 *
 * @returns 0 when not one does
 */
export function mostModules(room: BoxRoom, size: ModuleSize): number {
  const inner = (metres: number) => metres * 1000 - 2 * room.marginMm;
  const box = { long: inner(room.lengthM), wide: inner(room.widthM), ...levelsOf(room) };
  return Math.max(
    0,
    ...turnsOf(size, box, room).map(
      ({ alongMm, perSlice }) => Math.floor((box.long + 1e-6) / alongMm) * perSlice,
    ),
  );
}

interface Levels {
  count: number;
  /** Clear height of each, floor to floor, and of the box. */
  clearMm: number;
  pitchMm: number;
  high: number;
}

/** The floor and the shelves, evenly over the height. */
function levelsOf({ heightM, marginMm, shelves = 0, shelfMm = 0 }: BoxRoom): Levels {
  const high = heightM * 1000 - 2 * marginMm;
  const above = Math.max(Math.floor(shelves), 0);
  const clearMm = (high - above * shelfMm) / (above + 1);
  return { count: above + 1, clearMm, pitchMm: clearMm + shelfMm, high };
}

/** Its sizes along the row, across and up, each way its maker allows. */
function standings({ lengthMm, widthMm, heightMm, onSide, onEnd }: ModuleSize): [number, number, number][] {
  return [
    [widthMm, lengthMm, heightMm],
    ...(onSide === true ? [[heightMm, lengthMm, widthMm] as [number, number, number]] : []),
    ...(onEnd === true ? [[widthMm, heightMm, lengthMm] as [number, number, number]] : []),
  ];
}

function turnsOf(size: ModuleSize, box: { wide: number } & Levels, room: BoxRoom): Turn[] {
  return standings(size)
    .flatMap(([thick, wide, upMm], i) => {
      // Donor links lead across the width of modules that stand as in their donor.
      const pitch = i === 0 ? Math.max(thick, room.linkPitchMm ?? 0) : thick;
      const perLevel = Math.floor((box.clearMm + 1e-6) / upMm);
      return [false, true].map((turned): Turn => {
        const [alongMm, acrossMm] = turned ? [wide, pitch] : [pitch, wide];
        const across = Math.floor((box.wide + 1e-6) / acrossMm);
        return {
          alongMm,
          acrossMm,
          across,
          perSlice: across * perLevel * box.count,
          own: turned ? [wide, thick, upMm] : [thick, wide, upMm],
          perLevel,
        };
      });
    })
    .filter(({ perSlice, own }) => perSlice > 0 && own.every((mm) => mm > 0));
}

interface Spread extends Turn {
  layers: number;
  slices: number;
  lengthMm: number;
}

/** As few layers as the length allows. */
function spreadOut(turn: Turn, count: number, upToMm: number): Spread | null {
  const most = Math.floor((upToMm + 1e-6) / turn.alongMm);
  if (most < 1) return null;
  const layers = Math.ceil(count / (most * turn.across));
  const slices = Math.ceil(count / (layers * turn.across));
  if (layers > turn.perSlice / turn.across) return null;
  return { ...turn, layers, slices, lengthMm: slices * turn.alongMm };
}

/** From the front of the box backwards, to and fro across it, floor first. */
function slotsOf(spread: Spread, count: number, box: { long: number } & Levels, fromMm: number): Slot[] {
  const { across, slices, alongMm, acrossMm, own, perLevel } = spread;
  const [lengthMm, widthMm, upMm] = own;
  const perLayer = across * slices;
  const usedWide = across * acrossMm;
  return Array.from({ length: count }, (_, i) => {
    const layer = Math.floor(i / perLayer);
    const level = Math.floor(layer / perLevel);
    const inLayer = i % perLayer;
    const slice = Math.floor(inLayer / across);
    const step = inLayer % across;
    const lane = slice % 2 === 0 ? step : across - 1 - step;
    return {
      xM: (box.long / 2 - fromMm - (slice + 0.5) * alongMm) / 1000,
      yM: (usedWide / 2 - (lane + 0.5) * acrossMm) / 1000,
      zM: (-box.high / 2 + level * box.pitchMm + ((layer % perLevel) + 0.5) * upMm) / 1000,
      lengthM: lengthMm / 1000,
      widthM: widthMm / 1000,
      heightM: upMm / 1000,
      layer,
      level,
    };
  });
}
