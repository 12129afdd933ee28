import { supplyStep } from './supply-step';
import { mainCircuit, type BondItem, type CircuitItem, type Id } from '../../model/document';
import type { CheckValue } from '../../ground/finding';
import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { faultPoints, faultRange, uncoveredAt } from '../fuse';
import { feedingCircuit, mainDevice } from '../network';
import { partKey } from '../../model/parts';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { gapsBehind, judge, type Reader, type SharedView, type StepDefinition } from '../../model/step';
import { bodiesOf, bondOhm, bondPath, defaultContactOhm, type Body, type BodySlices } from './bodies';
import { bondingRules as rules, markingRules, mostBondOhm, sourceRules, unscreenedRule } from './rules';

const n = formatNumber;
/** Of a copper strap, A√s/mm². */
const strapK = 143;

const notGiven = (path: string, label: string): Gap => ({ kind: 'not-given', path, label });

const bodies = (design: BodySlices) => bodiesOf(design, mainCircuit, (id) => feedingCircuit(design, id));

const bodiesView: SharedView<Body[]> = { id: 'bonding.bodies', make: bodies };

const bodyStep: StepDefinition = {
  id: 'bonding.body',
  version: 1,
  subjects: (design) => bodies(design).map(({ id }) => id),
  compute(subject, read) {
    const bonds = read.at('bonds') ?? {};
    const body = read.shared(bodiesView).find(({ id }) => id === subject)!;
    const own = bonds[subject];
    const exempt = own?.by === 'not-conductive';
    const unsaid = own?.by === undefined ? [notGiven(`bonds.${subject}.by`, `bond of ${body.tag}`)] : [];
    const way = wayOf(subject, bonds, body.tag);
    const gaps = exempt || own?.by === 'none' ? [] : [...unsaid, ...way.gaps];
    const allowed = { label: 'allowed', value: mostBondOhm, unit: 'Ω' };
    const none = judge(
      rules.none,
      [subject],
      unsaid,
      own?.by === 'none'
        ? `${body.tag} has no bond to the chassis; below ${n(mostBondOhm)} Ω is asked.`
        : null,
      [allowed],
    );
    if (exempt || own?.by === 'none') return { figures: [], checks: [none] };
    const figure: Figure = {
      id: figureId('bonding.body', subject, 'pathOhm'),
      label: 'Way to the chassis',
      unit: 'Ω',
      value: gaps.length > 0 ? null : way.ohm,
      gaps,
      limit: { max: mostBondOhm },
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'R_b',
                label: 'Way to the chassis',
                formula: 'Σ(l·r + R_c)',
                inputs: way.path.map((id, i) => ({
                  symbol: `R_${i + 1}`,
                  value: bondOhm(bonds[id]!)!,
                  unit: 'Ω',
                  origin: { kind: 'document' as const, path: `bonds.${id}` },
                })),
                value: way.ohm,
                unit: 'Ω',
                source: `IEC 60228 at 20 °C; ${n(defaultContactOhm * 1000)} mΩ for both ends where not given`,
              },
            ],
    };
    const resistance = judge(
      rules.resistance,
      [subject],
      gaps,
      way.ohm > mostBondOhm
        ? `${body.tag} has ${formatQuantity(way.ohm, 'Ω')} to the chassis; ${n(mostBondOhm)} Ω are allowed.`
        : null,
      [{ label: 'way to the chassis', value: way.ohm, unit: 'Ω' }, allowed],
    );
    return { figures: [figure], checks: [none, resistance, withstand(body, own, unsaid, read)] };
  },
};

/** Bonds one after another up to the chassis, their sum, and what is missing on the way. */
function wayOf(
  body: Id,
  bonds: Readonly<Record<Id, BondItem>>,
  tag: string,
): { path: Id[]; ohm: number; gaps: Gap[] } {
  const path = bondPath(bonds, body);
  if (path === null)
    return {
      path: [],
      ohm: 0,
      gaps: [
        {
          kind: 'invalid',
          path: `bonds.${body}.to`,
          label: `bond of ${tag}`,
          message: 'leads in a circle and never to the chassis',
        },
      ],
    };
  const gaps = path.flatMap((id) => {
    const bond = bonds[id];
    if (bond?.by === 'none' || bond?.by === 'not-conductive')
      return [
        {
          kind: 'invalid' as const,
          path: `bonds.${body}.to`,
          label: `bond of ${tag}`,
          message: 'leads to a body that has none itself',
        },
      ];
    return bond === undefined || bondOhm(bond) === null ? lacksOf(id, bond) : [];
  });
  const ohm = gaps.length > 0 ? 0 : path.reduce((sum, id) => sum + bondOhm(bonds[id]!)!, 0);
  return { path, ohm, gaps };
}

function lacksOf(id: Id, bond: BondItem | undefined): Gap[] {
  const at = `bonds.${id}`;
  if (bond?.by === undefined) return [notGiven(`${at}.by`, 'bond')];
  const gaps: Gap[] = [];
  if (bond.areaMm2 === undefined) gaps.push(notGiven(`${at}.areaMm2`, 'area of the strap'));
  if (bond.lengthM === undefined) gaps.push(notGiven(`${at}.lengthM`, 'length of the strap'));
  return gaps.length > 0
    ? gaps
    : [
        {
          kind: 'invalid',
          path: `${at}.areaMm2`,
          label: 'strap',
          message: 'needs an area of IEC 60228, a length and a contact of 0 or more',
        },
      ];
}

/** A strap against what the fuse lets through in a double fault. */
function withstand(body: Body, own: BondItem | undefined, unsaid: Gap[], read: Reader): Check {
  const { areaMm2, by } = own ?? {};
  if (by === 'bolted') return judge(rules.withstand, [body.id], [], null);
  const key = read.at('circuits', body.circuit, 'fuse');
  const part = key === undefined ? undefined : read.at('parts', key);
  const [largest, smallest] = (['largest', 'smallest'] as const).map((which) =>
    read.figure(figureId('fuse.fault', `${body.circuit}/${which}`, 'prospectiveA')),
  ) as [Figure, Figure];
  const gaps: Gap[] = [
    ...unsaid,
    ...(by === 'strap' && areaMm2 === undefined
      ? [notGiven(`bonds.${body.id}.areaMm2`, `area of the strap of ${body.tag}`)]
      : []),
    ...(by === 'strap' && areaMm2 !== undefined && !(areaMm2 > 0)
      ? [
          {
            kind: 'invalid' as const,
            path: `bonds.${body.id}.areaMm2`,
            label: `area of the strap of ${body.tag}`,
            message: 'must be above 0',
          },
        ]
      : []),
    ...(part?.kind === 'fuse' ? [] : [notGiven(`circuits.${body.circuit}.fuse`, 'fuse')]),
    ...[largest, smallest].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : [])),
  ];
  if (gaps.length > 0 || part?.kind !== 'fuse') return judge(rules.withstand, [body.id], gaps, null);
  const limitA2s = (strapK * (areaMm2 ?? 0)) ** 2;
  const uncovered = uncoveredAt(
    { ...part.data, faultMinA: smallest.value!, faultMaxA: Math.max(smallest.value!, largest.value!) },
    limitA2s,
  );
  return judge(
    rules.withstand,
    [body.id],
    [],
    uncovered.length > 0
      ? `At ${uncovered.length} of ${faultPoints} fault currents, ${faultRange(uncovered)}, ${part.label} lets through more than the strap of ${n(areaMm2 ?? 0)} mm² at ${body.tag} bears, ${formatQuantity(limitA2s, 'A²s')}, or takes too long.`
      : null,
    [
      { label: 'fault currents not covered', value: uncovered.length, unit: '' },
      { label: 'what the strap bears', value: limitA2s, unit: 'A²s' },
      { label: 'lowest not covered', value: uncovered[0] ?? 0, unit: 'A' },
      { label: 'highest not covered', value: uncovered.at(-1) ?? 0, unit: 'A' },
      { label: 'area of the strap', value: areaMm2 ?? 0, unit: 'mm²' },
    ],
    { parts: [partKey(part)] },
  );
}

/** The voltage that something may carry, as a number of the judgement. */
const reachValue = (read: Reader): CheckValue[] => {
  const { value } = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
  return value === null ? [] : [{ label: 'highest pack voltage', value, unit: 'V' }];
};

/** The voltage that something may carry, in words. */
function reach(read: Reader): string {
  const { value } = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
  return value === null ? 'of the pack’s voltage' : `of up to ${n(value)} V`;
}

/** Screen and sheath of each circuit’s cable. */
const cableStep: StepDefinition = {
  id: 'bonding.cable',
  version: 1,
  subjects: ({ circuits }) => Object.keys(circuits),
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    return {
      figures: [],
      checks: [
        ...screenChecks(subject, circuit),
        ...unscreened(subject, circuit, read),
        sheathCheck(subject, circuit, reach(read), reachValue(read)),
      ],
    };
  },
};

/** An inverter’s cable wants a screen. */
function unscreened(subject: Id, { screened, tag, device, role }: CircuitItem, read: Reader): Check[] {
  const fed =
    device ??
    (role === 'main' ? mainDevice({ circuits: read.at('circuits'), devices: read.at('devices') }) : null);
  const inverter = read.at('devices', fed ?? '', 'kind') === 'inverter';
  if (!inverter) return [];
  return [
    judge(
      unscreenedRule,
      [subject],
      screened === undefined
        ? [notGiven(`circuits.${subject}.screened`, `screen of the cable of ${tag}`)]
        : [],
      screened === false ? `The cable of ${tag}, ${reach(read)}, has no screen.` : null,
      reachValue(read),
    ),
  ];
}

function screenChecks(subject: Id, circuit: CircuitItem): Check[] {
  const { screened, screenFrom, screenTo, tag } = circuit;
  const at = `circuits.${subject}`;
  const gaps: Gap[] =
    screened === undefined
      ? [notGiven(`${at}.screened`, `screen of the cable of ${tag}`)]
      : screened
        ? (['screenFrom', 'screenTo'] as const).flatMap((end) =>
            circuit[end] === undefined
              ? [
                  notGiven(
                    `${at}.${end}`,
                    `end of the screen of ${tag} at the ${end === 'screenFrom' ? 'source' : 'device'}`,
                  ),
                ]
              : [],
          )
        : [];
  const open = [screenFrom, screenTo].filter((end) => end === 'open').length;
  const tails = [screenFrom, screenTo].filter((end) => end === 'pigtail').length;
  const check = (rule: (typeof rules)['floating'], message: string | null, value: number, label: string) =>
    judge(rule, [subject], gaps, screened === true ? message : null, [{ label, value, unit: '' }]);
  return [
    check(
      rules.floating,
      open === 2 ? `The screen of ${tag} is open at 2 of 2 ends.` : null,
      open,
      'open ends',
    ),
    check(
      rules.oneEnd,
      open === 1
        ? `The screen of ${tag} is open at 1 of 2 ends, the ${screenFrom === 'open' ? 'source' : 'device'}’s.`
        : null,
      open,
      'open ends',
    ),
    check(
      rules.pigtail,
      tails > 0 ? `The screen of ${tag} ends in a tail at ${tails} of 2 ends.` : null,
      tails,
      'tails',
    ),
  ];
}

function sheathCheck(subject: Id, { sheath, tag }: CircuitItem, volts: string, values: CheckValue[]): Check {
  return judge(
    markingRules.sheath,
    [subject],
    sheath === undefined ? [notGiven(`circuits.${subject}.sheath`, `sheath of the cable of ${tag}`)] : [],
    sheath === 'other' ? `The cable of ${tag}, ${volts}, is neither orange nor in an orange sleeve.` : null,
    values,
  );
}

/** How sense leads are told from cables. */
const senseStep: StepDefinition = {
  id: 'bonding.sense',
  version: 1,
  subjects: () => ['sense'],
  compute(subject, read) {
    const { senseMarking = 'orange', sleeveColour } = read.at('settings');
    const colour = sleeveColour?.trim().toLowerCase() ?? '';
    const gaps: Gap[] =
      senseMarking === 'sleeve' && colour === ''
        ? [notGiven('settings.sleeveColour', 'colour of the sleeves')]
        : [];
    return {
      figures: [],
      checks: [
        judge(
          markingRules.sleeve,
          [subject],
          gaps,
          senseMarking === 'sleeve' && colour.includes('orange')
            ? `Sense leads ${reach(read)} are to lie in sleeves of “${sleeveColour}”, and that is the cables’ colour.`
            : null,
          reachValue(read),
        ),
      ],
    };
  },
};

/** Chargers: isolation from the mains, and an end of their own where nobody stays. */
const sourceStep: StepDefinition = {
  id: 'bonding.source',
  version: 1,
  subjects: ({ devices }) =>
    Object.entries(devices)
      .filter(([, { kind }]) => kind === 'charger')
      .map(([id]) => id),
  compute(subject, read) {
    const { tag, isolation, ownCutOff, unattended } = read.at('devices', subject)!;
    const at = `devices.${subject}`;
    const alone: Gap[] =
      unattended === undefined
        ? [notGiven(`${at}.unattended`, `whether ${tag} runs with nobody there`)]
        : unattended && ownCutOff === undefined
          ? [notGiven(`${at}.ownCutOff`, `end by its own voltage of ${tag}`)]
          : [];
    return {
      figures: [],
      checks: [
        judge(
          sourceRules.isolation,
          [subject],
          isolation === undefined ? [notGiven(`${at}.isolation`, `isolation of ${tag}`)] : [],
          isolation === 'none'
            ? `${tag} has no isolation between the mains and the pack ${reach(read)}.`
            : null,
          reachValue(read),
        ),
        judge(
          sourceRules.cutOff,
          [subject],
          alone,
          unattended === true && ownCutOff === false
            ? `${tag} charges the pack ${reach(read)} with nobody there and ends by nothing of its own.`
            : null,
          reachValue(read),
        ),
      ],
    };
  },
};

export const bondingSteps: StepDefinition[] = [bodyStep, cableStep, senseStep, sourceStep, supplyStep];
