import type { Calculator, Outcome } from '../../ground/calculator';
import type { CheckValue } from '../../ground/finding';
import {
  figureId,
  type Check,
  type Figure,
  type FigureName,
  type Gap,
  type Limit,
  type StepId,
  type TracedStep,
} from '../../ground/figure';
import type { WorkingStep } from '../../ground/working';
import { judge } from './judge';
import type { StepOutput } from './reader';

/** How one figure of a calculation is shown. */
export interface FigureShape<Name extends string> {
  name: Name;
  /** The symbol of its own step of working; its working ends there. */
  symbol?: string;
  label: string;
  unit: string;
  limit?: Limit;
}

/** A calculation that ran, or the gaps that kept it from running. */
export class Run<Input, Result extends object> {
  private traced: TracedStep[] | null = null;

  constructor(
    readonly calculator: Calculator<Input, Result>,
    readonly input: Input | null,
    readonly outcome: Outcome<Result> | null,
    readonly gaps: Gap[],
    private readonly trace: (step: WorkingStep) => TracedStep = (step) => step,
  ) {}

  get result(): Result | null {
    return this.outcome?.result ?? null;
  }

  working(symbol?: string): TracedStep[] {
    if (this.outcome === null) return [];
    this.traced ??= this.outcome.working.map(this.trace);
    const last = symbol === undefined ? -1 : this.traced.findIndex((step) => step.symbol === symbol);
    return last < 0 ? this.traced : stepsBehind(this.traced, last);
  }

  /** The figures of this run, each with the working that leads to it. */
  figures<Step extends StepId>(
    step: Step,
    subject: string,
    shapes: FigureShape<FigureName<Step> & keyof Result & string>[],
  ): Figure[] {
    return shapes.map(({ name, symbol, label, unit, limit }) => {
      const result = this.result;
      const value = result === null ? null : (result[name] as number | null);
      const gaps =
        result === null
          ? this.gaps
          : value === null
            ? [{ kind: 'never' as const, label: `${label}: never` }]
            : [];
      const id = figureId(step, subject, name);
      return this.shown({ id, label, unit, value, gaps, ...(limit !== undefined && { limit }) }, symbol);
    });
  }

  /** A figure with the working that leads to it, which is put together when somebody looks. */
  private shown(figure: Omit<Figure, 'working'>, symbol: string | undefined): Figure {
    const working = () => this.working(symbol);
    let made: TracedStep[] | null = null;
    return {
      ...figure,
      get working() {
        return (made ??= working());
      },
      set working(given) {
        made = given;
      },
    };
  }

  /** Every rule of the calculator, raised or clear, or not checked when it did not run. */
  checks(
    subjects: string[],
    values: CheckValue[] = [],
    parts: string[] = [],
    also: readonly string[] = [],
  ): Check[] {
    return this.calculator.rules.map((rule) => {
      const found = this.outcome?.findings.filter((finding) => finding.rule === rule) ?? [];
      const message = found.length === 0 ? null : found.map((finding) => finding.message).join(' ');
      return judge(rule, subjects, this.gaps, message, values, { parts, also });
    });
  }

  /** What the evaluation keeps of the run for plots on request. */
  output(figures: Figure[], checks: Check[]): StepOutput {
    if (this.input === null) return { figures, checks };
    return {
      figures,
      checks,
      run: { calculator: this.calculator.name, input: this.input, result: this.result },
    };
  }
}

/** The step at `last` and those before it whose results it takes, directly or through others. */
function stepsBehind(steps: TracedStep[], last: number): TracedStep[] {
  const wanted = new Set([last]);
  for (let i = last; i >= 0; i -= 1) {
    if (!wanted.has(i)) continue;
    for (const { symbol, from } of steps[i]!.inputs) {
      const source =
        from === undefined ? steps.slice(0, i).findLastIndex((step) => step.symbol === symbol) : -1;
      if (source >= 0) wanted.add(source);
    }
  }
  return steps.filter((_, i) => wanted.has(i));
}
