import { circuitDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';

export interface PrechargeInput {
  packVoltageV: number;
  /** Capacitors of every device on the bus together. */
  busCapacitanceF: number;
  resistanceOhm: number;
  /** Everything that stands on the bus while it fills, in parallel; absent: nothing. */
  parallelLoadOhm?: number;
  /** Bus over pack voltage at which the main may close; 0.95 by default. */
  thresholdFraction: number;
  /** 3 s by default. */
  timeoutS: number;
  /** Pack, cables and capacitors when the main closes; 0.05 Ω by default. */
  loopResistanceOhm: number;
}

export interface PrechargeResult {
  timeConstantS: number;
  finalVoltageV: number;
  /** null: never reached. */
  timeToThresholdS: number | null;
  peakCurrentA: number;
  peakPowerW: number;
  resistorEnergyJ: number;
  busShortedEnergyJ: number;
  voltageAtCloseV: number;
  inrushA: number;
  /** The threshold is reached within the time limit. */
  completes: boolean;
}

export const thresholdNeverReached = defineRule({
  id: 'precharge.threshold-never-reached',
  version: 2,
  grade: 'stop',
  title: 'The bus never reaches the pre-charge threshold',
  why: 'A load on the bus and the resistor divide the voltage: the bus stays below the threshold and the resistor heats until the time limit.',
  remedy: 'Take the load off the bus during pre-charge, choose a smaller resistor, or a bleed of more ohms.',
  source: 'First-order RC circuit with a parallel load',
  formerly: ['precharge.chosen-resistor'],
});

export const tooSlow = defineRule({
  id: 'precharge.slower-than-limit',
  version: 2,
  grade: 'stop',
  title: 'Pre-charge is slower than its time limit',
  why: 'The controller gives up before the main may close: the vehicle does not start, and each retry heats the resistor.',
  remedy:
    'Choose a smaller resistor that still takes the energy, or a longer limit that its pulse rating allows.',
  source: 'First-order RC circuit',
  formerly: ['precharge.chosen-resistor'],
});

/** Where a caller does not say. */
export const prechargeDefaults = {
  thresholdFraction: circuitDefaults.thresholdFraction,
  timeoutS: circuitDefaults.timeoutS,
  loopResistanceOhm: 0.05,
};

/** What the rise depends on. */
export type Plant = Pick<
  PrechargeInput,
  'packVoltageV' | 'busCapacitanceF' | 'resistanceOhm' | 'parallelLoadOhm'
>;

/** The bus voltage `atS` seconds into a pre-charge. */
export function busVoltageAt(input: Plant, atS: number): number {
  const k = loadDivision(input);
  const tau = input.resistanceOhm * input.busCapacitanceF * k;
  return k * input.packVoltageV * -Math.expm1(-atS / tau);
}

/** The energy the resistor has taken `atS` seconds into a pre-charge: the integral of (V−v)²/R. */
export function resistorEnergyAt(input: Plant, atS: number): number {
  const { packVoltageV, resistanceOhm, busCapacitanceF } = input;
  const k = loadDivision(input);
  const tau = resistanceOhm * busCapacitanceF * k;
  return (
    (packVoltageV ** 2 / resistanceOhm) *
    ((1 - k) ** 2 * atS +
      2 * (1 - k) * k * tau * -Math.expm1(-atS / tau) +
      0.5 * k ** 2 * tau * -Math.expm1((-2 * atS) / tau))
  );
}

/** When the bus reaches a share of the pack voltage, s; null: never. */
export function timeToReachS(
  plant: Pick<Plant, 'busCapacitanceF' | 'resistanceOhm' | 'parallelLoadOhm'>,
  fraction: number,
): number | null {
  const k = loadDivision(plant);
  return fraction < k ? -plant.resistanceOhm * plant.busCapacitanceF * k * Math.log1p(-fraction / k) : null;
}

/** Share of the pack voltage that the bus can reach: the divider of resistor and load. */
export function loadDivision({
  resistanceOhm,
  parallelLoadOhm,
}: {
  resistanceOhm: number;
  parallelLoadOhm?: number | undefined;
}): number {
  return parallelLoadOhm === undefined ? 1 : parallelLoadOhm / (resistanceOhm + parallelLoadOhm);
}

/**
 * One pre-charge run: how fast the bus rises, whether it arrives, and what the resistor takes.
 *
 * Source: first-order RC circuit with a parallel load; k = R_L/(R+R_L).
 */
export const precharge = defineCalculator<PrechargeInput, PrechargeResult>({
  name: 'precharge',
  version: 1,
  title: 'Pre-charge run',
  rules: [thresholdNeverReached, tooSlow],
  door: {
    schema: record({
      packVoltageV: number({ above: 0 }),
      busCapacitanceF: number({ above: 0 }),
      resistanceOhm: number({ above: 0 }),
      parallelLoadOhm: number.optional({ above: 0 }),
      thresholdFraction: number.optional({ above: 0, below: 1 }),
      timeoutS: number.optional({ above: 0 }),
      loopResistanceOhm: number.optional({ above: 0 }),
    }),
    defaults: prechargeDefaults,
  },
  compute(input, { sheet, raise }) {
    const { packVoltageV, busCapacitanceF, resistanceOhm, thresholdFraction, timeoutS } = input;
    const source = 'First-order RC circuit with a parallel load';
    const k = loadDivision(input);
    const V = { symbol: 'V', value: packVoltageV, unit: 'V', from: 'packVoltageV' };
    const R = { symbol: 'R', value: resistanceOhm, unit: 'Ω', from: 'resistanceOhm' };
    const C = { symbol: 'C', value: busCapacitanceF, unit: 'F', from: 'busCapacitanceF' };
    const t = { symbol: 't', value: timeoutS, unit: 's', from: 'timeoutS' };
    const kInput = { symbol: 'k', value: k, unit: '' };
    sheet.add({
      symbol: 'k',
      label: 'Share of the pack voltage the bus can reach',
      formula: input.parallelLoadOhm === undefined ? '1' : 'R_L/(R + R_L)',
      inputs:
        input.parallelLoadOhm === undefined
          ? []
          : [R, { symbol: 'R_L', value: input.parallelLoadOhm, unit: 'Ω', from: 'parallelLoadOhm' }],
      value: k,
      unit: '',
      source: input.parallelLoadOhm === undefined ? 'No load on the bus' : source,
    });
    const finalVoltageV = sheet.add({
      symbol: 'V_f',
      label: 'Final bus voltage',
      formula: 'k·V',
      inputs: [kInput, V],
      value: k * packVoltageV,
      unit: 'V',
      source,
    });
    const timeConstantS = sheet.add({
      symbol: 'τ',
      label: 'Time constant',
      formula: 'R·C·k',
      inputs: [R, C, kInput],
      value: resistanceOhm * busCapacitanceF * k,
      unit: 's',
      source,
    });
    const timeToThresholdS = sheet.add({
      symbol: 't_p',
      label: 'Time to threshold',
      formula: '−τ·ln(1 − p/k)',
      inputs: [
        { symbol: 'τ', value: timeConstantS, unit: 's' },
        { symbol: 'p', value: thresholdFraction, unit: 'fraction', from: 'thresholdFraction' },
        kInput,
      ],
      value: timeToReachS(input, thresholdFraction),
      unit: 's',
      source,
    });
    const completes = timeToThresholdS !== null && timeToThresholdS <= timeoutS;
    const endS = completes ? timeToThresholdS : timeoutS;
    const T = { symbol: 'T', value: endS, unit: 's' };
    const voltageAtCloseV = sheet.add({
      symbol: 'v',
      label: completes ? 'Bus voltage when the main closes' : 'Bus voltage at the time limit',
      formula: 'V_f·(1 − exp(−T/τ))',
      inputs: [
        { symbol: 'V_f', value: finalVoltageV, unit: 'V' },
        T,
        { symbol: 'τ', value: timeConstantS, unit: 's' },
      ],
      value: completes ? thresholdFraction * packVoltageV : busVoltageAt(input, endS),
      unit: 'V',
      source,
    });
    const peakCurrentA = sheet.add({
      symbol: 'I_0',
      label: 'Peak current',
      formula: 'V/R',
      inputs: [V, R],
      value: packVoltageV / resistanceOhm,
      unit: 'A',
      source: 'The bus starts at 0 V',
    });
    const peakPowerW = sheet.add({
      symbol: 'P_0',
      label: 'Peak power in the resistor',
      formula: 'V²/R',
      inputs: [V, R],
      value: packVoltageV ** 2 / resistanceOhm,
      unit: 'W',
      source: 'The bus starts at 0 V',
    });
    const resistorEnergyJ = sheet.add({
      symbol: 'W_R',
      label: 'Energy in the resistor, this run',
      formula: 'V²/R·((1−k)²·T + 2·(1−k)·k·τ·(1−exp(−T/τ)) + ½·k²·τ·(1−exp(−2·T/τ)))',
      inputs: [V, R, kInput, T, { symbol: 'τ', value: timeConstantS, unit: 's' }],
      value: resistorEnergyAt(input, endS),
      unit: 'J',
      source: 'Integral of (V−v)²/R until the main closes or the limit ends the run',
    });
    const busShortedEnergyJ = sheet.add({
      symbol: 'W_s',
      label: 'Energy in the resistor, bus shorted',
      formula: 'V²/R·t',
      inputs: [V, R, t],
      value: (packVoltageV ** 2 / resistanceOhm) * timeoutS,
      unit: 'J',
      source: 'Full pack voltage across the resistor until the time limit',
    });
    const inrushA = sheet.add({
      symbol: 'I_in',
      label: 'Inrush when the main closes',
      formula: '(V − v)/R_loop',
      inputs: [
        V,
        { symbol: 'v', value: voltageAtCloseV, unit: 'V' },
        { symbol: 'R_loop', value: input.loopResistanceOhm, unit: 'Ω', from: 'loopResistanceOhm' },
      ],
      value: (packVoltageV - voltageAtCloseV) / input.loopResistanceOhm,
      unit: 'A',
      source: 'Ohm’s law at the moment of closing',
    });
    if (timeToThresholdS === null) {
      raise(
        thresholdNeverReached,
        `The bus ends at ${formatNumber(finalVoltageV)} V, below the threshold of ${formatNumber(thresholdFraction * packVoltageV)} V; the resistor takes ${formatQuantity(resistorEnergyJ, 'J')} until the limit.`,
      );
    } else if (!completes) {
      raise(
        tooSlow,
        `The threshold is reached after ${formatQuantity(timeToThresholdS, 's')}; the limit is ${formatQuantity(timeoutS, 's')}.`,
      );
    }
    return {
      timeConstantS,
      finalVoltageV,
      timeToThresholdS,
      peakCurrentA,
      peakPowerW,
      resistorEnergyJ,
      busShortedEnergyJ,
      voltageAtCloseV,
      inrushA,
      completes,
    };
  },
});
