import type { Design } from '@torvek/core/document';
import type { PartKey } from '@torvek/core/parts';

/** Two loops of the bus: one for the pack in three boxes, one for drive and charger. All invented. */

export const coolingKeys: PartKey[] = [
  'tarnbeck-c45-24@1',
  'tarnbeck-c20-24@1',
  'ollerton-p640@1',
  'ollerton-r220@1',
  'ollerton-r260@1',
  'galewood-k900@1',
  'galewood-k560@1',
  'galewood-f305-24@1',
  'wendover-h25@1',
  'wendover-h19@1',
  'emberley-e3@1',
  'brinmere-g50@1',
];

type Joins = NonNullable<Design['joins']>;
type Plumbing = NonNullable<Design['plumbing']>;

export const cooling: Design['cooling'] = {
  school: 'own loops',
  hotC: 32,
  coldC: -12,
  hillGradeFraction: 0.04,
  hillSpeedKmH: 40,
  repeats: 12,
  startC: 28,
  onAboveC: 35,
  offBelowC: 33.5,
  cellMaxC: 45,
  cellChargeMinC: 2,
};

export const loops: Design['loops'] = {
  'loop-pack': {
    tag: 'Pack loop',
    coolant: 'brinmere-g50@1',
    tank: 'join-pack-tank',
    tankL: 1.2,
    lostFlow: 'pump’s own signal',
    lostCoolant: 'level switch',
    testKPa: 120,
  },
  'loop-drive': {
    tag: 'Drive loop',
    coolant: 'brinmere-g50@1',
    tank: 'join-drive-tank',
    tankL: 0.9,
    lostFlow: 'temperatures',
    lostCoolant: 'a look at the tank',
    testKPa: 100,
  },
};

const joinRows: [loop: string, id: string, tag: string, x: number, y: number, z: number, bleed?: true][] = [
  ['pack', 'tank', 'Tank, pack', 1.2, 0.5, 1.25],
  ['pack', 'pump', 'Behind the pump', 1.05, 0.5, 0.7],
  ['pack', 'warm', 'Behind the heater', 0.95, 0.55, 0.66],
  ['pack', 'tee-nose', 'Tee to the nose', 0.6, 0.55, 0.62],
  ['pack', 'tee-floor', 'Tee to the floor', -0.5, 0.95, 0.5],
  ['pack', 'nose-in', 'Nose, in', 0.6, 0.4, 0.7],
  ['pack', 'nose-out', 'Nose, out', 0.6, -0.4, 0.72, true],
  ['pack', 'floor-in', 'Floor, in', -0.55, 0.55, 0.5],
  ['pack', 'floor-out', 'Floor, out', -0.55, 0.25, 0.52, true],
  ['pack', 'tee-tail', 'Before the tail', -4.1, 0.8, 0.5],
  ['pack', 'tail-in', 'Tail, in', -4.2, 0.45, 0.6],
  ['pack', 'tail-out', 'Tail, out', -4.2, -0.45, 0.62, true],
  ['pack', 'back-floor', 'Floor back', -0.5, -0.9, 0.5],
  ['pack', 'back-nose', 'Nose back', 0.6, -0.55, 0.66],
  ['pack', 'radiator', 'Before the radiator', 1.3, -0.3, 0.95],
  ['drive', 'tank', 'Tank, drive', -2.1, 0.7, 1.3],
  ['drive', 'pump', 'Behind the pump, drive', -2.2, 0.7, 0.7],
  ['drive', 'inverter', 'Behind the inverter', -2.6, 0.3, 0.95],
  ['drive', 'charger', 'Behind the charger', -2.9, 0.3, 0.95, true],
  ['drive', 'motor', 'Behind the motor', -3.3, 0.2, 0.7],
  ['drive', 'radiator', 'Before the radiator, drive', -2.0, -0.9, 0.8],
];
/** The driver’s end is heated, behind a curtain: shelves need none. */
export const cabin: NonNullable<Design['cabin']> = {
  heater: 'device-heater',
  wantedC: 16,
  glassM2: 5.5,
  bodyM2: 22,
  bodyWPerM2K: 1.6,
  freshM3PerH: 60,
  people: 2,
  insideWPerM2K: 35,
};

export const joins: Joins = Object.fromEntries(
  joinRows.map(([loop, id, tag, xM, yM, zM, bleed]) => [
    `join-${loop}-${id}`,
    { tag, loop: `loop-${loop}`, xM, yM, zM, ...(bleed === true && { bleed }) },
  ]),
);

const hose = (
  loop: string,
  from: string,
  to: string,
  tag: string,
  lengthM: number,
  minorK: number,
  bore: 19 | 25,
): Plumbing[string] => ({
  tag,
  loop: `loop-${loop}`,
  kind: 'hose',
  from: `join-${loop}-${from}`,
  to: `join-${loop}-${to}`,
  hose: `wendover-h${bore}@1`,
  lengthM,
  minorK,
});

const throttle = (box: string, from: string, openFraction: number): Plumbing[string] => ({
  tag: `Throttle, ${box}`,
  loop: 'loop-pack',
  kind: 'valve',
  from: `join-pack-${from}`,
  to: `join-pack-${box}-in`,
  kvM3PerH: 2.6,
  openFraction,
});

/** Modules two by two on a plate, as they stand in their boxes. */
const plates = (box: string, places: number[]): Plumbing =>
  Object.fromEntries(
    places.map((place, i): [string, Plumbing[string]] => [
      `piece-plate-${box}-${i + 1}`,
      {
        tag: `Plate ${box} ${i + 1}`,
        loop: 'loop-pack',
        kind: 'plate',
        from: `join-pack-${box}-in`,
        to: `join-pack-${box}-out`,
        plate: 'ollerton-p640@1',
        modules: [1, 2].map((string) => `module-${string}${String(place).padStart(2, '0')}`),
        fillerMm: 0.5,
        fillerWPerMK: 1.8,
      },
    ]),
  );

export const plumbing: Plumbing = {
  'piece-pump': {
    tag: 'Pack pump',
    loop: 'loop-pack',
    kind: 'pump',
    from: 'join-pack-tank',
    to: 'join-pack-pump',
    pump: 'tarnbeck-c45-24@1',
    switched: 'by temperature',
    loads: ['load-pumps', 'load-pump-charge'],
  },
  'piece-heater': {
    tag: 'Coolant heater',
    loop: 'loop-pack',
    kind: 'heater',
    from: 'join-pack-pump',
    to: 'join-pack-warm',
    heater: 'emberley-e3@1',
    heaterDevice: 'device-coolant-heater',
  },
  'piece-hose-1': hose('pack', 'warm', 'tee-nose', 'Feed to the nose', 0.6, 2, 25),
  'piece-hose-2': hose('pack', 'tee-nose', 'tee-floor', 'Feed to the floor', 1.4, 3, 25),
  'piece-hose-3': hose('pack', 'tee-floor', 'tee-tail', 'Feed to the tail', 4.1, 3, 25),
  'piece-throttle-nose': throttle('nose', 'tee-nose', 0.4),
  'piece-throttle-floor': throttle('floor', 'tee-floor', 0.7),
  'piece-throttle-tail': throttle('tail', 'tee-tail', 0.7),
  ...plates('nose', [1, 2]),
  ...plates('floor', [3, 4, 5]),
  ...plates('tail', [6, 7, 8]),
  'piece-hose-4': hose('pack', 'tail-out', 'back-floor', 'Back from the tail', 4.2, 3, 25),
  'piece-hose-5': hose('pack', 'floor-out', 'back-floor', 'Back from the floor', 1.3, 3, 25),
  'piece-hose-6': hose('pack', 'back-floor', 'back-nose', 'Back to the nose', 1.5, 2, 25),
  'piece-hose-7': hose('pack', 'nose-out', 'back-nose', 'Back from the nose', 0.4, 2, 25),
  'piece-hose-8': hose('pack', 'back-nose', 'radiator', 'Back to the radiator', 1.1, 3, 25),
  'piece-radiator': {
    tag: 'Front radiator',
    loop: 'loop-pack',
    kind: 'radiator',
    from: 'join-pack-radiator',
    to: 'join-pack-tank',
    radiator: 'galewood-k900@1',
    fan: 'galewood-f305-24@1',
    airKgPerS: 1.1,
    switched: 'by temperature',
    loads: ['load-fans', 'load-fans-charge'],
  },
  'piece-drive-pump': {
    tag: 'Drive pump',
    loop: 'loop-drive',
    kind: 'pump',
    from: 'join-drive-tank',
    to: 'join-drive-pump',
    pump: 'tarnbeck-c20-24@1',
    switched: 'driving and charging',
    loads: ['load-pumps', 'load-pump-charge'],
  },
  'piece-inverter': {
    tag: 'Inverter jacket',
    loop: 'loop-drive',
    kind: 'jacket',
    from: 'join-drive-pump',
    to: 'join-drive-inverter',
    plate: 'ollerton-r220@1',
    device: 'device-inverter',
    lossFraction: 0.03,
    coolantMaxC: 65,
    leastLPerMin: 8,
  },
  'piece-charger': {
    tag: 'Charger jacket',
    loop: 'loop-drive',
    kind: 'jacket',
    from: 'join-drive-inverter',
    to: 'join-drive-charger',
    plate: 'ollerton-r220@1',
    device: 'device-charger',
    lossFraction: 0.06,
    coolantMaxC: 60,
  },
  'piece-motor': {
    tag: 'Motor jacket',
    loop: 'loop-drive',
    kind: 'jacket',
    from: 'join-drive-charger',
    to: 'join-drive-motor',
    plate: 'ollerton-r260@1',
    lossFraction: 0.08,
    busy: 'driving',
    coolantMaxC: 70,
  },
  'piece-drive-hose': hose('drive', 'motor', 'radiator', 'To the drive radiator', 2.2, 4, 19),
  'piece-drive-radiator': {
    tag: 'Drive radiator',
    loop: 'loop-drive',
    kind: 'radiator',
    from: 'join-drive-radiator',
    to: 'join-drive-tank',
    radiator: 'galewood-k560@1',
    fan: 'galewood-f305-24@1',
    airKgPerS: 0.7,
    switched: 'by temperature',
    loads: ['load-fans', 'load-fans-charge'],
  },
};

/** Walls of its boxes: steel and foam; gas of a failing cell leads out under the floor. */
export const wrapped = {
  walls: [
    { thicknessMm: 12, conductivityWPerMK: 0.034 },
    { thicknessMm: 2, conductivityWPerMK: 50 },
  ],
  ventTo: 'outside' as const,
};
