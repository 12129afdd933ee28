import { mainCircuit, type BondItem, type Id, type JointItem } from '@torvek/core/document';
import { lugs } from './joints';
import { meter, technician, wrench } from './shop';
import type { StoryLine } from './story';

/** How the joints of demo A are made, how its bodies are bonded, and what the walks along them read. */

export const busJoints: Record<Id, JointItem> = {
  'joint-posts': {
    tag: 'Posts of the modules',
    on: 'modules',
    studMm: 8,
    boltClass: 'A2-70',
    torqueNm: 14,
    engagementMm: 11,
    threadIn: 'brass',
    face: 'nickel',
    otherFace: 'nickel',
    preparation: 'brushed',
    stack: ['post', 'bar', 'washer', 'spring', 'bolt'],
    retorqueDays: 90,
    limitOhm: 0.0002,
  },
  'joint-m5': lugs(5, 5, 6),
  'joint-m6': lugs(6, 9, 7),
  'joint-m8': lugs(8, 20, 9),
  'joint-m10': lugs(10, 38, 11),
  'joint-bars': {
    tag: 'Ends of the bars',
    on: 'bars',
    studMm: 8,
    boltClass: '8.8',
    torqueNm: 20,
    engagementMm: 9,
    threadIn: 'steel',
    face: 'tin',
    otherFace: 'tin',
    preparation: 'none',
    stack: ['bar', 'washer', 'spring', 'nut'],
    retorqueDays: 90,
  },
};

const strap = (lengthM: number): BondItem => ({ by: 'strap', areaMm2: 16, lengthM });

export const busBonds: Record<Id, BondItem> = {
  'box-nose': strap(0.3),
  'box-left': strap(0.4),
  'box-tail': strap(0.3),
  'box-collector': strap(0.25),
  'device-inverter': { by: 'bolted' },
  'device-charger': { by: 'bolted' },
  'device-dcdc': { by: 'bolted', to: 'device-charger' },
  'device-heater': { by: 'strap', areaMm2: 6, lengthM: 0.5 },
  'device-coolant-heater': { by: 'bolted' },
  'device-compressor': { by: 'bolted' },
  'device-inlet': { by: 'not-conductive' },
  'device-monitor': { by: 'not-conductive' },
  [mainCircuit]: { by: 'strap', areaMm2: 16, lengthM: 0.2 },
  'circuit-inlet': { by: 'strap', areaMm2: 16, lengthM: 0.2 },
  'circuit-compressor': { by: 'bolted' },
};

/** Drops over the posts of a box at 60 A, V: all alike but one. */
const postDropV = (i: number) => (i === 13 ? 0.0094 : 0.0021 + 0.0003 * Math.sin(i * 2.3));

/** What the lugs of each cable are torqued with, N·m. */
const cableEnds: [circuit: Id, torqueNm: number][] = [
  [mainCircuit, 38],
  ['circuit-charger', 9],
  ['circuit-dcdc', 5],
  ['circuit-heater', 5],
  ['circuit-coolant-heater', 5],
  ['circuit-compressor', 5],
  ['circuit-monitor', 5],
  ['circuit-inlet', 20],
];

/** The modules’ posts are torqued, then read; then the lugs of the cables, the bars and the bonds. */
export const jointWalks = (modules: readonly Id[]): StoryLine[] => {
  const posts = modules.flatMap((id) => [`${id}/minus`, `${id}/plus`]);
  return [
    {
      at: '2026-11-05T15:30:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'torque',
        instrument: wrench,
        joints: posts.map((joint) => ({ joint, value: 14 })),
        remark: 'Marked in white.',
      },
    },
    {
      at: '2026-11-05T16:20:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'drop',
        currentA: 60,
        instrument: meter,
        joints: posts.map((joint, i) => ({ joint, value: Number(postDropV(i).toFixed(5)) })),
        remark: 'Bench supply through each box, links of neighbouring boxes out.',
      },
    },
    {
      at: '2026-11-05T17:05:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'torque',
        instrument: wrench,
        joints: cableEnds.flatMap(([circuit, torqueNm]) =>
          ['source-plus', 'source-minus', 'device-plus', 'device-minus'].map((role) => ({
            joint: `${circuit}/${role}`,
            value: torqueNm,
          })),
        ),
      },
    },
    {
      at: '2026-11-05T17:20:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'torque',
        instrument: wrench,
        joints: ['a', 'b'].map((end) => ({ joint: `busbar-mains/${end}`, value: 20 })),
      },
    },
    {
      at: '2026-11-06T08:40:00Z',
      by: technician,
      entry: {
        kind: 'joints',
        work: 'bond',
        currentA: 2,
        instrument: meter,
        joints: [
          ['box-nose', 0.0034],
          ['box-left', 0.0046],
          ['box-tail', 0.0031],
          ['box-collector', 0.0029],
          ['device-inverter', 0.0012],
          ['device-charger', 0.0011],
          ['device-dcdc', 0.0023],
          ['device-heater', 0.0052],
          ['device-coolant-heater', 0.0016],
          ['device-compressor', 0.0012],
          [mainCircuit, 0.0014],
          ['circuit-inlet', 0.0019],
          ['circuit-compressor', 0.0027],
        ].map(([joint, value]) => ({ joint: joint as string, value: value as number })),
      },
    },
  ];
};
