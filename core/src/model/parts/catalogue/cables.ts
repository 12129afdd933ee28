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

/** A class of insulation. */
interface Series {
  id: string;
  number: string;
  conductorMaxC: number;
  insulationKmPerW: number;
  /** A√s/mm² from the conductor's limit; 226·√ln((234.5 + T_end)/(234.5 + T_max)), IEC 60364-5-54. */
  adiabaticK: number;
  /** Insulation's thickness and mass over those of the first series. */
  thickness: number;
  mass: number;
}

const series: Series[] = [
  // From 125 to 250 °C.
  {
    id: 'x',
    number: 'X125',
    conductorMaxC: 125,
    insulationKmPerW: 4.0,
    adiabaticK: 123,
    thickness: 1,
    mass: 1,
  },
  // From 105 to 250 °C.
  {
    id: 't',
    number: 'T105',
    conductorMaxC: 105,
    insulationKmPerW: 5.0,
    adiabaticK: 135,
    thickness: 1.15,
    mass: 1.08,
  },
  // From 180 to 350 °C: silicone stands more at the end.
  {
    id: 'q',
    number: 'Q180',
    conductorMaxC: 180,
    insulationKmPerW: 4.0,
    adiabaticK: 132,
    thickness: 1.2,
    mass: 1.05,
  },
];

/** Invented HV cables in three classes of insulation, orange sheath. */
export const cables: PartOf<'cable'>[] = series.flatMap(
  ({ id, number, conductorMaxC, insulationKmPerW, adiabaticK, thickness, mass }) =>
    sizes.map(([areaMm2, conductorDiameterMm, outerDiameterMm, massKgPerM]) => ({
      id: `marl-${id}${String(areaMm2).replace('.', '-')}`,
      revision: 1,
      kind: 'cable',
      make: 'Marlpit',
      number: `${number}-${areaMm2}`,
      label: `Marlpit ${number}, ${areaMm2} mm², ${conductorMaxC} °C`,
      data: {
        areaMm2,
        conductorDiameterMm,
        outerDiameterMm: Number(
          (conductorDiameterMm + (outerDiameterMm - conductorDiameterMm) * thickness).toFixed(2),
        ),
        conductorMaxC,
        insulationKmPerW,
        adiabaticK,
        massKgPerM: Number((massKgPerM * mass).toPrecision(3)),
      },
    })),
);
