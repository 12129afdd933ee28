import type { PartKey } from '../parts';
import type { CableEnds, Poles } from './circuit';
import type { Id } from './id';

export interface ModuleItem {
  tag: string;
  part: PartKey;
  box?: Id;
}

export interface BoxItem {
  tag: string;
  /** Middle of the box in the vehicle frame. */
  xM?: number;
  yM?: number;
  zM?: number;
  lengthM?: number;
  widthM?: number;
  heightM?: number;
  /** Box, brackets, plates and coolant without modules. */
  emptyKg?: number;
  /** Fasteners that hold the box in the vehicle, and the force each is made for. */
  anchors?: number;
  anchorN?: number;
  accessFrom?: AccessFrom;
  vent?: Vent;
  /** Where donor links with their expansion bends are used again: middle to middle of neighbouring modules. */
  linkPitchMm?: number;
  /** The least gap through the air and along a surface between live parts, and to the box. */
  clearanceMm?: number;
  creepageMm?: number;
  /** How dirty it gets in it, and the group of what the ways lead along. */
  pollution?: PollutionDegree;
  material?: MaterialGroup;
}

/** From where hands and tools reach into a box once the vehicle is together. */
export const accessSides = ['above', 'side', 'below', 'none'] as const;
export type AccessFrom = (typeof accessSides)[number];

export const vents = ['filtered', 'open', 'none'] as const;
export type Vent = (typeof vents)[number];

/** By the tracking index of a material along which a creepage way leads: I from 600, II from 400, IIIa from 175, IIIb from 100. */
export const materialGroups = ['I', 'II', 'IIIa', 'IIIb'] as const;
export type MaterialGroup = (typeof materialGroups)[number];
/** How dirty the surroundings of a gap get: 1 sealed, 2 dry dirt and now and then dew, 3 dirt that conducts or often dew. */
export const pollutionDegrees = [1, 2, 3] as const;
export type PollutionDegree = (typeof pollutionDegrees)[number];

export interface StringItem {
  tag: string;
  /** In series order, from the negative end. */
  modules: Id[];
  fuse?: PartKey;
  /** The joint that the fuse takes, 1 between the first and the second module; 0 or absent: the positive end. */
  fuseAt?: number;
  /** The joint that the service disconnect takes, 1 between the first and the second module. */
  disconnectAt?: number;
  /** Contactors of this string alone. */
  contactor?: PartKey;
  contactorPoles?: Poles;
  /** Where they sit: in the box of the string's positive end, or where the strings meet. */
  contactorsIn?: 'string' | 'combiner';
  ends?: CableEnds;
}

/** Where cells are brought level: at full, at empty, or side by side on the bench wherever they are. */
export const balanceSchools = ['top', 'bottom', 'bench'] as const;
export type BalanceSchool = (typeof balanceSchools)[number];

/** How the cells are brought level. */
export interface BalancePlan {
  school?: BalanceSchool;
  /** Where a cell settles when it is level. */
  targetV?: number;
  toleranceV?: number;
  /** What the monitor bleeds, and for which part of the time. */
  bleedCurrentA?: number;
  bleedDutyFraction?: number;
  /** The load that draws a cell down, where it cuts off, where it comes on again, and how long it is on the cell. */
  loadOhm?: number;
  cutOffV?: number;
  engageV?: number;
  drawHours?: number;
  /** A rest of this length is over. */
  restHours?: number;
  /** Places at which cells are drawn down at once. */
  benches?: number;
  people?: number;
  /** To put a cell onto a bench, or take it off. */
  handMinutes?: number;
  /** YYYY-MM-DD in the job's zone. */
  startsAt?: string;
  dayFromH?: number;
  dayToH?: number;
  weekends?: boolean;
  /** Loads may run with nobody there. */
  unattended?: boolean;
  /** From a module to the common bars, both poles. */
  leadOhm?: number;
  /** What such a lead may carry. */
  leadLimitA?: number;
}

/** What covers a bar. */
export const coatings = ['bare', 'dipped', 'powder', 'sleeve'] as const;
export type Coating = (typeof coatings)[number];

/** A flat bar between two studs, drilled at both ends. */
export interface BusbarItem {
  tag: string;
  /** Whose current it carries; absent: `currentA`. */
  circuit?: Id;
  currentA?: number;
  material?: 'copper' | 'aluminium';
  widthMm?: number;
  thicknessMm?: number;
  /** Stud to stud. */
  betweenMm?: number;
  /** Beyond the middle of each stud. */
  overhangMm?: number;
  holeMm?: number;
  /** Of the other end; absent: the same. */
  otherHoleMm?: number;
  /** Length of the flexible section in its middle; 0 or absent: none. */
  flexMm?: number;
  coating?: Coating;
  ambientC?: number;
  /** What it may reach: the stud’s, the module’s or the insulation’s limit. */
  maxC?: number;
}

export interface PackSettings {
  balance?: BalancePlan;
  busbars?: Record<Id, BusbarItem>;
  socLowFraction?: number;
  socHighFraction?: number;
  socForPeakFraction?: number;
  peakCurrentA?: number;
  /** Links of one string together, whatever the number of strings side by side. */
  linkResistanceOhm?: number;
  /** Pack resistance cold over the resistance given. */
  coldResistanceFactor?: number;
  /** Pack resistance warm over the resistance given. */
  warmResistanceFactor?: number;
  /** How far strings in parallel differ in resistance, and in charge when they are joined. */
  stringSpreadFraction?: number;
  stringSocFraction?: number;
  /** Where strings in parallel meet; absent: the box of the mains. */
  combinerBox?: Id;
  /** Where main contactors, pre-charge and bus sit; absent: the box of the first string's positive end. */
  mainsBox?: Id;
  /** Taken off each inner wall of a box, for walls, insulation and clamps. */
  boxMarginMm?: number;
}
