import { circuitDefaults } from '../../model/document';
import { defineCalculator, type Desk } from '../../ground/calculator';
import { list, number, record, text } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { findRoot } from '../../ground/math';
import type { Criterion } from '../../model/step';
import { problemsOf } from '../../model/step';
import { resistorCriteria, resistorDuty, type ResistorPlace } from './criteria';
import { loadDivision, timeToReachS } from './precharge';
import { resistorRules } from './rules';

export interface ResistorCandidate {
  partId: string;
  resistanceOhm: number;
  toleranceFraction: number;
  pulseEnergyJ: number;
  continuousW: number;
  maxVoltageV: number;
}

export interface PrechargeChooseInput {
  packVoltageV: number;
  busCapacitanceF: number;
  /** 0.95 by default. */
  thresholdFraction: number;
  /** Of a design alone: what stands on the bus while it fills. */
  parallelLoadOhm?: number;
  wantedTimeS: number;
  timeoutS: number;
  /** 3 by default. */
  attemptsPerMinute: number;
  resistors: ResistorCandidate[];
}

export interface RankedResistor {
  partId: string;
  /** null: never, for what stands on the bus holds it down. */
  timeToThresholdS: number | null;
  /** With the resistance at the top of its tolerance. */
  timeWorstS: number | null;
  /** ½CV²: what one run puts into the resistor; more where something stands on the bus. */
  energyJ: number;
  /** Bus shorted until the time limit, resistance at the bottom of its tolerance. */
  shortedEnergyJ: number;
  averagePowerW: number;
  fits: boolean;
  /** What does not hold; empty when it fits. */
  reasons: string[];
}

export interface PrechargeChooseResult {
  idealResistanceOhm: number;
  ranked: RankedResistor[];
}

export const noResistorFits = defineRule({
  id: 'precharge.no-resistor-fits',
  version: 1,
  grade: 'mend',
  title: 'No resistor of the list fits',
  why: 'Every candidate fails at least one of: time, pulse energy, energy into a shorted bus, repeated starts, voltage.',
  remedy: 'Look at the reasons of the first in the list: they name the numbers a fitting part needs.',
  source: 'First-order RC circuit; makers’ pulse ratings',
});

/** The fields of the contract. */
const fields = {
  packVoltageV: number({ above: 0 }),
  busCapacitanceF: number({ above: 0 }),
  thresholdFraction: number.optional({ above: 0, below: 1 }),
  wantedTimeS: number({ above: 0 }),
  timeoutS: number({ above: 0 }),
  attemptsPerMinute: number.optional({ min: 0 }),
  resistors: list(
    record({
      partId: text(),
      resistanceOhm: number({ above: 0 }),
      toleranceFraction: number({ min: 0, below: 1 }),
      pulseEnergyJ: number({ min: 0 }),
      continuousW: number({ min: 0 }),
      maxVoltageV: number({ min: 0 }),
    }),
  ),
};
const { thresholdFraction, attemptsPerMinute } = circuitDefaults;
const defaults = { thresholdFraction, attemptsPerMinute };
const cross = (input: PrechargeChooseInput, issue: (path: string, message: string) => void) => {
  const seen = new Set<string>();
  input.resistors.forEach(({ partId }, i) => {
    if (seen.has(partId)) issue(`resistors.${i}.partId`, 'repeats an id of the list');
    seen.add(partId);
  });
};

/**
 * Ranks pre-charge resistors: fitting ones first, then by how near their nominal time is to the wanted one.
 *
 * Source: first-order RC circuit without load; ½CV² per run whatever the resistance.
 */
export const prechargeChoose = defineCalculator<PrechargeChooseInput, PrechargeChooseResult>({
  name: 'precharge-choose',
  version: 1,
  title: 'Choice of a pre-charge resistor',
  rules: [noResistorFits],
  door: { schema: record(fields), defaults, cross },
  // The contract knows no repeated starts on a short.
  compute: (input, desk) => choose(input, desk, ({ rule }) => rule !== resistorRules.repeatedOnShort),
});

/**
 * The same in a design: with what stands on the bus while it fills, and with every criterion that the chosen resistor is
 * judged by.
 *
 * Source: first-order RC circuit with a parallel load; k = R_L/(R+R_L)
 */
export const prechargeChooseOnBus = defineCalculator<PrechargeChooseInput, PrechargeChooseResult>({
  name: 'precharge-choose-on-bus',
  version: 1,
  title: 'Choice of a pre-charge resistor for a bus with a load',
  rules: [noResistorFits],
  door: {
    schema: record({ ...fields, parallelLoadOhm: number.optional({ above: 0 }) }),
    defaults,
    cross,
  },
  compute: (input, desk) => choose(input, desk, () => true),
});

function choose(
  input: PrechargeChooseInput,
  { sheet, raise }: Desk,
  counts: (criterion: Criterion) => boolean,
): PrechargeChooseResult {
  const { packVoltageV, busCapacitanceF, thresholdFraction, wantedTimeS, parallelLoadOhm } = input;
  const C = { symbol: 'C', value: busCapacitanceF, unit: 'F', from: 'busCapacitanceF' };
  const t = { symbol: 't_w', value: wantedTimeS, unit: 's', from: 'wantedTimeS' };
  const p = { symbol: 'p', value: thresholdFraction, unit: 'fraction', from: 'thresholdFraction' };
  const idealResistanceOhm = sheet.add({
    symbol: 'R',
    label: 'Resistance for the wanted time',
    ...(parallelLoadOhm === undefined
      ? {
          formula: 't_w/(C·(−ln(1 − p)))',
          inputs: [t, C, p],
          source: 'First-order RC circuit',
        }
      : {
          formula: 't_w = R·C·k·(−ln(1 − p/k)), k = R_L/(R + R_L)',
          inputs: [t, C, p, { symbol: 'R_L', value: parallelLoadOhm, unit: 'Ω', from: 'parallelLoadOhm' }],
          source: 'First-order RC circuit with a parallel load, solved for the resistance',
        }),
    value: idealOhm(input),
    unit: 'Ω',
  });
  const energyJ = sheet.add({
    symbol: 'W',
    label: 'Energy per run',
    formula: '½·C·V²',
    inputs: [C, { symbol: 'V', value: packVoltageV, unit: 'V', from: 'packVoltageV' }],
    value: 0.5 * busCapacitanceF * packVoltageV ** 2,
    unit: 'J',
    source: 'Energy stored in the bus equals the energy lost in the resistor',
  });
  sheet.add({
    symbol: 'P',
    label: 'Average power of repeated starts',
    formula: 'a·W/60',
    inputs: [
      { symbol: 'a', value: input.attemptsPerMinute, unit: '1/min', from: 'attemptsPerMinute' },
      { symbol: 'W', value: energyJ, unit: 'J' },
    ],
    value: (input.attemptsPerMinute * energyJ) / 60,
    unit: 'W',
    source: 'Energy per run times runs per minute',
  });
  const away = (timeS: number | null) => (timeS === null ? Infinity : Math.abs(timeS - wantedTimeS));
  const ranked = input.resistors
    .map((resistor, order) => ({ one: judgeResistor(resistor, input, counts), order }))
    .sort(
      (a, b) =>
        Number(b.one.fits) - Number(a.one.fits) ||
        compare(away(a.one.timeToThresholdS), away(b.one.timeToThresholdS)) ||
        a.order - b.order,
    )
    .map(({ one }) => one);
  if (!ranked.some(({ fits }) => fits)) {
    const best = ranked[0];
    raise(
      noResistorFits,
      best === undefined
        ? 'The list of resistors is empty.'
        : `None of ${ranked.length} resistors fits; ${best.partId} comes nearest: ${best.reasons.join('; ')}.`,
    );
  }
  return { idealResistanceOhm, ranked };
}

/** Infinity is like itself. */
const compare = (a: number, b: number) => (a === b ? 0 : a - b);

/** The resistance that reaches the threshold in the wanted time, Ω. */
function idealOhm({
  busCapacitanceF,
  thresholdFraction: p,
  wantedTimeS,
  parallelLoadOhm,
}: Pick<
  PrechargeChooseInput,
  'busCapacitanceF' | 'thresholdFraction' | 'wantedTimeS' | 'parallelLoadOhm'
>): number {
  const bare = wantedTimeS / (busCapacitanceF * -Math.log1p(-p));
  if (parallelLoadOhm === undefined) return bare;
  // The time grows without end as the division nears the threshold; without a load it would be longest there.
  const most = parallelLoadOhm * (1 / p - 1);
  const late = (resistanceOhm: number) => {
    const plant = { resistanceOhm, parallelLoadOhm, busCapacitanceF };
    return loadDivision(plant) <= p ? Infinity : timeToReachS(plant, p)! - wantedTimeS;
  };
  const high = Math.min(bare, most * (1 - 1e-12));
  return findRoot(late, high * 1e-9, high)?.x ?? high;
}

function judgeResistor(
  resistor: ResistorCandidate,
  place: ResistorPlace,
  counts: (criterion: Criterion) => boolean,
): RankedResistor {
  const duty = resistorDuty(resistor, place);
  const reasons = problemsOf(resistorCriteria(resistor, place, duty).filter(counts));
  const { timeToThresholdS, timeWorstS, energyJ, shortedEnergyJ, averagePowerW } = duty;
  return {
    partId: resistor.partId,
    timeToThresholdS,
    timeWorstS,
    energyJ,
    shortedEnergyJ,
    averagePowerW,
    fits: reasons.length === 0,
    reasons,
  };
}
