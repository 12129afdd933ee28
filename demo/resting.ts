import { numbersFrom } from './numbers';

/** Where cells settle that do not settle with the rest: one too high, one too low, one on the edge. */
const unlike: Record<number, number> = { 7: 2.951, 11: 2.868, 14: 2.917 };

/** The voltage of each cell of the truck over the hours of its rest, without the meter's noise. */
export function restingCells(count: number): ((hours: number) => number)[] {
  const next = numbersFrom(1991);
  return Array.from({ length: count }, (_, i) => {
    const settledV = unlike[i + 1] ?? 2.9 + 0.016 * (next() - 0.5);
    const swingV = 0.2 + 0.06 * next();
    const tauH = 1.6 + 2.2 * next();
    return (hours) => settledV - swingV * Math.exp(-Math.sqrt(hours / tauH));
  });
}
