import { mainCircuits } from '../document';
import type { Suggestion } from '../finding';
import { figureId, type Check, type Gap } from '../figure';
import { partKey, type PartOf } from '../parts';
import { formatNumber, formatQuantity } from '../quantity';
import { Inputs, judge, type Reader, type StepDefinition } from '../step';
import { busOf, ownBuses, prechargedCircuits } from './bus-step';
import { prechargeChoose, type PrechargeChooseInput } from './choose';
import { packHighest, capacitanceOf } from './places';
import { precharge, type PrechargeInput } from './precharge';
import { bareTimer, chosenResistor } from './rules';
import { timerAgainstVoltage, type BusCase } from './sequence';

export const runStep: StepDefinition = {
  id: 'precharge.run',
  version: 1,
  subjects: prechargedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const bus = busOf({ circuits: read.at('circuits') }, subject);
    const inputs = new Inputs(read);
    inputs.figure('packVoltageV', packHighest);
    inputs.figure('busCapacitanceF', capacitanceOf(bus));
    const resistor = chosenPart(read, circuit.resistor);
    if (resistor === null)
      inputs.missing({ kind: 'not-given', path: `${at}.resistor`, label: 'pre-charge resistor' });
    else {
      const key = partKey(resistor);
      inputs.set(
        'resistanceOhm',
        resistor.data.resistanceOhm,
        { kind: 'part', key, path: 'resistanceOhm' },
        'resistance',
      );
    }
    const load = figureId('precharge.bus', bus, 'loadOhm');
    if (read.figure(load).value !== null) inputs.figure('parallelLoadOhm', load);
    inputs.optional('thresholdFraction', circuit.thresholdFraction, `${at}.thresholdFraction`, 'threshold');
    inputs.optional('timeoutS', circuit.timeoutS, `${at}.timeoutS`, 'time limit');
    inputs.optional(
      'loopResistanceOhm',
      circuit.loopResistanceOhm,
      `${at}.loopResistanceOhm`,
      'loop resistance',
    );
    const run = inputs.run(precharge);
    const limitS = run.input?.timeoutS;
    const pulseJ = resistor?.data.pulseEnergyJ;
    const figures = run.figures('precharge.run', subject, [
      { name: 'timeConstantS', symbol: 'τ', label: 'Pre-charge time constant', unit: 's' },
      { name: 'finalVoltageV', symbol: 'V_f', label: 'Final bus voltage', unit: 'V' },
      {
        name: 'timeToThresholdS',
        symbol: 't_p',
        label: 'Time to threshold',
        unit: 's',
        ...(limitS !== undefined && { limit: { max: limitS } }),
      },
      { name: 'peakCurrentA', symbol: 'I_0', label: 'Peak current', unit: 'A' },
      { name: 'peakPowerW', symbol: 'P_0', label: 'Peak power', unit: 'W' },
      {
        name: 'resistorEnergyJ',
        symbol: 'W_R',
        label: 'Resistor energy, this run',
        unit: 'J',
        ...(pulseJ !== undefined && { limit: { max: pulseJ } }),
      },
      {
        name: 'busShortedEnergyJ',
        symbol: 'W_s',
        label: 'Resistor energy, bus shorted',
        unit: 'J',
        ...(pulseJ !== undefined && { limit: { max: pulseJ } }),
      },
      { name: 'voltageAtCloseV', symbol: 'v', label: 'Bus voltage when the main closes', unit: 'V' },
      { name: 'inrushA', symbol: 'I_in', label: 'Inrush when the main closes', unit: 'A' },
    ]);
    const values = [
      { label: 'bus capacitance', value: run.input?.busCapacitanceF ?? 0, unit: 'F' },
      { label: 'highest pack voltage', value: run.input?.packVoltageV ?? 0, unit: 'V' },
      { label: 'resistance', value: run.input?.resistanceOhm ?? 0, unit: 'Ω' },
    ];
    return run.output(figures, [
      ...run.checks([subject], values),
      judgeChoice(subject, read, resistor, values),
      judgeTimer(subject, read, run.input, run.gaps),
    ]);
  },
};

function chosenPart(read: Reader, key: string | undefined): PartOf<'resistor'> | null {
  const part = key === undefined ? undefined : read.at('parts', key);
  return part?.kind === 'resistor' ? part : null;
}

/** What a bare timer would close on, where one is chosen. */
function judgeTimer(subject: string, read: Reader, input: PrechargeInput | null, runGaps: Gap[]): Check {
  const { completion, timerS } = read.at('circuits', subject)!;
  if (completion !== 'timer') return judge(bareTimer, [subject], runGaps, null);
  const missing: Gap[] =
    timerS === undefined || !(timerS > 0)
      ? [{ kind: 'not-given', path: `circuits.${subject}.timerS`, label: 'timer' }]
      : [];
  const gaps = [...runGaps, ...missing];
  if (gaps.length > 0 || input === null) return judge(bareTimer, [subject], gaps, null);
  const [designed, , loaded] = timerAgainstVoltage(input, timerS!) as [BusCase, BusCase, BusCase];
  const n = formatNumber;
  const message = `After ${n(timerS!)} s the bus as designed is at ${n(designed.timer.voltageV)} V; with ${loaded.label} it is at ${n(loaded.timer.voltageV)} V, and ${formatQuantity(loaded.timer.inrushA, 'A')} flow when the main closes.`;
  return judge(bareTimer, [subject], [], message, [
    { label: 'timer', value: timerS!, unit: 's' },
    { label: 'bus at the timer', value: designed.timer.voltageV, unit: 'V' },
  ]);
}

/** The choice among the catalogue's resistors and the chosen one, for one circuit. */
function chooseInputs(subject: string, read: Reader, chosen: PartOf<'resistor'> | null): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const inputs = new Inputs(read);
  inputs.figure('packVoltageV', packHighest);
  inputs.figure('busCapacitanceF', capacitanceOf(busOf({ circuits: read.at('circuits') }, subject)));
  inputs.optional('thresholdFraction', circuit.thresholdFraction, `${at}.thresholdFraction`, 'threshold');
  inputs.orDefault('wantedTimeS', circuit.wantedTimeS, 0.3, `${at}.wantedTimeS`, 'wanted time');
  inputs.orDefault('timeoutS', circuit.timeoutS, 3, `${at}.timeoutS`, 'time limit');
  inputs.optional(
    'attemptsPerMinute',
    circuit.attemptsPerMinute,
    `${at}.attemptsPerMinute`,
    'attempts per minute',
  );
  const parts = read.parts('resistor');
  const all =
    chosen === null || parts.some((part) => partKey(part) === partKey(chosen)) ? parts : [chosen, ...parts];
  const resistors: PrechargeChooseInput['resistors'] = all.map((part) => ({
    partId: partKey(part),
    ...part.data,
  }));
  inputs.set('resistors', resistors, { kind: 'constant', source: 'the library' }, 'resistors');
  return inputs;
}

function judgeChoice(
  subject: string,
  read: Reader,
  chosen: PartOf<'resistor'> | null,
  values: { label: string; value: number; unit: string }[],
): Check {
  const inputs = chooseInputs(subject, read, chosen);
  if (chosen === null)
    inputs.missing({ kind: 'not-given', path: `circuits.${subject}.resistor`, label: 'pre-charge resistor' });
  const run = inputs.run(prechargeChoose);
  const own = run.result?.ranked.find(({ partId }) => chosen !== null && partId === partKey(chosen));
  const message = own === undefined || own.fits ? null : `${chosen?.label}: ${own.reasons.join('; ')}.`;
  const suggestions: Suggestion[] = (run.result?.ranked ?? [])
    .filter(({ partId }) => chosen === null || partId !== partKey(chosen))
    .slice(0, 4)
    .map(({ partId, fits, reasons }) => ({
      partKey: partId,
      label: read.parts('resistor').find((part) => partKey(part) === partId)?.label ?? partId,
      fits,
      reasons,
    }));
  return judge(chosenResistor, [subject], run.gaps, message, values, message === null ? [] : suggestions);
}

/** The ranking behind the choice, for the station's list. */
export const choiceStep: StepDefinition = {
  id: 'precharge.choice',
  version: 1,
  subjects: (design) => [...mainCircuits(design), ...ownBuses(design)],
  compute(subject, read) {
    const run = chooseInputs(subject, read, chosenPart(read, read.at('circuits', subject, 'resistor'))).run(
      prechargeChoose,
    );
    const figures = run.figures('precharge.choice', subject, [
      { name: 'idealResistanceOhm', symbol: 'R', label: 'Resistance for the wanted time', unit: 'Ω' },
    ]);
    return run.output(figures, run.checks([subject]));
  },
};
