import {
  conductorsOf,
  hazardDistanceMm,
  isHoseRun,
  runDefaults,
  vehicleDefaults,
  type Design,
  type HazardItem,
  type Id,
  type RunItem,
} from '../../model/document';
import type { Gap } from '../../ground/figure';
import type { Point } from '../../ground/space';
import type { ProposeInput } from './propose';
import { solidOf, type Solid } from './solids';

const full = ({ xM, yM, zM }: { xM?: number; yM?: number; zM?: number }): Point | null =>
  xM === undefined || yM === undefined || zM === undefined ? null : [xM, yM, zM];

/** Names of things, zones and lines that have no whole place: a way cannot be kept away from them. */
function unplaced({ boxes, devices, zones = {}, hazards = {} }: Design): string[] {
  const solids = [...Object.values(boxes), ...Object.values(devices), ...Object.values(zones)];
  const lines = Object.values(hazards).filter(
    ({ points = [] }) => points.length < 2 || points.some((one) => full(one) === null),
  );
  return [...solids.filter((thing) => solidOf(thing) === null), ...lines].map(({ tag }) => tag);
}

/** Lines to stay away from: those that are mapped, and for what carries current the hoses with runs of their own. */
function linesOf(
  { hazards = {}, runs = {}, plumbing = {}, parts }: Design,
  id: Id,
): Pick<HazardItem, 'kind' | 'points' | 'minSeparationMm' | 'radiusMm'>[] {
  if (isHoseRun(runs[id]!)) return Object.values(hazards).filter(({ kind }) => kind !== 'coolant');
  const hoses = Object.values(runs).filter(isHoseRun);
  return [
    ...Object.values(hazards),
    ...hoses.map(({ hoses: own = [], points }) => ({
      kind: 'coolant' as const,
      points: points?.map(({ xM, yM, zM }) => ({ xM, yM, zM })),
      radiusMm: Math.max(
        0,
        ...own.map((hose) => {
          const part = parts[plumbing[hose]?.hose ?? ''];
          return part?.kind === 'hose' ? part.data.outerMm / 2 : 0;
        }),
      ),
    })),
  ];
}

const isWet = (entry: RunItem['fromEntry']): boolean => entry !== undefined && entry !== 'dry';

/** What a search for a way takes from a design, for a run with its two ends; or what is missing, and what it cannot see. */
export function proposeInputOf(
  design: Design,
  id: Id,
): { input: ProposeInput | null; gaps: Gap[]; unseen: string[] } {
  const unseen = unplaced(design);
  const run = design.runs?.[id];
  const gaps: Gap[] = [];
  if (run === undefined) return { input: null, gaps, unseen };
  const { points = [], tag, conduitOuterMm, minBendFactor = runDefaults.minBendFactor } = run;
  const [from, to] = [points[0], points.at(-1)].map((one) => (one === undefined ? null : full(one)));
  if (points.length < 2 || from == null || to == null)
    gaps.push({ kind: 'not-given', path: `runs.${id}.points`, label: `beginning or end of ${tag}` });
  const diameters = conductorsOf(run, design).flatMap(({ cable = '' }) => {
    const part = design.parts[cable];
    return part?.kind === 'cable' ? [part.data.outerDiameterMm] : [];
  });
  for (const hose of run.hoses ?? []) {
    const part = design.parts[design.plumbing?.[hose]?.hose ?? ''];
    if (part?.kind === 'hose') diameters.push(part.data.outerMm);
  }
  const outerMm = conduitOuterMm ?? (diameters.length === 0 ? undefined : Math.max(...diameters));
  if (outerMm === undefined)
    gaps.push({ kind: 'not-given', path: `runs.${id}.circuits`, label: `cable or conduit of ${tag}` });
  const radiusMm =
    run.bendRadiusMm ?? (diameters.length === 0 ? undefined : Math.max(...diameters) * minBendFactor);
  if (radiusMm === undefined)
    gaps.push({ kind: 'not-given', path: `runs.${id}.bendRadiusMm`, label: `bend radius of ${tag}` });
  if (gaps.length > 0) return { input: null, gaps, unseen };
  const things = { ...design.boxes, ...design.devices };
  const solid = (one: Id | undefined): Solid | null => {
    const thing = things[one ?? ''];
    return thing === undefined ? null : solidOf(thing);
  };
  const zones = (kinds: string[]) =>
    Object.values(design.zones ?? {}).flatMap((zone) =>
      kinds.includes(zone.kind) ? (solidOf(zone) ?? []) : [],
    );
  const {
    wheelbaseM = 2.6,
    lengthM,
    frontOverhangM,
    clearanceM = vehicleDefaults.clearanceM,
  } = design.vehicle;
  const front = frontOverhangM ?? wheelbaseM * 0.3;
  const long = Math.min(Math.max(lengthM ?? wheelbaseM * 1.6, 1), 25);
  const wide = Math.min(1.2, Math.max(0.7, long * 0.15));
  const highest = Math.max(from![2], to![2], 0.9) + 0.5;
  return {
    gaps: [],
    unseen,
    input: {
      from: from!,
      to: to!,
      ends: [solid(run.from), solid(run.to)],
      wet: [isWet(run.fromEntry), isWet(run.toEntry)],
      bendRadiusM: radiusMm! / 1000,
      halfM: outerMm! / 2000,
      solids: [
        ...Object.values(things).flatMap((thing) => solidOf(thing) ?? []),
        ...zones(['forbidden', 'keep-free']),
      ],
      obstacles: Object.entries(design.zones ?? {}).flatMap(
        ([zone, { kind, staysOut, tag: name, outHours, ...size }]) => {
          const own = kind === 'obstacle' && staysOut !== true ? solidOf(size) : null;
          return own === null
            ? []
            : [{ id: zone, tag: name, solid: own, ...(outHours !== undefined && { outHours }) }];
        },
      ),
      crush: zones(['crush']),
      corridors: zones(['corridor']),
      hazards: linesOf(design, id).flatMap(
        ({ kind, points: line = [], minSeparationMm, radiusMm: thick = 0 }) => {
          const own = line.flatMap((one) => {
            const point = full(one);
            return point === null ? [] : [point];
          });
          return own.length < 2 || own.length < line.length
            ? []
            : [{ points: own, minM: ((minSeparationMm ?? hazardDistanceMm[kind]) + thick) / 1000 }];
        },
      ),
      lowM: clearanceM,
      bounds: { low: [front - long, -wide, 0], high: [front, wide, highest] },
    },
  };
}
