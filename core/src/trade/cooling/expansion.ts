import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface ExpansionInput {
  volumeL: number;
  coldC: number;
  hotC: number;
  betaPerK: number;
  tankL: number;
  reserveFraction: number;
}

export interface ExpansionResult {
  expansionL: number;
  neededTankL: number;
  ok: boolean;
}

const rule = rulesOf('expansion');

export const expansionRules = {
  tank: rule(
    'tank',
    'mend',
    'The tank is too small for the coolant’s expansion',
    'Hot, it is pushed out; cold, air is drawn in.',
    'A larger tank.',
    'Volume times coefficient times span of temperature, with its reserve',
  ),
};

export const expansionDefaults = { betaPerK: 5.5e-4, reserveFraction: 0.2 };

/**
 * What coolant takes more when hot, and the tank for it.
 *
 * Source: cubic expansion of glycol in water.
 */
export const expansion = defineCalculator<ExpansionInput, ExpansionResult>({
  name: 'expansion',
  version: 1,
  title: 'Expansion of the coolant',
  rules: Object.values(expansionRules),
  door: {
    schema: record({
      volumeL: number({ above: 0 }),
      coldC: number({ min: -273.15 }),
      hotC: number({ min: -273.15 }),
      betaPerK: number.optional({ min: 0 }),
      tankL: number({ min: 0 }),
      reserveFraction: number.optional({ min: 0 }),
    }),
    defaults: expansionDefaults,
    cross({ coldC, hotC }: ExpansionInput, issue) {
      if (hotC < coldC) issue('hotC', 'must not be below coldC');
    },
  },
  compute(input, { sheet, raise }) {
    const { source } = expansionRules.tank;
    const expansionL = sheet.add({
      symbol: 'ΔV',
      label: 'Expansion',
      formula: 'V·β·(T_h − T_c)',
      inputs: [
        { symbol: 'V', value: input.volumeL, unit: 'L', from: 'volumeL' },
        { symbol: 'β', value: input.betaPerK, unit: '1/K', from: 'betaPerK' },
        { symbol: 'T_h', value: input.hotC, unit: '°C', from: 'hotC' },
        { symbol: 'T_c', value: input.coldC, unit: '°C', from: 'coldC' },
      ],
      value: input.volumeL * input.betaPerK * (input.hotC - input.coldC),
      unit: 'L',
      source,
    });
    const neededTankL = sheet.add({
      symbol: 'V_t',
      label: 'Tank needed',
      formula: 'ΔV·(1 + r)',
      inputs: [
        { symbol: 'ΔV', value: expansionL, unit: 'L' },
        { symbol: 'r', value: input.reserveFraction, unit: '', from: 'reserveFraction' },
      ],
      value: expansionL * (1 + input.reserveFraction),
      unit: 'L',
      source,
    });
    const ok = input.tankL >= neededTankL;
    if (!ok)
      raise(
        expansionRules.tank,
        `${formatQuantity(input.tankL, 'L')}; ${formatQuantity(neededTankL, 'L')} is needed.`,
      );
    return { expansionL, neededTankL, ok };
  },
});
