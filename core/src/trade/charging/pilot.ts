import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';

export interface PilotInput {
  dutyPercent: number;
}

export interface PilotResult {
  /** What the supply offers; null: nothing, or it is said digitally. */
  currentA: number | null;
  meaning: 'no charge' | 'digital' | 'pwm';
}

const source = 'IEC 61851-1, duty of the control pilot';

/** Current that a duty of the pilot offers, A, and what it means. */
export function pilotOf(duty: number): PilotResult & { formula: string } {
  const pwm = (currentA: number, formula: string) => ({ currentA, meaning: 'pwm' as const, formula });
  if (duty < 3 || duty > 97) return { currentA: null, meaning: 'no charge', formula: '' };
  if (duty <= 7) return { currentA: null, meaning: 'digital', formula: '' };
  if (duty < 8) return { currentA: null, meaning: 'no charge', formula: '' };
  if (duty < 10) return pwm(6, '6');
  if (duty <= 85) return pwm(0.6 * duty, '0.6·d');
  if (duty <= 96) return pwm((duty - 64) * 2.5, '(d − 64)·2.5');
  return pwm(80, '80');
}

/**
 * What the supply offers by the duty of its pilot.
 *
 * Source: IEC 61851-1.
 */
export const pilot = defineCalculator<PilotInput, PilotResult>({
  name: 'pilot',
  version: 1,
  title: 'Control pilot',
  door: { schema: record({ dutyPercent: number({ min: 0, max: 100 }) }) },
  compute({ dutyPercent }, { sheet }) {
    const { formula, ...result } = pilotOf(dutyPercent);
    sheet.add({
      symbol: 'I',
      label: result.meaning === 'pwm' ? 'Offered current' : `Offered current: ${result.meaning}`,
      formula: formula === '' ? 'none' : formula,
      inputs: [{ symbol: 'd', value: dutyPercent, unit: '%', from: 'dutyPercent' }],
      value: result.currentA,
      unit: 'A',
      source,
    });
    return result;
  },
});
