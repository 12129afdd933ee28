import type { Gap } from '../../ground/figure';
import type { HazardItem, RunItem } from '../../model/document';

/** What is missing of the points of a run or line. */
export function pointGaps(points: RunItem['points'] | HazardItem['points'], at: string, tag: string): Gap[] {
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
