import { mainCircuit, type Design } from '@torvek/core/document';
import { arrivedId } from '@torvek/core/record';
import type { PartKey } from '@torvek/core/parts';
import { crateArrives } from './crate';
import { levelAtFull } from './levelling';
import {
  boxesTested,
  coolantEntries,
  filled,
  platesTested,
  startedAndStopped,
  tailTested,
  underLoad,
} from './library-bus-coolant';
import {
  chargingKeys,
  cuts,
  inlets,
  limits,
  loads,
  lowVoltage,
  sensing,
  services,
  supplies,
} from './library-bus-charging';
import { adapters, bundles, colours, ends, wires } from './library-bus-looms';
import { cabin, cooling, coolingKeys, joins, loops, plumbing, wrapped } from './library-bus-cooling';
import { datums, hazards, hoseAgain, laid, places, runs, zones } from './library-bus-routes';
import { pinned } from './pinned';
import { busBonds, busJoints, jointWalks } from './library-bus-joints';
import { designer, meter, scope, technician, tester, witness, rule } from './shop';
import type { DemoJob } from './story';

/** Demo A: a mobile library bus of 1974, two strings in three boxes, about 350 V. All invented. */

const pinnedKeys: PartKey[] = [
  'brackwater-m12@1',
  'hollin-k350@1',
  'ember-82@1',
  'calderside-f350@1',
  'calderside-f250@1',
  'calderside-f160@1',
  'calderside-f63@1',
  'calderside-f32@1',
  'hollin-k200@1',
  'marl-x70@1',
  'marl-x6@1',
  'marl-x4@1',
  'marl-x35@1',
  'penhallow-c70-m10@1',
  'penhallow-c35-m8@1',
  'penhallow-c6-m6@1',
  'penhallow-c4-m5@1',
  'wendmoor-g25s@1',
  'wendmoor-g16s@1',
  'hollin-k100@1',
  'mosswick-p200@1',
  'tarrowby-t70@1',
  'tarrowby-t35@1',
  'tarrowby-t6@1',
  'tarrowby-t4@1',
];

/** Which box each module of a string sits in, from the negative end. */
const placing: Record<string, string[]> = {
  'string-1': [
    'box-nose',
    'box-nose',
    'box-left',
    'box-left',
    'box-left',
    'box-tail',
    'box-tail',
    'box-tail',
  ],
  'string-2': [
    'box-nose',
    'box-nose',
    'box-left',
    'box-left',
    'box-left',
    'box-tail',
    'box-tail',
    'box-tail',
  ],
};

const moduleId = (string: string, place: number) =>
  `module-${string.slice(-1)}${String(place + 1).padStart(2, '0')}`;

const moduleRows = Object.entries(placing).flatMap(([string, boxes]) =>
  boxes.map((box, place) => ({
    id: moduleId(string, place),
    string,
    box,
    tag: `S${string.slice(-1)}-M${String(place + 1).padStart(2, '0')}`,
    plusSide: place % 2 === 0 ? ('left' as const) : ('right' as const),
  })),
);

/** Each string has its fuse at the positive end, its disconnect in the middle, contactors where the strings meet. */
const stringParts = {
  fuse: 'calderside-f250@1',
  disconnectAt: 4,
  disconnect: 'mosswick-p200@1',
  contactor: 'hollin-k200@1',
  contactorPoles: 'both',
  contactorsIn: 'combiner',
  ends: 'interlocked',
} as const;

/** Its cables from box to box, by joint: both strings go the same way. */
const ways: [joint: number, way: string, lengthM: number][] = [
  [0, 'nose to collector, −', 3],
  [2, 'nose to floor', 1.9],
  [5, 'floor to tail', 3.8],
  [8, 'tail to collector, +', 2.6],
];
const leads = Object.fromEntries(
  [1, 2].flatMap((string) =>
    ways.map(([joint, way, lengthM]) => [
      `lead-${string}-${joint}`,
      {
        tag: `S${string}, ${way}`,
        string: `string-${string}`,
        joint,
        cable: 'marl-x70@1',
        lengthM,
        ambientC: 40,
        lug: 'penhallow-c70-m10@1',
        gland: 'wendmoor-g25s@1',
        studMm: 10,
      },
    ]),
  ),
);

/** Lug, gland, stud of its cable. */
type Ends = [lug: string, gland: string, studMm: number];

type Profile = [durationS: number, currentA: number][];

/** All its cables are screened, clamped all round at both ends, and orange. */
const screenedOrange = { screened: true, screenFrom: 'clamp', screenTo: 'clamp', sheath: 'orange' } as const;

const branch = (
  tag: string,
  device: string,
  fuse: string,
  cable: string,
  lengthM: number,
  loadProfile: Profile,
  [lug, gland, studMm]: Ends = ['penhallow-c4-m5@1', 'wendmoor-g16s@1', 5],
) => ({
  tag,
  plug: cable.replace('marl-x', 'tarrowby-t'),
  loadProfile,
  install: 'free-air' as const,
  ambientC: 40,
  fuseAmbientC: 40,
  role: 'branch' as const,
  device,
  fuse,
  cable,
  lug,
  gland,
  studMm,
  lengthM,
  ends: 'interlocked' as const,
  ...screenedOrange,
});

const design: Design = {
  schema: 1,
  runs,
  hazards,
  zones,
  datums,
  cooling,
  loops,
  joins,
  plumbing,
  vehicle: {
    make: 'Wendlebury',
    model: 'Parish 24 mobile library',
    year: 1974,
    wheelbaseM: 4.2,
    lengthM: 7.6,
    frontOverhangM: 1.6,
    heightM: 2.9,
    wheelDiameterM: 0.86,
    frontKg: 2480,
    rearKg: 3520,
    frontLimitKg: 2900,
    rearLimitKg: 4800,
    grossLimitKg: 7500,
    whPerKmPerKg: 0.085,
    speedKmH: 60,
    rollingCoefficient: 0.0095,
    dragAreaM2: 4.6,
    drivetrainEfficiency: 0.86,
    accessoriesW: 1500,
    cabinHeatW: 3600,
    wantedRangeKm: 160,
    topSpeedKmH: 80,
    cycle: 'country',
  },
  pack: {
    socLowFraction: 0.1,
    socHighFraction: 0.9,
    socForPeakFraction: 0.3,
    peakCurrentA: 400,
    // Together with its cables and its disconnect 4 mΩ a string.
    linkResistanceOhm: 0.0003264,
    leads,
    sense: {
      'sense-all': { tag: 'Leads to the monitor', fused: 'tap', fuseA: 0.5, fuseV: 500 },
    },
    chargeA: 120,
    regenPeakA: 80,
    combinerBox: 'box-collector',
    mainsBox: 'box-collector',
    busbars: {
      'busbar-mains': {
        tag: 'Fuse to mains',
        circuit: 'circuit-main',
        widthMm: 30,
        thicknessMm: 3,
        betweenMm: 126,
        overhangMm: 17,
        holeMm: 8.4,
        flexMm: 40,
        coating: 'powder',
        ambientC: 45,
      },
    },
    balance: {
      school: 'top',
      targetV: 4.126,
      toleranceV: 0.004,
      bleedCurrentA: 0.4,
      bleedDutyFraction: 0.9,
      restHours: 12,
    },
  },
  settings: { zone: 'Europe/London', anchorG: 20, supplyV: 12 },
  masses: {
    'mass-engine': {
      tag: 'Diesel engine and gearbox',
      change: 'out',
      massKg: 640,
      xM: 0.35,
      zM: 0.8,
      lengthM: 1.4,
      heightM: 0.9,
    },
    'mass-radiator': {
      tag: 'Radiator and fan',
      change: 'out',
      massKg: 45,
      xM: 1.2,
      zM: 1.0,
      lengthM: 0.2,
      heightM: 0.8,
    },
    'mass-tank': {
      tag: 'Tank and exhaust',
      change: 'out',
      massKg: 150,
      xM: -2.6,
      zM: 0.6,
      lengthM: 1.2,
      heightM: 0.4,
    },
    'mass-shaft': {
      tag: 'Propeller shaft',
      change: 'out',
      massKg: 60,
      xM: -2.0,
      zM: 0.5,
      lengthM: 1.9,
      heightM: 0.15,
    },
    'mass-motor': {
      tag: 'Motor and reduction',
      change: 'in',
      massKg: 165,
      xM: -3.2,
      zM: 0.55,
      lengthM: 0.8,
      heightM: 0.5,
    },
    'mass-inverter': {
      tag: 'Inverter and DC-DC',
      change: 'in',
      massKg: 34,
      xM: -2.5,
      zM: 1.0,
      lengthM: 0.6,
      heightM: 0.3,
    },
    'mass-charger': {
      tag: 'Charger and inlet',
      change: 'in',
      massKg: 27,
      xM: 1.2,
      zM: 1.2,
      lengthM: 0.4,
      heightM: 0.3,
    },
    'mass-cables': {
      tag: 'Conduit, clips and short leads',
      change: 'in',
      massKg: 18,
      xM: -1.2,
      zM: 0.45,
      lengthM: 3.0,
      heightM: 0.1,
    },
  },
  parts: pinned([...pinnedKeys, ...coolingKeys, ...chargingKeys]),
  boxes: {
    'box-nose': {
      tag: 'Nose box',
      xM: 0.35,
      yM: 0,
      zM: 0.85,
      lengthM: 1.3,
      widthM: 0.75,
      heightM: 0.45,
      emptyKg: 38,
      liftPoints: 4,
      liftKg: 200,
      anchors: 8,
      anchorN: 9000,
      accessFrom: 'above',
      ...wrapped,
      vent: 'filtered',
      clearanceMm: 6,
      creepageMm: 6.2,
      lowVoltageGapMm: 12,
      lowVoltageCreepMm: 14,
    },
    'box-left': {
      tag: 'Floor box',
      xM: -1.3,
      yM: 0.55,
      zM: 0.62,
      lengthM: 1.5,
      widthM: 0.7,
      heightM: 0.4,
      emptyKg: 46,
      liftPoints: 4,
      liftKg: 300,
      anchors: 10,
      anchorN: 9000,
      accessFrom: 'side',
      ...wrapped,
      vent: 'filtered',
      clearanceMm: 6,
      creepageMm: 6.2,
      lowVoltageGapMm: 12,
      lowVoltageCreepMm: 14,
    },
    'box-tail': {
      tag: 'Tail box',
      xM: -4.9,
      yM: 0,
      zM: 0.72,
      lengthM: 1.3,
      widthM: 0.9,
      heightM: 0.4,
      emptyKg: 46,
      liftPoints: 4,
      liftKg: 300,
      anchors: 10,
      anchorN: 9000,
      accessFrom: 'below',
      ...wrapped,
      vent: 'filtered',
      clearanceMm: 6,
      creepageMm: 6.2,
      lowVoltageGapMm: 12,
      lowVoltageCreepMm: 14,
    },
    'box-collector': {
      tag: 'Collector box',
      xM: -2.5,
      yM: -0.6,
      zM: 0.72,
      lengthM: 0.6,
      widthM: 0.4,
      heightM: 0.25,
      emptyKg: 14,
      liftPoints: 0,
      anchors: 4,
      anchorN: 9000,
      accessFrom: 'side',
      vent: 'filtered',
      clearanceMm: 6,
      creepageMm: 6.2,
      lowVoltageGapMm: 12,
      lowVoltageCreepMm: 14,
    },
  },
  modules: Object.fromEntries(
    moduleRows.map(({ id, tag, box, plusSide }) => [id, { tag, part: 'brackwater-m12@1', box, plusSide }]),
  ),
  strings: {
    'string-1': {
      tag: 'S1',
      modules: moduleRows.filter(({ string }) => string === 'string-1').map(({ id }) => id),
      ...stringParts,
    },
    'string-2': {
      tag: 'S2',
      modules: moduleRows.filter(({ string }) => string === 'string-2').map(({ id }) => id),
      ...stringParts,
    },
  },
  devices: {
    'device-inverter': {
      tag: 'Inverter',
      kind: 'inverter',
      minV: 250,
      maxV: 450,
      busCapacitanceF: 0.0009,
      bleedOhm: 2000,
      regenMaxV: 394,
      derateBelowV: 316,
      cutBelowV: 304,
    },
    'device-charger': {
      tag: 'Charger, three-phase',
      kind: 'charger',
      minV: 300,
      maxV: 430,
      busCapacitanceF: 0.00022,
      isolation: 'isolated',
      ownCutOff: true,
      unattended: true,
      charger: 'thornwick-c11-350@1',
      maxOutputA: 31,
      endV: 396,
    },
    'device-dcdc': {
      tag: 'DC-DC to 24 V',
      kind: 'dc-dc',
      minV: 200,
      maxV: 430,
      busCapacitanceF: 0.00006,
      ...places['device-dcdc'],
    },
    'device-heater': {
      tag: 'Cabin heater',
      kind: 'heater',
      minV: 240,
      maxV: 430,
      busCapacitanceF: 0.000012,
      ratedPowerW: 5000,
      ratedVoltageV: 360,
      thermalCut: 'own contacts',
    },
    // Its part, its power and its place in the loop stand in the plumbing.
    'device-coolant-heater': {
      tag: 'Coolant heater',
      kind: 'heater',
      minV: 240,
      maxV: 430,
      busCapacitanceF: 0,
      thermalCut: 'own contacts',
    },
    'device-compressor': {
      tag: 'Compressor',
      ...places['device-compressor'],
      kind: 'compressor',
      minV: 220,
      maxV: 430,
      busCapacitanceF: 0.000047,
    },
    'device-inlet': {
      tag: 'DC inlet',
      kind: 'dc-inlet',
      minV: 200,
      maxV: 500,
      busCapacitanceF: 0,
      ...places['device-inlet'],
    },
    'device-monitor': {
      tag: 'Insulation monitor',
      kind: 'insulation-monitor',
      minV: 0,
      maxV: 450,
      busCapacitanceF: 0,
      insulationMonitor: 'active',
    },
  },
  circuits: {
    [mainCircuit]: {
      tag: 'Main',
      role: 'main',
      device: 'device-inverter',
      poles: 'both',
      ends: 'interlocked',
      contactor: 'hollin-k350@1',
      resistor: 'ember-82@1',
      prechargeContactor: 'hollin-k100@1',
      fuse: 'calderside-f350@1',
      cable: 'marl-x70@1',
      plug: 'tarrowby-t70@1',
      lug: 'penhallow-c70-m10@1',
      gland: 'wendmoor-g25s@1',
      studMm: 10,
      lengthM: 8.5,
      install: 'steel-conduit',
      conduitInnerMm: 46,
      conduitOuterMm: 50,
      ambientC: 40,
      grouped: 2,
      fuseAmbientC: 40,
      ...screenedOrange,
      wantedTimeS: 0.4,
      attemptsPerMinute: 0.5,
      loadProfile: [
        [12, 400],
        [60, 140],
        [90, 60],
        [20, -80],
      ],
    },
    'circuit-charger': branch(
      'Charger',
      'device-charger',
      'calderside-f63@1',
      'marl-x6@1',
      6.4,
      [[3600, 31]],
      ['penhallow-c6-m6@1', 'wendmoor-g16s@1', 6],
    ),
    'circuit-dcdc': branch('DC-DC', 'device-dcdc', 'calderside-f32@1', 'marl-x4@1', 1.6, [
      [60, 7],
      [240, 4],
    ]),
    'circuit-heater': branch('Heater', 'device-heater', 'calderside-f32@1', 'marl-x4@1', 5.2, [
      [600, 14],
      [300, 9],
    ]),
    'circuit-coolant-heater': branch(
      'Coolant heater',
      'device-coolant-heater',
      'calderside-f32@1',
      'marl-x4@1',
      2.4,
      [[3600, 11]],
    ),
    'circuit-compressor': branch('Compressor', 'device-compressor', 'calderside-f32@1', 'marl-x4@1', 4.8, [
      [120, 9],
      [60, 2],
    ]),
    'circuit-monitor': branch('Monitor', 'device-monitor', 'calderside-f32@1', 'marl-x4@1', 1.2, [
      [3600, 0.02],
    ]),
    'circuit-inlet': {
      ...branch(
        'DC inlet',
        'device-inlet',
        'calderside-f160@1',
        'marl-x35@1',
        7.1,
        [
          [2400, 120],
          [1200, 0],
        ],
        ['penhallow-c35-m8@1', 'wendmoor-g25s@1', 8],
      ),
      contactor: 'hollin-k200@1',
      poles: 'both',
    },
  },
  joints: busJoints,
  bonds: busBonds,
  supplies,
  inlets,
  cuts,
  cabin,
  limits,
  sensing,
  lowVoltage,
  loads,
  services,
  ends,
  bundles,
  adapters,
  colours,
  wires,
};

/** Each is tried by itself before there is high voltage. */
const branches = Object.keys(design.circuits).filter((id) => id !== mainCircuit);

/** The number of the entry by which the reels arrive: seeding refuses a cut off a reel that is none. */
const reelsSeq = 82 + 2 * branches.length + coolantEntries + laid.length;

/** What the meter said at intake, in the order of `moduleRows`. */
const intakeV = [
  44.71, 44.73, 44.69, 44.72, 44.7, 44.74, 44.71, 44.72, 44.68, 44.71, 44.73, 44.7, 44.72, 44.69, 44.71,
  44.73,
];

export const libraryBus: DemoJob = {
  id: 'job-demo-library-bus',
  name: 'Ashmarch County mobile library',
  design,
  story: () => [
    {
      at: '2026-10-26T08:10:00Z',
      by: technician,
      entry: {
        kind: 'position',
        stage: 'bench',
        remark: 'Modules on the bench.',
      },
    },
    ...crateArrives(moduleRows),
    ...moduleRows.slice(0, 12).map(({ id }, i) => ({
      at: `2026-10-26T09:${String(5 + i * 2).padStart(2, '0')}:00Z`,
      by: technician,
      entry: { kind: 'result' as const, step: `intake-voltage:${id}`, value: intakeV[i]!, instrument: meter },
    })),
    {
      at: '2026-10-26T09:31:00Z',
      by: technician,
      entry: {
        kind: 'result',
        step: 'intake-voltage:module-205',
        value: 4.472,
        instrument: meter,
        remark: 'Read out from across the shop.',
      },
    },
    {
      at: '2026-10-26T09:33:00Z',
      by: technician,
      entry: { kind: 'correction', ofLast: true, reason: 'Decimal point misread; measured again.' },
    },
    ...moduleRows.slice(12).map(({ id }, i) => ({
      at: `2026-10-26T09:${String(35 + i * 2).padStart(2, '0')}:00Z`,
      by: technician,
      entry: {
        kind: 'result' as const,
        step: `intake-voltage:${id}`,
        value: intakeV[12 + i]!,
        instrument: meter,
      },
    })),
    ...levelAtFull(moduleRows, 'module-208'),
    {
      at: '2026-10-29T16:20:00Z',
      by: designer,
      label: 'Traction cable 9.2 m instead of 8.5 m, after the dry fit',
      change: (draft) => {
        draft.circuits[mainCircuit]!.lengthM = 9.2;
      },
    },
    ...platesTested,
    {
      at: '2026-11-02T10:12:00Z',
      by: technician,
      entry: { kind: 'result', step: `precharge-resistor:${mainCircuit}`, value: 81.6, instrument: meter },
    },
    {
      at: '2026-11-02T10:40:00Z',
      by: technician,
      entry: { kind: 'result', step: 'bleed-resistance:bus', value: 1985, instrument: meter },
    },
    ...boxesTested,
    {
      at: '2026-11-05T14:05:00Z',
      by: technician,
      entry: {
        kind: 'position',
        stage: 'boxes',
        remark: 'Boxes in the bus, links out; nothing plugged.',
      },
    },
    {
      at: '2026-11-05T14:20:00Z',
      by: technician,
      entry: {
        kind: 'snag',
        what: 'Coil of the pre-charge contactor fed from a loose terminal block',
        gate: 'hand-over',
        subjects: [mainCircuit],
      },
    },
    ...laid,
    ...jointWalks(moduleRows.map(({ id }) => id)),
    { at: '2026-11-06T09:05:00Z', by: technician, entry: { kind: 'gate', gate: 'insulation', witness } },
    {
      at: '2026-11-06T09:15:00Z',
      by: technician,
      entry: { kind: 'result', step: 'insulation-negative:pack', value: 14.2, instrument: tester },
    },
    {
      at: '2026-11-06T09:25:00Z',
      by: technician,
      entry: {
        kind: 'result',
        step: 'insulation-positive:pack',
        value: 0.09,
        instrument: tester,
        remark: 'Falls while the voltage is on.',
      },
    },
    {
      at: '2026-11-06T11:40:00Z',
      by: technician,
      entry: {
        kind: 'deviation',
        ofStep: 'insulation-positive:pack',
        tried: 'Inverter, charger and DC-DC unplugged, tested again: no change.',
        cause: 'Electronics were not isolated from the tester',
        cured: false,
        subjects: [],
      },
    },
    {
      at: '2026-11-09T11:00:00Z',
      by: technician,
      entry: {
        kind: 'deviation',
        ofStep: 'insulation-positive:pack',
        tried: 'Tail box opened, dried; cable gland replaced.',
        cause: 'Moisture or coolant in Tail box',
        cured: true,
        subjects: ['box-tail', 'pack'],
      },
    },
    hoseAgain,
    { at: '2026-11-10T08:40:00Z', by: technician, entry: { kind: 'gate', gate: 'insulation', witness } },
    {
      at: '2026-11-10T08:50:00Z',
      by: technician,
      entry: { kind: 'result', step: 'insulation-negative:pack', value: 15.1, instrument: tester },
    },
    {
      at: '2026-11-10T09:00:00Z',
      by: technician,
      entry: { kind: 'result', step: 'insulation-positive:pack', value: 13.8, instrument: tester },
    },
    ...branches.map((id, i) => ({
      at: `2026-11-10T09:${String(8 + 4 * i).padStart(2, '0')}:00Z`,
      by: technician,
      entry: {
        kind: 'result' as const,
        step: `insulation-branch:${id}`,
        value: [61, 84, 47, 58, 52, 90, 73][i]!,
        instrument: tester,
      },
    })),
    {
      at: '2026-11-10T09:45:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'bond',
        currentA: 2,
        instrument: meter,
        joints: [{ joint: 'box-tail', value: 0.0032 }],
        remark: 'Tail box closed again.',
      },
    },
    ...tailTested,
    ...branches.map((id, i) => ({
      at: `2026-11-11T10:${String(5 + 5 * i).padStart(2, '0')}:00Z`,
      by: technician,
      entry: { kind: 'result' as const, step: `poles:${id}`, value: 0.2 + 0.1 * (i % 3), instrument: meter },
    })),
    {
      at: '2026-11-11T11:10:00Z',
      by: technician,
      entry: { kind: 'result', step: `coils:${mainCircuit}`, value: 0.81, instrument: meter },
    },
    {
      at: '2026-11-11T11:25:00Z',
      by: technician,
      entry: { kind: 'result', step: 'coils:circuit-inlet', value: 0.74, instrument: meter },
    },
    ...filled,
    {
      at: '2026-11-12T17:30:00Z',
      by: designer,
      entry: {
        kind: 'acceptance',
        rule: 'vehicle.range-short',
        reason:
          'The longest round of the route book is 96 km with a charge at the depot each night; agreed with the county.',
      },
    },
    { at: '2026-11-16T08:55:00Z', by: technician, entry: { kind: 'gate', gate: 'first-hv', witness } },
    {
      at: '2026-11-16T09:05:00Z',
      by: technician,
      entry: { kind: 'result', step: 'bus-dead:bus', value: 0.2, instrument: meter },
    },
    {
      at: '2026-11-16T09:20:00Z',
      by: technician,
      entry: {
        kind: 'position',
        stage: 'last-link',
        remark: 'Last link closed, second person present.',
      },
    },
    {
      at: '2026-11-16T09:32:00Z',
      by: technician,
      entry: { kind: 'result', step: 'polarity:pack', value: 357.6, instrument: meter },
    },
    {
      at: '2026-11-16T10:10:00Z',
      by: technician,
      entry: { kind: 'rise', step: `precharge-curve:${mainCircuit}`, seed: 20261116, instrument: scope },
    },
    ...startedAndStopped,
    {
      at: '2026-11-16T10:30:00Z',
      by: technician,
      entry: { kind: 'position', stage: 'locked-off' },
    },
    ...underLoad,
    {
      at: '2026-11-18T15:45:00Z',
      by: designer,
      label: 'Compressor exchanged for the larger one: 47 to 68 µF',
      change: (draft) => {
        draft.devices['device-compressor']!.busCapacitanceF = 0.000068;
        draft.devices['device-compressor']!.tag = 'Compressor, larger';
      },
    },
    {
      at: '2026-11-19T10:05:00Z',
      by: technician,
      entry: {
        kind: 'gate',
        gate: 'first-hv',
        alone: {
          replacedBy: ['remote watch', 'delay'],
          how: 'Ruan Pellory on the telephone with the camera on the bench; ten minutes between the steps.',
        },
      },
    },
    {
      at: '2026-11-19T10:15:00Z',
      by: technician,
      entry: { kind: 'result', step: `precharge-time:${mainCircuit}`, value: 0.452, instrument: scope },
    },
    // Three mistakes on purpose: the findings catch them, and the tour of the README shows them.
    {
      at: '2026-11-23T16:40:00Z',
      by: designer,
      label: 'Heater: a 160 A fuse from the drawer until the right one comes',
      change: (draft) => {
        draft.circuits['circuit-heater']!.fuse = 'calderside-f160@1';
      },
    },
    {
      at: '2026-11-24T09:10:00Z',
      by: designer,
      label: 'Start by a timer of 0.35 s: no input of the controller is free for the bus voltage',
      change: (draft) => {
        draft.circuits[mainCircuit]!.completion = 'timer';
        draft.circuits[mainCircuit]!.timerS = 0.35;
      },
    },
    {
      at: '2026-11-24T09:40:00Z',
      by: designer,
      label: 'Compressor: on the brackets that are there, along the brake line',
      change: (draft) => {
        for (const i of [2, 3]) draft.runs!['run-compressor']!.points![i]!.yM = -0.41;
      },
    },
    {
      at: '2026-11-24T09:55:00Z',
      by: technician,
      entry: {
        kind: 'result',
        step: 'run-near:run-compressor/hazard-brake',
        value: 51,
        instrument: rule,
        remark: 'As it lies on the old brackets; the drawing has less.',
      },
    },
    {
      at: '2026-11-24T10:05:00Z',
      by: technician,
      entry: {
        kind: 'arrival',
        items: [
          { part: 'marl-x35@1', serial: 'Drum 3', lengthM: 8.4 },
          { part: 'marl-x35@1', serial: 'Drum 5', lengthM: 3.6 },
          { part: 'marl-x4@1', serial: 'Drum 7', lengthM: 25 },
        ],
      },
    },
    {
      at: '2026-11-24T10:20:00Z',
      by: technician,
      entry: { kind: 'part-fitted', place: `circuits.${mainCircuit}.fuse`, serial: 'CF 4-20817' },
    },
    {
      at: '2026-11-24T10:24:00Z',
      by: technician,
      entry: { kind: 'part-fitted', place: `circuits.${mainCircuit}.contactor`, serial: 'HC 118-3342/43' },
    },
    {
      at: '2026-11-24T10:40:00Z',
      by: technician,
      entry: {
        kind: 'cable-cut',
        place: 'runs.run-compressor.cutLengthM',
        lengthM: 3.72,
        reel: arrivedId(reelsSeq, 2),
        count: 2,
      },
    },
    {
      at: '2026-11-24T10:55:00Z',
      by: technician,
      entry: { kind: 'cable-cut', place: 'runs.run-hose-tail.cutLengthM', lengthM: 4.2 },
    },
  ],
};
