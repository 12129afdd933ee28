import { topologyCompare, type TopologyInput, type TopologyResult } from '@torvek/core/monitoring';
import type { Design } from '@torvek/core/document';
import { packLayout } from '@torvek/core/pack';
import type { PartOf } from '@torvek/core/parts';

export interface SchoolOption {
  id: 'central' | 'split' | 'per-module' | 'donor';
  /** The unit that it is counted with; null: the donor’s own. */
  unit: PartOf<'unit'> | null;
  row: TopologyResult['options'][number];
  /** To bring cells that differ by one per cent of charge level, h; null: it does not bleed. */
  levelH: number | null;
  /** What must be learnt or bought. */
  costs: string;
}

const costs = {
  central: 'many high-voltage wires through walls; one unit to learn',
  split: 'a unit for each box and a link between them; no sense wire leaves a box',
  'per-module': 'a board for each module, addresses and a master; short wires',
  donor: 'their messages must be decoded; their bleed current is what it is',
};

/** The unit of the library that suits a school: the largest for one of all, for a module the smallest that holds it. */
function unitFor(
  kind: SchoolOption['id'],
  units: readonly PartOf<'unit'>[],
  module: number,
): PartOf<'unit'> | null {
  const sorted = [...units].sort((a, b) => a.data.channels - b.data.channels);
  if (kind === 'donor') return null;
  if (kind === 'central') return sorted.at(-1) ?? null;
  if (kind === 'split') return sorted.findLast(({ data }) => data.isolatedLink) ?? sorted.at(-1) ?? null;
  return (
    sorted.find(({ data }) => data.channels >= module && data.minChannels <= module) ?? sorted[0] ?? null
  );
}

/** The four schools for this very pack; null: its modules or boxes are not given. */
export function schoolOptions(design: Design, units: readonly PartOf<'unit'>[]): SchoolOption[] | null {
  const { layout } = packLayout(design);
  if (layout === null) return null;
  const { cellsInSeries, cellsInParallel, senseLeadLimitA, cell } = layout.part.data;
  const sensors = Object.values(design.sensors ?? {});
  const boxes = new Map<string, TopologyInput['boxes'][number]>();
  for (const { modules } of Object.values(design.strings))
    for (const id of modules) {
      const box = design.modules[id]?.box ?? 'nowhere';
      const own = boxes.get(box) ?? { id: box, modules: [] };
      own.modules.push({
        cells: cellsInSeries,
        sensors: sensors.filter(({ module }) => module === id).length,
      });
      boxes.set(box, own);
    }
  if (boxes.size === 0) return null;
  const kinds = ['central', 'split', 'per-module', 'donor'] as const;
  const chosen = kinds.map((kind) => unitFor(kind, units, cellsInSeries));
  const parsed = topologyCompare.parse({
    boxes: [...boxes.values()],
    leadLimitA: senseLeadLimitA,
    options: kinds.map((kind, i) => ({
      id: kind,
      kind,
      channelsPerUnit: chosen[i]?.data.channels ?? cellsInSeries,
      bleedA: chosen[i]?.data.bleedA ?? 0,
      unitWiresOut: 4,
    })),
  });
  if (!parsed.ok) return null;
  const { options } = topologyCompare.calculate(parsed.input).result;
  return kinds.map((kind, i) => {
    const bleedA = chosen[i]?.data.bleedA ?? 0;
    return {
      id: kind,
      unit: chosen[i]!,
      row: options[i]!,
      levelH: bleedA > 0 ? (0.01 * cell.capacityAh * cellsInParallel) / bleedA : null,
      costs: costs[kind],
    };
  });
}
