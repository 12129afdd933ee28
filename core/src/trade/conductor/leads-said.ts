import type { Design, Id } from '../../model/document';
import { rulesOf } from '../../ground/finding';
import type { Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { judge, type StepDefinition } from '../../model/step';
import { placesOf, switches, type NetworkSlices } from '../network';
import { leadsOf } from '../pack';

const n = formatNumber;

export const unsaidRule = rulesOf('cable')(
  'pack-cable-unsaid',
  'note',
  'A cable from box to box is not described',
  'Its heat, its ends and its short circuit are judged by nobody, and its resistance counts in no figure.',
  'Describe it: cable, length, ambient, lugs and gland.',
  'Strings and boxes of the design',
);

/** A place at which a cable leaves a box inside the pack. */
export interface BoxWay {
  /** null: of the whole pack, from where strings meet to the mains. */
  string: Id | null;
  /** As a cable of the pack names it; absent for the whole pack. */
  joint?: number;
  what: string;
}

/** The places at which a cable leaves a box inside the pack and that no row describes. */
export function cablesBetweenBoxes(design: NetworkSlices): BoxWay[] {
  const { pack, boxes, strings, modules } = design;
  if (Object.keys(boxes).length === 0) return [];
  const { mainsBox, combinerBox } = placesOf(design);
  const boxOf = (module: Id | undefined) => modules[module ?? '']?.box ?? null;
  const found = Object.entries(strings).flatMap(([id, string]): BoxWay[] => {
    const own = leadsOf(pack.leads, id);
    const described = (joint: number) =>
      own.some(([, lead]) =>
        lead.joint === undefined ? joint === 0 || joint === string.modules.length : lead.joint === joint,
      );
    const places = string.modules.flatMap((module, i) =>
      i > 0 && boxOf(string.modules[i - 1]) !== boxOf(module) && !described(i)
        ? [
            {
              string: id,
              joint: i,
              what: `${string.tag} between ${modules[string.modules[i - 1]!]?.tag ?? ''} and ${modules[module]?.tag ?? ''}`,
            },
          ]
        : [],
    );
    if (string.modules.length === 0) return [];
    const switched = switches({
      ...(string.contactor !== undefined && { contactor: string.contactor }),
      ...(string.contactorPoles !== undefined && { poles: string.contactorPoles }),
    });
    const ends: [number, Id | null, string][] = [
      [0, boxOf(string.modules[0]), 'negative'],
      [string.modules.length, boxOf(string.modules.at(-1)), 'positive'],
    ];
    // Contactors in the string’s own box are led to over the negative side, and both poles go on from there.
    const meets = switched && string.contactorsIn !== 'combiner' ? boxOf(string.modules.at(-1)) : combinerBox;
    return [
      ...places,
      ...ends.flatMap(([joint, box, pole]) =>
        (box !== meets || meets !== combinerBox) && !described(joint)
          ? [{ string: id, joint, what: `the ${pole} end of ${string.tag}` }]
          : [],
      ),
    ];
  });
  return mainsBox !== combinerBox && leadsOf(pack.leads, null).length === 0
    ? [...found, { string: null, what: 'where strings meet to the mains' }]
    : found;
}

/** Cables from box to box that no row describes. */
export const leadsSaidStep: StepDefinition = {
  id: 'conductor.leads',
  version: 1,
  subjects: ({ boxes }: Pick<Design, 'boxes'>) => (Object.keys(boxes).length > 1 ? ['pack'] : []),
  compute(subject, read) {
    const [pack, boxes, strings, modules] = [
      read.at('pack'),
      read.at('boxes'),
      read.at('strings'),
      read.at('modules'),
    ];
    const open = cablesBetweenBoxes({ pack, boxes, strings, modules, circuits: {}, devices: {}, parts: {} });
    const none: Gap[] = Object.values(strings).some(({ modules }) => modules.length > 0)
      ? []
      : [{ kind: 'not-given', path: 'strings', label: 'modules in series' }];
    const shown = open.slice(0, 4).map(({ what }) => what);
    return {
      figures: [],
      checks: [
        judge(
          unsaidRule,
          [subject],
          none,
          open.length === 0
            ? null
            : `${n(open.length)} ${open.length === 1 ? 'cable is' : 'cables are'} not described: ${shown.join('; ')}${open.length > 4 ? ` and ${open.length - 4} more` : ''}.`,
          [{ label: 'not described', value: open.length, unit: '' }],
        ),
      ],
    };
  },
};
