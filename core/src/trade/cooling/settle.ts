import { fluidAt, type FluidTable } from './fluid';
import type { LoopElement } from './laws';
import { solveLoop, type SolvedLoop } from './solve';
import { temperaturesOf, type Exchanger, type LoopTemperatures } from './temperatures';

/** A loop at work: its flows and temperatures belong together. */
export interface SettledLoop {
  solved: SolvedLoop;
  temperatures: LoopTemperatures | null;
  /** Of the coolant whose figures were taken, °C. */
  meanC: number;
  rounds: number;
  /** Moved in the last round, K. */
  movedK: number;
}

const settledK = 0.1;
const mostRounds = 30;

/**
 * Hydraulics and temperatures of a loop brought together: coolant is as at its mean temperature, weighted by flow, until no
 * temperature moves by a tenth of a kelvin.
 */
export function settle(
  elements: readonly LoopElement[],
  table: FluidTable,
  doing: ReadonlyMap<string, Exchanger>,
  startC: number,
  groundNode: string,
  near: readonly number[] | null = null,
): SettledLoop {
  let meanC = startC;
  let before: LoopTemperatures | null = null;
  let flows = near;
  for (let rounds = 1; ; rounds += 1) {
    const fluid = fluidAt(table, meanC);
    const solved = solveLoop(elements, fluid, groundNode, undefined, flows)!;
    flows = solved.flows;
    const temperatures = temperaturesOf(elements, solved.flows, doing, fluid);
    if (temperatures === null) return { solved, temperatures, meanC, rounds, movedK: 0 };
    let [weight, sum] = [0, 0];
    temperatures.elements.forEach((one, i) => {
      if (one === null) return;
      const q = Math.abs(solved.flows[i]!);
      weight += q;
      sum += (q * (one.inC + one.outC)) / 2;
    });
    if (weight === 0) return { solved, temperatures, meanC, rounds, movedK: 0 };
    const next = sum / weight;
    const movedK = Math.max(
      Math.abs(next - meanC),
      before === null ? Infinity : furthest(before, temperatures),
    );
    meanC = next;
    before = temperatures;
    if (movedK < settledK || rounds >= mostRounds) return { solved, temperatures, meanC, rounds, movedK };
  }
}

const furthest = (a: LoopTemperatures, b: LoopTemperatures): number =>
  Math.max(0, ...[...b.nodes].map(([node, c]) => Math.abs((a.nodes.get(node) ?? c ?? 0) - (c ?? 0))));
