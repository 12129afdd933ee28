import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { resistancePerM } from '../../model/parts';
import { formatNumber } from '../../ground/quantity';
import { cableDefaults, cableSchemaFields, crossCable, heatPathOf, type CableInput } from './cable';
import { groupingFactor, heatCapacityPerM } from './copper';
import { hottestC } from './heat';
import { heatTable, type HeatTable } from './heat-table';

// Bound once: the inner loops ask for these a million times.
const { abs, ceil, floor, max, min, sqrt } = Math;

export type CableDutyInput = Omit<CableInput, 'currentA'> & {
  /** One period of the circuit's current; counts by magnitude. */
  profile: [durationS: number, currentA: number][];
  repeat: number;
  /** Conductor at the start; ambient by default. */
  startC: number;
};

export interface CableDutyResult {
  rmsA: number;
  /** null: the run stopped beyond 400 °C. */
  peakTemperatureC: number | null;
  endTemperatureC: number | null;
  overLimit: boolean;
  curve: [timeS: number, temperatureC: number][];
}

const rule = rulesOf('cable-duty');

export const cableDutyRules = {
  overLimit: rule(
    'over-limit',
    'stop',
    'Over the load the conductor gets hotter than its insulation stands',
    'A long burst heats the conductor long before its mean current would.',
    'A larger area, an insulation for a higher temperature, conductors in parallel, or a shorter burst in the inverter’s settings.',
    'Heat stored in copper and insulation, heat balance after IEC 60287',
    { version: 2, formerly: ['cable.chosen-cable'] },
  ),
  burns: rule(
    'beyond-400',
    'stop',
    'Over the load the conductor passes 400 °C',
    'Nothing of the insulation is left there: the run was stopped.',
    'A much larger area or conductors in parallel.',
    'Heat stored in copper and insulation',
  ),
};

/** Steps of all periods together. */
const mostSteps = 2_000_000;
/** Steps within one stretch of constant current; it has found its balance long before. */
const mostStepsOfOne = 50_000;
/** Points of the curve handed out. */
const curvePoints = 400;

/**
 * Conductor temperature over a repeated load.
 *
 * Source: C′·dT/dt = I²·R′(T) − q′(T), quasi-steady layers; Runge–Kutta of fourth order in steps of a tenth of the
 * shortest time constant.
 */
export const cableDuty = defineCalculator<CableDutyInput, CableDutyResult>({
  name: 'cable-duty',
  version: 1,
  title: 'Cable over its load',
  rules: Object.values(cableDutyRules),
  door: {
    schema: record({
      ...cableSchemaFields,
      profile: table({ columns: [{ above: 0 }, {}], rising: false }),
      repeat: number({ min: 1, integer: true }),
      startC: number.optional({ min: -140, max: 1000 }),
    }),
    defaults: cableDefaults,
    cross(input: CableDutyInput, issue) {
      crossCable(input, issue);
      if (input.profile.length * input.repeat > mostSteps)
        issue('repeat', `makes more than ${mostSteps} steps of the profile`);
      else if (workOf(input) > mostWork) issue('profile', 'has too many long stretches to be walked through');
      if (!(input.profile.reduce((sum, [durationS]) => sum + durationS, 0) * input.repeat < 1e12))
        issue('repeat', 'makes more than 1e12 s');
    },
  },
  compute(input, { sheet, raise }) {
    const { areaMm2, parallel, profile, repeat, conductorMaxC, ambientC } = input;
    const grouping = groupingFactor[input.grouped] ?? 1;
    const periodS = profile.reduce((sum, [durationS]) => sum + durationS, 0);
    const squares = profile.reduce((sum, [durationS, currentA]) => sum + durationS * currentA ** 2, 0);
    const rmsA = sheet.add({
      symbol: 'I_rms',
      label: 'Mean square of the load',
      formula: '√(Σ(I²·Δt)/T)',
      inputs: [
        { symbol: 'Σ(I²·Δt)', value: squares, unit: 'A²s', from: 'profile' },
        { symbol: 'T', value: periodS, unit: 's', from: 'profile' },
      ],
      value: sqrt(squares / periodS),
      unit: 'A',
      source: 'One period',
    });
    const capacity = heatCapacityPerM(areaMm2, input.conductorDiameterMm, input.outerDiameterMm);
    const startC = input.startC ?? ambientC;
    const run = integrate(input, { capacity, perConductor: 1 / (parallel * grouping), startC, periodS });
    const peak = sheet.add({
      symbol: 'T_pk',
      label: 'Hottest conductor',
      formula: 'C·dT/dt = (I/(p·g))²·r(T) − heat(T − T_a)',
      inputs: [
        { symbol: 'C', value: capacity, unit: 'J/(m·K)' },
        { symbol: 'p', value: parallel, unit: '', from: 'parallel' },
        { symbol: 'g', value: grouping, unit: '', from: 'grouped' },
        { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' },
      ],
      value: run.burnt ? null : run.peakC,
      unit: '°C',
      source: `Runge–Kutta, ${repeat} ${repeat === 1 ? 'period' : 'periods'}`,
    });
    if (run.burnt)
      raise(
        cableDutyRules.burns,
        `The conductor passes ${hottestC} °C after ${formatNumber(run.curve.at(-1)![0])} s; ${formatNumber(rmsA)} A in the mean square.`,
      );
    else if (run.peakC > conductorMaxC)
      raise(
        cableDutyRules.overLimit,
        `The conductor reaches ${formatNumber(run.peakC)} °C over the load, its limit is ${formatNumber(conductorMaxC)} °C; the mean square is ${formatNumber(rmsA)} A.`,
      );
    return {
      rmsA,
      peakTemperatureC: peak,
      endTemperatureC: run.burnt ? null : run.endC,
      overLimit: run.burnt || run.peakC > conductorMaxC,
      curve: run.curve,
    };
  },
});

/** Steps of one period. */
const mostWork = 3_000_000;

/** About how many steps one period takes. */
function workOf(input: CableDutyInput): number {
  // Up to so many stretches, each walked to its balance, are within the budget whatever they are.
  if (input.profile.length < 300) return 0;
  const { areaMm2, conductorDiameterMm, outerDiameterMm } = input;
  const stepS = stepOf(
    heatTable(heatPathOf(input), input.ambientC - 1),
    heatCapacityPerM(areaMm2, conductorDiameterMm, outerDiameterMm),
  );
  return input.profile.reduce((sum, [durationS]) => sum + min(durationS / stepS + 1, 10_000), 0);
}

/** A tenth of the shortest time constant, s. */
const stepOf = (table: HeatTable, capacity: number) => capacity / table.steepest() / 10;

interface Run {
  burnt: boolean;
  peakC: number;
  endC: number;
  curve: [number, number][];
}

/** Walks through the periods; once one ends as it began, all that follow are like it. */
function integrate(
  input: CableDutyInput,
  {
    capacity,
    perConductor,
    startC,
    periodS,
  }: { capacity: number; perConductor: number; startC: number; periodS: number },
): Run {
  const { areaMm2, profile, repeat, ambientC } = input;
  if (startC > hottestC || ambientC >= hottestC)
    return { burnt: true, peakC: startC, endC: startC, curve: [[0, startC]] };
  const table = heatTable(heatPathOf(input), min(startC, ambientC) - 1);
  const r20 = resistancePerM(areaMm2, 20);
  const stepS = stepOf(table, capacity);
  if (!(stepS > 0)) return { burnt: false, peakC: Number.NaN, endC: Number.NaN, curve: [] };
  const totalS = periodS * repeat;
  const curve = new Curve(totalS, curvePoints);
  curve.add(0, startC);
  let temperatureC = startC;
  let peakC = startC;
  let squared = 0;
  const rate = (t: number) => (squared * r20 * (1 + 0.00393 * (t - 20)) - table.at(t)) / capacity;
  // Times and temperatures of one period, for those that are like it.
  const own: { timesS: number[]; temperaturesC: number[] } = { timesS: [], temperaturesC: [] };
  for (let period = 0; period < repeat; period += 1) {
    const began = temperatureC;
    const offset = period * periodS;
    own.timesS.length = 0;
    own.temperaturesC.length = 0;
    own.timesS.push(0);
    own.temperaturesC.push(temperatureC);
    let atS = 0;
    for (let at = 0; at < profile.length; at += 1) {
      const durationS = profile[at]![0];
      squared = (profile[at]![1] * perConductor) ** 2;
      let steps = 0;
      for (let left = durationS; left > 0;) {
        const slope = rate(temperatureC);
        steps += 1;
        if (steps > mostStepsOfOne) return { burnt: false, peakC: Number.NaN, endC: Number.NaN, curve: [] };
        // At balance nothing moves any more until the current does.
        const still = abs(slope) * stepS < 1e-11;
        const h = still ? left : min(left, stepS);
        // A stretch far shorter than the steps is as exact with the slope at its middle alone.
        if (!still)
          temperatureC +=
            h < stepS / 4
              ? h * rate(temperatureC + (h / 2) * slope)
              : rungeKutta(rate, temperatureC, slope, h);
        left = h >= left ? 0 : left - h;
        atS += h;
        if (temperatureC > peakC) peakC = temperatureC;
        own.timesS.push(atS);
        own.temperaturesC.push(temperatureC);
        curve.add(offset + atS, temperatureC);
        if (temperatureC > hottestC) return { burnt: true, peakC, endC: temperatureC, curve: curve.points() };
      }
    }
    if (abs(temperatureC - began) < 1e-5) {
      const points = own.timesS.map((timeS, i): [number, number] => [timeS, own.temperaturesC[i]!]);
      curve.repeat(points, offset + periodS, periodS, repeat - period - 1);
      break;
    }
  }
  return { burnt: false, peakC, endC: temperatureC, curve: curve.points() };
}

/** One step of fourth order: by how much the temperature moves. */
function rungeKutta(rate: (t: number) => number, t: number, slope: number, h: number): number {
  const k2 = rate(t + (h / 2) * slope);
  const k3 = rate(t + (h / 2) * k2);
  const k4 = rate(t + h * k3);
  return (h / 6) * (slope + 2 * k2 + 2 * k3 + k4);
}

/** About `count` points of a list with its hottest among them. */
function thinned(own: readonly [number, number][], count: number): [number, number][] {
  if (own.length <= count) return [...own];
  const hottest = own.reduce((best, one, i) => (one[1] > own[best]![1] ? i : best), 0);
  const every = ceil(own.length / count);
  return own.filter((_, i) => i % every === 0 || i === hottest);
}

/** At most so many points of a run, evenly in time, with the hottest of each stretch. */
class Curve {
  private readonly count: number;
  private readonly firstS: Float64Array;
  private readonly firstC: Float64Array;
  private readonly hottestS: Float64Array;
  private readonly hottestC: Float64Array;
  private lastS = Number.NaN;
  private lastC = Number.NaN;

  constructor(
    private readonly totalS: number,
    most: number,
  ) {
    this.count = floor(most / 2) - 1;
    const empty = () => new Float64Array(this.count).fill(Number.NaN);
    [this.firstS, this.firstC, this.hottestS, this.hottestC] = [empty(), empty(), empty(), empty()];
  }

  add(timeS: number, temperatureC: number): void {
    const i = min(this.count - 1, floor((timeS / this.totalS) * this.count));
    this.lastS = timeS;
    this.lastC = temperatureC;
    // Nothing is above what is not there yet.
    if (!(this.firstS[i]! >= 0)) {
      this.firstS[i] = timeS;
      this.firstC[i] = temperatureC;
      this.hottestS[i] = timeS;
      this.hottestC[i] = temperatureC;
    } else if (temperatureC > this.hottestC[i]!) {
      this.hottestS[i] = timeS;
      this.hottestC[i] = temperatureC;
    }
  }

  /** The same period again and again. */
  repeat(own: readonly [number, number][], fromS: number, periodS: number, times: number): void {
    // More than a few periods in one stretch of the curve look alike, and more points than the curve has say nothing.
    const skip = max(1, floor(times / (this.count * 4)));
    const kept = thinned(own, max(2, ceil((this.count * 8) / max(times, 1))));
    for (let i = 0; i < times; i += skip)
      for (const [timeS, temperatureC] of kept) this.add(fromS + i * periodS + timeS, temperatureC);
    if (times > 0) this.add(fromS + times * periodS, own.at(-1)![1]);
  }

  points(): [number, number][] {
    const found: [number, number][] = [];
    for (let i = 0; i < this.count; i += 1) {
      if (!(this.firstS[i]! >= 0)) continue;
      if (this.firstS[i]! < this.hottestS[i]!) found.push([this.firstS[i]!, this.firstC[i]!]);
      found.push([this.hottestS[i]!, this.hottestC[i]!]);
    }
    if (this.lastS >= 0 && found.at(-1)?.[0] !== this.lastS) found.push([this.lastS, this.lastC]);
    return found;
  }
}
