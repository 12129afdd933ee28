import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { distance, lengthOf, minus, unit, type Vector } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import { loopsM, runDefaults, type Id, type RunItem } from '../../model/document';
import { judge, type Reader } from '../../model/step';
import { pointGaps } from './point-gaps';
import { runRules } from './rules';
import { tapeMm } from './taped';

const n = formatNumber;
type Points = NonNullable<RunItem['points']>;

const isTold = ({ points = [] }: RunItem) => points.some(({ tolMm }) => tolMm !== undefined);

/** Points of which nobody says how well they are known, once it is said of one. */
const untold = (subject: Id, { points = [], tag }: RunItem): Gap[] =>
  points.flatMap(({ tolMm }, i): Gap[] => {
    const at = {
      path: `runs.${subject}.points.${i}.tolMm`,
      label: `give or take of point ${i + 1} of ${tag}`,
    };
    if (tolMm === undefined) return [{ kind: 'not-given', ...at }];
    return tolMm >= 0 ? [] : [{ kind: 'invalid', ...at, message: 'must be 0 or more' }];
  });

/** How much a way grows for each millimetre that a point lies off, at most: along the sum of the directions that lead to it. */
function gains(points: Points): number[] {
  const at = points.map(({ xM = 0, yM = 0, zM = 0 }): Vector => [xM, yM, zM]);
  const towards = (i: number, j: number): Vector =>
    at[j] === undefined || distance(at[i]!, at[j]) === 0 ? [0, 0, 0] : unit(minus(at[i]!, at[j]));
  return at.map((_, i) => {
    const [a, b] = [towards(i, i - 1), towards(i, i + 1)];
    return lengthOf([a[0] + b[0], a[1] + b[1], a[2] + b[2]]);
  });
}

/** How far off the length along the run may be, mm; null: not known. */
export function toleranceMm(subject: Id, run: RunItem): number | null {
  const { points = [] } = run;
  if (!isTold(run) || pointGaps(points, '', '').length + untold(subject, run).length > 0) return null;
  return gains(points).reduce((sum, gain, i) => sum + gain * points[i]!.tolMm!, 0);
}

/** How well the length is known; nothing where nobody says how well any of its points is. */
export function toleranceFigures(subject: Id, run: RunItem): Figure[] {
  if (!isTold(run)) return [];
  const { points = [], tag } = run;
  const gaps = [...pointGaps(points, `runs.${subject}`, tag), ...untold(subject, run)];
  const value = gaps.length > 0 ? null : toleranceMm(subject, run);
  const label = 'Length, give or take';
  const gain = value === null ? [] : gains(points);
  return [
    {
      id: figureId('routing.run', subject, 'toleranceMm'),
      label,
      unit: 'mm',
      value,
      gaps,
      working:
        value === null
          ? []
          : [
              {
                symbol: 'ΔL',
                label,
                formula: 'Σ |u_in + u_out|·t',
                inputs: points.flatMap(({ tolMm }, i) => [
                  {
                    symbol: `t_${i + 1}`,
                    value: tolMm!,
                    unit: 'mm',
                    origin: { kind: 'document' as const, path: `runs.${subject}.points.${i}.tolMm` },
                  },
                  { symbol: `|u|_${i + 1}`, value: gain[i]!, unit: '' },
                ]),
                value,
                unit: 'mm',
                source: 'Every point as far off as it may be, the way that makes the straight legs longest',
              },
            ],
    },
  ];
}

/** How it was measured against what is drawn, and against what the slack allows. */
export function measuredChecks(
  subject: Id,
  run: RunItem,
  pathM: number | null,
  gaps: Gap[],
  read: Reader,
): Check[] {
  const { points = [], tag, slackFraction = runDefaults.slackFraction } = run;
  const checks: Check[] = [];
  const cutNow = run.fromFixed === true && run.toFixed === true && run.cutLengthM === undefined;
  if (isTold(run) && cutNow) {
    const off = toleranceMm(subject, run);
    const missing = [...gaps, ...untold(subject, run)];
    const spareMm = ((pathM ?? 0) * slackFraction + loopsM(run)) * 1000;
    checks.push(
      judge(
        runRules.loose,
        [subject],
        missing,
        off !== null && off > spareMm
          ? `${tag} may come out ${n(off)} mm longer than drawn; slack and loops are ${n(spareMm)} mm.`
          : null,
        [
          { label: 'may be longer by', value: off ?? 0, unit: 'mm' },
          { label: 'slack and loops', value: spareMm, unit: 'mm' },
        ],
      ),
    );
  }
  const datums = read.at('datums') ?? {};
  const laid = points.flatMap(({ taped = [], tolMm, ...point }, i) =>
    taped.flatMap(({ datum = '', distanceM }) => {
      const mark = datums[datum];
      return mark === undefined || distanceM === undefined ? [] : [{ i, mark, point, distanceM, tolMm }];
    }),
  );
  if (laid.length === 0) return checks;
  const missing: Gap[] = [
    ...pointGaps(points, `runs.${subject}`, tag),
    ...Object.entries(datums).flatMap(([id, mark]) =>
      laid.some((one) => one.mark === mark)
        ? (['xM', 'yM', 'zM'] as const).flatMap((axis): Gap[] =>
            mark[axis] === undefined
              ? [{ kind: 'not-given', path: `datums.${id}.${axis}`, label: `place of ${mark.tag}` }]
              : [],
          )
        : [],
    ),
  ];
  const placeOf = ({ xM = 0, yM = 0, zM = 0 }: { xM?: number; yM?: number; zM?: number }): Vector => [
    xM,
    yM,
    zM,
  ];
  const off = laid.flatMap(({ i, mark, point, distanceM, tolMm = 0 }) => {
    const offMm = Math.abs(distance(placeOf(point), placeOf(mark)) - distanceM) * 1000;
    const allowedMm = Math.max(tolMm, 2 * tapeMm);
    return offMm > allowedMm + 1e-6 ? [{ i, mark: mark.tag, offMm, allowedMm }] : [];
  });
  checks.push(
    judge(
      runRules.tapedOff,
      [subject],
      missing,
      off.length > 0
        ? `${tag}: ${off
            .map(
              (one) =>
                `point ${one.i + 1} lies ${n(one.offMm)} mm off what was taped from ${one.mark}; ${n(one.allowedMm)} mm are allowed`,
            )
            .join('; ')}.`
        : null,
      [
        { label: 'tapes', value: laid.length, unit: '' },
        ...off.flatMap((one, k) => [
          { label: `${k + 1}: point`, value: one.i + 1, unit: '' },
          { label: `${k + 1}: off what was taped from ${one.mark}`, value: one.offMm, unit: 'mm' },
          { label: `${k + 1}: allowed`, value: one.allowedMm, unit: 'mm' },
        ]),
      ],
    ),
  );
  return checks;
}
