import type { Check } from '../../ground/figure';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';
import { partPlaces, type Design, type PartPlace } from '../../model/document';
import { judge } from '../../model/step';
import { stockOf, type Entry, type PartFittedBody } from '../../record';
import { asBuilt } from './as-built';

const rule = rulesOf('built');

export const builtRules = {
  other: rule(
    'other-part',
    'mend',
    'Another part is fitted than is designed',
    'The figures of the stations are those of the design; the vehicle that stands there has another part.',
    'Look at what follows under As built; take the part into the design, or fit what is designed.',
    'Parts as fitted, by the record, against the design',
  ),
  twice: rule(
    'serial-twice',
    'mend',
    'One serial number is recorded in two places',
    'One of the two was read off wrongly, or the part was moved and its old place has another now.',
    'Read both off again and record them.',
    'Serial numbers of parts as fitted, by the record: the last of each place',
  ),
  unread: rule(
    'unread',
    'mend',
    'A part that was fitted cannot be judged',
    'The record names a part whose data it does not carry and the design does not have.',
    'Record again what is fitted there.',
    'Parts as fitted, by the record, against the design',
  ),
  longer: rule(
    'other-length',
    'note',
    'A cable is not as long as designed',
    'Drop, loss, the smallest fault and mass follow from its length.',
    'Take the length into the design; look at what follows under As built.',
    'Lengths as cut, by the record, against the design: more than a tenth and 0.1 m apart',
  ),
};

const shareApart = 0.1;
const leastApartM = 0.1;

/** What the record says of parts and lengths against the design; nothing where none was recorded. */
export function builtChecks(design: Design, entries: readonly Entry[]): Check[] {
  const { differences, upTo, unread } = asBuilt(design, entries);
  if (upTo === null) return [];
  const value = { label: 'recorded up to entry', value: upTo, unit: '' };
  const none = (of: (typeof builtRules)[keyof typeof builtRules]) => [judge(of, ['pack'], [], null, [value])];
  const others = differences.flatMap(({ holder, path, name, designed, built, reason }) =>
    'part' in designed && 'part' in built
      ? [
          judge(
            builtRules.other,
            [`${holder}/${path.split('.').at(-1)}`],
            [],
            `The ${name.split(': ').at(-1)} is ${built.text}; ${designed.text} is designed${reason === '' ? '' : ` (${reason})`}.`,
            [],
            // An acceptance is of this pair: it lapses when either changes.
            { parts: [built.part, designed.part ?? ''] },
          ),
        ]
      : [],
  );
  const lengths = differences.flatMap(({ holder, path, designed, built }) => {
    if (!('lengthM' in designed) || !('lengthM' in built)) return [];
    const [was, is] = [designed.lengthM, built.lengthM];
    if (was !== null && Math.abs(is - was) <= Math.max(leastApartM, was * shareApart)) return [];
    return [
      judge(
        builtRules.longer,
        [`${holder}/${path.split('.').at(-1)}`],
        [],
        `Its cable was cut to ${formatQuantity(is, 'm')}; ${was === null ? 'no length' : formatQuantity(was, 'm')} is designed.`,
        [
          { label: 'as cut', value: is, unit: 'm' },
          { label: 'as designed', value: was ?? 0, unit: 'm' },
        ],
      ),
    ];
  });
  return [
    ...twiceChecks(design, entries, upTo),
    ...(others.length > 0 ? others : none(builtRules.other)),
    ...(lengths.length > 0 ? lengths : none(builtRules.longer)),
    ...(unread.length > 0
      ? unread.map((name) =>
          judge(builtRules.unread, [`pack/${name}`], [], `What was fitted as ${name} cannot be judged.`),
        )
      : none(builtRules.unread)),
  ];
}

/** Parts of one kind with one serial number, each in a place that the design still has. */
function twiceChecks(design: Design, entries: readonly Entry[], upTo: number): Check[] {
  const places = new Map(partPlaces(design).map((place) => [place.path, place]));
  const last = new Map<string, PartFittedBody>();
  for (const { body } of entries)
    if (body.kind === 'part-fitted' && places.has(body.place)) last.set(body.place, body);
  const { inPlace } = stockOf(entries);
  for (const path of last.keys()) if (inPlace.get(path) === null) last.delete(path);
  const bySerial = new Map<string, PartPlace[]>();
  for (const [path, { serial }] of last) {
    if (serial === null || serial.trim() === '') continue;
    const place = places.get(path)!;
    // A number is its maker’s: two makes may have the same, and so may a fuse and a cable.
    const key = JSON.stringify([place.kind, last.get(path)!.part, serial.trim().toUpperCase()]);
    bySerial.set(key, [...(bySerial.get(key) ?? []), place]);
  }
  const twice = [...bySerial].filter(([, those]) => those.length > 1);
  const value = { label: 'recorded up to entry', value: upTo, unit: '' };
  if (twice.length === 0) return [judge(builtRules.twice, ['pack'], [], null, [value])];
  return twice.map(([key, those]) => {
    const serial = (JSON.parse(key) as string[])[2]!;
    return judge(
      builtRules.twice,
      those.map(({ holder, path }) => `${holder}/${path.split('.').at(-1)}`),
      [],
      `${serial} is recorded ${those.length} times: ${those.map(({ name }) => name).join(', ')}.`,
      [{ label: 'places with this number', value: those.length, unit: '' }],
      { also: those.map(({ holder }) => holder) },
    );
  });
}
