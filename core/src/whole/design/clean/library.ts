import type { LeadItem } from '../../../model/document';
import { build, type Box, type Spec } from './build';

/** Buses and vans of the library: donor modules from 230 to 750 V, one to three strings, two to four boxes. */

const box = (tag: string, xM: number, size: Box['size'], emptyKg = 40): Box => ({
  tag,
  at: [xM, 0, 0.7],
  size,
  emptyKg,
  anchors: 10,
  anchorN: 9000,
});

/** A cable inside the pack, one pole, by its place, length, area and studs. */
const lead = (tag: string, joint: number, lengthM: number, areaMm2: number, studMm: number): LeadItem => ({
  tag,
  string: 'string-1',
  joint,
  cable: `marl-x${areaMm2}@1`,
  lengthM,
  ambientC: 35,
  grouped: 1,
  lug: `penhallow-c${areaMm2}-m${studMm}@1`,
  gland: areaMm2 > 25 ? 'wendmoor-g25s@1' : 'wendmoor-g20s@1',
  studMm,
});

const van: Spec = {
  vehicle: {
    make: 'Wendlebury',
    model: 'Parish van',
    year: 1979,
    wheelbaseM: 3.1,
    lengthM: 5.4,
    frontOverhangM: 0.9,
    heightM: 2.4,
    wheelDiameterM: 0.66,
    frontKg: 900,
    rearKg: 850,
    frontLimitKg: 1500,
    rearLimitKg: 1800,
    grossLimitKg: 3200,
    whPerKmPerKg: 0.09,
    speedKmH: 50,
    rollingCoefficient: 0.011,
    dragAreaM2: 2.4,
    drivetrainEfficiency: 0.85,
    accessoriesW: 500,
    wantedRangeKm: 40,
    topSpeedKmH: 80,
  },
  pack: {
    socLowFraction: 0.1,
    socHighFraction: 0.9,
    socForPeakFraction: 0.4,
    peakCurrentA: 120,
    linkResistanceOhm: 0.006,
    mainsBox: 'box-rear',
    combinerBox: 'box-rear',
  },
  module: 'sallow-lm2@1',
  placing: Array.from({ length: 30 }, (_, i) => (i < 15 ? 'box-front' : 'box-rear')),
  strings: 1,
  stringParts: {
    disconnectAt: 15,
    contactor: 'hollin-k200@1',
    contactorPoles: 'both',
    contactorsIn: 'string',
  },
  disconnect: 'mosswick-p200@1',
  prechargeContactor: 'hollin-k100@1',
  leads: {
    'lead-boxes': lead('Front box to rear box', 15, 2.2, 25, 8),
    'lead-negative': lead('Front box to the mains, negative', 0, 2.6, 25, 8),
  },
  boxes: {
    'box-front': box('Front box', -0.6, [1.65, 0.8, 0.15]),
    'box-rear': box('Rear box', -2.6, [1.65, 0.8, 0.15]),
  },
  clearanceMm: 5,
  creepageMm: 5,
  masses: {
    'mass-engine': { tag: 'Engine and gearbox', change: 'out', massKg: 280, xM: -0.2 },
    'mass-motor': { tag: 'Motor', change: 'in', massKg: 90, xM: -0.4 },
  },
  devices: {
    'device-inverter': {
      tag: 'Inverter',
      kind: 'inverter',
      minV: 140,
      maxV: 300,
      busCapacitanceF: 0.00105,
      bleedOhm: 2500,
    },
    'device-charger': {
      tag: 'Charger',
      kind: 'charger',
      minV: 160,
      maxV: 300,
      busCapacitanceF: 0.00015,
      isolation: 'isolated',
      ownCutOff: true,
      unattended: true,
    },
  },
  main: {
    tag: 'Main',
    device: 'device-inverter',
    contactor: 'hollin-k200@1',
    resistor: 'ember-82@1',
    fuse: 'calderside-f160@1',
    cable: 'marl-x25@1',
    lug: 'penhallow-c25-m8@1',
    gland: 'wendmoor-g20s@1',
    studMm: 8,
    lengthM: 3.5,
    loadProfile: [
      [30, 110],
      [120, 50],
      [60, 20],
    ],
    more: { attemptsPerMinute: 2 },
  },
  branches: {
    'circuit-charger': {
      tag: 'Charger',
      device: 'device-charger',
      fuse: 'calderside-f32@1',
      cable: 'marl-x6@1',
      lug: 'penhallow-c6-m6@1',
      gland: 'wendmoor-g16s@1',
      studMm: 6,
      lengthM: 2.5,
      loadProfile: [[3600, 15]],
    },
  },
  posts: { studMm: 6, torqueNm: 7, engagementMm: 8 },
};

const busVehicle: Spec['vehicle'] = {
  ...van.vehicle,
  model: 'Parish 24',
  wheelbaseM: 4.2,
  lengthM: 7.6,
  frontOverhangM: 1.6,
  frontKg: 2480,
  rearKg: 3520,
  frontLimitKg: 3600,
  rearLimitKg: 5600,
  grossLimitKg: 8600,
  dragAreaM2: 4.6,
  accessoriesW: 1200,
  wantedRangeKm: 80,
};
const device = (maxV: number, minV: number, farad: number, bleedOhm: number): Spec['devices'] => ({
  'device-inverter': { tag: 'Inverter', kind: 'inverter', minV, maxV, busCapacitanceF: farad, bleedOhm },
  'device-dcdc': { tag: 'DC-DC', kind: 'dc-dc', minV, maxV, busCapacitanceF: 0.00006 },
  'device-charger': {
    tag: 'Charger',
    kind: 'charger',
    minV,
    maxV,
    busCapacitanceF: 0,
    isolation: 'isolated',
    ownCutOff: true,
    unattended: true,
  },
});
const dcdc: Spec['branches'] = {
  'circuit-dcdc': {
    tag: 'DC-DC',
    device: 'device-dcdc',
    fuse: 'calderside-f20@1',
    cable: 'marl-x4@1',
    lug: 'penhallow-c4-m5@1',
    gland: 'wendmoor-g16s@1',
    studMm: 5,
    lengthM: 1.5,
    loadProfile: [
      [60, 7],
      [240, 4],
    ],
  },
};
const charging = (behind: Spec['branches'][string], amps: number): Spec['branches'][string] => ({
  ...behind,
  tag: 'Charger',
  device: 'device-charger',
  lengthM: 2,
  loadProfile: [[3600, amps]],
});
const dcdcBehindH63 = {
  ...dcdc['circuit-dcdc']!,
  fuse: 'calderside-h63@1',
  cable: 'marl-x10@1',
  lug: 'penhallow-c10-m6@1',
  studMm: 6,
};
const busMasses: Spec['masses'] = {
  'mass-engine': { tag: 'Engine', change: 'out', massKg: 640, xM: 0.3 },
  'mass-motor': { tag: 'Motor', change: 'in', massKg: 165, xM: -3.2 },
};

const twoStrings: Spec = {
  vehicle: busVehicle,
  pack: {
    socLowFraction: 0.1,
    socHighFraction: 0.9,
    socForPeakFraction: 0.3,
    peakCurrentA: 400,
    linkResistanceOhm: 0.004,
    mainsBox: 'box-tail',
    combinerBox: 'box-tail',
  },
  module: 'brackwater-m12@1',
  placing: [
    'box-nose',
    'box-nose',
    'box-nose',
    'box-floor',
    'box-floor',
    'box-floor',
    'box-tail',
    'box-tail',
  ],
  strings: 2,
  stringParts: {
    disconnectAt: 4,
    fuse: 'calderside-f250@1',
    contactor: 'hollin-k200@1',
    contactorPoles: 'both',
    contactorsIn: 'string',
  },
  disconnect: 'mosswick-p350@1',
  prechargeContactor: 'hollin-k100@1',
  boxes: {
    'box-nose': box('Nose box', 0.3, [1.4, 0.9, 0.3]),
    'box-floor': box('Floor box', -1.4, [1.4, 0.9, 0.3]),
    'box-tail': box('Tail box', -4.6, [1.4, 0.9, 0.3]),
  },
  clearanceMm: 6,
  creepageMm: 6,
  masses: busMasses,
  devices: device(450, 250, 0.0012, 2000),
  main: {
    tag: 'Main',
    device: 'device-inverter',
    contactor: 'hollin-k350@1',
    resistor: 'ember-82@1',
    fuse: 'calderside-f350@1',
    cable: 'marl-x70@1',
    lug: 'penhallow-c70-m10@1',
    gland: 'wendmoor-g25s@1',
    studMm: 10,
    lengthM: 6,
    loadProfile: [
      [12, 400],
      [60, 140],
      [90, 60],
      [20, -80],
    ],
    more: { attemptsPerMinute: 0.9 },
  },
  branches: {
    ...dcdc,
    'circuit-charger': charging({ ...van.branches['circuit-charger']! }, 15),
  },
  posts: { studMm: 8, torqueNm: 14, engagementMm: 11 },
};

const threeStrings: Spec = {
  ...twoStrings,
  pack: {
    ...twoStrings.pack,
    peakCurrentA: 600,
    linkResistanceOhm: 0.008,
    mainsBox: 'box-d',
    combinerBox: 'box-d',
  },
  module: 'tolvarth-8@1',
  placing: ['box-a', 'box-b', 'box-c', 'box-d'].flatMap((id) => [id, id, id]),
  strings: 3,
  stringParts: { ...twoStrings.stringParts, disconnectAt: 6, fuse: 'calderside-f200@1' },
  boxes: {
    'box-a': box('Box A', 0.4, [1.45, 0.95, 0.25]),
    'box-b': box('Box B', -1.2, [1.45, 0.95, 0.25]),
    'box-c': box('Box C', -2.8, [1.45, 0.95, 0.25]),
    'box-d': box('Box D', -4.4, [1.45, 0.95, 0.25]),
  },
  devices: device(450, 240, 0.00194, 1200),
  main: {
    ...twoStrings.main,
    contactor: 'hollin-k500@1',
    resistor: 'ember-47h@1',
    fuse: 'calderside-f500@1',
    cable: 'marl-x120@1',
    lug: 'penhallow-c120-m12@1',
    gland: 'wendmoor-g32s@1',
    studMm: 12,
    lengthM: 6,
    loadProfile: [
      [20, 600],
      [120, 220],
      [60, 100],
    ],
    more: { attemptsPerMinute: 1 },
  },
  // 21.5 kA at the pack: more than the fuses for 500 V break.
  branches: { 'circuit-dcdc': dcdcBehindH63, 'circuit-charger': charging(dcdcBehindH63, 30) },
  strapMm2: 25,
};

const high: Spec = {
  ...twoStrings,
  pack: {
    ...twoStrings.pack,
    peakCurrentA: 240,
    linkResistanceOhm: 0.01,
    mainsBox: 'box-d',
    combinerBox: 'box-d',
  },
  placing: [...'aaaabbbbccccddd'].map((name) => `box-${name}`),
  strings: 1,
  stringParts: {
    disconnectAt: 7,
    contactor: 'hollin-h350@1',
    contactorPoles: 'both',
    contactorsIn: 'string',
  },
  disconnect: 'mosswick-p250@1',
  prechargeContactor: 'hollin-h200@1',
  boxes: {
    'box-a': box('Box A', 0.4, [1.35, 0.6, 0.25]),
    'box-b': box('Box B', -1.2, [1.35, 0.6, 0.25]),
    'box-c': box('Box C', -2.8, [1.35, 0.6, 0.25]),
    'box-d': box('Box D', -4.4, [1.35, 0.6, 0.25]),
  },
  clearanceMm: 8,
  creepageMm: 8,
  devices: device(850, 450, 0.00054, 3000),
  main: {
    ...twoStrings.main,
    contactor: 'hollin-h350@1',
    fuse: 'calderside-h300@1',
    cable: 'marl-x50@1',
    lug: 'penhallow-c50-m10@1',
    lengthM: 5,
    loadProfile: [
      [20, 240],
      [120, 90],
      [60, 40],
    ],
    more: { timeoutS: 0.8, attemptsPerMinute: 1 },
  },
  branches: { 'circuit-dcdc': dcdcBehindH63, 'circuit-charger': charging(dcdcBehindH63, 30) },
};

export const van230 = build(van);
export const bus350 = build(twoStrings);
export const bus350Three = build(threeStrings);
export const bus750 = build(high);
