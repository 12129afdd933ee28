import { figureId, type Figure, type FigureName, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { coolingDefaults } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { readPackLayout } from '../pack';
import { cellLimits, packTakesA } from './cell-limits';
import { chargeCurve, type ChargeCurveInput, type ChargeCurveResult } from './charge-curve';
import { chargeRules } from './rules';
import { stationLimits } from './station-limits';
import { warmFirst } from './warm-first';
import { curveInputs } from './curve-inputs';
import { mainsLimits } from './mains-limits';

const n = formatNumber;

/** A charge in the coldest night: warmed first where cells are too cold, then held to what they take. */
export const winterStep: StepDefinition = {
  id: 'charge.winter',
  version: 1,
  subjects: ({ supplies = {}, cooling }) => (cooling === undefined ? [] : Object.keys(supplies)),
  compute(subject, read) {
    const supply = read.at('supplies')![subject]!;
    const { tag } = supply;
    const cooling = read.at('cooling');
    const coldC = cooling?.coldC ?? coolingDefaults.coldC;
    const { layout } = readPackLayout(read);
    const { chargeMinC } = cellLimits(cooling, layout?.part.data.chemistry);
    const atC = Math.max(coldC, chargeMinC);
    const takesA = layout === null ? null : packTakesA(layout.part.data, layout.strings, atC);
    const isStation = supply.kind === 'station';
    const station = isStation ? stationLimits(subject, read) : null;
    const mains = isStation ? null : mainsLimits(subject, read);
    const gaps = station?.gaps ?? mains!.gaps;
    const least = station?.limits.reduce((low, one) => Math.min(low, one.currentA), Infinity) ?? Infinity;
    const offered =
      station !== null
        ? station.gaps.length > 0
          ? null
          : { maxW: station.maxW, maxA: least, maxV: station.maxV }
        : mains!.limits === null
          ? null
          : { maxW: mains!.limits.maxW, maxA: mains!.limits.maxA, maxV: mains!.limits.maxV };
    const inputs = curveInputs(read, supply, subject, {
      maxW: offered?.maxW ?? null,
      maxA: offered === null ? null : takesA === null ? offered.maxA : Math.min(offered.maxA, takesA),
      maxV: offered?.maxV ?? 1,
    });
    inputs.missing(...gaps);
    if (takesA === 0) inputs.missing({ kind: 'never', label: `cells take nothing at ${n(atC)} °C` });
    const run = inputs.run<ChargeCurveInput, ChargeCurveResult>(chargeCurve);

    // Colder than they are charged: warmed until they are not, by what the coldest box takes.
    const modules = read.at('modules');
    const boxes = [...new Set(Object.values(modules).flatMap(({ box }) => (box === undefined ? [] : [box])))];
    const first =
      coldC >= chargeMinC
        ? null
        : warmFirst(read, boxes, {
            isStation,
            offeredW: offered?.maxW ?? null,
            riseK: chargeMinC - coldC,
          });
    const noBoxes: Gap[] =
      first !== null && boxes.length === 0
        ? [{ kind: 'not-given', path: 'modules', label: 'boxes of the modules' }]
        : [];
    const cold: Gap[] = [
      ...noBoxes,
      ...(first?.gaps ?? []),
      ...(first ?? { cold: [] }).cold.map((one): Gap => ({
        kind: 'never',
        label: `${one.tag} never gets warm enough at ${tag}`,
      })),
    ];
    const warmMinutes = cold.length > 0 ? null : (first?.minutes ?? 0);
    const minutes = run.result === null || warmMinutes === null ? null : run.result.minutes + warmMinutes;
    const told = (
      name: FigureName<'charge.winter'>,
      label: string,
      unit: string,
      value: number | null,
      own: Gap[],
      formula: string,
      parts: [string, number, string][],
    ): Figure => ({
      id: figureId('charge.winter', subject, name),
      label,
      unit,
      value,
      gaps: value !== null ? [] : own.length > 0 ? own : [{ kind: 'never', label: `${label}: never` }],
      working:
        value === null
          ? []
          : [
              {
                symbol: 'x',
                label,
                formula,
                inputs: parts.map(([symbol, one, of]) => ({ symbol, value: one, unit: of })),
                value,
                unit,
                source: 'Coldest night that is given; cells at the temperature from which they are charged',
              },
            ],
    });
    // What the supply offers is told once, by its own step.
    const offer = isStation ? null : read.figure(figureId('charge.supply', subject, 'offeredA'));
    const offeredA = offer === null ? least : (offer.value ?? 0);
    const knows = layout?.part.data.chargeOverC !== undefined;
    const asks = read.at('limits')?.chargeByTemperature === true;
    return {
      figures: [
        told(
          'minutes',
          `Time at ${tag}, coldest night`,
          'min',
          minutes,
          [...run.gaps, ...cold],
          't_warm + t',
          [
            ['t_warm', warmMinutes ?? 0, 'min'],
            ['t', run.result?.minutes ?? 0, 'min'],
          ],
        ),
        told('warmMinutes', `Warming first at ${tag}`, 'min', warmMinutes, cold, 'max(t_box)', [
          ['t_box', warmMinutes ?? 0, 'min'],
        ]),
        told(
          'takesA',
          `Cells take in the cold at ${tag}`,
          'A',
          takesA,
          layout === null
            ? [{ kind: 'not-given', path: 'modules', label: 'modules' }]
            : [
                {
                  kind: 'not-given',
                  path: `parts.${layout.key}`,
                  label: `charging current of ${layout.part.label}`,
                },
              ],
          'N·I(T)',
          [
            ['N', layout?.strings ?? 0, ''],
            ['T', atC, '°C'],
          ],
        ),
      ],
      checks: [
        judge(
          chargeRules.warmSupply,
          [subject],
          // What the mains would warm stays cold at a station, whatever else is known of it.
          first?.cold.some(({ ofMains }) => ofMains) === true
            ? []
            : [...noBoxes, ...(first?.gaps ?? []), ...gaps],
          first !== null && first.cold.length > 0
            ? first.cold
                .map((one) =>
                  one.ofMains
                    ? `The heater of ${one.tag} is fed by the mains, and ${tag} brings none: in the coldest night, ${n(coldC)} °C, it stays too cold to charge there.`
                    : `At ${tag} the heaters get ${n(first.givenW)} W of ${n(first.askedW)} W: in the coldest night, ${n(coldC)} °C, ${one.tag} stays too cold to charge.`,
                )
                .join(' ')
            : null,
          [
            { label: 'coldest night', value: coldC, unit: '°C' },
            { label: 'heaters ask', value: first?.askedW ?? 0, unit: 'W' },
            { label: 'heaters get', value: first?.givenW ?? 0, unit: 'W' },
            // Of each box by itself: what was accepted for one holds for no other.
            ...(first?.cold ?? []).map((one) => ({ label: `${one.tag} stays too cold`, value: 1, unit: '' })),
          ],
          { also: boxes },
        ),
        judge(
          chargeRules.cold,
          [subject],
          [
            ...gaps.filter(({ kind }) => kind !== 'never'),
            ...(!knows
              ? [
                  {
                    kind: 'not-given' as const,
                    path: layout === null ? 'modules' : `parts.${layout.key}`,
                    label: `charging current over temperature${layout === null ? '' : ` of ${layout.part.label}`}`,
                  },
                ]
              : []),
          ],
          knows && takesA !== null && offeredA > takesA * 1.001 && !asks
            ? `At ${n(atC)} °C the cells take ${n(takesA)} A; ${tag} gives up to ${n(offeredA)} A, and nothing holds it back.`
            : null,
          [
            { label: 'temperature', value: atC, unit: '°C' },
            { label: 'cells take', value: takesA ?? 0, unit: 'A' },
            { label: 'given', value: Number.isFinite(offeredA) ? offeredA : 0, unit: 'A' },
          ],
          { also: ['limits'] },
        ),
      ],
    };
  },
};
