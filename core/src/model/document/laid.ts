import type { Point } from '../../ground/space';
import type { CircuitItem, Stretch } from './circuit';
import type { JoinItem, PlumbingItem } from './cooling';
import type { Design } from './design';
import type { Id } from './id';
import type { LeadItem } from './pack';
import { motorPhases, type LaidWay, type RunItem } from './run';
import { runGeometry, runLengths } from './run-lengths';

/** A part of a circuit’s way that a run gives. */
export interface RoutedStretch extends Stretch {
  /** The run it is of, by id. */
  run: Id;
}

const words: Record<LaidWay, string> = { clipped: 'clipped', conduit: 'in the conduit', box: 'in the box' };

/** Conductors of one circuit, or cable of the pack, in a run. */
export interface Conductors {
  cable: string | undefined;
  lug: string | undefined;
  count: number;
  /** Where its cable is chosen. */
  path: string;
  tag: string;
}

/** What runs carry conductors of. */
export type Carrying = Pick<Design, 'circuits' | 'pack' | 'devices'>;

/** Every conductor in a run, by what it is of. */
export function conductorsOf(
  { poles = 'both', circuits: own = [], leads = [], phasesOf, phase }: RunItem,
  { circuits, pack, devices }: Carrying,
): Conductors[] {
  const each = poles === 'both' ? 2 : 1;
  const inverter = devices[phasesOf ?? ''];
  return [
    ...(inverter === undefined
      ? []
      : [
          {
            cable: inverter.phaseCable,
            lug: undefined,
            count: phase === undefined ? motorPhases.length : 1,
            path: `devices.${phasesOf}.phaseCable`,
            tag: `motor phases of ${inverter.tag}`,
          },
        ]),
    ...own.flatMap((id): Conductors[] => {
      const circuit = circuits[id];
      if (circuit === undefined) return [];
      const { cable, lug, parallel = 1, tag } = circuit;
      return [{ cable, lug, count: each * parallel, path: `circuits.${id}.cable`, tag }];
    }),
    ...leads.flatMap((id): Conductors[] => {
      const lead = pack.leads?.[id];
      if (lead === undefined) return [];
      const { cable, lug, parallel = 1, tag } = lead;
      return [{ cable, lug, count: parallel, path: `pack.leads.${id}.cable`, tag }];
    }),
  ];
}

/** Coolant alone runs here: no conductor is in it. */
export const isHoseRun = ({
  hoses = [],
  circuits = [],
  leads = [],
  boards = [],
  phasesOf,
  signals,
}: RunItem): boolean =>
  hoses.length > 0 &&
  circuits.length + leads.length + boards.length === 0 &&
  phasesOf === undefined &&
  signals !== true;

/** Mass of all conductors of a run as they are cut, and the middle of the run; null: something is not given. */
export function runMass(
  run: RunItem,
  design: Carrying & Pick<Design, 'parts'>,
): { massKg: number; at: Point; kgPerM: number } | null {
  const lengths = runLengths(run);
  const pieces = runGeometry(run)?.path.pieces ?? [];
  const all = conductorsOf(run, design);
  if (lengths === null || all.length === 0) return null;
  let kgPerM = 0;
  for (const { cable = '', count } of all) {
    const part = design.parts[cable];
    if (part?.kind !== 'cable') return null;
    kgPerM += part.data.massKgPerM * count;
  }
  const total = pieces.reduce((sum, { lengthM }) => sum + lengthM, 0);
  const middle = (axis: 0 | 1 | 2) =>
    pieces.reduce((sum, piece) => sum + ((piece.from[axis] + piece.to[axis]) / 2) * piece.lengthM, 0) / total;
  return { massKg: kgPerM * lengths.cutM, at: [middle(0), middle(1), middle(2)], kgPerM };
}

/** Conductors that lie side by side in a run. */
const conductorsIn = (run: RunItem, design: Carrying): number =>
  conductorsOf(run, design).reduce((sum, { count }) => sum + count, 0);

function stretchesOf(id: Id, run: RunItem, conductors: number): RoutedStretch[] {
  const lengths = runLengths(run);
  const share = (run.poles ?? 'both') === 'both' ? 1 : 0.5;
  const { conduitInnerMm, conduitOuterMm } = run;
  const tube = {
    ...(conduitInnerMm !== undefined && { conduitInnerMm }),
    ...(conduitOuterMm !== undefined && { conduitOuterMm }),
  };
  if (lengths === null) return [{ tag: run.tag, run: id }];
  return lengths.parts.map(({ way, lengthM }) => ({
    tag: `${run.tag}, ${words[way]}`,
    run: id,
    lengthM: lengthM * share,
    install: way === 'conduit' ? 'steel-conduit' : 'free-air',
    ...(way === 'conduit' && tube),
    // More in one tube than its own pair: they warm each other.
    ...(way === 'conduit' && conductors > 2 && { grouped: conductors }),
  }));
}

/** Runs that carry a circuit’s cable; nothing unless both of its poles are routed. */
export function runsOfCircuit(runs: Design['runs'] = {}, circuit: Id): [Id, RunItem][] {
  const own = Object.entries(runs).filter(([, run]) => run.circuits?.includes(circuit));
  const has = (pole: 'plus' | 'minus') =>
    own.some(([, { poles = 'both' }]) => poles === 'both' || poles === pole);
  return has('plus') && has('minus') ? own : [];
}

const laidDesigns = new WeakMap<Design, Design>();
/** What was made of these slices last: an edit elsewhere leaves them as they are, and whoever reads a map as a whole need not look again. */
const laidSlices = {
  circuits: new WeakMap<object, Kept<Design['circuits']>>(),
  pack: new WeakMap<object, Kept<Design['pack']>>(),
  hoses: new WeakMap<object, Kept<Partial<Pick<Design, 'plumbing' | 'joins'>>>>(),
};
interface Kept<Made> {
  by: readonly unknown[];
  made: Made;
}
function once<Made>(
  kept: WeakMap<object, Kept<Made>>,
  of: object,
  by: readonly unknown[],
  make: () => Made,
): Made {
  const before = kept.get(of);
  if (before?.by.every((one, i) => one === by[i]) === true) return before.made;
  const made = make();
  kept.set(of, { by, made });
  return made;
}

/** By the circuit and the first of its runs: a draft and the design it is of are both kept. */
interface LaidCircuit {
  by: (RunItem | number)[];
  made: CircuitItem;
}
const laidCircuits = new WeakMap<CircuitItem, WeakMap<RunItem, LaidCircuit>>();
const laidLeads = new WeakMap<LeadItem, { by: RunItem; made: LeadItem }>();

/**
 * A design with the lengths of its runs: a circuit whose cable is routed has the way that its runs give, whatever length is typed for it.
 * Everything that goes by a cable’s length or installation is asked of this. The design itself where nothing is routed; what did not
 * move keeps its identity.
 */
export function laid(design: Design): Design {
  if (design.runs === undefined) return design;
  const known = laidDesigns.get(design);
  if (known !== undefined) return known;
  const { circuits, pack, devices, runs, plumbing, joins } = design;
  const made = {
    ...design,
    circuits: once(laidSlices.circuits, circuits, [runs, pack, devices], () => circuitsLaid(design)),
    pack: once(laidSlices.pack, pack, [runs], () => packLaid(design)),
    ...(plumbing !== undefined &&
      once(laidSlices.hoses, plumbing, [runs, joins], () => hosesLaid(design, runs))),
  };
  laidDesigns.set(design, made);
  laidDesigns.set(made, made);
  return made;
}

function circuitsLaid({ circuits, runs, pack, devices }: Design): Design['circuits'] {
  return Object.fromEntries(
    Object.entries(circuits).map(([id, circuit]) => {
      const own = runsOfCircuit(runs, id);
      return [id, own.length === 0 ? circuit : circuitLaid(circuit, own, { circuits, pack, devices })];
    }),
  );
}

function circuitLaid(circuit: CircuitItem, own: readonly [Id, RunItem][], design: Carrying): CircuitItem {
  const by = own.flatMap(([, run]) => [run, conductorsIn(run, design)]);
  const known = laidCircuits.get(circuit) ?? new WeakMap<RunItem, LaidCircuit>();
  const first = own[0]![1];
  const before = known.get(first);
  if (before !== undefined && before.by.length === by.length && before.by.every((one, i) => one === by[i]))
    return before.made;
  const stretches = own.flatMap(([id, run]) => stretchesOf(id, run, conductorsIn(run, design)));
  const { lengthM: _typed, ...rest } = circuit;
  const given = stretches.every(({ lengthM }) => lengthM !== undefined);
  const made = {
    ...rest,
    stretches,
    ...(given && { lengthM: stretches.reduce((sum, { lengthM = 0 }) => sum + lengthM, 0) }),
  };
  laidCircuits.set(circuit, known.set(first, { by, made }));
  return made;
}

const laidHoses = new WeakMap<PlumbingItem, { by: RunItem; made: PlumbingItem }>();
const laidJoins = new WeakMap<JoinItem, { by: RunItem; end: number; made: JoinItem }>();

/** Hoses are as long as their run; where a hose has a run of its own, joins that have no place lie at its ends. */
function hosesLaid(
  { plumbing = {}, joins = {} }: Design,
  runs: NonNullable<Design['runs']>,
): Partial<Pick<Design, 'plumbing' | 'joins'>> {
  const carriers = Object.values(runs).flatMap((run) =>
    (run.hoses ?? []).flatMap((id) => (plumbing[id]?.kind === 'hose' ? [{ id, run }] : [])),
  );
  if (carriers.length === 0) return {};
  const pieces = { ...plumbing };
  const placed = { ...joins };
  for (const { id, run } of carriers) {
    pieces[id] = hoseLaid(plumbing[id]!, run);
    if (run.hoses!.length > 1) continue;
    const { from, to } = plumbing[id]!;
    for (const [join, end] of [
      [from, 0],
      [to, -1],
    ] as const)
      if (join !== undefined && joins[join] !== undefined) placed[join] = joinLaid(placed[join]!, run, end);
  }
  return { plumbing: pieces, joins: placed };
}

function hoseLaid(hose: PlumbingItem, run: RunItem): PlumbingItem {
  const before = laidHoses.get(hose);
  if (before?.by === run) return before.made;
  const { lengthM: _typed, ...rest } = hose;
  const lengths = runLengths(run);
  const made: PlumbingItem = { ...rest, ...(lengths !== null && { lengthM: lengths.cutM }) };
  laidHoses.set(hose, { by: run, made });
  return made;
}

function joinLaid(join: JoinItem, run: RunItem, end: 0 | -1): JoinItem {
  if (join.xM !== undefined || join.yM !== undefined || join.zM !== undefined) return join;
  const before = laidJoins.get(join);
  if (before?.by === run && before.end === end) return before.made;
  const { xM, yM, zM } = run.points?.at(end) ?? {};
  if (xM === undefined || yM === undefined || zM === undefined) return join;
  const made = { ...join, xM, yM, zM };
  laidJoins.set(join, { by: run, end, made });
  return made;
}

function packLaid({ pack, runs }: Design): Design['pack'] {
  const { leads } = pack;
  if (leads === undefined) return pack;
  let moved = false;
  const next = Object.fromEntries(
    Object.entries(leads).map(([id, lead]) => {
      const run = Object.values(runs ?? {}).find((one) => one.leads?.includes(id));
      if (run === undefined) return [id, lead];
      moved = true;
      const before = laidLeads.get(lead);
      if (before?.by === run) return [id, before.made];
      const { lengthM: _typed, ...rest } = lead;
      const lengths = runLengths(run);
      const tube = lengths?.parts.some(({ way }) => way === 'conduit') === true;
      const { conduitInnerMm, conduitOuterMm } = run;
      const made: LeadItem = {
        ...rest,
        ...(lengths !== null && { lengthM: lengths.cutM }),
        ...(tube && { install: 'steel-conduit' as const }),
        ...(tube && conduitInnerMm !== undefined && { conduitInnerMm }),
        ...(tube && conduitOuterMm !== undefined && { conduitOuterMm }),
      };
      laidLeads.set(lead, { by: run, made });
      return [id, made];
    }),
  );
  return moved ? { ...pack, leads: next } : pack;
}
