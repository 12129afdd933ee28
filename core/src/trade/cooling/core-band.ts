import type { Design, PlumbingItem } from '../../model/document';

/** Air through radiators of other flow than their sheet’s: UA goes with this power of it. */
export const airPower = 0.6;

/** What the core of a radiator exchanges for each litre of it, W/K, at least and at most, with so much air on each square metre. */
const coreWPerKL = [40, 90] as const;
const coreAirKgPerSM2 = 4;

/** The core of a radiator as measured; null: not all of it. */
function coreOf({ coreWidthMm, coreHeightMm, coreDepthMm }: PlumbingItem) {
  if (!(coreWidthMm !== undefined && coreHeightMm !== undefined && coreDepthMm !== undefined)) return null;
  if (!(coreWidthMm > 0 && coreHeightMm > 0 && coreDepthMm > 0)) return null;
  const faceM2 = (coreWidthMm * coreHeightMm) / 1e6;
  return { faceM2, litres: faceM2 * coreDepthMm };
}

/** What a core of this size exchanges with so much air, at least and at most, W/K; null: it is not known. */
export function coreBandWPerK(
  item: PlumbingItem,
  airKgPerS: number | null,
): [least: number, most: number] | null {
  const core = coreOf(item);
  if (core === null || airKgPerS === null) return null;
  const by = core.litres * (airKgPerS / (core.faceM2 * coreAirKgPerSM2)) ** airPower;
  return [coreWPerKL[0] * by, coreWPerKL[1] * by];
}

/** Whether what a radiator exchanges is known by the size of its core alone. */
export const isByCore = (item: PlumbingItem, parts: Design['parts']): boolean =>
  item.kind === 'radiator' &&
  item.uaWPerK === undefined &&
  parts[item.radiator ?? '']?.kind !== 'radiator' &&
  coreOf(item) !== null;
