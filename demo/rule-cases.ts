import { edit, mainCircuit, type Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { wrongCharge, rightCharge } from './charge-cases';
import { moduleOf, rightPack, wrongPack } from './pack-cases';
import { rightRoute, wrongRoute } from './route-cases';
import { rightSense, wrongSense } from './sense-cases';
import { rightCooling, wrongCooling } from './cooling-cases';
import { libraryBus } from './library-bus';

/** For each rule of the evaluation: what is wrong about the bus when it is raised, and how it is clear. */

export const circuit = (draft: Design) => draft.circuits[mainCircuit]!;
const withoutStringContactors = (draft: Design) => {
  for (const one of Object.values(draft.strings)) one.contactorPoles = 'none';
};
/** The charger behind contactors of its own, without a pre-charge of its own. */
const withOwnContactors = (draft: Design) => {
  draft.circuits['circuit-charger']!.contactor = 'hollin-k200@1';
  draft.circuits['circuit-charger']!.poles = 'both';
};
const contactorData = (draft: Design) => {
  const part = draft.parts[circuit(draft).contactor!];
  if (part?.kind !== 'contactor') throw new Error('no contactors');
  return part.data;
};
const disconnectData = (draft: Design) => {
  const part = draft.parts[draft.strings['string-1']!.disconnect!];
  if (part?.kind !== 'disconnect') throw new Error('no disconnect');
  return part.data;
};
const plugData = (draft: Design) => {
  const part = draft.parts[circuit(draft).plug!];
  if (part?.kind !== 'plug') throw new Error('no plug');
  return part.data;
};
const prechargeData = (draft: Design) => {
  const part = draft.parts[circuit(draft).prechargeContactor!];
  if (part?.kind !== 'contactor') throw new Error('no contactor');
  return part.data;
};
const leadsToMonitor = (draft: Design) => draft.pack.sense!['sense-all']!;
const glandData = (draft: Design) => {
  const part = draft.parts[circuit(draft).gland!];
  if (part?.kind !== 'gland') throw new Error('no gland');
  return part.data;
};
const contactorOf = (id: string) => catalogueOf('contactor').find((part) => part.id === id)!;
const withStringFuse = (draft: Design, id: string) => {
  for (const one of Object.values(draft.strings)) one.fuse = pin(draft, fuseOf(id));
};
const resistorOf = (id: string) => catalogueOf('resistor').find((part) => part.id === id)!;
const lugOf = (id: string) => catalogueOf('lug').find((part) => part.id === id)!;
const fuseOf = (id: string) => catalogueOf('fuse').find((part) => part.id === id)!;
const cableOf = (areaMm2: number) => catalogueOf('cable').find(({ data }) => data.areaMm2 === areaMm2)!;
export const changed = (recipe: (draft: Design) => void): Design => {
  const design =
    made.get(recipe) ??
    edit(libraryBus.design, (draft) => recipe(draft as Design))?.design ??
    libraryBus.design;
  made.set(recipe, design);
  return design;
};
/** One recipe makes one design: it is evaluated once. */
const made = new WeakMap<(draft: Design) => void, Design>();

/** For each rule that the evaluation can raise: what is wrong about the bus when it is raised. */
export const wrong: Record<string, (draft: Design) => void> = {
  ...wrongCooling,
  ...wrongCharge,
  ...wrongSense,
  ...wrongPack,
  ...wrongRoute,
  'joints.no-kind': (draft) => void delete draft.joints!['joint-m10'],
  'joints.torque-over-proof': (draft) => void (draft.joints!['joint-posts']!.torqueNm = 24),
  'joints.engagement': (draft) => void (draft.joints!['joint-posts']!.engagementMm = 9.5),
  'joints.metals': (draft) =>
    void (
      (draft.joints!['joint-posts']!.face = 'aluminium'),
      (draft.joints!['joint-posts']!.otherFace = 'copper')
    ),
  'joints.bare-aluminium': (draft) => void (draft.joints!['joint-bars']!.face = 'aluminium'),
  'joints.stack': (draft) => void (draft.joints!['joint-m8']!.stack = ['bar', 'washer', 'lug', 'nut']),
  'joints.spring-on-copper': (draft) => void (draft.joints!['joint-bars']!.stack = ['bar', 'spring', 'nut']),
  'joints.crimp-solder': (draft) => void (draft.joints!['joint-m5']!.crimp = 'crimp-solder'),
  'joints.no-retorque': (draft) => void (draft.joints!['joint-m6']!.retorqueDays = 0),
  'bonding.none': (draft) => void (draft.bonds!['box-tail'] = { by: 'none' }),
  'bonding.resistance': (draft) =>
    void (draft.bonds!['device-heater'] = { by: 'strap', areaMm2: 0.5, lengthM: 2.6 }),
  'bonding.withstand': (draft) => void (draft.bonds!['box-nose']!.areaMm2 = 0.75),
  'bonding.screen-floating': (draft) =>
    void Object.assign(circuit(draft), { screenFrom: 'open', screenTo: 'open' }),
  'bonding.screen-one-end': (draft) => void (circuit(draft).screenTo = 'open'),
  'bonding.screen-pigtail': (draft) => void (circuit(draft).screenFrom = 'pigtail'),
  'marking.not-orange': (draft) => void (circuit(draft).sheath = 'other'),
  'marking.sense-sleeve': (draft) =>
    void Object.assign(draft.settings, { senseMarking: 'sleeve', sleeveColour: 'Dark orange' }),
  'charging.no-isolation': (draft) => void (draft.devices['device-charger']!.isolation = 'none'),
  'charging.no-cut-off': (draft) => void (draft.devices['device-charger']!.ownCutOff = false),
  'fuse.inrush': (draft) => {
    withOwnContactors(draft);
    draft.devices['device-charger']!.busCapacitanceF = 0.03;
  },
  'cable.uneven-parallel': (draft) =>
    void Object.assign(circuit(draft), { cable: pin(draft, cableOf(10)), parallel: 2, unevenM: 8 }),
  'distances.clearance': (draft) => void (draft.boxes['box-tail']!.clearanceMm = 1.2),
  'distances.creepage': (draft) => void (draft.boxes['box-nose']!.pollution = 3),
  'strings.fuse-voltage': (draft) => withStringFuse(draft, 'calderside-f250l'),
  'strings.fuse-breaking': (draft) => {
    withStringFuse(draft, 'calderside-f250');
    for (const part of Object.values(draft.parts)) if (part.kind === 'fuse') part.data.breakingA = 1000;
  },
  'strings.uneven-load': (draft) => withStringFuse(draft, 'calderside-f80'),
  'strings.one-lost': (draft) => withStringFuse(draft, 'calderside-f160'),
  'contactor.drops-out': (draft) => {
    for (const part of Object.values(draft.parts)) if (part.kind === 'contactor') part.data.dropOutA = 2;
  },
  'contactor.pull-in': (draft) => void (draft.settings.startLowV = 8),
  'contactor.slow-release': (draft) =>
    void (circuit(draft).contactor = pin(draft, contactorOf('hollin-k50'))),
  'contactor.no-suppression': (draft) => void (circuit(draft).suppression = 'none'),
  'contactor.both-ways': () => undefined,
  'precharge.bare-timer': (draft) => {
    circuit(draft).completion = 'timer';
    circuit(draft).timerS = 0.4;
  },
  'contactor.make': (draft) => void (circuit(draft).thresholdFraction = 0.9),
  'cable.lug-area': (draft) => void (circuit(draft).lug = pin(draft, lugOf('penhallow-c50-m10'))),
  'cable.lug-stud': (draft) => void (circuit(draft).studMm = 8),
  'cable.lug-temperature': (draft) => {
    circuit(draft).cable = pin(
      draft,
      catalogueOf('cable').find(({ id }) => id === 'marl-q35')!,
    );
    circuit(draft).ambientC = 120;
  },
  'cable.gland-clamp': (draft) => void (circuit(draft).cable = pin(draft, cableOf(95))),
  'axle.negative': (draft) => {
    draft.masses['mass-motor']!.massKg = 9000;
    draft.masses['mass-motor']!.xM = -9;
  },
  'vehicle.front-axle-limit': (draft) => void (draft.vehicle.frontLimitKg = 2000),
  'vehicle.rear-axle-limit': (draft) => void (draft.vehicle.rearLimitKg = 3900),
  'vehicle.gross-limit': (draft) => void (draft.vehicle.grossLimitKg = 6000),
  'vehicle.axle-shift': (draft) => void (draft.boxes['box-tail']!.xM = -5),
  'vehicle.range-short': (draft) => void (draft.vehicle.wantedRangeKm = 148),
  'vehicle.range-winter': (draft) => void (draft.vehicle.wantedRangeKm = 140),
  'vehicle.cycle-over-peak': (draft) => void (draft.pack.peakCurrentA = 150),
  'drive-cycle.beyond-source': (draft) => {
    draft.vehicle.cycle = 'burst';
    draft.pack.linkResistanceOhm = 0.3;
  },
  'range.no-consumption': (draft) => {
    draft.vehicle.gradeFraction = -0.2;
    draft.vehicle.accessoriesW = 0;
  },
  'balance-time.sense-lead-limit': (draft) => void (draft.pack.balance!.bleedCurrentA = 0.51),
  'balance.target-outside-cell': (draft) => void (draft.pack.balance!.targetV = 4.197),
  'balance.cut-off-below-minimum': (draft) => void (draft.pack.balance!.cutOffV = 2.99),
  'balance.on-again-below-cut-off': (draft) =>
    void Object.assign(draft.pack.balance!, { cutOffV: 3.1, engageV: 3.1 }),
  'balance.load-over-cell-current': (draft) => void (draft.pack.balance!.loadOhm = 0.0233),
  'balance.bleeding-undoes-bottom': (draft) => void (draft.pack.balance!.school = 'bottom'),
  'busbar.hotter-than-allowed': (draft) => void (draft.pack.busbars!['busbar-mains']!.maxC = 50),
  'busbar.bare': (draft) => void (draft.pack.busbars!['busbar-mains']!.coating = 'bare'),
  'contactor.no-aux': (draft) => void (circuit(draft).contactor = pin(draft, contactorOf('hollin-k50'))),
  'busbar.hole-near-end': (draft) => void (draft.pack.busbars!['busbar-mains']!.holeMm = 17),
  'busbar.stiff-between-posts': (draft) => void delete draft.pack.busbars!['busbar-mains']!.flexMm,
  'busbar.no-balance': (draft) => void (draft.pack.busbars!['busbar-mains']!.currentA = 5000),
  'busbar.hole-takes-section': (draft) => void (draft.pack.busbars!['busbar-mains']!.holeMm = 10.5),
  'network.no-disconnect': (draft) => void delete draft.strings['string-1']!.disconnectAt,
  'network.disconnect-off-middle': (draft) => void (draft.strings['string-1']!.disconnectAt = 3),
  'network.string-unfused': (draft) => void delete draft.strings['string-2']!.fuse,
  'network.load-unfused': (draft) => {
    for (const one of Object.values(draft.strings)) delete one.fuse;
    delete circuit(draft).fuse;
  },
  'network.load-without-contactor': (draft) => {
    withoutStringContactors(draft);
    draft.circuits['circuit-charger']!.tap = 'before';
  },
  'network.single-pole-mains': (draft) => {
    withoutStringContactors(draft);
    circuit(draft).poles = 'plus';
  },
  'network.branch-before-mains': (draft) => {
    withoutStringContactors(draft);
    Object.assign(draft.circuits['circuit-inlet']!, { tap: 'before' });
  },
  'network.live-outside': () => undefined,
  'network.plug-without-interlock': (draft) => void (draft.circuits['circuit-heater']!.ends = 'plain'),
  'network.two-active-monitors': (draft) =>
    void (draft.devices['device-charger']!.insulationMonitor = 'active'),
  'network.device-not-fed': (draft) => void delete draft.circuits['circuit-heater'],
  'precharge.threshold-never-reached': (draft) =>
    void (draft.devices['device-heater']!.prechargeLoadOhm = 500),
  'precharge.slower-than-limit': (draft) => void (circuit(draft).timeoutS = 0.3),
  'precharge.pulse-energy': (draft) => void (draft.devices['device-inverter']!.busCapacitanceF = 0.09),
  'precharge.shorted-energy': (draft) => void (circuit(draft).timeoutS = 3.5),
  'precharge.repeated-starts': (draft) => void (circuit(draft).attemptsPerMinute = 70),
  'precharge.repeated-on-short': (draft) => void (circuit(draft).attemptsPerMinute = 1),
  'precharge.resistor-voltage': (draft) => {
    circuit(draft).resistor = pin(draft, resistorOf('ember-22'));
    for (const part of Object.values(draft.parts)) if (part.kind === 'resistor') part.data.maxVoltageV = 400;
  },
  'precharge.active-on': (draft) =>
    void Object.assign(draft.devices['device-inverter']!, { activeOhm: 200, activeWhileFilling: true }),
  'precharge.no-resistor-fits': (draft) => {
    delete circuit(draft).resistor;
    circuit(draft).timeoutS = 60;
  },
  'bus-discharge.too-slow': (draft) => void (draft.devices['device-inverter']!.bleedOhm = 2200),
  'bus-discharge.active-alone': (draft) => {
    delete draft.devices['device-inverter']!.bleedOhm;
    draft.devices['device-inverter']!.activeOhm = 200;
  },
  'bus-discharge.no-bleed': (draft) => void delete draft.devices['device-inverter']!.bleedOhm,
  'fuse.voltage': (draft) => void (circuit(draft).fuse = pin(draft, fuseOf('calderside-f400l'))),
  'fuse.breaking-capacity': (draft) => void (draft.pack.warmResistanceFactor = 0.3),
  'fuse.below-minimum-breaking': (draft) => {
    circuit(draft).fuse = pin(draft, fuseOf('calderside-p300'));
    draft.pack.coldResistanceFactor = 7;
  },
  'fuse.slow-at-smallest-fault': (draft) => void (circuit(draft).maxClearS = 0.1),
  'fuse.continuous-load': (draft) => void (circuit(draft).loadProfile = [[60, 300]]),
  'fuse.cyclic-wear': (draft) =>
    void (circuit(draft).loadProfile = [
      [10, 700],
      [600, 50],
    ]),
  'fuse.derating-held': (draft) => void (circuit(draft).fuseAmbientC = -35),
  'fuse.hotter-than-table': (draft) => void (circuit(draft).fuseAmbientC = 95),
  'fuse.branches-together': (draft) => {
    draft.circuits['circuit-heater']!.loadProfile = [[600, 300]];
  },
  'vehicle.wheelbase-over-length': (draft) => void (draft.vehicle.wheelbaseM = draft.vehicle.lengthM! + 1),
  'vehicle.speed-above-top': (draft) => void (draft.vehicle.topSpeedKmH = draft.vehicle.speedKmH! - 10),
  'vehicle.gross-above-axles': (draft) => void (draft.vehicle.grossLimitKg = 30_000),
  'vehicle.overloaded-before': (draft) => void (draft.vehicle.rearKg = draft.vehicle.rearLimitKg! + 80),
  'vehicle.mass-outside': (draft) => void (draft.masses['mass-motor']!.xM = -25),
  'charging.none': (draft) => {
    for (const id of ['device-charger', 'device-inlet']) draft.devices[id]!.kind = 'other';
  },
  'charging.no-low-voltage': (draft) => void (draft.devices['device-dcdc']!.kind = 'other'),
  'network.inlet-live': (draft) => void (draft.circuits['circuit-inlet']!.poles = 'plus'),
  'network.branch-unfused': (draft) => void delete draft.circuits['circuit-heater']!.fuse,
  'network.load-apart': (draft) => void (draft.circuits['circuit-heater']!.loadProfile = [[600, 9]]),
  'network.circuit-feeds-nothing': (draft) => void delete draft.circuits['circuit-heater']!.device,
  'contactor.strings-not-parted': withoutStringContactors,
  'contactor.carry-peak': (draft) => {
    contactorData(draft).shortTime = [
      [360, 8],
      [1000, 1],
    ];
  },
  'contactor.load-above-break': (draft) => void (contactorData(draft).breakA = 300),
  'contactor.clamp-over-driver': (draft) => {
    Object.assign(circuit(draft), { suppression: 'tvs', clampV: 60 });
  },
  'precharge.timer-welds': (draft) => {
    circuit(draft).completion = 'timer';
    circuit(draft).timerS = 0.02;
  },
  'bus-discharge.bleed-hot': (draft) => void (draft.devices['device-inverter']!.bleedOhm = 300),
  'distances.creepage-below-clearance': (draft) =>
    void (draft.boxes['box-tail']!.creepageMm = draft.boxes['box-tail']!.clearanceMm! - 0.5),
  'distances.material-excluded': (draft) => {
    moduleOf(draft).cellsInSeries *= 2;
    Object.assign(draft.boxes['box-tail']!, { pollution: 3, material: 'IIIb' });
  },
  'bonding.unscreened': (draft) => void (circuit(draft).screened = false),
  'joints.torque-low': (draft) => void (draft.joints!['joint-posts']!.torqueNm = 1),
  'joints.face-not-lug': (draft) =>
    void Object.assign(draft.joints!['joint-m8']!, { face: 'silver', otherFace: 'silver' }),
  'cable.gland-temperature': (draft) => void (glandData(draft).maxC = 20),
  'cable.gland-screen': (draft) => void (glandData(draft).screenContact = false),
  'cable.conduit-fill': (draft) =>
    void Object.assign(circuit(draft), { install: 'steel-conduit', conduitInnerMm: 22, conduitOuterMm: 26 }),
  'norms.touch-limit': (draft) => void (draft.settings.touchLimitV = 90),
  'norms.discharge-time': (draft) => void (draft.settings.dischargeLimitS = 60),
  'norms.insulation': (draft) => void (draft.settings.insulationOhmPerV = 100),
  'norms.surge': (draft) => void (draft.settings.impulseV = 500),
  'norms.start-voltage': (draft) => void (draft.settings.startLowV = 11.5),
  'norms.anchor-load': (draft) => void (draft.settings.anchorG = 1),
  'norms.clearing-time': (draft) => void (circuit(draft).maxClearS = 60),
  'norms.voltage-drop': (draft) => void (circuit(draft).maxDropFraction = 0.1),
  'norms.threshold': (draft) => void (circuit(draft).thresholdFraction = 0.8),
  'disconnect.voltage': (draft) => void (disconnectData(draft).ratedVoltageV = 300),
  'disconnect.carry': (draft) => void (disconnectData(draft).continuousA = 60),
  'disconnect.under-load': (draft) => void (disconnectData(draft).interlock = false),
  'disconnect.touchable': (draft) => void (disconnectData(draft).fingerproof = false),
  'plug.voltage': (draft) => void (plugData(draft).ratedVoltageV = 300),
  'plug.carry': (draft) => void (plugData(draft).continuousA = 100),
  'plug.area': (draft) => void (plugData(draft).areaMm2 = 50),
  'plug.temperature': (draft) => void (plugData(draft).maxC = 60),
  'plug.screen': (draft) => void (plugData(draft).screenContact = false),
  'plug.no-interlock': (draft) => void (plugData(draft).interlock = false),
  'plug.touchable': (draft) => void (plugData(draft).fingerproof = false),
  'contactor.precharge-voltage': (draft) => void (prechargeData(draft).ratedVoltageV = 300),
  'contactor.precharge-make': (draft) => void (prechargeData(draft).makeA = 4),
  'contactor.precharge-break': (draft) => void (prechargeData(draft).breakA = 4),
  'contactor.precharge-pull-in': (draft) => void (prechargeData(draft).pullInV = 8.9),
  'contactor.coil-supply': (draft) => void (draft.settings.supplyV = 24),
  'network.fuse-poles': (draft) => void (draft.circuits['circuit-dcdc']!.fusePole = 'minus'),
  'fuse.tap-unprotected': (draft) =>
    void Object.assign(draft.circuits['circuit-dcdc']!, { tapLengthM: 0.8, tapAreaMm2: 2.5 }),
  'cable.pack-cable-fault': (draft) => {
    draft.pack.leads!['lead-1-2']!.cable = pin(draft, cableOf(6));
  },
  'cable.pack-cable-unfused': (draft) => {
    delete circuit(draft).fuse;
    for (const one of Object.values(draft.strings)) delete one.fuse;
  },
  'cable.pack-cable-unsaid': (draft) => void delete draft.pack.leads!['lead-1-2'],
  'cable.pack-cable-place': (draft) => void (draft.pack.leads!['lead-1-2']!.joint = 9),
  'sense.unfused': (draft) => void (leadsToMonitor(draft).fused = 'none'),
  'sense.fuse-far': (draft) => void (leadsToMonitor(draft).fused = 'monitor'),
  'sense.fuse-voltage': (draft) => void (leadsToMonitor(draft).fuseV = 400),
  'sense.fuse-above-lead': (draft) => void (leadsToMonitor(draft).fuseA = 0.6),
  'sense.bleed-above-fuse': (draft) => void (leadsToMonitor(draft).fuseA = 0.45),
  'distances.low-voltage-clearance': (draft) => void (draft.boxes['box-tail']!.lowVoltageGapMm = 2.9),
  'distances.low-voltage-creepage': (draft) => void (draft.boxes['box-tail']!.lowVoltageCreepMm = 8),
  'fuse.cable-unprotected': (draft) => void (circuit(draft).cable = pin(draft, cableOf(6))),
  'cable.overloaded': (draft) => void (circuit(draft).cable = pin(draft, cableOf(16))),
  'cable.no-balance': (draft) => void (circuit(draft).cable = pin(draft, cableOf(2.5))),
  'cable.small-in-conduit': (draft) => void (circuit(draft).lengthM = 3),
  'cable.voltage-drop': (draft) => void (circuit(draft).lengthM = 100),
  'contactor.voltage': (draft) =>
    void (circuit(draft).contactor = pin(
      draft,
      catalogueOf('contactor').find(({ id }) => id === 'hollin-k400')!,
    )),
  'contactor.carry': (draft) =>
    void (circuit(draft).contactor = pin(
      draft,
      catalogueOf('contactor').find(({ id }) => id === 'hollin-k50')!,
    )),
  'contactor.fault-above-break': (draft) => void (circuit(draft).lengthM = 4),
  'contactor.short-time': (draft) =>
    void (draft.circuits['circuit-inlet']!.fuse = pin(draft, fuseOf('calderside-f500'))),
  'fuse.not-selective': (draft) =>
    void (draft.circuits['circuit-inlet']!.fuse = pin(draft, fuseOf('calderside-f350'))),
  'cable-duty.over-limit': (draft) =>
    void (circuit(draft).loadProfile = [
      [600, 420],
      [3600, 10],
    ]),
  'cable-duty.beyond-400': (draft) =>
    void (circuit(draft).loadProfile = [
      [60, 2500],
      [90_000, 10],
    ]),
};

/** The same, where the rule is clear. */
export const right: Record<string, (draft: Design) => void> = {
  'looms.wire-short': (draft) => void (draft.wires!['wire-201']!.lengthM = 20),
  ...rightCharge,
  ...rightCooling,
  ...rightSense,
  ...rightPack,
  ...rightRoute,
  'fuse.inrush': withOwnContactors,
  'fuse.tap-unprotected': (draft) =>
    void Object.assign(draft.circuits['circuit-dcdc']!, { tapLengthM: 0.15, tapAreaMm2: 4 }),
  'precharge.active-on': (draft) =>
    void Object.assign(draft.devices['device-inverter']!, { activeOhm: 200, activeWhileFilling: false }),
  'contactor.both-ways': (draft) => void (circuit(draft).loadProfile = [[60, 100]]),
  'vehicle.axle-shift': (draft) => void (draft.boxes['box-tail']!.xM = -3),
  'vehicle.range-short': (draft) => void (draft.vehicle.wantedRangeKm = 147),
  'balance.on-again-below-cut-off': (draft) =>
    void Object.assign(draft.pack.balance!, { cutOffV: 3.1, engageV: 3.15 }),
  'balance.cut-off-below-minimum': (draft) => void (draft.pack.balance!.cutOffV = 3),
  'balance.load-over-cell-current': (draft) => void (draft.pack.balance!.loadOhm = 0.0234),
  'network.live-outside': (draft) => {
    for (const module of Object.values(draft.modules)) module.box = 'box-tail';
    draft.pack.mainsBox = draft.pack.combinerBox = 'box-tail';
  },
  'cable.small-in-conduit': (draft) => {
    delete draft.runs;
    circuit(draft).install = 'free-air';
  },
  'contactor.fault-above-break': (draft) => {
    draft.pack.linkResistanceOhm = 1.6;
  },
};
