import type { Design } from '../../model/document';
import { figureId } from '../../ground/figure';
import { standardAtmosphereKPa } from '../../trade/cooling';
import { busVoltageAt } from '../../trade/precharge';
import type { Instrument, Measured } from '../../record';
import type { Evaluation } from '../../model/step';
import type { Case, Near, ProcedureStep } from '../../model/procedure';
import { templateOf } from './procedure';

/** What a stand-in instrument can be told to do. */
export const behaviours: Record<Instrument['kind'], { id: string; label: string }[]> = {
  meter: [
    { id: 'true', label: 'reads true' },
    { id: 'swapped-leads', label: 'leads swapped' },
    { id: 'open-lead', label: 'one lead open' },
    { id: 'wrong-range', label: 'wrong range: a tenth' },
    { id: 'worn-part', label: 'part out of its limits' },
    { id: 'charges-on', label: 'the charger goes on past its end' },
    { id: 'taps-swapped', label: 'two taps exchanged' },
    { id: 'plug-reversed', label: 'plug turned round' },
  ],
  'insulation-tester': [
    { id: 'true', label: 'reads true' },
    { id: 'moisture', label: 'moisture in a box' },
    { id: 'chassis-touch', label: 'pole touches the chassis' },
  ],
  scope: [
    { id: 'true', label: 'reads true' },
    { id: 'more-capacitance', label: 'a third more capacitance' },
    { id: 'load-on-bus', label: 'a device left on' },
    { id: 'wrong-resistor', label: 'double the resistance' },
    { id: 'no-rise', label: 'nothing rises' },
  ],
  // Walks have no stand-in.
  'torque-wrench': [],
  'leak-bench': [
    { id: 'true', label: 'reads true' },
    { id: 'leaks', label: 'leaks' },
    { id: 'warming', label: 'the shop warms up, and it leaks' },
  ],
  'flow-meter': [
    { id: 'true', label: 'reads true' },
    { id: 'nearly-shut', label: 'a throttle nearly shut' },
    { id: 'wrong-range', label: 'wrong range: a tenth' },
  ],
  thermometer: [
    { id: 'true', label: 'reads true' },
    { id: 'nearly-shut', label: 'a throttle nearly shut' },
    { id: 'loose-probe', label: 'probe not on the part' },
  ],
  'clamp-meter': [
    { id: 'true', label: 'reads true' },
    { id: 'does-not-stop', label: 'the charger does not stop' },
    { id: 'ignores-limit', label: 'the charger ignores pilot and cable' },
    { id: 'wrong-range', label: 'wrong range: a tenth' },
  ],
  'monitor-readout': [
    { id: 'true', label: 'tells true' },
    { id: 'one-dead', label: 'one of them dead' },
  ],
  'bench-supply': [
    { id: 'true', label: 'crosses each limit' },
    { id: 'no-trip', label: 'one limit does nothing' },
  ],
  rule: [
    { id: 'true', label: 'reads true' },
    { id: 'worn-part', label: 'part out of its limits' },
  ],
  'charge-tester': [
    { id: 'true', label: 'reads true' },
    { id: 'drop-outs', label: 'pilot with drop-outs' },
    { id: 'does-not-stop', label: 'the charger does not stop' },
  ],
};

export const standInNames: Record<Instrument['kind'], string> = {
  meter: 'Stand-in meter',
  'insulation-tester': 'Stand-in insulation tester',
  scope: 'Stand-in scope',
  'torque-wrench': 'Stand-in torque wrench',
  'leak-bench': 'Stand-in leak bench',
  'flow-meter': 'Stand-in flow meter',
  thermometer: 'Stand-in thermal probes',
  'clamp-meter': 'Stand-in clamp meter',
  'charge-tester': 'Stand-in supply with pilot and coding',
  'monitor-readout': 'Stand-in monitor boards',
  'bench-supply': 'Stand-in bench supply',
  rule: 'Stand-in rule and gauge',
};

/** Small seeded generator (mulberry32): the same seed gives the same reading. */
function noiseFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296 - 0.5;
  };
}

/**
 * What a stand-in instrument reads at a step: the design as it should be, with a little noise, or misbehaving as
 * told. It measures no vehicle.
 *
 * @returns null when the design does not say what should be there
 */
export function standInReading(
  step: ProcedureStep,
  design: Design,
  evaluation: Evaluation,
  behaviour: string,
  seed: number,
): Measured | null {
  const { expected } = step;
  // Along a walk one goes with a wrench or a meter: there is no stand-in for that.
  if (expected === null || step.walk !== undefined) return null;
  const noise = noiseFrom(seed);
  if (expected.kind === 'hold') return holdReading(expected, behaviour, noise);
  if (expected.kind === 'ladder') return ladderReading(expected, behaviour, noise);
  if (expected.kind === 'list')
    return listReading(
      expected,
      behaviour,
      noise,
      trueValueOf({ step, expected, design, evaluation }, noise),
    );
  if (expected.kind === 'rise') return traceReading(step, evaluation, behaviour, noise);
  const truth = trueValue({ step, expected, design, evaluation }, noise);
  const value = misread(truth, expected, behaviour);
  return { kind: 'value', value: Number(value.toPrecision(4)), unit: expected.unit };
}

type Range = Extract<NonNullable<ProcedureStep['expected']>, { kind: 'range' }>;

/** What its template says an instrument reads; null: it says nothing. */
function trueValueOf(of: Case, noise: () => number): (() => number) | null {
  const near: Near = (value, share) => value * (1 + share * noise());
  const { reads } = templateOf(of.step);
  return reads === undefined ? null : () => reads(of, near);
}

function trueValue(of: Case, noise: () => number): number {
  const { min = 0, max = 0, nominal } = of.expected as Range;
  return trueValueOf(of, noise)?.() ?? (nominal ?? (min + max) / 2) * (1 + 0.02 * noise());
}

function misread(truth: number, { min, max, unit }: Range, behaviour: string): number {
  switch (behaviour) {
    case 'swapped-leads':
      return -truth;
    case 'open-lead':
    case 'chassis-touch':
    case 'no-rise':
      return 0;
    case 'wrong-range':
      return truth / 10;
    case 'nearly-shut':
      return max !== undefined && (min ?? 0) <= 0 ? max * 3 : (min ?? truth) * 0.15;
    // It goes on at 16 A, or for a minute; past its end by 3 %.
    case 'does-not-stop':
      return unit === 's' ? 60 : Math.max(16, (max ?? 0) * 1.5);
    case 'ignores-limit':
      return Math.max(32, (max ?? 0) * 1.5);
    case 'drop-outs':
      return (max ?? truth) * 1.4;
    case 'charges-on':
      return (max ?? truth) * 1.03;
    case 'loose-probe':
      return truth * 0.2;
    case 'worn-part':
      return min !== undefined && min > 0 ? min * 0.9 : (max ?? truth) * 1.2;
    case 'moisture':
      return (min ?? truth) * 0.4;
    case 'more-capacitance':
      return truth * 1.33;
    case 'load-on-bus':
      return truth * 1.25;
    case 'wrong-resistor':
      return truth * 2;
    default:
      return truth;
  }
}

/** A tap tester on a harness that is right, or with a miswire switched on. */
function ladderReading(
  { cells, cellMinV, cellMaxV, tied }: Extract<NonNullable<ProcedureStep['expected']>, { kind: 'ladder' }>,
  behaviour: string,
  noise: () => number,
): Measured {
  const cellV = cellMinV + 0.6 * (cellMaxV - cellMinV);
  const taps: number[] = [];
  for (let i = 0; i < cells; i += 1) taps.push((taps.at(-1) ?? 0) + cellV * (1 + 0.004 * noise()));
  const top = taps.at(-1)!;
  for (let i = 0; i < tied; i += 1) taps.push(top);
  const at = Math.max(0, Math.floor(cells / 2) - 1);
  if (behaviour === 'taps-swapped' && cells > 1) [taps[at], taps[at + 1]] = [taps[at + 1]!, taps[at]!];
  if (behaviour === 'open-lead') taps[at] = 0.02;
  if (behaviour === 'plug-reversed') taps.splice(0, cells, ...taps.slice(0, cells).reverse());
  if (behaviour === 'wrong-range') taps.forEach((one, i) => (taps[i] = one / 10));
  return { kind: 'ladder', taps: taps.map((one) => Math.round(one * 1000) / 1000), unit: 'V' };
}

/** A monitor that answers; or one with a channel, a sensor or a limit that does not. */
function listReading(
  { items, min, max, ladder, unit }: Extract<NonNullable<ProcedureStep['expected']>, { kind: 'list' }>,
  behaviour: string,
  noise: () => number,
  own: (() => number) | null,
): Measured {
  const truth = (i: number) =>
    ladder?.recordedV?.[i] ??
    (ladder !== undefined
      ? min! + 0.6 * (max! - min!)
      : min !== undefined && max !== undefined
        ? (min + max) / 2
        : max !== undefined
          ? max * 0.3
          : (min ?? 0) * 2);
  const values = items.map((_, i) => own?.() ?? truth(i) * (1 + 0.002 * noise()));
  const at = Math.max(0, Math.floor(items.length / 2) - 1);
  if (behaviour === 'one-dead') values[at] = 0;
  if (behaviour === 'worn-part') values[at] = max !== undefined ? max * 1.5 : (min ?? 0) * 0.7;
  if (behaviour === 'no-trip') values[at] = Math.max(60, (max ?? 0) * 10);
  return { kind: 'list', values: values.map((one) => Math.round(one * 1000) / 1000), unit };
}

/** A shop that cools a little while the vessel holds; or one that leaks behind a warmer shop. */
function holdReading(
  { testKPa, minutes, allowedDropKPa }: Extract<NonNullable<ProcedureStep['expected']>, { kind: 'hold' }>,
  behaviour: string,
  noise: () => number,
): Measured {
  const startC = 20 + 2 * noise();
  const endC = startC + (behaviour === 'warming' ? 4 : -1.2) + 0.2 * noise();
  const tight =
    ((testKPa + standardAtmosphereKPa) * (endC + 273.15)) / (startC + 273.15) - standardAtmosphereKPa;
  const lost = behaviour === 'true' ? 0.15 * allowedDropKPa : 4 * allowedDropKPa;
  const tenth = (value: number) => Math.round(value * 10) / 10;
  return {
    kind: 'hold',
    startKPaGauge: tenth(testKPa),
    endKPaGauge: tenth(tight - lost),
    startC: tenth(startC),
    endC: tenth(endC),
    minutes,
    unit: 'kPa',
  };
}

const traceSamples = 60;

function traceReading(
  step: ProcedureStep,
  evaluation: Evaluation,
  behaviour: string,
  noise: () => number,
): Measured {
  const expected = step.expected as Extract<NonNullable<ProcedureStep['expected']>, { kind: 'rise' }>;
  const nominal = evaluation.figures[figureId('pack.pack', 'pack', 'voltageNominalV')]?.value ?? 0;
  const packVoltageV = Math.round(nominal * 10) / 10;
  const left = behaviour === 'load-on-bus' ? 1 / (expected.resistanceOhm * 9) : 0;
  const conductance = left + (expected.loadOhm === null ? 0 : 1 / expected.loadOhm);
  const load = conductance === 0 ? null : 1 / conductance;
  const plant = {
    packVoltageV,
    busCapacitanceF: expected.capacitanceF * (behaviour === 'more-capacitance' ? 1.33 : 0.98),
    resistanceOhm: expected.resistanceOhm * (behaviour === 'wrong-resistor' ? 2 : 1),
    ...(load !== null && { parallelLoadOhm: load }),
  };
  const spanS = 5 * expected.resistanceOhm * expected.capacitanceF;
  const samples = Array.from({ length: traceSamples }, (_, i): [number, number] => {
    const timeS = (spanS * (i + 1)) / traceSamples;
    const risen = behaviour === 'no-rise' ? 0.5 : busVoltageAt(plant, timeS);
    return [Number(timeS.toPrecision(4)), Math.round((risen + packVoltageV * 0.004 * noise()) * 10) / 10];
  });
  return { kind: 'trace', samples, packVoltageV, unit: 'V' };
}
