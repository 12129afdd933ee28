import type { Gap } from '../../../ground/figure';
import { formatNumber, formatQuantity } from '../../../ground/quantity';
import { conductorsOf, isHoseRun, waysAlong, type Id, type RunItem } from '../../../model/document';
import type { RouteInput, RouteResult } from '../route';
import { measuredWithin } from '../run-step';
import { defineTemplates, type Builder, type NewStep, type Procedure } from '../../../model/procedure';

const templates = defineTemplates({
  'run-cut': {},
  'run-near': {},
  'run-clips': {},
  'run-tube': {},
  'run-ends': {},
});

/** Lines that the way passes at less than this many times what is asked are measured on the vehicle. */
const nearTimes = 3;
/** A gland or a strain relief lets the jacket move no further than this on a firm pull by hand, mm. */
const mostMoveMm = 2;
/** What passes the whole tube before a cable does, as a share of its inside. */
const gaugeShare = 0.8;

/** How each run was laid: near what, held how often, its tube before the cable goes in, its ends, its length as cut. */
function routes(builder: Builder): void {
  for (const [id, run] of Object.entries(builder.design.runs ?? {})) {
    const made = builder.evaluation.runs[`routing.run:${id}`];
    const result = (made?.result ?? null) as RouteResult | null;
    const input = (made?.input ?? null) as RouteInput | null;
    const gaps: Gap[] =
      result === null || result.pathLengthM === null
        ? [{ kind: 'not-given', path: `runs.${id}.points`, label: `a way of ${run.tag} that can be bent` }]
        : [];
    asCut(builder, id, run, gaps);
    if (isHoseRun(run)) {
      if (waysAlong(run.points ?? []).includes('clipped')) clips(builder, id, run, input, result, gaps);
      continue;
    }
    nearLines(builder, id, run, result, gaps);
    const ways = waysAlong(run.points ?? []);
    if (ways.includes('conduit')) tube(builder, id, run);
    if (ways.includes('clipped')) clips(builder, id, run, input, result, gaps);
    ends(builder, id, run);
  }
}

const beside = (run: RunItem): Id[] => [run.from, run.to].flatMap((end) => (end === undefined ? [] : [end]));
const common = (id: Id, run: RunItem) =>
  ({
    gate: 'wiring',
    hazard: 'isolated',
    instrument: 'rule',
    subjects: [{ id, tag: run.tag }],
    touchedBy: beside(run),
  }) satisfies Partial<NewStep>;

/** Recorded with the cut list in Route. */
function asCut(builder: Builder, id: Id, run: RunItem, gaps: Gap[]): void {
  const way = builder.figures(`routing.run:${id}:pathLengthM`);
  const cables = conductorsOf(run, builder.design).reduce((sum, { count }) => sum + count, 0);
  const hoses = run.hoses?.length ?? 0;
  const what = isHoseRun(run)
    ? hoses === 1
      ? 'the hose'
      : `the ${hoses} hoses`
    : cables === 1
      ? 'the cable'
      : `the ${cables} conductors`;
  builder.add({
    ...common(id, run),
    optional: true,
    template: templates['run-cut'],
    of: id,
    title: `${isHoseRun(run) ? 'Hoses' : 'Cables'} of ${run.tag}, as cut`,
    do: `Cut ${what} of ${run.tag} and record the length with the cut list in Route, with the reel it came off.`,
    why: isHoseRun(run)
      ? 'What was cut is what the car has: flow, filling and mass go by it.'
      : 'What was cut is what the car has: drop, loss and mass go by it, and a second cable is cut from what is written here.',
    walk: { work: 'cut', items: [{ id: `runs.${id}.cutLengthM`, tag: run.tag }] },
    range: { kind: 'range', min: (way.values[0] ?? 0) * (1 - measuredWithin), unit: 'm' },
    gaps: [...gaps, ...way.gaps],
    basis: way.basis,
  });
}

const notToTheMm =
  'Nothing is fitted to the millimetre that it was drawn to, and a cable that chafes or scorches is found by its smoke.';

/** Of a line that the design cannot compare yet nobody knows that it is far. */
function nearLines(
  builder: Builder,
  id: Id,
  run: RunItem,
  result: RouteResult | null,
  gaps: readonly Gap[],
): void {
  const hoses = Object.entries(builder.design.runs ?? {}).filter(([, one]) => isHoseRun(one));
  const lines: [Id, { tag: string; kind: string }, string][] = [
    ...Object.entries(builder.design.hazards ?? {}).map(
      ([lineId, line]): [Id, { tag: string; kind: string }, string] => [lineId, line, 'hazards'],
    ),
    ...hoses.map(([lineId, { tag }]): [Id, { tag: string; kind: string }, string] => [
      lineId,
      { tag, kind: 'coolant' },
      'runs',
    ]),
  ];
  for (const [lineId, line, root] of lines) {
    const one = result?.separations.find((found) => found.id === lineId);
    if (one === undefined) {
      builder.add({
        ...common(id, run),
        template: templates['run-near'],
        of: `${id}/${lineId}`,
        title: `${run.tag} near ${line.tag}`,
        do: `Measure where ${run.tag} comes nearest to ${line.tag} (${line.kind}).`,
        why: notToTheMm,
        gaps:
          gaps.length > 0
            ? [...gaps]
            : [{ kind: 'not-given', path: `${root}.${lineId}.points`, label: `points of ${line.tag}` }],
        basis: [],
      });
      continue;
    }
    if (one.distanceMm > nearTimes * one.requiredMm) continue;
    const asked = builder.row(`route:${id}/${one.id}:asked`, `asked to ${line.tag}`, one.requiredMm, 'mm');
    const drawn = builder.row(`route:${id}/${one.id}:drawn`, `drawn to ${line.tag}`, one.distanceMm, 'mm');
    builder.add({
      ...common(id, run),
      template: templates['run-near'],
      of: `${id}/${one.id}`,
      title: `${run.tag} near ${line.tag}`,
      do: `Look along the whole way, with the suspension at its stops and everything that swings swung, and measure where ${run.tag} comes nearest to ${line.tag} (${line.kind}). The design has ${formatQuantity(one.distanceMm, 'mm', 2)} there.`,
      why: notToTheMm,
      subjects: [
        { id, tag: run.tag },
        { id: one.id, tag: line.tag },
      ],
      range: { kind: 'range', min: one.requiredMm, nominal: one.distanceMm, unit: 'mm' },
      gaps: [],
      basis: [asked, drawn],
    });
  }
}

function clips(
  builder: Builder,
  id: Id,
  run: RunItem,
  input: RouteInput | null,
  result: RouteResult | null,
  gaps: readonly Gap[],
): void {
  const clipSpacingMm = input?.clipSpacingMm ?? 0;
  const count = result?.clips.length ?? 0;
  builder.add({
    ...common(id, run),
    template: templates['run-clips'],
    of: id,
    title: `Clips of ${run.tag}`,
    do: `Pull at each clip of ${run.tag} by hand (${formatNumber(count)} are drawn): none turns or slides, none pinches, each has its rubber. Measure the widest span between two of them, or between one and an end.`,
    why: 'What hangs free saws through its own jacket at the next edge.',
    range: { kind: 'range', max: clipSpacingMm, unit: 'mm' },
    gaps: input === null ? [...gaps] : [],
    basis:
      input === null
        ? []
        : [builder.row(`route:${id}:clipSpacingMm`, `clips of ${run.tag}, apart`, clipSpacingMm, 'mm')],
  });
}

function tube(builder: Builder, id: Id, run: RunItem): void {
  const inner = run.conduitInnerMm;
  builder.add({
    ...common(id, run),
    template: templates['run-tube'],
    of: id,
    title: `Tube of ${run.tag}, before a cable goes in`,
    do: `Both ends cut square, deburred inside and out, threads that match their fittings; blow and wipe the tube clean. Then draw a gauge through the whole of it, and record the thickest that passed.`,
    why: 'A burr or a bend that was crushed skins the cable where nobody will ever look.',
    range: { kind: 'range', min: (inner ?? 0) * gaugeShare, max: inner ?? 0, unit: 'mm' },
    gaps:
      inner === undefined
        ? [
            {
              kind: 'not-given',
              path: `runs.${id}.conduitInnerMm`,
              label: `inside of the tube of ${run.tag}`,
            },
          ]
        : [],
    basis:
      inner === undefined
        ? []
        : [builder.row(`runs.${id}.conduitInnerMm`, `inside of the tube of ${run.tag}`, inner, 'mm')],
  });
}

function ends(builder: Builder, id: Id, run: RunItem): void {
  const things: Record<string, { tag: string } | undefined> = {
    ...builder.design.boxes,
    ...builder.design.devices,
  };
  const names = beside(run).map((end) => things[end]?.tag ?? end);
  const missing = (['from', 'to'] as const).filter((end) => run[end] === undefined);
  builder.add({
    ...common(id, run),
    template: templates['run-ends'],
    of: id,
    title: `Ends of ${run.tag}`,
    do: `At ${names.join(' and at ')}: gland or strain relief closed on its own size of jacket, seal in, the drip loop below it, an orange label with both ends’ names. Mark the jacket, pull firmly by hand, and record how far the mark moved where it moved most.`,
    why: 'Where the gland does not hold the lug does, and water follows the cable in.',
    range: { kind: 'range', min: 0, max: mostMoveMm, unit: 'mm' },
    gaps: missing.map((end) => ({
      kind: 'not-given',
      path: `runs.${id}.${end}`,
      label: `where ${run.tag} ${end === 'from' ? 'begins' : 'ends'}`,
    })),
    basis: [builder.row('constant:mostMoveMm', 'most that a held jacket moves', mostMoveMm, 'mm')],
  });
}

export const routesProcedure: Procedure = { templates, steps: routes };
