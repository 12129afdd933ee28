import { isHoseRun, runGeometry, type Id, type RunItem } from '@torvek/core/document';
import type { RouteResult } from '@torvek/core/routing';
import { nearestTo } from '@torvek/core/space';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';
import { bodyOf, lineText, onPaper, pathText, rectOf, unitsPerM, type Drawn, type Side } from './drawing';

/** What one view of the vehicle shows: body, things, zones, marks, lines, runs with their points and clips, and where they are too near. */
export function useDrawn(props: { readonly side: Side; readonly runId: Id }) {
  const job = useJob();
  const runs = computed(() => job.design.runs ?? {});
  const run = computed((): RunItem | undefined => runs.value[props.runId]);
  const body = computed((): Drawn => {
    const { frontM, longM, wideM, highM } = bodyOf(job.design.vehicle);
    const rect = { x: (frontM - longM) * unitsPerM, w: longM * unitsPerM };
    return props.side === 'plan'
      ? { ...rect, y: (-wideM / 2) * unitsPerM, h: wideM * unitsPerM }
      : { ...rect, y: -Math.min(highM, 2) * unitsPerM, h: Math.min(highM, 2) * unitsPerM };
  });
  const wheels = computed(() => {
    const { wheelbaseM = 2.6, wheelDiameterM = 0.65 } = job.design.vehicle;
    return [0, -wheelbaseM].map((x) => ({ x: x * unitsPerM, r: (wheelDiameterM / 2) * unitsPerM }));
  });
  const things = computed(() => [
    ...Object.entries(job.design.boxes).map(([id, box]) => ({ id, ...box, hv: true })),
    ...Object.entries(job.design.devices).map(([id, device]) => ({ id, ...device, hv: false })),
  ]);
  const rects = computed(() =>
    things.value.flatMap((thing) => {
      const rect = rectOf(thing, props.side);
      return rect === null ? [] : [{ id: thing.id, tag: thing.tag, hv: thing.hv, rect }];
    }),
  );
  const zones = computed(() =>
    Object.entries(job.design.zones ?? {}).flatMap(([id, zone]) => {
      const rect = rectOf(zone, props.side);
      // What stays out takes no room any more.
      const gone = zone.kind === 'obstacle' && zone.staysOut === true;
      return rect === null || gone ? [] : [{ id, tag: zone.tag, kind: zone.kind, rect }];
    }),
  );
  /** Marks of the body, while a run is looked at closely. */
  const marks = computed(() =>
    Object.entries(job.design.datums ?? {}).flatMap(([id, { tag, xM, yM, zM }]) => {
      if (xM === undefined || yM === undefined || zM === undefined) return [];
      const [x, y] = onPaper([xM, yM, zM], props.side);
      return [{ id, tag, x, y }];
    }),
  );
  const full = (points: RunItem['points'] = []) =>
    points.every(({ xM, yM, zM }) => xM !== undefined && yM !== undefined && zM !== undefined)
      ? points.map(({ xM, yM, zM }): [number, number, number] => [xM!, yM!, zM!])
      : null;
  const hazards = computed(() =>
    Object.entries(job.design.hazards ?? {}).flatMap(([id, line]) => {
      const points = full(line.points);
      return points === null || points.length < 2
        ? []
        : [
            {
              id,
              tag: line.tag,
              kind: line.kind,
              points,
              d: lineText(points, props.side),
              wide: (line.radiusMm ?? 0) / 5,
            },
          ];
    }),
  );
  const drawn = computed(() =>
    Object.entries(runs.value).flatMap(([id, one]) => {
      const found = runGeometry(one);
      const points = full(one.points);
      if (found !== null) {
        const tubes = found.ways.flatMap((way, leg) =>
          way === 'conduit'
            ? [lineText([found.legs.points[leg]!, found.legs.points[leg + 1]!], props.side)]
            : [],
        );
        const d = pathText(found.path.pieces, props.side);
        return [{ id, tag: one.tag, d, tubes, rough: false, coolant: isHoseRun(one) }];
      }
      return points === null || points.length < 2
        ? []
        : [
            {
              id,
              tag: one.tag,
              d: lineText(points, props.side),
              tubes: [],
              rough: true,
              coolant: isHoseRun(one),
            },
          ];
    }),
  );
  const handles = computed(() =>
    (run.value?.points ?? []).flatMap(({ xM, yM, zM }, i) => {
      const [across, up] = [xM, props.side === 'plan' ? yM : zM];
      return across === undefined || up === undefined
        ? []
        : [{ i, x: across * unitsPerM, y: -up * unitsPerM }];
    }),
  );
  const clips = computed(() => {
    const found = job.evaluation.runs[`routing.run:${props.runId}`]?.result as RouteResult | null | undefined;
    return (found?.clips ?? []).slice(0, 400).map(({ position }) => onPaper(position, props.side));
  });
  /** The spot of the least distance to a line that is too near. */
  const spots = computed(() => {
    const found = run.value === undefined ? null : runGeometry(run.value);
    if (found === null) return [];
    const hoses = Object.entries(runs.value).flatMap(([id, one]) => {
      const points = isHoseRun(one) ? full(one.points) : null;
      return points === null || points.length < 2 ? [] : [{ id, tag: one.tag, points }];
    });
    return [...hazards.value, ...hoses].flatMap(({ id, tag, points }) => {
      const check = job.checks.find(
        ({ rule, subjects }) =>
          rule.id === 'route.separation' && subjects.includes(id) && subjects.includes(props.runId),
      );
      if (check?.state !== 'raised') return [];
      const [x, y] = onPaper(nearestTo(found.path, points).point, props.side);
      const distance = check.values.find(({ label }) => label === 'distance')?.value ?? 0;
      return [{ id, tag, x, y, distance }];
    });
  });

  return { body, wheels, things, rects, zones, marks, hazards, drawn, handles, clips, spots };
}
