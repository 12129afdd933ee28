import { list, text } from '../../ground/shape';
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
  type Field,
  type ItemOf,
} from './field';
import type { Id } from './id';

/** By what lost flow, and lost coolant, are noticed. */
export const flowNoticed = ['pump’s own signal', 'flow switch', 'temperatures', 'nobody'] as const;
export const coolantNoticed = ['level switch', 'pressure', 'a look at the tank', 'nobody'] as const;

/** Coolant that goes round on its own. */
export const loopFields = {
  tag,
  /** Absent: 50 % glycol in water. */
  coolant: part('Coolant', 'coolant'),
  /** As filled and read; absent: as its parts hold. */
  volumeL: num('Filled with', 'L', { usual: [0.2, 100] }),
  /** Where it is filled and bled. */
  tank: refer('Tank', 'joins'),
  tankL: num('Room in the tank', 'L', { usual: [0.05, 20] }),
  tankReserveFraction: share('Reserve in it', { fallback: 0.2, usual: [0, 1] }),
  /** How the vehicle stands while this loop is filled: on a ramp, or jacked up on a side. */
  fillNoseUpDeg: num('Filled with its nose up by', '°', { fallback: 0, usual: [-30, 30] }),
  fillLeftUpDeg: num('Filled with its left side up by', '°', { fallback: 0, usual: [-30, 30] }),
  lostFlow: choice('Lost flow is noticed by', flowNoticed),
  lostCoolant: choice('Lost coolant is noticed by', coolantNoticed),
  /** Tests of the whole loop in the vehicle. */
  testKPa: num('Tested with', 'kPa', { fallback: 100, usual: [20, 400] }),
  testMinutes: num('Held for', 'min', { fallback: 30, usual: [5, 600] }),
  testDropKPa: num('May fall by', 'kPa', { fallback: 1, usual: [0.1, 20] }),
};
export interface LoopItem extends ItemOf<typeof loopFields> {}
export const loopDefaults = defaultsOf(loopFields);

/** A place at which hoses and parts meet. */
export const joinFields = {
  tag,
  loop: refer('Loop', 'loops'),
  /** A vent screw or hose to the tank lets air out of it. */
  bleed: flag('Air is let out here'),
  xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { usual: [0, 4.5] }),
};
export interface JoinItem extends ItemOf<typeof joinFields> {}

/** What coolant goes through. A jacket is what cools a device or a motor. */
export const plumbingKinds = ['pump', 'hose', 'plate', 'jacket', 'radiator', 'heater', 'valve'] as const;
export type PlumbingKind = (typeof plumbingKinds)[number];

/** What a heater of boxes or coolant is fed by. */
export const heaterFeeds = ['pack', '12 V', 'mains'] as const;
export type HeaterFeed = (typeof heaterFeeds)[number];

/** When something gives off heat. */
export const busyWhen = ['driving', 'charging', 'both'] as const;
/** What switches a pump or a fan. */
export const switchings = ['always', 'driving', 'driving and charging', 'by temperature'] as const;

const modules: Field<Id[], false> = {
  label: 'Cools the modules',
  schema: list.optional(text(), { maxRows: 500 }),
  given: false,
  refersTo: 'modules',
};

/** What of the low voltage feeds a pump or a fan. */
export const fedAs: Field<Id[], false> = {
  label: 'Fed as the loads',
  schema: list.optional(text(), { maxRows: 10 }),
  given: false,
  refersTo: 'loads',
};

export const plumbingFields = {
  tag,
  loop: refer('Loop', 'loops'),
  kind: chosen('Kind', plumbingKinds),
  /** Coolant goes from the first to the second where nothing else pushes it. */
  from: refer('From', 'joins'),
  to: refer('To', 'joins'),
  pump: part('Pump', 'pump'),
  plate: part('Plate', 'plate'),
  radiator: part('Radiator', 'radiator'),
  fan: part('Fan', 'fan'),
  heater: part('Heater', 'heater'),
  /** What feeds a heater; one on the pack is a device of the network. */
  fedFrom: choice('Fed from', heaterFeeds),
  heaterDevice: refer('Is the device', 'devices'),
  hose: part('Hose', 'hose'),
  /** A hose: how long it is, and what its bends and nipples take, in velocity heads. */
  lengthM: num('Length', 'm', { usual: [0.02, 20] }),
  minorK: num('Bends and nipples', '', { fallback: 0, usual: [0, 60] }),
  /** A valve: water at 1 bar when open, and how far it is open. */
  kvM3PerH: num('Flow at 1 bar, open', 'm³/h', { usual: [0.05, 50] }),
  openFraction: share('Open', { fallback: 1, usual: [0, 1] }),
  /** Two coefficients of its own, instead of its part’s: of a sheet, or out of readings. */
  kPaPerLpm: num('Pressure over flow', 'kPa/(L/min)', { usual: [0, 60] }),
  kPaPerLpm2: num('Pressure over its square', 'kPa/(L/min)²', { usual: [0, 60] }),
  /** Flow, L/min, and pressure, kPa, as timed at the bench. */
  readings: pairs('Readings of flow and pressure'),
  modules,
  /** Between cells and plate. */
  fillerMm: num('Filler', 'mm', { fallback: 0.5, usual: [0, 10] }),
  fillerWPerMK: num('Its conductivity', 'W/mK', { fallback: 1.5, usual: [0.1, 20] }),
  /** What a jacket or radiator cools. */
  device: refer('Cools', 'devices'),
  /** Of the power that goes through it, as heat; or watts, where the sheet says so. */
  lossFraction: share('Turns to heat', { usual: [0.001, 0.5] }),
  heatW: num('Gives off', 'W', { usual: [1, 100_000] }),
  busy: choice('Busy while', busyWhen),
  coolantMaxC: num('Its coolant at most', '°C', { usual: [20, 130] }),
  /** Least flow that its maker asks. */
  leastLPerMin: num('At least', 'L/min', { usual: [0.1, 100] }),
  switched: choice('Switched', switchings),
  /** A pump, or a radiator’s fan: what of the low voltage feeds it; one for each time it runs, or one for all. */
  loads: fedAs,
  /** Of a radiator, instead of its part’s: at the flow of air beside it. */
  uaWPerK: num('Heat exchanged per kelvin', 'W/K', { usual: [5, 10_000] }),
  airKgPerS: num('Air through it', 'kg/s', { usual: [0.01, 10] }),
  /** A radiator without a sheet: the size of its core, by which what it exchanges is known as a band. */
  coreWidthMm: num('Core, width', 'mm', { usual: [60, 1500] }),
  coreHeightMm: num('Core, height', 'mm', { usual: [60, 1200] }),
  coreDepthMm: num('Core, depth', 'mm', { usual: [10, 200] }),
  /** A core that stands in front of it: their air is the same, and comes warmed. */
  behind: refer('Stands behind', 'plumbing'),
};
export interface PlumbingItem extends ItemOf<typeof plumbingFields> {}
export const plumbingDefaults = defaultsOf(plumbingFields);

/** A hose that stands in for pieces of the plan until they are there: a stub across a radiator, a hose of the shop. */
export const standInFields = {
  tag,
  loop: refer('Loop', 'loops'),
  /** Pieces that are not there yet; without ends it stands for nothing: they are only left out. */
  instead: {
    label: 'In place of',
    schema: list.optional(text(), { maxRows: 50 }),
    given: false,
    refersTo: 'plumbing',
  } as Field<Id[], false>,
  from: refer('From', 'joins'),
  to: refer('To', 'joins'),
  hose: part('Hose', 'hose'),
  lengthM: num('Length', 'm', { usual: [0.02, 20] }),
  minorK: num('Bends and nipples', '', { fallback: 0, usual: [0, 60] }),
};
export interface StandInItem extends ItemOf<typeof standInFields> {}

/** How the pack is kept in its window: loops of their own for pack and drive, one for all, or none. */
export const coolingSchools = ['own loops', 'one loop', 'no liquid'] as const;

/** What holds for all loops: the worst that they are asked, and what cells may. */
export const coolingFields = {
  school: choice('School', coolingSchools),
  hotC: num('Hottest day', '°C', { fallback: 35, usual: [15, 55] }),
  coldC: num('Coldest night', '°C', { fallback: -10, usual: [-50, 20] }),
  /** A hill that is driven for long. */
  hillGradeFraction: share('Grade', { fallback: 0.05, usual: [0, 0.3] }),
  hillSpeedKmH: num('Speed', 'km/h', { fallback: 40, usual: [5, 130] }),
  /** From a DC station, into the pack. */
  fastChargeW: num('Fast charge', 'W', { shown: { unit: 'kW', scale: 1000 }, usual: [1000, 400_000] }),
  /** Into the pack from the chargers that are built in. */
  chargeW: num('Charge at home', 'W', { shown: { unit: 'kW', scale: 1000 }, usual: [200, 50_000] }),
  /** Drives one after the other on that day. */
  repeats: num('Drives in a row', '', { fallback: 4, usual: [1, 50] }),
  startC: num('Pack before', '°C', { fallback: 25, usual: [-40, 50] }),
  /** Between one day and the next the pack stands, and only loses what passes its walls. */
  nightC: num('Night after it', '°C', { fallback: 20, usual: [-50, 40] }),
  nightH: num('Stands for', 'h', { fallback: 10, usual: [0.5, 72] }),
  cellHeatJPerKgK: num('Specific heat of modules', 'J/kgK', { fallback: 1000, usual: [500, 1500] }),
  /** Absent: usual for the chemistry. */
  cellMaxC: num('Cells at most', '°C', { usual: [30, 65] }),
  cellChargeMinC: num('Charged from', '°C', { usual: [-20, 15] }),
  onAboveC: num('Cooling on above', '°C', { fallback: 30, usual: [15, 45] }),
  offBelowC: num('off below', '°C', { fallback: 27, usual: [10, 42] }),
};
export interface CoolingSettings extends ItemOf<typeof coolingFields> {}
export const coolingDefaults = defaultsOf(coolingFields);

/** Where people sit: what keeps it warm and its screen clear in the coldest night. */
export const cabinFields = {
  wantedC: num('Wanted inside', '°C', { fallback: 18, usual: [5, 28] }),
  glassM2: num('Glass', 'm²', { usual: [0.5, 30] }),
  glassWPerM2K: num('Glass passes', 'W/m²K', { fallback: 5.8, usual: [1, 7] }),
  bodyM2: num('Walls, roof and floor', 'm²', { usual: [2, 150] }),
  bodyWPerM2K: num('They pass', 'W/m²K', { fallback: 2.5, usual: [0.3, 7] }),
  /** Drawn in from outside; what only goes round takes no heat and no damp away. */
  freshM3PerH: num('Fresh air', 'm³/h', { usual: [5, 1500] }),
  people: num('People in it', '', { fallback: 1, usual: [0, 80] }),
  /** On the screen: by its blower inside, by the drive outside. */
  insideWPerM2K: num('Blower on the screen carries', 'W/m²K', { fallback: 15, usual: [5, 60] }),
  outsideWPerM2K: num('Wind outside carries', 'W/m²K', { fallback: 50, usual: [10, 120] }),
  heater: refer('Heated by', 'devices'),
};
export interface CabinSettings extends ItemOf<typeof cabinFields> {}
export const cabinDefaults = defaultsOf(cabinFields);

/** What cells stand at most, and from where they are charged, °C, where the design does not say: usual ones of the trade. */
export const usualCellLimits = {
  NMC: { maxC: 45, chargeMinC: 0 },
  LFP: { maxC: 50, chargeMinC: 0 },
  LMO: { maxC: 45, chargeMinC: 0 },
} as const;

/** Walls of a box, from inside to outside. */
export const wallFields = {
  thicknessMm: num('Thickness', 'mm', { usual: [0.3, 200] }),
  conductivityWPerMK: num('Conductivity', 'W/mK', { usual: [0.01, 400] }),
};
export const walls = few('Walls', 12, wallFields);
export const ventWays = ['outside', 'cabin'] as const;
