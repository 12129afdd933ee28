import type { PackOverTime } from '@torvek/core/cooling';

type Points = [hours: number, temperatureC: number][];

/** A day as it is drawn: drives, then the charge after them. */
export interface Day {
  cooled: Points;
  uncooled: Points;
  driveH: number;
  /** Where the charge begins; null: none is asked. */
  chargeFromH: number | null;
  /** Where it stands over night; null: that is not computed. */
  nightFromH: number | null;
  /** The last day that is followed, from which on all are alike if it settles; null where that is the first, or not computed. */
  settled: { points: Points; day: number; settles: boolean } | null;
  endH: number;
  driveMaxC: number;
  chargeMaxC: number | null;
  limitC: number;
}

/** A morning this much warmer or colder than the first is worth a line of its own, K. */
const worthALine = 0.3;

export function dayOf({ drive, charge, uncooled, limitC, days }: PackOverTime): Day {
  const hours = (curve: readonly (readonly [number, number])[], fromH = 0): Points =>
    curve.map(([s, c]) => [fromH + s / 3600, c]);
  const driveH = drive.curve.at(-1)![0] / 3600;
  const charged = charge === null ? [] : hours(charge.curve, driveH);
  const standsFromH = charged.at(-1)?.[0] ?? driveH;
  const night = days === null ? [] : hours(days.firstNight.curve, standsFromH);
  const isOther = days !== null && Math.abs(days.morningsC.at(-1)! - days.morningsC[0]!) > worthALine;
  return {
    cooled: [...hours(drive.curve), ...charged, ...night],
    uncooled: hours(uncooled.curve),
    driveH,
    chargeFromH: charge === null ? null : driveH,
    nightFromH: days === null ? null : standsFromH,
    settled: !isOther
      ? null
      : {
          day: days.morningsC.length,
          settles: days.settles,
          points: [
            ...hours(days.drive.curve),
            ...(days.charge === null ? [] : hours(days.charge.curve, driveH)),
            ...hours(days.night.curve, standsFromH),
          ],
        },
    endH: night.at(-1)?.[0] ?? standsFromH,
    driveMaxC: drive.maxC,
    chargeMaxC: charge?.maxC ?? null,
    limitC,
  };
}
