import type { PackOverTime } from '@torvek/core/cooling';

type Points = [hours: number, temperatureC: number][];

/** A day as it is drawn: drives, then the charge after them. */
export interface Day {
  cooled: Points;
  uncooled: Points;
  driveH: number;
  /** Where the charge begins; null: none is asked. */
  chargeFromH: number | null;
  endH: number;
  driveMaxC: number;
  chargeMaxC: number | null;
  limitC: number;
}

export function dayOf({ drive, charge, uncooled, limitC }: PackOverTime): Day {
  const hours = (curve: readonly (readonly [number, number])[], fromH = 0): Points =>
    curve.map(([s, c]) => [fromH + s / 3600, c]);
  const driveH = drive.curve.at(-1)![0] / 3600;
  const charged = charge === null ? [] : hours(charge.curve, driveH);
  return {
    cooled: [...hours(drive.curve), ...charged],
    uncooled: hours(uncooled.curve),
    driveH,
    chargeFromH: charge === null ? null : driveH,
    endH: charged.at(-1)?.[0] ?? driveH,
    driveMaxC: drive.maxC,
    chargeMaxC: charge?.maxC ?? null,
    limitC,
  };
}
