import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import type { Id, PlumbingItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { coolingRules } from './rules';

const n = formatNumber;
/** In a message at most so many are named. */
const named = 6;

type Pieces = readonly [Id, PlumbingItem][];

/** What rubber takes up of a difference, mm. */
const portSlackMm = 1;

interface Meeting {
  hose: Id;
  hoseTag: string;
  boreMm: number | null;
  pump: Id;
  pumpTag: string;
  portMm: number | null;
  at: string;
}

/** Every end of a hose that goes on a pump. */
function meetingsOf(pieces: Pieces, read: Reader): Meeting[] {
  const parts = read.at('parts');
  const joins = read.at('joins') ?? {};
  return pieces.flatMap(([pump, item]) => {
    if (item.kind !== 'pump') return [];
    const part = parts[item.pump ?? ''];
    const portMm = part?.kind === 'pump' ? part.data.portMm : null;
    return [item.from, item.to].flatMap((join) =>
      pieces.flatMap(([hose, one]): Meeting[] => {
        if (join === undefined || one.kind !== 'hose' || (one.from !== join && one.to !== join)) return [];
        const bore = parts[one.hose ?? ''];
        return [
          {
            hose,
            hoseTag: one.tag,
            boreMm: bore?.kind === 'hose' ? bore.data.innerMm : null,
            pump,
            pumpTag: item.tag,
            portMm,
            at: joins[join]?.tag ?? join,
          },
        ];
      }),
    );
  });
}

/** Hoses against the ports of the pumps they go on; nothing where none does. */
export function portChecks(subject: Id, pieces: Pieces, read: Reader): Check[] {
  const meetings = meetingsOf(pieces, read);
  if (meetings.length === 0) return [];
  const known = meetings.flatMap(({ boreMm, portMm, ...one }) =>
    boreMm === null || portMm === null ? [] : [{ ...one, boreMm, portMm }],
  );
  const off = known.filter(({ boreMm, portMm }) => Math.abs(boreMm - portMm) > portSlackMm);
  const unknown = (path: string, tag: string): Gap => ({ kind: 'not-given', path, label: `kind of ${tag}` });
  const both = off.flatMap(({ hose, pump }) => [hose, pump]);
  return [
    judge(
      coolingRules.port,
      [subject],
      off.length > 0
        ? []
        : meetings.flatMap(({ hose, hoseTag, boreMm, pump, pumpTag, portMm }) => [
            ...(boreMm === null ? [unknown(`plumbing.${hose}.hose`, hoseTag)] : []),
            ...(portMm === null ? [unknown(`plumbing.${pump}.pump`, pumpTag)] : []),
          ]),
      off.length > 0
        ? `${off
            .slice(0, named)
            .map(
              ({ hoseTag, boreMm, pumpTag, portMm, at }) =>
                `${hoseTag} has a bore of ${n(boreMm)} mm, the port of ${pumpTag} at ${at} ${n(portMm)} mm`,
            )
            .join('; ')}.`
        : null,
      off.flatMap(({ hoseTag, boreMm, pumpTag, portMm }) => [
        { label: `bore of ${hoseTag}`, value: boreMm, unit: 'mm' },
        { label: `port of ${pumpTag}`, value: portMm, unit: 'mm' },
      ]),
      { parts: both, also: both },
    ),
  ];
}

/** Plates of which nobody says what lies on them. */
export function idlePlateChecks(subject: Id, pieces: Pieces): Check[] {
  const plates = pieces.filter(([, { kind }]) => kind === 'plate');
  if (plates.length === 0) return [];
  const idle = plates.filter(([, { modules = [], heatW }]) => modules.length === 0 && heatW === undefined);
  return [
    judge(
      coolingRules.coolsNothing,
      [subject],
      [],
      idle.length > 0
        ? `${n(idle.length)} of ${n(plates.length)} plates: ${idle
            .slice(0, named)
            .map(([, { tag }]) => tag)
            .join(', ')}.`
        : null,
      [
        { label: 'plates that cool nothing', value: idle.length, unit: '' },
        { label: 'plates', value: plates.length, unit: '' },
      ],
      { parts: idle.map(([id]) => id), also: idle.map(([id]) => id) },
    ),
  ];
}
