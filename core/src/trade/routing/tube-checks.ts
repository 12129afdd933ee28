import type { Check, Gap } from '../../ground/figure';
import type { Point } from '../../ground/space';
import { formatNumber } from '../../ground/quantity';
import { motorPhases, type Id, type RunItem } from '../../model/document';
import { judge } from '../../model/step';
import { runRules } from './rules';

const n = formatNumber;

/** Deeper than this water stands in a tube, m. */
const standsM = 0.005;

/** How deep water would stand in a tube, m: at each point by the lower of what it has to rise over on either side. */
export function pocketM(points: readonly Point[]): number {
  const heights = points.map(([, , z]) => z);
  return heights.reduce((deepest, z, i) => {
    const left = Math.max(...heights.slice(0, i + 1));
    const right = Math.max(...heights.slice(i));
    return Math.max(deepest, Math.min(left, right) - z);
  }, 0);
}

/** What a tube does besides bending: the water in it, what its metal does to a phase, and whether it hangs together. */
export function tubeChecks(
  subject: string,
  number: number,
  id: Id,
  run: RunItem,
  points: readonly Point[] | null,
): Check[] {
  const named = `Conduit ${number} of ${run.tag}`;
  const at = `runs.${id}`;
  const need = (value: unknown, field: string, label: string): Gap[] =>
    value === undefined
      ? [{ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${run.tag}` }]
      : [];
  const depthM = points === null ? 0 : pocketM(points);
  const alone = run.phasesOf !== undefined && run.phase !== undefined;
  const isMetal = run.conduit === 'steel' || run.conduit === 'aluminium';
  const numbered = [{ label: 'conduit of the run', value: number, unit: '' }];
  const also = { also: [id] };
  return [
    judge(
      runRules.waterStands,
      [subject],
      points === null ? need(undefined, 'points', 'points') : [],
      depthM > standsM && run.drained !== true
        ? `${named} hangs ${n(depthM * 1000)} mm below what water has to rise over, and has no drain there.`
        : null,
      [{ label: 'water stands', value: depthM, unit: 'm' }, ...numbered],
      also,
    ),
    ...(alone
      ? [
          judge(
            runRules.phaseInSteel,
            [subject],
            need(run.conduit, 'conduit', 'conduit'),
            run.conduit === 'steel'
              ? `${named} is of steel and carries 1 of ${motorPhases.length} motor phases, ${run.phase}.`
              : null,
            [
              { label: 'phases in it', value: 1, unit: '' },
              { label: 'phases', value: motorPhases.length, unit: '' },
              ...numbered,
            ],
            also,
          ),
        ]
      : []),
    judge(
      runRules.plasticFittings,
      [subject],
      [
        ...need(run.conduit, 'conduit', 'conduit'),
        ...(isMetal && run.bondedAcross !== true
          ? need(run.fittings, 'fittings', 'fittings of the conduit')
          : []),
      ],
      isMetal && run.fittings === 'plastic' && run.bondedAcross !== true
        ? `${named} is of ${run.conduit}, its fittings are of plastic, and nothing bonds across its 2 ends.`
        : null,
      [{ label: 'ends', value: 2, unit: '' }, ...numbered],
      also,
    ),
  ];
}
