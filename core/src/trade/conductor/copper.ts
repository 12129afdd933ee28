/** Current factor by how many circuits' cables touch. Source: IEC 60364-5-52, table of grouped circuits. */
export const groupingFactor: Readonly<Record<number, number>> = {
  1: 1,
  2: 0.8,
  3: 0.7,
  4: 0.65,
  5: 0.6,
  6: 0.57,
};

/** Heat stored per metre and kelvin, J/(m·K): copper and half of the insulation. */
export function heatCapacityPerM(
  areaMm2: number,
  conductorDiameterMm: number,
  outerDiameterMm: number,
): number {
  const insulationM2 = (Math.PI / 4) * (outerDiameterMm ** 2 - conductorDiameterMm ** 2) * 1e-6;
  return areaMm2 * 1e-6 * 3.45e6 + 0.5 * insulationM2 * 2.4e6;
}
