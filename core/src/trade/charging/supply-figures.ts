import { figureId, type Figure, type FigureName, type Gap, type TracedStep } from '../../ground/figure';
import type { Id } from '../../model/document';
import type { Run } from '../../model/step';
import type { ChargeCurveInput, ChargeCurveResult } from './charge-curve';
import { chargeHeat } from './charge-heat';
import type { MainsLimits } from './mains-limits';
import type { MainsWay } from './supply-inputs';

/** What a supply of the mains was worked out from. */
export interface SupplyParts {
  run: Run<ChargeCurveInput, ChargeCurveResult>;
  gaps: Gap[];
  way: MainsWay;
  limits: MainsLimits | null;
  /** Of the pack: its lowest voltage, and its capacity. */
  lowestV: number | null;
  capacityAh: number | null;
  /** To the cells at that voltage. */
  offeredA: number | null;
}

/** The figures of a supply: what flows, how long it takes, and what becomes heat. */
export function supplyFigures(
  subject: Id,
  tag: string,
  { run, gaps, way, limits, lowestV, capacityAh, offeredA }: SupplyParts,
): Figure[] {
  const flow = limits?.flow.result ?? null;
  const efficiency = flow === null || !(flow.inputW > 0) ? null : flow.outputW / flow.inputW;
  const energyMains =
    run.result === null || efficiency === null ? null : run.result.energyToPackKWh / efficiency;

  const told = (
    name: FigureName<'charge.supply'>,
    label: string,
    unit: string,
    value: number | null,
    working: TracedStep[],
  ): Figure => ({
    id: figureId('charge.supply', subject, name),
    label,
    unit,
    value,
    gaps:
      value !== null
        ? []
        : run.gaps.length > 0
          ? run.gaps
          : gaps.length > 0
            ? gaps
            : [{ kind: 'never', label: `${label}: never` }],
    working: value === null ? [] : working,
  });
  const line = (
    label: string,
    unit: string,
    value: number | null,
    formula: string,
    parts: [symbol: string, value: number, unit: string][],
    said: string,
  ): TracedStep[] => [
    {
      symbol: 'x',
      label,
      formula,
      inputs: parts.map(([symbol, one, own]) => ({ symbol, value: one, unit: own })),
      value,
      unit,
      source: said,
    },
  ];
  return [
    told(
      'availableA',
      `Available on each phase at ${tag}`,
      'A',
      flow?.availableA ?? null,
      limits === null
        ? []
        : line(
            'Available on each phase',
            'A',
            flow!.availableA,
            'min(pilot, cable, wire, breaker)',
            [
              ['pilot', way.offersA!, 'A'],
              ['cable', way.cableA!, 'A'],
              ['wire', way.wireA!, 'A'],
              ...(way.breakerA === null
                ? []
                : [
                    ['breaker', way.breakerA * way.fraction - Math.max(...way.othersA), 'A'] as [
                      string,
                      number,
                      string,
                    ],
                  ]),
            ],
            'Smallest link between socket and charger',
          ),
    ),
    told(
      'neutralA',
      `Neutral at ${tag}`,
      'A',
      flow?.neutralA ?? null,
      flow === null
        ? []
        : line(
            'Neutral',
            'A',
            flow.neutralA,
            'phasor sum',
            [
              ['a', flow.phaseA[0], 'A'],
              ['b', flow.phaseA[1], 'A'],
              ['c', flow.phaseA[2], 'A'],
            ],
            'Phasors 120° apart',
          ),
    ),
    told(
      'inputW',
      `Out of the mains at ${tag}`,
      'W',
      flow?.inputW ?? null,
      flow === null
        ? []
        : line(
            'Out of the mains',
            'W',
            flow.inputW,
            'U·(a + b + c)',
            [
              ['U', limits!.flow.input.phaseVoltageV, 'V'],
              ['a', flow.phaseA[0], 'A'],
              ['b', flow.phaseA[1], 'A'],
              ['c', flow.phaseA[2], 'A'],
            ],
            'Unity power factor',
          ),
    ),
    told(
      'outputW',
      `Into the pack at ${tag}`,
      'W',
      flow?.outputW ?? null,
      flow === null
        ? []
        : line(
            'Into the pack',
            'W',
            flow.outputW,
            'P·η',
            [
              ['P', flow.inputW, 'W'],
              ['η', efficiency ?? 0, ''],
            ],
            'Efficiency of the chargers at this load',
          ),
    ),
    told(
      'offeredA',
      `Offered to the cells at ${tag}`,
      'A',
      offeredA,
      offeredA === null
        ? []
        : line(
            'Offered to the cells',
            'A',
            offeredA,
            'min(ΣI, P/U_low)',
            [
              ['ΣI', limits!.maxA, 'A'],
              ['P', limits!.maxW, 'W'],
              ['U_low', lowestV!, 'V'],
            ],
            'Chargers at the lowest voltage of the pack',
          ),
    ),
    told(
      'cRate',
      `Rate at ${tag}`,
      '1/h',
      offeredA === null || capacityAh === null ? null : offeredA / capacityAh,
      offeredA === null || capacityAh === null
        ? []
        : line(
            'Rate',
            '1/h',
            offeredA / capacityAh,
            'I/Q',
            [
              ['I', offeredA, 'A'],
              ['Q', capacityAh, 'Ah'],
            ],
            'Current over capacity',
          ),
    ),
    ...run.figures('charge.supply', subject, [
      { name: 'minutes', symbol: 't', label: `Time at ${tag}`, unit: 'min' },
      { name: 'peakA', label: `Peak into the pack at ${tag}`, unit: 'A' },
      { name: 'energyToPackKWh', label: `Energy into the pack at ${tag}`, unit: 'kWh' },
    ]),
    told(
      'energyMainsKWh',
      `Energy out of the mains at ${tag}`,
      'kWh',
      energyMains,
      energyMains === null
        ? []
        : line(
            'Energy out of the mains',
            'kWh',
            energyMains,
            'E/η',
            [
              ['E', run.result!.energyToPackKWh, 'kWh'],
              ['η', efficiency!, ''],
            ],
            'Efficiency at the nominal voltage',
          ),
    ),
    chargeHeat(figureId('charge.supply', subject, 'heatW'), `Heat of the pack at ${tag}`, tag, {
      result: run.result,
      gaps: run.gaps.length > 0 ? run.gaps : gaps,
    }),
  ];
}
