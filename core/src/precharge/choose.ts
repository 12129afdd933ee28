import { defineCalculator, list, number, record, text } from '../calculator';
import { defineRule } from '../finding';
import { formatQuantity } from '../quantity';

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
  wantedTimeS: number;
  timeoutS: number;
  /** 3 by default. */
  attemptsPerMinute: number;
  resistors: ResistorCandidate[];
}

export interface RankedResistor {
  partId: string;
  timeToThresholdS: number;
  /** With the resistance at the top of its tolerance. */
  timeWorstS: number;
  /** ½CV²: what one run puts into the resistor. */
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
  door: {
    schema: record({
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
    }),
    defaults: { thresholdFraction: 0.95, attemptsPerMinute: 3 },
    cross(input: PrechargeChooseInput, issue) {
      const seen = new Set<string>();
      input.resistors.forEach(({ partId }, i) => {
        if (seen.has(partId)) issue(`resistors.${i}.partId`, 'repeats an id of the list');
        seen.add(partId);
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { packVoltageV, busCapacitanceF, thresholdFraction, wantedTimeS } = input;
    const constants = -Math.log1p(-thresholdFraction);
    const C = { symbol: 'C', value: busCapacitanceF, unit: 'F', from: 'busCapacitanceF' };
    const idealResistanceOhm = sheet.add({
      symbol: 'R',
      label: 'Resistance for the wanted time',
      formula: 't_w/(C·(−ln(1 − p)))',
      inputs: [
        { symbol: 't_w', value: wantedTimeS, unit: 's', from: 'wantedTimeS' },
        C,
        { symbol: 'p', value: thresholdFraction, unit: 'fraction', from: 'thresholdFraction' },
      ],
      value: wantedTimeS / (busCapacitanceF * constants),
      unit: 'Ω',
      source: 'First-order RC circuit',
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
    const averagePowerW = sheet.add({
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
    const judged = input.resistors.map((resistor) =>
      judgeResistor(resistor, input, constants, energyJ, averagePowerW),
    );
    const ranked = judged
      .map((one, order) => ({ one, order, away: Math.abs(one.timeToThresholdS - wantedTimeS) }))
      .sort((a, b) => Number(b.one.fits) - Number(a.one.fits) || a.away - b.away || a.order - b.order)
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
  },
});

function judgeResistor(
  resistor: ResistorCandidate,
  input: PrechargeChooseInput,
  constants: number,
  energyJ: number,
  averagePowerW: number,
): RankedResistor {
  const { packVoltageV, busCapacitanceF, timeoutS } = input;
  const timeToThresholdS = resistor.resistanceOhm * busCapacitanceF * constants;
  const timeWorstS = timeToThresholdS * (1 + resistor.toleranceFraction);
  const shortedEnergyJ =
    (packVoltageV ** 2 / (resistor.resistanceOhm * (1 - resistor.toleranceFraction))) * timeoutS;
  const reasons: string[] = [];
  const q = formatQuantity;
  if (timeWorstS >= timeoutS) {
    reasons.push(`needs up to ${q(timeWorstS, 's')}, not less than the limit of ${q(timeoutS, 's')}`);
  }
  if (energyJ > resistor.pulseEnergyJ) {
    reasons.push(`a run takes ${q(energyJ, 'J')}, its pulse rating is ${q(resistor.pulseEnergyJ, 'J')}`);
  }
  if (shortedEnergyJ > resistor.pulseEnergyJ) {
    reasons.push(
      `a shorted bus puts ${q(shortedEnergyJ, 'J')} into it, its pulse rating is ${q(resistor.pulseEnergyJ, 'J')}`,
    );
  }
  if (averagePowerW > resistor.continuousW) {
    reasons.push(
      `repeated starts average ${q(averagePowerW, 'W')}, it takes ${q(resistor.continuousW, 'W')}`,
    );
  }
  if (packVoltageV > resistor.maxVoltageV) {
    reasons.push(`the pack reaches ${q(packVoltageV, 'V')}, it is made for ${q(resistor.maxVoltageV, 'V')}`);
  }
  const { partId } = resistor;
  return {
    partId,
    timeToThresholdS,
    timeWorstS,
    energyJ,
    shortedEnergyJ,
    averagePowerW,
    fits: reasons.length === 0,
    reasons,
  };
}
