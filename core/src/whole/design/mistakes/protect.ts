import {
  absent,
  anotherOf,
  branch,
  branchDevice,
  branchId,
  firstString,
  isHigh,
  main,
  mend,
  note,
  partAt,
  pinned,
  stop,
  unchecked,
  type Mistake,
} from './mistake';
import type { Design } from '../../../model/document';
import type { ContactorData, FuseData } from '../../../model/parts';

const contactors = (d: Design, write: (data: ContactorData) => unknown) =>
  (main(d).contactor = anotherOf(d, 'contactor', main(d).contactor, write as (data: ContactorData) => void));
const fuse = (d: Design, write: (data: FuseData) => unknown) =>
  (main(d).fuse = anotherOf(d, 'fuse', main(d).fuse, write as (data: FuseData) => void));
const branchFuse = (d: Design, write: (data: FuseData) => unknown) =>
  (branch(d).fuse = anotherOf(d, 'fuse', branch(d).fuse, write as (data: FuseData) => void));
const inverter = (d: Design) => d.devices['device-inverter']!;
const withBranchContactor = (d: Design) =>
  Object.assign(branch(d), { contactor: main(d).contactor, poles: 'both', suppression: 'diode-zener' });
const inlet = (d: Design, more: object) => {
  d.devices['device-x'] = { tag: 'DC inlet', kind: 'dc-inlet', minV: 10, maxV: 1000, busCapacitanceF: 0 };
  d.circuits['circuit-x'] = { ...branch(d), tag: 'DC inlet', device: 'device-x', ...more };
};

/** Protect: contactors, start and stop, fuses, cables and their ends. */
export const protectMistakes: Mistake[] = [
  // Contactors.
  stop('contactors for 30 V', 'circuit-main', (d) => contactors(d, (data) => (data.ratedVoltageV = 30))),
  stop('contactors that do not carry the load', 'circuit-main', (d) =>
    contactors(d, (data) => {
      data.continuousA = 20;
      data.shortTime = [
        [25, 100],
        [40, 10],
      ];
    }),
  ),
  mend(
    'contactors that do not carry the peak as long as it lasts',
    'circuit-main',
    (d) =>
      contactors(
        d,
        (data) =>
          (data.shortTime = [
            [data.continuousA * 1.01, 1],
            [data.continuousA * 1.02, 0.1],
          ]),
      ) &&
      (main(d).loadProfile = [
        [30, partAt(d, 'contactor', main(d).contactor).continuousA * 1.3],
        [900, 1],
      ]),
  ),
  mend('contactors that make less than the inrush', 'circuit-main', (d) =>
    contactors(d, (data) => (data.makeA = 1)),
  ),
  note('contactors that do not break the largest fault', 'circuit-main', (d) =>
    contactors(d, (data) => (data.breakA = 100)),
  ),
  mend('contactors that do not even break the peak load', 'circuit-main', (d) =>
    contactors(d, (data) => (data.breakA = 20)),
  ),
  note('contactors that nobody can ask whether they are open', 'circuit-main', (d) =>
    contactors(d, (data) => (data.auxContact = false)),
  ),
  stop('coils that do not pull in at the lowest 12 V', 'circuit-main', (d) =>
    contactors(d, (data) => (data.pullInV = 11)),
  ),
  stop('coils for 24 V on a 12 V side', 'circuit-main', (d) =>
    contactors(d, (data) => Object.assign(data, { coilV: 24, pullInV: 16 })),
  ),
  mend('coils that nothing protects the driver from', 'circuit-main', (d) => (main(d).suppression = 'none')),
  mend('a clamp above what the driver stands', 'circuit-main', (d) =>
    Object.assign(main(d), { suppression: 'tvs', clampV: 400 }),
  ),
  mend(
    'contactors in one pole',
    'circuit-main',
    (d) => firstString(d).contactor === undefined && (main(d).poles = 'plus'),
  ),
  unchecked(
    'main contactors nobody chose',
    'circuits.circuit-main.contactor',
    (d) => delete main(d).contactor,
  ),
  note('polarised contactors that carry both ways', 'circuit-main', (d) => {
    contactors(d, (data) => (data.polarised = true));
    main(d).loadProfile = [
      [60, 50],
      [20, -40],
    ];
  }),
  stop('branch contactors for 30 V', branchId, (d) => {
    withBranchContactor(d);
    branch(d).contactor = anotherOf(d, 'contactor', main(d).contactor, (data) => (data.ratedVoltageV = 30));
  }),
  mend('branch contactors that close onto empty capacitors', branchId, (d) => {
    withBranchContactor(d);
    d.devices[branchDevice(d)]!.busCapacitanceF = 0.02;
    branch(d).contactor = anotherOf(d, 'contactor', main(d).contactor, (data) => (data.makeA = 10));
  }),
  mend(
    'a branch before the mains without contactors of its own',
    branchId,
    (d) => firstString(d).contactor === undefined && (branch(d).tap = 'before'),
  ),
  stop('a DC inlet that stays live', 'circuit-x', (d) =>
    inlet(d, { contactor: undefined, poles: undefined }),
  ),
  stop('a DC inlet with one switched pole', 'circuit-x', (d) =>
    inlet(d, { contactor: main(d).contactor, poles: 'plus', suppression: 'diode-zener' }),
  ),
  // Start and stop.
  mend('a threshold of 60 %', 'circuit-main', (d) => (main(d).thresholdFraction = 0.6)),
  mend('a threshold of 85 %', 'circuit-main', (d) => (main(d).thresholdFraction = 0.85)),
  mend('a threshold of 95 typed as 95', 'circuit-main', (d) => (main(d).thresholdFraction = 95)),
  stop('a time limit too short for the rise', 'circuit-main', (d) => (main(d).timeoutS = 0.02)),
  stop(
    'a pre-charge resistor of one ohm',
    'circuit-main',
    (d) =>
      (main(d).resistor = anotherOf(d, 'resistor', main(d).resistor, (data) => (data.resistanceOhm = 1))),
  ),
  stop(
    'a pre-charge resistor of two kiloohms',
    'circuit-main',
    (d) =>
      (main(d).resistor = anotherOf(d, 'resistor', main(d).resistor, (data) => (data.resistanceOhm = 5000))),
  ),
  stop(
    'a pre-charge resistor for 50 V',
    'circuit-main',
    (d) => (main(d).resistor = anotherOf(d, 'resistor', main(d).resistor, (data) => (data.maxVoltageV = 20))),
  ),
  stop(
    'a pre-charge resistor that one start burns',
    'circuit-main',
    (d) =>
      (main(d).resistor = anotherOf(d, 'resistor', main(d).resistor, (data) => (data.pulseEnergyJ = 0.5))),
  ),
  mend('sixty starts a minute', 'circuit-main', (d) => (main(d).attemptsPerMinute = 60)),
  mend('a bare timer that closes the main', 'circuit-main', (d) =>
    Object.assign(main(d), { completion: 'timer', timerS: 3 }),
  ),
  stop('a bare timer that welds as designed', 'circuit-main', (d) =>
    Object.assign(main(d), { completion: 'timer', timerS: 0.001 }),
  ),
  unchecked(
    'a pre-charge resistor nobody chose',
    'circuits.circuit-main.resistor',
    (d) => delete main(d).resistor,
  ),
  stop('a discharge that stands on the bus while it fills', 'circuit-main', (d) =>
    Object.assign(inverter(d), { activeOhm: 100, activeWhileFilling: true }),
  ),
  stop(
    'a load during pre-charge that holds the bus down',
    'circuit-main',
    (d) => (inverter(d).prechargeLoadOhm = 20),
  ),
  stop('nothing empties the bus', 'bus', (d) => {
    for (const device of Object.values(d.devices)) delete device.bleedOhm;
  }),
  stop('a bus that takes minutes to fall', 'bus', (d) => isHigh(d) && (inverter(d).bleedOhm = 200_000)),
  mend(
    'a bleed that heats like a stove',
    'bus',
    (d) => (inverter(d).bleedOhm = inverter(d).maxV! ** 2 / 1500),
  ),
  mend('a bleed of negative resistance', 'device-inverter', (d) => (inverter(d).bleedOhm = -5)),
  unchecked(
    'a bus capacitance nobody gave',
    'devices.device-inverter.busCapacitanceF',
    (d) => delete inverter(d).busCapacitanceF,
  ),
  note('only a switched resistor empties the bus', 'bus', (d) => {
    delete inverter(d).bleedOhm;
    inverter(d).activeOhm = 200;
  }),
  // Settings beyond the norm.
  stop('a touch limit of 120 V', 'pack', (d) => (d.settings.touchLimitV = 120)),
  mend('a minute for the bus to fall', 'pack', (d) => (d.settings.dischargeLimitS = 60)),
  mend('50 Ω/V of insulation', 'pack', (d) => isHigh(d) && (d.settings.insulationOhmPerV = 50)),
  mend('an hour to clear a fault', 'circuit-main', (d) => (main(d).maxClearS = 3600)),
  mend('a fifth of the voltage lost in the cable', 'circuit-main', (d) => (main(d).maxDropFraction = 0.2)),
  note('a start that never takes the 12 V below 12', 'pack', (d) => (d.settings.startLowV = 12.5)),
  mend('a surge smaller than any mains lets through', 'pack', (d) => (d.settings.impulseV = 200)),
  // Fuses.
  stop('a fuse for 30 V', 'circuit-main', (d) => fuse(d, (data) => (data.ratedVoltageV = 30))),
  stop('a fuse that bursts at the largest fault', 'circuit-main', (d) =>
    fuse(d, (data) => (data.breakingA = 200)),
  ),
  stop('a partial-range fuse below its least breaking current', 'circuit-main', (d) =>
    fuse(d, (data) => (data.minBreakingA = 60_000)),
  ),
  stop('a fuse far too large', 'circuit-main', (d) => {
    fuse(d, (data) => {
      data.ratedA *= 20;
      data.curve = data.curve.map(([amps, s]) => [amps * 20, s]);
    });
  }),
  mend('a fuse too small for its load', 'circuit-main', (d) => {
    fuse(d, (data) => {
      data.ratedA /= 6;
      data.curve = data.curve.map(([amps, s]) => [amps / 6, s]);
    });
  }),
  mend('a fuse in a place of 110 °C', 'circuit-main', (d) => (main(d).fuseAmbientC = 110)),
  stop('a branch fuse for 30 V', branchId, (d) => branchFuse(d, (data) => (data.ratedVoltageV = 30))),
  stop('a branch fuse that bursts', branchId, (d) => branchFuse(d, (data) => (data.breakingA = 100))),
  stop('a branch without a fuse', branchId, (d) => delete branch(d).fuse),
  stop('a branch fuse larger than its cable', branchId, (d) => (branch(d).fuse = main(d).fuse)),
  mend('a branch fuse that lets the main fuse go first', branchId, (d) => (branch(d).fuse = main(d).fuse)),
  mend('branches that together are more than the main fuse carries', 'circuit-main', (d) => {
    const others = Object.values(d.circuits).filter(
      ({ role, device }) => role === 'branch' && d.devices[device!]?.kind !== 'charger',
    );
    if (others.length === 0) return absent;
    for (const circuit of others) circuit.loadProfile = [[600, partAt(d, 'fuse', main(d).fuse).ratedA * 1.1]];
    return true;
  }),
  stop('no fuse at all', 'device-inverter', (d) => {
    delete main(d).fuse;
    for (const one of Object.values(d.strings)) delete one.fuse;
  }),
  unchecked('a main fuse nobody chose', 'circuits.circuit-main.fuse', (d) => delete main(d).fuse),
  mend('a main fuse behind which nothing sits in a box', branchId, (d) => (branch(d).box = 'box-gone')),
  // Cables.
  stop('a cable of 4 mm²', 'circuit-main', (d) => (main(d).cable = pinned(d, 'cable', 'marl-x4'))),
  stop('a cable in an oven', 'circuit-main', (d) => (main(d).ambientC = 118)),
  mend(
    'a cable above its temperature before it carries anything',
    'circuit-main',
    (d) => (main(d).ambientC = 160),
  ),
  mend('six cables in a bundle', 'circuit-main', (d) =>
    Object.assign(main(d), { grouped: 30, ambientC: 70, cable: pinned(d, 'cable', 'marl-x16') }),
  ),
  mend('a cable of sixty metres', 'circuit-main', (d) => (main(d).lengthM = 400)),
  mend('a cable of 0 m', 'circuit-main', (d) => (main(d).lengthM = 0)),
  unchecked('a cable nobody measured', 'circuits.circuit-main.lengthM', (d) => delete main(d).lengthM),
  unchecked('a cable nobody chose', 'circuits.circuit-main.cable', (d) => delete main(d).cable),
  mend('a cable thicker than its conduit', 'circuit-main', (d) =>
    Object.assign(main(d), { install: 'steel-conduit', conduitInnerMm: 8, conduitOuterMm: 10 }),
  ),
  mend('two cables that fill their conduit', 'circuit-main', (d) => {
    const outer = partAt(d, 'cable', main(d).cable).outerDiameterMm;
    return Object.assign(main(d), {
      install: 'steel-conduit',
      conduitInnerMm: outer * 1.25,
      conduitOuterMm: outer * 1.25 + 4,
      grouped: 2,
    });
  }),
  mend('a conduit whose outside is inside its inside', 'circuit-main', (d) =>
    Object.assign(main(d), { install: 'steel-conduit', conduitInnerMm: 60, conduitOuterMm: 50 }),
  ),
  mend('half a cable in parallel', 'circuit-main', (d) => (main(d).parallel = 0.5)),
  // Ends.
  mend('lugs for another area', 'circuit-main', (d) => (main(d).lug = pinned(d, 'lug', 'penhallow-c4-m5'))),
  mend('lugs for another stud', 'circuit-main', (d) => (main(d).studMm = 5)),
  mend(
    'lugs made for less heat than the cable',
    'circuit-main',
    (d) => (main(d).lug = anotherOf(d, 'lug', main(d).lug, (data) => (data.maxC = 12))),
  ),
  mend(
    'a gland too wide for its cable',
    'circuit-main',
    (d) =>
      (main(d).gland = anotherOf(d, 'gland', main(d).gland, (data) =>
        Object.assign(data, { clampMinMm: 50, clampMaxMm: 60 }),
      )),
  ),
  mend(
    'a gland made for less heat than the cable',
    'circuit-main',
    (d) => (main(d).gland = anotherOf(d, 'gland', main(d).gland, (data) => (data.maxC = 12))),
  ),
  mend(
    'a screen clamped in a gland that has no contact for it',
    'circuit-main',
    (d) => (main(d).gland = anotherOf(d, 'gland', main(d).gland, (data) => (data.screenContact = false))),
  ),
  mend('branch lugs for another stud', branchId, (d) => (branch(d).studMm = 12)),
  mend('a plug that can be pulled under load', 'circuit-main', (d) => (main(d).ends = 'plain')),
  mend('a black cable', 'circuit-main', (d) => (main(d).sheath = 'other')),
  mend('a black branch', branchId, (d) => (branch(d).sheath = 'other')),
  mend('a screen that floats', 'circuit-main', (d) =>
    Object.assign(main(d), { screenFrom: 'open', screenTo: 'open' }),
  ),
  note('a screen held at one end', 'circuit-main', (d) => (main(d).screenTo = 'open')),
  note('a screen on a pigtail', 'circuit-main', (d) => (main(d).screenFrom = 'pigtail')),
  note('an inverter on a cable without a screen', 'circuit-main', (d) => {
    main(d).screened = false;
    delete main(d).screenFrom;
    delete main(d).screenTo;
  }),
];
