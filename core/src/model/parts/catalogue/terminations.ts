import type { GlandData, LugData, PartOf } from '../kinds';

/** area mm², stud M, palm width, thickness, middle of the hole to the end of the barrel, all mm. */
const lugRows: [number, number, number, number, number][] = [
  [0.5, 4, 6.4, 0.8, 11],
  [0.5, 5, 8, 0.8, 12],
  [0.75, 4, 6.6, 0.8, 11],
  [0.75, 5, 8, 0.8, 12],
  [1, 4, 6.8, 0.9, 12],
  [1, 5, 8.2, 0.9, 13],
  [1.5, 4, 7.2, 1, 13],
  [1.5, 5, 8.5, 1, 14],
  [2.5, 4, 8, 1.2, 14],
  [2.5, 5, 9, 1.2, 15],
  [2.5, 6, 10, 1.2, 16],
  [4, 4, 8.5, 1.8, 16],
  [4, 5, 9.5, 1.8, 17],
  [4, 6, 10.5, 1.8, 18],
  [6, 5, 10, 2, 18],
  [6, 6, 11, 2, 19],
  [10, 6, 12, 2.2, 22],
  [10, 8, 14, 2.2, 24],
  [16, 8, 15, 2.4, 26],
  [25, 8, 16.5, 2.7, 29],
  [35, 8, 18, 3, 32],
  [35, 10, 20, 3, 34],
  [50, 8, 20.5, 3.4, 36],
  [50, 10, 21.5, 3.4, 38],
  [70, 8, 23, 3.9, 40],
  [70, 10, 24, 3.9, 42],
  [95, 10, 27, 4.4, 46],
  [120, 12, 30.5, 4.9, 51],
];

/** Invented crimp lugs. */
export const lugs: PartOf<'lug'>[] = lugRows.map(
  ([areaMm2, studMm, palmWidthMm, palmThicknessMm, centreToEndMm]) => {
    const data: LugData = {
      areaMm2,
      studMm,
      palmWidthMm,
      palmThicknessMm,
      centreToEndMm,
      plating: 'tin',
      maxC: 150,
    };
    const number = `C${areaMm2}-M${studMm}`;
    return {
      id: `penhallow-c${String(areaMm2).replace('.', '-')}-m${studMm}`,
      revision: 1,
      kind: 'lug',
      make: 'Penhallow',
      number,
      label: `Penhallow ${number}, ${areaMm2} mm² on M${studMm}`,
      data,
    };
  },
);

/** thread M, clamps from, to, mm; with or without contact to the screen. */
const glandRows: [number, number, number, boolean][] = [
  [12, 2, 5, false],
  [16, 4, 8, false],
  [16, 4, 8, true],
  [20, 7, 12.5, false],
  [20, 7, 12.5, true],
  [25, 11, 17.5, false],
  [25, 11, 17.5, true],
  [32, 16, 22.5, false],
  [32, 16, 22.5, true],
  [40, 21, 29, true],
];

/** Invented glands. */
export const glands: PartOf<'gland'>[] = glandRows.map(
  ([threadMm, clampMinMm, clampMaxMm, screenContact]) => {
    const data: GlandData = {
      threadMm,
      clampMinMm,
      clampMaxMm,
      screenContact,
      maxC: screenContact ? 110 : 100,
    };
    const number = `G${threadMm}${screenContact ? 'S' : ''}`;
    return {
      id: `wendmoor-g${threadMm}${screenContact ? 's' : ''}`,
      revision: 1,
      kind: 'gland',
      make: 'Wendmoor',
      number,
      label: `Wendmoor ${number}, ${clampMinMm} to ${clampMaxMm} mm${screenContact ? ', to the screen' : ''}`,
      data,
    };
  },
);
