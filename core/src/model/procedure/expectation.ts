import type { Gap } from '../../ground/figure';
import { formatQuantity } from '../../ground/quantity';

/** What a step should show. */
export type Expectation =
  | { kind: 'range'; min?: number; max?: number; nominal?: number; unit: string }
  /** A pre-charge rise, judged by its fit. */
  | {
      kind: 'rise';
      resistanceOhm: number;
      capacitanceF: number;
      capacitanceToleranceFraction: number;
      /** null: no load may be seen. */
      loadOhm: number | null;
      unit: 'V';
    }
  /** The pins of a sense plug against its reference. */
  | { kind: 'ladder'; cells: number; cellMinV: number; cellMaxV: number; tied: number; unit: 'V' }
  /** One reading for each thing named. */
  | {
      kind: 'list';
      items: string[];
      min?: number;
      max?: number;
      /** No further from the middle of all than this. */
      withinOfMiddle?: number;
      /** Against the steps of the ladder that the record has for this board, once what all moved by is taken off. */
      ladder?: { step: string; within: number; recordedV?: number[] };
      unit: string;
    }
  /** A vessel that holds its pressure, corrected for temperature and weather. */
  | { kind: 'hold'; testKPa: number; minutes: number; allowedDropKPa: number; volumeL: number; unit: 'kPa' };

/** A range that no value lies in is no expectation: nothing could pass it, and a finding says what is wrong. */
export function contradiction(range: Expectation | null): Gap[] {
  if (range?.kind !== 'range' || range.min === undefined || range.max === undefined) return [];
  const { min, max, unit } = range;
  return min <= max
    ? []
    : [
        {
          kind: 'never',
          label: `The design expects at least ${formatQuantity(min, unit)} and allows at most ${formatQuantity(max, unit)}: see its findings`,
        },
      ];
}

/** An expectation as one line. */
export function describe(expected: Expectation): string {
  if (expected.kind === 'rise') {
    const low = formatQuantity(expected.capacitanceF * (1 - expected.capacitanceToleranceFraction), 'F');
    const high = formatQuantity(expected.capacitanceF * (1 + expected.capacitanceToleranceFraction), 'F');
    const load =
      expected.loadOhm === null
        ? 'no load on the bus'
        : `a load of about ${formatQuantity(expected.loadOhm, 'Ω')}`;
    return `a rise that fits ${low} to ${high} through ${formatQuantity(expected.resistanceOhm, 'Ω')}, ${load}`;
  }
  if (expected.kind === 'ladder')
    return `${expected.cells} steps of ${formatQuantity(expected.cellMinV, 'V')} to ${formatQuantity(expected.cellMaxV, 'V')}${expected.tied === 0 ? '' : `, then ${expected.tied} pins as the top`}`;
  if (expected.kind === 'list') return describeList(expected);
  if (expected.kind === 'hold')
    return `${formatQuantity(expected.testKPa, 'kPa')} held for ${formatQuantity(expected.minutes, 'min')}, falling by ${formatQuantity(expected.allowedDropKPa, 'kPa')} at the most once corrected for temperature`;
  const { min, max, nominal, unit } = expected;
  if (min !== undefined && max !== undefined)
    return `${formatQuantity(min, unit)} to ${formatQuantity(max, unit)}`;
  if (min !== undefined) return `${formatQuantity(min, unit)} or more`;
  if (max !== undefined) return `${formatQuantity(max, unit)} or less`;
  return nominal === undefined ? 'any value' : `any value; the maker says ${formatQuantity(nominal, unit)}`;
}

function describeList({
  items,
  min,
  max,
  withinOfMiddle,
  ladder,
  unit,
}: Extract<Expectation, { kind: 'list' }>) {
  const q = (value: number) => formatQuantity(value, unit);
  const each =
    min !== undefined && max !== undefined
      ? `each ${q(min)} to ${q(max)}`
      : min !== undefined
        ? `each ${q(min)} or more`
        : max !== undefined
          ? `each ${q(max)} or less`
          : 'any value';
  return [
    `${items.length} ${items.length === 1 ? 'reading' : 'readings'}, ${each}`,
    ...(withinOfMiddle === undefined ? [] : [`none further than ${q(withinOfMiddle)} from their middle`]),
    ...(ladder === undefined
      ? []
      : [`within ${q(ladder.within)} of the recorded ladder, once what all moved by is taken off`]),
  ].join(', ');
}

/** The figure a step expects, where there is one. */
export const nominalOf = (expected: Expectation): number | null => {
  if (expected.kind === 'rise') return expected.capacitanceF;
  if (expected.kind === 'hold' || expected.kind === 'ladder' || expected.kind === 'list') return null;
  if (expected.nominal !== undefined) return expected.nominal;
  const { min, max } = expected;
  return min !== undefined && max !== undefined ? (min + max) / 2 : null;
};
