import { figureId, type Figure, type FigureName, type Gap, type TracedStep } from '../../ground/figure';
import { integrate } from '../../ground/math';
import { partKey, type PartOf } from '../../model/parts';
import type { StepDefinition } from '../../model/step';

/**
 * Each string by itself, whatever stands beside it: what its modules in series are, of one kind or of several. A string
 * that differs from its neighbours keeps its figures where the pack has none.
 */
export const stringStep: StepDefinition = {
  id: 'pack.string',
  version: 1,
  subjects: ({ strings }) => Object.keys(strings),
  compute(subject, read) {
    const { tag, modules: ids } = read.at('strings', subject)!;
    const modules = read.at('modules');
    const parts = read.at('parts');
    const kinds = new Map<string, { part: PartOf<'module'>; count: number }>();
    const unknown = new Map<string, Gap>();
    for (const id of ids) {
      const part = parts[modules[id]?.part ?? ''];
      if (part?.kind !== 'module') {
        unknown.set(id, { kind: 'not-given', path: `modules.${id}.part`, label: `kind of module in ${tag}` });
        continue;
      }
      const key = partKey(part);
      kinds.set(key, { part, count: (kinds.get(key)?.count ?? 0) + 1 });
    }
    const gaps: Gap[] =
      ids.length === 0
        ? [{ kind: 'not-given', path: `strings.${subject}.modules`, label: `modules of ${tag}` }]
        : [...unknown.values()].slice(0, 1);
    const all = [...kinds].map(([key, one]) => ({ key, ...one }));
    const capacities = all.map(({ part: { data } }) => data.cell.capacityAh * data.cellsInParallel);
    const capacityAh = Math.min(...capacities);
    const alike = capacities.every((one) => one === capacityAh);
    const told = (
      name: FigureName<'pack.string'>,
      label: string,
      unit: string,
      own: Gap[],
      formula: string,
      of: (data: PartOf<'module'>['data']) => number,
      path: string,
      merge: (values: { each: number; count: number }[]) => number,
    ): Figure => {
      const missing = [...gaps, ...own];
      const values = all.map(({ part, count }) => ({ each: of(part.data), count }));
      const value = missing.length > 0 ? null : merge(values);
      const working: TracedStep[] =
        value === null
          ? []
          : [
              {
                symbol: 'x',
                label,
                formula,
                inputs: all.flatMap(({ key, part, count }, i) => [
                  {
                    symbol: `m_${i + 1}`,
                    label: `${part.label} in ${tag}`,
                    value: count,
                    unit: '',
                    origin: { kind: 'document', path: `strings.${subject}.modules` },
                  },
                  { symbol: `x_${i + 1}`, value: values[i]!.each, unit, origin: { kind: 'part', key, path } },
                ]),
                value,
                unit,
                source:
                  'Modules in series: voltages and resistances add, the smallest capacity holds for all',
              },
            ];
      return { id: figureId('pack.string', subject, name), label, unit, value, gaps: missing, working };
    };
    const sum = (values: { each: number; count: number }[]) =>
      values.reduce((total, { each, count }) => total + each * count, 0);
    const least = (values: { each: number }[]) => Math.min(...values.map(({ each }) => each));
    return {
      figures: [
        told(
          'cells',
          'Cells in series, string',
          '',
          [],
          'Σ m·x',
          ({ cellsInSeries }) => cellsInSeries,
          'cellsInSeries',
          sum,
        ),
        told(
          'voltageMinV',
          'String, cells at their lowest',
          'V',
          [],
          'Σ m·x',
          ({ cellsInSeries, cell }) => cellsInSeries * cell.minV,
          'cell.minV',
          sum,
        ),
        told(
          'voltageNominalV',
          'String, nominal',
          'V',
          [],
          'Σ m·x',
          ({ cellsInSeries, cell }) => cellsInSeries * integrate(cell.ocvTable, 0, 1),
          'cell.ocvTable',
          sum,
        ),
        told(
          'voltageMaxV',
          'String, cells at their highest',
          'V',
          [],
          'Σ m·x',
          ({ cellsInSeries, cell }) => cellsInSeries * cell.maxV,
          'cell.maxV',
          sum,
        ),
        told(
          'capacityAh',
          'Capacity of the string',
          'Ah',
          [],
          'min(x)',
          ({ cell, cellsInParallel }) => cell.capacityAh * cellsInParallel,
          'cell.capacityAh',
          least,
        ),
        told(
          'energyKWh',
          'Energy of the string, full to empty',
          'kWh',
          alike
            ? []
            : [
                {
                  kind: 'never',
                  label: `Energy of ${tag}: its modules differ in capacity, and it hangs on where they are level`,
                },
              ],
          'Σ m·x',
          ({ cellsInSeries, cell, cellsInParallel }) =>
            (cellsInSeries * integrate(cell.ocvTable, 0, 1) * cell.capacityAh * cellsInParallel) / 1000,
          'cell.ocvTable',
          sum,
        ),
        told(
          'modulesOhm',
          'Resistance of the string’s modules',
          'Ω',
          [],
          'Σ m·x',
          ({ cellsInSeries, cell, cellsInParallel }) =>
            (cellsInSeries * cell.resistanceOhm) / cellsInParallel,
          'cell.resistanceOhm',
          sum,
        ),
        told(
          'massKg',
          'Mass of the string’s modules',
          'kg',
          [],
          'Σ m·x',
          ({ massKg }) => massKg,
          'massKg',
          sum,
        ),
      ],
      checks: [],
    };
  },
};
