import type { Gap } from '../../ground/figure';
import type { PackThermalInput, PackThermalResult } from './pack-thermal';

/** A stretch of constant heat, as the calculator takes it. */
export interface Stretch {
  minutes: number;
  packHeatW: number;
}

/** Days like the first one, one after the other, until a morning is like the one before. */
export interface DayAfterDay {
  /** Temperature at which each day begins, °C; the first is the one that is given. */
  morningsC: number[];
  /** Highest over all of them, °C. */
  maxC: number;
  /** False: after the longest that is followed mornings still change. */
  settles: boolean;
  /** The last of them. */
  drive: PackThermalResult;
  charge: PackThermalResult | null;
  night: PackThermalResult;
  /** The night after the first. */
  firstNight: PackThermalResult;
}

export interface DayInput {
  /** Drives of a day, as the calculator takes them. */
  drive: PackThermalInput;
  resistanceOhm: number;
  /** After the drives, at the same ambient and cooling; null: none. */
  fast: Stretch | null;
  /** Begins with the night, without cooling; null: none. */
  home: Stretch | null;
  nightC: number;
  nightH: number;
  /** What is known of the first day already. */
  first?: { drive: PackThermalResult; charge: PackThermalResult | null };
}

/** A morning within this of the one before is the same, K. */
const sameK = 0.1;
/** Two weeks of such weather. */
const mostDays = 14;

/** What one run answers, or why it does not. */
export type Ran = { result: PackThermalResult | null; gaps: Gap[] };

/** The profile of a stretch: the current that heats as much. */
export const heating = ({ minutes, packHeatW }: Stretch, resistanceOhm: number): [number, number] => [
  minutes * 60,
  Math.sqrt(packHeatW / resistanceOhm),
];

/**
 * Follows days until mornings repeat: drives, a fast charge, and the night in which the pack only loses what passes the walls of its
 * boxes, warmed by a charge at home.
 *
 * Source: one lump, each stretch of constant current exactly (see `pack-thermal`).
 */
export function dayAfterDay(
  { drive, resistanceOhm, fast, home, nightC, nightH, first }: DayInput,
  run: (input: PackThermalInput) => Ran,
): { days: DayAfterDay | null; gaps: Gap[] } {
  const { cooling: _cooling, ...walls } = drive;
  const nightS = nightH * 3600;
  const [chargeS, chargeA] = home === null ? [0, 0] : heating(home, resistanceOhm);
  const ownS = Math.min(chargeS, nightS);
  const profile: [number, number][] = [
    ...(ownS > 0 ? [[ownS, chargeA] as [number, number]] : []),
    ...(nightS > ownS ? [[nightS - ownS, 0] as [number, number]] : []),
  ];
  const morningsC = [drive.startC];
  let maxC = -Infinity;
  let firstNight: PackThermalResult | null = null;
  for (;;) {
    const known = morningsC.length === 1 ? first : undefined;
    const driven: Ran =
      known === undefined ? run({ ...drive, startC: morningsC.at(-1)! }) : { result: known.drive, gaps: [] };
    if (driven.result === null) return { days: null, gaps: driven.gaps };
    const charged: Ran | null =
      fast === null
        ? null
        : known !== undefined && known.charge !== null
          ? { result: known.charge, gaps: [] }
          : run({
              ...drive,
              startC: driven.result.endC,
              repeat: 1,
              profile: [heating(fast, resistanceOhm)],
            });
    if (charged !== null && charged.result === null) return { days: null, gaps: charged.gaps };
    const night = run({
      ...walls,
      ambientC: nightC,
      startC: (charged?.result ?? driven.result).endC,
      repeat: 1,
      profile,
    });
    if (night.result === null) return { days: null, gaps: night.gaps };
    firstNight ??= night.result;
    maxC = Math.max(maxC, driven.result.maxC, charged?.result?.maxC ?? -Infinity, night.result.maxC);
    const morningC = night.result.endC;
    const settles = Math.abs(morningC - morningsC.at(-1)!) < sameK;
    if (settles || morningsC.length >= mostDays)
      return {
        days: {
          morningsC,
          maxC,
          settles,
          drive: driven.result,
          charge: charged?.result ?? null,
          night: night.result,
          firstNight,
        },
        gaps: [],
      };
    morningsC.push(morningC);
  }
}
