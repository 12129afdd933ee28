import { figureId, type Figure, type FigureName, type Gap, type Origin } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { cabinDefaults, coolingDefaults, type CabinSettings } from '../../model/document';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../../model/step';
import { packLowest } from '../pack';
import { coldAirKgM3 } from '../vehicle';
import { airJPerKgK, dewPointC, saturatedKgPerKg } from './humid-air';
import { coolingRules } from './rules';

const n = formatNumber;

/** What somebody who sits gives off: heat that warms the air, W, and water, kg/h. Usual ones of the trade. */
const personW = 75;
const personKgPerH = 0.06;
/** Toughened glass of a screen: 5 mm over 1 W/mK. */
const glassM2KPerW = 0.005;
/** Below this share of what the cabin needs the heat that is typed makes the range too good. */
const saidShare = 0.8;

/** One line of what a figure is worked from. */
type Input = [symbol: string, value: number, unit: string, origin: Origin];

/** What heats the cabin at the lowest voltage of the pack, W; null: nothing is said to, or it is not known. */
function heaterOf(
  cabin: CabinSettings,
  read: Reader,
): { givesW: number | null; gaps: Gap[]; formula?: string; inputs?: Input[] } {
  const device = read.at('devices')[cabin.heater ?? ''];
  if (device === undefined)
    return {
      givesW: null,
      gaps: [{ kind: 'not-given', path: 'cabin.heater', label: 'what heats the cabin' }],
    };
  const { tag, kind, ratedPowerW, ratedVoltageV } = device;
  const at = `devices.${cabin.heater}`;
  if (ratedPowerW === undefined)
    return {
      givesW: null,
      gaps: [{ kind: 'not-given', path: `${at}.ratedPowerW`, label: `rated power of ${tag}` }],
    };
  const rated: Input = ['P_r', ratedPowerW, 'W', { kind: 'document', path: `${at}.ratedPowerW` }];
  if (kind !== 'heater' || ratedVoltageV === undefined)
    return { givesW: ratedPowerW, gaps: [], formula: 'P_r', inputs: [rated] };
  if (!(ratedVoltageV > 0))
    return {
      givesW: null,
      gaps: [
        {
          kind: 'invalid',
          path: `${at}.ratedVoltageV`,
          label: `rated voltage of ${tag}`,
          message: 'must be above 0',
        },
      ],
    };
  const lowest = read.figure(packLowest);
  if (lowest.value === null) return { givesW: null, gaps: gapsBehind(lowest) };
  // A plain resistance: by the square of the voltage.
  return {
    givesW: ratedPowerW * (lowest.value / ratedVoltageV) ** 2,
    gaps: [],
    formula: 'P_r·(V_min/V_r)²',
    inputs: [
      rated,
      ['V_min', lowest.value, 'V', { kind: 'figure', id: packLowest }],
      ['V_r', ratedVoltageV, 'V', { kind: 'document', path: `${at}.ratedVoltageV` }],
    ],
  };
}

/** The cabin in the coldest night: the heat it needs, what its heater reaches, and whether its screen stays clear. */
export const cabinStep: StepDefinition = {
  id: 'cooling.cabin',
  version: 1,
  subjects: ({ cabin }) => (cabin === undefined ? [] : ['cabin']),
  compute(subject, read) {
    const cabin = read.at('cabin')!;
    const coldC = read.at('cooling')?.coldC ?? coolingDefaults.coldC;
    const gaps: Gap[] = [];
    const field = (name: Exclude<keyof CabinSettings, 'heater'>, label: string, least = 0): number => {
      const value = cabin[name] ?? (cabinDefaults as Partial<CabinSettings>)[name];
      if (value === undefined) gaps.push({ kind: 'not-given', path: `cabin.${name}`, label });
      else if (!(value >= least) || (least > 0 && value === 0) || !Number.isFinite(value))
        gaps.push({
          kind: 'invalid',
          path: `cabin.${name}`,
          label,
          message: least > 0 ? 'must be above 0' : 'must be 0 or more',
        });
      return value ?? 0;
    };
    const above = (name: Exclude<keyof CabinSettings, 'heater'>, label: string) =>
      field(name, label, Number.MIN_VALUE);
    const wantedC = cabin.wantedC ?? cabinDefaults.wantedC;
    const glassM2 = field('glassM2', 'glass of the cabin');
    const glass = field('glassWPerM2K', 'what glass passes');
    const bodyM2 = field('bodyM2', 'walls of the cabin');
    const body = field('bodyWPerM2K', 'what walls pass');
    const freshM3PerH = above('freshM3PerH', 'fresh air of the cabin');
    const people = field('people', 'people in the cabin');
    const inside = above('insideWPerM2K', 'air on the screen');
    const outside = above('outsideWPerM2K', 'wind outside');
    const known = gaps.length === 0;

    const airKgPerH = coldAirKgM3(coldC) * freshM3PerH;
    const airWPerK = (airKgPerH / 3600) * airJPerKgK;
    const wPerK = glassM2 * glass + bodyM2 * body + airWPerK;
    const peopleW = people * personW;
    const neededW = Math.max(0, wPerK * (wantedC - coldC) - peopleW);
    const { givesW, gaps: heaterGaps, formula = '', inputs: heat = [] } = heaterOf(cabin, read);
    const all = [...gaps, ...heaterGaps];
    const reachesC = givesW === null || !known ? null : coldC + (givesW + peopleW) / wPerK;
    // A heater that could do more is turned down.
    const insideC = reachesC === null ? null : Math.min(wantedC, reachesC);
    const dewC = known ? dewPointC(saturatedKgPerKg(coldC) + (people * personKgPerH) / airKgPerH) : null;
    const screenC =
      insideC === null
        ? null
        : insideC - ((insideC - coldC) * (1 / inside)) / (1 / inside + glassM2KPerW + 1 / outside);
    const misted = screenC !== null && dewC !== null && dewC > screenC;
    const saidW = read.at('vehicle', 'cabinHeatW');

    const origin = (name: keyof CabinSettings): Origin => ({
      kind: cabin[name] === undefined ? 'default' : 'document',
      path: `cabin.${name}`,
    });
    const cold: Origin = {
      kind: read.at('cooling')?.coldC === undefined ? 'default' : 'document',
      path: 'cooling.coldC',
    };
    const figure = (
      name: FigureName<'cooling.cabin'>,
      [symbol, label, unit]: [string, string, string],
      value: number | null,
      because: Gap[],
      by: string,
      inputs: readonly Input[],
      source: string,
    ): Figure => ({
      id: figureId('cooling.cabin', subject, name),
      label,
      unit,
      value: because.length > 0 ? null : value,
      gaps: because,
      working:
        because.length > 0 || value === null
          ? []
          : [
              {
                symbol,
                label,
                formula: by,
                inputs: inputs.map(([of, number, as, from]) => ({
                  symbol: of,
                  value: number,
                  unit: as,
                  origin: from,
                })),
                value,
                unit,
                source,
              },
            ],
    });
    const own = (name: FigureName<'cooling.cabin'>): Origin => ({
      kind: 'figure',
      id: figureId('cooling.cabin', subject, name),
    });
    const trade: Origin = { kind: 'constant', source: 'usual of the trade' };
    return {
      figures: [
        figure(
          'wPerK',
          ['G', 'Cabin loses per kelvin', 'W/K'],
          wPerK,
          gaps,
          'A_g·U_g + A_b·U_b + ṁ·c_p',
          [
            ['A_g', glassM2, 'm²', origin('glassM2')],
            ['U_g', glass, 'W/m²K', origin('glassWPerM2K')],
            ['A_b', bodyM2, 'm²', origin('bodyM2')],
            ['U_b', body, 'W/m²K', origin('bodyWPerM2K')],
            ['ṁ', airKgPerH / 3600, 'kg/s', origin('freshM3PerH')],
            ['c_p', airJPerKgK, 'J/kgK', { kind: 'constant', source: 'dry air' }],
          ],
          'Walls, glass and fresh air',
        ),
        figure(
          'neededW',
          ['P_n', 'Heat the cabin needs', 'W'],
          neededW,
          gaps,
          'G·(T_w − T_c) − n·q',
          [
            ['G', wPerK, 'W/K', own('wPerK')],
            ['T_w', wantedC, '°C', origin('wantedC')],
            ['T_c', coldC, '°C', cold],
            ['n', people, '', origin('people')],
            ['q', personW, 'W', trade],
          ],
          'Balance of heat, standing in the coldest night',
        ),
        figure(
          'givesW',
          ['P_h', 'Its heater gives at the pack’s lowest', 'W'],
          givesW,
          heaterGaps,
          formula,
          heat,
          'Rated power; of a plain resistance by the square of the voltage',
        ),
        figure(
          'reachesC',
          ['T_i', 'Cabin reaches', '°C'],
          reachesC,
          all,
          'T_c + (P_h + n·q)/G',
          [
            ['T_c', coldC, '°C', cold],
            ['P_h', givesW ?? 0, 'W', own('givesW')],
            ['n', people, '', origin('people')],
            ['q', personW, 'W', trade],
            ['G', wPerK, 'W/K', own('wPerK')],
          ],
          'Balance of heat',
        ),
        figure(
          'screenC',
          ['T_s', 'Inside of the screen', '°C'],
          screenC,
          all,
          'T_i − (T_i − T_c)·(1/h_i)/(1/h_i + R_g + 1/h_o)',
          [
            ['T_i', insideC ?? 0, '°C', own('reachesC')],
            ['T_c', coldC, '°C', cold],
            ['h_i', inside, 'W/m²K', origin('insideWPerM2K')],
            ['R_g', glassM2KPerW, 'm²K/W', { kind: 'constant', source: '5 mm of glass' }],
            ['h_o', outside, 'W/m²K', origin('outsideWPerM2K')],
          ],
          'Single glass between two films of air',
        ),
        figure(
          'dewC',
          ['T_d', 'Its air mists below', '°C'],
          dewC,
          gaps,
          'T_d(w_s(T_c) + n·m/ṁ_h)',
          [
            ['T_c', coldC, '°C', cold],
            ['n', people, '', origin('people')],
            ['m', personKgPerH, 'kg/h', trade],
            ['ṁ_h', airKgPerH, 'kg/h', origin('freshM3PerH')],
          ],
          'Magnus formula (Sonntag 1990); outside air saturated',
        ),
      ],
      checks: [
        judge(
          coolingRules.cabinCold,
          [subject],
          all,
          reachesC !== null && reachesC < wantedC - 0.05
            ? `At ${formatQuantity(coldC, '°C')} the cabin reaches ${formatQuantity(reachesC, '°C')} with ${n(givesW!)} W; ${formatQuantity(wantedC, '°C')} are wanted, which takes ${n(neededW)} W.`
            : null,
          [
            { label: 'coldest night', value: coldC, unit: '°C' },
            { label: 'reaches', value: reachesC ?? 0, unit: '°C' },
            { label: 'heater gives', value: givesW ?? 0, unit: 'W' },
            { label: 'wanted', value: wantedC, unit: '°C' },
            { label: 'needed', value: neededW, unit: 'W' },
          ],
          { also: cabin.heater === undefined ? [] : [cabin.heater] },
        ),
        judge(
          coolingRules.mists,
          [subject],
          all,
          misted
            ? `At ${formatQuantity(coldC, '°C')} with ${n(people)} in it the cabin’s air mists below ${formatQuantity(dewC, '°C')}; the screen has ${formatQuantity(screenC, '°C')} inside.`
            : null,
          [
            { label: 'coldest night', value: coldC, unit: '°C' },
            { label: 'people', value: people, unit: '' },
            { label: 'mists below', value: dewC ?? 0, unit: '°C' },
            { label: 'inside of the screen', value: screenC ?? 0, unit: '°C' },
          ],
        ),
        judge(
          coolingRules.cabinSaid,
          [subject],
          [
            ...gaps,
            ...(saidW === undefined
              ? [{ kind: 'not-given' as const, path: 'vehicle.cabinHeatW', label: 'cabin heat in winter' }]
              : []),
          ],
          saidW !== undefined && known && saidW < saidShare * neededW
            ? `${n(saidW)} W of cabin heat are said in the Brief; the cabin needs ${n(neededW)} W.`
            : null,
          [
            { label: 'said', value: saidW ?? 0, unit: 'W' },
            { label: 'needed', value: neededW, unit: 'W' },
          ],
          { also: ['vehicle'] },
        ),
      ],
    };
  },
};
