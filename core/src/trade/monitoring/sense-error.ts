import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';

export interface SenseErrorInput {
  bleedA: number;
  /** Of one lead. */
  leadOhm: number;
}

export interface SenseErrorResult {
  errorMv: number;
  neighboursHighMv: number;
}

/**
 * How much a cell that bleeds through its own sense leads reads low, and its neighbours high.
 *
 * Source: Ohm’s law over both leads; a neighbour shares one of them.
 */
export const senseError = defineCalculator<SenseErrorInput, SenseErrorResult>({
  name: 'sense-error',
  version: 1,
  title: 'Error of the sense leads',
  door: { schema: record({ bleedA: number({ min: 0 }), leadOhm: number({ min: 0 }) }) },
  compute({ bleedA, leadOhm }, { sheet }) {
    const errorMv = sheet.add({
      symbol: 'ΔU',
      label: 'The cell reads low by',
      formula: '1000·I·2·R',
      inputs: [
        { symbol: 'I', value: bleedA, unit: 'A', from: 'bleedA' },
        { symbol: 'R', value: leadOhm, unit: 'Ω', from: 'leadOhm' },
      ],
      value: bleedA * 2 * leadOhm * 1000,
      unit: 'mV',
      source: 'Ohm’s law over both leads of the cell',
    });
    return { errorMv, neighboursHighMv: errorMv / 2 };
  },
});
