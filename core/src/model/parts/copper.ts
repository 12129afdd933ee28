/** Conductor resistance at 20 °C of flexible copper (class 5), mΩ/m by area in mm². Source: IEC 60228. */
export const resistanceMOhmPerM20: Readonly<Record<number, number>> = {
  0.5: 39.0,
  0.75: 26.0,
  1: 19.5,
  1.5: 13.3,
  2.5: 7.98,
  4: 4.95,
  6: 3.3,
  10: 1.91,
  16: 1.21,
  25: 0.78,
  35: 0.554,
  50: 0.386,
  70: 0.272,
  95: 0.206,
  120: 0.161,
};

/** The areas in mm² there are, smallest first. */
export const cableAreasMm2: number[] = Object.keys(resistanceMOhmPerM20)
  .map(Number)
  .sort((a, b) => a - b);

const copperPerK = 0.00393;

/** Resistance of a metre of conductor at a temperature, Ω/m. Source: IEC 60228, linear in temperature. */
export function resistancePerM(areaMm2: number, temperatureC: number): number {
  return ((resistanceMOhmPerM20[areaMm2] ?? NaN) / 1000) * (1 + copperPerK * (temperatureC - 20));
}
