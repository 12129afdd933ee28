import { lugs } from './joints';
import { mainCircuit, type Design } from '@torvek/core/document';
import { cellsArrive } from './loose-cells';
import { levelAtEmpty } from './levelling';
import { orchardHazards, orchardOpenings, orchardPlaces, orchardRuns } from './orchard-routes';
import { orchardCharging, orchardKeys } from './orchard-charging';
import { pinned } from './pinned';
import { designer, meter, technician, witness } from './shop';
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
    // An open cab.
    cabinHeatW: 0,
    wantedRangeKm: 60,
    topSpeedKmH: 30,
    cycle: 'hill',
  },
  pack: {
    socLowFraction: 0.1,
    socHighFraction: 0.95,
    socForPeakFraction: 0.3,
    peakCurrentA: 220,
    // With its disconnect 2.2 mΩ.
    linkResistanceOhm: 0.00205,
    sense: { 'sense-all': { tag: 'Leads to the monitor', fused: 'tap', fuseA: 1, fuseV: 250 } },
    chargeA: 26,
    regenPeakA: 40,
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
  settings: { zone: 'Europe/London', anchorG: 10, supplyV: 12 },
  cooling: {
    school: 'no liquid',
    hotC: 30,
    coldC: -8,
    hillGradeFraction: 0.08,
    hillSpeedKmH: 15,
    repeats: 2,
    startC: 18,
  },
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
    ...orchardKeys,
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
    'hollin-l100@1',
    'mosswick-h300@1',
    'tarrowby-t70@1',
    'tarrowby-t10@1',
    'tarrowby-t4@1',
    'emberley-m150@1',
  ]),
  boxes: {
    'box-seat': {
      tag: 'Box under the seat',
      // Passive: foam all round, a mat under the cells.
      walls: [
        { thicknessMm: 20, conductivityWPerMK: 0.034 },
        { thicknessMm: 3, conductivityWPerMK: 160 },
      ],
      ventTo: 'outside',
      heater: 'emberley-m150@1',
      heaterVoltage: 'pack',
      heaterDevice: 'device-mat',
      xM: -0.62,
      yM: 0,
      zM: 0.62,
      lengthM: 0.78,
      widthM: 0.6,
      heightM: 0.3,
      emptyKg: 24,
      liftPoints: 4,
      liftKg: 150,
      anchors: 6,
      anchorN: 6000,
      accessFrom: 'above',
      vent: 'filtered',
      clearanceMm: 4,
      creepageMm: 4,
      lowVoltageGapMm: 10,
      lowVoltageCreepMm: 10,
      linkPitchMm: 56,
    },
  },
  modules: Object.fromEntries(
    cells.map(({ id, tag }, i): [string, Design['modules'][string]] => [
      id,
      { tag, part: 'oakmere-lf160@1', box: 'box-seat', plusSide: i % 2 === 0 ? 'left' : 'right' },
    ]),
  ),
  strings: {
    'string-1': {
      tag: 'S1',
      modules: cells.map(({ id }) => id),
      disconnectAt: 18,
      disconnect: 'mosswick-h300@1',
      ends: 'interlocked',
    },
  },
  devices: {
    'device-inverter': {
      ...orchardPlaces['device-inverter'],
      tag: 'Inverter',
      kind: 'inverter',
      minV: 80,
      maxV: 150,
      busCapacitanceF: 0.0042,
      bleedOhm: 1200,
      regenMaxV: 127,
      derateBelowV: 104,
      cutBelowV: 99,
    },
    'device-charger': {
      ...orchardPlaces['device-charger'],
      tag: 'Charger, single-phase',
      kind: 'charger',
      minV: 84,
      maxV: 145,
      busCapacitanceF: 0.00033,
      isolation: 'isolated',
      ownCutOff: true,
      unattended: true,
      charger: 'thornwick-c3-100@1',
      maxOutputA: 26,
      endV: 129.6,
    },
    // The mat under the cells; its part stands in the box.
    'device-mat': {
      tag: 'Mat under the cells',
      kind: 'heater',
      minV: 85,
      maxV: 132,
      busCapacitanceF: 0,
      thermalCut: 'own contacts',
    },
  },
  circuits: {
    [mainCircuit]: {
      tag: 'Main',
      role: 'main',
      device: 'device-inverter',
      contactor: 'hollin-k350@1',
      poles: 'both',
      resistor: 'ember-47@1',
      prechargeContactor: 'hollin-l100@1',
      fuse: 'calderside-f350@1',
      cable: 'marl-x70@1',
      plug: 'tarrowby-t70@1',
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
      plug: 'tarrowby-t10@1',
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
    'circuit-mat': {
      tag: 'Mat',
      role: 'branch',
      device: 'device-mat',
      fuse: 'calderside-f32@1',
      cable: 'marl-x4@1',
      plug: 'tarrowby-t4@1',
      lug: 'penhallow-c4-m5@1',
      gland: 'wendmoor-g16s@1',
      studMm: 5,
      lengthM: 0.7,
      ends: 'interlocked',
      ambientC: 35,
      fuseAmbientC: 35,
      ...orange,
      loadProfile: [[7200, 1.5]],
    },
  },
  ...orchardCharging,
  runs: orchardRuns,
  hazards: orchardHazards,
  openings: orchardOpenings,
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
    'circuit-main': { by: 'strap', areaMm2: 16, lengthM: 0.2 },
    'device-inverter': { by: 'bolted' },
    'device-charger': { by: 'bolted' },
    'device-mat': { by: 'not-conductive' },
  },
};

const intakeV = [3.287, 3.291, 3.288, 3.29, 3.286, 3.289];

/** Twelve cells against the reference, two neighbours exchanged if so. */
const ladder = (swapped: [number, number] | null): number[] => {
  const taps = Array.from({ length: 12 }, (_, i) => Math.round((i + 1) * 3.289 * 1000) / 1000);
  if (swapped === null) return taps;
  const [a, b] = swapped.map((one) => one - 1) as [number, number];
  [taps[a], taps[b]] = [taps[b]!, taps[a]!];
  return taps;
};

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
      ...cellsArrive(cells, (minutes) => at(16, 8, 25 + minutes)),
      ...intakeV.map((value, i) => ({
        at: at(16, 9, 30 + 2 * i),
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
      { at: at(11, 9, 0), by: technician, entry: { kind: 'gate', gate: 'sense', witness } },
      // Two taps of the first plug are exchanged: found before it went in, cured, read again.
      {
        at: at(11, 9, 10),
        by: technician,
        entry: { kind: 'ladder', step: 'sense-ladder:board-1', taps: ladder([5, 6]), instrument: meter },
      },
      {
        at: at(11, 9, 40),
        by: technician,
        entry: {
          kind: 'deviation',
          ofStep: 'sense-ladder:board-1',
          tried: 'Pins 6 and 7 of the plug pushed out and put back the other way round.',
          cause: 'Two wires crimped in the wrong order',
          cured: true,
          subjects: ['board-1'],
        },
      },
      {
        at: at(11, 9, 55),
        by: technician,
        entry: { kind: 'ladder', step: 'sense-ladder:board-1', taps: ladder(null), instrument: meter },
      },
      // On the bench the master restarts by itself: half of what may be the cause goes out of the way, then half of the rest.
      ...(
        [
          [[], 5, 4],
          [['observer', 'supply', 'ground', 'output', 'link:board-1/board-2', 'link:board-2/board-3'], 4, 0],
          [['observer', 'supply', 'ground'], 3, 2],
        ] as [string[], number, number][]
      ).map(([out, starts, restarts], i) => ({
        at: at(10, 8, 30 + 20 * i),
        by: technician,
        entry: { kind: 'hunt-try' as const, begins: i === 0, out, starts, restarts },
      })),
      ...levelAtEmpty(cells, now),
    ];
  },
};
