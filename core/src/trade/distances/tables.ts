import type { MaterialGroup, PollutionDegree } from '../../model/document';

/** Clearance by rated impulse voltage, mm: inhomogeneous field, up to 2000 m. Source: IEC 60664-1, table F.2. */
const clearances: [impulseV: number, pollution1: number, pollution2: number, pollution3: number][] = [
  [330, 0.01, 0.2, 0.8],
  [500, 0.04, 0.2, 0.8],
  [800, 0.1, 0.2, 0.8],
  [1500, 0.5, 0.5, 0.8],
  [2500, 1.5, 1.5, 1.5],
  [4000, 3, 3, 3],
  [6000, 5.5, 5.5, 5.5],
  [8000, 8, 8, 8],
  [12_000, 14, 14, 14],
];

/** Rated impulse voltages there are, V. */
export const impulseVoltages = clearances.map(([impulseV]) => impulseV);

/** Factor on clearance by altitude. Source: IEC 60664-1, table A.2. */
const altitudes: [altitudeM: number, factor: number][] = [
  [2000, 1],
  [3000, 1.14],
  [4000, 1.29],
  [5000, 1.48],
  [6000, 1.7],
];

/** Creepage by working voltage, mm: pollution 1, then groups I, II, III of pollution 2 and of 3. Source: IEC 60664-1, table F.5. */
const creepages: [
  workingV: number,
  p1: number,
  p2: [number, number, number],
  p3: [number, number, number],
][] = [
  [50, 0.18, [0.6, 0.85, 1.2], [1.5, 1.7, 1.9]],
  [63, 0.2, [0.63, 0.9, 1.25], [1.6, 1.8, 2]],
  [80, 0.22, [0.67, 0.95, 1.3], [1.7, 1.9, 2.1]],
  [100, 0.25, [0.71, 1, 1.4], [1.8, 2, 2.2]],
  [125, 0.28, [0.75, 1.05, 1.5], [1.9, 2.1, 2.4]],
  [160, 0.32, [0.8, 1.1, 1.6], [2, 2.2, 2.5]],
  [200, 0.42, [1, 1.4, 2], [2.5, 2.8, 3.2]],
  [250, 0.56, [1.25, 1.8, 2.5], [3.2, 3.6, 4]],
  [320, 0.75, [1.6, 2.2, 3.2], [4, 4.5, 5]],
  [400, 1, [2, 2.8, 4], [5, 5.6, 6.3]],
  [500, 1.3, [2.5, 3.6, 5], [6.3, 7.1, 8]],
  [630, 1.8, [3.2, 4.5, 6.3], [8, 9, 10]],
  [800, 2.4, [4, 5.6, 8], [10, 11, 12.5]],
  [1000, 3.2, [5, 7.1, 10], [12.5, 14, 16]],
];

/** The highest impulse voltage for which reinforced clearance has a row, V. */
export const highestImpulseV = clearances.at(-2)![0];
/** The highest working voltage of the table, V. */
export const highestWorkingV = creepages.at(-1)![0];
/** The highest place of the table, m. */
export const highestAltitudeM = altitudes.at(-1)![0];

export interface DistanceInput {
  workingV: number;
  impulseV: number;
  pollution: PollutionDegree;
  material: MaterialGroup;
  altitudeM: number;
}

export interface Distances {
  clearanceMm: number;
  creepageMm: number;
  /** What asks for the clearance: the surge, or dirt at surges so small that it alone counts. */
  clearanceBy: 'surge' | 'pollution';
  /** Factor of the altitude on the clearance; 1 up to 2000 m. */
  altitudeFactor: number;
  /** What asks for the creepage: the voltage with dirt and material, or the clearance, which it is never below. */
  creepageBy: 'voltage' | 'clearance';
}

/**
 * The least distances between live parts, and from them to what can be touched.
 *
 * Clearance: the row of the impulse voltage or the next above, times the factor of the altitude, straight between its
 * rows. Creepage: straight between the rows of the working voltage, and never less than the clearance. Reinforced:
 * creepage doubled, clearance of the next impulse voltage.
 *
 * @returns null beyond the tables
 * Source: IEC 60664-1
 */
export function leastDistances(input: DistanceInput, reinforced: boolean): Distances | null {
  const { workingV, impulseV, pollution, material, altitudeM } = input;
  const row = clearances.findIndex(([rated]) => rated >= impulseV) + (reinforced ? 1 : 0);
  const clearance = impulseV > clearances.at(-1)![0] ? undefined : clearances[row];
  if (
    clearance === undefined ||
    workingV > highestWorkingV ||
    altitudeM > highestAltitudeM ||
    altitudeM < -500
  )
    return null;
  const factor = altitudeFactor(altitudeM);
  const clearanceMm = clearance[pollution] * factor;
  const group = { I: 0, II: 1, IIIa: 2, IIIb: 2 }[material];
  const creepageOf = ([, p1, p2, p3]: (typeof creepages)[number]) =>
    pollution === 1 ? p1 : (pollution === 2 ? p2 : p3)[group]!;
  const next = creepages.findIndex(([rated]) => rated >= workingV);
  const [above, below] = [creepages[next]!, creepages[Math.max(0, next - 1)]!];
  const share = above[0] === below[0] ? 1 : Math.max(0, (workingV - below[0]) / (above[0] - below[0]));
  const single = creepageOf(below) + share * (creepageOf(above) - creepageOf(below));
  const byVoltageMm = single * (reinforced ? 2 : 1);
  return {
    clearanceMm,
    creepageMm: Math.max(byVoltageMm, clearanceMm),
    clearanceBy: clearance[pollution] > clearance[1] ? 'pollution' : 'surge',
    altitudeFactor: factor,
    creepageBy: byVoltageMm >= clearanceMm ? 'voltage' : 'clearance',
  };
}

function altitudeFactor(altitudeM: number): number {
  const next = altitudes.findIndex(([at]) => at >= altitudeM);
  if (next <= 0) return 1;
  const [above, below] = [altitudes[next]!, altitudes[next - 1]!];
  return below[1] + ((altitudeM - below[0]) / (above[0] - below[0])) * (above[1] - below[1]);
}
