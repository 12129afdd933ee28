import { everyCircuit } from '../document';
import { judge, type StepDefinition } from '../step';
import { cableDuty } from './duty';
import { chosenCablePart, placeInputs, setCable, waysOf } from './ways';

/** Periods that are walked: the conductor has settled long before. */
const dutyPeriods = 400;

/** The conductor over its repeated load, in the hottest part of its way: what the mean square hides. */
export const dutyStep: StepDefinition = {
  id: 'conductor.duty',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const chosen = chosenCablePart(read, circuit.cable);
    const profile = circuit.loadProfile;
    const runs = waysOf(circuit, subject).map((way) => {
      const inputs = placeInputs(way, circuit, read);
      if (chosen === null) inputs.missing({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
      else setCable(inputs, chosen);
      inputs.given(
        'profile',
        profile === undefined || profile.length === 0 ? undefined : profile,
        `${at}.loadProfile`,
        'load profile',
      );
      // The temperature does not depend on it; reading the pack's would make every change of the pack run this again.
      inputs.set('busVoltageV', 1, { kind: 'constant', source: 'not in the temperature' });
      inputs.set('repeat', dutyPeriods, { kind: 'constant', source: 'until it has settled' });
      return { way, run: inputs.run(cableDuty) };
    });
    /** Beyond 400 °C is hotter than anything. */
    const heat = ({ result }: (typeof runs)[number]['run']) =>
      result === null ? -Infinity : (result.peakTemperatureC ?? Infinity);
    const open = runs.find(({ run }) => run.gaps.length > 0);
    const { way, run } = open ?? runs.reduce((most, one) => (heat(one.run) > heat(most.run) ? one : most));
    const figures = run.figures('conductor.duty', subject, [
      {
        name: 'peakTemperatureC',
        symbol: 'T_pk',
        label: 'Hottest over the load',
        unit: '°C',
        ...(chosen !== null && { limit: { max: chosen.data.conductorMaxC } }),
      },
    ]);
    const checks = run.checks(
      [subject],
      [
        { label: 'hottest conductor', value: run.result?.peakTemperatureC ?? 0, unit: '°C' },
        { label: 'limit of the insulation', value: chosen?.data.conductorMaxC ?? 0, unit: '°C' },
      ],
    );
    return run.output(
      figures,
      way.tag === null
        ? checks
        : checks.map((check) =>
            check.state === 'raised'
              ? judge(check.rule, [subject], [], `${way.tag}: ${check.message}`, check.values)
              : check,
          ),
    );
  },
};
