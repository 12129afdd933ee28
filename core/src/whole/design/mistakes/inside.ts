import { mainCircuit, type Design, type LeadItem, type SenseLeads } from '../../../model/document';
import type { ContactorData, DisconnectData, PlugData } from '../../../model/parts';
import {
  absent,
  anotherOf,
  branch,
  branchId,
  firstBox,
  firstString,
  firstStringId,
  isHigh,
  lastBox,
  main,
  mend,
  moduleData,
  note,
  partAt,
  pinned,
  severalStrings,
  stop,
  unchecked,
  type Mistake,
} from './mistake';

const disconnect = (d: Design, write: (data: DisconnectData) => unknown) =>
  (firstString(d).disconnect = anotherOf(d, 'disconnect', firstString(d).disconnect, (data) => {
    write(data);
  }));
const plug = (d: Design, write: (data: PlugData) => unknown) =>
  (main(d).plug = anotherOf(d, 'plug', main(d).plug, (data) => {
    write(data);
  }));
const precharge = (d: Design, write: (data: ContactorData) => unknown) =>
  (main(d).prechargeContactor = anotherOf(d, 'contactor', main(d).prechargeContactor, (data) => {
    write(data);
  }));
const sense = (d: Design, is: Partial<SenseLeads>) => Object.assign(d.pack.sense!['sense-all']!, is);

/** A cable from box to box as it should be, with what is wrong about it; none where there is one box. */
const lead = (d: Design, is: Partial<LeadItem>) => {
  if (firstBox(d) === lastBox(d)) return absent;
  const areaMm2 = partAt(d, 'cable', main(d).cable).areaMm2;
  d.pack.leads = {
    ...d.pack.leads,
    'lead-x': {
      tag: 'Box to box',
      string: firstStringId(d),
      joint: 1,
      cable: main(d).cable!,
      lengthM: 2,
      ambientC: 35,
      grouped: 1,
      lug: main(d).lug!,
      gland: main(d).gland!,
      studMm: main(d).studMm!,
      ...is,
    },
  };
  return areaMm2 > 0;
};

/** What lies inside the pack and between its parts: cables, disconnects, plugs, sense leads, posts; what flows into it. */
export const insideMistakes: Mistake[] = [
  // The service disconnect.
  stop('a service disconnect for 40 V', firstStringId, (d) =>
    disconnect(d, (data) => (data.ratedVoltageV = 40)),
  ),
  mend('a service disconnect that does not carry the load', firstStringId, (d) =>
    disconnect(d, (data) => (data.continuousA = 20)),
  ),
  mend('a service disconnect that can be pulled under load', firstStringId, (d) =>
    disconnect(d, (data) => Object.assign(data, { interlock: false, breakA: 0 })),
  ),
  mend(
    'a service disconnect into which a finger goes',
    firstStringId,
    (d) => isHigh(d) && disconnect(d, (data) => (data.fingerproof = false)),
  ),
  unchecked(
    'a service disconnect nobody chose',
    (d) => `strings.${firstStringId(d)}.disconnect`,
    (d) => delete firstString(d).disconnect,
  ),
  mend(
    'a disconnect in ohms',
    (d) => firstString(d).disconnect!.replace('@1', '-x@1'),
    (d) => disconnect(d, (data) => (data.contactOhm = 0.2)),
  ),
  // Plugs.
  stop('a plug for 40 V', mainCircuit, (d) => plug(d, (data) => (data.ratedVoltageV = 40))),
  mend('a plug that does not carry the load', mainCircuit, (d) => plug(d, (data) => (data.continuousA = 10))),
  mend('a plug for another conductor', mainCircuit, (d) => plug(d, (data) => (data.areaMm2 *= 0.5))),
  mend('a plug that softens at the heat of the conductor', mainCircuit, (d) =>
    plug(d, (data) => (data.maxC = 20)),
  ),
  mend('a plug of plastic at the end of a screen', mainCircuit, (d) =>
    plug(d, (data) => (data.screenContact = false)),
  ),
  mend('a plug without the interlock that is relied on', mainCircuit, (d) =>
    plug(d, (data) => (data.interlock = false)),
  ),
  mend(
    'a plug into which a finger goes',
    mainCircuit,
    (d) => isHigh(d) && plug(d, (data) => (data.fingerproof = false)),
  ),
  unchecked('a plug nobody chose', `circuits.${mainCircuit}.plug`, (d) => delete main(d).plug),
  stop('a plug for 40 V at a branch', branchId, (d) => {
    branch(d).plug = anotherOf(d, 'plug', branch(d).plug, (data) => (data.ratedVoltageV = 40));
  }),
  // The pre-charge contactor, and the supply of all coils.
  stop('a pre-charge contactor for 30 V', mainCircuit, (d) =>
    precharge(d, (data) => (data.ratedVoltageV = 30)),
  ),
  mend('a pre-charge contactor that does not make the first moment', mainCircuit, (d) =>
    precharge(d, (data) => (data.makeA = 0.5)),
  ),
  mend('a pre-charge contactor that does not break a start on a short', mainCircuit, (d) =>
    precharge(d, (data) => (data.breakA = 0.5)),
  ),
  stop('a pre-charge contactor that does not pull in when it is cold', mainCircuit, (d) =>
    precharge(d, (data) => (data.pullInV = 11)),
  ),
  unchecked(
    'a pre-charge contactor nobody chose',
    `circuits.${mainCircuit}.prechargeContactor`,
    (d) => delete main(d).prechargeContactor,
  ),
  mend('coils for 12 V on a supply of 24 V', mainCircuit, (d) => (d.settings.supplyV = 24)),
  mend(
    'coils of the strings for 12 V on a supply of 24 V',
    firstStringId,
    (d) => firstString(d).contactor !== undefined && (d.settings.supplyV = 24),
  ),
  mend('coils for 24 V of which nothing more is known, on 12 V', mainCircuit, (d) => {
    main(d).contactor = anotherOf(d, 'contactor', main(d).contactor, (data) => {
      data.coilV = 24;
      delete data.pullInV;
    });
  }),
  // Fuses: their pole, and the wire to them.
  mend('a branch fuse in the other pole', branchId, (d) => (branch(d).fusePole = 'minus')),
  mend('the main fuse in the other pole', branchId, (d) => (main(d).fusePole = 'minus')),
  mend('a thin wire from the tap to a fuse that is far away', branchId, (d) =>
    Object.assign(branch(d), { tapLengthM: 1.2, tapAreaMm2: 1 }),
  ),
  unchecked(
    'a long wire to a fuse, of which nobody knows how thick it is',
    (d) => `circuits.${branchId(d)}.tapAreaMm2`,
    (d) => (branch(d).tapLengthM = 1.2),
  ),
  // Cables inside the pack.
  stop('a thin cable from box to box', 'lead-x', (d) =>
    lead(d, {
      cable: pinned(d, 'cable', 'marl-x2-5'),
      lug: pinned(d, 'lug', 'penhallow-c2-5-m5'),
      studMm: 5,
    }),
  ),
  mend('a cable from box to box that burns before the fuse', 'lead-x', (d) =>
    lead(d, { cable: pinned(d, 'cable', 'marl-x4'), lug: pinned(d, 'lug', 'penhallow-c4-m5'), studMm: 5 }),
  ),
  mend('a lug for another cable, box to box', 'lead-x', (d) =>
    lead(d, { lug: pinned(d, 'lug', 'penhallow-c6-m6'), studMm: 6 }),
  ),
  mend('a lug for another stud, box to box', 'lead-x', (d) => lead(d, { studMm: main(d).studMm! + 2 })),
  mend('a gland for another cable, box to box', 'lead-x', (d) =>
    lead(d, {
      gland: anotherOf(d, 'gland', main(d).gland, (data) =>
        Object.assign(data, { clampMinMm: 2, clampMaxMm: 4 }),
      ),
    }),
  ),
  mend('a conduit too small, box to box', 'lead-x', (d) =>
    lead(d, { install: 'steel-conduit', conduitInnerMm: 12, conduitOuterMm: 16 }),
  ),
  mend('a cable at a joint that is not there', 'lead-x', (d) => lead(d, { joint: 40 })),
  mend('a cable of the pack in millimetres', 'lead-x', (d) => lead(d, { lengthM: 2000 })),
  mend('a cable of the pack in the heat of an exhaust', 'lead-x', (d) => lead(d, { ambientC: 140 })),
  mend(
    'a cable of the pack that no fuse protects',
    'lead-x',
    (d) =>
      !severalStrings(d) &&
      lead(d, {}) !== absent &&
      delete main(d).fuse &&
      (delete firstString(d).fuse || true),
  ),
  unchecked('a cable of the pack without a length', 'pack.leads.lead-x.lengthM', (d) => {
    if (lead(d, {}) === absent) return absent;
    return delete d.pack.leads!['lead-x']!.lengthM;
  }),
  note('a cable from box to box that nobody describes', 'pack', (d) => {
    if (d.pack.leads === undefined) return absent;
    d.pack.leads = {};
    return true;
  }),
  // Sense leads.
  mend('sense leads without fuses', 'sense-all', (d) => sense(d, { fused: 'none' })),
  note('sense leads fused at the monitor', 'sense-all', (d) => sense(d, { fused: 'monitor' })),
  mend('sense fuses for cell voltage', 'sense-all', (d) => sense(d, { fuseV: 32 })),
  mend('sense fuses larger than the leads', 'sense-all', (d) => sense(d, { fuseA: 5 })),
  mend('sense fuses larger than leads that are said to carry little', 'sense-all', (d) =>
    sense(d, { carriesA: 0.1 }),
  ),
  mend('a bleed that the sense fuses do not take', 'sense-all', (d) => {
    d.pack.balance = { ...d.pack.balance, bleedCurrentA: 0.19 };
  }),
  unchecked('sense leads of which nobody says where they are fused', 'pack.sense.sense-all.fused', (d) => {
    delete d.pack.sense!['sense-all']!.fused;
  }),
  unchecked('sense leads that nobody describes', 'pack.sense', (d) => delete d.pack.sense),
  // Posts.
  mend('two neighbours mounted the same way round', firstStringId, (d) => {
    const [a, b] = firstString(d).modules.map((id) => d.modules[id]!);
    if (a!.box !== b!.box) return absent;
    b!.plusSide = a!.plusSide!;
    return true;
  }),
  // What flows into the pack.
  mend('a charging current that the modules do not take', 'pack', (d) => (d.pack.chargeA = 800)),
  mend('braking that the modules do not take', 'pack', (d) => (d.pack.regenPeakA = 1500)),
  mend('a load that brakes harder than is said', 'pack', (d) => {
    main(d).loadProfile = [...main(d).loadProfile!, [5, -60]];
    d.pack.regenPeakA = 20;
  }),
  unchecked('a charging current that nobody says', 'pack.chargeA', (d) => delete d.pack.chargeA),
  unchecked(
    'modules of which the maker does not say how they may be charged',
    (d) => `parts.${d.modules[firstString(d).modules[0]!]!.part}`,
    (d) => delete moduleData(d).chargeA,
  ),
  // Low voltage in the boxes.
  stop(
    'low voltage 2 mm from live parts through the air',
    firstBox,
    (d) => isHigh(d) && (d.boxes[firstBox(d)]!.lowVoltageGapMm = 1),
  ),
  mend(
    'low voltage near live parts along a surface',
    firstBox,
    (d) => isHigh(d) && (d.boxes[firstBox(d)]!.lowVoltageCreepMm = 0.9),
  ),
  unchecked(
    'a gap to low voltage that nobody measured',
    (d) => `boxes.${firstBox(d)}.lowVoltageGapMm`,
    (d) => delete d.boxes[firstBox(d)]!.lowVoltageGapMm,
  ),
];
