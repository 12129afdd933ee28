import { rulesOf } from '../../ground/finding';
import type { Check } from '../../ground/figure';
import { partPlaces, type Design } from '../../model/document';
import { judge } from '../../model/step';
import { isModule, stockOf, type Entry, type Item } from '../../record';
import { isCoatOf } from './templates/coat';

const rule = rulesOf('stock');

export const stockRules = {
  twice: rule(
    'serial-twice',
    'mend',
    'Two things have one serial number',
    'What was measured of the one is looked for at the other.',
    'Read both again; correct the entry that is wrong.',
    'Serial numbers of what arrived and of what is fitted',
  ),
  unfit: rule(
    'unfit-fitted',
    'stop',
    'A thing that was rejected is fitted',
    'Somebody found it unfit, and it is in the vehicle.',
    'Swap it, or judge it anew and say why it may stay.',
    'States of things in the record',
  ),
  suspect: rule(
    'suspect-fitted',
    'mend',
    'A thing that is suspect is fitted',
    'What was doubted on the bench is doubted in the vehicle.',
    'Test it until it is good or rejected.',
    'States of things in the record',
  ),
  kind: rule(
    'other-kind',
    'mend',
    'Another kind is fitted than is designed',
    'Figures and expectations are those of the part in the design, not of the one in the vehicle.',
    'Fit the kind that is designed, or take the other into the design.',
    'Kind as it arrived against the part of the design',
  ),
  empty: rule(
    'nothing-fitted',
    'mend',
    'A place has nothing in it',
    'The design counts on what belongs there.',
    'Fit one, or take the place out of the design.',
    'Places of the design against what was fitted',
  ),
  beforeCoat: rule(
    'before-coat',
    'mend',
    'Modules stand in a box whose coat nobody had seen',
    'Where they stand the coat cannot be looked at any more, and metal without it is one chafe away from a pole.',
    'Take them out and see it, or accept it with the reason.',
    'When modules were fitted against when the coat passed',
  ),
};

const nameOf = ({ serial, id }: Item) => serial ?? id;

/** What the record says of things against the places of a design. Nothing of a job whose record tells of no thing. */
export function stockChecks(design: Design, entries: readonly Entry[]): Check[] {
  const stock = stockOf(entries);
  const items = [...stock.items.values()].filter(
    ({ state, sentTo }) => state !== 'retired' && sentTo === null,
  );
  if (items.length === 0) return [];
  const modules = items.filter(isModule);
  const arrived = modules.some(({ arrivedAt }) => arrivedAt !== null);
  const bySerial = new Map<string, Item[]>();
  // Parts in two places are told of by place, as fitted.
  for (const item of modules)
    if (item.serial !== null) bySerial.set(item.serial, [...(bySerial.get(item.serial) ?? []), item]);
  const twice = [...bySerial].filter(([, those]) => those.length > 1);
  const value = { label: 'things', value: items.length, unit: '' };
  const there = (place: string) => stock.items.get(stock.inPlace.get(place) ?? '');
  const inPack = Object.entries(design.modules).flatMap(([place, module]) => {
    const item = there(place);
    return item === undefined ? [] : [{ place, name: module.tag, module, item }];
  });
  const parts = partPlaces(design).map(({ path, holder, name }) => ({
    path,
    place: `${holder}/${path.split('.').at(-1)}`,
    name,
  }));
  const fitted = [
    ...inPack,
    ...parts.flatMap(({ path, place, name }) => {
      const item = there(path);
      return item === undefined ? [] : [{ place, name, item }];
    }),
  ];
  const empty = [
    ...Object.entries(design.modules).flatMap(([place, { tag }]) => {
      const is = stock.inPlace.get(place);
      return is === null || (is === undefined && arrived) ? [{ place, name: tag }] : [];
    }),
    // Where nobody recorded a part, nothing is known of it; where it was taken out, nothing is there.
    ...parts.filter(({ path }) => stock.inPlace.get(path) === null),
  ];
  const each = <T>(
    of: (typeof stockRules)[keyof typeof stockRules],
    those: T[],
    say: (one: T) => [subject: string, message: string, parts: string[]],
  ) =>
    those.length === 0
      ? [judge(of, ['pack'], [], null, [value])]
      : those.map((one) => {
          const [subject, message, parts] = say(one);
          // An acceptance is of these things: it lapses when another comes.
          return judge(of, [subject], [], message, [value], { parts });
        });
  return [
    ...each(stockRules.twice, twice, ([serial, those]) => [
      those[0]!.place ?? those[0]!.id,
      `${serial} is the serial number of ${those.length} things.`,
      those.map(({ id }) => id),
    ]),
    ...each(
      stockRules.unfit,
      fitted.filter(({ item }) => item.state === 'rejected'),
      ({ place, name, item }) => [
        place,
        `${nameOf(item)} in ${name} was rejected${item.reason === null || item.reason === '' ? '' : `: ${item.reason}`}.`,
        [item.id],
      ],
    ),
    ...each(
      stockRules.suspect,
      fitted.filter(({ item }) => item.state === 'suspect'),
      ({ place, name, item }) => [
        place,
        `${nameOf(item)} in ${name} is suspect${item.reason === null || item.reason === '' ? '' : `: ${item.reason}`}.`,
        [item.id],
      ],
    ),
    ...each(
      stockRules.kind,
      inPack.filter(({ item, module }) => item.part !== null && item.part !== module.part),
      ({ place, module, item }) => [
        place,
        `${nameOf(item)} in ${module.tag} is ${design.parts[item.part!]?.label ?? item.part}; ${design.parts[module.part]?.label ?? module.part} is designed.`,
        [item.id],
      ],
    ),
    ...each(stockRules.empty, empty, ({ place, name }) => [place, `Nothing is fitted in ${name}.`, []]),
    ...coatChecks(design, entries),
  ];
}

/** Boxes that are to be coated: whether that was seen before the modules that are in them went in. */
function coatChecks({ boxes, modules }: Design, entries: readonly Entry[]): Check[] {
  return Object.entries(boxes).flatMap(([box, { tag, coat }]) => {
    if (coat === undefined || coat === 'none') return [];
    const seenSeq = entries.find(
      ({ body }) => body.kind === 'result' && body.verdict === 'pass' && isCoatOf(box, body.step),
    )?.seq;
    const early = Object.entries(modules).filter(([place, module]) => {
      if (module.box !== box) return false;
      const last = entries.findLast(
        ({ body }) => (body.kind === 'fit' || body.kind === 'remove') && body.place === place,
      );
      return last?.body.kind === 'fit' && last.seq < (seenSeq ?? Infinity);
    });
    const names = early.slice(0, 4).map(([, module]) => module.tag);
    return [
      judge(
        stockRules.beforeCoat,
        [box],
        [],
        early.length === 0
          ? null
          : `${tag}: ${early.length} ${early.length === 1 ? 'module was' : 'modules were'} put in before its coat was seen${seenSeq === undefined ? ', which it is not yet' : ''}: ${names.join(', ')}${early.length > 4 ? ' …' : ''}.`,
        [{ label: 'modules put in before', value: early.length, unit: '' }],
        { parts: early.map(([place]) => place) },
      ),
    ];
  });
}
