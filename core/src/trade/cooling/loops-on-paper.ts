import fc from 'fast-check';
import { type LoopElement } from './laws';

export const curve: [number, number][] = [
  [0, 58],
  [5, 56],
  [10, 52],
  [15, 45],
  [20, 35],
  [25, 21],
  [30, 3],
];
export const pump = (id: string, from: string, to: string): LoopElement => ({
  id,
  kind: 'pump',
  from,
  to,
  curve,
});
export const fixed = (id: string, from: string, to: string, a: number, b = 0): LoopElement => ({
  id,
  kind: 'fixed',
  from,
  to,
  kPaPerLpm: a,
  kPaPerLpm2: b,
});
export const pipe = (
  id: string,
  from: string,
  to: string,
  innerMm: number,
  lengthM: number,
): LoopElement => ({
  id,
  kind: 'pipe',
  from,
  to,
  innerMm,
  lengthM,
});
export const water = { densityKgM3: 1000, viscosityMPaS: 1 };

/** Networks of up to 40 elements among a dozen nodes, with pumps anywhere. */
export const networks = fc
  .array(
    fc.record({
      kind: fc.integer({ min: 0, max: 9 }),
      from: fc.integer({ min: 0, max: 11 }),
      step: fc.integer({ min: 1, max: 11 }),
      size: fc.double({ min: 0, max: 1, noNaN: true }),
      long: fc.double({ min: 0, max: 1, noNaN: true }),
    }),
    { minLength: 2, maxLength: 40 },
  )
  .map((rows): LoopElement[] => [
    pump('p', '0', '1'),
    ...rows.map(({ kind, from, step, size, long }, i): LoopElement => {
      const ends = { id: `e${i}`, from: String(from), to: String((from + step) % 12) };
      if (kind === 0) return { ...ends, kind: 'pump', curve: curve.map(([q, h]) => [q, h * (0.2 + size)]) };
      if (kind <= 4)
        return { ...ends, kind: 'pipe', innerMm: 4 + 30 * size, lengthM: 0.05 + 8 * long, minorK: 3 * size };
      if (kind <= 7) return { ...ends, kind: 'fixed', kPaPerLpm: 5 * size, kPaPerLpm2: 0.001 + 2 * long };
      return { ...ends, kind: 'valve', kv: 0.05 + 3 * size, openFraction: long < 0.15 ? 0 : long };
    }),
  ]);

export const leftOver = (elements: readonly LoopElement[], flows: readonly number[]) => {
  const at = new Map<string, number>();
  elements.forEach(({ from, to }, i) => {
    at.set(from, (at.get(from) ?? 0) - flows[i]!);
    at.set(to, (at.get(to) ?? 0) + flows[i]!);
  });
  return Math.max(...[...at.values()].map(Math.abs));
};

export const plates = (rows: { a: number; b: number; open?: number }[]): LoopElement[] => [
  pump('pump', 'tank', 's'),
  ...rows.map(({ a, b }, i) => fixed(`plate${i}`, 's', 'r', a, b)),
  fixed('radiator', 'r', 'tank', 0.1, 0.012),
];
