import { defineCalculator, number, record, table } from '../calculator';
import { defineRule } from '../finding';
import { interpolate, logSpaced } from '../math';
import { formatNumber, formatQuantity } from '../quantity';
import { clearingTimeS, meltBand, meltTimeS } from './melting';

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

const rule = (
  id: string,
  grade: 'stop' | 'mend' | 'note',
  title: string,
  why: string,
  remedy: string,
  source: string,
) => defineRule({ id: `fuse.${id}`, version: 1, grade, title, why, remedy, source });

export const fuseRules = {
  voltage: rule(
    'voltage',
    'stop',
    'The fuse is not made for this voltage',
    'A DC arc that the fuse cannot extinguish goes on burning inside and outside of it.',
    'Choose a fuse whose DC rating is at or above the highest pack voltage.',
    'Fuse makers’ DC ratings',
  ),
  breaking: rule(
    'breaking-capacity',
    'stop',
    'The largest fault is beyond the breaking capacity',
    'A fuse that meets more current than it can break bursts instead of clearing.',
    'Choose a fuse with a higher DC breaking capacity.',
    'Fuse makers’ DC ratings; IEC 60269',
  ),
  minimum: rule(
    'below-minimum-breaking',
    'stop',
    'The smallest fault is below the minimum breaking current',
    'A partial-range fuse may melt at this current and still not clear: the arc stays.',
    'Choose a full-range fuse, or lower the resistance to the far end until the fault is above the minimum.',
    'IEC 60269, partial-range (a) classes',
  ),
  slow: rule(
    'slow-at-smallest-fault',
    'stop',
    'The smallest fault is cleared too late',
    'At low charge, cold and at the far end the current may be too small to melt the fuse in time: cable and fault go on heating.',
    'Choose a smaller or faster fuse, or a path with less resistance.',
    'Melting curve with its tolerance and arc',
  ),
  continuous: rule(
    'continuous-load',
    'mend',
    'The load is more than the fuse carries for years',
    'Above about 80 % of its rating at the real ambient temperature a fuse ages and opens without a fault.',
    'Choose the next larger rating that still protects the cable, or a cooler place.',
    'Fuse makers’ application guides: 80 % of the derated rating',
  ),
  wear: rule(
    'cyclic-wear',
    'mend',
    'Load peaks wear the fuse',
    'Peaks that reach into the melting curve use up the element a little each time.',
    'Choose a larger rating or shorten the peak; compare the periods to wear-out with the life you want.',
    'Linear damage sum over the fastest melting time',
  ),
  cable: rule(
    'cable-unprotected',
    'stop',
    'The fuse does not protect the cable over the whole fault range',
    'At these currents the conductor reaches its short-circuit limit before the fuse has cleared.',
    'Choose a faster fuse or a larger conductor.',
    'Adiabatic limit k²S² against I² × clearing time, IEC 60364-4-43',
  ),
  deratingHeld: rule(
    'derating-held',
    'note',
    'Ambient lies beyond the derating table',
    'The maker gives no factor there; the end value of the table is held.',
    'Ask the maker, or move the fuse to where the table holds.',
    'Piecewise-linear table, ends held',
  ),
};

/** Load a fuse carries for years, as a share of its derated rating. */
export const continuousShare = 0.8;
/** Adiabatic heating is assumed up to this time only. */
const adiabaticUpToS = 5;
const faultPoints = 40;

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
        whole(rows) {
          const rise = rows.findIndex(([, timeS], i) => i > 0 && timeS >= rows[i - 1]![1]);
          return rise > 0 ? `must fall strictly in time (row ${rise} does not)` : null;
        },
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
      ambientC: 25,
      'cable.k': 143,
    },
    cross(input: FuseInput, issue) {
      if (input.faultMaxA < input.faultMinA) issue('faultMaxA', 'must not be below faultMinA');
    },
  },
  compute(input, { sheet, raise }) {
    const { faultMinA, faultMaxA, maxClearS, minBreakingA, busVoltageV, ratedVoltageV, breakingA } = input;
    const voltageOk = busVoltageV <= ratedVoltageV;
    if (!voltageOk)
      raise(
        fuseRules.voltage,
        `Rated ${formatNumber(ratedVoltageV)} V DC; the bus reaches ${formatNumber(busVoltageV)} V.`,
      );
    const breakingOk = faultMaxA <= breakingA;
    if (!breakingOk)
      raise(
        fuseRules.breaking,
        `Breaks ${formatNumber(breakingA)} A; the largest fault is ${formatNumber(faultMaxA)} A.`,
      );

    const meltAtMinFault = meltBand(input, faultMinA);
    const meltAtMaxFault = meltBand(input, faultMaxA);
    const melting =
      'Melting curve, linear in log-log; slowest at I/(1+tolerance), fastest at I/(1−tolerance)';
    const tolerance = {
      symbol: 'δ',
      value: input.currentToleranceFraction,
      unit: 'fraction',
      from: 'currentToleranceFraction',
    };
    const smallest = { symbol: 'I_min', value: faultMinA, unit: 'A', from: 'faultMinA' };
    sheet.add({
      symbol: 't_s',
      label: 'Slowest melting at the smallest fault',
      formula: 'melt(I_min/(1 + δ))',
      inputs: [smallest, tolerance],
      value: meltAtMinFault.slowestS,
      unit: 's',
      source: melting,
    });
    const clearS = sheet.add({
      symbol: 't_c',
      label: 'Clearing of the smallest fault',
      formula: 't_s + (a − 1)·min(t_s, 0.1)',
      inputs: [
        ...(meltAtMinFault.slowestS === null
          ? []
          : [{ symbol: 't_s', value: meltAtMinFault.slowestS, unit: 's' }]),
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
      source: melting,
    });
    const belowMinBreaking = faultMinA < minBreakingA;
    if (belowMinBreaking) {
      raise(
        fuseRules.minimum,
        `The smallest fault is ${formatNumber(faultMinA)} A; this fuse must not be relied on below ${formatNumber(minBreakingA)} A.`,
      );
    }
    const inTime = clearS !== null && clearS <= maxClearS;
    if (!inTime) {
      raise(
        fuseRules.slow,
        clearS === null
          ? `At the smallest fault of ${formatNumber(faultMinA)} A it may never melt.`
          : `The smallest fault of ${formatNumber(faultMinA)} A is cleared after ${formatQuantity(clearS, 's')}; the limit is ${formatQuantity(maxClearS, 's')}.`,
      );
    }

    const load = judgeLoad(input);
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
        { symbol: 'I_rms', value: rmsA, unit: 'A', from: 'loadProfile' },
        { symbol: 'I_n', value: input.ratedA, unit: 'A', from: 'ratedA' },
        { symbol: 'f', value: factor.value, unit: '', from: 'ambientDerating' },
      ],
      value: rmsA / (input.ratedA * factor.value),
      unit: 'fraction',
      source: 'Fuse makers’ application guides; at most 80 %',
    });
    const continuousOk = rmsFraction <= continuousShare * (1 + 1e-12);
    if (!continuousOk) {
      raise(
        fuseRules.continuous,
        `The load is ${formatNumber(rmsA)} A rms, ${formatNumber(rmsFraction * 100)} % of the derated rating; 80 % is the limit.`,
      );
    }
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
    if (periodsToWearOut !== null) {
      raise(
        fuseRules.wear,
        `Each period uses ${formatNumber(wearPerPeriod * 100)} % of the fuse: worn out after ${formatNumber(periodsToWearOut)} periods.`,
      );
    }

    const unprotectedAtA = input.cable === undefined ? [] : unprotectedCurrentsA(input, input.cable);
    if (input.cable !== undefined) {
      sheet.add({
        symbol: 'W_c',
        label: 'Adiabatic limit of the cable',
        formula: '(k·S)²',
        inputs: [
          { symbol: 'k', value: input.cable.k, unit: 'A√s/mm²', from: 'cable.k' },
          { symbol: 'S', value: input.cable.areaMm2, unit: 'mm²', from: 'cable.areaMm2' },
        ],
        value: (input.cable.k * input.cable.areaMm2) ** 2,
        unit: 'A²s',
        source: 'IEC 60364-4-43',
      });
    }
    if (unprotectedAtA.length > 0) {
      raise(
        fuseRules.cable,
        `Of ${faultPoints} fault currents ${unprotectedAtA.length} are not covered, from ${formatNumber(unprotectedAtA[0]!)} A to ${formatNumber(unprotectedAtA[unprotectedAtA.length - 1]!)} A.`,
      );
    }
    return {
      voltageOk,
      breakingOk,
      meltAtMinFault,
      meltAtMaxFault,
      clearsMinFault: inTime && !belowMinBreaking,
      belowMinBreaking,
      rmsA,
      rmsFraction,
      continuousOk,
      wearPerPeriod,
      periodsToWearOut,
      protectsCable: input.cable === undefined ? null : unprotectedAtA.length === 0,
      unprotectedAtA,
    };
  },
});

function judgeLoad(input: FuseInput): { rmsA: number; wearPerPeriod: number } {
  let seconds = 0;
  let squares = 0;
  let wearPerPeriod = 0;
  for (const [durationS, currentA] of input.loadProfile) {
    seconds += durationS;
    squares += durationS * currentA ** 2;
    const fastestS = meltTimeS(input.curve, Math.abs(currentA) / (1 - input.currentToleranceFraction));
    if (fastestS !== null) wearPerPeriod += durationS / fastestS;
  }
  return { rmsA: Math.sqrt(squares / seconds), wearPerPeriod };
}

function derating({ ambientDerating, ambientC }: FuseInput): { value: number; held: boolean } {
  if (ambientDerating === undefined) return { value: 1, held: false };
  const held =
    ambientC < ambientDerating[0]![0] || ambientC > ambientDerating[ambientDerating.length - 1]![0];
  return { value: interpolate(ambientDerating, ambientC), held };
}

function unprotectedCurrentsA(input: FuseInput, cable: { areaMm2: number; k: number }): number[] {
  const limitA2s = (cable.k * cable.areaMm2) ** 2;
  return logSpaced(input.faultMinA, input.faultMaxA, faultPoints).filter((currentA) => {
    const clearS = clearingTimeS(input, currentA);
    if (currentA < input.minBreakingA || clearS === null || clearS > adiabaticUpToS) return true;
    return currentA ** 2 * clearS > limitA2s;
  });
}
