import { list, text } from '../../ground/shape';
import {
  choice,
  chosen,
  defaultsOf,
  few,
  flag,
  num,
  refer,
  share,
  tag,
  words,
  type Field,
  type ItemOf,
} from './field';
import type { Id } from './id';

/** How a cable lies from one point of its run to the next. */
export const laidWays = ['clipped', 'conduit', 'box'] as const;
export type LaidWay = (typeof laidWays)[number];

/** A point of a run, in the vehicle frame. */
export const runPointFields = {
  xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { usual: [0, 4.5] }),
  /** From here to the next point; absent: as before, at first clipped. */
  after: choice('From here on', laidWays),
  /** How far off it may lie, each way. */
  tolMm: num('Give or take', 'mm', { usual: [0.2, 200] }),
  /** Where it was measured: by the tape from marks of the body. */
  taped: few('Taped from', 3, {
    datum: refer('Mark', 'datums'),
    distanceM: num('Distance', 'm', { usual: [0.05, 15] }),
  }),
};
export interface RunPoint extends ItemOf<typeof runPointFields> {}

export const runPoles = ['both', 'plus', 'minus'] as const;
export type RunPoles = (typeof runPoles)[number];

/** How a cable comes into what it ends at; where it stays dry nothing is asked of it. */
export const entryKinds = ['gland', 'grommet', 'sealed plug', 'dry'] as const;
export type EntryKind = (typeof entryKinds)[number];

export const motorPhases = ['U', 'V', 'W'] as const;

export const conduitKinds = ['steel', 'aluminium', 'plastic', 'flexible'] as const;
export type ConduitKind = (typeof conduitKinds)[number];

const ids = (label: string, refersTo?: 'circuits' | 'boards' | 'plumbing'): Field<Id[], false> => ({
  label,
  schema: list.optional(text(), { maxRows: 40 }),
  given: false,
  ...(refersTo !== undefined && { refersTo }),
});

/** Where cables run through the vehicle, and how they lie on the way. */
export const runFields = {
  tag,
  /** Circuits whose cable it carries, and cables of the pack. */
  circuits: ids('Carries the cables of', 'circuits'),
  leads: ids('Carries cables of the pack'),
  /** Boards whose sense wires it carries: they are as long as it is. */
  boards: ids('Carries the sense wires of', 'boards'),
  /** Coolant hoses: each is as long as the run, and its first point is where the coolant of the first comes from. */
  hoses: ids('Carries the hoses', 'plumbing'),
  /** An inverter whose motor cables it carries; which of the three, absent: all of them. */
  phasesOf: refer('Carries the motor phases of', 'devices'),
  phase: choice('Phase', motorPhases),
  /** Pairs of data or of sensors lie in it. */
  signals: flag('Carries pairs of data or sensors'),
  /** Absent: both. */
  poles: choice('Poles', runPoles),
  points: few('Points', 400, runPointFields),
  /** The box or device at each end, and whether it can still move. */
  from: words('Begins at'),
  to: words('Ends at'),
  fromFixed: flag('Its beginning is fixed'),
  toFixed: flag('Its end is fixed'),
  fromEntry: choice('Its beginning enters by', entryKinds),
  toEntry: choice('Its end enters by', entryKinds),
  /** A loop left at an end, so that it can be made again: counted in the length. */
  fromLoopMm: num('Loop at its beginning', 'mm', { fallback: 0, usual: [0, 2000] }),
  toLoopMm: num('Loop at its end', 'mm', { fallback: 0, usual: [0, 2000] }),
  bendRadiusMm: num('Bend radius', 'mm', { usual: [10, 1000] }),
  /** Least radius of the cable over its diameter, by its maker. */
  minBendFactor: num('Cable bends down to diameters', '', { fallback: 5, usual: [2, 20] }),
  clipSpacingMm: num('Clips every', 'mm', { fallback: 250, usual: [50, 1000] }),
  clipFromEndMm: num('First clip from the end', 'mm', { fallback: 100, usual: [20, 500] }),
  /** Where no new holes are made: what may hang between two fixings that are there. */
  freeSpanMm: num('May hang free over', 'mm', { fallback: 400, usual: [100, 1500] }),
  slackFraction: share('Slack', { fallback: 0.03, usual: [0, 0.3] }),
  terminationMm: num('Taken by each termination', 'mm', { fallback: 60, usual: [0, 500] }),
  /** The tube of its legs in conduit. */
  conduit: choice('Conduit', conduitKinds),
  conduitInnerMm: num('Conduit inside', 'mm', { usual: [5, 150] }),
  conduitOuterMm: num('Conduit outside', 'mm', { usual: [5, 160] }),
  fittings: choice('Its fittings', ['metal', 'plastic']),
  bondedAcross: flag('Bonded across its fittings'),
  drained: flag('Water leaves at its lowest point'),
  springbackFraction: share('Spring-back', { fallback: 0.02, usual: [0, 0.2] }),
  /** Pulling: friction in the conduit, and what the cable stands. */
  friction: num('Friction', '', { fallback: 0.5, usual: [0.05, 1.2] }),
  maxTensionN: num('Cable is pulled with at most', 'N', { usual: [50, 20_000] }),
  maxSidewallNPerM: num('Pressed in bends with at most', 'N/m', { fallback: 4400, usual: [500, 20_000] }),
  /** Each conductor, where it was measured in place: counts instead of what the points give. */
  cutLengthM: num('Cut to', 'm', { usual: [0.05, 60] }),
};
export interface RunItem extends ItemOf<typeof runFields> {}
export const runDefaults = defaultsOf(runFields);

export const hazardKinds = [
  'brake',
  'fuel',
  'coolant',
  '12 V loom',
  'exhaust',
  'rotating shaft',
  'moving part',
  'ground',
  'other',
] as const;
export type HazardKind = (typeof hazardKinds)[number];

/** Something that runs through the vehicle and that high voltage stays away from. */
export const hazardFields = {
  tag,
  kind: chosen('Kind', hazardKinds),
  points: few('Points', 400, {
    xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
    yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
    zM: num('Above the ground', 'm', { usual: [-0.2, 4.5] }),
  }),
  /** Half of what it is thick; its line is its middle. */
  radiusMm: num('Half its thickness', 'mm', { fallback: 0, usual: [0, 500] }),
  /** Absent: what is usual for its kind. */
  minSeparationMm: num('Distance asked', 'mm', { usual: [5, 1000] }),
};
export interface HazardItem extends ItemOf<typeof hazardFields> {}

/** Distance asked where the design does not say, mm, by kind: usual ones of the trade. */
export const hazardDistanceMm: Record<HazardKind, number> = {
  brake: 50,
  fuel: 150,
  coolant: 50,
  '12 V loom': 50,
  exhaust: 200,
  'rotating shaft': 75,
  'moving part': 50,
  ground: 150,
  other: 50,
};

export const zoneKinds = ['corridor', 'forbidden', 'crush', 'keep-free', 'obstacle'] as const;
export type ZoneKind = (typeof zoneKinds)[number];

/** A part of the vehicle through which cables should lead, or not. */
export const zoneFields = {
  tag,
  kind: chosen('Kind', zoneKinds),
  xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { usual: [0, 4.5] }),
  lengthM: num('Length', 'm', { usual: [0.02, 20] }),
  widthM: num('Width', 'm', { usual: [0.02, 3] }),
  heightM: num('Height', 'm', { usual: [0.02, 4] }),
  /** Of an obstacle: to take it out, and to put it back where it goes back. */
  outHours: num('Hours to take it out', 'h', { usual: [0.05, 80] }),
  staysOut: flag('It stays out'),
};
export interface ZoneItem extends ItemOf<typeof zoneFields> {}

/** A mark on the body from which places are measured: a hole, a corner of a bracket, the middle of a bolt. */
export const datumFields = {
  tag,
  xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { usual: [0, 4.5] }),
  /** A stud, a hole or a bracket that a clip can go to. */
  holds: flag('A run can be held here'),
};
export interface DatumItem extends ItemOf<typeof datumFields> {}

export const wallFaces = ['front', 'rear', 'left', 'right', 'top', 'bottom'] as const;
/** What goes through an opening, and what closes it around that. */
export const passings = ['cables', 'hose', 'loom', 'vent', 'nothing'] as const;
export const closings = ['gland', 'grommet', 'sealed plug', 'fitting', 'blank', 'open'] as const;

/** An opening in a wall of a box, or of the vehicle. */
export const openingFields = {
  tag,
  /** Absent: a wall of the vehicle. */
  box: refer('In a wall of', 'boxes'),
  face: choice('Face', wallFaces),
  passes: choice('Passes', passings),
  run: refer('The run', 'runs'),
  by: choice('Closed by', closings),
  /** Alike, side by side. */
  count: num('How many', '', { fallback: 1, usual: [1, 40] }),
  holeMm: num('Hole', 'mm', { usual: [3, 120] }),
  /** Free on either side of the wall, square to it, and what is stiff there before a cable may bend. */
  insideMm: num('Room inside', 'mm', { usual: [5, 2000] }),
  outsideMm: num('Room outside', 'mm', { usual: [5, 2000] }),
  stiffMm: num('Stiff behind the wall', 'mm', { fallback: 40, usual: [0, 300] }),
  behind: words('Behind it lies'),
};
export interface OpeningItem extends ItemOf<typeof openingFields> {}
export const openingDefaults = defaultsOf(openingFields);
