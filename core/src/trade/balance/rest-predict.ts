import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { studentQuantile } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';

export interface RestPredictInput {
  /** Hours from the end of the load, rising. */
  samples: [hours: number, voltageV: number][];
  targetV: number;
  toleranceV: number;
}

export type RestVerdict =
  'will settle inside' | 'will settle too high' | 'will settle too low' | 'too early to tell';

export interface RestPredictResult {
  settledV: number;
  /** 95 % interval; null: the readings do not bound it. */
  settledLowV: number | null;
  settledHighV: number | null;
  /** null: flat readings. */
  tauH: number | null;
  /** From the end of the load until less than 1 mV is left. */
  hoursToWithin1mV: number | null;
  verdict: RestVerdict;
}

const rule = rulesOf('rest-predict');
const source = 'Stretched exponential of a resting cell, fitted by least squares';

export const restPredictRules = {
  onBound: rule(
    'on-bound',
    'note',
    'The readings do not tell how fast the cell settles',
    'The best time constant lies at the end of the range searched: the readings fit any end of the rest.',
    'More readings over a longer time.',
    source,
  ),
  flat: rule(
    'flat',
    'note',
    'The readings do not move',
    'A cell that has settled, or a meter that holds its reading, look the same.',
    'Make sure that the meter measured anew each time.',
    source,
  ),
};

const leastTauH = 0.001;
const mostTauH = 10_000;
const confidence = 0.95;
const oneMillivolt = 0.001;

interface Fit {
  tauH: number;
  settledV: number;
  swingV: number;
  squares: number;
}

/** Best settled voltage and swing for one time constant: linear least squares. */
function fitAt(samples: readonly [number, number][], tauH: number): Fit {
  let s = 0;
  let ss = 0;
  let sv = 0;
  let v = 0;
  const n = samples.length;
  for (const [hours, volts] of samples) {
    const shape = Math.exp(-Math.sqrt(hours / tauH));
    s += shape;
    ss += shape * shape;
    sv += shape * volts;
    v += volts;
  }
  const spread = ss - (s * s) / n;
  const swing = spread > 1e-300 ? (sv - (s * v) / n) / spread : 0;
  const settledV = (v - swing * s) / n;
  let squares = 0;
  for (const [hours, volts] of samples)
    squares += (volts - settledV - swing * Math.exp(-Math.sqrt(hours / tauH))) ** 2;
  return { tauH, settledV, swingV: -swing, squares };
}

const gridSteps = 160;
const golden = (Math.sqrt(5) - 1) / 2;

/** The time constant of least squares between the bounds: a grid over all decades, then golden section. */
function bestFit(samples: readonly [number, number][]): Fit {
  const at = (position: number) => leastTauH * (mostTauH / leastTauH) ** (position / gridSteps);
  let best = 0;
  let squares = Infinity;
  for (let i = 0; i <= gridSteps; i += 1) {
    const found = fitAt(samples, at(i)).squares;
    if (found < squares) {
      squares = found;
      best = i;
    }
  }
  let low = Math.max(best - 1, 0);
  let high = Math.min(best + 1, gridSteps);
  for (let i = 0; i < 60; i += 1) {
    const left = high - golden * (high - low);
    const right = low + golden * (high - low);
    if (fitAt(samples, at(left)).squares <= fitAt(samples, at(right)).squares) high = right;
    else low = left;
  }
  const inside = fitAt(samples, at((low + high) / 2));
  const ends = [fitAt(samples, leastTauH), fitAt(samples, mostTauH)];
  return ends.reduce((one, other) => (other.squares < one.squares ? other : one), inside);
}

/**
 * Standard error of the settled voltage: s·√[(JᵀJ)⁻¹]₁₁ over settled voltage, swing and time constant.
 *
 * @returns null when the readings leave it open
 */
function errorOfSettled(samples: readonly [number, number][], { tauH, swingV, squares }: Fit): number | null {
  const rows = samples.map(([hours]) => {
    const u = Math.sqrt(hours / tauH);
    const shape = Math.exp(-u);
    // The time constant in units of itself: the settled voltage’s error does not depend on its scale.
    return [1, -shape, (-swingV * shape * u) / 2] as const;
  });
  const sum = (i: 0 | 1 | 2, j: 0 | 1 | 2) => rows.reduce((total, row) => total + row[i] * row[j], 0);
  const [a, b, c, d, e, f] = [sum(0, 0), sum(0, 1), sum(0, 2), sum(1, 1), sum(1, 2), sum(2, 2)];
  const minor = d * f - e * e;
  const determinant = a * minor - b * (b * f - c * e) + c * (b * e - c * d);
  const variance = (squares / (samples.length - 3)) * (minor / determinant);
  return determinant > 0 && Number.isFinite(variance) && variance >= 0 ? Math.sqrt(variance) : null;
}

const onBound = ({ tauH }: Fit) => tauH <= leastTauH * (1 + 1e-6) || tauH >= mostTauH * (1 - 1e-6);

function verdictOf(
  low: number | null,
  high: number | null,
  targetV: number,
  toleranceV: number,
): RestVerdict {
  if (low === null || high === null) return 'too early to tell';
  const from = targetV - toleranceV;
  const to = targetV + toleranceV;
  if (low > to) return 'will settle too high';
  if (high < from) return 'will settle too low';
  return low >= from && high <= to ? 'will settle inside' : 'too early to tell';
}

/**
 * Where the voltage of a resting cell will end, from its first hours.
 *
 * Source: V(t) = Vinf − A·exp(−√(t/tau)), by least squares; 95 % interval by Student’s t over n − 3 degrees of freedom.
 */
export const restPredict = defineCalculator<RestPredictInput, RestPredictResult>({
  name: 'rest-predict',
  version: 1,
  title: 'Settled voltage of a resting cell',
  rules: Object.values(restPredictRules),
  door: {
    schema: record({
      samples: table({ columns: [{ min: 0 }, {}], minRows: 6, maxRows: 20_000 }),
      targetV: number(),
      toleranceV: number({ min: 0 }),
    }),
  },
  compute({ samples, targetV, toleranceV }, { sheet, raise }) {
    const volts = samples.map(([, voltageV]) => voltageV);
    const lowest = Math.min(...volts);
    const highest = Math.max(...volts);
    const readings = [
      { symbol: 'n', value: samples.length, unit: '', from: 'samples' },
      { symbol: 't_n', value: samples.at(-1)![0], unit: 'h', from: 'samples' },
    ];
    if (highest === lowest) {
      raise(restPredictRules.flat, `All ${samples.length} readings are ${formatNumber(lowest, 5)} V.`);
      sheet.add({
        symbol: 'V_inf',
        label: 'Settled voltage',
        formula: 'mean(V)',
        inputs: readings,
        value: lowest,
        unit: 'V',
        source: 'Flat readings: their mean',
      });
      return {
        settledV: lowest,
        settledLowV: lowest,
        settledHighV: lowest,
        tauH: null,
        hoursToWithin1mV: null,
        verdict: verdictOf(lowest, lowest, targetV, toleranceV),
      };
    }
    const fit = bestFit(samples);
    const bound = onBound(fit);
    const error = errorOfSettled(samples, fit);
    const half = error === null ? null : studentQuantile(confidence, samples.length - 3) * error;
    sheet.add({
      symbol: 'tau',
      label: 'Time constant',
      formula: 'argmin Σ(V − V_inf + A·exp(−√(t/tau)))²',
      inputs: readings,
      value: fit.tauH,
      unit: 'h',
      source,
    });
    sheet.add({
      symbol: 'V_inf',
      label: 'Settled voltage',
      formula: 'V(t) = V_inf − A·exp(−√(t/tau))',
      inputs: [
        ...readings,
        { symbol: 'tau', value: fit.tauH, unit: 'h' },
        { symbol: 'A', value: fit.swingV, unit: 'V' },
      ],
      value: fit.settledV,
      unit: 'V',
      source,
    });
    if (half !== null)
      sheet.add({
        symbol: 'δ',
        label: 'Half of the 95 % interval',
        formula: 't(0.975, n − 3)·s·√[(JᵀJ)⁻¹]₁₁',
        inputs: [
          { symbol: 's', value: Math.sqrt(fit.squares / (samples.length - 3)), unit: 'V' },
          ...readings,
        ],
        value: half,
        unit: 'V',
        source: 'Student’s t, linearised at the fit',
      });
    if (bound)
      raise(
        restPredictRules.onBound,
        `The best time constant, ${formatNumber(fit.tauH)} h, lies at the end of the range from ${leastTauH} to ${mostTauH} h.`,
      );
    const settledLowV = half === null ? null : fit.settledV - half;
    const settledHighV = half === null ? null : fit.settledV + half;
    const swing = Math.abs(fit.swingV);
    return {
      settledV: fit.settledV,
      settledLowV,
      settledHighV,
      tauH: fit.tauH,
      hoursToWithin1mV: bound
        ? null
        : swing <= oneMillivolt
          ? 0
          : fit.tauH * Math.log(swing / oneMillivolt) ** 2,
      verdict: bound ? 'too early to tell' : verdictOf(settledLowV, settledHighV, targetV, toleranceV),
    };
  },
});

/** The fitted voltage at a time, for plots. */
export function restCurve(
  samples: readonly [number, number][],
  hours: readonly number[],
): [number, number][] {
  const fit = bestFit(samples);
  return hours.map((at) => [at, fit.settledV - fit.swingV * Math.exp(-Math.sqrt(at / fit.tauH))]);
}
