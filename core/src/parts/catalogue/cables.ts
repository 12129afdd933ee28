import type { PartOf } from '../kinds';

/** area mm², conductor diameter mm, outer diameter mm, mass kg/m. */
const sizes: [number, number, number, number][] = [
  [0.5, 0.95, 2.1, 0.008],
  [0.75, 1.15, 2.4, 0.011],
  [1, 1.35, 2.6, 0.014],
  [1.5, 1.6, 3.0, 0.02],
  [2.5, 2.1, 3.6, 0.031],
  [4, 2.7, 4.3, 0.047],
  [6, 3.3, 5.0, 0.068],
  [10, 4.5, 6.5, 0.115],
  [16, 5.8, 8.3, 0.18],
  [25, 7.2, 10.4, 0.28],
  [35, 8.5, 11.9, 0.385],
  [50, 10.3, 14.1, 0.54],
  [70, 12.2, 16.3, 0.75],
  [95, 14.2, 18.7, 1.0],
  [120, 16.0, 20.8, 1.26],
];

/** Invented HV cables, cross-linked orange sheath, 125 °C. */
export const cables: PartOf<'cable'>[] = sizes.map(
  ([areaMm2, conductorDiameterMm, outerDiameterMm, massKgPerM]) => ({
    id: `marl-x${String(areaMm2).replace('.', '-')}`,
    revision: 1,
    kind: 'cable',
    make: 'Marlpit',
    number: `X125-${areaMm2}`,
    label: `Marlpit X125, ${areaMm2} mm², 125 °C`,
    data: {
      areaMm2,
      conductorDiameterMm,
      outerDiameterMm,
      conductorMaxC: 125,
      insulationKmPerW: 4.0,
      // 226·√ln((234.5+250)/(234.5+125)): copper from 125 to 250 °C, IEC 60364-5-54
      adiabaticK: 123,
      massKgPerM,
    },
  }),
);
