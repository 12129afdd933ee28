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
}

export interface ModuleSize {
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/** Where one module sits, over the middle of its box, in metres: x forward, y left, z up. */
export interface Slot {
  xM: number;
  yM: number;
  zM: number;
  lengthM: number;
  widthM: number;
  heightM: number;
  layer: number;
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
  turned: boolean;
}

/**
 * Puts modules into a box: kinds one after another along its length, each in slices as wide and as high as the box
 * lets, modules upright, turned in plan where that helps. Spread out over the floor before they are stacked.
 *
 * @param sizes each kind with how many of it
 * @returns null when they do not fit that way; a person who packs differently may fit more
 */
export function fitModules(room: BoxRoom, sizes: { size: ModuleSize; count: number }[]): Fit | null {
  const inner = (metres: number) => metres * 1000 - 2 * room.marginMm;
  const box = { long: inner(room.lengthM), wide: inner(room.widthM), high: inner(room.heightM) };
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
    slots.push(...slotsOf(spread, size, count, box, from));
    from += spread.lengthMm;
  });
  return { slots, spareFraction: box.long <= 0 ? 0 : Math.max(1 - needed / box.long, 0) };
}

function turnsOf(size: ModuleSize, box: { wide: number; high: number }, room: BoxRoom): Turn[] {
  const pitch = Math.max(size.widthMm, room.linkPitchMm ?? 0);
  const layers = Math.floor((box.high + 1e-6) / size.heightMm);
  return [false, true]
    .map((turned) => {
      const alongMm = turned ? size.lengthMm : pitch;
      const acrossMm = turned ? pitch : size.lengthMm;
      const across = Math.floor((box.wide + 1e-6) / acrossMm);
      return { alongMm, acrossMm, across, perSlice: across * layers, turned };
    })
    .filter(({ perSlice }) => perSlice > 0);
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
function slotsOf(
  spread: Spread,
  size: ModuleSize,
  count: number,
  box: { long: number; wide: number; high: number },
  fromMm: number,
): Slot[] {
  const { across, slices, alongMm, acrossMm, turned } = spread;
  const perLayer = across * slices;
  const usedWide = across * acrossMm;
  return Array.from({ length: count }, (_, i) => {
    const layer = Math.floor(i / perLayer);
    const inLayer = i % perLayer;
    const slice = Math.floor(inLayer / across);
    const step = inLayer % across;
    const lane = slice % 2 === 0 ? step : across - 1 - step;
    return {
      xM: (box.long / 2 - fromMm - (slice + 0.5) * alongMm) / 1000,
      yM: (usedWide / 2 - (lane + 0.5) * acrossMm) / 1000,
      zM: (-box.high / 2 + (layer + 0.5) * size.heightMm) / 1000,
      lengthM: (turned ? size.lengthMm : size.widthMm) / 1000,
      widthM: (turned ? size.widthMm : size.lengthMm) / 1000,
      heightM: size.heightMm / 1000,
      layer,
    };
  });
}
