import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { distance, type Vector } from '../../ground/math';
import { pointAt } from '../../ground/space';
import {
  runDefaults,
  runGeometry,
  waysAlong,
  type Id,
  type LaidWay,
  type RunGeometry,
} from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { pointGaps } from './point-gaps';
import { runRules } from './rules';

const n = formatNumber;

/** A clip with its stand-off reaches so far from a fixing to a cable, m. */
export const clipReachM = 0.08;
/** The way is looked at in steps of so much, m. */
const stepM = 0.01;

/** Where a run is held, m from its start. */
export interface Held {
  atM: number;
  by: string;
}

/** How a run is held by what is there. */
export interface HoldAnswer {
  held: Held[];
  /** The longest stretch that nothing holds. */
  longest: { fromM: number; toM: number };
}

/** The place along a way that is nearest to a spot, and how near that is, m. */
function nearestOn(
  samples: readonly { atM: number; point: Vector }[],
  spot: Vector,
): { atM: number; awayM: number } {
  let best = { atM: 0, awayM: Infinity };
  for (const { atM, point } of samples) {
    const awayM = distance(point, spot);
    if (awayM < best.awayM) best = { atM, awayM };
  }
  return best;
}

/** Marks of the body that hold a run, with those of which the place is not given. */
function fixingsOf(read: Reader): { fixings: { tag: string; spot: Vector }[]; gaps: Gap[] } {
  const gaps: Gap[] = [];
  const fixings = Object.entries(read.at('datums') ?? {}).flatMap(([id, { tag, xM, yM, zM, holds }]) => {
    if (holds !== true) return [];
    if (xM === undefined || yM === undefined || zM === undefined) {
      const field = xM === undefined ? 'xM' : yM === undefined ? 'yM' : 'zM';
      gaps.push({ kind: 'not-given', path: `datums.${id}.${field}`, label: `place of ${tag}` });
      return [];
    }
    return [{ tag, spot: [xM, yM, zM] as Vector }];
  });
  return { fixings, gaps };
}

/**
 * What holds a way: its two ends, fixings within reach of a clip, and the boxes it lies in from end to end.
 *
 * @param ways how it lies from each point on
 * @returns holders in order, and the longest stretch between two of them outside of boxes
 */
export function holdOf(
  { path, points }: Pick<RunGeometry, 'path' | 'points'>,
  ways: readonly LaidWay[],
  fixings: readonly { tag: string; spot: Vector }[],
): HoldAnswer {
  const count = Math.max(1, Math.ceil(path.lengthM / stepM));
  const samples = Array.from({ length: count + 1 }, (_, i) => {
    const atM = (path.lengthM * i) / count;
    return { atM, point: pointAt(path, atM) };
  });
  const spots = points.map((point) => nearestOn(samples, point).atM);
  const boxed = ways.flatMap((way, i) =>
    way === 'box' ? [[spots[i]!, spots[i + 1] ?? spots[i]!] as const] : [],
  );
  const held: Held[] = [
    { atM: 0, by: 'its beginning' },
    ...fixings.flatMap(({ tag, spot }): Held[] => {
      const { atM, awayM } = nearestOn(samples, spot);
      return awayM <= clipReachM + 1e-9 ? [{ atM, by: tag }] : [];
    }),
    ...boxed.flatMap(([from, to]): Held[] => [
      { atM: from, by: 'a box' },
      { atM: to, by: 'a box' },
    ]),
    { atM: path.lengthM, by: 'its end' },
  ].sort((a, b) => a.atM - b.atM);
  const inBox = (from: number, to: number) => boxed.some(([a, b]) => from >= a - 1e-9 && to <= b + 1e-9);
  let longest = { fromM: 0, toM: 0 };
  held.slice(1).forEach(({ atM: toM }, i) => {
    const fromM = held[i]!.atM;
    if (toM - fromM > longest.toM - longest.fromM && !inBox(fromM, toM)) longest = { fromM, toM };
  });
  return { held, longest };
}

/** Where nothing may be drilled: the longest stretch of a run between fixings that are there. */
export const holdStep: StepDefinition = {
  id: 'routing.hold',
  version: 1,
  subjects: ({ runs = {}, vehicle }) => (vehicle.noNewHoles === true ? Object.keys(runs) : []),
  compute(subject, read) {
    const run = read.at('runs')![subject as Id]!;
    const { tag } = run;
    const at = `runs.${subject}`;
    const missing: Gap[] = [
      ...pointGaps(run.points, at, tag),
      ...(run.bendRadiusMm === undefined
        ? [{ kind: 'not-given' as const, path: `${at}.bendRadiusMm`, label: `bend radius of ${tag}` }]
        : []),
    ];
    const geometry = missing.length > 0 ? null : runGeometry(run);
    const { fixings, gaps: unplaced } = fixingsOf(read);
    const gaps: Gap[] =
      geometry !== null && geometry.path.lengthM > 0 && geometry.path.short.length === 0
        ? unplaced
        : missing.length > 0
          ? missing
          : [{ kind: 'never', label: `What holds ${tag}: its points make no way` }];
    const answer = gaps.length > 0 ? null : holdOf(geometry!, waysAlong(run.points ?? []), fixings);
    const freeM = answer === null ? null : answer.longest.toM - answer.longest.fromM;
    const mostM = (run.freeSpanMm ?? runDefaults.freeSpanMm) / 1000;
    const figure: Figure = {
      id: figureId('routing.hold', subject, 'freeSpanM'),
      label: 'Longest stretch that nothing holds',
      unit: 'm',
      value: freeM,
      gaps,
      limit: { max: mostM },
      working:
        answer === null || freeM === null
          ? []
          : [
              {
                symbol: 'l_f',
                label: 'Longest stretch that nothing holds',
                formula: 'max(s_{i+1} − s_i)',
                inputs: [
                  { symbol: 'n', label: 'places that hold it', value: answer.held.length, unit: '' },
                  { symbol: 's_i', value: answer.longest.fromM, unit: 'm' },
                  { symbol: 's_{i+1}', value: answer.longest.toM, unit: 'm' },
                ],
                value: freeM,
                unit: 'm',
                source: `Fixings of the body within ${n(clipReachM * 1000)} mm of the way, its ends, and boxes it lies in`,
              },
            ],
    };
    return {
      figures: [figure],
      ...(answer !== null && {
        run: { calculator: 'routing-hold', input: { run: subject }, result: answer satisfies HoldAnswer },
      }),
      checks: [
        judge(
          runRules.freeSpan,
          [subject],
          gaps,
          freeM !== null && freeM > mostM * (1 + 1e-9)
            ? `${tag} hangs free over ${n(freeM)} m, from ${n(answer!.longest.fromM)} to ${n(answer!.longest.toM)} m; ${n(mostM)} m are allowed, and no hole is made.`
            : null,
          [
            { label: 'hangs free over', value: freeM ?? 0, unit: 'm' },
            { label: 'free from', value: answer?.longest.fromM ?? 0, unit: 'm' },
            { label: 'free to', value: answer?.longest.toM ?? 0, unit: 'm' },
            { label: 'allowed', value: mostM, unit: 'm' },
          ],
        ),
      ],
    };
  },
};
