import type { CheckValue } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { CircuitItem, Id } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { mainDevice } from '../network';
import { notGiven } from './lacks';
import { bondingRules as rules, markingRules, sourceRules, unscreenedRule } from './rules';

const n = formatNumber;

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
export const cableStep: StepDefinition = {
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
export const senseStep: StepDefinition = {
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
export const sourceStep: StepDefinition = {
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
