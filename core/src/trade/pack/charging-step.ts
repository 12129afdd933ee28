import { rulesOf, type CheckValue } from '../../ground/finding';
import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { mainCircuit } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { readPackLayout } from './layout';

const rule = rulesOf('pack');

export const chargingRules = {
  charge: rule(
    'charge-current',
    'mend',
    'The pack is charged with more than its modules take for long',
    'Lithium that finds no place in the anode plates on it: the cell loses capacity, and in the end shorts inside.',
    'A lower limit in charger and monitor, or more strings side by side.',
    'Module maker’s charging current',
  ),
  regen: rule(
    'regen-peak',
    'mend',
    'Braking sends back more than the modules take',
    'Full or cold cells take far less than they give: the braking that one relies on is cut off, or the cells suffer.',
    'A lower limit of regeneration, lower still for a cold and for a full pack.',
    'Module maker’s charging current for 10 s',
  ),
  regenBelowLoad: rule(
    'regen-below-load',
    'mend',
    'The load brakes harder than the pack is said to be charged',
    'The cells are judged by less than what really flows into them.',
    'The peak of braking as the load has it.',
    'Load profile of the main circuit',
  ),
};

/** What flows into the pack against what its modules take. */
export const chargingStep: StepDefinition = {
  id: 'pack.charging',
  version: 1,
  subjects: () => ['pack'],
  compute(subject, read) {
    const { regenPeakA, chargeA } = read.at('pack');
    const profile = read.at('circuits', mainCircuit, 'loadProfile') ?? [];
    const { layout, gaps } = readPackLayout(read);
    const strings = layout?.strings ?? 0;
    const { chargeA: moduleA, chargePeakA: modulePeakA } = layout?.part.data ?? {};
    const of = layout?.part.label ?? '';
    const missing = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });
    const unsaid = (value: number | undefined, label: string): Gap[] =>
      layout !== null && value === undefined ? [missing(`parts.${layout.key}`, `${label} of ${of}`)] : [];
    const noRegen =
      regenPeakA === undefined ? [missing('pack.regenPeakA', 'current that braking sends back')] : [];
    const loadA = profile.reduce((most, [, amps]) => Math.max(most, -amps), 0);
    const n = formatNumber;
    const v = (label: string, value: number): CheckValue => ({ label, value, unit: 'A' });
    const side: CheckValue = { label: 'strings', value: strings, unit: '' };
    const takesA = (moduleA ?? 0) * strings;
    const takesPeakA = (modulePeakA ?? 0) * strings;
    return {
      figures: [],
      checks: [
        judge(
          chargingRules.charge,
          [subject],
          [
            ...gaps,
            ...(chargeA === undefined ? [missing('pack.chargeA', 'current that charges the pack')] : []),
            ...unsaid(moduleA, 'charging current'),
          ],
          (chargeA ?? 0) > takesA
            ? `Charged with ${n(chargeA ?? 0)} A; ${n(strings)} × ${of} take ${n(takesA)} A for long.`
            : null,
          [v('charged with', chargeA ?? 0), v('modules take for long', takesA), side],
        ),
        judge(
          chargingRules.regen,
          [subject],
          [...gaps, ...noRegen, ...unsaid(modulePeakA, 'charging current for 10 s')],
          (regenPeakA ?? 0) > takesPeakA
            ? `Braking sends back ${n(regenPeakA ?? 0)} A; ${n(strings)} × ${of} take ${n(takesPeakA)} A for seconds.`
            : null,
          [v('braking sends back', regenPeakA ?? 0), v('modules take for seconds', takesPeakA), side],
        ),
        judge(
          chargingRules.regenBelowLoad,
          [subject],
          noRegen,
          regenPeakA !== undefined && loadA > regenPeakA * 1.001
            ? `The load sends back up to ${n(loadA)} A; ${n(regenPeakA)} A are said.`
            : null,
          [v('load sends back', loadA), v('said', regenPeakA ?? 0)],
        ),
      ],
    };
  },
};
