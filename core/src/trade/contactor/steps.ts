import { startLowOf, switchedCircuits, type Id } from '../../model/document';
import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { shortTimeRule } from '../fuse';
import { partKey, type ContactorData } from '../../model/parts';
import { mainBus, busOf } from '../precharge';
import { formatNumber } from '../../ground/quantity';
import {
  criteriaChecks,
  gapsBehind,
  judge,
  type Criterion,
  type Reader,
  type StepDefinition,
} from '../../model/step';
import { contactorCriteria, contactorNeeds, rankContactors, type ContactorPlace } from './choose';
import { coilDefaults, coilOf, coilRules, coilStep } from './coil';
import { contactorRules as rules } from './rules';
import { prechargeContactorStep } from './precharge-step';
import { disconnectStep, plugStep } from './separable-step';
import { loadCriteria, loadRules, stringContactorStep } from './string-step';
import { coilSupplyStep } from './supply-step';

/** What flows when the contactors of a circuit close, or null where nothing has to be filled. */
function inrushOf(subject: Id, read: Reader): Figure | null {
  const filled = read.figure(figureId('precharge.run', subject, 'inrushA'));
  if (busOf({ circuits: read.at('circuits') }, subject) === mainBus || filled.value !== null) return filled;
  const direct = read.figure(figureId('precharge.direct', subject, 'inrushA'));
  if (direct.value !== null || direct.gaps.length > 0) return direct;
  return filled.gaps.length > 0 ? filled : null;
}

/** What contactors in a circuit have to hold, with the gaps of each figure behind it. */
function placeOf(subject: Id, read: Reader) {
  const circuit = read.at('circuits', subject)!;
  const settings = read.at('settings');
  const fuse = read.at('parts', circuit.fuse ?? '');
  const fault = (which: string) => read.figure(figureId('fuse.fault', `${subject}/${which}`, 'prospectiveA'));
  const figures = {
    voltage: read.figure(figureId('pack.pack', 'pack', 'voltageMaxV')),
    load: read.figure(figureId('network.load', subject, 'rmsA')),
    inrush: inrushOf(subject, read),
    largest: fault('largest'),
    smallest: fault('smallest'),
  };
  const place: ContactorPlace = {
    busVoltageV: figures.voltage.value,
    loadA: figures.load.value,
    inrushA: figures.inrush?.value ?? null,
    filled: figures.inrush?.id.startsWith('precharge.direct') !== true,
    faultMinA: figures.smallest.value,
    faultMaxA: figures.largest.value,
    fuse: fuse?.kind === 'fuse' ? fuse.data : null,
    startLowV: startLowOf(settings),
    coilC: settings.coilC ?? coilDefaults.coilC,
  };
  return {
    place,
    figures,
    fuseKey: fuse?.kind === 'fuse' ? partKey(fuse) : null,
    profile: circuit.loadProfile,
    // What a bare timer closes on is judged there, as a Stop: one cause is one finding.
    byTimer: circuit.completion === 'timer' && circuit.resistor !== undefined,
  };
}

const behind = (...figures: (Figure | null)[]): Gap[] =>
  figures.flatMap((figure) => (figure !== null && figure.value === null ? gapsBehind(figure) : []));

/** The criteria of the chosen contactors, each with what keeps it from being judged. */
function criteriaOf(
  subject: Id,
  data: ContactorData,
  { place, figures, fuseKey, profile, byTimer }: ReturnType<typeof placeOf>,
): Criterion[] {
  const at = `circuits.${subject}`;
  const notGiven = (field: string, label: string): Gap => ({
    kind: 'not-given',
    path: `${at}.${field}`,
    label,
  });
  const gaps = new Map<Criterion['rule'], Gap[]>([
    [rules.voltage, behind(figures.voltage)],
    [rules.carry, behind(figures.load)],
    [rules.make, behind(figures.inrush)],
    [
      shortTimeRule,
      [
        ...(data.shortTime === undefined ? [notGiven('contactor', 'short-time curve of the contactor')] : []),
        ...(place.fuse === null ? [notGiven('fuse', 'fuse')] : []),
        ...behind(figures.largest, figures.smallest),
      ],
    ],
    [coilRules.pullIn, coilOf(data) === null ? [notGiven('contactor', 'coil data of the contactor')] : []],
  ]);
  const load = loadCriteria(data, profile).map((one) => ({ ...one, gaps: behind(figures.load) }));
  const own = contactorCriteria(data, place)
    .filter(({ rule }) => rule !== rules.make || (figures.inrush !== null && !byTimer))
    .map((one) => ({
      ...one,
      gaps: gaps.get(one.rule) ?? [],
      ...(one.rule === shortTimeRule && fuseKey !== null && { with: [fuseKey] }),
    }));
  return [...own, ...load];
}

/** The contactors against voltage, load, inrush, fuse and the 12 V of a start. */
const contactorStep: StepDefinition = {
  id: 'contactor.main',
  version: 2,
  subjects: switchedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const part = circuit.contactor === undefined ? undefined : read.at('parts', circuit.contactor);
    const chosen = part?.kind === 'contactor' ? part : null;
    const known = placeOf(subject, read);
    const { place, figures } = known;
    const missing: Gap[] =
      chosen === null
        ? [{ kind: 'not-given', path: `circuits.${subject}.contactor`, label: 'contactors' }]
        : [];
    const run =
      place.busVoltageV === null || place.loadA === null
        ? {}
        : { run: { calculator: 'contactor', input: place, result: null } };
    if (chosen === null)
      return {
        figures: [],
        checks: [
          rules.voltage,
          rules.carry,
          ...(figures.inrush === null ? [] : [rules.make]),
          shortTimeRule,
          coilRules.pullIn,
          loadRules.peak,
          loadRules.break,
          rules.faultBreak,
          rules.noAux,
        ].map((rule) => judge(rule, [subject], missing, null)),
        ...run,
      };
    const key = partKey(chosen);
    return {
      figures: [],
      checks: [
        ...criteriaChecks(criteriaOf(subject, chosen.data, known), {
          subjects: [subject],
          partKey: key,
          label: chosen.label,
          replacements: () => {
            const parts = read.parts('contactor');
            const { data } = chosen;
            return () => ({
              suggestions: rankContactors(
                parts.filter((one) => partKey(one) !== key),
                place,
              ).slice(0, 4),
              needs: contactorNeeds(place, data),
            });
          },
        }),
        judgeBreak(subject, chosen.label, chosen.data, figures.largest, key),
        judgeAux(subject, chosen.label, chosen.data, key),
      ],
      ...run,
    };
  },
};

function judgeBreak(
  subject: Id,
  label: string,
  { breakA }: ContactorData,
  largest: Figure,
  key: string,
): Check {
  const value = largest.value ?? 0;
  return judge(
    rules.faultBreak,
    [subject],
    behind(largest),
    value > breakA
      ? `${label} breaks ${formatNumber(breakA)} A; the largest fault is ${formatNumber(value)} A.`
      : null,
    [
      { label: 'largest fault', value, unit: 'A' },
      { label: 'breaking capacity of the contactors', value: breakA, unit: 'A' },
    ],
    { parts: [key] },
  );
}

function judgeAux(
  subject: Id,
  label: string,
  { auxContact, continuousA }: ContactorData,
  key: string,
): Check {
  return judge(
    rules.noAux,
    [subject],
    auxContact === undefined
      ? [
          {
            kind: 'not-given',
            path: `circuits.${subject}.contactor`,
            label: 'auxiliary contact of the contactor',
          },
        ]
      : [],
    auxContact === false
      ? `${label} has no auxiliary contact; ${formatNumber(continuousA)} A may go on flowing unseen.`
      : null,
    [
      { label: 'auxiliary contact', value: auxContact === true ? 1 : 0, unit: '' },
      { label: 'rated current of the contactors', value: continuousA, unit: 'A' },
    ],
    { parts: [key] },
  );
}

export const contactorSteps: StepDefinition[] = [
  contactorStep,
  coilStep,
  stringContactorStep,
  prechargeContactorStep,
  coilSupplyStep,
  disconnectStep,
  plugStep,
];
