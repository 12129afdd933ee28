import { vehicleDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { gravityMPerS2 } from './range';

export interface DriveCycleInput {
  points: [timeS: number, speedKmH: number][];
  massKg: number;
  rollingCoefficient: number;
  dragAreaM2: number;
  airDensityKgM3: number;
  gradeFraction: number;
  drivetrainEfficiency: number;
  accessoriesW: number;
  /** What turns with the wheels, over the mass. */
  rotatingMassFraction: number;
  /** Share of the braking that goes back through the drive; brakes take the rest. */
  regenFraction: number;
  /** Open-circuit voltage and resistance of the pack. */
  voltageV: number;
  resistanceOhm: number;
}

export interface DriveCycleResult {
  durationS: number;
  distanceKm: number;
  energyWh: number;
  /** null: nothing is driven. */
  whPerKm: number | null;
  /** Largest current out of the pack; null: more is asked than it can give. */
  peakA: number | null;
  /** Largest current into it, as a positive number. */
  regenPeakA: number | null;
  rmsA: number | null;
  meanA: number | null;
}

/** A moment of a cycle: middle of a step of at most one second. */
export interface CycleMoment {
  timeS: number;
  durationS: number;
  speedKmH: number;
  powerW: number;
  /** Out of the pack positive; null: the pack cannot give it. */
  currentA: number | null;
}

const rule = rulesOf('drive-cycle');

export const driveCycleRules = {
  beyond: rule(
    'beyond-source',
    'mend',
    'The cycle asks for more power than the pack can give',
    'Beyond half its open-circuit voltage a source gives less, whatever current is drawn.',
    'A gentler cycle, a lighter vehicle, or a pack of less resistance.',
    'Greatest power of a source: U²/(4·R)',
  ),
};

const stepS = 1;

/** Power and current moment by moment; steps of at most a second, none across a corner of the cycle. */
export function cycleMoments(input: DriveCycleInput): CycleMoment[] {
  const moments: CycleMoment[] = [];
  const slopeRad = Math.atan(input.gradeFraction);
  const inertiaKg = input.massKg * (1 + input.rotatingMassFraction);
  for (let i = 1; i < input.points.length; i += 1) {
    const [t0, u0] = input.points[i - 1]!;
    const [t1, u1] = input.points[i]!;
    const steps = Math.max(Math.ceil((t1 - t0) / stepS - 1e-9), 1);
    const durationS = (t1 - t0) / steps;
    const accelerationMPerS2 = (u1 - u0) / 3.6 / (t1 - t0);
    for (let s = 0; s < steps; s += 1) {
      const timeS = t0 + (s + 0.5) * durationS;
      const speedKmH = u0 + ((u1 - u0) * (s + 0.5)) / steps;
      const v = speedKmH / 3.6;
      const rolling =
        v > 0 ? input.massKg * gravityMPerS2 * input.rollingCoefficient * Math.cos(slopeRad) : 0;
      const force =
        rolling +
        0.5 * input.airDensityKgM3 * input.dragAreaM2 * v * v +
        input.massKg * gravityMPerS2 * Math.sin(slopeRad) +
        inertiaKg * accelerationMPerS2;
      const atWheels = force * v;
      const powerW =
        (atWheels >= 0
          ? atWheels / input.drivetrainEfficiency
          : atWheels * input.drivetrainEfficiency * input.regenFraction) + input.accessoriesW;
      moments.push({ timeS, durationS, speedKmH, powerW, currentA: currentFor(powerW, input) });
    }
  }
  return moments;
}

/** The smaller current at which a source of this voltage and resistance gives this power. */
function currentFor(
  powerW: number,
  { voltageV, resistanceOhm }: Pick<DriveCycleInput, 'voltageV' | 'resistanceOhm'>,
): number | null {
  if (resistanceOhm === 0) return powerW / voltageV;
  const inside = voltageV ** 2 - 4 * resistanceOhm * powerW;
  return inside < 0 ? null : (2 * powerW) / (voltageV + Math.sqrt(inside));
}

/**
 * Consumption and battery current over a drive cycle.
 *
 * Source: longitudinal force balance second by second; P = U·I − R·I² at the pack.
 */
export const driveCycle = defineCalculator<DriveCycleInput, DriveCycleResult>({
  name: 'drive-cycle',
  version: 1,
  title: 'Drive cycle',
  rules: Object.values(driveCycleRules),
  door: {
    schema: record({
      points: table({ columns: [{ min: 0 }, { min: 0 }], minRows: 2, maxRows: 20_000 }),
      massKg: number({ above: 0 }),
      rollingCoefficient: number({ min: 0 }),
      dragAreaM2: number({ min: 0 }),
      airDensityKgM3: number.optional({ min: 0 }),
      gradeFraction: number.optional({ min: -0.5, max: 0.5 }),
      drivetrainEfficiency: number({ above: 0, max: 1 }),
      accessoriesW: number({ min: 0 }),
      rotatingMassFraction: number.optional({ min: 0, max: 1 }),
      regenFraction: number.optional({ min: 0, max: 1 }),
      voltageV: number({ above: 0 }),
      resistanceOhm: number({ min: 0 }),
    }),
    defaults: {
      airDensityKgM3: 1.2,
      gradeFraction: vehicleDefaults.gradeFraction,
      rotatingMassFraction: vehicleDefaults.rotatingMassFraction,
      regenFraction: vehicleDefaults.regenFraction,
    },
    cross({ points }: DriveCycleInput, issue) {
      if (points.at(-1)![0] - points[0]![0] > 86_400) issue('points', 'must last at most a day');
    },
  },
  compute(input, { sheet, raise }) {
    const moments = cycleMoments(input);
    const sum = (of: (moment: CycleMoment) => number) =>
      moments.reduce((total, moment) => total + of(moment) * moment.durationS, 0);
    const durationS = sum(() => 1);
    const distanceKm = sum(({ speedKmH }) => speedKmH) / 3600;
    const energyWh = sheet.add({
      symbol: 'E',
      label: 'Energy over the cycle',
      formula: 'Σ(P·t)/3600',
      inputs: [{ symbol: 't', value: durationS, unit: 's', from: 'points' }],
      value: sum(({ powerW }) => powerW) / 3600,
      unit: 'Wh',
      source: 'Force balance with inertia, second by second',
    });
    const whPerKm = sheet.add({
      symbol: 'e',
      label: 'Consumption over the cycle',
      formula: 'E/s',
      inputs: [
        { symbol: 'E', value: energyWh, unit: 'Wh' },
        { symbol: 's', value: distanceKm, unit: 'km', from: 'points' },
      ],
      value: distanceKm > 0 ? energyWh / distanceKm : null,
      unit: 'Wh/km',
      source: 'Definition',
    });
    const highestW = Math.max(...moments.map(({ powerW }) => powerW));
    const beyond = moments.some(({ currentA }) => currentA === null);
    if (beyond)
      raise(
        driveCycleRules.beyond,
        `The cycle asks for ${formatNumber(highestW / 1000)} kW; the pack gives at most ${formatNumber(input.voltageV ** 2 / (4 * input.resistanceOhm) / 1000)} kW.`,
      );
    const amps = (name: string, label: string, formula: string, value: () => number) =>
      sheet.add({
        symbol: name,
        label,
        formula,
        inputs: [
          { symbol: 'U', value: input.voltageV, unit: 'V', from: 'voltageV' },
          { symbol: 'R', value: input.resistanceOhm, unit: 'Ω', from: 'resistanceOhm' },
          { symbol: 'P_max', value: highestW, unit: 'W' },
        ],
        value: beyond ? null : value(),
        unit: 'A',
        source: 'P = U·I − R·I² at the pack, the smaller current',
      });
    const current = ({ currentA }: CycleMoment) => currentA ?? 0;
    return {
      durationS,
      distanceKm,
      energyWh,
      whPerKm,
      peakA: amps('I_pk', 'Peak current over the cycle', 'max(I)', () =>
        Math.max(0, ...moments.map(current)),
      ),
      regenPeakA: amps('I_re', 'Peak current back into the pack', 'max(−I)', () =>
        Math.max(0, ...moments.map((one) => -current(one))),
      ),
      rmsA: amps('I_rms', 'Current over the cycle, rms', '√(Σ(t·I²)/Σ(t))', () =>
        Math.sqrt(sum((one) => current(one) ** 2) / durationS),
      ),
      meanA: amps('I_m', 'Mean current over the cycle', 'Σ(t·I)/Σ(t)', () => sum(current) / durationS),
    };
  },
});

/**
 * The current of a cycle as a short load profile: neighbouring seconds of like current become one step that heats the
 * same. Duration and ∫I²dt stay exact.
 *
 * @returns null when the pack cannot give what is asked
 */
export function loadProfileOf(moments: readonly CycleMoment[], mostSteps = 24): [number, number][] | null {
  if (moments.some(({ currentA }) => currentA === null)) return null;
  const peak = Math.max(...moments.map(({ currentA }) => Math.abs(currentA!)));
  for (let within = Math.max(peak * 0.01, 1e-6); ; within *= 1.4) {
    const steps = merged(moments, within);
    if (steps.length <= mostSteps || within > 4 * peak + 1) return steps;
  }
}

function merged(moments: readonly CycleMoment[], within: number): [number, number][] {
  const steps: [number, number][] = [];
  let run: CycleMoment[] = [];
  const close = () => {
    if (run.length === 0) return;
    const seconds = run.reduce((sum, { durationS }) => sum + durationS, 0);
    const squares = run.reduce((sum, { durationS, currentA }) => sum + durationS * currentA! ** 2, 0);
    const mean = run.reduce((sum, { durationS, currentA }) => sum + durationS * currentA!, 0);
    steps.push([seconds, Math.sign(mean) * Math.sqrt(squares / seconds)]);
    run = [];
  };
  for (const moment of moments) {
    const values = [...run, moment].map(({ currentA }) => currentA!);
    if (Math.max(...values) - Math.min(...values) > within) close();
    run.push(moment);
  }
  close();
  return steps;
}
