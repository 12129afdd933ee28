import { everyCircuit } from '../../model/document';
import { figureId } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { partKey } from '../../model/parts';
import { judge, withReplacements, type StepDefinition } from '../../model/step';
import { cableRanking } from './cable-step';
import { cableDuty } from './duty';
import { hottestC } from './heat';
import { dutyPeriods } from './judge-cable';
import { chosenCablePart, placeInputs, setCable, waysOf } from './ways';

/** The conductor over its repeated load, in the hottest part of its way: what the mean square hides. */
export const dutyStep: StepDefinition = {
  id: 'conductor.duty',
  version: 2,
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
    const [load, ampacity] = [
      read.figure(figureId('network.load', subject, 'rmsA')),
      read.figure(figureId('conductor.cable', subject, 'ampacityA')),
    ];
    // What the mean square burns already is said there: one cause is one finding.
    const said = load.value !== null && ampacity.value !== null && load.value > ampacity.value * (1 + 1e-9);
    const values: CheckValue[] = [
      { label: 'hottest over the load', value: run.result?.peakTemperatureC ?? hottestC, unit: '°C' },
      { label: 'limit of the insulation', value: chosen?.data.conductorMaxC ?? 0, unit: '°C' },
      { label: 'load', value: run.result?.rmsA ?? 0, unit: 'A' },
      ...(run.result?.peakTemperatureC === null
        ? [{ label: 'passes 400 °C after', value: run.result.curve.at(-1)![0], unit: 's' }]
        : []),
    ];
    const parts = chosen === null ? [] : [partKey(chosen)];
    const checks = run
      .checks([subject], values, parts)
      .map((check) =>
        check.state !== 'raised'
          ? check
          : said
            ? judge(check.rule, [subject], [], null, values)
            : way.tag === null
              ? check
              : { ...check, message: `${way.tag}: ${check.message}` },
      );
    return run.output(
      figures,
      withReplacements(checks, () => cableRanking(subject, read, chosen)),
    );
  },
};
