import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import {
  fieldAt,
  hazardDistanceMm,
  isHoseRun,
  runGeometry,
  runLengths,
  waysAlong,
  type HazardItem,
  type Id,
  type RunItem,
} from '../../model/document';
import { Inputs, judge, type Reader, type Run, type StepDefinition } from '../../model/step';
import { kgPerM, lainIn, leastRadiusMm, runsOf, thickest, type Lain } from './lain-in';
import { route, routeRules, type RouteInput, type RouteResult } from './route';
import { pointGaps } from './point-gaps';
import { runRules } from './rules';
import { hoseChecks } from './hose-ends';
import { measuredChecks, toleranceFigures } from './run-measured';
import { entryChecks, loopGaps, withLoops } from './run-ends';
import { placeChecks } from './run-places';

const n = formatNumber;

/** What was measured in place may be shorter than the points make the way, as a fraction of it. */
export const measuredWithin = 0.02;

const pointsOf = (points: RunItem['points'] | HazardItem['points'] = []) =>
  points.map(({ xM = 0, yM = 0, zM = 0 }): [number, number, number] => [xM, yM, zM]);

function inputsOf(subject: Id, run: RunItem, read: Reader, cables: Lain[], gaps: Gap[]): Inputs {
  const at = `runs.${subject}`;
  const inputs = new Inputs(read);
  const missing = pointGaps(run.points, at, run.tag);
  inputs.missing(...missing, ...gaps, ...loopGaps(subject, run));
  if (missing.length === 0)
    inputs.set(
      'points',
      pointsOf(run.points),
      { kind: 'document', path: `${at}.points` },
      `points of ${run.tag}`,
    );
  inputs.given('bendRadiusMm', run.bendRadiusMm, `${at}.bendRadiusMm`, `bend radius of ${run.tag}`);
  if (cables.length > 0) {
    const { key, outerDiameterMm } = thickest(cables);
    const path = isHoseRun(run) ? 'outerMm' : 'outerDiameterMm';
    inputs.set('cable.outerDiameterMm', outerDiameterMm, { kind: 'part', key, path });
    inputs.set('cable.massKgPerM', kgPerM(cables), { kind: 'constant', source: 'all that lies in the run' });
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
  const hazards = linesFor(subject, run, read).flatMap(
    ({ id, kind, points, minSeparationMm, radiusMm, gaps: unknown }) =>
      unknown.length > 0 ? [] : [{ id, kind, points: pointsOf(points), minSeparationMm, radiusMm }],
  );
  inputs.set('hazards', hazards, { kind: 'document', path: 'hazards' }, 'lines to stay away from');
  return inputs;
}

/** A line that a run stays away from, with what is not said of it. */
interface Line {
  id: Id;
  tag: string;
  kind: string;
  points: RunItem['points'];
  minSeparationMm: number;
  radiusMm: number;
  gaps: Gap[];
}

/** Lines as mapped, and for what carries current the hoses that have runs of their own. Coolant need not keep away from coolant. */
function linesFor(subject: Id, run: RunItem, read: Reader): Line[] {
  const coolant = isHoseRun(run);
  const mapped = Object.entries(read.at('hazards') ?? {}).flatMap(([id, line]): Line[] =>
    coolant && line.kind === 'coolant'
      ? []
      : [
          {
            id,
            tag: line.tag,
            kind: line.kind,
            points: line.points,
            minSeparationMm: line.minSeparationMm ?? hazardDistanceMm[line.kind],
            radiusMm: line.radiusMm ?? 0,
            gaps: pointGaps(line.points, `hazards.${id}`, line.tag),
          },
        ],
  );
  if (coolant) return mapped;
  const hoses = Object.entries(read.at('runs') ?? {}).flatMap(([id, one]): Line[] => {
    if (id === subject || !isHoseRun(one)) return [];
    const { lain, gaps } = lainIn(one, id, read);
    return [
      {
        id,
        tag: one.tag,
        kind: 'coolant',
        points: one.points,
        minSeparationMm: hazardDistanceMm.coolant,
        radiusMm: lain.length === 0 ? 0 : thickest(lain).outerDiameterMm / 2,
        gaps: [...pointGaps(one.points, `runs.${id}`, one.tag), ...gaps],
      },
    ];
  });
  return [...mapped, ...hoses];
}

/** Each line against the run: what cannot be compared is not checked. */
function separationChecks(
  subject: Id,
  item: RunItem,
  run: Run<RouteInput, RouteResult>,
  read: Reader,
): Check[] {
  const { tag } = item;
  return linesFor(subject, item, read).map(({ id, ...line }) => {
    const found = run.result?.separations.find((one) => one.id === id);
    const gaps = [...run.gaps, ...line.gaps];
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

/** Each run: length, bends, distances, and where it leads. */
export const runStep: StepDefinition = {
  id: 'routing.run',
  version: 1,
  subjects: runsOf,
  compute(subject, read) {
    const item = read.at('runs')![subject]!;
    const { lain: cables, gaps } = lainIn(item, subject, read);
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
      measured === undefined
        ? withLoops(subject, item, cut)
        : { ...cut, value: measured, gaps: [], working: [] };
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
        cables.map(({ key }) => key),
      )
      .filter(({ rule }) => rule !== routeRules.separation)
      .map((check) =>
        check.state === 'raised' ? { ...check, message: `${item.tag}: ${check.message}` } : check,
      );
    return run.output(
      [
        ...figures,
        cutFigure,
        ...toleranceFigures(subject, item),
        massFigure(subject, item, cables, lengths?.cutM ?? null, run.gaps),
      ],
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
        ...measuredChecks(subject, item, run.result?.pathLengthM ?? null, run.gaps, read),
        ...entryChecks(subject, item, runGeometry(item), run.gaps),
        ...separationChecks(subject, item, run, read),
        ...hoseChecks(subject, item, read),
        ...placeChecks(subject, item, runGeometry(item), run.gaps, read),
      ],
    );
  },
};

/** All conductors of a run as they are cut. */
function massFigure(subject: Id, run: RunItem, cables: Lain[], cutM: number | null, gaps: Gap[]): Figure {
  const { tag } = run;
  const label = isHoseRun(run) ? 'Hoses of the run, empty' : 'Cables of the run';
  const known = cutM !== null && cables.length > 0 && gaps.length === 0;
  const value = known ? kgPerM(cables) * cutM : null;
  return {
    id: figureId('routing.run', subject, 'cablesKg'),
    label,
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
            label,
            formula: 'q·l',
            inputs: [
              {
                symbol: 'q',
                value: kgPerM(cables),
                unit: 'kg/m',
                origin: { kind: 'constant', source: 'all that lies in it' },
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
            source: 'Makers’ mass per metre',
          },
        ],
  };
}
