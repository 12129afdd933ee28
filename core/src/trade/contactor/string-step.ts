import { rulesOf } from '../../ground/finding';
import { figureId, type Gap } from '../../ground/figure';
import { partKey, type ContactorData } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { mainCircuit, startLowOf } from '../../model/document';
import { carryTimeS, stringLoadOf } from '../fuse';
import { criteriaChecks, gapsBehind, judge, type Criterion, type StepDefinition } from '../../model/step';
import { contactorCriteria, contactorNeeds, rankContactors, type ContactorPlace } from './choose';
import { coilDefaults, coilOf, coilRules, dropsOutCheck } from './coil';
import { contactorRules as rules } from './rules';

const rule = rulesOf('contactor');

export const loadRules = {
  peak: rule(
    'carry-peak',
    'mend',
    'The contactors do not carry the peak for as long as it lasts',
    'Contacts heat within seconds: what the mean square forgives welds them at each climb.',
    'Contactors with a longer short-time curve, or a shorter peak.',
    'Contactor makers’ short-time curves',
  ),
  break: rule(
    'load-above-break',
    'mend',
    'The contactors do not break the load they carry',
    'An emergency stop opens them at whatever flows: an arc that is not broken burns on in the box.',
    'Contactors that break the peak load at the pack’s voltage.',
    'Contactor makers’ breaking capacity',
  ),
  parting: rule(
    'strings-not-parted',
    'mend',
    'Strings side by side are joined for good',
    'A weak or shorted string is fed by the others at every hour, and strings of unlike charge are joined by a spanner.',
    'Contactors in each string, which close only when the voltages agree.',
    'Practice of the trade',
  ),
};

const n = formatNumber;

/** What a load asks beside its mean square: the longest stretch at its peak, and the peak as a load that has to be broken. */
export function loadCriteria(
  data: ContactorData,
  profile: readonly (readonly [number, number])[] | undefined,
  share = 1,
): Criterion[] {
  const steps = (profile ?? []).map(([durationS, amps]) => ({ durationS, amps: Math.abs(amps) * share }));
  const peakA = steps.reduce((most, { amps }) => Math.max(most, amps), 0);
  const worst = steps
    .filter(({ amps }) => amps > data.continuousA)
    .map((step) => ({
      ...step,
      carryS: data.shortTime === undefined ? null : carryTimeS(data.shortTime, step.amps),
    }))
    .find(({ durationS, carryS }) => carryS !== null && durationS > carryS);
  return [
    {
      rule: loadRules.peak,
      problem:
        worst === undefined
          ? null
          : `carries ${n(worst.amps)} A for ${formatQuantity(worst.carryS!, 's')}; the load asks for ${formatQuantity(worst.durationS, 's')}`,
      values: [
        { label: 'peak of the load', value: worst?.amps ?? peakA, unit: 'A' },
        { label: 'for', value: worst?.durationS ?? 0, unit: 's' },
        { label: 'carried for', value: worst?.carryS ?? 0, unit: 's' },
      ],
    },
    {
      rule: loadRules.break,
      problem: peakA > data.breakA ? `breaks ${n(data.breakA)} A; the load rises to ${n(peakA)} A` : null,
      values: [
        { label: 'peak of the load', value: peakA, unit: 'A' },
        { label: 'breaking capacity of the contactors', value: data.breakA, unit: 'A' },
      ],
    },
  ];
}

/** The contactors of each string: the pack’s voltage, the string’s share of the load, the 12 V of a start. */
export const stringContactorStep: StepDefinition = {
  id: 'contactor.string',
  version: 1,
  subjects: (design) => Object.keys(design.strings).filter((id) => design.strings[id]!.modules.length > 0),
  compute(subject, read) {
    const strings = read.at('strings');
    const string = strings[subject]!;
    const count = Object.values(strings).filter(({ modules }) => modules.length > 0).length;
    const part = read.at('parts', string.contactor ?? '');
    const chosen = part?.kind === 'contactor' ? part : null;
    const { contactorPoles = chosen === null ? 'none' : 'both' } = string;
    const bare = contactorPoles === 'none';
    const parting = judge(
      loadRules.parting,
      [subject],
      [],
      count > 1 && bare
        ? `${string.tag} is 1 of ${count} strings, and no contactor parts it from the others.`
        : null,
      [{ label: 'strings', value: count, unit: '' }],
    );
    if (bare) return { figures: [], checks: [parting] };
    if (chosen === null) {
      // Poles are said to be switched, and by what is not.
      const missing: Gap[] = [
        { kind: 'not-given', path: `strings.${subject}.contactor`, label: `contactors of ${string.tag}` },
      ];
      const open = [
        ...[rules.voltage, rules.carry, coilRules.pullIn, coilRules.dropsOut],
        ...[loadRules.peak, loadRules.break],
      ];
      return { figures: [], checks: [parting, ...open.map((one) => judge(one, [subject], missing, null))] };
    }
    const settings = read.at('settings');
    const voltage = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const load = stringLoadOf(read);
    const profile = read.at('circuits', mainCircuit, 'loadProfile');
    const place: ContactorPlace = {
      busVoltageV: voltage.value,
      loadA: load.rmsA,
      inrushA: null,
      filled: true,
      faultMinA: null,
      faultMaxA: null,
      fuse: null,
      startLowV: startLowOf(settings),
      coilC: settings.coilC ?? coilDefaults.coilC,
    };
    const { data, label } = chosen;
    const gaps = new Map<Criterion['rule'], Gap[]>([
      [rules.voltage, voltage.value === null ? gapsBehind(voltage) : []],
      [rules.carry, load.gaps],
      [
        coilRules.pullIn,
        coilOf(data) === null
          ? [{ kind: 'not-given', path: `strings.${subject}.contactor`, label: 'coil data of the contactor' }]
          : [],
      ],
    ]);
    const criteria = [
      ...contactorCriteria(data, place)
        .filter(({ rule: of }) => gaps.has(of))
        .map((one) => ({ ...one, gaps: gaps.get(one.rule)! })),
      ...loadCriteria(data, profile, 1 / count).map((one) => ({ ...one, gaps: load.gaps })),
    ];
    return {
      figures: [],
      checks: [
        parting,
        dropsOutCheck(subject, gaps.get(coilRules.pullIn)!, [chosen]),
        ...criteriaChecks(criteria, {
          subjects: [subject],
          partKey: partKey(chosen),
          label,
          replacements: () => {
            const parts = read.parts('contactor');
            return () => ({
              suggestions: rankContactors(
                parts.filter((one) => partKey(one) !== partKey(chosen)),
                place,
              ).slice(0, 4),
              needs: contactorNeeds(place, data),
            });
          },
        }),
      ],
    };
  },
};
