import type { Design } from '@torvek/core/document';
import { rule, technician } from './shop';
import type { StoryLine } from './story';

type Placed = Pick<Design['devices'][string], 'xM' | 'yM' | 'zM' | 'lengthM' | 'widthM' | 'heightM'>;

const placed = (
  [xM, yM, zM]: [number, number, number],
  [lengthM, widthM, heightM]: [number, number, number],
): Placed => ({ xM, yM, zM, lengthM, widthM, heightM });

/** Where the bus’s devices sit. */
export const places: Record<string, Placed> = {
  'device-dcdc': placed([-3.35, 0.62, 0.66], [0.35, 0.25, 0.12]),
  'device-compressor': placed([1.3, -0.45, 0.75], [0.25, 0.2, 0.2]),
  'device-inlet': placed([-5.75, -0.98, 1.05], [0.2, 0.12, 0.2]),
};

type Way = NonNullable<NonNullable<Design['runs']>[string]['points']>[number]['after'];
const points = (...rows: [x: number, y: number, z: number, after?: Way][]) =>
  rows.map(([xM, yM, zM, after]) => ({ xM, yM, zM, ...(after !== undefined && { after }) }));

/** Marks on the frame that stay where they are whatever is built in. */
export const datums: NonNullable<Design['datums']> = {
  'datum-hanger': { tag: 'Front bolt of the left rear spring hanger', xM: -3.05, yM: 0.52, zM: 0.55 },
  'datum-crossmember': { tag: 'Middle hole of the third cross-member', xM: -2.3, yM: 0, zM: 0.6 },
  'datum-floor': { tag: 'Left foot of the book lift', xM: -2.75, yM: 0.85, zM: 0.98 },
};

/** Corners by the rule; the end at the DC-DC by the tape from three marks. */
const measured = (given: ReturnType<typeof points>) =>
  given.map((point, i) => ({
    ...point,
    tolMm: i === 1 ? 5 : 3,
    ...(i === 2 && {
      taped: [
        { datum: 'datum-hanger', distanceM: 0.194 },
        { datum: 'datum-crossmember', distanceM: 1.074 },
        { datum: 'datum-floor', distanceM: 0.581 },
      ],
    }),
  }));

/** A rigid conduit over the rear axle, clipped ways under the book floor, a flexible tube to a compressor on rubber. */
export const runs: NonNullable<Design['runs']> = {
  'run-inlet': {
    tag: 'Over the axle',
    circuits: ['circuit-inlet'],
    from: 'box-collector',
    to: 'device-inlet',
    fromFixed: true,
    toFixed: true,
    bendRadiusMm: 200,
    conduit: 'steel',
    conduitInnerMm: 42,
    conduitOuterMm: 46,
    fittings: 'metal',
    points: points(
      [-2.8, -0.6, 0.72, 'conduit'],
      [-3.35, -0.6, 0.72],
      [-3.75, -0.6, 1.02],
      [-4.75, -0.6, 1.02],
      [-5.15, -0.98, 1.05],
      [-5.65, -0.98, 1.05],
    ).map((point) => ({ ...point, tolMm: 3 })),
  },
  'run-dcdc': {
    tag: 'Across to the DC-DC',
    circuits: ['circuit-dcdc'],
    from: 'box-collector',
    to: 'device-dcdc',
    fromFixed: true,
    bendRadiusMm: 60,
    points: measured(points([-2.5, -0.4, 0.72, 'clipped'], [-2.5, 0.62, 0.72], [-3.175, 0.62, 0.66])),
    fromEntry: 'gland',
  },
  'run-compressor': {
    tag: 'Right rail to the compressor',
    circuits: ['circuit-compressor'],
    from: 'box-collector',
    to: 'device-compressor',
    fromFixed: true,
    toFixed: true,
    bendRadiusMm: 80,
    conduit: 'flexible',
    conduitInnerMm: 20,
    conduitOuterMm: 25,
    points: points(
      [-2.2, -0.52, 0.68, 'clipped'],
      [-1.9, -0.52, 0.68],
      [-1.7, -0.46, 0.6],
      [0.85, -0.46, 0.6, 'conduit'],
      [1.175, -0.45, 0.75],
    ),
  },
};

/** A hose is a run as well: as long as it was cut in place, and a line that cables keep away from. */
runs['run-hose-tail'] = {
  tag: 'Coolant along the right sill',
  hoses: ['piece-hose-4'],
  from: 'box-tail',
  fromFixed: true,
  toFixed: true,
  bendRadiusMm: 170,
  cutLengthM: 4.2,
  // Inside of the rear wheel, then out to the sill.
  points: points(
    [-4.2, -0.45, 0.62, 'clipped'],
    [-4.2, -0.74, 0.6],
    [-3.5, -0.74, 0.58],
    [-3.2, -0.92, 0.55],
    [-0.5, -0.9, 0.5],
  ),
};

export const hazards: NonNullable<Design['hazards']> = {
  'hazard-brake': {
    tag: 'Brake line, right',
    kind: 'brake',
    radiusMm: 3,
    points: points([0.3, -0.38, 0.58], [-2.05, -0.38, 0.56], [-4.1, -0.38, 0.5]),
  },
  'hazard-shaft': {
    tag: 'Propeller shaft',
    kind: 'rotating shaft',
    radiusMm: 40,
    points: points([-0.9, 0, 0.5], [-4, 0, 0.46]),
  },
  'hazard-coolant': {
    tag: 'Coolant to the floor box',
    kind: 'coolant',
    radiusMm: 13,
    points: points([-0.3, 0.3, 0.48], [-0.55, 0.42, 0.48]),
  },
  'hazard-loom': {
    tag: '12 V loom, left',
    kind: '12 V loom',
    radiusMm: 10,
    points: points([1.1, 0.9, 0.6], [-0.4, 0.95, 0.4], [-5.6, 0.95, 0.4]),
  },
};

export const zones: NonNullable<Design['zones']> = {
  'zone-bumper': {
    tag: 'Behind the rear bumper',
    kind: 'crush',
    xM: -5.93,
    yM: 0,
    zM: 0.6,
    lengthM: 0.14,
    widthM: 2.1,
    heightM: 0.5,
  },
  'zone-carrier': {
    tag: 'Spare wheel carrier',
    kind: 'obstacle',
    xM: -4.9,
    yM: 0.64,
    zM: 0.6,
    lengthM: 0.7,
    widthM: 0.25,
    heightM: 0.7,
    outHours: 1.5,
  },
  'zone-hatch': {
    tag: 'Swing of the engine hatch',
    kind: 'keep-free',
    xM: 0.4,
    yM: 0,
    zM: 1.35,
    lengthM: 1.2,
    widthM: 0.7,
    heightM: 0.5,
  },
  'zone-rail': {
    tag: 'Right frame rail',
    kind: 'corridor',
    xM: -1.3,
    yM: -0.45,
    zM: 0.6,
    lengthM: 5.2,
    widthM: 0.2,
    heightM: 0.2,
  },
};

const read: [step: string, valueMm: number, remark?: string][] = [
  ['run-tube:run-inlet', 38],
  ['run-tube:run-compressor', 18],
  ['run-near:run-dcdc/hazard-shaft', 182],
  ['run-clips:run-dcdc', 240],
  [
    'run-near:run-compressor/hazard-brake',
    61,
    'Nearest behind the second cross member, axle at its upper stop.',
  ],
  ['run-clips:run-compressor', 245],
  ['run-ends:run-inlet', 0],
  ['run-ends:run-dcdc', 0.5],
  ['run-ends:run-compressor', 1],
];

/** How they were looked at once they lay in the bus. */
export const laid: StoryLine[] = read.map(([step, value, remark], i) => ({
  at: new Date(Date.UTC(2026, 10, 5, 14, 24 + 4 * i)).toISOString(),
  by: technician,
  entry: {
    kind: 'result',
    step,
    value,
    instrument: rule,
    ...(remark !== undefined && { remark }),
  },
}));

/** The hose of the tail box was off while that was open. */
export const hoseAgain: StoryLine = {
  at: '2026-11-09T11:30:00Z',
  by: technician,
  entry: {
    kind: 'result',
    step: 'run-clips:run-hose-tail',
    value: 235,
    instrument: rule,
    remark: 'Put back after the box was opened.',
  },
};
