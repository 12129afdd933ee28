import { leadDefaults, mainCircuit, type Id, type LeadItem } from '../../model/document';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { rulesOf, type CheckValue } from '../../ground/finding';
import { logSpaced } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import { partKey, type PartOf } from '../../model/parts';
import { gapsBehind, Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { clearingTimeS, faultPoints, stringLoadOf } from '../fuse';
import { cable } from './cable';
import { leadEndChecks } from './lead-ends';
import { chosenCablePart, setCable } from './ways';

const rule = rulesOf('cable');

export const leadRules = {
  withstand: rule(
    'pack-cable-fault',
    'mend',
    'A cable of the pack burns before its fuse clears',
    'A short behind it is fed by the modules themselves: nothing but this fuse ends it.',
    'A larger area, or a faster fuse in the string.',
    '(k·S)² against what the fuse lets through, from the smallest fault to the largest',
  ),
  noFuse: rule(
    'pack-cable-unfused',
    'mend',
    'A cable of the pack is protected by no fuse',
    'A short behind it is fed by the modules until something burns through.',
    'A fuse in the string, as near the middle as it can be reached.',
    'Fuses of strings and of the main circuit',
  ),
  place: rule(
    'pack-cable-place',
    'mend',
    'A cable of the pack is said to lie at a joint that is not there',
    'It is counted into a string that it is not in.',
    'The joint as the string has it: 0 at the negative end, as many as modules at the positive.',
    'Joints of the string',
  ),
};

const n = formatNumber;
const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });

/** The fuse that ends a fault behind a cable of the pack: its string’s, else the main one. */
function fuseOf(read: Reader, { string }: LeadItem): PartOf<'fuse'> | null {
  const own = read.at('parts', string === undefined ? '' : (read.at('strings')[string]?.fuse ?? ''));
  if (own?.kind === 'fuse') return own;
  const main = read.at('parts', read.at('circuits', mainCircuit, 'fuse') ?? '');
  return main?.kind === 'fuse' ? main : null;
}

/** Each cable inside the pack: heat, fault, lugs, gland, conduit. */
export const packLeadStep: StepDefinition = {
  id: 'conductor.lead',
  version: 1,
  subjects: ({ pack }) => Object.keys(pack.leads ?? {}),
  compute(subject, read) {
    const lead = read.at('pack').leads![subject]!;
    const at = `pack.leads.${subject}`;
    const chosen = chosenCablePart(read, lead.cable);
    const share = stringLoadOf(read);
    const whole = read.figure(figureId('network.load', mainCircuit, 'rmsA'));
    const currentA = lead.string === undefined ? whole.value : share.rmsA;
    const inputs = new Inputs(read);
    inputs.given('lengthM', lead.lengthM, `${at}.lengthM`, `length of ${lead.tag}`);
    inputs.given('ambientC', lead.ambientC, `${at}.ambientC`, `ambient of ${lead.tag}`);
    inputs.orDefault('install', lead.install, 'free-air', `${at}.install`, 'installation');
    inputs.optional(
      'conduitInnerMm',
      lead.conduitInnerMm,
      `${at}.conduitInnerMm`,
      'inner diameter of the conduit',
    );
    inputs.optional(
      'conduitOuterMm',
      lead.conduitOuterMm,
      `${at}.conduitOuterMm`,
      'outer diameter of the conduit',
    );
    inputs.optional('parallel', lead.parallel, `${at}.parallel`, 'conductors in parallel');
    inputs.orDefault('grouped', lead.grouped, leadDefaults.grouped, `${at}.grouped`, 'cables that touch');
    inputs.figure('busVoltageV', figureId('pack.pack', 'pack', 'voltageNominalV'));
    if (currentA === null) inputs.missing(...share.gaps);
    else inputs.set('currentA', currentA, { kind: 'figure', id: whole.id }, 'load of the string');
    if (chosen === null)
      inputs.missing({ kind: 'not-given', path: `${at}.cable`, label: `cable of ${lead.tag}` });
    else setCable(inputs, chosen);
    const run = inputs.run(cable);
    const parts = chosen === null ? [] : [partKey(chosen)];
    const { input, result } = run;
    return run.output(
      run.figures('conductor.lead', subject, [
        { name: 'ampacityA', symbol: 'I_z', label: 'Ampacity', unit: 'A' },
        {
          name: 'conductorTemperatureC',
          symbol: 'T',
          label: 'Conductor temperature',
          unit: '°C',
          ...(chosen !== null && { limit: { max: chosen.data.conductorMaxC } }),
        },
      ]),
      [
        ...run.checks(
          [subject],
          input === null || result === null
            ? []
            : [
                v('load', input.currentA, 'A'),
                v('ampacity', result.ampacityA, 'A'),
                v('limit of the insulation', input.conductorMaxC, '°C'),
              ],
          parts,
        ),
        placeCheck(subject, lead, read),
        ...leadEndChecks(subject, lead, chosen, result?.conductorTemperatureC ?? null, run.gaps, read),
      ],
    );
  },
};

/** The same against the faults of the pack: apart, for those move with every cable behind the mains. */
export const leadFaultStep: StepDefinition = {
  id: 'conductor.lead-fault',
  version: 1,
  subjects: ({ pack }) => (Object.keys(pack.leads ?? {}).length > 0 ? ['leads'] : []),
  compute(_subject, read) {
    const through = lettingThrough();
    return {
      figures: [],
      checks: Object.entries(read.at('pack').leads ?? {}).flatMap(([id, lead]) =>
        faultChecks(id, lead, chosenCablePart(read, lead.cable), read, through),
      ),
    };
  },
};

type LetThrough = (fuse: PartOf<'fuse'>, minA: number, maxA: number) => number;

/** The most a fuse lets through between two faults, A²s; Infinity: it does not clear them all. Cables of one string share it. */
function lettingThrough(): LetThrough {
  const known = new Map<string, number>();
  return (fuse, minA, maxA) => {
    const key = `${partKey(fuse)} ${minA} ${maxA}`;
    const found =
      known.get(key) ??
      logSpaced(minA, maxA, faultPoints).reduce((most, currentA) => {
        const clearS = clearingTimeS(fuse.data, currentA);
        return Math.max(most, clearS === null ? Infinity : currentA ** 2 * clearS);
      }, 0);
    known.set(key, found);
    return found;
  };
}

function placeCheck(subject: Id, { tag, string, joint }: LeadItem, read: Reader): Check {
  const count = string === undefined ? 0 : (read.at('strings')[string]?.modules.length ?? 0);
  const off =
    joint !== undefined && string !== undefined && !(Number.isInteger(joint) && joint >= 0 && joint <= count);
  return judge(
    leadRules.place,
    [subject],
    [],
    off ? `${tag} is said to lie at joint ${n(joint)}; its string has ${n(count)} modules.` : null,
    [v('joint', joint ?? 0, ''), v('modules', count, '')],
  );
}

function faultChecks(
  subject: Id,
  lead: LeadItem,
  chosen: PartOf<'cable'> | null,
  read: Reader,
  through: LetThrough,
): Check[] {
  const fuse = fuseOf(read, lead);
  const fault = (which: 'largest' | 'smallest') =>
    read.figure(figureId('fuse.fault', `${mainCircuit}/${which}`, 'prospectiveA'));
  const [largest, smallest] = [fault('largest'), fault('smallest')];
  const others = read.figure(figureId('fuse.strings', 'pack', 'faultA'));
  const noCable: Gap[] =
    chosen === null
      ? [{ kind: 'not-given', path: `pack.leads.${subject}.cable`, label: `cable of ${lead.tag}` }]
      : [];
  const bare = judge(
    leadRules.noFuse,
    [subject],
    [],
    fuse === null ? `${lead.tag}: 0 fuses in its string or in the main circuit.` : null,
    [v('fuses', fuse === null ? 0 : 1, '')],
  );
  const noFuse: Gap[] =
    fuse === null
      ? [{ kind: 'not-given', path: `circuits.${mainCircuit}.fuse`, label: `fuse behind ${lead.tag}` }]
      : [];
  const gaps = [
    ...noCable,
    ...noFuse,
    ...[largest, smallest].flatMap((one) => (one.value === null ? gapsBehind(one) : [])),
  ];
  const count = stringLoadOf(read).count;
  // A short in one string is fed by itself at the least, by all others at the most.
  const own = lead.string === undefined || count === 0 ? 1 : count;
  const maxA = Math.max((largest.value ?? 0) / own, lead.string === undefined ? 0 : (others.value ?? 0));
  const minA = Math.min((smallest.value ?? 0) / own, maxA);
  const limitA2s = ((chosen?.data.adiabaticK ?? 0) * (chosen?.data.areaMm2 ?? 0)) ** 2;
  const worst = fuse === null || gaps.length > 0 || !(minA > 0) ? null : through(fuse, minA, maxA);
  return [
    bare,
    judge(
      leadRules.withstand,
      [subject],
      gaps,
      worst !== null && worst > limitA2s
        ? `${lead.tag}: ${n(chosen!.data.areaMm2)} mm² bear ${n(limitA2s)} A²s; ${fuse?.label} ${Number.isFinite(worst) ? `lets ${n(worst)} A²s through` : `does not clear ${n(minA)} A`}.`
        : null,
      [
        v('the cable bears', limitA2s, 'A²s'),
        v('let through', worst !== null && Number.isFinite(worst) ? worst : 0, 'A²s'),
        v('smallest fault', minA, 'A'),
        v('largest fault', maxA, 'A'),
      ],
      { parts: [...(chosen === null ? [] : [partKey(chosen)]), ...(fuse === null ? [] : [partKey(fuse)])] },
    ),
  ];
}
