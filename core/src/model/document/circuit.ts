import type { PartKey } from '../parts';
import type { ScreenEnd, Sheath } from './joints';
import type { Id } from './id';

/** Which poles a pair of contactors opens. */
export const polesSwitched = ['both', 'plus', 'minus', 'none'] as const;
export type Poles = (typeof polesSwitched)[number];

/** How a cable passes the walls it ends at. */
export const cableEnds = ['interlocked', 'plain', 'gland'] as const;
export type CableEnds = (typeof cableEnds)[number];

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

/** Something on the bus behind the main contactors. */
export interface DeviceItem {
  tag: string;
  kind: DeviceKind;
  minV?: number;
  maxV?: number;
  busCapacitanceF?: number;
  /** A bleed resistor inside it that is always on. */
  bleedOhm?: number;
  /** A resistor that is switched across the bus at shut-down alone. */
  activeOhm?: number;
  /** Whether that resistor still stands on the bus while it fills; it should not. */
  activeWhileFilling?: boolean;
  /** What it draws while the bus is being pre-charged, as a resistance; absent: nothing. */
  prechargeLoadOhm?: number;
  /** A heater of plain resistance: the power it is rated for, and at which voltage. */
  ratedPowerW?: number;
  ratedVoltageV?: number;
  /** A charger: whether something in it parts the pack from the mains, whether it ends by a voltage of its own. */
  isolation?: 'isolated' | 'none';
  ownCutOff?: boolean;
  /** A charger that runs with nobody there. */
  unattended?: boolean;
  /** An insulation monitor in it: active ones send a signal of their own into the network. */
  insulationMonitor?: 'active' | 'passive';
}

/** The kinds of parts that a circuit has one of. */
export const circuitPartKinds = ['contactor', 'resistor', 'fuse', 'cable', 'lug', 'gland'] as const;
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

export type Install = 'free-air' | 'steel-conduit';

/** A part of a cable’s way with a place of its own; what it does not say is as for the whole cable. */
export interface Stretch {
  tag: string;
  lengthM?: number;
  ambientC?: number;
  install?: Install;
  grouped?: number;
  conduitInnerMm?: number;
  conduitOuterMm?: number;
}

/**
 * A circuit with its chosen parts. The one with role `main` joins pack and bus through the main contactors and feeds
 * the traction inverter; a branch feeds one more device.
 */
export interface CircuitItem {
  tag: string;
  role: 'main' | 'branch';
  /** What it feeds; the main circuit, when it does not say: the first inverter that no branch feeds. */
  device?: Id;
  /** Which poles its contactors open; absent: both, when it has contactors. */
  poles?: Poles;
  /** A branch hangs before the mains, where it is live whenever the pack is, or after them. Absent: after. */
  tap?: 'before' | 'after';
  ends?: CableEnds;
  /** The box in which a branch's fuse and contactors sit; absent: that of the mains. */
  box?: Id;
  contactor?: PartKey;
  /** What takes the energy of its contactors’ coils, and the voltage it clamps at. Absent: a plain diode. */
  suppression?: Suppression;
  clampV?: number;
  resistor?: PartKey;
  fuse?: PartKey;
  cable?: PartKey;
  /** At both ends of its cable, and where the cable goes through a wall. */
  lug?: PartKey;
  gland?: PartKey;
  /** The studs that the lugs go on, M. */
  studMm?: number;
  parallel?: number;
  /** Of conductors in parallel: by how much the longest is longer than the shortest. */
  unevenM?: number;
  lengthM?: number;
  /** Its way in parts, from the source; absent: one. Their lengths together are the cable’s. */
  stretches?: Stretch[];
  install?: Install;
  conduitInnerMm?: number;
  conduitOuterMm?: number;
  ambientC?: number;
  grouped?: number;
  fuseAmbientC?: number;
  /** Contacts, lugs and bars in the path of the far-end fault, both poles. */
  contactOhm?: number;
  maxDropFraction?: number;
  maxClearS?: number;
  thresholdFraction?: number;
  timeoutS?: number;
  wantedTimeS?: number;
  attemptsPerMinute?: number;
  /** How the contactors follow each other at a start. Absent: one by one. */
  startSchool?: StartSchool;
  /** What closes the second main. Absent: the bus voltage. */
  completion?: Completion;
  /** The bare timer, from the closed pre-charge contactor. */
  timerS?: number;
  /** What the inrush flows through when the main closes; absent: pack, cable and contacts. */
  loopResistanceOhm?: number;
  /** Inductance of that loop; absent: none is counted on. */
  loopInductanceH?: number;
  /** Whether its cable has a screen, and how that ends at the source and at the device. */
  screened?: boolean;
  screenFrom?: ScreenEnd;
  screenTo?: ScreenEnd;
  sheath?: Sheath;
  /** One period of the load, repeating. */
  loadProfile?: [durationS: number, currentA: number][];
}
