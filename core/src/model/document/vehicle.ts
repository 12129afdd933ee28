export const cycleChoices = ['town', 'country', 'motorway', 'hill', 'burst', 'own'] as const;
export type CycleChoice = (typeof cycleChoices)[number];

/** Everything may be absent: what is not decided yet is not stored. */
export interface Vehicle {
  make?: string;
  model?: string;
  year?: number;
  wheelbaseM?: number;
  lengthM?: number;
  /** Front of the vehicle to the front axle. */
  frontOverhangM?: number;
  heightM?: number;
  wheelDiameterM?: number;
  /** Axle loads before the work, as weighed. */
  frontKg?: number;
  rearKg?: number;
  frontLimitKg?: number;
  rearLimitKg?: number;
  grossLimitKg?: number;
  whPerKmPerKg?: number;
  speedKmH?: number;
  rollingCoefficient?: number;
  dragAreaM2?: number;
  airDensityKgM3?: number;
  gradeFraction?: number;
  drivetrainEfficiency?: number;
  accessoriesW?: number;
  wantedRangeKm?: number;
  /** Speeds of a drive cycle above it are driven at it. */
  topSpeedKmH?: number;
  regenFraction?: number;
  rotatingMassFraction?: number;
  /** The drive cycle in use: one that ships, or the vehicle’s own. */
  cycle?: CycleChoice;
  ownCycle?: { tag: string; points: [timeS: number, speedKmH: number][] };
}

/** A mass that is taken out of the vehicle or put into it, apart from the battery boxes. */
export interface MassItem {
  tag: string;
  change: 'out' | 'in';
  massKg?: number;
  xM?: number;
  zM?: number;
  lengthM?: number;
  heightM?: number;
}
