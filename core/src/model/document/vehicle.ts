import { record, table, text } from '../../ground/shape';
import { chosen, defaultsOf, choice, flag, num, other, share, tag, words, type ItemOf } from './field';

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
  year: num('Year', '', { usual: [1900, 2100] }),
  wheelbaseM: num('Wheelbase', 'm', { usual: [1, 8] }),
  lengthM: num('Length', 'm', { usual: [1.5, 20] }),
  /** Front of the vehicle to the front axle. */
  frontOverhangM: num('Front overhang', 'm', { usual: [0, 4] }),
  heightM: num('Height', 'm', { usual: [0.8, 4.6] }),
  wheelDiameterM: num('Wheel diameter', 'm', { usual: [0.25, 1.8] }),
  /** The least that anything may hang above the ground. */
  /** A shell that is not drilled: runs are held where something is there already. */
  noNewHoles: flag('No new holes in the body', { at: 'route/lines' }),
  clearanceM: num('Ground clearance', 'm', { fallback: 0.15, usual: [0.05, 1] }),
  /** Axle loads before the work, as weighed. */
  frontKg: num('Front axle load before', 'kg', { usual: [50, 12000] }),
  rearKg: num('Rear axle load before', 'kg', { usual: [50, 20000] }),
  frontLimitKg: num('Front axle limit', 'kg', { usual: [50, 15000] }),
  rearLimitKg: num('Rear axle limit', 'kg', { usual: [50, 25000] }),
  grossLimitKg: num('Gross limit', 'kg', { usual: [200, 44000] }),
  whPerKmPerKg: num('Mass rule, per kg', 'Wh/km', { fallback: 0.14, usual: [0.02, 0.5] }),
  speedKmH: num('Steady speed', 'km/h', { usual: [1, 200] }),
  rollingCoefficient: num('Rolling coefficient', '', { usual: [0.003, 0.1] }),
  dragAreaM2: num('Drag area', 'm²', { usual: [0.2, 12] }),
  airDensityKgM3: num('Density of the air', 'kg/m³', { usual: [0.7, 1.5] }),
  gradeFraction: share('Grade', { fallback: 0, usual: [-0.3, 0.4] }),
  drivetrainEfficiency: share('Drive efficiency', { usual: [0.4, 1] }),
  accessoriesW: num('Accessories', 'W', { usual: [0, 30000] }),
  /** Out of the pack while it drives on the coldest day; 0: it is heated otherwise. */
  cabinHeatW: num('Cabin heat in winter', 'W', { usual: [0, 20000] }),
  wantedRangeKm: num('Range wanted', 'km', { usual: [1, 1500] }),
  /** Speeds of a drive cycle above it are driven at it. */
  topSpeedKmH: num('Driven at most at', 'km/h', { usual: [5, 250] }),
  regenFraction: share('Braking recovered', { fallback: 0.6, usual: [0, 0.95] }),
  rotatingMassFraction: share('Turns with the wheels', { fallback: 0.05, usual: [0, 0.4] }),
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
  massKg: num('Mass', 'kg', { usual: [0.01, 15000] }),
  xM: num('Ahead of the front axle', 'm'),
  zM: num('Above the ground', 'm', { usual: [-0.5, 6] }),
  lengthM: num('Length', 'm', { usual: [0.01, 15] }),
  heightM: num('Height', 'm', { usual: [0.01, 5] }),
};
export interface MassItem extends ItemOf<typeof massFields> {}
