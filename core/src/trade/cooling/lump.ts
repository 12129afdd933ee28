/** One lump of heat capacity that loses heat to what is around it and, while that is on, to coolant. */
export interface Lump {
  capacityJPerK: number;
  ambientC: number;
  uaToAmbientWPerK: number;
  cooling?: { uaWPerK: number; coolantC: number; onAboveC: number; offBelowC: number };
}

export interface LumpState {
  temperatureC: number;
  isCooling: boolean;
}

export interface LumpTold {
  maxC: number;
  minC: number;
  timeAboveOnS: number;
  coolingOnS: number;
}

/** Told of every piece between switches: when it began and lasted, and its temperature along it. */
type Piece = (startS: number, durationS: number, temperatureAt: (sinceS: number) => number) => void;

/** Beyond so many switches in one stretch whole turns are counted, not walked. */
const walkedSwitches = 200;

/**
 * Follows a lump through a stretch of constant heat, exactly: each piece between two switches of the cooling is an exponential.
 *
 * Source: m·c·dT/dt = P − UA·(T − T_a) − UA_c·(T − T_c); the moment of each switch is the exponential turned round.
 */
export function follow(
  lump: Lump,
  state: LumpState,
  heatW: number,
  startS: number,
  durationS: number,
  told: LumpTold,
  piece: Piece,
): void {
  const { capacityJPerK: c, ambientC, uaToAmbientWPerK, cooling } = lump;
  let leftS = durationS;
  let nowS = startS;
  let switches = 0;
  /** What passed since cooling last came on, once turns are counted. */
  let turn: { periodS: number; onS: number; aboveS: number } | null = null;
  while (leftS > 0) {
    const by = cooling !== undefined && state.isCooling ? cooling.uaWPerK : 0;
    const ua = uaToAmbientWPerK + by;
    const given = heatW + uaToAmbientWPerK * ambientC + by * (cooling?.coolantC ?? 0);
    const from = state.temperatureC;
    const rate = ua / c;
    const temperatureAt =
      ua === 0
        ? (s: number) => from + (given / c) * s
        : (s: number) => from + (given / ua - from) * -Math.expm1(-rate * s);
    const target = cooling === undefined ? null : state.isCooling ? cooling.offBelowC : cooling.onAboveC;
    const crossS = target === null ? null : crossing(from, target, given, ua, c, state.isCooling);
    const isCross = crossS !== null && crossS < leftS;
    const lasts = isCross ? crossS : leftS;
    const to = isCross ? target! : temperatureAt(leftS);
    piece(nowS, lasts, temperatureAt);
    told.maxC = Math.max(told.maxC, to);
    told.minC = Math.min(told.minC, to);
    if (cooling !== undefined) {
      const onS = state.isCooling ? lasts : 0;
      const aboveS = above(from, to, cooling.onAboveC, lasts, () =>
        crossing(from, cooling.onAboveC, given, ua, c, to < from),
      );
      told.coolingOnS += onS;
      told.timeAboveOnS += aboveS;
      if (turn !== null) {
        turn.periodS += lasts;
        turn.onS += onS;
        turn.aboveS += aboveS;
      }
    }
    state.temperatureC = to;
    leftS -= lasts;
    nowS += lasts;
    if (!isCross) break;
    state.isCooling = !state.isCooling;
    switches += 1;
    if (!state.isCooling || switches < walkedSwitches) continue;
    // The same heat brings the same turn again and again, however short it is.
    if (turn !== null) {
      if (turn.periodS === 0) return;
      const turns = Math.floor(leftS / turn.periodS);
      if (turns > 0) {
        const restS = leftS % turn.periodS;
        told.coolingOnS += turns * turn.onS;
        told.timeAboveOnS += turns * turn.aboveS;
        const meanC = (cooling!.onAboveC + cooling!.offBelowC) / 2;
        piece(nowS, leftS - restS, () => meanC);
        nowS += leftS - restS;
        leftS = restS;
      }
    }
    turn = { periodS: 0, onS: 0, aboveS: 0 };
  }
}

/** Seconds until a temperature is reached, rising or falling past it; null where it is not. */
export function crossing(
  from: number,
  target: number,
  given: number,
  ua: number,
  c: number,
  falls: boolean,
): number | null {
  const ends = ua === 0 ? (given === 0 ? from : given > 0 ? Infinity : -Infinity) : given / ua;
  if (falls ? !(ends < target) : !(ends > target)) return null;
  if (falls ? from <= target : from >= target) return 0;
  if (ua === 0) return ((target - from) * c) / given;
  return (c / ua) * Math.log((ends - from) / (ends - target));
}

/** How long of a piece, which only rises or only falls, lies above a limit. */
function above(from: number, to: number, limit: number, lasts: number, crossS: () => number | null): number {
  if (from <= limit && to <= limit) return 0;
  if (from >= limit && to >= limit) return lasts;
  const s = Math.min(lasts, crossS() ?? lasts);
  return to > from ? lasts - s : s;
}
