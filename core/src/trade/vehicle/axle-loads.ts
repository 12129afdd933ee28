import { defineCalculator } from '../../ground/calculator';
import { list, number, record, text } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';

/** A mass taken out (negative) or put in (positive). */
export interface MassChange {
  name: string;
  massKg: number;
  /** Vehicle frame: 0 at the front axle, forward positive; the rear axle is at −wheelbase. */
  xM: number;
}

export interface AxleLoadsInput {
  wheelbaseM: number;
  /** Axle loads before, as weighed. */
  frontKg: number;
  rearKg: number;
  changes: MassChange[];
}

export interface AxleLoadsResult {
  frontKg: number;
  rearKg: number;
  totalKg: number;
  frontFraction: number;
  originalFrontFraction: number;
  /** Percentage points, positive towards the front. */
  shiftPoints: number;
}

export const negativeAxleLoad = defineRule({
  id: 'axle.negative',
  version: 1,
  grade: 'stop',
  title: 'An axle would lift',
  why: 'A negative axle load means the vehicle tips: the masses or their places cannot be right.',
  remedy: 'Check the sign of each mass and each x, then move mass towards the lifted axle.',
  source: 'Moment balance about the axles',
});

/**
 * Axle loads after masses are taken out and put in.
 *
 * Source: moment balance; the rear axle gains m·(−x)/wheelbase, the front axle the rest.
 */
export const axleLoads = defineCalculator<AxleLoadsInput, AxleLoadsResult>({
  name: 'axle-loads',
  version: 1,
  title: 'Axle loads',
  rules: [negativeAxleLoad],
  door: {
    schema: record({
      wheelbaseM: number({ above: 0 }),
      frontKg: number({ min: 0 }),
      rearKg: number({ min: 0 }),
      changes: list(record({ name: text(), massKg: number(), xM: number() })),
    }),
    cross(input: AxleLoadsInput, issue) {
      if (input.frontKg + input.rearKg <= 0) issue('frontKg', 'and rearKg must add up to more than 0');
      const total = input.changes.reduce((sum, { massKg }) => sum + massKg, input.frontKg + input.rearKg);
      if (total <= 0)
        issue('changes', `take more away than there is: ${formatNumber(total)} kg would be left`);
    },
  },
  compute({ wheelbaseM, frontKg, rearKg, changes }, { sheet, raise }) {
    const massIn = changes.reduce((sum, { massKg }) => sum + massKg, 0);
    const rearMomentKgM = changes.reduce((sum, { massKg, xM }) => sum - massKg * xM, 0);
    const b = { symbol: 'b', value: wheelbaseM, unit: 'm', from: 'wheelbaseM' };
    const moment = { symbol: 'M', value: rearMomentKgM, unit: 'kg·m', from: 'changes' };
    const rear = sheet.add({
      symbol: 'm_r',
      label: 'Rear axle load',
      formula: 'm_r0 + M/b',
      inputs: [{ symbol: 'm_r0', value: rearKg, unit: 'kg', from: 'rearKg' }, moment, b],
      value: rearKg + rearMomentKgM / wheelbaseM,
      unit: 'kg',
      source: 'Moment balance about the front axle; M is the sum of −m·x over the changes',
    });
    const total = sheet.add({
      symbol: 'm',
      label: 'Total mass',
      formula: 'm_f0 + m_r0 + Δm',
      inputs: [
        { symbol: 'm_f0', value: frontKg, unit: 'kg', from: 'frontKg' },
        { symbol: 'm_r0', value: rearKg, unit: 'kg', from: 'rearKg' },
        { symbol: 'Δm', value: massIn, unit: 'kg', from: 'changes' },
      ],
      value: frontKg + rearKg + massIn,
      unit: 'kg',
      source: 'Sum',
    });
    const front = sheet.add({
      symbol: 'm_f',
      label: 'Front axle load',
      formula: 'm − m_r',
      inputs: [
        { symbol: 'm', value: total, unit: 'kg' },
        { symbol: 'm_r', value: rear, unit: 'kg' },
      ],
      value: total - rear,
      unit: 'kg',
      source: 'The front axle carries the rest',
    });
    const originalFrontFraction = frontKg / (frontKg + rearKg);
    const frontFraction = front / total;
    const shiftPoints = sheet.add({
      symbol: 's',
      label: 'Shift of the axle split',
      formula: '100·(p − p_0)',
      inputs: [
        { symbol: 'p', value: frontFraction, unit: 'fraction' },
        { symbol: 'p_0', value: originalFrontFraction, unit: 'fraction' },
      ],
      value: (frontFraction - originalFrontFraction) * 100,
      unit: 'points',
      source: 'Front share after less front share before; positive towards the front',
    });
    if (front < 0) raise(negativeAxleLoad, `The front axle load comes to ${formatNumber(front)} kg.`);
    if (rear < 0) raise(negativeAxleLoad, `The rear axle load comes to ${formatNumber(rear)} kg.`);
    return {
      frontKg: front,
      rearKg: rear,
      totalKg: total,
      frontFraction,
      originalFrontFraction,
      shiftPoints,
    };
  },
});
