import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import {
  fieldAt,
  hazardDistanceMm,
  runGeometry,
  runLengths,
  waysAlong,
  type HazardItem,
  type Id,
  type RunItem,
} from '../../model/document';
import { Inputs, judge, type Reader, type Run, type StepDefinition } from '../../model/step';
import { cablesIn, kgPerM, leastRadiusMm, runsOf, thickest, type CablesOfKind } from './cables-in';
import { route, routeRules, type RouteInput, type RouteResult } from './route';
import { runRules } from './rules';
import { placeChecks } from './run-places';

const n = formatNumber;

/** What was measured in place may be shorter than the points make the way, as a fraction of it. */
export const measuredWithin = 0.02;

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
