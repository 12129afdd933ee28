import { circuitDefaults } from '../../model/document';
import { defineCalculator, type Desk } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { logSpaced } from '../../ground/math';
import { fallsStrictly } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { continuousShare, derating, faultPoints } from './limits';
import { fuseOwnCriteria } from './own-criteria';
import { fuseRules } from './rules';
import { clearingTimeS, meltBand, meltTimeS, type FuseBand } from './melting';

export interface FuseInput {
  /** Average pre-arcing times: currents rising strictly, times falling strictly. */
  curve: [currentA: number, timeS: number][];
  /** 0.1 by default. */
  currentToleranceFraction: number;
  ratedA: number;
  ratedVoltageV: number;
  breakingA: number;
  /** Partial-range fuses: below this current they may not clear; 0 by default. */
  minBreakingA: number;
  /** Total clearing I²t over pre-arcing I²t; 2 by default. */
  arcI2tFactor: number;
  busVoltageV: number;
  faultMinA: number;
  faultMaxA: number;
  maxClearS: number;
  /** 25 °C by default. */
  ambientC: number;
  ambientDerating?: [temperatureC: number, factor: number][];
  /** One period of the load, repeating. */
  loadProfile: [durationS: number, currentA: number][];
  cable?: { areaMm2: number; /** 143 by default. */ k: number };
}

export interface MeltTimes {
  fastestS: number | null;
  averageS: number | null;
  slowestS: number | null;
}

export interface FuseResult {
  voltageOk: boolean;
  breakingOk: boolean;
  meltAtMinFault: MeltTimes;
  meltAtMaxFault: MeltTimes;
  clearsMinFault: boolean;
  belowMinBreaking: boolean;
  rmsA: number;
  rmsFraction: number;
  continuousOk: boolean;
  wearPerPeriod: number;
  /** null: no wear. */
  periodsToWearOut: number | null;
  /** null without a cable. */
  protectsCable: boolean | null;
  unprotectedAtA: number[];
}

/** Adiabatic heating is assumed up to this time only. */
const adiabaticUpToS = 5;

/**
 * One fuse against its circuit: voltage, breaking, smallest and largest fault, steady load, wear and cable.
 *
 * Source: average melting curve in log-log with tolerance on current; adiabatic cable limit (IEC 60364-4-43).
 */
export const fuse = defineCalculator<FuseInput, FuseResult>({
  name: 'fuse',
  version: 1,
  title: 'Fuse',
  rules: Object.values(fuseRules),
  door: {
    schema: record({
      curve: table({
        columns: [{ above: 0 }, { above: 0 }],
        minRows: 2,
        maxRows: 2000,
        whole: fallsStrictly,
      }),
      currentToleranceFraction: number.optional({ min: 0, below: 1 }),
      ratedA: number({ above: 0 }),
      ratedVoltageV: number({ min: 0 }),
      breakingA: number({ min: 0 }),
      minBreakingA: number.optional({ min: 0 }),
      arcI2tFactor: number.optional({ min: 1 }),
      busVoltageV: number({ min: 0 }),
      faultMinA: number({ above: 0 }),
      faultMaxA: number({ above: 0 }),
      maxClearS: number({ above: 0 }),
      ambientC: number.optional({ min: -273.15 }),
      ambientDerating: table.optional({ columns: [{ min: -273.15 }, { above: 0 }] }),
      loadProfile: table({ columns: [{ above: 0 }, {}], rising: false }),
      cable: record.optional({ areaMm2: number({ above: 0 }), k: number.optional({ above: 0 }) }),
    }),
    defaults: {
      currentToleranceFraction: 0.1,
      minBreakingA: 0,
      arcI2tFactor: 2,
      ambientC: circuitDefaults.fuseAmbientC,
      'cable.k': 143,
    },
    cross(input: FuseInput, issue) {
      if (input.faultMaxA < input.faultMinA) issue('faultMaxA', 'must not be below faultMinA');
    },
  },
  compute(input, desk) {
    const result = {
      voltageOk: input.busVoltageV <= input.ratedVoltageV,
      breakingOk: input.faultMaxA <= input.breakingA,
      ...judgeFaults(input, desk),
      ...judgeLoad(input, desk),
      ...judgeCable(input, desk),
    };
    for (const { rule, problem, sentence } of fuseOwnCriteria(input, result))
      if (problem !== null) desk.raise(rule, sentence ?? `The fuse ${problem}.`);
    return result;
  },
});

/** Melting at both ends of the fault range; whether the smallest fault is cleared in time. */
function judgeFaults(input: FuseInput, { sheet }: Desk) {
  const { faultMinA, faultMaxA, maxClearS, minBreakingA } = input;
  const meltAtMinFault = meltBand(input, faultMinA);
  const meltAtMaxFault = meltBand(input, faultMaxA);
  const source = 'Melting curve, linear in log-log; slowest at I/(1+tolerance), fastest at I/(1−tolerance)';
  const tolerance = {
    symbol: 'δ',
    value: input.currentToleranceFraction,
    unit: 'fraction',
    from: 'currentToleranceFraction',
  };
  const slowestS = sheet.add({
    symbol: 't_s',
    label: 'Slowest melting at the smallest fault',
    formula: 'melt(I_min/(1 + δ))',
    inputs: [{ symbol: 'I_min', value: faultMinA, unit: 'A', from: 'faultMinA' }, tolerance],
    value: meltAtMinFault.slowestS,
    unit: 's',
    source,
  });
  const clearS = sheet.add({
    symbol: 't_c',
    label: 'Clearing of the smallest fault',
    formula: 't_s + (a − 1)·min(t_s, 0.1)',
    inputs: [
      ...(slowestS === null ? [] : [{ symbol: 't_s', value: slowestS, unit: 's' }]),
      { symbol: 'a', value: input.arcI2tFactor, unit: '', from: 'arcI2tFactor' },
    ],
    value: clearingTimeS(input, faultMinA),
    unit: 's',
    source: 'Slowest melting and its arc',
  });
  sheet.add({
    symbol: 't_f',
    label: 'Slowest melting at the largest fault',
    formula: 'melt(I_max/(1 + δ))',
    inputs: [{ symbol: 'I_max', value: faultMaxA, unit: 'A', from: 'faultMaxA' }, tolerance],
    value: meltAtMaxFault.slowestS,
    unit: 's',
    source,
  });
  const belowMinBreaking = faultMinA < minBreakingA;
  const inTime = clearS !== null && clearS <= maxClearS;
  return { meltAtMinFault, meltAtMaxFault, clearsMinFault: inTime && !belowMinBreaking, belowMinBreaking };
}

/** Steady load against the derated rating, and what the peaks wear away. */
function judgeLoad(input: FuseInput, { sheet, raise }: Desk) {
  const load = sumLoad(input);
  const factor = derating(input);
  if (factor.held) {
    raise(
      fuseRules.deratingHeld,
      `Ambient is ${formatNumber(input.ambientC)} °C, beyond the table; the factor ${formatNumber(factor.value)} is held.`,
    );
  }
  const rmsA = sheet.add({
    symbol: 'I_rms',
    label: 'Load over one period, rms',
    formula: '√(Σ(t·I²)/Σ(t))',
    inputs: [],
    value: load.rmsA,
    unit: 'A',
    source: 'Root mean square over the load profile',
  });
  const rmsFraction = sheet.add({
    symbol: 'u',
    label: 'Load over derated rating',
    formula: 'I_rms/(I_n·f)',
    inputs: [
      { symbol: 'I_rms', value: rmsA, unit: 'A' },
      { symbol: 'I_n', value: input.ratedA, unit: 'A', from: 'ratedA' },
      { symbol: 'f', value: factor.value, unit: '', from: 'ambientDerating' },
    ],
    value: rmsA / (input.ratedA * factor.value),
    unit: 'fraction',
    source: 'Fuse makers’ application guides; at most 80 %',
  });
  const continuousOk = rmsFraction <= continuousShare * (1 + 1e-12);
  const wearPerPeriod = sheet.add({
    symbol: 'D',
    label: 'Wear per period',
    formula: 'Σ(t/t_fastest)',
    inputs: [],
    value: load.wearPerPeriod,
    unit: '',
    source: 'Linear damage sum over the fastest melting time of each step',
  });
  const periodsToWearOut = wearPerPeriod > 0 ? 1 / wearPerPeriod : null;
  return { rmsA, rmsFraction, continuousOk, wearPerPeriod, periodsToWearOut };
}

let range: { minA: number; maxA: number; currents: readonly number[] } = { minA: 0, maxA: 0, currents: [] };

/** The currents at which a fuse is tried. A ranking asks for those of one range again and again. */
function faultCurrents({ faultMinA: minA, faultMaxA: maxA }: Clearing): readonly number[] {
  if (range.minA !== minA || range.maxA !== maxA)
    range = { minA, maxA, currents: logSpaced(minA, maxA, faultPoints) };
  return range.currents;
}

/** The fuse and the faults that it has to clear. */
export type Clearing = FuseBand & Pick<FuseInput, 'minBreakingA' | 'faultMinA' | 'faultMaxA'>;

/**
 * Fault currents at which a conductor of an adiabatic limit is not covered: the fuse lets more through, takes longer than
 * heat stays in the conductor, or must not be relied on.
 */
export function uncoveredAt(fuse: Clearing, limitA2s: number): number[] {
  return faultCurrents(fuse).filter((currentA) => {
    const clearS = clearingTimeS(fuse, currentA);
    if (currentA < fuse.minBreakingA || clearS === null || clearS > adiabaticUpToS) return true;
    return currentA ** 2 * clearS > limitA2s;
  });
}

/** Clearing against the adiabatic limit of the cable, over the whole fault range. */
function judgeCable(input: FuseInput, { sheet }: Desk): Pick<FuseResult, 'protectsCable' | 'unprotectedAtA'> {
  const { cable } = input;
  if (cable === undefined) return { protectsCable: null, unprotectedAtA: [] };
  const limitA2s = sheet.add({
    symbol: 'W_c',
    label: 'Adiabatic limit of the cable',
    formula: '(k·S)²',
    inputs: [
      { symbol: 'k', value: cable.k, unit: 'A√s/mm²', from: 'cable.k' },
      { symbol: 'S', value: cable.areaMm2, unit: 'mm²', from: 'cable.areaMm2' },
    ],
    value: (cable.k * cable.areaMm2) ** 2,
    unit: 'A²s',
    source: 'IEC 60364-4-43',
  });
  const unprotectedAtA = uncoveredAt(input, limitA2s);
  return { protectsCable: unprotectedAtA.length === 0, unprotectedAtA };
}

function sumLoad(input: FuseInput): { rmsA: number; wearPerPeriod: number } {
  let seconds = 0;
  let squares = 0;
  let wearPerPeriod = 0;
  const { loadProfile, curve } = input;
  const least = 1 - input.currentToleranceFraction;
  // By index: profiles are long, and every circuit has one.
  for (let i = 0; i < loadProfile.length; i += 1) {
    const durationS = loadProfile[i]![0];
    const currentA = loadProfile[i]![1];
    seconds += durationS;
    squares += durationS * currentA * currentA;
    const fastestS = meltTimeS(curve, (currentA < 0 ? -currentA : currentA) / least);
    if (fastestS !== null) wearPerPeriod += durationS / fastestS;
  }
  return { rmsA: Math.sqrt(squares / seconds), wearPerPeriod };
}
