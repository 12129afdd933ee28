import { packDefaults } from '../../model/document';
import { figureId, type Figure, type Gap, type FigureId } from '../../ground/figure';
import { interpolate } from '../../ground/math';
import { gapsBehind, type Reader, type StepDefinition } from '../../model/step';
import { readPackLayout } from './layout';
import { inSeries, standsForAll } from './lead-step';

/** Links of one string as seen at the pack's terminals, Ω. */
export const linksAtPack = figureId('pack.source', 'pack', 'linksOhm');
/** Cells and links of one string, Ω. */
export const stringResistance = figureId('pack.source', 'pack', 'stringOhm');
/** The pack’s resistance warm, for the largest currents, and cold, for the smallest, Ω. */
export const packWarm = figureId('pack.temperature', 'pack', 'warmOhm');
export const packCold = figureId('pack.temperature', 'pack', 'coldOhm');
/** Pack resistance warm and cold over the one given, where the design does not say. */
export const resistanceFactors = {
  warm: packDefaults.warmResistanceFactor,
  cold: packDefaults.coldResistanceFactor,
};
/** The pack at rest at the bottom of its charge window, V. */
export const packLowest = figureId('pack.source', 'pack', 'voltageAtLowV');

/**
 * What the pack is as a source, beside the figures of the calculator: the links of one string, which the strings side by
 * side share; the resistance of one string; its voltage at rest at the bottom of the charge window. Resistances of pack
 * and string, warm and cold, are computed in this file and in `pack.pack` alone.
 */
export const sourceStep: StepDefinition = {
  id: 'pack.source',
  version: 1,
  subjects: () => ['pack'],
  compute(_subject, read) {
    const { linkResistanceOhm, socLowFraction } = read.at('pack');
    const { layout, gaps } = readPackLayout(read);
    const negative: Gap[] =
      linkResistanceOhm !== undefined && !(linkResistanceOhm >= 0)
        ? [
            {
              kind: 'invalid',
              path: 'pack.linkResistanceOhm',
              label: 'links of one string',
              message: 'must be 0 or more',
            },
          ]
        : [];
    const noWindow: Gap[] =
      socLowFraction === undefined
        ? [{ kind: 'not-given', path: 'pack.socLowFraction', label: 'bottom of the charge window' }]
        : socLowFraction >= 0 && socLowFraction <= 1
          ? []
          : [
              {
                kind: 'invalid',
                path: 'pack.socLowFraction',
                label: 'bottom of the charge window',
                message: 'must lie between 0 and 100 %',
              },
            ];
    const figure = (
      id: FigureId,
      label: string,
      unit: string,
      missing: Gap[],
      make: (known: NonNullable<typeof layout>) => Omit<Figure['working'][number], 'label' | 'unit'>,
    ): Figure => {
      if (layout === null || missing.length > 0)
        return { id, label, unit, value: null, gaps: [...gaps, ...missing], working: [] };
      const step = { ...make(layout), label, unit };
      return { id, label, unit, value: step.value, gaps: [], working: [step] };
    };
    const links = {
      symbol: 'R_l',
      label: 'links of one string',
      value: linkResistanceOhm ?? 0,
      unit: 'Ω',
      origin: {
        kind: linkResistanceOhm === undefined ? ('default' as const) : ('document' as const),
        path: 'pack.linkResistanceOhm',
      },
    };
    const series = inSeries(read);
    const cellsOhm =
      layout === null
        ? 0
        : (layout.seriesCells * layout.part.data.cell.resistanceOhm) / layout.part.data.cellsInParallel +
          (linkResistanceOhm ?? 0);
    const extraOhm = standsForAll(cellsOhm, [...series.strings.values()]);
    const extra = (symbol: string, label: string, value: number) => ({
      symbol,
      label,
      value,
      unit: 'Ω',
      origin: { kind: 'document' as const, path: 'pack.leads' },
    });
    const inString = extra('R_x', 'cables and disconnect of one string', extraOhm);
    const toMains = extra('R_m', 'cables from where strings meet to the mains', series.packOhm);
    const strings = (count: number) => ({
      symbol: 's',
      label: 'strings side by side',
      value: count,
      unit: '',
      origin: { kind: 'document' as const, path: 'strings' },
    });
    return {
      figures: [
        figure(linksAtPack, 'Links, as seen at the pack’s terminals', 'Ω', negative, (known) => ({
          symbol: 'R_link',
          formula: '(R_l + R_x)/s + R_m',
          inputs: [links, inString, strings(known.strings), toMains],
          value: ((linkResistanceOhm ?? 0) + extraOhm) / known.strings + series.packOhm,
          source: 'Each string has its own links and cables, and the strings lie in parallel',
        })),
        figure(stringResistance, 'Resistance of one string', 'Ω', negative, ({ key, part, seriesCells }) => ({
          symbol: 'R_s',
          formula: 'n·r/p + R_l + R_x',
          inputs: [
            {
              symbol: 'n',
              label: 'cells in series',
              value: seriesCells,
              unit: '',
              origin: { kind: 'document', path: 'strings' },
            },
            {
              symbol: 'r',
              value: part.data.cell.resistanceOhm,
              unit: 'Ω',
              origin: { kind: 'part', key, path: 'cell.resistanceOhm' },
            },
            {
              symbol: 'p',
              label: 'cells side by side in a module',
              value: part.data.cellsInParallel,
              unit: '',
              origin: { kind: 'part', key, path: 'cellsInParallel' },
            },
            links,
            inString,
          ],
          value: cellsOhm + extraOhm,
          source: 'Equal cells in series and parallel',
        })),
        figure(
          packLowest,
          'Pack voltage at the bottom of the window',
          'V',
          noWindow,
          ({ key, part, seriesCells }) => {
            const cellV = interpolate(part.data.cell.ocvTable, socLowFraction!);
            return {
              symbol: 'U_lo',
              formula: 'n·u_lo',
              inputs: [
                {
                  symbol: 'n',
                  label: 'cells in series',
                  value: seriesCells,
                  unit: '',
                  origin: { kind: 'document', path: 'strings' },
                },
                {
                  symbol: 'u_lo',
                  label: `cell at ${Math.round(socLowFraction! * 100)} %`,
                  value: cellV,
                  unit: 'V',
                  origin: { kind: 'part', key, path: 'cell.ocvTable' },
                },
              ],
              value: seriesCells * cellV,
              source: 'Open-circuit voltage at the bottom of the charge window',
            };
          },
        ),
      ],
      checks: [],
    };
  },
};

/** The pack’s resistance warm and cold: what the largest and the smallest fault flow through. */
export const temperatureStep: StepDefinition = {
  id: 'pack.temperature',
  version: 1,
  subjects: () => ['pack'],
  compute: (_subject, read) => ({
    figures: [
      atTemperature(read, packWarm, 'warm', 'warmResistanceFactor'),
      atTemperature(read, packCold, 'cold', 'coldResistanceFactor'),
    ],
    checks: [],
  }),
};

function atTemperature(
  read: Reader,
  id: FigureId,
  which: 'warm' | 'cold',
  field: 'warmResistanceFactor' | 'coldResistanceFactor',
): Figure {
  const resistance = read.figure(figureId('pack.pack', 'pack', 'resistanceOhm'));
  const given = read.at('pack', field);
  const factor = given ?? resistanceFactors[which];
  const path = `pack.${field}`;
  const label = `Pack resistance, ${which}`;
  const gaps: Gap[] = [
    ...(resistance.value === null ? gapsBehind(resistance) : []),
    ...(factor > 0
      ? []
      : [{ kind: 'invalid' as const, path, label: `pack ${which}, factor`, message: 'must be above 0' }]),
  ];
  if (gaps.length > 0) return { id, label, unit: 'Ω', value: null, gaps, working: [] };
  const value = resistance.value! * factor;
  return {
    id,
    label,
    unit: 'Ω',
    value,
    gaps: [],
    working: [
      {
        symbol: `R_${which[0]!}`,
        label,
        formula: 'R·f',
        inputs: [
          { symbol: 'R', value: resistance.value!, unit: 'Ω', origin: { kind: 'figure', id: resistance.id } },
          {
            symbol: 'f',
            value: factor,
            unit: '',
            origin: { kind: given === undefined ? 'default' : 'document', path },
          },
        ],
        value,
        unit: 'Ω',
        source: 'Cells have less resistance warm and more of it cold',
      },
    ],
  };
}
