import { crossing } from './lump';

/** Modules that share a plate and a box: one lump, with its own coolant. */
export interface PlateLump {
  capacityJPerK: number;
  uaToAmbientWPerK: number;
  /** From cells to coolant while it runs. */
  coolingWPerK: number;
  coolantC: number;
}

export interface LumpsState {
  temperaturesC: number[];
  isCooling: boolean;
}

/** Cooling comes on with the hottest of all, and goes off once even that is cool. */
export interface Switching {
  onAboveC: number;
  offBelowC: number;
}

/** Told of every piece between two switches: how long it lasts, and the temperature of each lump along it. */
export type LumpsPiece = (durationS: number, temperatureAt: (lump: number, sinceS: number) => number) => void;

/** So often in one stretch cooling comes on or goes off at the most; then it stays as it is to the end of that stretch. */
const mostSwitches = 400;

/**
 * Follows several lumps with one pump through a stretch of constant heat, exactly: between two switches each is an exponential.
 *
 * Source: m·c·dT/dt = P − UA·(T − T_a) − UA_c·(T − T_c) for each; the hottest switches the pump for all.
 *
 * @param heatsW heat given to each lump
 */
export function followTogether(
  lumps: readonly PlateLump[],
  state: LumpsState,
  { ambientC, heatsW, durationS }: { ambientC: number; heatsW: readonly number[]; durationS: number },
  switching: Switching,
  piece: LumpsPiece,
): void {
  let leftS = durationS;
  for (let switches = 0; leftS > 0; switches += 1) {
    const { temperaturesC, isCooling } = state;
    const given = lumps.map(
      (one, i) =>
        heatsW[i]! + one.uaToAmbientWPerK * ambientC + (isCooling ? one.coolingWPerK * one.coolantC : 0),
    );
    const ua = lumps.map((one) => one.uaToAmbientWPerK + (isCooling ? one.coolingWPerK : 0));
    const cross = (i: number, targetC: number, falls: boolean) =>
      crossing(temperaturesC[i]!, targetC, given[i]!, ua[i]!, lumps[i]!.capacityJPerK, falls);
    const switchS =
      switches >= mostSwitches
        ? null
        : isCooling
          ? whenAllBelow(temperaturesC, switching.offBelowC, cross)
          : whenOneAbove(temperaturesC, switching.onAboveC, cross);
    const isSwitch = switchS !== null && switchS < leftS;
    const lastsS = isSwitch ? switchS : leftS;
    const temperatureAt = (i: number, s: number) => {
      const from = temperaturesC[i]!;
      if (ua[i] === 0) return from + (given[i]! / lumps[i]!.capacityJPerK) * s;
      return from + (given[i]! / ua[i]! - from) * -Math.expm1((-ua[i]! / lumps[i]!.capacityJPerK) * s);
    };
    piece(lastsS, temperatureAt);
    state.temperaturesC = lumps.map((_, i) => temperatureAt(i, lastsS));
    leftS -= lastsS;
    if (isSwitch) state.isCooling = !isCooling;
  }
}

type Cross = (lump: number, targetC: number, falls: boolean) => number | null;

/** When the first of them passes a temperature, s; null: none does. */
function whenOneAbove(temperaturesC: readonly number[], onAboveC: number, cross: Cross): number | null {
  return temperaturesC.reduce<number | null>((first, _, i) => {
    const own = cross(i, onAboveC, false);
    return own === null ? first : Math.min(first ?? Infinity, own);
  }, null);
}

/** When the last of those above a temperature has fallen below it, unless another has risen past it by then; null: not. */
function whenAllBelow(temperaturesC: readonly number[], offBelowC: number, cross: Cross): number | null {
  let lastS = 0;
  let risesS = Infinity;
  for (const [i, fromC] of temperaturesC.entries()) {
    if (fromC > offBelowC) {
      const own = cross(i, offBelowC, true);
      if (own === null) return null;
      lastS = Math.max(lastS, own);
    } else risesS = Math.min(risesS, cross(i, offBelowC, false) ?? Infinity);
  }
  return lastS < risesS ? lastS : null;
}
