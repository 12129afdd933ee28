import { filleted, isProblem, legsOf, type Legs, type Path, type Point } from '../../ground/space';
import { runDefaults, type LaidWay, type RunItem } from './run';

/** The geometry of a run as drawn. */
export interface RunGeometry {
  points: Point[];
  legs: Legs;
  path: Path;
  /** How each leg lies. */
  ways: LaidWay[];
}

const geometries = new WeakMap<RunItem, RunGeometry | null>();

/** How the stretch from each point on lies: as said there, else as before, at first clipped. */
export function waysAlong(points: NonNullable<RunItem['points']>): LaidWay[] {
  let now: LaidWay = 'clipped';
  return points.map(({ after }) => (now = after ?? now));
}

/** Where a run leads; null while points or its bend radius are not given, or cannot be a way. */
export function runGeometry(run: RunItem): RunGeometry | null {
  // Read every time: whoever asks goes by them, also where another has computed it.
  const { points, bendRadiusMm } = run;
  const known = geometries.get(run);
  if (known !== undefined) return known;
  const made = geometryOf({ points, bendRadiusMm });
  geometries.set(run, made);
  return made;
}

function geometryOf({
  points = [],
  bendRadiusMm,
}: Pick<RunItem, 'points' | 'bendRadiusMm'>): RunGeometry | null {
  if (points.length < 2 || bendRadiusMm === undefined || !(bendRadiusMm > 0)) return null;
  const given: Point[] = [];
  for (const { xM, yM, zM } of points) {
    if (xM === undefined || yM === undefined || zM === undefined) return null;
    given.push([xM, yM, zM]);
  }
  const legs = legsOf(given);
  if (isProblem(legs)) return null;
  const path = filleted(legs, () => bendRadiusMm / 1000);
  const along = waysAlong(points);
  return { points: given, legs, path, ways: legs.at.slice(0, -1).map((at) => along[at]!) };
}

/** Of each conductor of a run, one way: along its rounded path, and as cut; null: not known. */
export interface RunLengths {
  pathM: number;
  cutM: number;
  /** What of the cut length lies how, in order. */
  parts: { way: LaidWay; lengthM: number }[];
}

/** Loops left at both ends, m. */
export const loopsM = ({ fromLoopMm = runDefaults.fromLoopMm, toLoopMm = runDefaults.toLoopMm }: RunItem) =>
  (fromLoopMm + toLoopMm) / 1000;

/** Lengths of a run: slack and terminations are shared by its parts as they are long. */
export function runLengths(run: RunItem): RunLengths | null {
  const found = runGeometry(run);
  if (found === null || !(found.path.lengthM > 0)) return null;
  const {
    slackFraction = runDefaults.slackFraction,
    terminationMm = runDefaults.terminationMm,
    cutLengthM,
    bendRadiusMm = 0,
  } = run;
  const pathM = found.path.lengthM;
  const cutM = cutLengthM ?? pathM * (1 + slackFraction) + (2 * terminationMm) / 1000 + loopsM(run);
  if (!(cutM > 0) || !(loopsM(run) >= 0)) return null;
  const parts: RunLengths['parts'] = [];
  const add = (way: LaidWay, lengthM: number) => {
    const last = parts.at(-1);
    if (last?.way === way) last.lengthM += lengthM;
    else parts.push({ way, lengthM });
  };
  const { legs, ways } = found;
  const radiusM = bendRadiusMm / 1000;
  /** A corner takes tangents away and gives its arc, half to each of its legs. */
  const gain = legs.corners.map(({ turn }) => radiusM * (turn / 2 - Math.tan(turn / 2)));
  legs.lengths.forEach((leg, i) => add(ways[i]!, leg + (gain[i - 1] ?? 0) + (gain[i] ?? 0)));
  return {
    pathM,
    cutM,
    parts: parts.map(({ way, lengthM }) => ({ way, lengthM: (lengthM * cutM) / pathM })),
  };
}
