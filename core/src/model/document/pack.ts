import { list, text } from '../../ground/shape';
import type { PartKey } from '../parts';
import { cableEnds, installs, polesSwitched } from './choices';
import {
  choice,
  defaultsOf,
  flag,
  maybeMany,
  maybeOne,
  num,
  part,
  refer,
  share,
  tag,
  words,
  type Field,
  type ItemOf,
} from './field';
import { fedAs, heaterFeeds, switchings, ventWays, walls } from './cooling';
import type { Id } from './id';

/** A module in its place. */
export const moduleFields = {
  tag,
  part: { ...part('Kind', 'module'), schema: text(), given: true } as Field<PartKey, true>,
  box: refer('Box', 'boxes'),
  /** Proposals leave it in its box. */
  stays: flag('Stays in its box'),
  /** Where its positive post comes to lie, seen along its row; neighbours that are joined straight across alternate. */
  plusSide: choice('Positive post', ['left', 'right']),
};
export interface ModuleItem extends ItemOf<typeof moduleFields> {}

/** From where hands and tools reach into a box once the vehicle is together. */
export const accessSides = ['above', 'side', 'below', 'none'] as const;
export type AccessFrom = (typeof accessSides)[number];

export const vents = ['filtered', 'open', 'none'] as const;
export type Vent = (typeof vents)[number];

/** What insulates a box of metal inside: it is seen and measured before a module goes in. */
export const coats = ['powder', 'paint', 'liner', 'none'] as const;

/** By the tracking index of a material along which a creepage way leads: I from 600, II from 400, IIIa from 175, IIIb from 100. */
export const materialGroups = ['I', 'II', 'IIIa', 'IIIb'] as const;
export type MaterialGroup = (typeof materialGroups)[number];
/** How dirty the surroundings of a gap get: 1 sealed, 2 dry dirt and now and then dew, 3 dirt that conducts or often dew. */
export const pollutionDegrees = [1, 2, 3] as const;
export type PollutionDegree = (typeof pollutionDegrees)[number];

export const boxFields = {
  tag,
  /** Middle of the box in the vehicle frame. */
  xM: num('Ahead of the front axle', 'm', { usual: [-20, 6] }),
  yM: num('Left of the middle', 'm', { usual: [-2, 2] }),
  zM: num('Above the ground', 'm', { usual: [0, 4.5] }),
  lengthM: num('Length', 'm', { usual: [0.05, 6] }),
  widthM: num('Width', 'm', { usual: [0.05, 3] }),
  heightM: num('Height', 'm', { usual: [0.03, 2.5] }),
  /** Box, brackets and bars, without modules, coolant and what it flows through. */
  emptyKg: num('Mass without modules', 'kg', { usual: [0.2, 1500] }),
  /** Fasteners that hold the box in the vehicle, and the force each is made for. */
  anchors: num('Anchors', '', { usual: [1, 100] }),
  anchorN: num('Each is made for', 'N', { usual: [200, 300000] }),
  /** Levels above its floor on which modules stand, what one takes of the height, and the force it is made for. */
  shelves: num('Shelves', '', { usual: [0, 10] }),
  shelfMm: num('A shelf takes', 'mm', { fallback: 0, usual: [0, 100] }),
  shelfN: num('Each shelf is made for', 'N', { usual: [50, 200000] }),
  /** Points at which it is lifted full, the load each is made for, and the slings’ lean from the upright. */
  liftPoints: num('Lifting points', '', { usual: [0, 8] }),
  liftKg: num('Each is made to lift', 'kg', { usual: [20, 20000] }),
  slingDeg: num('Slings lean by', '°', { fallback: 45, usual: [0, 60] }),
  /** Between the outer points along the box; absent: as long as the box. */
  liftSpanM: num('Points apart, along', 'm', { usual: [0.05, 6] }),
  accessFrom: choice('Reached from', accessSides),
  vent: choice('Vent', vents),
  coat: choice('Coat inside', coats),
  /** Where gas of a cell that fails would go. */
  ventTo: choice('Its gas goes', ventWays, { at: 'cool/cold' }),
  /** Thermal: walls, what warms it, and a fan that blows outside air through it. */
  walls: { ...walls, at: 'cool/cold' as const },
  /** Of its outside what has no insulation, and what bolts, feet and ports pass beside the walls. */
  bareM2: num('Of its outside without insulation', 'm²', { fallback: 0, at: 'cool/cold', usual: [0, 20] }),
  bridgeWPerK: num('Bolts, feet and ports pass', 'W/K', { fallback: 0, at: 'cool/cold', usual: [0, 60] }),
  /** Insulation that modules stand on: it carries them. */
  floorM2: num('Modules stand on insulation of', 'm²', { at: 'cool/cold', usual: [0.01, 10] }),
  floorKPa: num('It bears', 'kPa', { at: 'cool/cold', usual: [1, 5000] }),
  heater: part('Heater', 'heater', { at: 'cool/cold' }),
  heaterVoltage: choice('Heater fed from', heaterFeeds, { at: 'cool/cold' }),
  /** On the pack it is a device of the network; on the low voltage, fed as these loads. */
  heaterDevice: refer('Its heater is the device', 'devices', { at: 'cool/cold' }),
  heaterLoads: { ...fedAs, label: 'Heater fed as the loads', at: 'cool/cold' as const },
  /** As measured in place; counts instead of what its sheet gives. */
  heaterW: num('Heater gives, measured', 'W', { at: 'cool/cold', usual: [5, 20_000] }),
  fan: part('Fan', 'fan', { at: 'cool/worst' }),
  fanSwitched: choice('Fan switched', switchings, { at: 'cool/worst' }),
  fanLoads: { ...fedAs, label: 'Fan fed as the loads', at: 'cool/worst' as const },
  /** Against filter and gaps a fan moves less than its sheet says in the open; as measured, it counts instead. */
  airShareFraction: share('Of the fan’s open air', { fallback: 0.6, at: 'cool/worst', usual: [0.1, 1] }),
  airKgPerS: num('Air through it, measured', 'kg/s', { at: 'cool/worst', usual: [0.002, 3] }),
  /** What of the modules lies in the stream, and what goes over from it. */
  airAreaM2: num('Faces of modules in the stream', 'm²', { at: 'cool/worst', usual: [0.02, 50] }),
  airFilmWPerM2K: num('From faces to air', 'W/m²K', { fallback: 15, at: 'cool/worst', usual: [4, 100] }),
  /** Where donor links with their expansion bends are used again: middle to middle of neighbouring modules. */
  linkPitchMm: num('Pitch of donor links', 'mm', { usual: [10, 1000] }),
  /** The least gap through the air and along a surface between live parts, and to the box. */
  clearanceMm: num('Clearance', 'mm', { at: 'protect/bonds', usual: [0.05, 100] }),
  creepageMm: num('Creepage', 'mm', { at: 'protect/bonds', usual: [0.05, 200] }),
  /** The least of both from live parts to 12 or 24 V circuits in the box. */
  lowVoltageGapMm: num('Clearance to low voltage', 'mm', { at: 'protect/bonds', usual: [0.05, 1000] }),
  lowVoltageCreepMm: num('Creepage to low voltage', 'mm', { at: 'protect/bonds', usual: [0.05, 1000] }),
  /** How dirty it gets in it, and the group of what the ways lead along. */
  pollution: choice('Pollution degree', pollutionDegrees, { at: 'protect/bonds' }),
  material: choice('Material group', materialGroups, { at: 'protect/bonds' }),
};
export interface BoxItem extends ItemOf<typeof boxFields> {}
export const boxDefaults = defaultsOf(boxFields);

export const stringFields = {
  tag,
  /** In series order, from the negative end. */
  modules: {
    label: 'Modules',
    schema: list(text()),
    given: true,
    refersTo: 'modules',
  } as Field<Id[], true>,
  fuse: part('Fuse', 'fuse', { at: 'network' }),
  /** The joint that the fuse takes, 1 between the first and the second module; 0 or absent: the positive end. */
  fuseAt: num('Joint of the fuse', '', { at: 'network' }),
  /** Where its fuse sits; absent: as hot as the main fuse. */
  fuseAmbientC: num('Fuse ambient', '°C', { at: 'protect/strings', usual: [-50, 125] }),
  /** The joint that the service disconnect takes, 1 between the first and the second module. */
  disconnectAt: num('Joint of the service disconnect', '', { at: 'network' }),
  disconnect: part('Service disconnect', 'disconnect', { at: 'network' }),
  /** Contactors of this string alone. */
  contactor: part('Contactors', 'contactor', { at: 'network' }),
  contactorPoles: choice('Poles of the contactors', polesSwitched, { at: 'network' }),
  /** Where they sit: in the box of the string's positive end, or where the strings meet. */
  contactorsIn: choice('The contactors sit', ['string', 'combiner'], { at: 'network' }),
  ends: choice('Its cables pass the walls', cableEnds, { at: 'network' }),
};
export interface StringItem extends ItemOf<typeof stringFields> {}

/** Where cells are brought level: at full, at empty, or side by side on the bench wherever they are. */
export const balanceSchools = ['top', 'bottom', 'bench'] as const;
export type BalanceSchool = (typeof balanceSchools)[number];

/** How the cells are brought level. */
export const balanceFields = {
  school: choice('School', balanceSchools),
  /** Where a cell settles when it is level. */
  targetV: num('Cells level at', 'V', { usual: [1.5, 4.5] }),
  toleranceV: num('Give or take', 'V', {
    shown: { unit: 'mV', scale: 0.001 },
    fallback: 0.005,
    usual: [0.0005, 0.2],
  }),
  /** What the monitor bleeds, and for which part of the time. */
  bleedCurrentA: num('Monitor bleeds', 'A', { usual: [0, 10] }),
  bleedDutyFraction: share('Of the time', { fallback: 1, usual: [0.01, 1] }),
  /** The load that draws a cell down, where it cuts off, where it comes on again, and how long it is on the cell. */
  loadOhm: num('Resistor', 'Ω', { shown: { unit: 'mΩ', scale: 0.001 }, usual: [0.01, 500] }),
  cutOffV: num('Cuts off at', 'V', { usual: [1, 4.5] }),
  engageV: num('On again at', 'V', { usual: [1, 4.5] }),
  drawHours: num('On each cell', 'h', { usual: [0.02, 500] }),
  /** A rest of this length is over. */
  restHours: num('A rest is over after', 'h', { fallback: 72, usual: [0.1, 1000] }),
  /** Places at which cells are drawn down at once. */
  benches: num('Benches', '', { fallback: 1, usual: [1, 100] }),
  people: num('People', '', { fallback: 1, usual: [1, 50] }),
  /** To put a cell onto a bench, or take it off. */
  handMinutes: num('On or off takes', 'min', { fallback: 10, usual: [0.1, 240] }),
  /** YYYY-MM-DD in the job's zone. */
  startsAt: words('First day'),
  dayFromH: num('The day from', 'h', { fallback: 8 }),
  dayToH: num('The day to', 'h', { fallback: 17 }),
  weekends: flag('Also on weekends'),
  /** Loads may run with nobody there. */
  unattended: flag('May run with nobody there'),
  /** From a module to the common bars, both poles. */
  leadOhm: num('Lead of a module', 'Ω', { shown: { unit: 'mΩ', scale: 0.001 }, usual: [1e-5, 1] }),
  /** What such a lead may carry. */
  leadLimitA: num('It may carry', 'A', { usual: [0.1, 500] }),
};
export interface BalancePlan extends ItemOf<typeof balanceFields> {}
export const balanceDefaults = defaultsOf(balanceFields);

/** What covers a bar. */
export const coatings = ['bare', 'dipped', 'powder', 'sleeve'] as const;
export type Coating = (typeof coatings)[number];

/** A flat bar between two studs, drilled at both ends. */
export const busbarFields = {
  tag,
  /** Whose current it carries; absent: `currentA`. */
  circuit: refer('Carries the current of', 'circuits'),
  currentA: num('Current', 'A', { usual: [0.1, 3000] }),
  material: choice('Metal', ['copper', 'aluminium']),
  widthMm: num('Width', 'mm', { usual: [3, 200] }),
  thicknessMm: num('Thickness', 'mm', { usual: [0.5, 30] }),
  /** Stud to stud. */
  betweenMm: num('Stud to stud', 'mm', { usual: [5, 5000] }),
  /** Beyond the middle of each stud. */
  overhangMm: num('Beyond each stud', 'mm', { usual: [3, 100] }),
  holeMm: num('Hole', 'mm', { usual: [3, 30] }),
  /** Of the other end; absent: the same. */
  otherHoleMm: num('Other hole', 'mm', { usual: [3, 30] }),
  /** Length of the flexible section in its middle; 0 or absent: none. */
  flexMm: num('Flexible section', 'mm', { usual: [0, 2000] }),
  coating: choice('Covered', coatings),
  ambientC: num('Ambient', '°C', { usual: [-40, 130] }),
  /** What it may reach: the stud’s, the module’s or the insulation’s limit. */
  maxC: num('May reach', '°C', { usual: [40, 250] }),
};
export interface BusbarItem extends ItemOf<typeof busbarFields> {}

/** Where a thin lead is fused: at the cell it is tapped from, at the monitor, nowhere. */
export const senseFusings = ['tap', 'monitor', 'none'] as const;

/** Sense leads of one make, of a string or of all of them. */
export const senseLeadFields = {
  tag,
  string: refer('Of string', 'strings'),
  areaMm2: num('Area', 'mm²', { usual: [0.05, 4] }),
  /** What a lead may carry; absent: by its area. */
  carriesA: num('May carry', 'A', { usual: [0.1, 40] }),
  fused: choice('Fused', senseFusings),
  fuseA: num('Fuse', 'A', { usual: [0.05, 20] }),
  fuseV: num('Made for', 'V', { usual: [12, 1500] }),
};
export interface SenseLeads extends ItemOf<typeof senseLeadFields> {}

/** A cable inside the pack: between modules in two boxes, from a string’s end to where strings meet, from there to the mains. */
export const leadFields = {
  tag,
  /** Absent: it carries the whole pack, from where the strings meet to the mains. */
  string: refer('Of string', 'strings'),
  /** 1 between the first and the second module; 0: at the negative end, as many as modules: at the positive; absent: one at either end. */
  joint: num('Joint', ''),
  cable: part('Cable', 'cable'),
  parallel: num('In parallel', '', { fallback: 1, usual: [1, 10] }),
  lengthM: num('Length', 'm', { usual: [0.02, 60] }),
  install: choice('Installation', installs),
  conduitInnerMm: num('Conduit inside', 'mm', { usual: [5, 150] }),
  conduitOuterMm: num('Conduit outside', 'mm', { usual: [5, 160] }),
  ambientC: num('Ambient', '°C', { usual: [-50, 150] }),
  grouped: num('Cables that touch', '', { fallback: 2, usual: [1, 20] }),
  lug: part('Cable lugs', 'lug'),
  gland: part('Gland', 'gland'),
  studMm: num('Stud of the lugs, M', 'mm', { asNamed: true, usual: [3, 20] }),
  /** Its lugs and what they are clamped to, both ends. */
  contactOhm: num('Contacts', 'Ω', {
    shown: { unit: 'mΩ', scale: 0.001 },
    fallback: 0.0001,
    usual: [1e-5, 0.1],
  }),
};
export interface LeadItem extends ItemOf<typeof leadFields> {}
export const leadDefaults = defaultsOf(leadFields);

export const packFields = {
  balance: maybeOne('Balancing', 'pack/balance', balanceFields),
  busbars: maybeMany('Bus bars', 'protect/joints', busbarFields),
  leads: maybeMany('Cables of the pack', 'protect/leads', leadFields),
  sense: maybeMany('Sense leads', 'protect/leads', senseLeadFields),
  socLowFraction: share('Used from'),
  socHighFraction: share('Used to'),
  socForPeakFraction: share('Peak judged at', { fallback: 0.5 }),
  peakCurrentA: num('Peak current', 'A', { usual: [1, 3000] }),
  /** What flows into the pack: while braking, for seconds, and from what charges it, for hours. */
  regenPeakA: num('Braking sends back', 'A', { usual: [0, 3000] }),
  chargeA: num('Charged with', 'A', { usual: [0.1, 2000] }),
  /** Links of one string together, whatever the number of strings side by side. */
  linkResistanceOhm: num('Links of one string', 'Ω', {
    shown: { unit: 'mΩ', scale: 0.001 },
    fallback: 0,
    usual: [0, 0.5],
  }),
  /** Pack resistance cold over the resistance given. */
  coldResistanceFactor: num('Resistance of a cold pack, times', '', {
    fallback: 2.5,
    at: 'protect/circuits',
    usual: [0.5, 10],
  }),
  /** Pack resistance warm over the resistance given. */
  warmResistanceFactor: num('Resistance of a warm pack, times', '', {
    fallback: 0.8,
    at: 'protect/circuits',
    usual: [0.3, 3],
  }),
  /** How far strings in parallel differ in resistance, and in charge when they are joined. */
  stringSpreadFraction: share('Resistance differs by ±', {
    fallback: 0.1,
    at: 'protect/strings',
    usual: [0, 0.6],
  }),
  stringSocFraction: share('Charge when joined differs by', {
    fallback: 0.02,
    at: 'protect/strings',
    usual: [0, 0.3],
  }),
  /** Where strings in parallel meet; absent: the box of the mains. */
  combinerBox: refer('Strings meet in', 'boxes', { at: 'network' }),
  /** Where main contactors, pre-charge and bus sit; absent: the box of the first string's positive end. */
  mainsBox: refer('Mains sit in', 'boxes', { at: 'network' }),
  /** Taken off each inner wall of a box, for walls, insulation and clamps. */
  boxMarginMm: num('Off each inner wall', 'mm', { fallback: 20, at: 'pack/arrange', usual: [0, 200] }),
};
export interface PackSettings extends ItemOf<typeof packFields> {}
export const packDefaults = defaultsOf(packFields);
