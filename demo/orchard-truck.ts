import { lugs } from './joints';
import { mainCircuit, type Design } from '@torvek/core/document';
import { levelAtEmpty } from './levelling';
import { pinned } from './pinned';
import { designer, meter, technician } from './shop';
import type { DemoJob } from './story';

/** Demo B: an orchard utility truck, 36 LFP cells in one box, about 115 V, air-cooled, single-phase. All invented. */

const cells = Array.from({ length: 36 }, (_, i) => ({
  id: `module-c${String(i + 1).padStart(2, '0')}`,
  tag: `C${String(i + 1).padStart(2, '0')}`,
}));

/** The cables lie under the seat: no screens, all orange. */
const orange = { screened: false, sheath: 'orange' } as const;

const design: Design = {
  schema: 1,
  vehicle: {
    make: 'Hethpool',
    model: 'Rowman orchard truck',
    year: 1991,
    wheelbaseM: 2.05,
    lengthM: 3.35,
    frontOverhangM: 0.55,
    heightM: 1.75,
    wheelDiameterM: 0.56,
    frontKg: 430,
    rearKg: 390,
    frontLimitKg: 700,
    rearLimitKg: 1100,
    grossLimitKg: 1700,
    whPerKmPerKg: 0.11,
    speedKmH: 22,
    rollingCoefficient: 0.022,
    dragAreaM2: 1.5,
    drivetrainEfficiency: 0.8,
    accessoriesW: 180,
    wantedRangeKm: 60,
    topSpeedKmH: 30,
    cycle: 'hill',
  },
  pack: {
    socLowFraction: 0.1,
    socHighFraction: 0.95,
    socForPeakFraction: 0.3,
    peakCurrentA: 220,
    linkResistanceOhm: 0.0022,
    balance: {
      school: 'bottom',
      targetV: 2.9,
      toleranceV: 0.02,
      bleedCurrentA: 0,
      loadOhm: 0.1,
      cutOffV: 2.7,
      engageV: 2.85,
      drawHours: 4,
      restHours: 72,
      benches: 4,
      people: 1,
      handMinutes: 5,
      dayFromH: 8,
      dayToH: 18,
      weekends: true,
    },
  },
  settings: { zone: 'Europe/London', anchorG: 10 },
  masses: {
    'mass-engine': {
      tag: 'Petrol engine and clutch',
      change: 'out',
      massKg: 118,
      xM: -0.55,
      zM: 0.55,
      lengthM: 0.6,
      heightM: 0.55,
    },
    'mass-tank': {
      tag: 'Tank and exhaust',
      change: 'out',
      massKg: 31,
      xM: -1.3,
      zM: 0.45,
      lengthM: 0.5,
      heightM: 0.25,
    },
    'mass-motor': {
      tag: 'Motor and adapter',
      change: 'in',
      massKg: 52,
      xM: -0.75,
      zM: 0.5,
      lengthM: 0.4,
      heightM: 0.3,
    },
    'mass-inverter': {
      tag: 'Inverter and charger',
      change: 'in',
      massKg: 21,
      xM: -0.2,
      zM: 0.8,
      lengthM: 0.35,
      heightM: 0.2,
    },
  },
  parts: pinned([
    'oakmere-lf160@1',
    'hollin-k350@1',
    'ember-47@1',
    'calderside-f350@1',
    'calderside-f63@1',
    'calderside-f32@1',
    'marl-x70@1',
    'marl-x10@1',
    'marl-x4@1',
    'penhallow-c70-m10@1',
    'penhallow-c10-m6@1',
    'penhallow-c4-m5@1',
    'wendmoor-g25s@1',
    'wendmoor-g16s@1',
  ]),
  boxes: {
    'box-seat': {
      tag: 'Box under the seat',
      xM: -0.62,
      yM: 0,
      zM: 0.62,
      lengthM: 0.78,
      widthM: 0.6,
      heightM: 0.3,
      emptyKg: 24,
      anchors: 6,
      anchorN: 6000,
      accessFrom: 'above',
      vent: 'filtered',
      clearanceMm: 4,
      creepageMm: 4,
      linkPitchMm: 56,
    },
  },
  modules: Object.fromEntries(
    cells.map(({ id, tag }) => [id, { tag, part: 'oakmere-lf160@1', box: 'box-seat' }]),
  ),
  strings: {
    'string-1': {
      tag: 'S1',
      modules: cells.map(({ id }) => id),
      disconnectAt: 18,
      ends: 'interlocked',
    },
  },
  devices: {
    'device-inverter': {
      tag: 'Inverter',
      kind: 'inverter',
      minV: 80,
      maxV: 150,
      busCapacitanceF: 0.0042,
      bleedOhm: 1200,
    },
    'device-charger': {
      tag: 'Charger, single-phase',
      kind: 'charger',
      minV: 84,
      maxV: 145,
      busCapacitanceF: 0.00033,
      isolation: 'isolated',
      ownCutOff: true,
      unattended: true,
    },
    'device-dcdc': { tag: 'DC-DC to 12 V', kind: 'dc-dc', minV: 72, maxV: 150, busCapacitanceF: 0.00012 },
  },
  circuits: {
    [mainCircuit]: {
      tag: 'Main',
      role: 'main',
      device: 'device-inverter',
      contactor: 'hollin-k350@1',
      poles: 'both',
      resistor: 'ember-47@1',
      fuse: 'calderside-f350@1',
      cable: 'marl-x70@1',
      lug: 'penhallow-c70-m10@1',
      gland: 'wendmoor-g25s@1',
      studMm: 10,
      lengthM: 1.6,
      install: 'free-air',
      ambientC: 35,
      fuseAmbientC: 35,
      wantedTimeS: 1,
      attemptsPerMinute: 1,
      ends: 'interlocked',
      ...orange,
      loadProfile: [
        [15, 200],
        [120, 75],
        [30, -30],
        [90, 45],
      ],
    },
    'circuit-charger': {
      tag: 'Charger',
      role: 'branch',
      device: 'device-charger',
      fuse: 'calderside-f63@1',
      cable: 'marl-x10@1',
      lug: 'penhallow-c10-m6@1',
      gland: 'wendmoor-g16s@1',
      studMm: 6,
      lengthM: 0.9,
      ends: 'interlocked',
      ambientC: 35,
      fuseAmbientC: 35,
      ...orange,
      loadProfile: [[7200, 26]],
    },
    'circuit-dcdc': {
      tag: 'DC-DC',
      role: 'branch',
      device: 'device-dcdc',
      fuse: 'calderside-f32@1',
      cable: 'marl-x4@1',
      lug: 'penhallow-c4-m5@1',
      gland: 'wendmoor-g16s@1',
      studMm: 5,
      lengthM: 0.7,
      ends: 'interlocked',
      ambientC: 35,
      fuseAmbientC: 35,
      ...orange,
      loadProfile: [
        [60, 12],
        [240, 5],
      ],
    },
  },
  joints: {
    'joint-posts': {
      tag: 'Posts of the cells',
      on: 'modules',
      studMm: 6,
      boltClass: 'A2-70',
      torqueNm: 8,
      engagementMm: 10,
      threadIn: 'aluminium',
      face: 'aluminium',
      otherFace: 'tin',
      preparation: 'brushed-paste',
      stack: ['post', 'bar', 'washer', 'spring', 'bolt'],
      retorqueDays: 60,
    },
    'joint-m5': lugs(5, 5, 6),
    'joint-m6': lugs(6, 9, 7),
    'joint-m10': lugs(10, 38, 11),
  },
  bonds: {
    'box-seat': { by: 'strap', areaMm2: 16, lengthM: 0.25 },
    'device-inverter': { by: 'bolted' },
    'device-charger': { by: 'bolted' },
    'device-dcdc': { by: 'bolted' },
  },
};

const intakeV = [3.287, 3.291, 3.288, 3.29, 3.286, 3.289];

export const orchardTruck: DemoJob = {
  id: 'job-demo-orchard-truck',
  name: 'Pomfrey Hill orchard truck',
  design,
  story: (now) => {
    const at = (days: number, hours: number, minutes = 0) =>
      new Date(
        Math.floor(now.getTime() / 86.4e6 - days) * 86.4e6 + (hours * 60 + minutes) * 60_000,
      ).toISOString();
    return [
      {
        at: at(16, 8, 20),
        by: technician,
        entry: { kind: 'position', stage: 'bench', remark: 'Cells in their crates.' },
      },
      ...intakeV.map((value, i) => ({
        at: at(16, 8, 30 + 2 * i),
        by: technician,
        entry: { kind: 'result' as const, step: `intake-voltage:${cells[i]!.id}`, value, instrument: meter },
      })),
      {
        at: at(12, 9, 10),
        by: designer,
        label: 'Link pitch 57 mm: the new links are wider',
        change: (draft) => {
          draft.boxes['box-seat']!.linkPitchMm = 57;
        },
      },
      ...levelAtEmpty(cells, now),
    ];
  },
};
