import equal from 'fast-deep-equal';
import type { Design } from '../document';
import type { Check, Figure, FigureId } from '../figure';
import { starterParts, type PartKind, type PartsList } from '../parts';
import type { Reader, StepDefinition, StepOutput } from './reader';

/** Everything that follows from a design. */
export interface Evaluation {
  figures: Record<FigureId, Figure>;
  checks: Check[];
  /** Input and result of each calculation, by `${step}:${subject}`. */
  runs: Record<string, NonNullable<StepOutput['run']>>;
}

type Read =
  | { kind: 'at'; path: string[]; value: unknown }
  | { kind: 'figure'; id: FigureId; value: number | null; gaps: unknown }
  | { kind: 'parts'; of: PartKind; list: readonly unknown[] };

interface Memo {
  reads: Read[];
  output: StepOutput;
}

/**
 * Evaluates designs and remembers, per step and subject, everything that was read: a step runs again only when
 * something it read is structurally different.
 *
 * @throws Error naming its members when steps need each other in a circle
 */
export class Evaluator {
  private readonly memos = new Map<string, Memo>();
  private readonly byId: Map<string, StepDefinition>;

  constructor(private readonly steps: readonly StepDefinition[]) {
    this.byId = new Map(steps.map((step) => [step.id, step]));
  }

  /**
   * @param library the parts that rankings choose from; the same lists as long as it does not change
   */
  evaluate(design: Design, library: PartsList = starterParts): Evaluation {
    return new Pass(design, library, this.steps, this.byId, this.memos).run();
  }
}

class Pass {
  private readonly done = new Map<string, StepOutput>();
  private readonly open: string[] = [];
  private readonly subjects = new Map<string, Set<string>>();

  constructor(
    private readonly design: Design,
    private readonly library: PartsList,
    private readonly steps: readonly StepDefinition[],
    private readonly byId: Map<string, StepDefinition>,
    private readonly memos: Map<string, Memo>,
  ) {}

  run(): Evaluation {
    for (const step of this.steps) for (const subject of this.subjectsOf(step)) this.ensure(step, subject);
    for (const key of this.memos.keys()) if (!this.done.has(key)) this.memos.delete(key);
    const evaluation: Evaluation = { figures: {}, checks: [], runs: {} };
    for (const [key, output] of this.done) {
      for (const figure of output.figures) evaluation.figures[figure.id] = figure;
      evaluation.checks.push(...output.checks);
      if (output.run !== undefined) evaluation.runs[key] = output.run;
    }
    evaluation.checks.sort((a, b) => (a.key < b.key ? -1 : a.key > b.key ? 1 : 0));
    return evaluation;
  }

  private subjectsOf(step: StepDefinition): Set<string> {
    let subjects = this.subjects.get(step.id);
    if (subjects === undefined) {
      subjects = new Set(step.subjects(this.design));
      this.subjects.set(step.id, subjects);
    }
    return subjects;
  }

  private ensure(step: StepDefinition, subject: string): StepOutput {
    const key = `${step.id}:${subject}`;
    const ready = this.done.get(key);
    if (ready !== undefined) return ready;
    if (this.open.includes(key)) {
      throw new Error(
        `steps need each other: ${[...this.open.slice(this.open.indexOf(key)), key].join(' → ')}`,
      );
    }
    this.open.push(key);
    const memo = this.memos.get(key);
    const output =
      memo !== undefined && memo.reads.every((read) => this.unchanged(read))
        ? memo.output
        : this.compute(step, subject, key);
    this.open.pop();
    this.done.set(key, output);
    return output;
  }

  private unchanged(read: Read): boolean {
    if (read.kind === 'at') {
      const value = this.valueAt(read.path);
      return value === read.value || equal(value, read.value);
    }
    if (read.kind === 'parts') return this.library.of(read.of) === read.list;
    const figure = this.figure(read.id);
    return Object.is(figure.value, read.value) && equal(figure.gaps, read.gaps);
  }

  private compute(step: StepDefinition, subject: string, key: string): StepOutput {
    const reads: Read[] = [];
    const reader: Reader = {
      at: (...path: string[]) => {
        const value = this.valueAt(path);
        reads.push({ kind: 'at', path, value });
        return value as never;
      },
      figure: (id) => {
        const figure = this.figure(id);
        reads.push({ kind: 'figure', id, value: figure.value, gaps: figure.gaps });
        return figure;
      },
      parts: (kind) => {
        const list = this.library.of(kind);
        reads.push({ kind: 'parts', of: kind, list });
        return list;
      },
    };
    const output = step.compute(subject, reader);
    this.memos.set(key, { reads, output });
    return output;
  }

  private valueAt(path: string[]): unknown {
    return path.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], this.design);
  }

  private figure(id: FigureId): Figure {
    const [stepId = '', subject = ''] = id.split(':');
    const step = this.byId.get(stepId);
    const found =
      step !== undefined && this.subjectsOf(step).has(subject)
        ? this.ensure(step, subject).figures.find((figure) => figure.id === id)
        : undefined;
    return found ?? { id, label: id, unit: '', value: null, gaps: [], working: [] };
  }
}
