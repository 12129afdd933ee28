/** Speed over time, and the grade it is driven on. All invented, for vehicles of this trade. */
export interface DriveCycle {
  title: string;
  what: string;
  gradeFraction: number;
  points: [timeS: number, speedKmH: number][];
}

/** Joins hops: each from standstill up to a speed, held, and down again, then waiting. */
function hops(
  rows: [upS: number, speedKmH: number, holdS: number, downS: number, waitS: number][],
): [number, number][] {
  const points: [number, number][] = [[0, 0]];
  let at = 0;
  for (const [upS, speedKmH, holdS, downS, waitS] of rows) {
    points.push([(at += upS), speedKmH], [(at += holdS), speedKmH], [(at += downS), 0]);
    if (waitS > 0) points.push([(at += waitS), 0]);
  }
  return points;
}

export const driveCycles = {
  town: {
    title: 'Town',
    what: 'from stop to stop, up to 50 km/h',
    gradeFraction: 0,
    points: hops([
      [9, 32, 14, 8, 20],
      [14, 50, 28, 12, 25],
      [7, 25, 10, 6, 14],
      [13, 47, 40, 11, 30],
      [10, 38, 22, 9, 18],
      [14, 50, 35, 13, 24],
    ]),
  },
  country: {
    title: 'Country',
    what: 'villages and bends, up to 80 km/h',
    gradeFraction: 0,
    points: [
      [0, 0],
      [16, 50],
      [50, 48],
      [66, 74],
      [120, 78],
      [134, 52],
      [150, 50],
      [168, 80],
      [240, 76],
      [256, 58],
      [272, 62],
      [290, 79],
      [360, 80],
      [382, 30],
      [400, 34],
      [420, 60],
      [470, 64],
      [492, 0],
      [510, 0],
    ],
  },
  motorway: {
    title: 'Motorway',
    what: 'up to 110 km/h, little braking',
    gradeFraction: 0,
    points: [
      [0, 0],
      [18, 60],
      [32, 95],
      [60, 108],
      [210, 110],
      [230, 96],
      [260, 100],
      [285, 110],
      [520, 108],
      [545, 88],
      [575, 104],
      [720, 106],
      [760, 70],
      [785, 0],
      [800, 0],
    ],
  },
  hill: {
    title: 'Hill',
    what: '8 % up, 40 to 55 km/h, twice halted',
    gradeFraction: 0.08,
    points: [
      [0, 0],
      [16, 40],
      [70, 44],
      [90, 55],
      [150, 52],
      [162, 0],
      [175, 0],
      [193, 45],
      [260, 48],
      [300, 54],
      [330, 40],
      [342, 0],
      [352, 0],
      [368, 38],
      [440, 42],
      [452, 0],
    ],
  },
  burst: {
    title: 'Short burst',
    what: 'twice hard from standstill to 80 km/h',
    gradeFraction: 0,
    points: [
      [0, 0],
      [12, 80],
      [22, 80],
      [32, 0],
      [45, 0],
      [57, 80],
      [62, 80],
      [74, 0],
      [90, 0],
    ],
  },
} satisfies Record<string, DriveCycle>;
