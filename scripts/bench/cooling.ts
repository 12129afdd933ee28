import { fluidAt, glycol50, packThermal, solveLoop, type LoopElement } from '@torvek/core/cooling';

/** Loops of coolant and the pack's temperature over many cycles; in milliseconds, warm. */
const curve: [number, number][] = [
  [0, 58],
  [10, 52],
  [20, 35],
  [30, 3],
];
const manifold = (plates: number): LoopElement[] => [
  { id: 'pump', kind: 'pump', from: 'tank', to: 's0', curve },
  ...Array.from({ length: plates }, (_, i): LoopElement[] => [
    { id: `s${i}`, kind: 'pipe', from: `s${i}`, to: `s${i + 1}`, innerMm: 16, lengthM: 0.2 },
    { id: `r${i}`, kind: 'pipe', from: `r${i + 1}`, to: `r${i}`, innerMm: 16, lengthM: 0.2 },
    {
      id: `p${i}`,
      kind: 'fixed',
      from: `s${i + 1}`,
      to: `r${i + 1}`,
      kPaPerLpm: 4,
      kPaPerLpm2: 1.5 + i / 50,
    },
  ]).flat(),
  { id: 'radiator', kind: 'fixed', from: 'r0', to: 'tank', kPaPerLpm: 0.1, kPaPerLpm2: 0.012 },
];
const fluid = fluidAt(glycol50, 25);
const median = (work: () => void, times = 41) => {
  const all = Array.from({ length: times }, () => {
    const began = performance.now();
    work();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return all[times >> 1]!;
};
let failed = false;
const tell = (what: string, ms: number, limit: number) => {
  failed ||= ms > limit;
  console.log(`  ${what}: median ${ms.toFixed(2)} ms (limit ${limit})`);
};
const [thirty, many] = [manifold(30), manifold(66)];
tell(
  'manifold of 30 plates',
  median(() => void solveLoop(thirty, fluid, 'tank')),
  5,
);
tell(
  `${many.length} elements`,
  median(() => void solveLoop(many, fluid, 'tank')),
  50,
);
const input = {
  massKg: 180,
  specificHeatJPerKgK: 1000,
  startC: 30,
  ambientC: 28,
  uaToAmbientWPerK: 6,
  resistanceOhm: 0.11,
  profile: Array.from({ length: 1800 }, (_, i): [number, number] => [1, 120 * Math.sin(i / 40)]),
  repeat: 20,
  heaterW: 0,
  cooling: { uaWPerK: 160, coolantC: 22, onAboveC: 34, offBelowC: 31 },
};
tell(
  'pack over 1800 s, 20 times',
  median(() => void packThermal.calculate(input), 15),
  30,
);
process.exitCode = failed ? 1 : 0;
