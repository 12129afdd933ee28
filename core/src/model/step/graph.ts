import type { Figure, FigureId } from '../../ground/figure';
import type { PartKind } from '../parts';
import type { Place } from './places';
import type { SharedView, StepDefinition, StepOutput } from './reader';

/** A figure as it was read. */
export interface FigureRead {
  from: Node;
  id: FigureId;
  value: Figure['value'];
  gaps: Figure['gaps'];
}

/** Something made once per design, as it was read. */
export interface SharedRead {
  from: Node;
  view: SharedView<unknown>;
  value: unknown;
}

export const nothing: StepOutput = { figures: [], checks: [] };

/**
 * One step for one subject, the subjects of a step, or a shared view: what it read, what came out, and who read that. It is
 * there before it is computed, and after its subject went: whoever reads a figure that nobody makes hears when it is made.
 */
export class Node {
  /** What makes it; null: nobody does now. */
  step: StepDefinition | null = null;
  subject = '';
  output = nothing;
  /** Of a shared view. */
  value: unknown;

  /** Some of them more than once. */
  places: Place<Node>[] = [];
  figures: FigureRead[] = [];
  shared: SharedRead[] = [];
  lists = new Set<PartKind>();
  readonly followers = new Set<Node>();

  /** Something it read itself has moved. */
  dirty = true;
  /** The last pass in which it may have to run again, and in which that was settled. */
  suspectIn = 0;
  settledIn = 0;
  private mark = 0;

  /** @param key `${step}:${subject}` */
  constructor(readonly key: string) {}

  /** Takes on all that another one knows, among the copies of its places and nodes. */
  becomes(other: Node, nodeOf: (node: Node) => Node, placeOf: (place: Place<Node>) => Place<Node>): void {
    this.step = other.step;
    this.subject = other.subject;
    this.output = other.output;
    this.value = other.value;
    this.places = other.places.map(placeOf);
    this.figures = other.figures.map((read) => ({ ...read, from: nodeOf(read.from) }));
    this.shared = other.shared.map((read) => ({ ...read, from: nodeOf(read.from) }));
    this.lists = new Set(other.lists);
    for (const follower of other.followers) this.followers.add(nodeOf(follower));
    this.dirty = other.dirty;
    this.suspectIn = other.suspectIn;
    this.settledIn = other.settledIn;
  }

  /**
   * Runs it anew and takes up what it reads. It mostly reads what it read before: only the difference is written.
   *
   * @param readersOf who reads the parts of a kind
   * @param mark gives a number that nobody bears yet
   */
  readAgain(readersOf: (kind: PartKind) => Set<Node>, mark: () => number, read: () => void): void {
    const { places, figures, shared } = this;
    const before = this.lists;
    this.places = [];
    this.figures = [];
    this.shared = [];
    this.lists = new Set();
    read();
    this.dirty = false;
    const now = mark();
    for (const place of this.places) {
      place.mark = now;
      place.readers.add(this);
    }
    for (const place of places) if (place.mark !== now) place.readers.delete(this);
    for (const { from } of [...this.figures, ...this.shared]) {
      from.mark = now;
      from.followers.add(this);
    }
    for (const { from } of figures) if (from.mark !== now) from.followers.delete(this);
    for (const { from } of shared) if (from.mark !== now) from.followers.delete(this);
    for (const kind of this.lists) readersOf(kind).add(this);
    for (const kind of before) if (!this.lists.has(kind)) readersOf(kind).delete(this);
  }
}

/** These nodes and all that follow from them. */
export function behind(nodes: Iterable<Node>): Set<Node> {
  const found = new Set(nodes);
  // A set takes in what is added while it is walked.
  for (const node of found) for (const reader of node.followers) found.add(reader);
  return found;
}
