import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';

export interface ProximityInput {
  ohm: number;
}

export interface ProximityResult {
  /** What the cable carries; null: the resistance is none of the codes. */
  cableA: number | null;
}

/** Resistance in the plug, Ω, and what the cable carries, A. */
const codes: readonly (readonly [ohm: number, cableA: number])[] = [
  [1500, 13],
  [680, 20],
  [220, 32],
  [100, 63],
];
/** Each is accepted within this share. */
const within = 0.1;

/**
 * What a charging cable carries by the resistance in its plug.
 *
 * Source: IEC 61851-1; accepted within ±10 %, a tolerance of our own.
 */
export const proximity = defineCalculator<ProximityInput, ProximityResult>({
  name: 'proximity',
  version: 1,
  title: 'Proximity resistor',
  door: { schema: record({ ohm: number({ min: 0 }) }) },
  compute({ ohm }, { sheet }) {
    const found = codes.find(([code]) => Math.abs(ohm - code) <= code * within + 1e-9);
    const cableA = sheet.add({
      symbol: 'I',
      label: 'The cable carries',
      formula: 'code(R)',
      inputs: [{ symbol: 'R', value: ohm, unit: 'Ω', from: 'ohm' }],
      value: found?.[1] ?? null,
      unit: 'A',
      source: 'IEC 61851-1, resistor codes of the plug',
    });
    return { cableA };
  },
});
