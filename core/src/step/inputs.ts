import type { Calculator, Outcome } from '../calculator';
import { allFinite, outOfRange } from '../calculator';
import type { CheckValue, Rule, Suggestion } from '../finding';
import {
  checkKey,
  figureId,
  type Check,
  type Figure,
  type FigureId,
  type Gap,
  type Limit,
  type Origin,
  type TracedStep,
} from '../figure';
import type { WorkingStep } from '../working';
import type { Reader, StepOutput } from './reader';

/** How one figure of a calculation is shown. */
export interface FigureShape<Result> {
  name: keyof Result & string;
  /** The symbol of its own step of working; its working ends there. */
  symbol?: string;
  label: string;
  unit: string;
  limit?: Limit;
}

/**
 * Gathers the inputs of one calculation from the design and from other figures, remembers where each came
 * from, and what is missing. The strict calculator runs only when nothing is.
 */
export class Inputs {
  readonly gaps: Gap[] = [];
  private readonly body: Record<string, unknown> = {};
  private readonly origins = new Map<string, Origin>();
  private readonly labels = new Map<string, string>();

  constructor(private readonly read: Reader) {}

  /** Something the document must give. */
  given<T>(name: string, value: T | undefined, path: string, label: string): T | undefined {
    if (value === undefined) this.gaps.push({ kind: 'not-given', path, label });
    else this.set(name, value, { kind: 'document', path }, label);
    return value;
  }

  /** Something the document may give; otherwise the calculator's default holds. */
  optional<T>(name: string, value: T | undefined, path: string, label: string): void {
    this.labels.set(name, label);
    if (value === undefined) this.origins.set(name, { kind: 'default', path });
    else this.set(name, value, { kind: 'document', path }, label);
  }

  /** Something the document may give; otherwise this step's own default holds, and is shown as one. */
  orDefault<T>(name: string, value: T | undefined, fallback: T, path: string, label: string): T {
    this.set(name, value ?? fallback, { kind: value === undefined ? 'default' : 'document', path }, label);
    return value ?? fallback;
  }

  /** A figure of another step; its gaps become ours. */
  figure(name: string, id: FigureId): number | undefined {
    const figure = this.read.figure(id);
    if (figure.value === null) {
      this.gaps.push(...gapsBehind(figure));
      return undefined;
    }
    this.set(name, figure.value, { kind: 'figure', id }, figure.label);
    return figure.value;
  }

  /** A value with an origin of its own. Dotted names build nested objects. */
  set(name: string, value: unknown, origin: Origin, label = name): void {
    const keys = name.split('.');
    const last = keys.pop()!;
    let at = this.body;
    for (const key of keys) at = (at[key] ??= {}) as Record<string, unknown>;
    at[last] = value;
    this.origins.set(name, origin);
    this.labels.set(name, label);
  }

  missing(...gaps: Gap[]): void {
    this.gaps.push(...gaps);
  }

  /** Runs the calculator, or says what keeps it from running. */
  run<Input, Result extends object>(calculator: Calculator<Input, Result>): Run<Input, Result> {
    if (this.gaps.length > 0) return new Run(calculator, null, null, dedupe(this.gaps));
    const parsed = calculator.parse(this.body);
    if (!parsed.ok) {
      const gaps = parsed.issues.map(({ path, message }) => this.invalid(path, message));
      return new Run(calculator, null, null, dedupe(gaps));
    }
    const outcome = calculator.calculate(parsed.input);
    if (!allFinite(outcome.result)) {
      const { path, message } = outOfRange(parsed.input);
      return new Run(calculator, null, null, [this.invalid(path, message)]);
    }
    return new Run(calculator, parsed.input, outcome, [], (step) => this.trace(step));
  }

  private invalid(path: string, message: string): Gap {
    const name = this.nameOf(path);
    const origin = this.origins.get(name);
    const label = this.labels.get(name) ?? path;
    if (origin?.kind === 'figure') return { kind: 'needs', figure: origin.id, label };
    const place = origin?.kind === 'document' || origin?.kind === 'default' ? origin.path : name;
    return { kind: 'invalid', path: place, label, message };
  }

  private nameOf(path: string): string {
    let name = path;
    while (!this.origins.has(name) && name.includes('.')) name = name.slice(0, name.lastIndexOf('.'));
    return name;
  }

  private trace(step: WorkingStep): TracedStep {
    return {
      ...step,
      inputs: step.inputs.map((input) => {
        const origin = input.from === undefined ? undefined : this.origins.get(this.nameOf(input.from));
        return origin === undefined ? input : { ...input, origin };
      }),
    };
  }
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
  figures(step: string, subject: string, shapes: FigureShape<Result>[]): Figure[] {
    return shapes.map(({ name, symbol, label, unit, limit }) => {
      const result = this.result;
      const value = result === null ? null : (result[name] as number | null);
      const gaps =
        result === null
          ? this.gaps
          : value === null
            ? [{ kind: 'never' as const, label: `${label}: never` }]
            : [];
      const own = {
        id: figureId(step, subject, name),
        label,
        unit,
        value,
        gaps,
        working: this.working(symbol),
      };
      return limit === undefined ? own : { ...own, limit };
    });
  }

  /** Every rule of the calculator, raised or clear, or not checked when it did not run. */
  checks(subjects: string[], values: CheckValue[] = [], parts: string[] = []): Check[] {
    return this.calculator.rules.map((rule) => {
      const found = this.outcome?.findings.filter((finding) => finding.rule === rule) ?? [];
      const message = found.length === 0 ? null : found.map((finding) => finding.message).join(' ');
      return judge(rule, subjects, this.gaps, message, values, { parts });
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

/** What goes with a finding beside its sentence. */
export interface Verdict {
  /** Parts that could take the place of the one judged. */
  suggestions?: Suggestion[];
  /** Parts that were judged, by key and revision: an acceptance belongs to them. */
  parts?: string[];
  /** What a fitting part needs, where none is at hand. */
  advice?: string | null;
}

/**
 * A check from its outcome.
 *
 * @param gaps when there are any, the rule is not checked
 * @param message null when the rule is clear
 * @param values every number that the message names and the judgement rests on: an acceptance lapses when one moves
 */
export function judge(
  rule: Rule,
  subjects: string[],
  gaps: Gap[],
  message: string | null,
  values: CheckValue[] = [],
  { suggestions = [], parts = [], advice = null }: Verdict = {},
): Check {
  const base = { key: checkKey(rule, subjects), rule, subjects };
  if (gaps.length > 0) return { ...base, state: 'not-checked', gaps: dedupe(gaps) };
  if (message === null) return { ...base, state: 'clear', values };
  return { ...base, state: 'raised', grade: rule.grade, message, values, parts, suggestions, advice };
}

/** The gaps behind a figure: its own reasons, or the figure itself when its result is that it never happens. */
export function gapsBehind(figure: Figure): Gap[] {
  const causes = figure.gaps.filter((gap) => gap.kind !== 'never');
  return causes.length > 0 ? causes : [{ kind: 'needs', figure: figure.id, label: figure.label }];
}

function dedupe(gaps: Gap[]): Gap[] {
  const seen = new Set<string>();
  return gaps.filter((gap) => {
    const key = JSON.stringify(gap);
    return seen.has(key) ? false : seen.add(key);
  });
}
