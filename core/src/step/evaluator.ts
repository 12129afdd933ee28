import type { Design } from '../document';
import type { FigureId } from '../figure';
import { starterParts, type PartKind, type PartsList } from '../parts';
import { emptyEvaluation, patched, type Evaluation } from './evaluation';
import { Graph, sharedKey, type FigureRead, type Node } from './graph';
import { keptWhereEqual } from './kept';
import { changedPlaces, type Place } from './places';
import {
  unchangedFigure,
  type Figures,
  type Reader,
  type SharedView,
  type StepDefinition,
  type StepOutput,
} from './reader';
import { Views } from './views';

/**
 * Evaluates designs and remembers, per step and subject, every field and every figure that was read.
 *
 * A change is pushed: where two designs differ, whoever read there runs again, and what follows from them is looked at
 * through the figures they read; nothing else is touched. Handing it the edited tree of an earlier design makes the
 * difference cheap; any other design of the same job is as right.
 *
 * @throws Error naming its members when steps need each other in a circle
 */
export class Evaluator {
  private readonly byId: Map<string, StepDefinition>;
  private memory = new Memory();

  constructor(private readonly steps: readonly StepDefinition[]) {
    this.byId = new Map(steps.map((step) => [step.id, step]));
  }

  /**
   * @param library the parts that rankings choose from; the same lists as long as it does not change
   */
  evaluate(design: Design, library: PartsList = starterParts): Evaluation {
    try {
      return new Pass(this.steps, this.byId, this.memory, design, library).run();
    } catch (error) {
      // Half a pass is no memory.
      this.memory = new Memory();
      throw error;
    }
  }
}

/** What is kept from one design to the next. */
class Memory {
  readonly graph = new Graph();
  /** What is being computed, the innermost last. */
  readonly reading: Node[] = [];
  /** The places of the innermost. */
  noted: Set<Place> | undefined;
  readonly views = new Views((place) => this.noted?.add(place));
  readonly lists = new Map<PartKind, readonly unknown[]>();
  /** Of each step, by its id. */
  readonly subjects = new Map<string, Set<string>>();
  design: Design | null = null;
  evaluation = emptyEvaluation();
}

const subjectsKey = (step: string) => `subjects of ${step}`;
const none: StepOutput = { figures: [], checks: [] };

class Pass {
  private readonly graph: Graph;
  /** Of what may have moved: what was found to stand, or has run again. */
  private readonly settled = new Set<string>();
  private dirty = new Set<string>();
  private suspect = new Set<string>();
  /** What stood before, of the nodes that ran again or are gone. */
  private readonly replaced = new Map<string, StepOutput>();

  constructor(
    private readonly steps: readonly StepDefinition[],
    private readonly byId: ReadonlyMap<string, StepDefinition>,
    private readonly memory: Memory,
    private readonly design: Design,
    private readonly library: PartsList,
  ) {
    this.graph = memory.graph;
  }

  run(): Evaluation {
    const { memory, graph } = this;
    this.dirty = graph.readersOf(
      memory.design === null ? [] : changedPlaces(memory.design, this.design),
      [...memory.lists].flatMap(([kind, list]) => (this.library.of(kind) === list ? [] : [kind])),
    );
    memory.design = this.design;
    this.takeSubjects();
    this.suspect = graph.behind(this.dirty);
    for (const step of this.steps) {
      for (const subject of memory.subjects.get(step.id)!) this.ensure(step, subject);
    }
    memory.evaluation = patched(memory.evaluation, this.replaced, graph);
    return memory.evaluation;
  }

  /** Who each step is about: new ones are made and run, those that went are forgotten. */
  private takeSubjects(): void {
    const { memory, graph } = this;
    for (const step of this.steps) {
      const key = subjectsKey(step.id);
      const known = memory.subjects.get(step.id);
      if (known !== undefined && !this.dirty.has(key)) continue;
      const node = graph.add(key);
      const found = new Set(this.reading(node, () => step.subjects(this.root())));
      graph.index(node);
      memory.subjects.set(step.id, found);
      for (const subject of known ?? []) if (!found.has(subject)) this.forget(`${step.id}:${subject}`);
      for (const subject of found) if (known?.has(subject) !== true) this.dirty.add(`${step.id}:${subject}`);
    }
  }

  private forget(key: string): void {
    const node = this.graph.get(key);
    if (node === undefined) return;
    this.replaced.set(key, node.output);
    this.graph.remove(node);
    // Whoever read its figures looks again, and finds them gone.
    this.dirty.add(key);
  }

  private ensure(step: StepDefinition, subject: string): Node {
    const key = `${step.id}:${subject}`;
    const known = this.graph.get(key);
    if (known !== undefined && (this.settled.has(key) || !this.suspect.has(key))) return known;
    const { reading } = this.memory;
    const circle = reading.findIndex((node) => node.key === key);
    if (circle >= 0) {
      const members = [...reading.slice(circle).map((node) => node.key), key];
      throw new Error(`steps need each other: ${members.join(' → ')}`);
    }
    if (known !== undefined && !this.dirty.has(key) && this.stands(known)) {
      this.settled.add(key);
      return known;
    }
    if (known !== undefined) this.replaced.set(key, known.output);
    else this.replaced.set(key, none);
    const node = this.graph.add(key);
    node.output = this.reading(node, () => step.compute(subject, this.readerFor(node)));
    this.graph.index(node);
    this.settled.add(key);
    return node;
  }

  /** Whether every figure it read is still what it was. */
  private stands(node: Node): boolean {
    this.enter(node);
    const same =
      node.shared.every(({ view, value }) => this.sharedOf(view) === value) &&
      node.figures.every((read) => unchangedFigure(read, this.figureOf(read.id)));
    this.leave();
    return same;
  }

  private reading<T>(node: Node, run: () => T): T {
    this.enter(node);
    const found = run();
    this.leave();
    return found;
  }

  private enter(node: Node): void {
    this.memory.reading.push(node);
    this.memory.noted = node.places;
  }

  private leave(): void {
    this.memory.reading.pop();
    this.memory.noted = this.memory.reading.at(-1)?.places;
  }

  private root(): Design {
    return this.memory.views.of(this.design, '', 0) as Design;
  }

  private readerFor(node: Node): Reader {
    return {
      at: (...path: string[]) => {
        this.readsNow(node);
        let value: unknown = this.root();
        for (const key of path) value = (value as Readonly<Record<string, unknown>> | undefined)?.[key];
        return value as never;
      },
      figure: (id) => {
        this.readsNow(node);
        const figure = this.figureOf(id);
        node.figures.push({ id, value: figure.value, gaps: figure.gaps } satisfies FigureRead);
        return figure;
      },
      shared: <T>(view: SharedView<T>) => {
        this.readsNow(node);
        const value = this.sharedOf(view);
        node.shared.push({ view, value });
        return value as T;
      },
      parts: (kind) => {
        this.readsNow(node);
        const list = this.library.of(kind);
        this.memory.lists.set(kind, list);
        node.lists.add(kind);
        return list;
      },
    };
  }

  /** What is read later is read of a design that may be gone, and nobody notes it. */
  private readsNow(node: Node): void {
    if (this.memory.reading.at(-1) !== node) throw new Error(`${node.key} reads when it is not its turn`);
  }

  private sharedOf(view: SharedView<unknown>): unknown {
    const key = sharedKey(view.id);
    const known = this.graph.get(key);
    if (known !== undefined && (this.settled.has(key) || !this.dirty.has(key))) return known.value;
    const node = this.graph.add(key);
    const made = this.reading(node, () => view.make(this.root()));
    node.value = known === undefined ? made : keptWhereEqual(known.value, made);
    this.graph.index(node);
    this.settled.add(key);
    return node.value;
  }

  private figureOf(id: FigureId): Figures[number] {
    const [stepId = '', subject = ''] = id.split(':');
    const step = this.byId.get(stepId);
    const found =
      step !== undefined && this.memory.subjects.get(stepId)!.has(subject)
        ? this.ensure(step, subject).output.figures.find((figure) => figure.id === id)
        : undefined;
    return found ?? { id, label: id, unit: '', value: null, gaps: [], working: [] };
  }
}
