import { residualKinds, stationLinks, tripCurves } from '../parts';
import { choice, chosen, defaultsOf, flag, num, part, refer, share, tag, words, type ItemOf } from './field';

/** Roles of thresholds: the upper chain from the top, then the lower one. */
export const thresholdRoles = [
  'absolute-max',
  'independent-cut',
  'bms-cut-high',
  'bms-warn-high',
  'charger-end',
  'balance-start',
  'regen-limit',
  'inverter-derate',
  'inverter-cut',
  'bms-warn-low',
  'bms-cut-low',
  'absolute-min',
] as const;
export type ThresholdRole = (typeof thresholdRoles)[number];
export const thresholdLevels = ['cell', 'pack'] as const;

/** Where current for charging comes from. */
export const supplyKinds = ['socket', 'wall box', 'station'] as const;
export type SupplyKind = (typeof supplyKinds)[number];

/** What lies before the breaker of a supply: a breaker by its curve, or a fuse. */
export const upstreamKinds = [...tripCurves, 'gG fuse'] as const;

/** A place at which the vehicle is charged. */
export const supplyFields = {
  tag,
  kind: chosen('Kind', supplyKinds),
  phases: choice('Phases', [1, 3]),
  phaseVoltageV: num('Phase against neutral', 'V', { fallback: 230, usual: [100, 280] }),
  /** What its pilot offers; a socket has none. */
  offersA: num('Pilot offers', 'A', { usual: [6, 80] }),
  /** Of a cable that is not fixed: what codes it. */
  cableOhm: num('Coding of the cable', 'Ω', { usual: [90, 1700] }),
  breaker: part('Breaker', 'breaker'),
  breakerA: num('Breaker', 'A', { usual: [6, 125] }),
  /** Typed, these hold instead of the breaker’s. */
  trip: choice('Trips by curve', tripCurves),
  residual: choice('Residual current', residualKinds),
  /** Of the breaker, for hours on end. */
  continuousFraction: share('Of the breaker, for hours', { fallback: 1, usual: [0.5, 1] }),
  /** Breaker or fuse before it, at the board or the meter. */
  upstreamA: num('Breaker or fuse before it', 'A', { usual: [10, 400] }),
  upstreamTrip: choice('That one is', upstreamKinds),
  /** Prospective short circuit where its breaker sits: measured by an electrician, or as the network says. */
  faultA: num('Short circuit there', 'A', { shown: { unit: 'kA', scale: 1000 }, usual: [150, 50_000] }),
  /** What else hangs on the phases and starts before the chargers. */
  otherA: num('Other loads, each phase', 'A', { fallback: 0, usual: [0, 63] }),
  /** What hangs on one phase alone, beside that. */
  other1A: num('Beside that on L1', 'A', { fallback: 0, usual: [0, 63] }),
  other2A: num('Beside that on L2', 'A', { fallback: 0, usual: [0, 63] }),
  other3A: num('Beside that on L3', 'A', { fallback: 0, usual: [0, 63] }),
  /** Of a station. */
  minV: num('Station from', 'V', { usual: [0, 1000] }),
  maxV: num('Station up to', 'V', { usual: [50, 1500] }),
  maxA: num('Station at most', 'A', { usual: [5, 1000] }),
  maxW: num('Station at most', 'W', { shown: { unit: 'kW', scale: 1000 }, usual: [1000, 1_000_000] }),
  /** How far it is charged there; absent: the window of the pack, at a station 10 to 80 %. */
  fromFraction: share('Charged from', { usual: [0, 0.95] }),
  toFraction: share('Charged to', { usual: [0.05, 1] }),
  /** Through which inlet; absent: the one that suits it. */
  inlet: refer('Through the inlet', 'inlets'),
};
export interface SupplyItem extends ItemOf<typeof supplyFields> {}
export const supplyDefaults = defaultsOf(supplyFields);

export const inletCurrents = ['mains', 'station', 'both'] as const;
export const inletLocks = ['motor', 'latch', 'none'] as const;
export const inletReleases = ['by hand, from outside', 'by hand, from inside', 'none'] as const;

/** Where it is plugged in. */
export const inletFields = {
  tag,
  current: chosen('Takes', inletCurrents),
  inlet: part('Inlet', 'inlet'),
  /** The device of the diagram that its DC contacts are. */
  device: refer('Its DC contacts', 'devices'),
  /** Typed, it holds instead of the part’s. */
  ratedA: num('Carries, of the mains', 'A', { usual: [6, 80] }),
  stationA: num('Carries, of a station', 'A', { usual: [20, 1000] }),
  /** Of its wires to the chargers. */
  wireA: num('Wires to the chargers carry', 'A', { usual: [6, 125] }),
  /** Absent: as the phases. */
  neutralA: num('Their neutral carries', 'A', { usual: [6, 125] }),
  sensors: num('Temperature sensors', '', { usual: [0, 8] }),
  lock: choice('Lock', inletLocks),
  lockReadBack: flag('Its position is read before current flows'),
  release: choice('Release when the lock fails', inletReleases),
  driveInhibit: flag('Drive is blocked while it is plugged in'),
  /** What answers its pilot; absent: the charger does so itself. */
  controller: part('Charge controller', 'controller'),
  /** What the stations that it is for talk by. */
  stationLink: choice('Stations talk by', stationLinks),
  /** Monitor, charger, converter, cooling: what has to wake when it is plugged in. */
  wakes: num('Devices to wake', '', { usual: [0, 20] }),
  /** Of its own contactors, before and after each charge. */
  weldCheck: flag('Contactors are checked for welding'),
  monitorPauses: flag('Own insulation monitor pauses at a station'),
};
export interface InletItem extends ItemOf<typeof inletFields> {}

export const cutOpens = ['feed of the mains', 'enable of the charger', 'contactors of the pack'] as const;

/** Something that ends a charge when the charger does not, by a way of its own. */
export const cutFields = {
  tag,
  opens: choice('Opens', cutOpens),
  level: choice('Reads', thresholdLevels),
  voltageV: num('Opens at', 'V', { usual: [1, 1000] }),
  opensUnpowered: flag('Open without power'),
  everyPhase: flag('Parts every phase'),
  latches: flag('Stays open until it is armed again'),
  armedAt: words('Armed again at'),
};
export interface CutItem extends ItemOf<typeof cutFields> {}

/** What the monitor is set to, by the cell. */
export const limitFields = {
  cutHighV: num('Cuts above', 'V', { usual: [2, 4.6] }),
  warnHighV: num('Warns above', 'V', { usual: [2, 4.6] }),
  balanceFromV: num('Balances from', 'V', { usual: [2, 4.6] }),
  warnLowV: num('Warns below', 'V', { usual: [1, 4] }),
  cutLowV: num('Cuts below', 'V', { usual: [1, 4] }),
  /** Between the highest and the lowest cell, before it warns. */
  spreadMv: num('Spread of cells allowed', 'mV', { fallback: 50, usual: [2, 200] }),
  chargeByTemperature: flag('Holds the charge to what cells take at their temperature'),
};
export interface LimitSettings extends ItemOf<typeof limitFields> {}
export const limitDefaults = defaultsOf(limitFields);

/** A threshold that no other field of the design holds. */
export const thresholdFields = {
  tag,
  role: chosen('Role', thresholdRoles),
  level: choice('Reads', thresholdLevels),
  voltageV: num('At', 'V', { usual: [1, 1000] }),
  device: refer('Lives in', 'devices'),
};
export interface ThresholdItem extends ItemOf<typeof thresholdFields> {}

/** What holds for charging as a whole. */
export const chargingFields = {
  marginMv: num('Between steps of the ladder', 'mV', { fallback: 10, at: 'charge/ladder', usual: [1, 200] }),
};
export interface ChargingSettings extends ItemOf<typeof chargingFields> {}
export const chargingDefaults = defaultsOf(chargingFields);
