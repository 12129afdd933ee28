import { figureId, type Figure, type FigureName, type Gap } from '../../ground/figure';
import type { Id } from '../../model/document';
import { pumpPoints } from './hydraulic';
import { platesAlike } from './loop-answer';
import type { LoopState } from './loop-state';

const hydraulicSourceOf = (name: string): string =>
  name === 'flowLPerMin' || name === 'imbalanceFraction'
    ? 'Darcy–Weisbach, pump curves, continuity at every node'
    : 'Flows and temperatures of the loop brought together, the hottest of the cases';

/** The figures of a loop, each with its working or what is missing. */
export function loopFigures(
  subject: Id,
  {
    pieces,
    elements,
    airC,
    noPump,
    cold,
    loads,
    pumpFlow,
    share,
    worst,
    cooled,
    hottestC,
    byCore,
    hottestBestC,
    platesC,
    cellsC,
    packUaWPerK,
    coldC,
    isWarmed,
    coldWPerK,
    standing,
    isUncooled,
    ofAllCases,
  }: LoopState,
): Figure[] {
  const told = (
    name: FigureName<'cooling.loop'>,
    label: string,
    unit: string,
    value: number | null,
    missing: Gap[],
  ): Figure => ({
    id: figureId('cooling.loop', subject, name),
    label,
    unit,
    value,
    gaps: value !== null ? [] : missing.length > 0 ? missing : [{ kind: 'never', label: `${label}: none` }],
    working: value === null ? [] : workingOf(name, label, unit, value),
  });
  function workingOf(
    name: FigureName<'cooling.loop'>,
    label: string,
    unit: string,
    value: number,
  ): Figure['working'] {
    const line = (
      formula: string,
      inputs: { symbol: string; value: number; unit: string }[],
      source: string,
    ) => [{ symbol: name === 'flowLPerMin' ? 'Q' : 'x', label, formula, inputs, value, unit, source }];
    const q = { symbol: 'Q', value: pumpFlow ?? 0, unit: 'L/min' };
    switch (name) {
      case 'headKPa':
        return line('curve(Q)', [q], 'Pump maker’s curve at the flow of the loop');
      case 'shareFraction':
        return line(
          '1 − bypassed/Q',
          [{ symbol: 'bypassed', value: (1 - value) * (pumpFlow ?? 0), unit: 'L/min' }, q],
          'What comes back to the pump without having been through a plate or jacket',
        );
      case 'coldWPerK':
        return line(
          'Σ C·(1 − e^(−1/(R·C)))',
          [
            { symbol: 'n', value: cooled.length, unit: 'plates' },
            { symbol: 'T', value: coldC, unit: '°C' },
          ],
          'As from cells to coolant, with the flow that coolant of that temperature has',
        );
      case 'packUaWPerK':
        return line(
          'Σ C·(1 − e^(−1/(R·C)))',
          [{ symbol: 'n', value: cooled.length, unit: 'plates' }],
          'Filler and plate in series to coolant at its inlet; plates side by side, each with its flow',
        );
      default:
        return [
          {
            symbol: 'x',
            label,
            formula: 'balance of the loop',
            inputs: [
              {
                symbol: 'T_air',
                value: airC,
                unit: '°C',
                origin: { kind: 'document', path: 'cooling.hotC' },
              },
              q,
            ],
            value,
            unit,
            source: hydraulicSourceOf(name),
            ...(cold !== null && {
              solver: {
                method: 'Newton steps on the flows of the loops',
                iterations: cold.iterations,
                residual: cold.residualKPa,
                residualUnit: 'kPa',
              },
            }),
          },
        ];
    }
  }
  const groups = platesAlike(pieces).length > 0;
  return [
    told('flowLPerMin', 'Flow of the pump', 'L/min', pumpFlow, noPump),
    told(
      'headKPa',
      'Head of the pump',
      'kPa',
      cold === null ? null : pumpPoints({ elements }, cold.flows)[0]!.headKPa,
      noPump,
    ),
    ...(loads.length === 0
      ? []
      : [
          told(
            'shareFraction',
            'Of the pump’s flow through what it serves',
            'fraction',
            share,
            cold === null ? noPump : [],
          ),
        ]),
    ...(groups
      ? [
          told(
            'imbalanceFraction',
            'Largest imbalance of like plates',
            'fraction',
            worst,
            cold === null ? noPump : [],
          ),
        ]
      : []),
    told('hottestC', 'Hottest coolant', '°C', ofAllCases(hottestC), standing),
    ...(byCore.length === 0
      ? []
      : [
          told(
            'hottestBestC',
            'Hottest coolant, were the core as good as it may be',
            '°C',
            ofAllCases(hottestBestC),
            standing,
          ),
        ]),
    ...(cooled.length === 0
      ? []
      : [
          told('platesC', 'Hottest coolant that comes to cells', '°C', ofAllCases(platesC), standing),
          told(
            'cellsC',
            'Hottest cells in the long run',
            '°C',
            isUncooled ? null : ofAllCases(cellsC),
            standing,
          ),
          told('packUaWPerK', 'From cells to coolant', 'W/K', packUaWPerK, noPump),
          ...(isWarmed
            ? [told('coldWPerK', 'From coolant to cells, coldest night', 'W/K', coldWPerK, noPump)]
            : []),
        ]),
  ];
}
