import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { openingDefaults, type BoxItem, type Design, type Id, type OpeningItem } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { wallRules } from './wall-rules';

const n = formatNumber;

/** How far a hole may be wider than the thread in it, mm. */
const holeWithinMm = 1;
/** What a nut takes beside its hole: across its corners, and room for the spanner, mm. */
const nutTimes = 1.5;
const spannerMm = 6;
const threaded = new Set<OpeningItem['by']>(['gland', 'sealed plug']);

/** The largest thread of the glands of what a run carries, mm; null: none of them has one. */
function threadOf(run: Id | undefined, read: Reader): { threadMm: number | null; gaps: Gap[] } {
  const item = read.at('runs')?.[run ?? ''];
  if (item === undefined) return { threadMm: null, gaps: [] };
  const own = [
    ...(item.circuits ?? []).map((id) => ({
      key: read.at('circuits', id)?.gland,
      path: `circuits.${id}.gland`,
      tag: read.at('circuits', id)?.tag ?? id,
    })),
    ...(item.leads ?? []).map((id) => {
      const lead = read.at('pack', 'leads')?.[id];
      return { key: lead?.gland, path: `pack.leads.${id}.gland`, tag: lead?.tag ?? id };
    }),
  ];
  const gaps = own.flatMap(({ key, path, tag }): Gap[] =>
    key === undefined ? [{ kind: 'not-given', path, label: `gland of ${tag}` }] : [],
  );
  const threads = own.flatMap(({ key }) => {
    const part = read.at('parts', key ?? '');
    return part?.kind === 'gland' ? [part.data.threadMm] : [];
  });
  // Motor phases, and runs of which nobody says what they carry.
  if (own.length === 0)
    gaps.push({ kind: 'not-given', path: `runs.${run}.circuits`, label: `gland of ${item.tag}` });
  return { threadMm: threads.length === 0 ? null : Math.max(...threads), gaps };
}

/** Each opening: its hole, the room on both sides of it, and what closes it. */
export const openingStep: StepDefinition = {
  id: 'routing.opening',
  version: 1,
  subjects: ({ openings = {} }) => Object.keys(openings),
  compute(subject, read) {
    const item = read.at('openings')![subject]!;
    const { tag, box, passes, by, run, holeMm, count = openingDefaults.count } = item;
    const at = `openings.${subject}`;
    const need = (value: unknown, field: string, label: string): Gap[] =>
      value === undefined ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${tag}` }] : [];
    const where = box === undefined ? 'the vehicle' : (read.at('boxes', box)?.tag ?? box);
    const also = { also: box === undefined ? [] : [box] };
    const bare = by === 'open' || (passes === 'nothing' && by !== 'blank');
    const checks: Check[] = [
      judge(
        wallRules.open,
        [subject],
        [...need(passes, 'passes', 'what passes'), ...need(by, 'by', 'what closes')],
        bare && passes !== 'vent'
          ? `${tag} in ${where}${holeMm === undefined ? '' : `, ${n(holeMm)} mm,`} ${passes === 'nothing' ? 'passes nothing and has no blank' : 'has a bare edge'}: ${n(count)} ${count === 1 ? 'opening that is' : 'openings that are'} not closed.`
          : null,
        [
          { label: 'openings not closed', value: count, unit: '' },
          { label: 'hole', value: holeMm ?? 0, unit: 'mm' },
        ],
        also,
      ),
    ];
    const unsaid = need(passes, 'passes', 'what passes');
    // Of a wall that nobody names, nobody knows whether it is full.
    if (box !== undefined && item.face === undefined)
      checks.push(judge(wallRules.crowded, [subject], need(undefined, 'face', 'face'), null, [], also));
    if ((passes === 'cables' || passes === undefined) && (by === 'gland' || by === undefined)) {
      const { threadMm, gaps } = threadOf(run, read);
      const off =
        threadMm !== null && holeMm !== undefined && (holeMm < threadMm || holeMm > threadMm + holeWithinMm);
      checks.push(
        judge(
          wallRules.hole,
          [subject],
          [
            ...unsaid,
            ...need(by, 'by', 'what closes'),
            ...need(run, 'run', 'run'),
            ...need(holeMm, 'holeMm', 'hole'),
            ...gaps,
          ],
          off
            ? `The hole of ${tag} in ${where} is ${n(holeMm)} mm wide; its gland is M${n(threadMm)}.`
            : null,
          [
            { label: 'hole', value: holeMm ?? 0, unit: 'mm' },
            { label: 'thread', value: threadMm ?? 0, unit: 'mm' },
          ],
          also,
        ),
      );
    }
    if (passes === 'cables' || passes === 'hose' || passes === undefined)
      checks.push(roomCheck(subject, item, where, need, read));
    return { figures: [], checks };
  },
};

function roomCheck(
  subject: Id,
  item: OpeningItem,
  where: string,
  need: (value: unknown, field: string, label: string) => Gap[],
  read: Reader,
): Check {
  const { tag, run, insideMm, outsideMm, stiffMm = openingDefaults.stiffMm } = item;
  const own = read.at('runs')?.[run ?? ''];
  const radiusMm = own?.bendRadiusMm;
  const askedMm = stiffMm + (radiusMm ?? 0);
  const gaps: Gap[] = [
    ...need(item.passes, 'passes', 'what passes'),
    ...need(run, 'run', 'run'),
    ...(own !== undefined && radiusMm === undefined
      ? [{ kind: 'not-given' as const, path: `runs.${run}.bendRadiusMm`, label: `bend radius of ${own.tag}` }]
      : []),
    ...need(insideMm, 'insideMm', 'room inside'),
    ...need(outsideMm, 'outsideMm', 'room outside'),
  ];
  const short = (
    [
      ['inside', insideMm],
      ['outside', outsideMm],
    ] as const
  ).filter(([, room]) => room !== undefined && room < askedMm);
  return judge(
    wallRules.room,
    [subject],
    gaps,
    short.length > 0
      ? `${tag} in ${where} has ${short.map(([side, room]) => `${n(room!)} mm ${side}`).join(' and ')}; ${n(stiffMm)} mm are stiff and ${n(radiusMm ?? 0)} mm are the bend, together ${n(askedMm)} mm.`
      : null,
    [
      { label: 'room inside', value: insideMm ?? 0, unit: 'mm' },
      { label: 'room outside', value: outsideMm ?? 0, unit: 'mm' },
      { label: 'stiff', value: stiffMm, unit: 'mm' },
      { label: 'bend radius', value: radiusMm ?? 0, unit: 'mm' },
      { label: 'asked', value: askedMm, unit: 'mm' },
    ],
    { also: item.box === undefined ? [] : [item.box] },
  );
}

/** The longer side of a face of a box, mm; undefined: a size is not given. */
function alongFace(
  box: BoxItem,
  face: NonNullable<OpeningItem['face']>,
): { mm: number | undefined; fields: string[] } {
  const fields: ('lengthM' | 'widthM' | 'heightM')[] =
    face === 'front' || face === 'rear'
      ? ['widthM', 'heightM']
      : face === 'left' || face === 'right'
        ? ['lengthM', 'heightM']
        : ['lengthM', 'widthM'];
  const sizes = fields.flatMap((field) => (box[field] === undefined ? [] : [box[field]]));
  return {
    mm: sizes.length < fields.length ? undefined : Math.max(...sizes) * 1000,
    fields: fields.filter((field) => box[field] === undefined),
  };
}

const ofBox = ({ openings = {} }: Pick<Design, 'openings'>, box: Id) =>
  Object.entries(openings).filter(([, one]) => one.box === box);
const facesOf = (design: Pick<Design, 'openings' | 'boxes'>): string[] =>
  Object.keys(design.boxes).flatMap((box) =>
    [...new Set(ofBox(design, box).flatMap(([, { face }]) => (face === undefined ? [] : [face])))].map(
      (face) => `${box}/${face}`,
    ),
  );

/** Each face of a box that has openings: whether nuts and spanners find room side by side. */
export const faceStep: StepDefinition = {
  id: 'routing.face',
  version: 1,
  subjects: facesOf,
  compute(subject, read) {
    const at = subject.lastIndexOf('/');
    const [id, face] = [subject.slice(0, at), subject.slice(at + 1) as NonNullable<OpeningItem['face']>];
    const box = read.at('boxes', id)!;
    const own = ofBox({ openings: read.at('openings') ?? {} }, id).filter(([, one]) => one.face === face);
    const gaps: Gap[] = own.flatMap(([key, one]): Gap[] =>
      one.holeMm === undefined
        ? [{ kind: 'not-given', path: `openings.${key}.holeMm`, label: `hole of ${one.tag}` }]
        : [],
    );
    const takenMm = own.reduce(
      (sum, [, { holeMm = 0, by, count = openingDefaults.count }]) =>
        sum + count * ((threaded.has(by) ? holeMm * nutTimes : holeMm) + spannerMm),
      0,
    );
    const holes = own.reduce((sum, [, { count = openingDefaults.count }]) => sum + count, 0);
    const { mm, fields } = alongFace(box, face);
    const label = `Taken side by side, ${face}`;
    const figures: Figure[] = [
      {
        id: figureId('routing.face', subject, 'takenMm'),
        label,
        unit: 'mm',
        value: gaps.length > 0 ? null : takenMm,
        gaps,
        ...(mm !== undefined && { limit: { max: mm } }),
        working:
          gaps.length > 0
            ? []
            : [
                {
                  symbol: 'l',
                  label,
                  formula: 'Σ(N·(k·d + s))',
                  inputs: own.map(([key, { tag, holeMm = 0 }], i) => ({
                    symbol: `d_${i + 1}`,
                    label: tag,
                    value: holeMm,
                    unit: 'mm',
                    origin: { kind: 'document' as const, path: `openings.${key}.holeMm` },
                  })),
                  value: takenMm,
                  unit: 'mm',
                  source: 'Nuts 1.5 times their hole, 6 mm for the spanner',
                },
              ],
      },
    ];
    return {
      figures,
      checks: [
        judge(
          wallRules.crowded,
          [subject],
          [
            ...gaps,
            ...fields.map((field): Gap => ({
              kind: 'not-given',
              path: `boxes.${id}.${field}`,
              label: `size of ${box.tag}`,
            })),
          ],
          mm !== undefined && takenMm > mm
            ? `${n(holes)} openings in the ${face} of ${box.tag} take ${n(takenMm)} mm side by side; it is ${n(mm)} mm long.`
            : null,
          [
            { label: 'openings', value: holes, unit: '' },
            { label: 'taken', value: takenMm, unit: 'mm' },
            { label: 'wall', value: mm ?? 0, unit: 'mm' },
          ],
          { also: [id] },
        ),
      ],
    };
  },
};

/** Ends of runs at boxes of which openings are listed: `run/end`. */
const listedEnds = ({ runs = {}, openings = {} }: Pick<Design, 'runs' | 'openings'>): string[] =>
  Object.entries(runs).flatMap(([id, run]) =>
    (['from', 'to'] as const).flatMap((end) =>
      run[end] !== undefined && ofBox({ openings }, run[end]).length > 0 ? [`${id}/${end}`] : [],
    ),
  );

/** Whether a run has its opening where those of the box are listed. */
export const throughStep: StepDefinition = {
  id: 'routing.through',
  version: 1,
  subjects: listedEnds,
  compute(subject, read) {
    const at = subject.lastIndexOf('/');
    const [id, end] = [subject.slice(0, at), subject.slice(at + 1) as 'from' | 'to'];
    const run = read.at('runs')![id]!;
    const box = run[end]!;
    const own = ofBox({ openings: read.at('openings') ?? {} }, box);
    const has = own.some(([, one]) => one.run === id);
    return {
      figures: [],
      checks: [
        judge(
          wallRules.missing,
          [subject],
          [],
          has
            ? null
            : `${run.tag} ends at ${read.at('boxes', box)?.tag ?? box}; none of the ${own.length} openings listed there passes it.`,
          [{ label: 'openings listed', value: own.length, unit: '' }],
          { also: [id, box] },
        ),
      ],
    };
  },
};
