import { defineCalculator } from '../../ground/calculator';
import { list, number, oneOf, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export const topologies = ['central', 'split', 'per-module', 'donor'] as const;

export interface TopologyInput {
  boxes: { id: string; modules: { cells: number; sensors: number }[] }[];
  leadLimitA?: number;
  options: {
    id: string;
    kind: (typeof topologies)[number];
    channelsPerUnit: number;
    bleedA: number;
    /** Supply and bus wires that leave a box for each chain of units. */
    unitWiresOut: number;
  }[];
}

export interface TopologyResult {
  options: {
    id: string;
    units: number;
    channelsUsed: number;
    channelsSpare: number;
    senseWiresThroughWalls: number;
    lvWiresThroughWalls: number;
    bleedWithinLead: boolean | null;
  }[];
}

const rule = rulesOf('topology-compare');

export const topologyRules = {
  bleed: rule(
    'bleed-over-lead',
    'mend',
    'A unit bleeds more than the sense leads carry',
    'Thin leads inside of modules get hot, and read low.',
    'Less bleed, or leads that carry it.',
    'Bleed current against the limit of the leads',
  ),
};

const sum = (all: readonly number[]) => all.reduce((total, one) => total + one, 0);

/**
 * Ways to monitor one pack against each other: units, spare channels, wires through walls.
 *
 * Source: counts of cells, sensors and boxes.
 */
export const topologyCompare = defineCalculator<TopologyInput, TopologyResult>({
  name: 'topology-compare',
  version: 1,
  title: 'Ways to monitor',
  rules: Object.values(topologyRules),
  door: {
    schema: record({
      boxes: list(
        record({
          id: text(),
          modules: list(
            record({
              cells: number({ min: 1, max: 500, integer: true }),
              sensors: number({ min: 0, max: 500, integer: true }),
            }),
            { minRows: 1, maxRows: 500 },
          ),
        }),
        { minRows: 1, maxRows: 100 },
      ),
      leadLimitA: number.optional({ min: 0 }),
      options: list(
        record({
          id: text(),
          kind: oneOf(topologies),
          channelsPerUnit: number({ min: 1, max: 1000, integer: true }),
          bleedA: number({ min: 0 }),
          unitWiresOut: number({ min: 0, max: 1000, integer: true }),
        }),
        { minRows: 1, maxRows: 50 },
      ),
    }),
    cross({ boxes, options }: TopologyInput, issue) {
      for (const [at, those] of [
        ['boxes', boxes],
        ['options', options],
      ] as const) {
        const seen = new Set<string>();
        those.forEach(({ id }, i) => {
          if (seen.has(id)) issue(`${at}.${i}.id`, 'stands twice');
          seen.add(id);
        });
      }
    },
  },
  compute({ boxes, leadLimitA, options }, { sheet, raise }) {
    const modules = boxes.flatMap((box) => box.modules);
    const cells = sum(modules.map((module) => module.cells));
    const unitsOf = (kind: (typeof topologies)[number], channels: number): number => {
      const by = (count: number) => Math.ceil(count / channels);
      switch (kind) {
        case 'central':
          return by(cells);
        case 'split':
          return sum(boxes.map((box) => by(sum(box.modules.map((module) => module.cells)))));
        case 'per-module':
          return sum(modules.map((module) => by(module.cells)));
        case 'donor':
          return modules.length;
      }
    };
    const over: string[] = [];
    const result = options.map(({ id, kind, channelsPerUnit, bleedA, unitWiresOut }) => {
      const units = sheet.add({
        symbol: 'u',
        label: `Units, ${id}`,
        formula: kind === 'donor' ? 'm' : 'Σ ⌈n/c⌉',
        inputs:
          kind === 'donor'
            ? [{ symbol: 'm', value: modules.length, unit: '', from: 'boxes' }]
            : [
                { symbol: 'n', label: 'cells', value: cells, unit: '', from: 'boxes' },
                { symbol: 'c', value: channelsPerUnit, unit: '' },
              ],
        value: unitsOf(kind, channelsPerUnit),
        unit: '',
        source: 'Cells over channels, rounded up where a unit ends',
      });
      const bleedWithinLead = leadLimitA === undefined ? null : bleedA <= leadLimitA;
      if (bleedWithinLead === false) over.push(`${id} ${formatQuantity(bleedA, 'A')}`);
      const isCentral = kind === 'central';
      return {
        id,
        units,
        channelsUsed: cells,
        channelsSpare: kind === 'donor' ? 0 : units * channelsPerUnit - cells,
        senseWiresThroughWalls: isCentral
          ? sum(
              boxes.map(
                (box) =>
                  sum(box.modules.map((module) => module.cells)) +
                  1 +
                  2 * sum(box.modules.map((module) => module.sensors)),
              ),
            )
          : 0,
        lvWiresThroughWalls: isCentral ? 0 : unitWiresOut * boxes.length,
        bleedWithinLead,
      };
    });
    if (over.length > 0)
      raise(topologyRules.bleed, `${over.join(', ')}; the leads carry ${formatQuantity(leadLimitA!, 'A')}.`);
    return { options: result };
  },
});
