import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { minimise } from '../../ground/math';
import { formatQuantity } from '../../ground/quantity';

export interface PrechargeFitInput {
  packVoltageV: number;
  resistanceOhm: number;
  /** Measured bus voltage from the moment the pre-charge contactor closed; at least 8. */
  samples: [timeS: number, voltageV: number][];
}

export interface PrechargeFitResult {
  finalVoltageV: number;
  timeConstantS: number;
  capacitanceF: number;
  /** null: none to be seen (the bus reaches at least 99.5 % of the pack). */
  parallelLoadOhm: number | null;
  rmsErrorV: number;
}

export const fitOnBound = defineRule({
  id: 'precharge-fit.on-bound',
  version: 1,
  grade: 'note',
  title: 'The rise is too short or too long to fit',
  why: 'The best time constant lies on the bound of what these samples can show: capacitance and load from it mean little.',
  remedy: 'Capture at least three time constants, with several samples on the rising part.',
  source: 'Least squares; the time constant is searched from a thousandth to a hundred times the span',
});

/** Rise beyond which a load on the bus can no longer be told from none. */
const loadVisibleBelow = 0.995;

/**
 * Fits v = Vf·(1 − exp(−t/τ)) to a measured rise and reads capacitance and load from it.
 *
 * Source: least squares; for each τ the best Vf is linear, τ is searched on a logarithmic scale.
 */
export const prechargeFit = defineCalculator<PrechargeFitInput, PrechargeFitResult>({
  name: 'precharge-fit',
  version: 1,
  title: 'Fit of a measured pre-charge curve',
  rules: [fitOnBound],
  door: {
    schema: record({
      packVoltageV: number({ above: 0 }),
      resistanceOhm: number({ above: 0 }),
      samples: table({ columns: [{ min: 0 }, {}], minRows: 8 }),
    }),
    cross(input: PrechargeFitInput, issue) {
      const weighted = input.samples.reduce((sum, [timeS, voltageV]) => sum + timeS * voltageV, 0);
      if (weighted <= 0) issue('samples', 'never rise above 0 V: there is nothing to fit');
    },
  },
  compute({ packVoltageV, resistanceOhm, samples }, { sheet, raise }) {
    const spanS = samples[samples.length - 1]![0] - samples[0]![0];
    const low = Math.log(spanS / 1000);
    const high = Math.log(spanS * 100);
    const gridPoints = samples.length > 3000 ? 80 : 240;
    const { x, onBound } = minimise(
      (logTau) => bestRise(samples, Math.exp(logTau)).sse,
      low,
      high,
      gridPoints,
    );
    const timeConstantS = Math.exp(x);
    const { finalVoltageV, sse } = bestRise(samples, timeConstantS);
    const rmsErrorV = Math.sqrt(sse / samples.length);
    const fitted = 'Least squares over the samples';
    sheet.add({
      symbol: 'τ',
      label: 'Time constant',
      formula: 'argmin Σ(v − V_f·(1 − exp(−t/τ)))²',
      inputs: [],
      value: timeConstantS,
      unit: 's',
      source: fitted,
      solver: {
        method: 'grid and golden section on ln τ',
        iterations: gridPoints + 90,
        residual: rmsErrorV,
        residualUnit: 'V',
      },
    });
    sheet.add({
      symbol: 'V_f',
      label: 'Final voltage',
      formula: 'Σ(v·f)/Σ(f²), f = 1 − exp(−t/τ)',
      inputs: [],
      value: finalVoltageV,
      unit: 'V',
      source: fitted,
    });
    const k = finalVoltageV / packVoltageV;
    const R = { symbol: 'R', value: resistanceOhm, unit: 'Ω', from: 'resistanceOhm' };
    const kInput = { symbol: 'k', value: k, unit: '' };
    const capacitanceF = sheet.add({
      symbol: 'C',
      label: 'Capacitance on the bus',
      formula: 'τ/(R·k)',
      inputs: [{ symbol: 'τ', value: timeConstantS, unit: 's' }, R, kInput],
      value: timeConstantS / (resistanceOhm * k),
      unit: 'F',
      source: 'First-order RC circuit with a parallel load; k = V_f/V',
    });
    const parallelLoadOhm = sheet.add({
      symbol: 'R_L',
      label: 'Load on the bus',
      formula: 'R·k/(1 − k)',
      inputs: [R, kInput],
      value: k >= loadVisibleBelow ? null : (resistanceOhm * k) / (1 - k),
      unit: 'Ω',
      source: 'Voltage divider of resistor and load; none to be seen at k ≥ 0.995',
    });
    if (onBound) {
      raise(
        fitOnBound,
        `The best time constant, ${formatQuantity(timeConstantS, 's')}, lies on the bound of the search over ${formatQuantity(spanS, 's')} of samples.`,
      );
    }
    return { finalVoltageV, timeConstantS, capacitanceF, parallelLoadOhm, rmsErrorV };
  },
});

/** The best final voltage for one time constant, and its sum of squared errors. */
function bestRise(
  samples: readonly (readonly [number, number])[],
  tau: number,
): { finalVoltageV: number; sse: number } {
  let vf = 0;
  let ff = 0;
  for (const [timeS, voltageV] of samples) {
    const f = -Math.expm1(-timeS / tau);
    vf += voltageV * f;
    ff += f * f;
  }
  const finalVoltageV = vf / ff;
  let sse = 0;
  for (const [timeS, voltageV] of samples) sse += (voltageV + finalVoltageV * Math.expm1(-timeS / tau)) ** 2;
  return { finalVoltageV, sse };
}
