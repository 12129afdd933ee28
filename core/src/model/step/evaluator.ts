import { laid, type Design } from '../document';
import type { Figure, FigureId } from '../../ground/figure';
import { starterParts, type PartKind, type PartsList } from '../parts';
import { emptyEvaluation, patched, type Evaluation } from './evaluation';
import { behind, Node, nothing } from './graph';
import { keptWhereEqual } from './kept';
import { Place } from './places';
import {
  unchangedFigure,
  type Reader,
  type SharedView,
  type StepDefinition,
  type StepOutput,
} from './reader';
import { viewOf, type Noter } from './views';

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
  private memory: Memory;

  /** @param finish adds what follows from the evaluation as a whole; the same evaluation gives the same */
  constructor(
    private readonly steps: readonly StepDefinition[],
    private readonly finish: (evaluation: Evaluation) => Evaluation = (evaluation) => evaluation,
  ) {
    this.memory = new Memory(steps);
  }

  /**
   * @param library the parts that rankings choose from; the same lists as long as it does not change
   */
  evaluate(design: Design, library: PartsList = starterParts): Evaluation {
    try {
      return this.finish(new Pass(this.memory, laid(design), library).run());
    } catch (error) {
      // Half a pass is no memory.
      this.memory = new Memory(this.steps);
      throw error;
    }
  }

  /** One that knows what this one knows: a design that differs a little from the last one costs the difference in it too. */
  fork(): Evaluator {
    const made = new Evaluator(this.steps, this.finish);
    made.memory = this.memory.copy();
    return made;
  }
}

/** A step with its subjects of now. */
interface Subjects {
  step: StepDefinition;
  /** What reads who they are. */
  node: Node;
  of: Map<string, Node>;
}

/** What is kept from one design to the next. */
class Memory implements Noter {
  readonly steps: Subjects[];
  root = new Place<Node>();
  readonly lists = new Map<PartKind, { list: readonly unknown[]; readers: Set<Node> }>();
  /** What is being computed, the innermost last. */
  readonly reading: Reading[] = [];
  design: Design | null = null;
  evaluation = emptyEvaluation();
  passes = 0;
  private readonly nodes = new Map<string, Node>();
  private readonly makers = new Map<FigureId, Node>();
  private now: Reading | null = null;
  private marks = 0;

  constructor(steps: readonly StepDefinition[]) {
    this.steps = steps.map((step) => ({ step, node: new Node(`subjects of ${step.id}`), of: new Map() }));
  }

  node(key: string): Node {
    let node = this.nodes.get(key);
    if (node === undefined) {
      node = new Node(key);
      this.nodes.set(key, node);
    }
    return node;
  }

  /** The node that makes a figure, or would. */
  makerOf(id: FigureId): Node {
    let maker = this.makers.get(id);
    if (maker === undefined) {
      maker = this.node(id.slice(0, id.lastIndexOf(':')));
      this.makers.set(id, maker);
    }
    return maker;
  }

  /** What is read while `run` runs is read by this node. */
  reads<T>(node: Node, run: () => T): T {
    this.now = { node, mark: this.mark() };
    this.reading.push(this.now);
    const found = run();
    this.reading.pop();
    this.now = this.reading.at(-1) ?? null;
    return found;
  }

  view(design: Design): Design {
    return viewOf(design, this.root, this) as Design;
  }

  note(place: Place<Node>): void {
    const { now } = this;
    if (now === null || place.mark === now.mark) return;
    place.mark = now.mark;
    now.node.places.push(place);
  }

  readonly mark = () => (this.marks += 1);

  /** The same between two passes; from then on each goes its way. */
  copy(): Memory {
    const made = new Memory(this.steps.map(({ step }) => step));
    const copies = new Map(this.steps.map(({ node }, i) => [node, made.steps[i]!.node]));
    const nodeOf = (node: Node): Node => copies.get(node) ?? known(node);
    const known = (node: Node): Node => {
      const copy = made.node(node.key);
      copies.set(node, copy);
      return copy;
    };
    const places = new Map<Place<Node>, Place<Node>>();
    made.root = this.root.copy(nodeOf, places);
    for (const node of [...this.steps.map((one) => one.node), ...this.nodes.values()]) {
      nodeOf(node).becomes(node, nodeOf, (place) => places.get(place)!);
    }
    this.steps.forEach(({ of }, i) => {
      for (const [subject, node] of of) made.steps[i]!.of.set(subject, nodeOf(node));
    });
    for (const [kind, { list, readers }] of this.lists) {
      made.lists.set(kind, { list, readers: new Set([...readers].map(nodeOf)) });
    }
    made.design = this.design;
    made.evaluation = this.evaluation;
    made.passes = this.passes;
    made.marks = this.marks;
    return made;
  }
}

interface Reading {
  node: Node;
  /** On the places it read: most fields are read several times in a row. */
  mark: number;
}

class Pass {
  private readonly number: number;
  /** What the nodes that ran again, or are gone, gave before. */
  private readonly replaced = new Map<Node, StepOutput>();

  /**
   * From nothing, all steps run, and noting each field takes half as long again: they note what they asked for as one value.
   * Those that an edit reaches read field by field from then on.
   */
  private readonly first: boolean;

  constructor(
    private readonly memory: Memory,
    private readonly design: Design,
    private readonly library: PartsList,
  ) {
    this.number = memory.passes += 1;
    this.first = memory.design === null;
  }

  run(): Evaluation {
    const { memory } = this;
    const dirty = this.changed();
    for (const node of dirty) node.dirty = true;
    memory.design = this.design;
    for (const node of this.takeSubjects()) dirty.add(node);
    const suspects = behind(dirty);
    for (const node of suspects) node.suspectIn = this.number;
    for (const node of suspects) if (node.step !== null) this.ensure(node, node.step);
    memory.evaluation = patched(memory.evaluation, this.replaced);
    return memory.evaluation;
  }

  /** Whoever read where something differs now. */
  private changed(): Set<Node> {
    const { design, root, lists } = this.memory;
    const found = new Set<Node>();
    if (design !== null) root.changed(design, this.design, found);
    for (const [kind, { list, readers }] of lists) {
      if (this.library.of(kind) !== list) for (const node of readers) found.add(node);
    }
    return found;
  }

  /**
   * Who each step is about: new ones are made, those that went are forgotten.
   *
   * @returns both
   */
  private takeSubjects(): Node[] {
    const { memory } = this;
    const moved: Node[] = [];
    for (const { step, node, of } of memory.steps) {
      if (!node.dirty) continue;
      let found: string[] = [];
      this.again(node, () => (found = step.subjects(memory.view(this.design))));
      const now = new Set(found);
      for (const [subject, gone] of of) {
        if (now.has(subject)) continue;
        of.delete(subject);
        this.replaced.set(gone, gone.output);
        gone.step = null;
        gone.output = nothing;
        this.again(gone, () => undefined);
        moved.push(gone);
      }
      for (const subject of now) {
        if (of.has(subject)) continue;
        const made = memory.node(`${step.id}:${subject}`);
        made.step = step;
        made.subject = subject;
        made.dirty = true;
        of.set(subject, made);
        moved.push(made);
      }
    }
    return moved;
  }

  private ensure(node: Node, step: StepDefinition): void {
    const { memory, number } = this;
    if (node.suspectIn !== number || node.settledIn === number) return;
    const circle = memory.reading.findIndex((reading) => reading.node === node);
    if (circle >= 0) {
      const members = [...memory.reading.slice(circle).map((reading) => reading.node.key), node.key];
      throw new Error(`steps need each other: ${members.join(' → ')}`);
    }
    if (node.dirty || !this.stands(node)) {
      this.replaced.set(node, node.output);
      this.again(node, () => (node.output = step.compute(node.subject, this.readerFor(node))));
    }
    node.settledIn = number;
  }

  /** Whether every figure it read is still what it was. */
  private stands(node: Node): boolean {
    const { shared, figures } = node;
    return this.memory.reads(
      node,
      () =>
        shared.every(({ from, view, value }) => this.sharedOf(from, view) === value) &&
        figures.every((read) => unchangedFigure(read, this.figureOf(read.from, read.id))),
    );
  }

  private again(node: Node, run: () => void): void {
    const { memory } = this;
    node.readAgain(
      (kind) => memory.lists.get(kind)!.readers,
      memory.mark,
      () => memory.reads(node, run),
    );
  }

  private readerFor(node: Node): Reader {
    const { memory } = this;
    // What is read later is read of a design that may be gone, and nobody notes it.
    const inTurn = () => {
      if (memory.reading.at(-1)?.node !== node) throw new Error(`${node.key} reads when it is not its turn`);
    };
    return {
      at: (...path: string[]) => {
        inTurn();
        let value: unknown = this.first ? this.design : memory.view(this.design);
        for (const key of path) value = (value as Readonly<Record<string, unknown>> | undefined)?.[key];
        if (this.first) memory.note(path.reduce((place, key) => place.at(key), memory.root).whole);
        return value as never;
      },
      figure: (id) => {
        inTurn();
        const from = memory.makerOf(id);
        const figure = this.figureOf(from, id);
        node.figures.push({ from, id, value: figure.value, gaps: figure.gaps });
        return figure;
      },
      shared: <T>(view: SharedView<T>) => {
        inTurn();
        const from = memory.node(`shared ${view.id}`);
        const value = this.sharedOf(from, view);
        node.shared.push({ from, view, value });
        return value as T;
      },
      parts: (kind) => {
        inTurn();
        const list = this.library.of(kind);
        const known = memory.lists.get(kind);
        if (known === undefined) memory.lists.set(kind, { list, readers: new Set() });
        else known.list = list;
        node.lists.add(kind);
        return list;
      },
    };
  }

  private sharedOf(node: Node, view: SharedView<unknown>): unknown {
    if (node.dirty && node.settledIn !== this.number) {
      this.again(node, () => {
        node.value = keptWhereEqual(node.value, view.make(this.memory.view(this.design)));
      });
      node.settledIn = this.number;
    }
    return node.value;
  }

  private figureOf(node: Node, id: FigureId): Figure {
    if (node.step !== null) this.ensure(node, node.step);
    const found = node.output.figures.find((figure) => figure.id === id);
    return found ?? { id, label: id, unit: '', value: null, gaps: [], working: [] };
  }
}
