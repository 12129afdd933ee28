import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { Criterion } from '../../model/step';
import { loadDivision, resistorEnergyAt, thresholdNeverReached, timeToReachS, tooSlow } from './precharge';
import { resistorRules } from './rules';

export interface ResistorRatings {
  resistanceOhm: number;
  toleranceFraction: number;
  pulseEnergyJ: number;
  continuousW: number;
  maxVoltageV: number;
}

/** The place of a pre-charge resistor. */
export interface ResistorPlace {
  packVoltageV: number;
  busCapacitanceF: number;
  /** What stands on the bus while it fills; absent: nothing. */
  parallelLoadOhm?: number | undefined;
  thresholdFraction: number;
  timeoutS: number;
  attemptsPerMinute: number;
}

/** What a resistor does and takes in its place. */
export interface ResistorDuty {
  /** null: the threshold is never reached. */
  timeToThresholdS: number | null;
  /** With the resistance at the top of its tolerance. */
  timeWorstS: number | null;
  /** One start, until the main closes or the limit ends it; never less than ½CV². */
  energyJ: number;
  /** Bus shorted until the time limit, the resistance at the bottom of its tolerance. */
  shortedEnergyJ: number;
  averagePowerW: number;
  shortedPowerW: number;
}

/** How often it starts, in words. */
export const startsAMinute = (attemptsPerMinute: number): string =>
  attemptsPerMinute === 1 ? 'one start a minute' : `${formatNumber(attemptsPerMinute)} starts a minute`;

/** What a resistor does in a place. Source: first-order RC circuit with a parallel load. */
export function resistorDuty(resistor: ResistorRatings, place: ResistorPlace): ResistorDuty {
  const { packVoltageV, timeoutS, thresholdFraction, attemptsPerMinute, parallelLoadOhm } = place;
  const { resistanceOhm, toleranceFraction } = resistor;
  const plantOf = (ohm: number) => ({
    packVoltageV,
    busCapacitanceF: place.busCapacitanceF,
    resistanceOhm: ohm,
    ...(parallelLoadOhm !== undefined && { parallelLoadOhm }),
  });
  const nominal = plantOf(resistanceOhm);
  const timeToThresholdS = timeToReachS(nominal, thresholdFraction);
  const timeWorstS = timeToReachS(plantOf(resistanceOhm * (1 + toleranceFraction)), thresholdFraction);
  const stored = 0.5 * place.busCapacitanceF * packVoltageV ** 2;
  // What stands on the bus draws through the resistor as well, for as long as the start takes.
  const energyJ =
    parallelLoadOhm === undefined
      ? stored
      : Math.max(stored, resistorEnergyAt(nominal, Math.min(timeToThresholdS ?? timeoutS, timeoutS)));
  const shortedEnergyJ = (packVoltageV ** 2 / (resistanceOhm * (1 - toleranceFraction))) * timeoutS;
  return {
    timeToThresholdS,
    timeWorstS,
    energyJ,
    shortedEnergyJ,
    averagePowerW: (attemptsPerMinute * energyJ) / 60,
    shortedPowerW: (attemptsPerMinute * shortedEnergyJ) / 60,
  };
}

/** A pre-charge resistor against its place: time, energies, powers, voltage. */
export function resistorCriteria(
  resistor: ResistorRatings,
  place: ResistorPlace,
  duty: ResistorDuty = resistorDuty(resistor, place),
): Criterion[] {
  const { packVoltageV, thresholdFraction, timeoutS, parallelLoadOhm, attemptsPerMinute } = place;
  const { resistanceOhm, toleranceFraction, pulseEnergyJ, continuousW, maxVoltageV } = resistor;
  const q = formatQuantity;
  const n = formatNumber;
  const high = { resistanceOhm: resistanceOhm * (1 + toleranceFraction), parallelLoadOhm };
  // Said of the resistance as it is marked where that fails already, else of the top of its tolerance.
  const nominalFails = duty.timeToThresholdS === null;
  const endsV = loadDivision(nominalFails ? { resistanceOhm, parallelLoadOhm } : high) * packVoltageV;
  const wantedV = thresholdFraction * packVoltageV;
  const never = duty.timeWorstS === null;
  const percent = { label: 'tolerance of the resistance', value: toleranceFraction * 100, unit: '%' };
  const pulse = { label: 'pulse rating', value: pulseEnergyJ, unit: 'J' };
  const power = { label: 'continuous rating', value: continuousW, unit: 'W' };
  const starts = { label: 'starts a minute', value: attemptsPerMinute, unit: '' };
  return [
    {
      rule: thresholdNeverReached,
      problem: !never
        ? null
        : `leaves the bus at ${n(endsV)} V, below the threshold of ${n(wantedV)} V${nominalFails ? '' : `, when its resistance is ${n(toleranceFraction * 100)} % high`}: ${n(parallelLoadOhm ?? 0)} Ω stand on the bus while it fills`,
      values: [
        { label: 'the bus ends at', value: endsV, unit: 'V' },
        { label: 'threshold', value: wantedV, unit: 'V' },
        { label: 'on the bus while it fills', value: parallelLoadOhm ?? 0, unit: 'Ω' },
        percent,
      ],
    },
    {
      rule: tooSlow,
      problem:
        duty.timeWorstS !== null && duty.timeWorstS >= timeoutS
          ? `needs up to ${q(duty.timeWorstS, 's')}, not less than the limit of ${q(timeoutS, 's')}`
          : null,
      values: [
        { label: 'longest time to the threshold', value: duty.timeWorstS ?? 0, unit: 's' },
        { label: 'time limit', value: timeoutS, unit: 's' },
      ],
    },
    {
      rule: resistorRules.pulse,
      problem:
        duty.energyJ > pulseEnergyJ
          ? `takes ${q(duty.energyJ, 'J')} in a start, its pulse rating is ${q(pulseEnergyJ, 'J')}`
          : null,
      values: [{ label: 'a start', value: duty.energyJ, unit: 'J' }, pulse],
    },
    {
      rule: resistorRules.shorted,
      problem:
        duty.shortedEnergyJ > pulseEnergyJ
          ? `takes ${q(duty.shortedEnergyJ, 'J')} on a shorted bus until the limit of ${q(timeoutS, 's')}, its pulse rating is ${q(pulseEnergyJ, 'J')}`
          : null,
      values: [
        { label: 'a start on a short', value: duty.shortedEnergyJ, unit: 'J' },
        pulse,
        { label: 'time limit', value: timeoutS, unit: 's' },
      ],
    },
    {
      rule: resistorRules.repeated,
      problem:
        duty.averagePowerW > continuousW
          ? `takes ${q(duty.averagePowerW, 'W')} on average at ${startsAMinute(attemptsPerMinute)}, it is made for ${q(continuousW, 'W')}`
          : null,
      values: [{ label: 'repeated starts', value: duty.averagePowerW, unit: 'W' }, power, starts],
    },
    {
      rule: resistorRules.repeatedOnShort,
      problem:
        duty.shortedPowerW > continuousW
          ? `takes ${q(duty.shortedPowerW, 'W')} on average at ${startsAMinute(attemptsPerMinute)} on a short, it is made for ${q(continuousW, 'W')}`
          : null,
      values: [{ label: 'repeated starts on a short', value: duty.shortedPowerW, unit: 'W' }, power, starts],
    },
    {
      rule: resistorRules.voltage,
      problem:
        packVoltageV > maxVoltageV
          ? `is made for ${q(maxVoltageV, 'V')}, the pack reaches ${q(packVoltageV, 'V')}`
          : null,
      values: [
        { label: 'highest pack voltage', value: packVoltageV, unit: 'V' },
        { label: 'rated voltage of the resistor', value: maxVoltageV, unit: 'V' },
      ],
    },
  ];
}

/** What a resistor must have to hold in a place, in numbers. */
export function resistorNeeds(place: ResistorPlace, idealOhm: number): string[] {
  const { shortedEnergyJ, shortedPowerW, energyJ } = resistorDuty(
    { resistanceOhm: idealOhm, toleranceFraction: 0, pulseEnergyJ: 0, continuousW: 0, maxVoltageV: 0 },
    place,
  );
  const q = formatQuantity;
  return [
    `about ${q(idealOhm, 'Ω')}`,
    `${q(Math.max(shortedEnergyJ, energyJ), 'J')} in one pulse of ${q(place.timeoutS, 's')}`,
    `${q(shortedPowerW, 'W')} on average at ${startsAMinute(place.attemptsPerMinute)}`,
    `${q(place.packVoltageV, 'V')}`,
  ];
}
