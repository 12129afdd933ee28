import { record, table, text } from '../../ground/calculator';
import { chosen, defaultsOf, choice, num, other, share, tag, words, type ItemOf } from './field';

export const cycleChoices = ['town', 'country', 'motorway', 'hill', 'burst', 'own'] as const;
export type CycleChoice = (typeof cycleChoices)[number];

/** Speeds over time, of a cycle of the vehicle’s own. */
export interface OwnCycle {
  tag: string;
  points: [timeS: number, speedKmH: number][];
}

/** Everything may be absent: what is not decided yet is not stored. */
export const vehicleFields = {
  make: words('Make'),
  model: words('Model'),
  year: num('Year', ''),
  wheelbaseM: num('Wheelbase', 'm'),
  lengthM: num('Length', 'm'),
  /** Front of the vehicle to the front axle. */
  frontOverhangM: num('Front overhang', 'm'),
  heightM: num('Height', 'm'),
  wheelDiameterM: num('Wheel diameter', 'm'),
  /** Axle loads before the work, as weighed. */
  frontKg: num('Front axle load before', 'kg'),
  rearKg: num('Rear axle load before', 'kg'),
  frontLimitKg: num('Front axle limit', 'kg'),
  rearLimitKg: num('Rear axle limit', 'kg'),
  grossLimitKg: num('Gross limit', 'kg'),
  whPerKmPerKg: num('Mass rule, per kg', 'Wh/km', { fallback: 0.14 }),
  speedKmH: num('Steady speed', 'km/h'),
  rollingCoefficient: num('Rolling coefficient', ''),
  dragAreaM2: num('Drag area', 'm²'),
  airDensityKgM3: num('Density of the air', 'kg/m³'),
  gradeFraction: share('Grade', { fallback: 0 }),
  drivetrainEfficiency: share('Drive efficiency'),
  accessoriesW: num('Accessories', 'W'),
  wantedRangeKm: num('Range wanted', 'km'),
  /** Speeds of a drive cycle above it are driven at it. */
  topSpeedKmH: num('Driven at most at', 'km/h'),
  regenFraction: share('Braking recovered', { fallback: 0.6 }),
  rotatingMassFraction: share('Turns with the wheels', { fallback: 0.05 }),
  /** The drive cycle in use: one that ships, or the vehicle’s own. */
  cycle: choice('Drive cycle', cycleChoices),
  ownCycle: other<OwnCycle>(
    'Own drive cycle',
    record.optional({ tag: text(), points: table({ columns: [{}, {}], maxRows: 20_000 }) }),
  ),
};
export interface Vehicle extends ItemOf<typeof vehicleFields> {}
export const vehicleDefaults = defaultsOf(vehicleFields);

/** A mass that is taken out of the vehicle or put into it, apart from the battery boxes. */
export const massFields = {
  tag,
  change: chosen('Taken out or put in', ['out', 'in']),
  massKg: num('Mass', 'kg'),
  xM: num('Ahead of the front axle', 'm'),
  zM: num('Above the ground', 'm'),
  lengthM: num('Length', 'm'),
  heightM: num('Height', 'm'),
};
export interface MassItem extends ItemOf<typeof massFields> {}
