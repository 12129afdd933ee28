import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { thresholdRoles, type ThresholdRole } from '../../model/document';

export interface Threshold {
  id: string;
  level: 'cell' | 'pack';
  voltageV: number;
  role: ThresholdRole;
}

export interface ThresholdLadderInput {
  series: number;
  cell: { minV: number; maxV: number };
  thresholds: Threshold[];
  marginMv: number;
}

export interface ThresholdLadderResult {
  /** From high to low. */
  ordered: { id: string; perCellV: number }[];
  violations: { upper: string; lower: string; gapMv: number; neededMv: number }[];
}

const rule = rulesOf('threshold-ladder');

export const ladderRules = {
  order: rule(
    'order',
    'mend',
    'Two thresholds are not in their order, or too near to each other',
    'What should act first acts last or together with what should only catch its failure.',
    'Move the lower down, or the upper up, by the margin.',
    'Order of the ladder, each step at least the margin',
  ),
  outside: rule(
    'outside-cell',
    'mend',
    'A threshold lies outside of what the cell allows',
    'Before it acts, the cell has been beyond its limits.',
    'Bring it inside the cell’s own limits.',
    'Cell maker’s lowest and highest voltage',
  ),
};

/** From the top down; between neighbours a margin is asked (`true`), or none. */
const upper: readonly [role: ThresholdRole, marginBelow: boolean][] = [
  ['absolute-max', true],
  ['independent-cut', true],
  ['bms-cut-high', true],
  ['bms-warn-high', true],
  ['charger-end', false],
  ['balance-start', false],
];
/** From the top down as well: the bottom of the ladder. */
const lower: readonly [role: ThresholdRole, marginBelow: boolean][] = [
  ['inverter-derate', true],
  ['inverter-cut', true],
  ['bms-warn-low', true],
  ['bms-cut-low', true],
  ['absolute-min', true],
];
/** A gap within this of what is needed is enough, mV. */
const within = 1e-6;

/**
 * Every voltage threshold of a vehicle in one ladder, by the cell, and which pairs stand wrongly.
 *
 * Source: charger ends below the monitor’s warning, that below its cut, that below an independent cut, that below what the cell
 * stands; the same from below.
 */
export const thresholdLadder = defineCalculator<ThresholdLadderInput, ThresholdLadderResult>({
  name: 'threshold-ladder',
  version: 1,
  title: 'Ladder of thresholds',
  rules: Object.values(ladderRules),
  door: {
    schema: record({
      series: number({ min: 1, integer: true }),
      cell: record({ minV: number({ min: 0 }), maxV: number({ above: 0 }) }),
      thresholds: list(
        record({
          id: text(),
          level: oneOf(['cell', 'pack']),
          voltageV: number({ min: 0 }),
          role: oneOf(thresholdRoles),
        }),
        { minRows: 1, maxRows: 200 },
      ),
      marginMv: number.optional({ min: 0 }),
    }),
    defaults: { marginMv: 10 },
    cross({ cell, thresholds }: ThresholdLadderInput, issue) {
      if (!(cell.minV < cell.maxV)) issue('cell.maxV', 'must be above minV');
      const ids = new Set<string>();
      thresholds.forEach(({ id }, i) => {
        if (ids.has(id)) issue(`thresholds.${i}.id`, 'stands twice');
        ids.add(id);
      });
    },
  },
  compute({ series, cell, thresholds, marginMv }, { sheet, raise }) {
    const all = thresholds.map(({ id, level, voltageV, role }) => ({
      id,
      role,
      perCellV: level === 'pack' ? voltageV / series : voltageV,
    }));
    all.forEach(({ id, perCellV }, i) => {
      if (thresholds[i]!.level === 'pack')
        sheet.add({
          symbol: `u_${i + 1}`,
          label: `${id} by the cell`,
          formula: 'U/n',
          inputs: [
            { symbol: 'U', value: thresholds[i]!.voltageV, unit: 'V', from: `thresholds.${i}.voltageV` },
            { symbol: 'n', value: series, unit: '', from: 'series' },
          ],
          value: perCellV,
          unit: 'V',
          source: 'Like cells in series',
        });
    });
    const of = (role: ThresholdRole) => all.filter((one) => one.role === role);
    const violations: ThresholdLadderResult['violations'] = [];
    const compare = (high: (typeof all)[number], low: (typeof all)[number], neededMv: number) => {
      const gapMv = (high.perCellV - low.perCellV) * 1000;
      if (gapMv < neededMv - within) violations.push({ upper: high.id, lower: low.id, gapMv, neededMv });
    };
    for (const chain of [upper, lower]) {
      const present = chain
        .map(([role, margin], i) => ({ i, margin, those: of(role) }))
        .filter(({ those }) => those.length > 0);
      present.slice(1).forEach((below, k) => {
        const above = present[k]!;
        // A step that asks for the margin anywhere between the two asks for it.
        const asks = chain.slice(above.i, below.i).some(([, margin]) => margin);
        for (const high of above.those)
          for (const low of below.those) compare(high, low, asks ? marginMv : 0);
      });
    }
    const regen = of('regen-limit');
    const warn = of('bms-warn-high');
    const next =
      (['bms-cut-high', 'independent-cut', 'absolute-max'] as const)
        .map(of)
        .find((those) => those.length > 0) ?? [];
    for (const low of regen) {
      for (const high of warn) compare(high, low, 0);
      if (warn.length === 0) for (const high of next) compare(high, low, marginMv);
    }
    sheet.add({
      symbol: 'm',
      label: 'Margin asked between two steps',
      formula: 'm',
      inputs: [{ symbol: 'm', value: marginMv, unit: 'mV', from: 'marginMv' }],
      value: marginMv,
      unit: 'mV',
      source: ladderRules.order.source,
    });
    const n = formatNumber;
    if (violations.length > 0)
      raise(
        ladderRules.order,
        `${violations
          .slice(0, 6)
          .map((one) => `${one.upper} over ${one.lower}: ${n(one.gapMv)} mV, ${n(one.neededMv)} needed`)
          .join('; ')}${violations.length > 6 ? ' and more' : ''}.`,
      );
    const outside = all.filter(
      ({ role, perCellV }) =>
        role !== 'absolute-max' && role !== 'absolute-min' && (perCellV < cell.minV || perCellV > cell.maxV),
    );
    if (outside.length > 0)
      raise(
        ladderRules.outside,
        `${outside
          .slice(0, 6)
          .map(({ id, perCellV }) => `${id} at ${n(perCellV)} V`)
          .join('; ')}; the cell allows ${n(cell.minV)} to ${n(cell.maxV)} V.`,
      );
    const ordered = all
      .map(({ id, perCellV }, i) => ({ id, perCellV, i }))
      .sort((a, b) => b.perCellV - a.perCellV || a.i - b.i)
      .map(({ id, perCellV }) => ({ id, perCellV }));
    return { ordered, violations };
  },
});
