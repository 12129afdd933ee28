import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import {
  bleedOf,
  chargingDefaults,
  limitDefaults,
  type Design,
  type ThresholdRole,
} from '../../model/document';
import { Inputs, judge, type StepDefinition } from '../../model/step';
import { readPackLayout, type PackLayout } from '../pack';
import { saysCharging } from './says';
import { chargeRules } from './rules';
import {
  ladderRules,
  thresholdLadder,
  type ThresholdLadderInput,
  type ThresholdLadderResult,
} from './threshold-ladder';

const n = formatNumber;

/** One threshold of the vehicle: where it stands in the design, and whose it is. */
export interface LadderItem {
  /** The field that holds it. */
  path: string;
  owner: string;
  what: string;
  role: ThresholdRole;
  level: 'cell' | 'pack';
  voltageV: number;
  perCellV: number;
  /** It belongs to a sheet: it is no decision. */
  fixed: boolean;
}

type Slices = Pick<Design, 'devices' | 'limits' | 'cuts' | 'thresholds'>;

/** Every threshold that the design holds, wherever it stands: the ladder is never typed twice. */
export function ladderItems(
  { devices, limits = {}, cuts = {}, thresholds = {} }: Slices,
  layout: PackLayout,
): LadderItem[] {
  const items: LadderItem[] = [];
  const add = (
    path: string,
    owner: string,
    what: string,
    role: ThresholdRole,
    level: 'cell' | 'pack',
    voltageV: number | undefined,
    fixed = false,
  ) => {
    if (voltageV === undefined) return;
    const perCellV = level === 'pack' ? voltageV / layout.seriesCells : voltageV;
    items.push({ path, owner, what, role, level, voltageV, perCellV, fixed });
  };
  const { cell } = layout.part.data;
  const sheet = `parts.${layout.key}.data.cell`;
  add(`${sheet}.maxV`, 'Cells', 'at most', 'absolute-max', 'cell', cell.maxV, true);
  for (const [id, cut] of Object.entries(cuts))
    add(`cuts.${id}.voltageV`, cut.tag, 'opens', 'independent-cut', cut.level ?? 'cell', cut.voltageV);
  add('limits.cutHighV', 'Monitor', 'cuts above', 'bms-cut-high', 'cell', limits.cutHighV);
  add('limits.warnHighV', 'Monitor', 'warns above', 'bms-warn-high', 'cell', limits.warnHighV);
  for (const [id, device] of Object.entries(devices)) {
    if (device.kind === 'charger')
      add(`devices.${id}.endV`, device.tag, 'ends', 'charger-end', 'pack', device.endV);
    if (device.kind !== 'inverter') continue;
    add(`devices.${id}.regenMaxV`, device.tag, 'brakes to', 'regen-limit', 'pack', device.regenMaxV);
    add(
      `devices.${id}.derateBelowV`,
      device.tag,
      'eases below',
      'inverter-derate',
      'pack',
      device.derateBelowV,
    );
    add(`devices.${id}.cutBelowV`, device.tag, 'stops below', 'inverter-cut', 'pack', device.cutBelowV);
  }
  add('limits.balanceFromV', 'Monitor', 'balances from', 'balance-start', 'cell', limits.balanceFromV);
  add('limits.warnLowV', 'Monitor', 'warns below', 'bms-warn-low', 'cell', limits.warnLowV);
  add('limits.cutLowV', 'Monitor', 'cuts below', 'bms-cut-low', 'cell', limits.cutLowV);
  add(`${sheet}.minV`, 'Cells', 'at least', 'absolute-min', 'cell', cell.minV, true);
  for (const [id, one] of Object.entries(thresholds))
    add(`thresholds.${id}.voltageV`, one.tag, 'at', one.role, one.level ?? 'cell', one.voltageV);
  return items;
}

/** Roles whose passing is the last before cells are harmed from above. */
const upperCuts: readonly ThresholdRole[] = ['independent-cut', 'bms-cut-high', 'charger-end'];

/** What the ladder comes to, for pictures of it. */
export interface LadderAnswer {
  items: LadderItem[];
  result: ThresholdLadderResult;
  marginMv: number;
}

/** All thresholds of the vehicle in one ladder. */
export const ladderStep: StepDefinition = {
  id: 'charge.ladder',
  version: 1,
  subjects: (design) =>
    saysCharging(design) ||
    design.limits !== undefined ||
    design.cuts !== undefined ||
    design.thresholds !== undefined
      ? ['vehicle']
      : [],
  compute(subject, read) {
    const slices = {
      devices: read.at('devices'),
      limits: read.at('limits') ?? {},
      cuts: read.at('cuts') ?? {},
      thresholds: read.at('thresholds') ?? {},
    };
    const { layout, gaps } = readPackLayout(read);
    const items = layout === null ? [] : ladderItems(slices, layout);
    const marginMv = read.at('charging')?.marginMv ?? chargingDefaults.marginMv;
    const inputs = new Inputs(read);
    inputs.missing(...gaps);
    if (layout !== null) {
      inputs.set('series', layout.seriesCells, { kind: 'constant', source: 'cells in series' });
      const { minV, maxV } = layout.part.data.cell;
      inputs.set('cell', { minV, maxV }, { kind: 'part', key: layout.key, path: 'cell' });
      inputs.set(
        'thresholds',
        items.map(({ path, level, voltageV, role }) => ({ id: path, level, voltageV, role })),
        { kind: 'constant', source: 'every threshold of the design' },
        'thresholds',
      );
    }
    inputs.optional('marginMv', read.at('charging')?.marginMv, 'charging.marginMv', 'margin of the ladder');
    const run = inputs.run<ThresholdLadderInput, ThresholdLadderResult>(thresholdLadder);
    const byPath = new Map(items.map((one) => [one.path, one]));
    const say = (path: string) => {
      const one = byPath.get(path)!;
      return `“${one.owner}” ${one.what} ${formatQuantity(one.perCellV, 'V', 4)}`;
    };
    const violations = run.result?.violations ?? [];
    const value = (label: string, one: number, unit: string): CheckValue => ({ label, value: one, unit });
    const outside = items.filter(({ role, perCellV }) => {
      const { minV, maxV } = layout!.part.data.cell;
      return (
        role !== 'absolute-max' &&
        role !== 'absolute-min' &&
        (perCellV > maxV + 1e-9 || perCellV < minV - 1e-9)
      );
    });
    const spreadV = (slices.limits.spreadMv ?? limitDefaults.spreadMv) / 1000;
    const maxV = layout?.part.data.cell.maxV ?? 0;
    const hiding = items.filter(
      ({ level, role, perCellV }) =>
        level === 'pack' && upperCuts.includes(role) && perCellV <= maxV && perCellV + spreadV > maxV + 1e-9,
    );
    /**
     * A cut by the cell catches the high cell before it is harmed; an independent one is there for when the monitor does not.
     */
    const catches = (wanted: readonly ThresholdRole[]) =>
      items.some(
        ({ level, role, perCellV }) => level === 'cell' && wanted.includes(role) && perCellV <= maxV,
      );
    const unseen = hiding.filter(
      ({ role }) =>
        !catches(role === 'independent-cut' ? ['independent-cut'] : ['independent-cut', 'bms-cut-high']),
    );
    /** What a threshold belongs to: a thing of the design, or its limits. */
    const ownerOf = (path: string) => {
      const [root, id] = path.split('.') as [string, string];
      return root === 'limits' ? ['limits'] : root === 'parts' ? [] : [id];
    };
    const owners = (paths: readonly string[]) => ({ also: paths.flatMap(ownerOf) });
    const has = (role: ThresholdRole) => items.some((one) => one.role === role);
    const kinds = Object.values(slices.devices).map(({ kind }) => kind);
    const { regenPeakA, balance } = read.at('pack');
    const bleed = bleedOf({
      pack: read.at('pack'),
      boards: read.at('boards') ?? {},
      parts: read.at('parts'),
    });
    const wanted: [ThresholdRole, string, boolean][] = [
      ['charger-end', 'where the charger ends', kinds.includes('charger')],
      ['bms-cut-high', 'where the monitor cuts above', true],
      ['bms-cut-low', 'where the monitor cuts below', true],
      ['inverter-cut', 'where the inverter stops', kinds.includes('inverter')],
      ['regen-limit', 'how high the inverter brakes', kinds.includes('inverter') && (regenPeakA ?? 0) > 0],
      ['balance-start', 'where balancing begins', balance?.school === 'top' && (bleed?.currentA ?? 0) > 0],
      ['independent-cut', 'where an independent cut opens', Object.keys(slices.cuts).length > 0],
    ];
    const empty = [
      ...Object.entries(slices.cuts).map(([id, { tag, voltageV }]) => ({ id, tag, voltageV })),
      ...Object.entries(slices.thresholds).map(([id, { tag, voltageV }]) => ({ id, tag, voltageV })),
    ].filter(({ voltageV }) => voltageV === undefined);
    const open = [
      ...wanted.filter(([role, , asked]) => asked && !has(role)).map(([, words]) => words),
      ...empty.map(({ tag }) => `where “${tag}” acts`),
    ];
    const shortfallMv = violations.reduce((most, { gapMv, neededMv }) => Math.max(most, neededMv - gapMv), 0);
    const figure: Figure = {
      id: figureId('charge.ladder', subject, 'shortfallMv'),
      label: 'Most that a pair of the ladder lacks',
      unit: 'mV',
      value: run.result === null ? null : shortfallMv,
      gaps: run.gaps,
      working: run.working(),
    };
    const noLayout: Gap[] = run.gaps;
    return {
      figures: [figure],
      ...(run.result !== null && {
        run: {
          calculator: 'threshold-ladder',
          input: run.input,
          result: { items, result: run.result, marginMv } satisfies LadderAnswer,
        },
      }),
      checks: [
        judge(
          ladderRules.order,
          [subject],
          noLayout,
          violations.length > 0
            ? violations
                .map(
                  ({ upper, lower, gapMv, neededMv }) =>
                    `${say(upper)}, ${say(lower)}: ${n(gapMv)} mV apart, ${n(neededMv)} mV asked.`,
                )
                .join(' ')
            : null,
          violations.flatMap(({ upper, lower, gapMv, neededMv }) => [
            value(say(upper).replace(/ [-\d. ]+V$/, ''), byPath.get(upper)!.perCellV, 'V'),
            value(say(lower).replace(/ [-\d. ]+V$/, ''), byPath.get(lower)!.perCellV, 'V'),
            value('apart', gapMv, 'mV'),
            value('asked', neededMv, 'mV'),
          ]),
          owners(violations.flatMap(({ upper, lower }) => [upper, lower])),
        ),
        judge(
          ladderRules.outside,
          [subject],
          noLayout,
          outside.length > 0
            ? `${outside.map(({ path }) => say(path)).join('; ')}; cells go from ${n(layout!.part.data.cell.minV)} to ${n(maxV)} V.`
            : null,
          [
            ...outside.map(({ path, perCellV }) =>
              value(say(path).replace(/ [-\d. ]+V$/, ''), perCellV, 'V'),
            ),
            value('cells from', layout?.part.data.cell.minV ?? 0, 'V'),
            value('cells to', maxV, 'V'),
          ],
          owners(outside.map(({ path }) => path)),
        ),
        judge(
          chargeRules.hides,
          [subject],
          noLayout,
          unseen.length > 0
            ? `${unseen.map(({ path }) => say(path)).join('; ')} on average; with a spread of ${n(spreadV * 1000)} mV the highest cell passes ${n(maxV)} V.`
            : null,
          [
            ...unseen.map(({ path, perCellV }) => value(say(path).replace(/ [-\d. ]+V$/, ''), perCellV, 'V')),
            value('spread', spreadV * 1000, 'mV'),
            value('cells to', maxV, 'V'),
          ],
          owners(unseen.map(({ path }) => path)),
        ),
        judge(
          chargeRules.open,
          [subject],
          noLayout,
          open.length > 0 ? `${n(open.length)} not given: ${open.join(', ')}.` : null,
          [value('steps not given', open.length, '')],
          { also: empty.map(({ id }) => id) },
        ),
      ],
    };
  },
};
