import type { Calculator } from '../../ground/calculator';
import { allFinite, outOfRange } from '../../ground/calculator';
import type { FigureId, Gap, Origin, TracedStep } from '../../ground/figure';
import type { WorkingStep } from '../../ground/working';
import { dedupe, gapsBehind } from './judge';
import type { Reader } from './reader';
import { Run } from './run';

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
    if (value === undefined) this.gaps.push({ kind: 'not-given', path, label: this.ofItsThing(path, label) });
    else this.set(name, value, { kind: 'document', path }, label);
    return value;
  }

  /** What is missing of a circuit or device is said with its name: several may lack the same. */
  private ofItsThing(path: string, label: string): string {
    const [root, id = ''] = path.split('.');
    if (root !== 'circuits' && root !== 'devices') return label;
    const tag = this.read.at(root, id)?.tag;
    return tag === undefined || label.includes(tag) ? label : `${label} of ${tag}`;
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
    return { kind: 'invalid', path: placeOf(origin) ?? name, label, message };
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

/** Where in the design an input stands; undefined: nowhere. */
function placeOf(origin: Origin | undefined): string | undefined {
  if (origin?.kind === 'document' || origin?.kind === 'default') return origin.path;
  return origin?.kind === 'part' ? `parts.${origin.key}.data.${origin.path}` : undefined;
}
