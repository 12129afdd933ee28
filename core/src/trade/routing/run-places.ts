import type { Check, Gap } from '../../ground/figure';
import { distance, type Vector } from '../../ground/math';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { isHoseRun, vehicleDefaults, type Id, type RunGeometry, type RunItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { runRules } from './rules';
import { depthIn, placeGaps, pointsAlong, solidOf, type Solid } from './solids';

const n = formatNumber;

/** Something that a run leads through, and where along it. */
interface Met {
  tag: string;
  at: number;
}
const named = (those: readonly Met[]) =>
  those.map(({ tag, at }) => `${tag}, ${n(at)} m from its beginning`).join('; ');
const placesOf = (those: readonly Met[]) => [
  { label: 'things it leads through', value: those.length, unit: '' },
  ...those.map(({ tag, at }, i) => ({ label: `${i + 1}: ${tag}, from the beginning`, value: at, unit: 'm' })),
];

/** How far along a way first lies inside of a solid, m; null: nowhere. */
function firstInside(solid: Solid, along: readonly Vector[]): number | null {
  // Most solids are nowhere near: along one axis the whole way lies beside them.
  for (const axis of [0, 1, 2] as const) {
    const [low, high] = [solid.low[axis] + insideM, solid.high[axis] - insideM];
    if (along.every((point) => point[axis] <= low) || along.every((point) => point[axis] >= high))
      return null;
  }
  let atM = 0;
  for (let i = 0; i < along.length; i += 1) {
    if (i > 0) atM += distance(along[i - 1]!, along[i]!);
    if (depthIn(solid, along[i]!) > insideM) return atM;
  }
  return null;
}

const endWithinM = 0.05;
const insideM = 0.005;

/** Where the run leads, against boxes, devices and zones. */
export function placeChecks(
  subject: Id,
  run: RunItem,
  found: RunGeometry | null,
  gaps: Gap[],
  read: Reader,
): Check[] {
  const { tag } = run;
  if (found === null)
    return [
      ...Object.values(runRules).flatMap((one) =>
        whole.has(one) ? [judge(one, [subject], gaps, null)] : [],
      ),
      ...(['from', 'to'] as const).map((end) => judge(runRules.endOff, [`${subject}/${end}`], gaps, null)),
    ];
  const along = pointsAlong(found.path);
  const checks: Check[] = [];
  const things = { ...read.at('boxes'), ...read.at('devices') };
  for (const [end, point, name] of [
    ['from', found.points[0]!, 'begins'],
    ['to', found.points.at(-1)!, 'ends'],
  ] as const) {
    const thing = things[run[end] ?? ''];
    const solid = thing === undefined ? null : solidOf(thing);
    // A hose may end at a tee in the open.
    if (run[end] === undefined && !isHoseRun(run))
      checks.push(
        judge(
          runRules.endOff,
          [`${subject}/${end}`],
          [{ kind: 'not-given', path: `runs.${subject}.${end}`, label: `what ${tag} ${name} at` }],
          null,
        ),
      );
    if (thing === undefined) continue;
    if (solid === null) {
      const root = Object.hasOwn(read.at('boxes'), run[end]!) ? 'boxes' : 'devices';
      checks.push(
        judge(runRules.endOff, [`${subject}/${end}`], placeGaps(`${root}.${run[end]}`, thing), null),
      );
      continue;
    }
    const offM = -depthIn(solid, point);
    checks.push(
      judge(
        runRules.endOff,
        [`${subject}/${end}`],
        [],
        offM > endWithinM + 1e-9 ? `${tag} ${name} ${n(offM * 1000)} mm off ${thing.tag}.` : null,
        [{ label: 'off', value: Math.max(0, offM), unit: 'm' }],
        { also: [subject, run[end]!] },
      ),
    );
  }
  const unplaced = Object.values(things).filter((thing) => solidOf(thing) === null).length;
  const through = Object.entries(things).flatMap(([id, thing]) => {
    const solid = id === run.from || id === run.to ? null : solidOf(thing);
    const at = solid === null ? null : firstInside(solid, along);
    return at === null ? [] : [{ id, tag: thing.tag, at }];
  });
  checks.push(
    judge(
      runRules.through,
      [subject],
      [],
      through.length > 0 ? `${tag} leads through ${named(through)}.` : null,
      [...placesOf(through), { label: 'things without a place, not compared', value: unplaced, unit: '' }],
      { also: through.map(({ id }) => id) },
    ),
  );
  const clearanceM = read.at('vehicle', 'clearanceM') ?? vehicleDefaults.clearanceM;
  const halfM = (run.conduitOuterMm ?? 0) / 2000;
  const lowestM = Math.min(...along.map(([, , z]) => z)) - halfM;
  checks.push(
    judge(
      runRules.low,
      [subject],
      [],
      lowestM < clearanceM - 1e-9
        ? `${tag} hangs ${formatQuantity(lowestM, 'm')} above the ground; ${formatQuantity(clearanceM, 'm')} are asked.`
        : null,
      [
        { label: 'lowest point', value: lowestM, unit: 'm' },
        { label: 'asked', value: clearanceM, unit: 'm' },
      ],
    ),
  );
  return [...checks, ...zoneChecks(subject, run, found, read)];
}

const whole = new Set([
  runRules.through,
  runRules.low,
  runRules.forbidden,
  runRules.crush,
  runRules.obstacle,
]);

/** Tubes that are not crushed with what lies in them. */
const rigid = new Set<string>(['steel', 'aluminium']);

/** Forbidden and kept-free places take no run; where the vehicle is crushed it lies in a rigid tube. */
function zoneChecks(
  subject: Id,
  { tag, conduit }: RunItem,
  { path, legs, ways }: RunGeometry,
  read: Reader,
): Check[] {
  const given = Object.entries(read.at('zones') ?? {});
  const zones = given.flatMap(([id, zone]) => {
    const solid = solidOf(zone);
    return solid === null ? [] : [{ ...zone, id, solid }];
  });
  /** A zone that is nowhere yet is not one that the run stays out of. */
  const gapsOf = (kinds: string[]) =>
    given.flatMap(([id, zone]) => (kinds.includes(zone.kind) ? placeGaps(`zones.${id}`, zone) : []));
  /** Straights lie in their leg; a bend counts to the one before it. */
  let leg = 0;
  const bare = { pieces: [] as typeof path.pieces };
  /** In a tube of which nobody says what it is. */
  const unsaid = { pieces: [] as typeof path.pieces };
  for (const piece of path.pieces) {
    if (piece.kind === 'arc') leg = piece.corner;
    const inTube = ways[Math.min(leg, ways.length - 1)] === 'conduit';
    if (!inTube || (conduit !== undefined && !rigid.has(conduit))) bare.pieces.push(piece);
    else if (conduit === undefined) unsaid.pieces.push(piece);
    if (piece.kind === 'arc') leg = Math.min(piece.corner + 1, legs.lengths.length - 1);
  }
  const [all, uncovered] = [pointsAlong(path), pointsAlong(bare)];
  const hit = (kinds: string[], points: typeof all) =>
    zones.flatMap(({ id, kind, tag: name, solid }) => {
      const at = kinds.includes(kind) && points.length > 0 ? firstInside(solid, points) : null;
      return at === null ? [] : [{ id, tag: name, at }];
    });
  const said = (
    those: (Met & { id: Id })[],
    kinds: string[],
    rule: (typeof runRules)[keyof typeof runRules],
    text: string,
    gaps: Gap[] = [],
  ) =>
    judge(
      rule,
      [subject],
      those.length > 0 ? [] : [...gapsOf(kinds), ...gaps],
      those.length > 0 ? `${tag} ${text} ${named(those)}.` : null,
      [...placesOf(those)],
      { also: those.map(({ id }) => id) },
    );
  const covered = hit(['crush'], pointsAlong(unsaid));
  const back = hit(['obstacle'], all).filter(({ id }) => read.at('zones')?.[id]?.staysOut !== true);
  const hoursOf = (id: Id) => read.at('zones')?.[id]?.outHours;
  return [
    judge(
      runRules.obstacle,
      [subject],
      back.length > 0 ? [] : gapsOf(['obstacle']),
      back.length > 0
        ? `${tag} leads through ${back
            .map((one) => {
              const hours = hoursOf(one.id);
              return `${named([one])}${hours === undefined ? '' : `, ${n(hours)} h to take out`}`;
            })
            .join('; ')}.`
        : null,
      [
        ...placesOf(back),
        ...back.flatMap((one, i) => {
          const hours = hoursOf(one.id);
          return hours === undefined ? [] : [{ label: `${i + 1}: to take out`, value: hours, unit: 'h' }];
        }),
      ],
      { also: back.map(({ id }) => id) },
    ),
    said(
      hit(['forbidden', 'keep-free'], all),
      ['forbidden', 'keep-free'],
      runRules.forbidden,
      'leads through',
    ),
    said(
      hit(['crush'], uncovered),
      ['crush'],
      runRules.crush,
      conduit === undefined || rigid.has(conduit) ? 'lies bare in' : `lies in ${conduit} conduit in`,
      covered.length > 0
        ? [{ kind: 'not-given', path: `runs.${subject}.conduit`, label: `conduit of ${tag}` }]
        : [],
    ),
  ];
}
