import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';

export interface BalanceTimeInput {
  cells: { id: string; socFraction: number }[];
  capacityAh: number;
  /** Where on the curve the cells are compared: at full or at empty. */
  school: 'top' | 'bottom';
  bleedCurrentA: number;
  dutyFraction: number;
  /** What the thin leads inside the donor module may carry. */
  leadLimitA?: number;
}

export interface BalanceTimeResult {
  targetSocFraction: number;
  hoursPerCell: { id: string; ah: number; hours: number }[];
  /** All cells bleed at once: the longest. */
  totalHours: number;
  bleedAllowed: boolean;
}

const rule = rulesOf('balance-time');

export const balanceTimeRules = {
  leadLimit: rule(
    'sense-lead-limit',
    'stop',
    'The monitor bleeds more than the sense leads may carry',
    'The thin leads inside a donor module are its weakest conductor: they heat where nobody sees it, in either school.',
    'A lower bleed current, a shorter duty, or balancing at the terminals on the bench.',
    'Module maker’s limit for the sense leads',
  ),
  school: rule(
    'where-compared',
    'note',
    'Where the cells are compared decides what stays level',
    'Bleeding brings every cell down to the lowest either way. Compared at full, differences of capacity show at the bottom; compared at empty, they show at the top and the first full cell must end the charge.',
    'Keep to one school for the life of the pack, and set the limits of the charger and the monitor for it.',
    'Charge balance of each cell',
  ),
};

/**
 * How long passive balancing takes.
 *
 * Source: charge above the lowest cell over the mean bleed current.
 */
export const balanceTime = defineCalculator<BalanceTimeInput, BalanceTimeResult>({
  name: 'balance-time',
  version: 1,
  title: 'Balancing by bleeding',
  rules: Object.values(balanceTimeRules),
  door: {
    schema: record({
      cells: list(record({ id: text(80), socFraction: number({ min: 0, max: 1 }) }), {
        minRows: 1,
        maxRows: 2000,
      }),
      capacityAh: number({ above: 0 }),
      school: oneOf(['top', 'bottom']),
      bleedCurrentA: number({ above: 0 }),
      dutyFraction: number({ above: 0, max: 1 }),
      leadLimitA: number.optional({ above: 0 }),
    }),
    cross({ cells }: BalanceTimeInput, issue) {
      const seen = new Set<string>();
      cells.forEach(({ id }, i) => {
        if (seen.has(id)) issue(`cells.${i}.id`, 'is taken by an earlier cell');
        seen.add(id);
      });
    },
  },
  compute({ cells, capacityAh, school, bleedCurrentA, dutyFraction, leadLimitA }, { sheet, raise }) {
    const targetSocFraction = sheet.add({
      symbol: 's_t',
      label: 'The lowest cell',
      formula: 'min(s_i)',
      inputs: cells.slice(0, 40).map(({ socFraction }, i) => ({
        symbol: `s_${i + 1}`,
        value: socFraction,
        unit: 'fraction',
        from: `cells.${i}.socFraction`,
      })),
      value: Math.min(...cells.map(({ socFraction }) => socFraction)),
      unit: 'fraction',
      source: 'Bleeding only takes away',
    });
    const hoursPerCell = cells.map(({ id, socFraction }) => {
      const ah = (socFraction - targetSocFraction) * capacityAh;
      return { id, ah, hours: ah / (bleedCurrentA * dutyFraction) };
    });
    const most = Math.max(...hoursPerCell.map(({ ah }) => ah));
    const totalHours = sheet.add({
      symbol: 't',
      label: 'Until the highest cell is level',
      formula: 'Q_max/(I_b·d)',
      inputs: [
        { symbol: 'Q_max', value: most, unit: 'Ah' },
        { symbol: 'I_b', value: bleedCurrentA, unit: 'A', from: 'bleedCurrentA' },
        { symbol: 'd', value: dutyFraction, unit: 'fraction', from: 'dutyFraction' },
      ],
      value: most / (bleedCurrentA * dutyFraction),
      unit: 'h',
      source: 'All cells bleed at once',
    });
    const bleedAllowed = leadLimitA === undefined || bleedCurrentA <= leadLimitA;
    if (!bleedAllowed)
      raise(
        balanceTimeRules.leadLimit,
        `${formatQuantity(bleedCurrentA, 'A')} of bleed; the sense leads may carry ${formatQuantity(leadLimitA, 'A')}.`,
      );
    raise(
      balanceTimeRules.school,
      `Cells are compared at ${school === 'top' ? 'full' : 'empty'}: all come down to ${formatNumber(targetSocFraction * 100)} %, the lowest.`,
    );
    return { targetSocFraction, hoursPerCell, totalHours, bleedAllowed };
  },
});
