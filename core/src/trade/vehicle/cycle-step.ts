import type { CheckValue } from '../../ground/finding';
import { figureId } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { accessories } from './accessories';
import { driveCycles } from './cycles';
import { cycleMoments, driveCycle, type DriveCycleInput } from './drive-cycle';
import { vehicleRules } from './rules';

/** What the cycle asks of the pack, and what that gives at the most. */
function cycleValues(input: DriveCycleInput | null): CheckValue[] {
  if (input === null) return [];
  const askedW = Math.max(...cycleMoments(input).map(({ powerW }) => powerW));
  return [
    { label: 'power asked', value: askedW, unit: 'W' },
    { label: 'most power of the pack', value: input.voltageV ** 2 / (4 * input.resistanceOhm), unit: 'W' },
  ];
}

/** A hill is steady: a minute of it says what an hour would. */
export const hillS = 60;

/**
 * What the chosen drive cycle needs, or a minute of a hill instead of it: vehicle, pack and way, with what is missing.
 */
export function cycleInputs(read: Reader, hill?: { speedKmH: number; gradeFraction: number }): Inputs {
  const vehicle = read.at('vehicle');
  const inputs = new Inputs(read);
  const top = vehicle.topSpeedKmH;
  const held = (points: [number, number][]): [number, number][] =>
    top === undefined || top <= 0
      ? points
      : points.map(([timeS, speedKmH]) => [timeS, Math.min(speedKmH, top)]);
  if (hill !== undefined) {
    const at = (path: string) => ({ kind: 'document' as const, path });
    const points = held([
      [0, hill.speedKmH],
      [hillS, hill.speedKmH],
    ]);
    inputs.set('points', points, at('cooling.hillSpeedKmH'), 'speed on the hill');
    inputs.set('gradeFraction', hill.gradeFraction, at('cooling.hillGradeFraction'), 'grade of the hill');
  } else if (vehicle.cycle === undefined)
    inputs.missing({ kind: 'not-given', path: 'vehicle.cycle', label: 'drive cycle' });
  else if (vehicle.cycle === 'own') {
    const points = vehicle.ownCycle?.points;
    inputs.given(
      'points',
      points === undefined ? undefined : held(points),
      'vehicle.ownCycle',
      'own drive cycle',
    );
    inputs.optional('gradeFraction', vehicle.gradeFraction, 'vehicle.gradeFraction', 'grade');
  } else {
    const cycle = driveCycles[vehicle.cycle];
    const origin = { kind: 'constant' as const, source: `drive cycle ${cycle.title}, invented` };
    inputs.set('points', held(cycle.points), origin, 'drive cycle');
    inputs.set('gradeFraction', cycle.gradeFraction, origin, 'grade of the cycle');
  }
  inputs.figure('massKg', figureId('vehicle.axles', 'vehicle', 'totalKg'));
  inputs.given(
    'rollingCoefficient',
    vehicle.rollingCoefficient,
    'vehicle.rollingCoefficient',
    'rolling resistance coefficient',
  );
  inputs.given('dragAreaM2', vehicle.dragAreaM2, 'vehicle.dragAreaM2', 'drag area');
  inputs.given(
    'drivetrainEfficiency',
    vehicle.drivetrainEfficiency,
    'vehicle.drivetrainEfficiency',
    'drivetrain efficiency',
  );
  accessories(inputs, read);
  inputs.optional('airDensityKgM3', vehicle.airDensityKgM3, 'vehicle.airDensityKgM3', 'air density');
  inputs.optional(
    'regenFraction',
    vehicle.regenFraction,
    'vehicle.regenFraction',
    'share of braking recovered',
  );
  inputs.optional(
    'rotatingMassFraction',
    vehicle.rotatingMassFraction,
    'vehicle.rotatingMassFraction',
    'rotating mass',
  );
  inputs.figure('voltageV', figureId('pack.pack', 'pack', 'voltageNominalV'));
  inputs.figure('resistanceOhm', figureId('pack.pack', 'pack', 'resistanceOhm'));
  return inputs;
}

/** Consumption and battery current over the chosen drive cycle. */
export const cycleStep: StepDefinition = {
  id: 'vehicle.cycle',
  version: 1,
  subjects: (design) => (design.vehicle.cycle === undefined ? [] : ['vehicle']),
  compute(subject, read) {
    const inputs = cycleInputs(read);
    const run = inputs.run(driveCycle);
    const peakA = read.at('pack', 'peakCurrentA');
    const figures = run.figures('vehicle.cycle', subject, [
      { name: 'distanceKm', label: 'Distance of the cycle', unit: 'km' },
      { name: 'whPerKm', symbol: 'e', label: 'Consumption over the cycle', unit: 'Wh/km' },
      {
        name: 'peakA',
        symbol: 'I_pk',
        label: 'Peak current over the cycle',
        unit: 'A',
        ...(peakA !== undefined && { limit: { max: peakA } }),
      },
      { name: 'regenPeakA', symbol: 'I_re', label: 'Peak current back into the pack', unit: 'A' },
      { name: 'rmsA', symbol: 'I_rms', label: 'Current over the cycle, rms', unit: 'A' },
    ]);
    const usable = read.figure(figureId('pack.pack', 'pack', 'usableEnergyKWh'));
    const whPerKm = run.result?.whPerKm ?? null;
    const range =
      whPerKm === null || whPerKm <= 0 || usable.value === null ? null : (usable.value * 1000) / whPerKm;
    figures.push({
      id: figureId('vehicle.cycle', subject, 'rangeKm'),
      label: 'Range over the cycle',
      unit: 'km',
      value: range,
      gaps:
        range !== null
          ? []
          : run.gaps.length > 0
            ? run.gaps
            : [{ kind: 'never', label: 'Range over the cycle: never' }],
      working:
        range === null
          ? []
          : [
              {
                symbol: 's',
                label: 'Range over the cycle',
                formula: '1000·E/e',
                inputs: [
                  {
                    symbol: 'E',
                    value: usable.value!,
                    unit: 'kWh',
                    origin: { kind: 'figure', id: usable.id },
                  },
                  { symbol: 'e', value: whPerKm!, unit: 'Wh/km' },
                ],
                value: range,
                unit: 'km',
                source: 'Usable energy over consumption',
              },
            ],
    });
    const noPeak =
      peakA === undefined
        ? [{ kind: 'not-given' as const, path: 'pack.peakCurrentA', label: 'peak current' }]
        : [];
    const asked = run.result?.peakA ?? null;
    return run.output(figures, [
      ...run.checks([subject], cycleValues(run.input)),
      judge(
        vehicleRules.cycleOverPeak,
        [subject],
        [...run.gaps, ...noPeak],
        asked !== null && peakA !== undefined && asked > peakA
          ? `The cycle asks for ${formatNumber(asked)} A; ${formatNumber(peakA)} A are allowed.`
          : null,
        [
          { label: 'peak of the cycle', value: asked ?? 0, unit: 'A' },
          { label: 'peak allowed', value: peakA ?? 0, unit: 'A' },
        ],
      ),
    ]);
  },
};
