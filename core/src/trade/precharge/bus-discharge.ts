import { settingsDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface BusDischargeInput {
  voltageV: number;
  capacitanceF: number;
  bleedOhm: number;
  /** 60 V by default: the usual DC touch limit. */
  safeVoltageV: number;
  /** 5 s by default. */
  limitS: number;
}

export interface BusDischargeResult {
  timeToSafeS: number;
  energyJ: number;
  bleedPowerAtVoltageW: number;
  /** null: the bus is at or below the voltage already. */
  largestBleedOhmForLimit: number | null;
}

export const dischargeTooSlow = defineRule({
  id: 'bus-discharge.too-slow',
  version: 1,
  grade: 'stop',
  title: 'The bus stays charged for too long after shut-down',
  why: 'Anyone who opens the vehicle after the stated time meets a charged bus.',
  remedy:
    'Fit a smaller bleed resistor (mind its steady heat) or an active discharge, and prove it by measurement.',
  source: 'Exponential discharge of the bus capacitors',
});

/**
 * How long the bus takes to fall to the touch limit after the contactors open.
 *
 * Source: exponential discharge t = R·C·ln(V/V_s).
 */
export const busDischarge = defineCalculator<BusDischargeInput, BusDischargeResult>({
  name: 'bus-discharge',
  version: 1,
  title: 'Discharge of the bus after shut-down',
  rules: [dischargeTooSlow],
  door: {
    schema: record({
      voltageV: number({ min: 0 }),
      capacitanceF: number({ above: 0 }),
      bleedOhm: number({ above: 0 }),
      safeVoltageV: number.optional({ above: 0 }),
      limitS: number.optional({ above: 0 }),
    }),
    defaults: { safeVoltageV: settingsDefaults.touchLimitV, limitS: settingsDefaults.dischargeLimitS },
  },
  compute({ voltageV, capacitanceF, bleedOhm, safeVoltageV, limitS }, { sheet, raise }) {
    const above = voltageV > safeVoltageV;
    const logRatio = above ? Math.log(voltageV / safeVoltageV) : 0;
    const V = { symbol: 'V', value: voltageV, unit: 'V', from: 'voltageV' };
    const Vs = { symbol: 'V_s', value: safeVoltageV, unit: 'V', from: 'safeVoltageV' };
    const C = { symbol: 'C', value: capacitanceF, unit: 'F', from: 'capacitanceF' };
    const R = { symbol: 'R', value: bleedOhm, unit: 'Ω', from: 'bleedOhm' };
    const timeToSafeS = sheet.add({
      symbol: 't',
      label: 'Time until the bus is below the touch limit',
      formula: above ? 'R·C·ln(V/V_s)' : '0',
      inputs: above ? [R, C, V, Vs] : [],
      value: bleedOhm * capacitanceF * logRatio,
      unit: 's',
      source: 'Exponential discharge',
    });
    const energyJ = sheet.add({
      symbol: 'W',
      label: 'Energy on the bus',
      formula: '½·C·V²',
      inputs: [C, V],
      value: 0.5 * capacitanceF * voltageV ** 2,
      unit: 'J',
      source: 'Energy of a capacitor',
    });
    const bleedPowerAtVoltageW = sheet.add({
      symbol: 'P',
      label: 'Steady heat of the bleed resistor',
      formula: 'V²/R',
      inputs: [V, R],
      value: voltageV ** 2 / bleedOhm,
      unit: 'W',
      source: 'Always on while the bus is live',
    });
    const largestBleedOhmForLimit = sheet.add({
      symbol: 'R_max',
      label: 'Largest bleed resistor for the limit',
      formula: 't_l/(C·ln(V/V_s))',
      inputs: [{ symbol: 't_l', value: limitS, unit: 's', from: 'limitS' }, C, V, Vs],
      value: above ? limitS / (capacitanceF * logRatio) : null,
      unit: 'Ω',
      source: 'Exponential discharge, solved for the resistance',
    });
    if (timeToSafeS > limitS * (1 + 1e-12)) {
      raise(
        dischargeTooSlow,
        `The bus needs ${formatQuantity(timeToSafeS, 's')} to fall to ${formatQuantity(safeVoltageV, 'V')}; the limit is ${formatQuantity(limitS, 's')}, which takes ${formatQuantity(largestBleedOhmForLimit ?? 0, 'Ω')} or less.`,
      );
    }
    return { timeToSafeS, energyJ, bleedPowerAtVoltageW, largestBleedOhmForLimit };
  },
});
