import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';

export interface FaultCurrentInput {
  sourceVoltageV: number;
  sourceResistanceOhm: number;
  pathResistanceOhm: number;
  /** 5 µH by default: some metres of cable laid as a pair. */
  inductanceH: number;
}

export interface FaultCurrentResult {
  prospectiveA: number;
  timeConstantS: number;
  timeTo90PercentS: number;
}

/**
 * Prospective current of a bolted short and how fast it rises.
 *
 * Source: RL circuit switched onto a DC source.
 */
export const faultCurrent = defineCalculator<FaultCurrentInput, FaultCurrentResult>({
  name: 'fault-current',
  version: 1,
  title: 'Fault current',
  door: {
    schema: record({
      sourceVoltageV: number({ min: 0 }),
      sourceResistanceOhm: number({ min: 0 }),
      pathResistanceOhm: number({ min: 0 }),
      inductanceH: number.optional({ min: 0 }),
    }),
    defaults: { inductanceH: 5e-6 },
    cross(input: FaultCurrentInput, issue) {
      if (input.sourceResistanceOhm + input.pathResistanceOhm === 0) {
        issue('sourceResistanceOhm', 'and pathResistanceOhm are both 0: the current has no limit');
      }
    },
  },
  compute(input, { sheet }) {
    const resistanceOhm = input.sourceResistanceOhm + input.pathResistanceOhm;
    const resistances = [
      { symbol: 'R_s', value: input.sourceResistanceOhm, unit: 'Ω', from: 'sourceResistanceOhm' },
      { symbol: 'R_p', value: input.pathResistanceOhm, unit: 'Ω', from: 'pathResistanceOhm' },
    ];
    const prospectiveA = sheet.add({
      symbol: 'I',
      label: 'Prospective fault current',
      formula: 'U/(R_s + R_p)',
      inputs: [
        { symbol: 'U', value: input.sourceVoltageV, unit: 'V', from: 'sourceVoltageV' },
        ...resistances,
      ],
      value: input.sourceVoltageV / resistanceOhm,
      unit: 'A',
      source: 'Ohm’s law',
    });
    const timeConstantS = sheet.add({
      symbol: 'τ',
      label: 'Time constant of the fault',
      formula: 'L/(R_s + R_p)',
      inputs: [{ symbol: 'L', value: input.inductanceH, unit: 'H', from: 'inductanceH' }, ...resistances],
      value: input.inductanceH / resistanceOhm,
      unit: 's',
      source: 'RL circuit',
    });
    const timeTo90PercentS = sheet.add({
      symbol: 't_90',
      label: 'Time to 90 % of the prospective current',
      formula: 'τ·ln(10)',
      inputs: [{ symbol: 'τ', value: timeConstantS, unit: 's' }],
      value: timeConstantS * Math.LN10,
      unit: 's',
      source: 'RL circuit',
    });
    return { prospectiveA, timeConstantS, timeTo90PercentS };
  },
});
