import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { readPackLayout } from '../pack';
import { monitoringRules } from './rules';

const n = formatNumber;

/** A donor’s monitor on this pack: what it assumes, and what it will misreport. */
export const donorStep: StepDefinition = {
  id: 'monitoring.donor',
  version: 1,
  subjects: ({ sensing }) => (sensing?.school === 'donor' ? ['pack'] : []),
  compute(subject, read) {
    const { donorCells, donorAh, donorMinV, donorMaxV, donorSensors } = read.at('sensing') ?? {};
    const { layout, gaps } = readPackLayout(read);
    const unsaid: Gap[] = (
      [
        ['donorCells', donorCells, 'cells in series'],
        ['donorAh', donorAh, 'capacity'],
      ] as const
    ).flatMap(([field, value, label]) =>
      value === undefined
        ? [{ kind: 'not-given' as const, path: `sensing.${field}`, label: `${label} of the donor` }]
        : [],
    );
    const cell = layout?.part.data.cell;
    const ah =
      layout === null || cell === undefined
        ? null
        : cell.capacityAh * layout.part.data.cellsInParallel * layout.strings;
    // What it counts in ampere-hours it tells in shares of its own pack.
    const error = ah === null || donorAh === undefined ? null : ah / donorAh - 1;
    const said: string[] = [];
    if (layout !== null && donorCells !== undefined && donorCells !== layout.seriesCells)
      said.push(
        `it expects ${n(donorCells)} cells and finds ${n(layout.seriesCells)}: it reports missing cells, and its pack voltage is off by ${n(Math.abs(donorCells / layout.seriesCells - 1) * 100)} %`,
      );
    if (error !== null && Math.abs(error) > 0.02)
      said.push(
        `over a whole charge of ${n(ah!)} Ah it counts ${n(Math.abs(error) * 100)} % too ${error > 0 ? 'much' : 'little'}, for it knows ${n(donorAh!)} Ah`,
      );
    if (cell !== undefined && donorMaxV !== undefined && donorMaxV > cell.maxV + 1e-9)
      said.push(`its limit of ${n(donorMaxV)} V lies above the cell’s ${n(cell.maxV)} V`);
    if (cell !== undefined && donorMinV !== undefined && donorMinV < cell.minV - 1e-9)
      said.push(`its limit of ${n(donorMinV)} V lies below the cell’s ${n(cell.minV)} V`);
    const count = Object.keys(read.at('sensors') ?? {}).length;
    if (donorSensors !== undefined && count > 0 && donorSensors !== count)
      said.push(`it expects ${n(donorSensors)} sensors; there are ${n(count)}`);
    const figure: Figure = {
      id: figureId('monitoring.donor', subject, 'chargeErrorFraction'),
      label: 'Donor monitor counts charge wrong by',
      unit: 'fraction',
      value: error,
      gaps: error !== null ? [] : [...gaps, ...unsaid],
      working:
        error === null
          ? []
          : [
              {
                symbol: 'e',
                label: 'Donor monitor counts charge wrong by',
                formula: 'Q/Q_d − 1',
                inputs: [
                  { symbol: 'Q', value: ah!, unit: 'Ah' },
                  {
                    symbol: 'Q_d',
                    value: donorAh!,
                    unit: 'Ah',
                    origin: { kind: 'document', path: 'sensing.donorAh' },
                  },
                ],
                value: error,
                unit: 'fraction',
                source: 'Capacity of this pack over that of the donor’s',
              },
            ],
    };
    return {
      figures: [figure],
      checks: [
        judge(
          monitoringRules.donor,
          [subject],
          [...gaps, ...unsaid],
          said.length > 0 ? `${said.join('; ')}.`.replace(/^./, (first) => first.toUpperCase()) : null,
          [
            { label: 'donor: cells', value: donorCells ?? 0, unit: '' },
            { label: 'cells', value: layout?.seriesCells ?? 0, unit: '' },
            {
              label: 'voltage off by',
              value: Math.abs((donorCells ?? 0) / (layout?.seriesCells ?? 1) - 1) * 100,
              unit: '%',
            },
            { label: 'donor: capacity', value: donorAh ?? 0, unit: 'Ah' },
            { label: 'capacity', value: ah ?? 0, unit: 'Ah' },
            { label: 'counts wrong by', value: Math.abs(error ?? 0) * 100, unit: '%' },
            { label: 'donor: at most', value: donorMaxV ?? 0, unit: 'V' },
            { label: 'cell at most', value: cell?.maxV ?? 0, unit: 'V' },
            { label: 'donor: at least', value: donorMinV ?? 0, unit: 'V' },
            { label: 'cell at least', value: cell?.minV ?? 0, unit: 'V' },
            { label: 'donor: sensors', value: donorSensors ?? 0, unit: '' },
            { label: 'sensors', value: count, unit: '' },
          ],
          { also: ['sensing'] },
        ),
      ],
    };
  },
};
