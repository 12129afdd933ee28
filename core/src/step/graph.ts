import type { Figure, FigureId } from '../figure';
import type { PartKind } from '../parts';
import type { Place } from './places';
import type { SharedView, StepOutput } from './reader';

/** A figure as it was read. */
export interface FigureRead {
  id: FigureId;
  value: Figure['value'];
  gaps: Figure['gaps'];
}

/** Something made once per design, as it was read. */
export interface SharedRead {
  view: SharedView<unknown>;
  value: unknown;
}

/** One step for one subject, or a shared view: what it read, and what came out. */
export interface Node {
  /** `${step}:${subject}`. */
  key: string;
  places: Set<Place>;
  figures: FigureRead[];
  shared: SharedRead[];
  lists: Set<PartKind>;
  output: StepOutput;
  /** Of a shared view. */
  value?: unknown;
}

/** Who read what, both ways round. */
export class Graph {
  private readonly nodes = new Map<string, Node>();
  private readonly atPlace = new Map<Place, Set<string>>();
  private readonly ofList = new Map<PartKind, Set<string>>();
  /** By the node whose figures were read, whether it is there or not. */
  private readonly ofNode = new Map<string, Set<string>>();
  /** What is being computed again. */
  private readonly before = new Map<string, Node>();

  get(key: string): Node | undefined {
    return this.nodes.get(key);
  }

  /** A node that has read nothing yet, in place of what was there: that stays indexed until this one is. */
  add(key: string): Node {
    const before = this.nodes.get(key);
    if (before !== undefined) this.before.set(key, before);
    const node: Node = {
      key,
      places: new Set(),
      figures: [],
      shared: [],
      lists: new Set(),
      output: { figures: [], checks: [] },
    };
    this.nodes.set(key, node);
    return node;
  }

  /** Takes up what a node has read. It mostly reads what it read before: only the difference is written. */
  index(node: Node): void {
    const before = this.before.get(node.key) ?? null;
    this.before.delete(node.key);
    const { key } = node;
    exchange(this.atPlace, key, before?.places, node.places);
    exchange(this.ofList, key, before?.lists, node.lists);
    exchange(this.ofNode, key, before === null ? undefined : readNodes(before), readNodes(node));
  }

  remove(node: Node): void {
    const { key } = node;
    this.nodes.delete(key);
    exchange(this.atPlace, key, node.places, none);
    exchange(this.ofList, key, node.lists, none);
    exchange(this.ofNode, key, readNodes(node), none);
  }

  readersOf(places: Iterable<Place>, kinds: readonly PartKind[]): Set<string> {
    const found = new Set<string>();
    for (const place of places) for (const key of this.atPlace.get(place) ?? []) found.add(key);
    for (const kind of kinds) for (const key of this.ofList.get(kind) ?? []) found.add(key);
    return found;
  }

  /** These nodes and all that follow from them by figures. */
  behind(keys: ReadonlySet<string>): Set<string> {
    const found = new Set(keys);
    // A set takes in what is added while it is walked.
    for (const key of found) for (const reader of this.ofNode.get(key) ?? []) found.add(reader);
    return found;
  }
}

export const sharedKey = (view: string) => `shared ${view}`;

/** The node that makes a figure. */
const nodeOf = (id: FigureId) => id.slice(0, id.lastIndexOf(':'));

/** The nodes whose figures, or values, it read. */
const readNodes = ({ figures, shared }: Node): Set<string> =>
  new Set([...figures.map(({ id }) => nodeOf(id)), ...shared.map(({ view }) => sharedKey(view.id))]);

const none: ReadonlySet<never> = new Set();

/** Puts a reader where it reads now, and takes it away where it no longer does. */
function exchange<K>(
  index: Map<K, Set<string>>,
  key: string,
  before: ReadonlySet<K> = none,
  now: ReadonlySet<K> = none,
): void {
  for (const at of before) {
    if (now.has(at)) continue;
    const readers = index.get(at);
    readers?.delete(key);
    if (readers?.size === 0) index.delete(at);
  }
  for (const at of now) {
    if (before.has(at)) continue;
    const readers = index.get(at);
    if (readers === undefined) index.set(at, new Set([key]));
    else readers.add(key);
  }
}
