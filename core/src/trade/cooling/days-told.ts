import { figureId, type Check, type Figure, type FigureName, type Gap } from '../../ground/figure';
import { formatQuantity } from '../../ground/quantity';
import { coolingDefaults, type Id } from '../../model/document';
import { gapsBehind, judge, type Reader } from '../../model/step';
import { readsCase } from './cases';
import { dayAfterDay, type DayAfterDay, type Ran, type Stretch } from './days';
import type { PackThermalInput } from './pack-thermal';
import { coolingRules } from './rules';

/** What warms the pack in the night, where it is charged then. */
function homeCharge(read: Reader): { stretch: Stretch | null; gaps: Gap[] } {
  if (!readsCase(read, 'home')) return { stretch: null, gaps: [] };
  const heat = read.figure(figureId('cooling.charge', 'home', 'packHeatW'));
  const minutes = read.figure(figureId('cooling.charge', 'home', 'minutes'));
  const gaps = [heat, minutes].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : []));
  return {
    stretch: gaps.length > 0 ? null : { minutes: minutes.value!, packHeatW: heat.value! },
    gaps,
  };
}

interface FirstDay {
  subject: Id;
  read: Reader;
  drive: Ran & { input: PackThermalInput };
  /** The fast charge after it; null: none is asked. */
  charge: (Ran & Stretch) | null;
  maxC: number;
  /** By how much the hottest plate was above the pack as a whole on the first day, K. */
  aboveMeanK: number;
  run: (input: PackThermalInput) => Ran;
}

/** The days after the first one: how warm the pack is in the morning, and what it reaches in the end. */
export function daysTold({ subject, read, drive, charge, maxC, aboveMeanK, run }: FirstDay): {
  days: DayAfterDay | null;
  figures: Figure[];
  check: Check;
} {
  const cooling = read.at('cooling') ?? {};
  const nightC = cooling.nightC ?? coolingDefaults.nightC;
  const nightH = cooling.nightH ?? coolingDefaults.nightH;
  const home = homeCharge(read);
  const missing = [...(charge === null ? drive.gaps : charge.gaps), ...home.gaps];
  const { days, gaps } =
    drive.result === null || missing.length > 0
      ? { days: null, gaps: missing }
      : dayAfterDay(
          {
            drive: drive.input,
            resistanceOhm: drive.input.resistanceOhm,
            fast: charge,
            home: home.stretch,
            nightC,
            nightH,
            first: { drive: drive.result, charge: charge?.result ?? null },
          },
          run,
        );
  const origin = (field: 'nightC' | 'nightH') => ({
    kind: cooling[field] === undefined ? ('default' as const) : ('document' as const),
    path: `cooling.${field}`,
  });
  const told = (
    name: FigureName<'cooling.pack'>,
    label: string,
    formula: string,
    value: number | null,
  ): Figure => ({
    id: figureId('cooling.pack', subject, name),
    label,
    unit: '°C',
    value,
    gaps,
    working:
      value === null
        ? []
        : [
            {
              symbol: 'T',
              label,
              formula,
              inputs: [
                { symbol: 'T_n', label: 'night', value: nightC, unit: '°C', origin: origin('nightC') },
                { symbol: 't_n', label: 'stands for', value: nightH, unit: 'h', origin: origin('nightH') },
                ...(name === 'settledMaxC' && aboveMeanK > 0
                  ? [{ symbol: 'ΔT_p', label: 'hottest plate above the whole', value: aboveMeanK, unit: 'K' }]
                  : []),
                { symbol: 'UA', label: 'walls', value: drive.input.uaToAmbientWPerK, unit: 'W/K' },
                {
                  symbol: 'n',
                  label: days!.settles
                    ? 'days until mornings repeat'
                    : 'days followed, and mornings still change',
                  value: days!.morningsC.length,
                  unit: '',
                },
              ],
              value,
              unit: '°C',
              source: 'One lump over drives, charges and the night, day after day until mornings repeat',
            },
          ],
  });
  const firstMaxC = Math.max(drive.result?.maxC ?? -Infinity, charge?.result?.maxC ?? -Infinity) + aboveMeanK;
  const settledMaxC = days === null ? null : days.maxC + aboveMeanK;
  return {
    days,
    figures: [
      told('morningC', 'Pack the next morning', 'T(t_n)', days?.firstNight.endC ?? null),
      told(
        'settledMaxC',
        'Pack at most, day after day',
        aboveMeanK > 0 ? 'max T + ΔT_p' : 'max T',
        settledMaxC,
      ),
    ],
    check: judge(
      coolingRules.daysHot,
      [subject],
      gaps,
      // What is too hot on the first day is said of that day.
      days !== null && firstMaxC <= maxC && settledMaxC! > maxC
        ? `The first day it stays at ${formatQuantity(firstMaxC, '°C')}; nights at ${formatQuantity(nightC, '°C')} cool it too little, and after ${days.morningsC.length} days it reaches ${formatQuantity(settledMaxC!, '°C')}. Cells may get ${formatQuantity(maxC, '°C')}.`
        : null,
      [
        {
          label: 'pack, on the first day',
          value: Number.isFinite(firstMaxC) ? firstMaxC : 0,
          unit: '°C',
        },
        { label: 'nights', value: nightC, unit: '°C' },
        { label: 'days', value: days?.morningsC.length ?? 0, unit: '' },
        { label: 'pack, day after day', value: settledMaxC ?? 0, unit: '°C' },
        { label: 'cells at most', value: maxC, unit: '°C' },
      ],
    ),
  };
}
