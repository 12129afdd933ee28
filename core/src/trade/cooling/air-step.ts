import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { boxDefaults, coolingDefaults, occupied, type Design, type Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { cellLimits } from '../charging';
import { readPackLayout } from '../pack';
import { caseNames, coolingCases, demandOf, readsCase, runsIn, type CoolingCase } from './cases';
import { coolingRules } from './rules';

/** Heat that air takes up, J/kgK. */
export const airJPerKgK = 1006;

/** Boxes of modules that a fan blows outside air through. */
export const blown = (design: Pick<Design, 'boxes' | 'modules'>): Id[] =>
  occupied(design).filter((id) => design.boxes[id]!.fan !== undefined);

interface AirInCase {
  at: CoolingCase;
  heatW: number;
}

/**
 * A box through which a fan blows outside air: how much, and how warm its cells settle in the worst cases.
 *
 * Source: faces of one temperature in a stream of air, UA = C·(1 − exp(−h·A/C)) over the air that comes in; what goes through
 * the walls is left out, on the warm side.
 */
export const airStep: StepDefinition = {
  id: 'cooling.air',
  version: 1,
  subjects: (design) => (design.cooling === undefined ? [] : blown(design)),
  compute(subject, read) {
    const box = read.at('boxes', subject)!;
    const { tag } = box;
    const at = `boxes.${subject}`;
    const cooling = read.at('cooling') ?? {};
    const inC = cooling.hotC ?? coolingDefaults.hotC;
    const { layout } = readPackLayout(read);
    const { maxC } = cellLimits(cooling, layout?.part.data.chemistry);
    const airGaps: Gap[] = [];
    const airKgPerS = airOf(box, at, read, airGaps);
    const areaGaps: Gap[] = [];
    const above = (value: number | undefined, field: string, label: string): number | null => {
      if (value !== undefined && value > 0) return value;
      const where = { path: `${at}.${field}`, label: `${label} of ${tag}` };
      areaGaps.push(
        value === undefined
          ? { kind: 'not-given', ...where }
          : { kind: 'invalid', ...where, message: 'must be above 0' },
      );
      return null;
    };
    const areaM2 = above(box.airAreaM2, 'airAreaM2', 'faces of modules in the stream');
    const film = above(
      box.airFilmWPerM2K ?? boxDefaults.airFilmWPerM2K,
      'airFilmWPerM2K',
      'heat from faces to air',
    );
    const flowWPerK = airKgPerS === null ? null : airKgPerS * airJPerKgK;
    const uaWPerK =
      flowWPerK === null || areaM2 === null || film === null
        ? null
        : flowWPerK * -Math.expm1((-film * areaM2) / flowWPerK);

    const caseGaps: Gap[] = [];
    const share = shareOf(subject, read);
    // Where its fan is off nothing is computed that cools its cells.
    const stillGaps: Gap[] = [];
    const known: AirInCase[] = coolingCases
      .filter((one) => readsCase(read, one))
      .flatMap((one) => {
        const { packHeatW, gaps } = demandOf(read, one);
        if (!runsIn(box.fanSwitched, one)) {
          if (packHeatW !== 0 && share > 0)
            stillGaps.push({ kind: 'never', label: `air in ${tag}, ${caseNames[one]}: its fan is off` });
          return [];
        }
        if (packHeatW === null) caseGaps.push(...gaps);
        return packHeatW === null ? [] : [{ at: one, heatW: packHeatW * share }];
      });
    const worst = known.reduce<AirInCase | null>(
      (top, one) => (top === null || one.heatW > top.heatW ? one : top),
      null,
    );
    const heatW = worst?.heatW ?? null;
    const noCase: Gap[] =
      caseGaps.length > 0
        ? caseGaps
        : heatW === null
          ? [{ kind: 'never', label: `a fan of ${tag} that runs` }]
          : [];
    const outC = heatW === null || flowWPerK === null ? null : inC + heatW / flowWPerK;
    const cellsC = heatW === null || uaWPerK === null ? null : inC + heatW / uaWPerK;
    /** The warmest of all cases is known once each of them is. */
    const ofAllCases = (value: number | null) => (caseGaps.length > 0 ? null : value);

    const heat = {
      symbol: 'Q',
      value: heatW ?? 0,
      unit: 'W',
      ...(worst !== null && { label: caseNames[worst.at] }),
    };
    const outside = {
      symbol: 'T_a',
      value: inC,
      unit: '°C',
      origin: {
        kind: cooling.hotC === undefined ? ('default' as const) : ('document' as const),
        path: 'cooling.hotC',
      },
    };
    const flow = { symbol: 'C', value: flowWPerK ?? 0, unit: 'W/K' };
    const told = (
      name: 'airKgPerS' | 'airWPerK' | 'outC' | 'cellsC',
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      formula: string,
      inputs: Figure['working'][number]['inputs'],
      limit?: number,
    ): Figure => ({
      id: figureId('cooling.air', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? gaps : [],
      working:
        value === null
          ? []
          : [
              {
                symbol: 'x',
                label,
                formula,
                inputs,
                value,
                unit,
                source: 'Faces of one temperature in a stream of air',
              },
            ],
      ...(limit !== undefined && { limit: { max: limit } }),
    });
    const shareIn = {
      symbol: 'f',
      value: box.airShareFraction ?? boxDefaults.airShareFraction,
      unit: 'fraction',
      origin: {
        kind: box.airShareFraction === undefined ? ('default' as const) : ('document' as const),
        path: `${at}.airShareFraction`,
      },
    };
    const figures = [
      told(
        'airKgPerS',
        'Air through the box',
        'kg/s',
        airKgPerS,
        airGaps,
        box.airKgPerS === undefined ? 'f·ṁ_open' : 'as measured',
        box.airKgPerS === undefined ? [shareIn] : [],
      ),
      told(
        'airWPerK',
        'From its cells to the air',
        'W/K',
        uaWPerK,
        [...airGaps, ...areaGaps],
        'C·(1 − e^(−h·A/C))',
        [
          flow,
          {
            symbol: 'h',
            value: film ?? 0,
            unit: 'W/m²K',
            origin: {
              kind: box.airFilmWPerM2K === undefined ? ('default' as const) : ('document' as const),
              path: `${at}.airFilmWPerM2K`,
            },
          },
          {
            symbol: 'A',
            value: areaM2 ?? 0,
            unit: 'm²',
            origin: { kind: 'document', path: `${at}.airAreaM2` },
          },
        ],
      ),
      told('outC', 'Air that leaves it', '°C', ofAllCases(outC), [...airGaps, ...noCase], 'T_a + Q/C', [
        outside,
        heat,
        flow,
      ]),
      told(
        'cellsC',
        'Its cells settle at',
        '°C',
        ofAllCases(cellsC),
        [...airGaps, ...areaGaps, ...noCase],
        'T_a + Q/UA',
        [outside, heat, { symbol: 'UA', value: uaWPerK ?? 0, unit: 'W/K' }],
        maxC,
      ),
    ];
    const isHot = cellsC !== null && cellsC > maxC;
    return {
      figures,
      checks: [
        judge(
          coolingRules.cellsHot,
          [subject],
          // What is too hot in one case is, whatever is missing of another.
          isHot
            ? []
            : [...airGaps, ...areaGaps, ...noCase.filter(({ kind }) => kind !== 'never'), ...stillGaps],
          isHot
            ? `In ${tag} cells would settle at ${formatQuantity(cellsC, '°C')} (${caseNames[worst!.at]}, ${formatNumber(heatW!)} W in ${formatNumber(airKgPerS!)} kg/s of air); they may get ${formatQuantity(maxC, '°C')}.`
            : null,
          [
            { label: 'cells', value: cellsC ?? 0, unit: '°C' },
            { label: 'heat', value: heatW ?? 0, unit: 'W' },
            { label: 'air', value: airKgPerS ?? 0, unit: 'kg/s' },
            { label: 'cells at most', value: maxC, unit: '°C' },
          ],
          { parts: [box.fan!] },
        ),
      ],
    };
  },
};

/** Air through a box, kg/s: as measured, or what its fan moves against filter and gaps. */
function airOf(box: Design['boxes'][string], at: string, read: Reader, gaps: Gap[]): number | null {
  const { tag, airKgPerS, airShareFraction = boxDefaults.airShareFraction, fan: key = '' } = box;
  const invalid = (field: string, label: string, message: string) => {
    gaps.push({ kind: 'invalid', path: `${at}.${field}`, label: `${label} of ${tag}`, message });
    return null;
  };
  if (airKgPerS !== undefined)
    return airKgPerS > 0 ? airKgPerS : invalid('airKgPerS', 'measured air', 'must be above 0');
  const fan = read.at('parts', key);
  if (fan?.kind !== 'fan') {
    gaps.push({ kind: 'not-given', path: `${at}.fan`, label: `kind of the fan of ${tag}` });
    return null;
  }
  if (!(airShareFraction > 0 && airShareFraction <= 1))
    return invalid('airShareFraction', 'share of the open air', 'must lie between 0 and 100 %');
  return fan.data.airKgPerS > 0
    ? fan.data.airKgPerS * airShareFraction
    : invalid('fan', 'fan', 'moves no air by its sheet');
}

/** Share of the pack’s heat that is given off in a box to its air: of modules on no plate. */
function shareOf(box: Id, read: Reader): number {
  const modules = read.at('modules');
  const onPlate = new Set(
    Object.values(read.at('plumbing') ?? {}).flatMap(({ kind, modules: own = [] }) =>
      kind === 'plate' ? own : [],
    ),
  );
  const all = Object.keys(modules);
  return all.filter((id) => modules[id]!.box === box && !onPlate.has(id)).length / all.length;
}
