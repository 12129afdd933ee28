import { circuitDefaults } from '../../model/document';
import type { Suggestion } from '../../ground/finding';
import { partKey, type PartOf } from '../../model/parts';
import { adviceOf, Inputs, judge, type Ranking, type Reader, type StepDefinition } from '../../model/step';
import { busOf } from './bus-step';
import {
  noResistorFits,
  prechargeChooseOnBus,
  type PrechargeChooseInput,
  type RankedResistor,
} from './choose';
import { resistorNeeds, type ResistorPlace } from './criteria';
import { fillingCircuits } from './path-step';
import { prechargeDefaults } from './precharge';
import { capacitanceOf, chosenResistor, packHighest, readLoad } from './places';

/** The choice among the library’s resistors and the chosen one, for one circuit. */
function chooseInputs(subject: string, read: Reader, chosen: PartOf<'resistor'> | null): Inputs {
  const circuit = read.at('circuits', subject)!;
  const at = `circuits.${subject}`;
  const bus = busOf({ circuits: read.at('circuits') }, subject);
  const inputs = new Inputs(read);
  inputs.figure('packVoltageV', packHighest);
  inputs.figure('busCapacitanceF', capacitanceOf(bus));
  readLoad(inputs, read, bus);
  inputs.optional('thresholdFraction', circuit.thresholdFraction, `${at}.thresholdFraction`, 'threshold');
  inputs.orDefault(
    'wantedTimeS',
    circuit.wantedTimeS,
    circuitDefaults.wantedTimeS,
    `${at}.wantedTimeS`,
    'wanted time',
  );
  inputs.orDefault('timeoutS', circuit.timeoutS, prechargeDefaults.timeoutS, `${at}.timeoutS`, 'time limit');
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

/** Resistors that could take the place of the chosen one, ranked when somebody looks. */
export function resistorRanking(
  subject: string,
  read: Reader,
  chosen: PartOf<'resistor'>,
  place: ResistorPlace,
): Ranking {
  const inputs = chooseInputs(subject, read, chosen);
  const parts = read.parts('resistor');
  const key = partKey(chosen);
  return () => {
    const { result } = inputs.run(prechargeChooseOnBus);
    const others = (result?.ranked ?? []).filter(({ partId }) => partId !== key);
    return {
      suggestions: suggestionsOf(others, parts).slice(0, 4),
      ...(result !== null && { needs: resistorNeeds(place, result.idealResistanceOhm) }),
    };
  };
}

const suggestionsOf = (
  ranked: readonly RankedResistor[],
  parts: readonly PartOf<'resistor'>[],
): Suggestion[] =>
  ranked.map(({ partId, fits, reasons }) => ({
    partKey: partId,
    label: parts.find((part) => partKey(part) === partId)?.label ?? partId,
    fits,
    reasons,
  }));

/** The ranking behind the choice, for the station's list. */
export const choiceStep: StepDefinition = {
  id: 'precharge.choice',
  version: 2,
  subjects: fillingCircuits,
  compute(subject, read) {
    const chosen = chosenResistor(read, read.at('circuits', subject, 'resistor'));
    const run = chooseInputs(subject, read, chosen).run(prechargeChooseOnBus);
    const figures = run.figures('precharge.choice', subject, [
      { name: 'idealResistanceOhm', symbol: 'R', label: 'Resistance for the wanted time', unit: 'Ω' },
    ]);
    const ranked = run.result?.ranked ?? [];
    // Once one is chosen, its own criteria say what fails.
    const nothing = chosen === null && run.result !== null && !ranked.some(({ fits }) => fits);
    const check = judge(
      noResistorFits,
      [subject],
      run.gaps,
      nothing ? `None of the ${ranked.length} resistors of the library fits.` : null,
      [{ label: 'resistors of the library', value: ranked.length, unit: '' }],
      nothing
        ? {
            suggestions: suggestionsOf(ranked, read.parts('resistor')).slice(0, 4),
            advice: adviceOf(resistorNeeds(run.input!, run.result.idealResistanceOhm)),
          }
        : {},
    );
    return run.output(figures, [check]);
  },
};
