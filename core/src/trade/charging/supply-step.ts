import { figureId } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { SupplyItem } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { packLowest, readPackLayout } from '../pack';
import { acChargeRules, type AcChargeInput, type AcChargeResult } from './ac-charge';
import { packTakesA } from './cell-limits';
import { chargeCurve, type ChargeCurveInput, type ChargeCurveResult } from './charge-curve';
import { curveInputs } from './curve-inputs';
import { mainsLimits } from './mains-limits';
import { ofParts } from './of-parts';
import { reachChecks } from './reach-checks';
import { chargeRules } from './rules';
import { supplyFigures } from './supply-figures';
import { inletOf, inletRating } from './supply-inputs';

const n = formatNumber;

/** What a supply of the mains comes to, for pictures of it. */
export interface SupplyAnswer {
  input: AcChargeInput;
  result: AcChargeResult;
  curve: ChargeCurveResult | null;
}

/** What a supply of the mains gives, how long it takes, and what stands in its way. */
export const supplyStep: StepDefinition = {
  id: 'charge.supply',
  version: 1,
  subjects: ({ supplies = {} }) => Object.keys(supplies).filter((id) => supplies[id]!.kind !== 'station'),
  compute(subject, read) {
    const supply = read.at('supplies')![subject]!;
    const { tag } = supply;
    const { way, limits, gaps } = mainsLimits(subject, read);
    /** Of what is not given; that nothing works here is said by itself. */
    const real = gaps.filter(({ kind }) => kind !== 'never');
    const { layout } = readPackLayout(read);
    const takes = layout === null ? null : packTakesA(layout.part.data, layout.strings);
    const source =
      limits === null
        ? null
        : {
            maxW: limits.maxW > 0 ? limits.maxW : null,
            maxA: takes === null ? limits.maxA : Math.min(limits.maxA, takes),
            maxV: limits.maxV,
          };
    const inputs = curveInputs(read, supply, subject, source ?? { maxW: null, maxA: null, maxV: 1 });
    inputs.missing(...gaps);
    if (limits !== null && !(limits.maxW > 0))
      inputs.missing({ kind: 'never', label: `${tag}: no charger works at the top of the pack` });
    const run = inputs.run<ChargeCurveInput, ChargeCurveResult>(chargeCurve);
    const lowest = read.figure(packLowest);
    const capacity = read.figure(figureId('pack.pack', 'pack', 'capacityAh'));
    const offeredA =
      limits === null || lowest.value === null ? null : Math.min(limits.maxA, limits.maxW / lowest.value);
    const figures = supplyFigures(subject, tag, {
      run,
      gaps,
      way,
      limits,
      lowestV: lowest.value,
      capacityAh: capacity.value,
      offeredA,
    });

    // An acceptance is of these parts.
    const devices = read.at('devices');
    const parts = [
      ...way.chargers.map(({ id }) => devices[id]?.charger),
      supply.breaker,
      inletOf(supply, read.at('inlets') ?? {})?.item.inlet,
    ].filter((key) => key !== undefined);
    const v = (label: string, value: number, unit = 'A'): CheckValue => ({ label, value, unit });
    const drawnA = limits === null ? 0 : Math.max(...limits.drawn.phaseA);
    /** The phase on which chargers and others come to most. */
    const fullest = way.othersA
      .map((othersA, i) => ({ othersA, drawnA: limits?.drawn.phaseA[i] ?? 0 }))
      .reduce((most, one) => (one.othersA + one.drawnA > most.othersA + most.drawnA ? one : most));
    const mostOthersA = Math.max(...way.othersA);
    const holdsA = way.breakerA === null ? null : way.breakerA * way.fraction;
    const inlet = inletOf(supply, read.at('inlets') ?? {});
    const neutralRating = inlet?.item.neutralA ?? null;
    const residual = supply.residual ?? breakerResidual(supply, read);
    const { chargeA: saidA } = read.at('pack');
    const phases = supply.phases ?? 1;
    const idle = way.chargers.filter((one) => !way.serving.includes(one));
    const unseen = way.serving.filter(({ dcDetection }) => !dcDetection);
    const suits =
      residual === 'B' || residual === 'A and 6 mA DC' || (residual === 'A' && unseen.length === 0);
    const pinsA = inlet === null ? null : inletRating(inlet.item, read.at('parts')).mainsA;
    const atInlet = { also: inlet === null ? [] : [inlet.id] };
    const overWire = way.wireA !== null && drawnA > way.wireA * (1 + 1e-9);
    const trips = holdsA !== null && fullest.drawnA + fullest.othersA > holdsA * (1 + 1e-9);
    const beyondPilot =
      holdsA !== null && way.offersA !== null && way.offersA + mostOthersA > holdsA * (1 + 1e-9);
    return {
      figures,
      ...(run.input !== null &&
        limits !== null && {
          run: {
            calculator: 'charge-curve',
            input: run.input,
            result: {
              input: limits.flow.input,
              result: limits.flow.result,
              curve: run.result,
            } satisfies SupplyAnswer,
          },
        }),
      checks: [
        ...run.checks(
          [subject],
          [
            v('ends at', (run.result?.endSocReached ?? 0) * 100, '%'),
            v('asked', (run.input?.endSoc ?? 0) * 100, '%'),
            v('ends at', run.result?.endSocReached ?? 0, 'fraction'),
            v('asked', run.input?.endSoc ?? 0, 'fraction'),
          ],
        ),
        judge(
          acChargeRules.window,
          [subject],
          real,
          limits !== null && limits.outside.length > 0
            ? limits.outside
                .map(
                  (one) =>
                    `${one.tag} works from ${n(one.minV)} to ${n(one.maxV)} V; at ${tag} the pack has ${n(one.packV)} V.`,
                )
                .join(' ')
            : null,
          (limits?.outside ?? []).flatMap((one) => [
            v(`${one.tag} from`, one.minV, 'V'),
            v(`${one.tag} to`, one.maxV, 'V'),
            v('pack has', one.packV, 'V'),
          ]),
        ),
        judge(
          chargeRules.onePhase,
          [subject],
          real,
          way.serving.length === 0 ? `${tag} has ${n(phases)} phase; no charger works on it.` : null,
          [v('phases', phases, ''), v('chargers that do nothing', idle.length, '')],
          { also: idle.map(({ id }) => id) },
        ),
        judge(
          chargeRules.breaker,
          [subject],
          [
            ...real,
            ...(holdsA === null && gaps.length === 0
              ? [
                  {
                    kind: 'not-given' as const,
                    path: `supplies.${subject}.breakerA`,
                    label: `breaker of ${tag}`,
                  },
                ]
              : []),
          ],
          trips
            ? `At ${tag} chargers draw ${n(fullest.drawnA)} A${fullest.othersA > 0 ? ` beside ${n(fullest.othersA)} A of others` : ''}; the breaker of ${n(way.breakerA!)} A holds ${n(holdsA!)} A for hours.`
            : null,
          [
            v('chargers draw', fullest.drawnA),
            v('others', fullest.othersA),
            v('breaker', way.breakerA ?? 0),
            v('holds for hours', holdsA ?? 0),
          ],
        ),
        judge(
          chargeRules.wire,
          [subject],
          [
            ...real,
            ...(inlet !== null && pinsA === null && !overWire
              ? [
                  {
                    kind: 'not-given' as const,
                    path: `inlets.${inlet.id}.ratedA`,
                    label: `what ${inlet.item.tag} carries`,
                  },
                ]
              : []),
          ],
          overWire
            ? `At ${tag} up to ${n(drawnA)} A flow; ${
                pinsA !== null && pinsA <= way.wireA! ? 'the inlet' : 'the wires behind the inlet'
              } carry ${n(way.wireA!)} A.`
            : null,
          [v('flows', drawnA), v('carry', way.wireA ?? 0)],
          atInlet,
        ),
        judge(
          chargeRules.pilot,
          [subject],
          real,
          beyondPilot && !trips
            ? `The pilot of ${tag} offers ${n(way.offersA!)} A${mostOthersA > 0 ? ` beside ${n(mostOthersA)} A of others` : ''}; its breaker of ${n(way.breakerA!)} A holds ${n(holdsA!)} A for hours.`
            : null,
          [
            v('offers', way.offersA ?? 0),
            v('others', mostOthersA),
            v('breaker', way.breakerA ?? 0),
            v('holds for hours', holdsA ?? 0),
          ],
        ),
        ...reachChecks(subject, supply, read),
        judge(
          chargeRules.neutral,
          [subject],
          real,
          limits !== null && neutralRating !== null && limits.drawn.neutralA > neutralRating * (1 + 1e-9)
            ? `At ${tag} the neutral carries ${n(limits.drawn.neutralA)} A; its wire is for ${n(neutralRating)} A.`
            : null,
          [v('neutral', limits?.drawn.neutralA ?? 0), v('its wire', neutralRating ?? 0)],
          atInlet,
        ),
        judge(
          chargeRules.residual,
          [subject],
          [
            ...(residual === null
              ? [
                  {
                    kind: 'not-given' as const,
                    path: `supplies.${subject}.residual`,
                    label: `residual-current device of ${tag}`,
                  },
                ]
              : []),
            ...real,
          ],
          residual !== null && real.length === 0 && !suits
            ? `${tag} has ${residual === 'none' ? 'nothing that trips' : `a device of type ${residual}`}; ${n(unseen.length)} chargers do not see ${n(6)} mA of direct current themselves.`
            : null,
          [v('direct current that is seen', 6, 'mA'), v('chargers that do not see it', unseen.length, '')],
        ),
        judge(
          chargeRules.aboveSaid,
          [subject],
          [
            ...real,
            ...(saidA === undefined
              ? [{ kind: 'not-given' as const, path: 'pack.chargeA', label: 'current that charges the pack' }]
              : []),
          ],
          offeredA !== null && saidA !== undefined && offeredA > saidA * 1.001
            ? `At ${tag} up to ${formatQuantity(offeredA, 'A')} go into the pack; ${n(saidA)} A are said.`
            : null,
          [v('goes in', offeredA ?? 0), v('said', saidA ?? 0)],
          { also: ['pack'] },
        ),
      ].map((check) => ofParts(check, parts)),
    };
  },
};

function breakerResidual(supply: SupplyItem, read: Reader) {
  const breaker = read.at('parts')[supply.breaker ?? ''];
  return breaker?.kind === 'breaker' ? breaker.data.residual : null;
}
