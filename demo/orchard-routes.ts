import type { Design } from '@torvek/core/document';

type Way = NonNullable<NonNullable<Design['runs']>[string]['points']>[number]['after'];
const points = (...rows: [x: number, y: number, z: number, after?: Way][]) =>
  rows.map(([xM, yM, zM, after]) => ({ xM, yM, zM, ...(after !== undefined && { after }) }));

/** Where inverter and charger of the truck sit: side by side under the dash. */
export const orchardPlaces: Record<string, Partial<Design['devices'][string]>> = {
  'device-inverter': { xM: 0.05, yM: 0.2, zM: 0.82, lengthM: 0.35, widthM: 0.3, heightM: 0.2 },
  'device-charger': { xM: 0.05, yM: -0.2, zM: 0.82, lengthM: 0.35, widthM: 0.3, heightM: 0.2 },
};

/** Down from the box under the seat into a sill, forward in it, and up under the dash: the main pair left, the charger right. */
export const orchardRuns: NonNullable<Design['runs']> = {
  'run-main': {
    tag: 'Left sill',
    circuits: ['circuit-main'],
    from: 'box-seat',
    to: 'device-inverter',
    fromFixed: true,
    toFixed: true,
    fromEntry: 'gland',
    bendRadiusMm: 84,
    conduit: 'aluminium',
    conduitInnerMm: 45,
    conduitOuterMm: 50,
    fittings: 'metal',
    points: points(
      [-0.45, 0.3, 0.62],
      [-0.45, 0.54, 0.62],
      [-0.45, 0.54, 0.44, 'conduit'],
      [0.05, 0.54, 0.44, 'clipped'],
      [0.05, 0.54, 0.82],
      [0.05, 0.35, 0.82],
    ),
  },
  'run-charger': {
    tag: 'Right sill',
    circuits: ['circuit-charger'],
    from: 'box-seat',
    to: 'device-charger',
    fromFixed: true,
    toFixed: true,
    fromEntry: 'gland',
    bendRadiusMm: 45,
    points: points(
      [-0.45, -0.3, 0.62],
      [-0.45, -0.54, 0.62],
      [-0.45, -0.54, 0.46],
      [0.05, -0.54, 0.46],
      [0.05, -0.54, 0.82],
      [0.05, -0.35, 0.82],
    ),
  },
};

export const orchardHazards: NonNullable<Design['hazards']> = {
  'hazard-brake': {
    tag: 'Brake line, left',
    kind: 'brake',
    radiusMm: 3,
    points: points([0.1, 0.42, 0.36], [-0.9, 0.42, 0.34], [-2.05, 0.4, 0.34]),
  },
  'hazard-shaft': {
    tag: 'Propeller shaft',
    kind: 'rotating shaft',
    radiusMm: 25,
    points: points([-0.75, 0, 0.4], [-1.95, 0, 0.32]),
  },
};

/** The box under the seat: two pairs of glands, the filter, the loom of the monitor, and a hole of an earlier idea. */
export const orchardOpenings: NonNullable<Design['openings']> = {
  'opening-main': {
    tag: 'Main pair',
    box: 'box-seat',
    face: 'left',
    passes: 'cables',
    run: 'run-main',
    by: 'gland',
    count: 2,
    holeMm: 25.3,
    insideMm: 140,
    outsideMm: 200,
    behind: 'The seat rail, 60 mm below.',
  },
  'opening-charger': {
    tag: 'Charger pair',
    box: 'box-seat',
    face: 'right',
    passes: 'cables',
    run: 'run-charger',
    by: 'gland',
    count: 2,
    holeMm: 16.3,
    insideMm: 110,
    outsideMm: 200,
  },
  'opening-vent': {
    tag: 'Filter',
    box: 'box-seat',
    face: 'rear',
    passes: 'vent',
    by: 'fitting',
    holeMm: 12.2,
  },
  'opening-spare': {
    tag: 'Heater that was not fitted',
    box: 'box-seat',
    face: 'right',
    passes: 'nothing',
    by: 'blank',
    holeMm: 16.3,
  },
};
