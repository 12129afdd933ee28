import type { FuseData } from '../../model/parts';

/** What a first spin on a part of the pack is made with. */
export interface SpinAsk {
  /** Of each module in series order, at the voltage its cells have then. */
  modulesV: readonly number[];
  /** The same at the cells’ highest. */
  modulesMaxV: readonly number[];
  modulesOhm: readonly number[];
  /** The device works from and up to. */
  minV: number;
  maxV: number;
}

export interface Spin {
  /** The fewest modules from the lower end that wake it; null: all of them do not. */
  modules: number | null;
  voltageV: number;
  highestV: number;
  /** With these modules shorted at their posts, cells full. */
  shortA: number;
  /** Their highest lies above what the device stands. */
  tooHigh: boolean;
}

/** The fewest modules from the lower end of a string that bring a device to what it works from. Source: voltages add up. */
export function spinOf({ modulesV, modulesMaxV, modulesOhm, minV, maxV }: SpinAsk): Spin {
  let voltageV = 0;
  let highestV = 0;
  let ohm = 0;
  for (let i = 0; i < modulesV.length; i += 1) {
    voltageV += modulesV[i]!;
    highestV += modulesMaxV[i]!;
    ohm += modulesOhm[i]!;
    if (voltageV >= minV - 1e-9)
      return { modules: i + 1, voltageV, highestV, shortA: highestV / ohm, tooHigh: highestV > maxV + 1e-9 };
  }
  return { modules: null, voltageV, highestV, shortA: ohm > 0 ? highestV / ohm : 0, tooHigh: false };
}

/** A fuse carries this share of its rating for long. */
export const spinFuseLoadFraction = 0.8;

/** The smallest fuse that carries a spin’s current for long, at its voltage, and breaks what these modules can give. */
export function spinFuse<Part extends { data: FuseData }>(
  fuses: readonly Part[],
  currentA: number,
  { highestV, shortA }: Pick<Spin, 'highestV' | 'shortA'>,
): Part | null {
  return (
    fuses
      .filter(
        ({ data }) =>
          data.ratedA * spinFuseLoadFraction >= currentA - 1e-9 &&
          data.ratedVoltageV >= highestV - 1e-9 &&
          data.breakingA >= shortA - 1e-9 &&
          data.minBreakingA <= shortA,
      )
      .sort((a, b) => a.data.ratedA - b.data.ratedA || a.data.ratedVoltageV - b.data.ratedVoltageV)[0] ?? null
  );
}
