/** One input of a step of working. */
export interface WorkingInput {
  /** As it stands in the formula. */
  symbol: string;
  /** What it is, where the symbol alone does not say. */
  label?: string;
  value: number;
  unit: string;
  /** Path of the calculator's input it came from; absent for an intermediate value of the same working. */
  from?: string;
}

/** One line of working: a formula, what was put into it, what came out, and where the method comes from. */
export interface WorkingStep {
  symbol: string;
  label: string;
  /** In the symbols of `inputs`. */
  formula: string;
  inputs: WorkingInput[];
  /** null: it never happens (a threshold that is not reached). */
  value: number | null;
  unit: string;
  source: string;
  /** For solved equations: method, iterations and the equation's residual, in the unit it balances. */
  solver?: { method: string; iterations: number; residual: number; residualUnit: string };
}

/** Collects the working of one calculation, in order. */
export class Worksheet {
  readonly steps: WorkingStep[] = [];

  /** Adds a step and hands its value back, so that a formula stands once. */
  add<V extends number | null>(step: Omit<WorkingStep, 'value'> & { value: V }): V {
    this.steps.push(step);
    return step.value;
  }
}
