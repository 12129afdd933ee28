import { mainCircuits } from '../document';
import type { Suggestion } from '../finding';
import { figureId, type Check, type Figure, type Gap, type TracedInput } from '../figure';
import { partKey, type PartOf } from '../parts';
import { formatNumber, formatQuantity } from '../quantity';
import { onMainBus } from '../network';
import { gapsBehind, Inputs, judge, type Reader, type StepDefinition } from '../step';
import { busDischarge } from './bus-discharge';
import { prechargeChoose, type PrechargeChooseInput } from './choose';
import { precharge, type PrechargeInput } from './precharge';
import { bareTimer, bleedHeat, chosenResistor } from './rules';
import { timerAgainstVoltage, type BusCase } from './sequence';

/** What all devices behind the mains add up to: capacitance, load during pre-charge, bleed. */
const busStep: StepDefinition = {
  id: 'precharge.bus',
  version: 1,
  subjects: () => ['bus'],
  compute(subject, read) {
    const all = read.at('devices');
    const devices = onMainBus({ devices: all, circuits: read.at('circuits') }).map(
      (id) => [id, all[id]!] as const,
    );
    const capacitanceGaps: Gap[] = devices
      .filter(([, device]) => device.busCapacitanceF === undefined)
      .map(([id, device]) => ({
        kind: 'not-given',
        path: `devices.${id}.busCapacitanceF`,
        label: `bus capacitance of ${device.tag}`,
      }));
    if (devices.length === 0)
      capacitanceGaps.push({ kind: 'not-given', path: 'devices', label: 'devices on the bus' });
    const negative = devices.find(([, device]) => (device.busCapacitanceF ?? 0) < 0);
    if (negative) {
      const path = `devices.${negative[0]}.busCapacitanceF`;
      capacitanceGaps.push({
        kind: 'invalid',
        path,
        label: `bus capacitance of ${negative[1].tag}`,
        message: 'must be 0 or more',
      });
    }
    const inputsOf = (
      field: 'busCapacitanceF' | 'bleedOhm' | 'prechargeLoadOhm',
      symbol: string,
      unit: string,
    ): TracedInput[] =>
      devices.flatMap(([id, device], i) => {
        const value = device[field];
        return value === undefined
          ? []
          : [
              {
                symbol: `${symbol}_${i + 1}`,
                value,
                unit,
                origin: { kind: 'document' as const, path: `devices.${id}.${field}` },
              },
            ];
      });
    const parallel = (inputs: TracedInput[]) => 1 / inputs.reduce((sum, { value }) => sum + 1 / value, 0);
    const resistor = (
      name: string,
      label: string,
      field: 'bleedOhm' | 'prechargeLoadOhm',
      gap: Gap,
    ): Figure => {
      const inputs = inputsOf(field, 'R', 'Ω');
      const bad = inputs.find(({ value }) => value <= 0);
      const gaps: Gap[] =
        bad?.origin?.kind === 'document'
          ? [{ kind: 'invalid', path: bad.origin.path, label, message: 'must be above 0' }]
          : inputs.length === 0
            ? [gap]
            : [];
      const value = gaps.length > 0 ? null : parallel(inputs);
      return {
        id: figureId('precharge.bus', subject, name),
        label,
        unit: 'Ω',
        value,
        gaps,
        working:
          value === null
            ? []
            : [
                {
                  symbol: 'R',
                  label,
                  formula: '1/Σ(1/R)',
                  inputs,
                  value,
                  unit: 'Ω',
                  source: 'Resistors in parallel',
                },
              ],
      };
    };
    const capacitors = inputsOf('busCapacitanceF', 'C', 'F');
    const sum = capacitors.reduce((total, { value }) => total + value, 0);
    const source = 'Capacitors in parallel';
    return {
      figures: [
        {
          id: figureId('precharge.bus', subject, 'capacitanceF'),
          label: 'Bus capacitance',
          unit: 'F',
          value: capacitanceGaps.length > 0 ? null : sum,
          gaps: capacitanceGaps,
          working:
            capacitanceGaps.length > 0
              ? []
              : [
                  {
                    symbol: 'C',
                    label: 'Bus capacitance',
                    formula: 'Σ(C)',
                    inputs: capacitors,
                    value: sum,
                    unit: 'F',
                    source,
                  },
                ],
        },
        resistor('bleedOhm', 'Bleed resistance', 'bleedOhm', {
          kind: 'not-given',
          path: 'devices',
          label: 'bleed resistor of any device',
        }),
        resistor('loadOhm', 'Load during pre-charge', 'prechargeLoadOhm', {
          kind: 'never',
          label: 'No device draws during pre-charge',
        }),
      ],
      checks: [],
    };
  },
};

const packHighest = figureId('pack.pack', 'pack', 'voltageMaxV');
const busCapacitance = figureId('precharge.bus', 'bus', 'capacitanceF');

const runStep: StepDefinition = {
  id: 'precharge.run',
  version: 1,
  subjects: mainCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const inputs = new Inputs(read);
    inputs.figure('packVoltageV', packHighest);
    inputs.figure('busCapacitanceF', busCapacitance);
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
    if (read.figure(figureId('precharge.bus', 'bus', 'loadOhm')).value !== null) {
      inputs.figure('parallelLoadOhm', figureId('precharge.bus', 'bus', 'loadOhm'));
    }
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
export function chooseInputs(subject: string, read: Reader, chosen: PartOf<'resistor'> | null): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const inputs = new Inputs(read);
  inputs.figure('packVoltageV', packHighest);
  inputs.figure('busCapacitanceF', busCapacitance);
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
const choiceStep: StepDefinition = {
  id: 'precharge.choice',
  version: 1,
  subjects: mainCircuits,
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

const dischargeStep: StepDefinition = {
  id: 'precharge.discharge',
  version: 1,
  subjects: () => ['bus'],
  compute(subject, read) {
    const settings = read.at('settings');
    const inputs = new Inputs(read);
    inputs.figure('voltageV', packHighest);
    inputs.figure('capacitanceF', busCapacitance);
    inputs.figure('bleedOhm', figureId('precharge.bus', 'bus', 'bleedOhm'));
    inputs.optional('safeVoltageV', settings.touchLimitV, 'settings.touchLimitV', 'touch limit');
    inputs.optional(
      'limitS',
      settings.dischargeLimitS,
      'settings.dischargeLimitS',
      'time allowed after shut-down',
    );
    const run = inputs.run(busDischarge);
    const max = run.input?.limitS;
    const figures = run.figures('precharge.discharge', subject, [
      {
        name: 'timeToSafeS',
        symbol: 't',
        label: 'Time to below the touch limit',
        unit: 's',
        ...(max !== undefined && { limit: { max } }),
      },
      { name: 'energyJ', symbol: 'W', label: 'Energy on the bus', unit: 'J' },
      { name: 'bleedPowerAtVoltageW', symbol: 'P', label: 'Bleed heat', unit: 'W' },
      { name: 'largestBleedOhmForLimit', symbol: 'R_max', label: 'Largest bleed for the limit', unit: 'Ω' },
    ]);
    const values = [
      { label: 'time to below the touch limit', value: run.result?.timeToSafeS ?? 0, unit: 's' },
      { label: 'limit', value: max ?? 0, unit: 's' },
    ];
    const devices = Object.values(read.at('devices'));
    const none = devices.length > 0 && devices.every((device) => device.bleedOhm === undefined);
    const capacitance = read.figure(busCapacitance);
    const noBleed = judge(
      bleedHeat,
      [subject],
      capacitance.value === null ? gapsBehind(capacitance) : [],
      none ? `No device among ${devices.length} on the bus has a bleed resistor entered.` : null,
    );
    return run.output(figures, [...run.checks([subject], values), noBleed]);
  },
};

export const prechargeSteps: StepDefinition[] = [busStep, runStep, choiceStep, dischargeStep];
