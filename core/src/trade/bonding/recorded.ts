import type { Check } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Design } from '../../model/document';
import { judge } from '../../model/step';
import type { Told } from '../../record';
import { leastBondTestA, measuredBondRule, mostBondOhm } from './rules';
import { bondStates, type BondState } from './state';

const n = formatNumber;

function bondCheck({ id, tag, reading }: BondState): Check[] {
  if (reading === null) return [];
  const { ohm, currentA } = reading;
  const weak = currentA < leastBondTestA;
  return [
    judge(
      measuredBondRule,
      [id],
      [],
      ohm >= mostBondOhm
        ? `${tag} has ${formatQuantity(ohm, 'Ω')} to the chassis at ${formatQuantity(currentA, 'A')}; below ${n(mostBondOhm)} Ω is asked.`
        : weak
          ? `${tag} was measured at ${formatQuantity(currentA, 'A')}; ${n(leastBondTestA)} A or more are asked.`
          : null,
      [
        { label: 'way to the chassis', value: ohm, unit: 'Ω' },
        { label: 'test current', value: currentA, unit: 'A' },
      ],
    ),
  ];
}

/**
 * What the record says against bonds; nothing of those that were not measured.
 *
 * @param entries those that count
 */
export const bondRecordChecks = (
  design: Pick<Design, 'boxes' | 'devices' | 'circuits' | 'bonds'>,
  entries: readonly Told[],
): Check[] => bondStates(design, entries).flatMap(bondCheck);
