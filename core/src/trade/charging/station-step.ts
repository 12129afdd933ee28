import { figureId, type Figure } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { gapsBehind, Inputs, type StepDefinition } from '../../model/step';
import { packLowest } from '../pack';
import { chargeCurve, type ChargeCurveInput, type ChargeCurveResult } from './charge-curve';
import { dcfcWindow, type DcfcWindowInput, type DcfcWindowResult } from './dcfc-window';
import { reachChecks } from './reach-checks';
import { stationLimits, type StationLink } from './station-limits';
import { chargeHeat } from './charge-heat';
import { curveInputs } from './curve-inputs';

/** What a station comes to, for pictures of it. */
export interface StationAnswer {
  limits: StationLink[];
  window: DcfcWindowInput;
  result: DcfcWindowResult;
  curve: ChargeCurveResult | null;
}

/** A DC station: its window against the pack’s, what limits the current, and how long it takes. */
export const stationStep: StepDefinition = {
  id: 'charge.station',
  version: 1,
  subjects: ({ supplies = {} }) => Object.keys(supplies).filter((id) => supplies[id]!.kind === 'station'),
  compute(subject, read) {
    const supply = read.at('supplies')![subject]!;
    const { tag } = supply;
    const at = `supplies.${subject}`;
    const { limits, maxW, maxV, gaps } = stationLimits(subject, read);
    const limitA = limits.reduce((least, { currentA }) => Math.min(least, currentA), Infinity);
    const lowest = read.figure(packLowest);
    const shared = new Inputs(read);
    shared.missing(...gaps);
    if (lowest.value === null) shared.missing(...gapsBehind(lowest));
    shared.figure('packMinV', packLowest);
    shared.figure('packMaxV', figureId('pack.pack', 'pack', 'voltageMaxV'));
    shared.given('stationMinV', supply.minV, `${at}.minV`, `lowest voltage of ${tag}`);
    shared.given('stationMaxV', supply.maxV, `${at}.maxV`, `highest voltage of ${tag}`);
    shared.given('stationMaxA', supply.maxA, `${at}.maxA`, `highest current of ${tag}`);
    const own = limits.filter(({ what }) => what !== 'station');
    shared.set('packMaxChargeA', Math.min(...own.map(({ currentA }) => currentA), 1e5), {
      kind: 'constant',
      source: 'least of inlet, contactors, cable and cells',
    });
    const meets = shared.run<DcfcWindowInput, DcfcWindowResult>(dcfcWindow);
    const inputs = curveInputs(read, supply, subject, {
      maxW,
      maxA: Number.isFinite(limitA) ? limitA : null,
      maxV: Number.isFinite(maxV) ? maxV : 1,
    });
    inputs.missing(...gaps, ...meets.gaps);
    if (meets.result !== null && !meets.result.possible)
      inputs.missing({ kind: 'never', label: `${tag} and the pack do not meet` });
    const run = inputs.run<ChargeCurveInput, ChargeCurveResult>(chargeCurve);
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const least = limits.find(({ currentA }) => currentA === limitA);
    const limit: Figure = {
      id: figureId('charge.station', subject, 'limitA'),
      label: `Most current at ${tag}`,
      unit: 'A',
      value: gaps.length > 0 || least === undefined ? null : limitA,
      gaps,
      working:
        gaps.length > 0 || least === undefined
          ? []
          : [
              {
                symbol: 'I',
                label: `Most current: the ${least.what}`,
                formula: 'min(I)',
                inputs: limits.map(({ what, currentA }) => ({ symbol: what, value: currentA, unit: 'A' })),
                value: limitA,
                unit: 'A',
                source: 'Smallest link between station and cells',
              },
            ],
    };
    const heat = chargeHeat(
      figureId('charge.station', subject, 'heatW'),
      `Heat of the pack at ${tag}`,
      tag,
      run,
    );
    return {
      figures: [
        ...meets.figures('charge.station', subject, [
          { name: 'usableFromV', label: `Window shared with ${tag}, from`, unit: 'V' },
          { name: 'usableToV', label: `Window shared with ${tag}, to`, unit: 'V' },
          { name: 'maxPowerKW', symbol: 'P', label: `Power at ${tag} at the most`, unit: 'kW' },
        ]),
        limit,
        ...run.figures('charge.station', subject, [
          { name: 'minutes', symbol: 't', label: `Time at ${tag}`, unit: 'min' },
          { name: 'peakA', label: `Peak into the pack at ${tag}`, unit: 'A' },
          { name: 'energyToPackKWh', label: `Energy into the pack at ${tag}`, unit: 'kWh' },
        ]),
        heat,
      ],
      ...(meets.input !== null && {
        run: {
          calculator: 'charge-curve',
          input: run.input ?? {},
          result: {
            limits,
            window: meets.input,
            result: meets.result!,
            curve: run.result,
          } satisfies StationAnswer,
        },
      }),
      checks: [
        ...meets.checks(
          [subject],
          [
            v('pack from', meets.input?.packMinV ?? 0, 'V'),
            v('pack to', meets.input?.packMaxV ?? 0, 'V'),
            v('station from', meets.input?.stationMinV ?? 0, 'V'),
            v('station to', meets.input?.stationMaxV ?? 0, 'V'),
            v('usable from', meets.result?.usableFromV ?? 0, 'V'),
            v('usable to', meets.result?.usableToV ?? 0, 'V'),
          ],
        ),
        ...run.checks(
          [subject],
          [
            v('ends at', (run.result?.endSocReached ?? 0) * 100, '%'),
            v('asked', (run.input?.endSoc ?? 0) * 100, '%'),
          ],
        ),
        ...reachChecks(subject, supply, read),
      ],
    };
  },
};
