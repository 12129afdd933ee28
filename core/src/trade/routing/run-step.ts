import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { distance, type Vector } from '../../ground/math';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import {
  fieldAt,
  hazardDistanceMm,
  runGeometry,
  runLengths,
  vehicleDefaults,
  waysAlong,
  type HazardItem,
  type Id,
  type RunGeometry,
  type RunItem,
} from '../../model/document';
import { Inputs, judge, type Reader, type Run, type StepDefinition } from '../../model/step';
import { cablesIn, kgPerM, leastRadiusMm, runsOf, thickest, type CablesOfKind } from './cables-in';
import { route, routeRules, type RouteInput, type RouteResult } from './route';
import { runRules } from './rules';
import { depthIn, placeGaps, pointsAlong, solidOf, type Solid } from './solids';

const n = formatNumber;

/** What is missing of the points of a run or line. */
function pointGaps(points: RunItem['points'] | HazardItem['points'], at: string, tag: string): Gap[] {
  if (points === undefined || points.length < 2)
    return [{ kind: 'not-given', path: `${at}.points`, label: `points of ${tag}` }];
  return points.flatMap((one, i) =>
    (['xM', 'yM', 'zM'] as const).flatMap((axis): Gap[] =>
      one[axis] === undefined
        ? [{ kind: 'not-given', path: `${at}.points.${i}.${axis}`, label: `point ${i + 1} of ${tag}` }]
        : [],
    ),
  );
}

const pointsOf = (points: RunItem['points'] | HazardItem['points'] = []) =>
  points.map(({ xM = 0, yM = 0, zM = 0 }): [number, number, number] => [xM, yM, zM]);

function inputsOf(subject: Id, run: RunItem, read: Reader, cables: CablesOfKind[], gaps: Gap[]): Inputs {
  const at = `runs.${subject}`;
  const inputs = new Inputs(read);
  const missing = pointGaps(run.points, at, run.tag);
  inputs.missing(...missing, ...gaps);
  if (missing.length === 0)
    inputs.set(
      'points',
      pointsOf(run.points),
      { kind: 'document', path: `${at}.points` },
      `points of ${run.tag}`,
    );
  inputs.given('bendRadiusMm', run.bendRadiusMm, `${at}.bendRadiusMm`, `bend radius of ${run.tag}`);
  if (cables.length > 0) {
    const { part } = cables.find((one) => one.part === thickest(cables))!;
    const key = `${part.id}@${part.revision}`;
    inputs.set('cable.outerDiameterMm', part.data.outerDiameterMm, {
      kind: 'part',
      key,
      path: 'outerDiameterMm',
    });
    inputs.set('cable.massKgPerM', kgPerM(cables), { kind: 'constant', source: 'all conductors of the run' });
  }
  inputs.optional(
    'cable.minBendRadiusFactor',
    run.minBendFactor,
    `${at}.minBendFactor`,
    'least bend of the cable',
  );
  for (const field of ['clipSpacingMm', 'clipFromEndMm', 'slackFraction', 'terminationMm'] as const)
    inputs.optional(
      field,
      run[field],
      `${at}.${field}`,
      fieldAt(`${at}.${field}`)!.field.label.toLowerCase(),
    );
  const tube = waysAlong(run.points ?? []).includes('conduit');
  if (tube)
    inputs.optional('conduitOuterMm', run.conduitOuterMm, `${at}.conduitOuterMm`, 'outside of the conduit');
  const hazards = Object.entries(read.at('hazards') ?? {}).flatMap(([id, line]) =>
    pointGaps(line.points, '', '').length > 0
      ? []
      : [
          {
            id,
            kind: line.kind,
            points: pointsOf(line.points),
            minSeparationMm: line.minSeparationMm ?? hazardDistanceMm[line.kind],
            radiusMm: line.radiusMm ?? 0,
          },
        ],
  );
  inputs.set('hazards', hazards, { kind: 'document', path: 'hazards' }, 'lines to stay away from');
  return inputs;
}

/** Each line against the run: what cannot be compared is not checked. */
function separationChecks(
  subject: Id,
  tag: string,
  run: Run<RouteInput, RouteResult>,
  read: Reader,
): Check[] {
  return Object.entries(read.at('hazards') ?? {}).map(([id, line]) => {
    const found = run.result?.separations.find((one) => one.id === id);
    const gaps = [...run.gaps, ...pointGaps(line.points, `hazards.${id}`, line.tag)];
    if (gaps.length > 0 || found === undefined)
      return judge(routeRules.separation, [subject, id], gaps, null);
    return judge(
      routeRules.separation,
      [subject, id],
      [],
      found.ok
        ? null
        : `${tag} comes within ${n(found.distanceMm)} mm of ${line.tag} (${line.kind}); ${n(found.requiredMm)} mm are asked.`,
      [
        { label: 'distance', value: found.distanceMm, unit: 'mm' },
        { label: 'asked', value: found.requiredMm, unit: 'mm' },
      ],
    );
  });
}

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
  let atM = 0;
  for (let i = 0; i < along.length; i += 1) {
    if (i > 0) atM += distance(along[i - 1]!, along[i]!);
    if (depthIn(solid, along[i]!) > insideM) return atM;
  }
  return null;
}

/** What was measured in place may be shorter than the points make the way, as a fraction of it. */
const measuredWithin = 0.02;
const endWithinM = 0.05;
const insideM = 0.005;

/** Where the run leads, against boxes, devices and zones. */
function placeChecks(
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
    if (run[end] === undefined)
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

const whole = new Set([runRules.through, runRules.low, runRules.forbidden, runRules.crush]);

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
  return [
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

/** Each run: length, bends, distances, and where it leads. */
export const runStep: StepDefinition = {
  id: 'routing.run',
  version: 1,
  subjects: runsOf,
  compute(subject, read) {
    const item = read.at('runs')![subject]!;
    const { cables, gaps } = cablesIn(item, subject, read);
    const inputs = inputsOf(subject, item, read, cables, gaps);
    const run = inputs.run(route);
    const lengths = runLengths(item);
    const figures = run.figures('routing.run', subject, [
      { name: 'pathLengthM', symbol: 'L', label: 'Length along the run', unit: 'm' },
      { name: 'totalBendDeg', label: 'Bends together', unit: '°' },
    ]);
    const cut = run.figures('routing.run', subject, [
      { name: 'cutLengthM', symbol: 'L_c', label: 'Length to cut', unit: 'm' },
    ])[0]!;
    const measured = item.cutLengthM;
    const cutFigure: Figure =
      measured === undefined ? cut : { ...cut, value: measured, gaps: [], working: [] };
    const radius =
      cables.length === 0 || item.bendRadiusMm === undefined ? null : leastRadiusMm(cables, item);
    const values = [
      { label: 'bend radius', value: item.bendRadiusMm ?? 0, unit: 'mm' },
      { label: 'cable allows', value: radius ?? 0, unit: 'mm' },
    ];
    const alongM = run.result?.pathLengthM ?? null;
    const isShort = measured !== undefined && alongM !== null && measured < alongM * (1 - measuredWithin);
    const own = run
      .checks(
        [subject],
        values,
        cables.map(({ part }) => `${part.id}@${part.revision}`),
      )
      .filter(({ rule }) => rule !== routeRules.separation)
      .map((check) =>
        check.state === 'raised' ? { ...check, message: `${item.tag}: ${check.message}` } : check,
      );
    return run.output(
      [...figures, cutFigure, massFigure(subject, item, cables, lengths?.cutM ?? null, run.gaps)],
      [
        ...own,
        judge(
          runRules.short,
          [subject],
          run.gaps,
          isShort
            ? `${item.tag} is cut to ${formatQuantity(measured, 'm')}; its way is ${formatQuantity(alongM, 'm')} long.`
            : null,
          [
            { label: 'cut to', value: measured ?? 0, unit: 'm' },
            { label: 'way', value: alongM ?? 0, unit: 'm' },
          ],
        ),
        ...separationChecks(subject, item.tag, run, read),
        ...placeChecks(subject, item, runGeometry(item), run.gaps, read),
      ],
    );
  },
};

/** All conductors of a run as they are cut. */
function massFigure(
  subject: Id,
  { tag }: RunItem,
  cables: CablesOfKind[],
  cutM: number | null,
  gaps: Gap[],
): Figure {
  const known = cutM !== null && cables.length > 0 && gaps.length === 0;
  const value = known ? kgPerM(cables) * cutM : null;
  return {
    id: figureId('routing.run', subject, 'cablesKg'),
    label: 'Cables of the run',
    unit: 'kg',
    value,
    gaps: known
      ? []
      : gaps.length > 0
        ? gaps
        : [{ kind: 'not-given', path: `runs.${subject}.points`, label: `length of ${tag}` }],
    working: !known
      ? []
      : [
          {
            symbol: 'm',
            label: 'Cables of the run',
            formula: 'q·l',
            inputs: [
              {
                symbol: 'q',
                value: kgPerM(cables),
                unit: 'kg/m',
                origin: { kind: 'constant', source: 'all conductors' },
              },
              {
                symbol: 'l',
                value: cutM,
                unit: 'm',
                origin: { kind: 'figure', id: figureId('routing.run', subject, 'cutLengthM') },
              },
            ],
            value: value!,
            unit: 'kg',
            source: 'Cable makers’ mass per metre',
          },
        ],
  };
}

/** Circuits that runs carry: both poles, and once. */
export const routedStep: StepDefinition = {
  id: 'routing.routed',
  version: 1,
  subjects: ({ circuits, runs = {} }) => {
    const carried = new Set(Object.values(runs).flatMap((run) => run.circuits ?? []));
    return Object.keys(circuits).filter((id) => carried.has(id));
  },
  compute(subject, read) {
    const { tag } = read.at('circuits', subject)!;
    const own = Object.values(read.at('runs') ?? {}).filter(({ circuits }) => circuits?.includes(subject));
    const has = (pole: 'plus' | 'minus') =>
      own.some(({ poles = 'both' }) => poles === 'both' || poles === pole);
    const one = own.length > 0 && has('plus') !== has('minus');
    const both = own.filter(({ poles = 'both' }) => poles === 'both');
    return {
      figures: [],
      checks: [
        judge(
          runRules.onePole,
          [subject],
          [],
          one
            ? `${tag}: 1 of its 2 poles has a run, the ${has('plus') ? 'positive' : 'negative'} one.`
            : null,
          [
            { label: 'poles with a run', value: Number(has('plus')) + Number(has('minus')), unit: '' },
            { label: 'poles', value: 2, unit: '' },
          ],
        ),
        judge(
          runRules.twice,
          [subject],
          [],
          both.length > 1
            ? `${tag} is carried by ${both.length} runs: ${both.map((run) => run.tag).join(', ')}.`
            : null,
          [{ label: 'runs', value: both.length, unit: '' }],
        ),
      ],
    };
  },
};
