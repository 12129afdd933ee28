import type { Design } from '@torvek/core/document';
import type { PartKey } from '@torvek/core/parts';

/** The truck charges from one socket, and its 12 V battery from another: no converter. All invented. */

export const orchardKeys: PartKey[] = [
  'thornwick-c3-100@1',
  'saltmere-m16@1',
  'dunmarsh-c16-2d@1',
  'dunmarsh-c20-2d@1',
  'fernhough-p70@1',
  'harrowmere-b12@1',
  'lintwell-s16@1',
  'hollin-r30@1',
  'marl-v0-75@1',
  'marl-v1@1',
  'marl-v1-5@1',
  'marl-v2-5@1',
];

const near = { place: 'seat box', ambientC: 35, toFuseM: 0.12 };

export const orchardCharging: Pick<
  Design,
  | 'sensing'
  | 'boards'
  | 'sensors'
  | 'currentSensors'
  | 'supplies'
  | 'inlets'
  | 'cuts'
  | 'limits'
  | 'lowVoltage'
  | 'loads'
  | 'services'
> = {
  // Three boards of twelve: the middle one reaches over the service disconnect, until it is moved.
  sensing: {
    school: 'split',
    strategy: 'fill',
    mayStraddle: true,
    spinCellV: 3.3,
    spinA: 20,
    linkEndOhm: 120,
    sensorOhm: 10_000,
  },
  currentSensors: {
    'current-main': { tag: 'Shunt at the minus', rangeA: 300, sign: 'positive in drive' },
  },
  boards: Object.fromEntries(
    [1, 2, 3].map((i) => [
      `board-${i}`,
      {
        tag: `Board ${i}`,
        unit: 'harrowmere-b12@1',
        plug: 'lintwell-s16@1',
        string: 'string-1',
        order: i,
        box: 'box-seat',
        address: i,
      },
    ]),
  ),
  sensors: Object.fromEntries(
    ['01', '09', '18', '19', '28', '36'].map((cell, i) => [
      `sensor-${i + 1}`,
      {
        tag: `T${i + 1}`,
        module: `module-c${cell}`,
        board: `board-${1 + Math.floor((Number(cell) - 1) / 12)}`,
        place: 'on the busbar side',
      },
    ]),
  ),
  supplies: {
    'supply-barn': {
      tag: 'Barn socket',
      kind: 'socket',
      phases: 1,
      offersA: 10,
      breaker: 'dunmarsh-c16-2d@1',
      faultA: 480,
      otherA: 5,
    },
    'supply-store': {
      tag: 'Cold store, 16 A',
      kind: 'wall box',
      phases: 1,
      offersA: 16,
      cableOhm: 680,
      breaker: 'dunmarsh-c20-2d@1',
      residual: 'B',
      faultA: 900,
      continuousFraction: 0.8,
    },
  },
  inlets: {
    'inlet-bed': {
      tag: 'Inlet under the bed',
      current: 'mains',
      inlet: 'saltmere-m16@1',
      wireA: 16,
      lock: 'latch',
      release: 'by hand, from outside',
      lockReadBack: true,
      driveInhibit: true,
    },
  },
  cuts: {
    'cut-enable': {
      tag: 'Monitor’s loop to the charger',
      opens: 'enable of the charger',
      level: 'cell',
      voltageV: 3.64,
      opensUnpowered: true,
      latches: true,
      armedAt: 'key off and on',
    },
  },
  // The monitor warns before the charger has ended: the two are in the wrong order.
  limits: {
    cutHighV: 3.63,
    warnHighV: 3.58,
    warnLowV: 2.72,
    cutLowV: 2.6,
    spreadMv: 30,
    chargeByTemperature: true,
  },
  lowVoltage: {
    school: 'mains charger',
    battery: 'fernhough-p70@1',
    mainsChargerA: 10,
    coilLoads: ['load-coils', 'load-coils-charge'],
    sourceAreaMm2: 2.5,
    sourceLengthM: 1.4,
    sourceFuseA: 15,
    batteryFuseA: 15,
    journeyH: 2.5,
    parkedDays: 28,
  },
  loads: {
    'load-coils': {
      tag: 'Contactor coils',
      powerW: 22,
      when: 'driving',
      essential: true,
      ...near,
      fuseA: 3,
      wire: 'marl-v1@1',
      lengthM: 1.2,
      returnLengthM: 1.2,
      switchedBy: 'key',
    },
    'load-coils-charge': {
      tag: 'Contactor coils while charging',
      powerW: 12,
      when: 'charging',
      essential: true,
      ...near,
      fuseA: 3,
      wire: 'marl-v0-75@1',
      lengthM: 1.2,
      returnLengthM: 1.2,
      switchedBy: 'charge relay',
    },
    'load-monitor': {
      tag: 'Monitor',
      powerW: 6,
      when: 'always',
      dutyFraction: 0.02,
      essential: true,
      steadyPower: true,
      ...near,
      fuseA: 3,
      wire: 'marl-v0-75@1',
      lengthM: 0.8,
      returnLengthM: 0.8,
    },
    'load-lamps': {
      tag: 'Working lamps',
      powerW: 48,
      when: 'driving',
      dutyFraction: 0.3,
      essential: false,
      place: 'front',
      ambientC: 30,
      toFuseM: 0.12,
      fuseA: 7.5,
      wire: 'marl-v1-5@1',
      lengthM: 2.2,
      returnLengthM: 2.2,
      switchedBy: 'lamp switch',
      peakW: 300,
      relay: 'hollin-r30@1',
    },
    'load-horn': {
      tag: 'Horn',
      powerW: 60,
      when: 'driving',
      dutyFraction: 0.005,
      essential: true,
      place: 'front',
      ambientC: 30,
      toFuseM: 0.12,
      fuseA: 10,
      wire: 'marl-v1-5@1',
      lengthM: 2,
      returnLengthM: 2,
      switchedBy: 'horn button',
    },
    'load-vacuum': {
      tag: 'Vacuum pump',
      powerW: 110,
      when: 'driving',
      dutyFraction: 0.1,
      essential: true,
      place: 'front',
      ambientC: 35,
      toFuseM: 0.12,
      fuseA: 15,
      wire: 'marl-v2-5@1',
      lengthM: 1.8,
      returnLengthM: 1.8,
      peakW: 330,
      switchedBy: 'vacuum switch',
    },
  },
  services: {
    'service-brake': {
      tag: 'Brake servo',
      kind: 'brake assistance',
      successor: 'vacuum pump and reservoir',
      load: 'load-vacuum',
      reserveCount: 4,
      warns: true,
    },
  },
};
