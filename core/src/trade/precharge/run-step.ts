import { circuitDefaults } from '../../model/document';
import { partKey } from '../../model/parts';
import { criteriaChecks, Inputs, judge, type StepDefinition } from '../../model/step';
import { busOf, prechargedCircuits } from './bus-step';
import { resistorRanking } from './choice-step';
import { closingFigures } from './closing';
import { resistorCriteria, type ResistorPlace } from './criteria';
import { inrushLoopOf, pathOf } from './path-step';
import { capacitanceOf, chosenResistor, packHighest, readLoad } from './places';
import { precharge, type PrechargeInput } from './precharge';
import { resistorRules } from './rules';
import { judgeActive, judgeTimer } from './start-checks';

export const runStep: StepDefinition = {
  id: 'precharge.run',
  version: 2,
  subjects: prechargedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const bus = busOf({ circuits: read.at('circuits') }, subject);
    const inputs = new Inputs(read);
    inputs.figure('packVoltageV', packHighest);
    inputs.figure('busCapacitanceF', capacitanceOf(bus));
    const resistor = chosenResistor(read, circuit.resistor);
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
    readLoad(inputs, read, bus);
    inputs.optional('thresholdFraction', circuit.thresholdFraction, `${at}.thresholdFraction`, 'threshold');
    inputs.optional('timeoutS', circuit.timeoutS, `${at}.timeoutS`, 'time limit');
    const inrush = inrushLoopOf(read, subject, bus);
    if (inrush.loop !== null) inputs.figure('loopResistanceOhm', pathOf(subject));
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
    const closing = closingFigures(figures, subject, circuit, run, inrush);
    const place = placeOf(run.input, circuit.attemptsPerMinute);
    const criteria = resistor === null || place === null ? null : resistorCriteria(resistor.data, place);
    return run.output(closing, [
      ...(criteria === null
        ? [
            ...run.checks([subject]),
            ...Object.values(resistorRules).map((one) => judge(one, [subject], run.gaps, null)),
          ]
        : criteriaChecks(criteria, {
            subjects: [subject],
            partKey: partKey(resistor!),
            label: resistor!.label,
            replacements: () => resistorRanking(subject, read, resistor!, place!),
          })),
      ...judgeTimer(subject, read, run.input, [...run.gaps, ...inrush.gaps], inrush.loop),
      ...judgeActive(subject, read, bus, run.input, run.gaps),
    ]);
  },
};

/** Starts a minute where the design does not say. */
const defaultAttempts = circuitDefaults.attemptsPerMinute;

const placeOf = (input: PrechargeInput | null, attemptsPerMinute = defaultAttempts): ResistorPlace | null =>
  input === null ? null : { ...input, attemptsPerMinute };
