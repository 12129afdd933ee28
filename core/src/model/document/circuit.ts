import { cableEnds, installs, polesSwitched } from './choices';
import {
  choice,
  chosen,
  defaultsOf,
  few,
  flag,
  num,
  pairs,
  part,
  refer,
  share,
  tag,
  type ItemOf,
} from './field';
import { screenEnds, sheaths } from './joints';

export { cableEnds, installs, polesSwitched, type CableEnds, type Install, type Poles } from './choices';

export const deviceKinds = [
  'inverter',
  'charger',
  'dc-dc',
  'heater',
  'compressor',
  'dc-inlet',
  'insulation-monitor',
  'other',
] as const;
export type DeviceKind = (typeof deviceKinds)[number];

/** The phase of the mains that a charger hangs on, or all of them. */
export const chargerPhases = [1, 2, 3, 'all'] as const;

/** What takes a heater off the bus when it gets too hot: its own contacts, or a switch in the coil circuit of its contactors. */
export const thermalCuts = ['own contacts', 'in the coil circuit', 'none'] as const;

/** Something on the bus behind the main contactors. */
export const deviceFields = {
  tag,
  kind: chosen('Kind', deviceKinds),
  minV: num('Works from', 'V', { usual: [0, 1300] }),
  maxV: num('Works up to', 'V', { usual: [10, 1600] }),
  busCapacitanceF: num('Bus capacitance', 'F', { shown: { unit: 'µF', scale: 1e-6 }, usual: [0, 0.05] }),
  /** A bleed resistor inside it that is always on. */
  bleedOhm: num('Bleed resistor', 'Ω', { usual: [1, 2e6] }),
  /** A resistor that is switched across the bus at shut-down alone. */
  activeOhm: num('Switched discharge', 'Ω', { usual: [1, 100000] }),
  /** Whether that resistor still stands on the bus while it fills; it should not. */
  activeWhileFilling: flag('Its switched discharge stands on the bus while it fills', {
    at: 'protect/start',
  }),
  /** What it draws while the bus is being pre-charged, as a resistance; absent: nothing. */
  prechargeLoadOhm: num('Draws during pre-charge, as', 'Ω', { usual: [5, 1e7] }),
  /** A heater of plain resistance: the power it is rated for, and at which voltage. */
  ratedPowerW: num('Rated power', 'W', { usual: [20, 50000] }),
  ratedVoltageV: num('Rated voltage', 'V', { usual: [10, 1000] }),
  thermalCut: choice('Thermal cut-out', thermalCuts, { at: 'protect/circuits' }),
  /** A charger: whether something in it parts the pack from the mains, whether it ends by a voltage of its own. */
  isolation: choice('Parted from the mains', ['isolated', 'none'], { at: 'protect/bonds' }),
  ownCutOff: flag('Ends by a voltage of its own', { at: 'protect/bonds' }),
  /** A charger on the mains: its part, and what is typed instead of the part’s own figures. */
  charger: part('Charger', 'charger', { at: 'charge/ac' }),
  phase: choice('Hangs on phase', chargerPhases, { at: 'charge/ac' }),
  maxInputA: num('Draws at most, on each phase', 'A', { at: 'charge/ac', usual: [4, 80] }),
  maxOutputA: num('Gives at most', 'A', { at: 'charge/ac', usual: [2, 300] }),
  efficiencyFraction: share('Efficiency', { at: 'charge/ac', usual: [0.7, 0.99] }),
  /** It ends its charge there. */
  endV: num('Ends at', 'V', { at: 'charge/ladder', usual: [10, 1000] }),
  /** An inverter: the highest it brakes into, from where it gives less, and where it stops. */
  regenMaxV: num('Brakes into at most', 'V', { at: 'charge/ladder', usual: [10, 1000] }),
  derateBelowV: num('Gives less below', 'V', { at: 'charge/ladder', usual: [10, 1000] }),
  cutBelowV: num('Stops below', 'V', { at: 'charge/ladder', usual: [10, 1000] }),
  /** A charger that runs with nobody there. */
  unattended: flag('Runs with nobody there', { at: 'protect/bonds' }),
  /** An inverter: the cable of each motor phase. */
  phaseCable: part('Cable of each motor phase', 'cable', { at: 'route/runs' }),
  phaseScreened: flag('Motor phases screened', { at: 'route/runs' }),
  /** An insulation monitor in it: active ones send a signal of their own into the network. */
  insulationMonitor: choice('Insulation monitor', ['active', 'passive']),
  /** Its middle in the vehicle frame, and outer sizes. */
  xM: num('Ahead of the front axle', 'm', { at: 'route/places', usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { at: 'route/places', usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { at: 'route/places', usual: [0, 4.5] }),
  lengthM: num('Length', 'm', { at: 'route/places', usual: [0.02, 3] }),
  widthM: num('Width', 'm', { at: 'route/places', usual: [0.02, 3] }),
  heightM: num('Height', 'm', { at: 'route/places', usual: [0.02, 3] }),
};
export interface DeviceItem extends ItemOf<typeof deviceFields> {}

/** The kinds of parts that a circuit has one of. */
export const circuitPartKinds = ['contactor', 'resistor', 'fuse', 'cable', 'lug', 'gland', 'plug'] as const;
export type CircuitPartKind = (typeof circuitPartKinds)[number];

/** What takes the energy of a coil that is switched off. */
export const suppressions = ['diode', 'diode-zener', 'tvs', 'none'] as const;
export type Suppression = (typeof suppressions)[number];

/** How the contactors follow each other at a start: each alone, or one main together with the pre-charge. */
export const startSchools = ['one-by-one', 'together'] as const;
export type StartSchool = (typeof startSchools)[number];
/** What closes the second main: the bus voltage with a time limit, or a timer that looks at nothing. */
export const completions = ['voltage', 'timer'] as const;
export type Completion = (typeof completions)[number];

/** A part of a cable’s way with a place of its own; what it does not say is as for the whole cable. */
export const stretchFields = {
  tag,
  lengthM: num('Length', 'm', { usual: [0.02, 60] }),
  ambientC: num('Ambient', '°C', { usual: [-50, 150] }),
  install: choice('Installation', installs),
  grouped: num('Cables that touch', '', { usual: [1, 20] }),
  conduitInnerMm: num('Conduit inside', 'mm', { usual: [5, 150] }),
  conduitOuterMm: num('Conduit outside', 'mm', { usual: [5, 160] }),
};
export interface Stretch extends ItemOf<typeof stretchFields> {}

/** The poles in which a circuit can have a fuse. */
export const fusePoles = ['plus', 'minus', 'both'] as const;

/**
 * A circuit with its chosen parts. The one with role `main` joins pack and bus through the main contactors and feeds
 * the traction inverter; a branch feeds one more device.
 */
export const circuitFields = {
  tag,
  role: chosen('Role', ['main', 'branch']),
  /** What it feeds; the main circuit, when it does not say: the first inverter that no branch feeds. */
  device: refer('Feeds', 'devices', { at: 'network' }),
  /** Which poles its contactors open; absent: both, when it has contactors. */
  poles: choice('Poles of the contactors', polesSwitched, { at: 'network' }),
  /** A branch hangs before the mains, where it is live whenever the pack is, or after them. Absent: after. */
  tap: choice('Hangs before or after the mains', ['before', 'after'], { at: 'network' }),
  ends: choice('Its cables pass the walls', cableEnds, { at: 'network' }),
  /** The box in which a branch's fuse and contactors sit; absent: that of the mains. */
  box: refer('Fuse and contactors sit in', 'boxes', { at: 'network' }),
  contactor: part('Contactors', 'contactor'),
  /** What takes the energy of its contactors’ coils, and the voltage it clamps at. Absent: a plain diode. */
  suppression: choice('Suppression', suppressions),
  clampV: num('Clamps at', 'V', { fallback: 24, usual: [5, 500] }),
  resistor: part('Pre-charge resistor', 'resistor', { at: 'protect/start' }),
  /** Absent: a contactor like the mains. */
  prechargeContactor: part('Pre-charge contactor', 'contactor', { at: 'protect/start' }),
  fuse: part('Fuse', 'fuse'),
  /** Absent: the positive one. */
  fusePole: choice('Pole of the fuse', fusePoles),
  /** From where the circuit is tapped to its fuse: nothing nearer than the fuse upstream looks after it. */
  tapLengthM: num('From the tap to the fuse', 'm', { usual: [0.01, 5] }),
  tapAreaMm2: num('Its area', 'mm²', { usual: [0.35, 300] }),
  cable: part('Cable', 'cable'),
  /** At both ends of its cable, and where the cable goes through a wall. */
  lug: part('Cable lugs', 'lug'),
  gland: part('Gland', 'gland'),
  /** Plug and socket in which its cable ends. */
  plug: part('Plug', 'plug'),
  /** The studs that the lugs go on, M. */
  studMm: num('Stud of the lugs, M', 'mm', { asNamed: true, usual: [3, 20] }),
  parallel: num('In parallel', '', { fallback: 1, usual: [1, 10] }),
  /** Of conductors in parallel: by how much the longest is longer than the shortest. */
  unevenM: num('The longest is longer by', 'm', { fallback: 0, usual: [0, 20] }),
  lengthM: num('Length, one way', 'm', { usual: [0.02, 60] }),
  /** Its way in parts, from the source; absent: one. Their lengths together are the cable’s. */
  stretches: few('Way in parts', 40, stretchFields),
  install: choice('Installation', installs),
  conduitInnerMm: num('Conduit inside', 'mm', { usual: [5, 150] }),
  conduitOuterMm: num('Conduit outside', 'mm', { usual: [5, 160] }),
  ambientC: num('Ambient', '°C', { usual: [-50, 150] }),
  grouped: num('Cables that touch', '', { fallback: 2, usual: [1, 20] }),
  fuseAmbientC: num('Fuse ambient', '°C', { fallback: 25, usual: [-50, 125] }),
  /** Contacts, lugs and bars in the path of the far-end fault, both poles. */
  contactOhm: num('Contacts', 'Ω', {
    shown: { unit: 'mΩ', scale: 0.001 },
    fallback: 0.002,
    usual: [1e-5, 0.1],
  }),
  maxDropFraction: share('Drop allowed', { fallback: 0.02, usual: [0.001, 0.3] }),
  maxClearS: num('Clears within', 's', { fallback: 5, usual: [0.005, 60] }),
  thresholdFraction: share('Threshold', { fallback: 0.95, at: 'protect/start', usual: [0.5, 1] }),
  timeoutS: num('Time limit', 's', { fallback: 3, at: 'protect/start', usual: [0.02, 60] }),
  wantedTimeS: num('Wanted time', 's', { fallback: 0.3, at: 'protect/start', usual: [0.02, 20] }),
  attemptsPerMinute: num('Starts / min', '', { fallback: 3, at: 'protect/start', usual: [0.01, 60] }),
  /** How the contactors follow each other at a start. Absent: one by one. */
  startSchool: choice('Order', startSchools, { at: 'protect/start' }),
  /** What closes the second main. Absent: the bus voltage. */
  completion: choice('The second main is closed by', completions, { at: 'protect/start' }),
  /** The bare timer, from the closed pre-charge contactor. */
  timerS: num('Bare timer', 's', { at: 'protect/start', usual: [0.001, 60] }),
  /** What the inrush flows through when the main closes; absent: pack, cable and contacts. */
  loopResistanceOhm: num('Loop of the inrush', 'Ω', {
    shown: { unit: 'mΩ', scale: 0.001 },
    at: 'protect/start',
    usual: [0.0001, 1],
  }),
  /** Inductance of that loop; absent: none is counted on. */
  loopInductanceH: num('Its inductance', 'H', {
    shown: { unit: 'µH', scale: 1e-6 },
    at: 'protect/start',
    usual: [1e-8, 0.001],
  }),
  /** Whether its cable has a screen, and how that ends at the source and at the device. */
  screened: flag('Screened', { at: 'protect/bonds' }),
  screenFrom: choice('Screen at the source', screenEnds, { at: 'protect/bonds' }),
  screenTo: choice('Screen at the device', screenEnds, { at: 'protect/bonds' }),
  sheath: choice('Sheath', sheaths, { at: 'protect/bonds' }),
  /** One period of the load, repeating: durations in s, currents in A. */
  loadProfile: pairs('Load profile'),
};
export interface CircuitItem extends ItemOf<typeof circuitFields> {}
export const circuitDefaults = defaultsOf(circuitFields);
