import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface LeakTestInput {
  startKPaGauge: number;
  endKPaGauge: number;
  startC: number;
  endC: number;
  minutes: number;
  volumeL: number;
  allowedDropKPa: number;
  atmosphereKPa: number;
  endAtmosphereKPa: number;
}

export interface LeakTestResult {
  expectedEndKPaGauge: number;
  correctedDropKPa: number;
  rawDropKPa: number;
  leakPaM3PerS: number;
  pass: boolean;
  tooShort: boolean;
}

const kelvin = 273.15;
export const standardAtmosphereKPa = 101.325;
/** A shorter hold says little. */
export const leastHoldMinutes = 15;

const rule = rulesOf('leak-test');
const source = 'Gas of constant volume: pressure over absolute temperature';

export const leakTestRules = {
  leaks: rule(
    'leaks',
    'mend',
    'A part or loop leaks',
    'Coolant among cells and high voltage: a leak is found now or by its damage.',
    'Find it with soapy water, mend it, and test again from the beginning.',
    source,
  ),
  short: rule(
    'too-short',
    'note',
    'The hold was short',
    'In less than a quarter of an hour temperature has not settled and a slow leak does not show.',
    'Hold longer.',
    'Fifteen minutes at least',
  ),
  rises: rule(
    'pressure-rises',
    'mend',
    'Pressure rose beyond what temperature explains',
    'No vessel gains air: the gauge, the thermometer or the settling misleads, and may hide a leak.',
    'Let it settle, look at where the temperature was read, and test again.',
    source,
  ),
};

/**
 * A pressure test corrected for temperature and weather.
 *
 * Source: ideal gas of constant volume.
 */
export const leakTest = defineCalculator<LeakTestInput, LeakTestResult>({
  name: 'leak-test',
  version: 1,
  title: 'Leak test',
  rules: Object.values(leakTestRules),
  door: {
    schema: record({
      startKPaGauge: number(),
      endKPaGauge: number(),
      startC: number({ above: -kelvin }),
      endC: number({ above: -kelvin }),
      minutes: number({ above: 0 }),
      volumeL: number({ above: 0 }),
      allowedDropKPa: number({ min: 0 }),
      atmosphereKPa: number.optional({ above: 0 }),
      endAtmosphereKPa: number.optional({ above: 0 }),
    }),
    defaults: (body) => ({
      atmosphereKPa: standardAtmosphereKPa,
      endAtmosphereKPa: body['atmosphereKPa'] ?? standardAtmosphereKPa,
    }),
    cross(input: LeakTestInput, issue) {
      if (input.startKPaGauge + input.atmosphereKPa <= 0)
        issue('startKPaGauge', 'must be above a vacuum: gauge and atmosphere together');
      if (input.endKPaGauge + input.endAtmosphereKPa < 0)
        issue('endKPaGauge', 'must not be below a vacuum: gauge and atmosphere together');
    },
  },
  compute(input, { sheet, raise }) {
    const { startKPaGauge, endKPaGauge, startC, endC, minutes, volumeL, allowedDropKPa } = input;
    const expectedEndKPaGauge = sheet.add({
      symbol: 'p_e',
      label: 'Gauge at the end if nothing leaks',
      formula: '(p_1 + p_a)·(T_2 + 273.15)/(T_1 + 273.15) − p_a2',
      inputs: [
        { symbol: 'p_1', value: startKPaGauge, unit: 'kPa', from: 'startKPaGauge' },
        { symbol: 'p_a', value: input.atmosphereKPa, unit: 'kPa', from: 'atmosphereKPa' },
        { symbol: 'T_2', value: endC, unit: '°C', from: 'endC' },
        { symbol: 'T_1', value: startC, unit: '°C', from: 'startC' },
        { symbol: 'p_a2', value: input.endAtmosphereKPa, unit: 'kPa', from: 'endAtmosphereKPa' },
      ],
      value:
        ((startKPaGauge + input.atmosphereKPa) * (endC + kelvin)) / (startC + kelvin) -
        input.endAtmosphereKPa,
      unit: 'kPa',
      source,
    });
    const correctedDropKPa = sheet.add({
      symbol: 'Δp',
      label: 'Drop that temperature and weather do not explain',
      formula: 'p_e − p_2',
      inputs: [
        { symbol: 'p_e', value: expectedEndKPaGauge, unit: 'kPa' },
        { symbol: 'p_2', value: endKPaGauge, unit: 'kPa', from: 'endKPaGauge' },
      ],
      value: expectedEndKPaGauge - endKPaGauge,
      unit: 'kPa',
      source,
    });
    const leakPaM3PerS = sheet.add({
      symbol: 'q',
      label: 'Leak',
      formula: 'V·Δp/(60·t)',
      inputs: [
        { symbol: 'V', value: volumeL, unit: 'L', from: 'volumeL' },
        { symbol: 'Δp', value: correctedDropKPa, unit: 'kPa' },
        { symbol: 't', value: minutes, unit: 'min', from: 'minutes' },
      ],
      value: (volumeL * correctedDropKPa) / (60 * minutes),
      unit: 'Pa·m³/s',
      source: 'Volume times the fall of pressure in time',
    });
    const pass = correctedDropKPa <= allowedDropKPa;
    const tooShort = minutes < leastHoldMinutes;
    const allowed = formatQuantity(allowedDropKPa, 'kPa');
    if (!pass)
      raise(leakTestRules.leaks, `${formatQuantity(correctedDropKPa, 'kPa')} corrected; ${allowed} allowed.`);
    if (correctedDropKPa < -allowedDropKPa)
      raise(
        leakTestRules.rises,
        `By ${formatQuantity(-correctedDropKPa, 'kPa')}; ${allowed} either way is allowed.`,
      );
    if (tooShort) raise(leakTestRules.short, `${formatQuantity(minutes, 'min')}.`);
    return {
      expectedEndKPaGauge,
      correctedDropKPa,
      rawDropKPa: startKPaGauge - endKPaGauge,
      leakPaM3PerS,
      pass,
      tooShort,
    };
  },
});
