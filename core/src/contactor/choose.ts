import type { Suggestion } from '../finding';
import { partKey, type ContactorData, type FuseData, type PartOf } from '../parts';
import { formatNumber, formatQuantity } from '../quantity';
import { coilOf, pullInAtV } from './coil';
import { firstUncovered } from './short-time';

/** What contactors in one place have to hold; null where it is not known. */
export interface ContactorPlace {
  busVoltageV: number;
  loadA: number;
  /** What flows when they close. */
  inrushA: number | null;
  faultMinA: number | null;
  faultMaxA: number | null;
  /** The fuse in their path. */
  fuse: FuseData | null;
  startLowV: number;
  coilC: number;
}

const n = formatNumber;

/** What does not hold of contactors in a place, each in a few words. */
export function contactorProblems(data: ContactorData, place: ContactorPlace): string[] {
  const found: string[] = [];
  if (place.busVoltageV > data.ratedVoltageV)
    found.push(`are made for ${n(data.ratedVoltageV)} V, the pack reaches ${n(place.busVoltageV)} V`);
  if (place.loadA > data.continuousA)
    found.push(`carry ${n(data.continuousA)} A of the ${n(place.loadA)} A asked`);
  if (place.inrushA !== null && place.inrushA > data.makeA)
    found.push(`make ${n(data.makeA)} A where ${n(place.inrushA)} A rush in`);
  const { faultMinA, faultMaxA, fuse } = place;
  if (data.shortTime !== undefined && fuse !== null && faultMinA !== null && faultMaxA !== null) {
    const bad = firstUncovered(fuse, data.shortTime, faultMinA, faultMaxA);
    if (bad !== null)
      found.push(
        `stand ${n(bad.currentA)} A for ${formatQuantity(bad.carryS, 's')}, the fuse ${bad.clearingS === null ? 'never clears it' : `takes ${formatQuantity(bad.clearingS, 's')}`}`,
      );
  }
  const coil = coilOf(data);
  if (coil !== null && pullInAtV(coil, place.coilC) > place.startLowV)
    found.push(
      `pull in at ${n(pullInAtV(coil, place.coilC))} V when warm, a start may leave ${n(place.startLowV)} V`,
    );
  return found;
}

/** Contactors for a place: those that hold first, then those with the fewest faults, the smallest first among them. */
export function rankContactors(parts: readonly PartOf<'contactor'>[], place: ContactorPlace): Suggestion[] {
  return parts
    .map((part) => ({ part, reasons: contactorProblems(part.data, place) }))
    .sort(
      (a, b) =>
        a.reasons.length - b.reasons.length ||
        a.part.data.continuousA - b.part.data.continuousA ||
        a.part.data.coilHoldW - b.part.data.coilHoldW,
    )
    .map(({ part, reasons }) => ({
      partKey: partKey(part),
      label: part.label,
      fits: reasons.length === 0,
      reasons,
    }));
}

/** What contactors must have to hold in a place, in numbers. */
export function contactorNeeds({
  busVoltageV,
  loadA,
  inrushA,
  faultMaxA,
  startLowV,
  coilC,
}: ContactorPlace): string[] {
  return [
    `${n(busVoltageV)} V DC or more`,
    `to carry ${n(loadA)} A`,
    ...(inrushA === null ? [] : [`to make ${n(inrushA)} A`]),
    ...(faultMaxA === null ? [] : [`to stand ${n(faultMaxA)} A until the fuse has cleared`]),
    `to pull in at ${n(startLowV)} V with coils of ${n(coilC)} °C`,
  ];
}
