import type { StartSchool } from '../../model/document';
import { inrushPeakA, type InrushLoop } from './inrush';
import { busVoltageAt, loadDivision, type PrechargeInput } from './precharge';

export type Switch = 'negative main' | 'pre-charge' | 'positive main';

export interface SwitchEvent {
  /** From the start command. */
  atS: number;
  switch: Switch;
  does: 'closes' | 'opens';
}

export interface StartSequence {
  events: SwitchEvent[];
  /** When the bus begins to rise. */
  riseFromS: number;
  /** When the second main carries; null: the start is given up at the limit. */
  readyAtS: number | null;
  /** Moments at which a weld of one contactor alone would show, in words. */
  weldTests: string[];
}

export interface SequenceTimes {
  /** Command to contact of a main, and back. */
  mainCloseS: number;
  mainOpenS: number;
  /** The same of the pre-charge contactor. */
  prechargeCloseS: number;
  prechargeOpenS: number;
}

/** For how long the controller looks for the voltage of a weld before it commands the next contactor. */
export const weldTestS = 0.05;

/**
 * The events of one start.
 *
 * @param riseS from the closed pre-charge contactor until the second main is commanded; null: never
 * @param timeoutS after which the start is given up
 */
export function startSequence(
  school: StartSchool,
  { mainCloseS, mainOpenS, prechargeCloseS, prechargeOpenS }: SequenceTimes,
  riseS: number | null,
  timeoutS: number,
): StartSequence {
  const pause = school === 'one-by-one' ? weldTestS : 0;
  const negativeS = pause + mainCloseS;
  const riseFromS =
    school === 'one-by-one' ? negativeS + pause + prechargeCloseS : Math.max(mainCloseS, prechargeCloseS);
  const events: SwitchEvent[] = [
    { atS: negativeS, switch: 'negative main', does: 'closes' },
    { atS: school === 'one-by-one' ? riseFromS : prechargeCloseS, switch: 'pre-charge', does: 'closes' },
  ];
  const weldTests =
    school === 'one-by-one'
      ? [
          'before the first command: a voltage on the bus means that both poles hang on',
          'after the negative main: a rise means that the positive main or the pre-charge contactor is welded',
        ]
      : ['before the first command: a voltage on the bus means that both poles hang on'];
  if (riseS === null || riseS > timeoutS) {
    events.push(
      { atS: riseFromS + timeoutS + prechargeOpenS, switch: 'pre-charge', does: 'opens' },
      { atS: riseFromS + timeoutS + mainOpenS, switch: 'negative main', does: 'opens' },
    );
    return { events: inTime(events), riseFromS, readyAtS: null, weldTests };
  }
  const readyAtS = riseFromS + riseS + mainCloseS;
  events.push(
    { atS: readyAtS, switch: 'positive main', does: 'closes' },
    { atS: readyAtS + prechargeOpenS, switch: 'pre-charge', does: 'opens' },
  );
  return { events: inTime(events), riseFromS, readyAtS, weldTests };
}

const inTime = (events: SwitchEvent[]) => [...events].sort((a, b) => a.atS - b.atS);

/** A bus as it may really be, and what each way of closing makes of it. */
export interface BusCase {
  id: 'as designed' | 'more capacitance' | 'a load' | 'a short';
  label: string;
  /** What the bus has risen to when the timer closes the main, and what flows then. */
  timer: { voltageV: number; inrushA: number };
  /** When the voltage check commands the main; null: it gives up at the limit. */
  voltage: { atS: number | null; inrushA: number | null };
  /** The bus voltage at a time into the rise. */
  at(timeS: number): number;
}

/** How much more capacitance, and which load in multiples of the resistor, a timer is tried against. */
export const timerTrial = { capacitanceFactor: 1.33, loadOverResistor: 3 };
/** The load that a timer is tried against, Ω. */
export const trialLoadOhm = ({ resistanceOhm }: Pick<PrechargeInput, 'resistanceOhm'>) =>
  timerTrial.loadOverResistor * resistanceOhm;

/**
 * What a bare timer would miss: the same timer on the bus as designed, on one with a third more capacitance, on one with
 * a load of three times the resistor, and on a shorted one, each beside the voltage check.
 *
 * @param timerS from the closed pre-charge contactor
 * @param loop what the inrush flows through
 */
export function timerAgainstVoltage(input: PrechargeInput, timerS: number, loop: InrushLoop): BusCase[] {
  const { packVoltageV, resistanceOhm, thresholdFraction, timeoutS, busCapacitanceF } = input;
  const wantedV = thresholdFraction * packVoltageV;
  const caseOf = (
    id: BusCase['id'],
    label: string,
    at: (timeS: number) => number,
    finalV: number,
    tauS: number,
    capacitanceF = busCapacitanceF,
  ): BusCase => {
    const inrush = (voltageV: number) => inrushPeakA(packVoltageV - voltageV, { ...loop, capacitanceF });
    const voltageV = at(timerS);
    const reachedS = finalV > wantedV ? -tauS * Math.log1p(-wantedV / finalV) : null;
    const inTimeS = reachedS !== null && reachedS <= timeoutS ? reachedS : null;
    return {
      id,
      label,
      timer: { voltageV, inrushA: inrush(voltageV) },
      voltage: {
        atS: inTimeS,
        inrushA: inTimeS === null ? null : inrush(wantedV),
      },
      at,
    };
  };
  const ownLoad = input.parallelLoadOhm;
  const rising = (id: BusCase['id'], label: string, capacitanceF: number, loadOhm: number | undefined) => {
    const plant = {
      packVoltageV,
      resistanceOhm,
      busCapacitanceF: capacitanceF,
      ...(loadOhm !== undefined && { parallelLoadOhm: loadOhm }),
    };
    const k = loadDivision(plant);
    return caseOf(
      id,
      label,
      (timeS) => busVoltageAt(plant, timeS),
      k * packVoltageV,
      resistanceOhm * capacitanceF * k,
      capacitanceF,
    );
  };
  const trial = trialLoadOhm(input);
  const load = ownLoad === undefined ? trial : 1 / (1 / ownLoad + 1 / trial);
  return [
    rising('as designed', 'as designed', busCapacitanceF, ownLoad),
    rising(
      'more capacitance',
      'a third more capacitance',
      busCapacitanceF * timerTrial.capacitanceFactor,
      ownLoad,
    ),
    rising(
      'a load',
      `a load of ${trial >= 1000 ? `${Math.round(trial / 100) / 10} kΩ` : `${Math.round(trial)} Ω`} left on`,
      busCapacitanceF,
      load,
    ),
    caseOf('a short', 'a short on the bus', () => 0, 0, 1),
  ];
}

/** What a measured rise says against the design. */
export interface RiseReading {
  /** Measured over designed capacitance. */
  capacitanceRatio: number;
  verdict:
    'as designed' | 'more capacitance' | 'less capacitance' | 'a load on the bus' | 'a bleed is missing';
  words: string;
}

/** Capacitance within this share of the designed one is as designed: capacitors are made with a tolerance of about this. */
export const capacitanceTolerance = 0.2;

/** What the design says of a bus that is measured. */
export interface ExpectedBus {
  capacitanceF: number;
  resistanceOhm: number;
  /** What stands on it while it fills; null: nothing. */
  loadOhm: number | null;
}

/**
 * The least difference in R/R_L that a rise shows, and the share of the designed one within which resistor, bleed and
 * meter may differ.
 */
const loadShows = { least: 0.01, share: 0.3 };

/**
 * What stands on the bus against what the design knows of: its bleeds are expected.
 *
 * @param measuredOhm null: none to be seen
 */
export function loadOf(
  measuredOhm: number | null,
  { resistanceOhm, loadOhm }: Pick<ExpectedBus, 'resistanceOhm' | 'loadOhm'>,
): 'as designed' | 'more' | 'less' {
  const expected = loadOhm === null ? 0 : resistanceOhm / loadOhm;
  const measured = measuredOhm === null ? 0 : resistanceOhm / measuredOhm;
  const within = Math.max(loadShows.least, loadShows.share * expected);
  return measured > expected + within ? 'more' : measured < expected - within ? 'less' : 'as designed';
}

const ohms = (ohm: number) =>
  ohm >= 1000 ? `${Number((ohm / 1000).toPrecision(2))} kΩ` : `${Number(ohm.toPrecision(2))} Ω`;

/**
 * What a rise says of the load on the bus, in words; null: it is as designed.
 */
export function loadWords(
  measuredOhm: number | null,
  expected: Pick<ExpectedBus, 'resistanceOhm' | 'loadOhm'>,
): string | null {
  const found = loadOf(measuredOhm, expected);
  if (found === 'more') {
    if (expected.loadOhm === null)
      return `a load of about ${ohms(measuredOhm!)} draws on the bus during pre-charge`;
    const besidesOhm = 1 / (1 / measuredOhm! - 1 / expected.loadOhm);
    return `a load of about ${ohms(besidesOhm)} draws on the bus during pre-charge beside the ${ohms(expected.loadOhm)} of the design`;
  }
  if (found === 'less')
    return `${measuredOhm === null ? 'nothing is' : `only ${ohms(measuredOhm)} are`} to be seen on the bus where the design has ${ohms(expected.loadOhm!)}: a bleed is not connected`;
  return null;
}

/** Reads a fit against the design: what it knows of on the bus is expected, more or less of it is not. */
export function readRise(
  fit: { capacitanceF: number; parallelLoadOhm: number | null },
  expected: ExpectedBus,
): RiseReading {
  const capacitanceRatio = fit.capacitanceF / expected.capacitanceF;
  const percent = Math.round(Math.abs(capacitanceRatio - 1) * 100);
  const words = loadWords(fit.parallelLoadOhm, expected);
  if (words !== null)
    return {
      capacitanceRatio,
      verdict: loadOf(fit.parallelLoadOhm, expected) === 'more' ? 'a load on the bus' : 'a bleed is missing',
      words,
    };
  if (Math.abs(capacitanceRatio - 1) <= capacitanceTolerance)
    return {
      capacitanceRatio,
      verdict: 'as designed',
      words: 'the capacitance is as designed, and no load that was not foreseen is to be seen',
    };
  return capacitanceRatio > 1
    ? {
        capacitanceRatio,
        verdict: 'more capacitance',
        words: `${percent} % more capacitance than designed: a device that is not in the design, or another resistor`,
      }
    : {
        capacitanceRatio,
        verdict: 'less capacitance',
        words: `${percent} % less capacitance than designed: a device is not connected, or another resistor is fitted`,
      };
}
