import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { placedHeaters, type Design, type Id, type PlumbingItem } from '../../model/document';
import type { PartKey } from '../../model/parts';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { lowVoltageRules } from './rules';
import { lowVoltageSystem } from './system';

const n = formatNumber;

/** A pump or a fan as its part has it. */
interface Runs {
  key: PartKey;
  label: string;
  supplyV: number;
  powerW: number;
}

/** A pump, a radiator with a fan, or a box that a fan blows through. */
interface Fed {
  id: Id;
  tag: string;
  /** Where its part is chosen. */
  path: string;
  /** Where it is said what feeds it. */
  loadsPath: string;
  key: PartKey | undefined;
  switched: PlumbingItem['switched'];
  loads: readonly Id[];
}

function fedOf(id: Id, { plumbing = {}, boxes }: Pick<Design, 'plumbing' | 'boxes'>): Fed | null {
  const piece = plumbing[id];
  if (piece !== undefined) {
    const { kind, tag, pump, fan, switched, loads = [] } = piece;
    if (kind !== 'pump' && !(kind === 'radiator' && fan !== undefined)) return null;
    const at = `plumbing.${id}`;
    const [key, path] = kind === 'pump' ? [pump, `${at}.pump`] : [fan, `${at}.fan`];
    return { id, tag, path, loadsPath: `${at}.loads`, key, switched, loads };
  }
  const box = boxes[id];
  if (box?.fan === undefined) return null;
  const at = `boxes.${id}`;
  const { fan: key, fanSwitched: switched, fanLoads: loads = [] } = box;
  return {
    id,
    tag: `Fan of ${box.tag}`,
    path: `${at}.fan`,
    loadsPath: `${at}.fanLoads`,
    key,
    switched,
    loads,
  };
}

const everyFed = ({ plumbing = {}, boxes }: Pick<Design, 'plumbing' | 'boxes'>): Fed[] =>
  [...Object.keys(plumbing), ...Object.keys(boxes)].flatMap((id) => fedOf(id, { plumbing, boxes }) ?? []);

/** What runs on the low voltage, by its part; null: that is not known. */
function runsOf({ key }: Fed, parts: Design['parts']): Runs | null {
  const part = parts[key ?? ''];
  if (part?.kind !== 'pump' && part?.kind !== 'fan') return null;
  const { supplyV, powerW } = part.data;
  return { key: key!, label: part.label, supplyV, powerW };
}

/** Each pump and fan: its voltage, and whether what feeds it is on when it has to run. */
export const fedStep: StepDefinition = {
  id: 'low-voltage.fed',
  version: 1,
  subjects: ({ plumbing, boxes, lowVoltage, loads }) =>
    lowVoltage === undefined && loads === undefined ? [] : everyFed({ plumbing, boxes }).map(({ id }) => id),
  compute(subject, read): { figures: []; checks: Check[] } {
    const fed = fedOf(subject, { plumbing: read.at('plumbing'), boxes: read.at('boxes') })!;
    const { tag, switched, loads: fedAs } = fed;
    const parts = read.at('parts');
    const runs = runsOf(fed, parts);
    const settings = read.at('lowVoltage') ?? {};
    const { nominalV } = lowVoltageSystem({ lowVoltage: settings, parts, settings: read.at('settings') });
    const all = read.at('loads') ?? {};
    const needs = switched === 'driving' ? (['driving'] as const) : (['driving', 'charging'] as const);
    const unsaid = fedAs.flatMap((id): Gap[] =>
      all[id]?.when === undefined
        ? [{ kind: 'not-given', path: `loads.${id}.when`, label: `when ${all[id]?.tag ?? id} runs` }]
        : [],
    );
    const on = new Set(fedAs.map((id) => all[id]?.when));
    const missing = needs.filter((when) => !on.has(when) && !on.has('always'));
    const keys = runs === null ? [] : [runs.key];
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.partVoltage,
          [subject],
          [
            ...(settings.battery === undefined
              ? [{ kind: 'not-given' as const, path: 'lowVoltage.battery', label: 'battery' }]
              : []),
            ...(runs === null
              ? [{ kind: 'not-given' as const, path: fed.path, label: `kind of ${tag}` }]
              : []),
          ],
          runs !== null && Math.abs(runs.supplyV - nominalV) > nominalV * 0.2
            ? `${runs.label} at ${tag} is for ${n(runs.supplyV)} V; the vehicle has ${n(nominalV)} V.`
            : null,
          [
            { label: 'made for', value: runs?.supplyV ?? 0, unit: 'V' },
            { label: 'vehicle', value: nominalV, unit: 'V' },
          ],
          { parts: keys },
        ),
        judge(
          lowVoltageRules.fedWhen,
          [subject],
          fedAs.length === 0
            ? [{ kind: 'not-given', path: fed.loadsPath, label: `what feeds ${tag}` }]
            : unsaid,
          missing.length > 0
            ? `${tag} runs ${switched ?? 'always'}; while ${missing.join(' and ')} ${n(0)} of ${n(fedAs.length)} loads are on.`
            : null,
          [
            { label: 'loads', value: fedAs.length, unit: '' },
            { label: 'on', value: 0, unit: '' },
            // Of each time by itself: what was accepted for one holds for no other.
            ...needs.map((when) => ({
              label: `on while ${when}`,
              value: missing.includes(when) ? 0 : 1,
              unit: '',
            })),
          ],
          { also: fedAs },
        ),
      ],
    };
  },
};

/** Each heater on the low voltage: whether what feeds it is on while it has to warm. */
export const heaterFedStep: StepDefinition = {
  id: 'low-voltage.heater',
  version: 1,
  subjects: ({ plumbing, boxes, parts }) => onLowVoltage({ plumbing, boxes, parts }).map(({ id }) => id),
  compute(subject, read): { figures: []; checks: Check[] } {
    const { tag, at, data, loads } = onLowVoltage({
      plumbing: read.at('plumbing'),
      boxes: read.at('boxes'),
      parts: read.at('parts'),
    }).find(({ id }) => id === subject)!;
    const all = read.at('loads') ?? {};
    const path = at.startsWith('boxes.') ? `${at}.heaterLoads` : `${at}.loads`;
    const gaps = [
      ...(loads.length === 0 ? [{ kind: 'not-given' as const, path, label: `what feeds ${tag}` }] : []),
      ...loads.flatMap((id): Gap[] =>
        all[id]?.when === undefined
          ? [{ kind: 'not-given', path: `loads.${id}.when`, label: `when ${all[id]?.tag ?? id} runs` }]
          : [],
      ),
    ];
    const isOn = loads.some((id) => all[id]?.when === 'charging' || all[id]?.when === 'always');
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.heaterFed,
          [subject],
          gaps,
          isOn
            ? null
            : `${tag}, ${n(data.ratedW)} W, warms cells before they are charged; while charging ${n(0)} of ${n(loads.length)} loads that feed it are on.`,
          [
            { label: 'takes', value: data.ratedW, unit: 'W' },
            { label: 'loads', value: loads.length, unit: '' },
            { label: 'on while charging', value: isOn ? 1 : 0, unit: '' },
          ],
          { also: [...loads] },
        ),
      ],
    };
  },
};

const onLowVoltage = ({ plumbing, boxes, parts }: Pick<Design, 'plumbing' | 'boxes' | 'parts'>) =>
  placedHeaters({ plumbing, boxes, parts }).filter(({ fed }) => fed === '12 V');

/** What each load feeds, with what that draws. */
function drawing({ plumbing, boxes, parts }: Pick<Design, 'plumbing' | 'boxes' | 'parts'>) {
  return [
    ...everyFed({ plumbing, boxes }).flatMap((one) => {
      const runs = runsOf(one, parts);
      return runs === null
        ? []
        : [{ id: one.id, tag: one.tag, loads: one.loads, key: runs.key, powerW: runs.powerW }];
    }),
    ...onLowVoltage({ plumbing, boxes, parts }).map(({ id, tag, loads, data }) => ({
      id,
      tag,
      loads,
      key: (boxes[id]?.heater ?? plumbing?.[id]?.heater)!,
      powerW: data.ratedW,
    })),
  ];
}

/** Loads that feed pumps, fans and heaters. */
const feeding = ({
  plumbing,
  boxes,
  parts,
  loads = {},
}: Pick<Design, 'plumbing' | 'boxes' | 'parts' | 'loads'>): Id[] => {
  const named = new Set([
    ...everyFed({ plumbing, boxes }).flatMap((one) => one.loads),
    ...onLowVoltage({ plumbing, boxes, parts }).flatMap((one) => one.loads),
  ]);
  return Object.keys(loads).filter((id) => named.has(id));
};

/** Each load that feeds pumps, fans and heaters: whether it is counted with what they draw together. */
export const feedingStep: StepDefinition = {
  id: 'low-voltage.feeding',
  version: 1,
  subjects: feeding,
  compute(subject, read: Reader): { figures: []; checks: Check[] } {
    const { tag, powerW } = read.at('loads')![subject]!;
    const design = { plumbing: read.at('plumbing'), boxes: read.at('boxes'), parts: read.at('parts') };
    const fed = drawing(design).filter(({ loads }) => loads.includes(subject));
    const sumW = fed.reduce((sum, one) => sum + one.powerW, 0);
    return {
      figures: [],
      checks: [
        judge(
          lowVoltageRules.fedLess,
          [subject],
          powerW === undefined
            ? [{ kind: 'not-given', path: `loads.${subject}.powerW`, label: `power of ${tag}` }]
            : [],
          powerW !== undefined && powerW < sumW * (1 - 1e-9)
            ? `${tag} is counted with ${n(powerW)} W; ${fed.map((one) => `${one.tag} draws ${n(one.powerW)} W`).join(', ')}.`
            : null,
          [
            { label: 'counted with', value: powerW ?? 0, unit: 'W' },
            ...fed.map((one) => ({ label: one.tag, value: one.powerW, unit: 'W' })),
          ],
          { parts: [...new Set(fed.map(({ key }) => key))], also: fed.map(({ id }) => id) },
        ),
      ],
    };
  },
};
