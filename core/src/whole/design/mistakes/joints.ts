import { firstBox, main, mend, note, stop, unchecked, type Mistake } from './mistake';
import type { Design } from '../../../model/document';

const posts = (d: Design) => d.joints!['joint-posts']!;
const lugs = (d: Design) => d.joints![`joint-m${main(d).studMm}`]!;
const lugKind = (d: Design) => `joint-m${main(d).studMm}`;
const charger = (d: Design) => Object.keys(d.devices).find((id) => d.devices[id]!.kind === 'charger');

/** Joints, bonds, charging: what is screwed, held at the chassis, and parted from the mains. */
export const jointMistakes: Mistake[] = [
  stop('a torque that stretches the thread', 'joint-posts', (d) => (posts(d).torqueNm! *= 4)),
  mend('a torque that clamps nothing', 'joint-posts', (d) => (posts(d).torqueNm = 0.8)),
  mend('lugs torqued with two fingers', lugKind, (d) => (lugs(d).torqueNm = 0.5)),
  stop('lugs torqued with a bar', lugKind, (d) => (lugs(d).torqueNm = 300)),
  mend('a bolt two threads in', 'joint-posts', (d) => (posts(d).engagementMm = 2)),
  mend('aluminium on copper', lugKind, (d) =>
    Object.assign(lugs(d), { face: 'aluminium', otherFace: 'copper' }),
  ),
  mend('bare aluminium as it is', 'joint-posts', (d) =>
    Object.assign(posts(d), { face: 'aluminium', otherFace: 'aluminium', preparation: 'none' }),
  ),
  stop('a washer under the lug', lugKind, (d) => (lugs(d).stack = ['bar', 'washer', 'lug', 'nut'])),
  note('a spring washer on copper', lugKind, (d) =>
    Object.assign(lugs(d), { stack: ['bar', 'lug', 'spring', 'nut'], face: 'copper', otherFace: 'copper' }),
  ),
  note('soldered crimps', lugKind, (d) => (lugs(d).crimp = 'crimp-solder')),
  unchecked('no day to torque again', 'joints.joint-posts.retorqueDays', (d) => delete posts(d).retorqueDays),
  note('joints nobody described', 'all', (d) => delete d.joints![lugKind(d)]),
  mend('faces said to be silver on tinned lugs', lugKind, (d) =>
    Object.assign(lugs(d), { face: 'silver', otherFace: 'silver' }),
  ),
  mend('a stud that is not in the table', 'joint-posts', (d) => (posts(d).studMm = 7)),
  unchecked('a torque nobody chose', 'joints.joint-posts.torqueNm', (d) => delete posts(d).torqueNm),
  unchecked('a bolt of no class', 'joints.joint-posts.boltClass', (d) => delete posts(d).boltClass),
  mend('a box without a bond', firstBox, (d) => (d.bonds![firstBox(d)] = { by: 'none' })),
  mend(
    'an inverter without a bond',
    'device-inverter',
    (d) => (d.bonds!['device-inverter'] = { by: 'none' }),
  ),
  mend(
    'a bond of a thin wire over metres',
    firstBox,
    (d) => (d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 0.35, lengthM: 6 }),
  ),
  mend(
    'a bond that melts before the fuse',
    firstBox,
    (d) => (d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 0.5, lengthM: 0.3 }),
  ),
  mend(
    'a bond to nothing',
    firstBox,
    (d) => (d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 16, lengthM: 0.3, to: 'box-gone' }),
  ),
  mend('bonds in a circle', firstBox, (d) => {
    d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 16, lengthM: 0.3, to: 'device-inverter' };
    d.bonds!['device-inverter'] = { by: 'strap', areaMm2: 16, lengthM: 0.3, to: firstBox(d) };
  }),
  mend(
    'a bond to itself',
    firstBox,
    (d) => (d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 16, lengthM: 0.3, to: firstBox(d) }),
  ),
  unchecked('a steel conduit without a bond', 'bonds.circuit-main.by', (d) =>
    Object.assign(main(d), { install: 'steel-conduit', conduitInnerMm: 60, conduitOuterMm: 66 }),
  ),
  unchecked(
    'a strap nobody measured',
    (d) => `bonds.${firstBox(d)}.lengthM`,
    (d) => (d.bonds![firstBox(d)] = { by: 'strap', areaMm2: 16 }),
  ),
  stop(
    'a charger not parted from the mains',
    (d) => charger(d)!,
    (d) => charger(d) !== undefined && (d.devices[charger(d)!]!.isolation = 'none'),
  ),
  stop(
    'a charger that never ends by itself',
    (d) => charger(d)!,
    (d) => charger(d) !== undefined && (d.devices[charger(d)!]!.ownCutOff = false),
  ),
  mend('sense leads in sleeves that look like high voltage', 'sense', (d) =>
    Object.assign(d.settings, { senseMarking: 'sleeve', sleeveColour: 'orange' }),
  ),
  mend('two active insulation monitors', 'bus', (d) => {
    for (const id of Object.keys(d.devices).slice(0, 2)) d.devices[id]!.insulationMonitor = 'active';
  }),
];
