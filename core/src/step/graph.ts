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

  get(key: string): Node | undefined {
    return this.nodes.get(key);
  }

  /** A node that has read nothing yet, in place of what was there. */
  add(key: string): Node {
    const before = this.nodes.get(key);
    if (before !== undefined) this.remove(before);
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

  /** Takes up what a node has read. */
  index(node: Node): void {
    for (const place of node.places) addTo(this.atPlace, place, node.key);
    for (const kind of node.lists) addTo(this.ofList, kind, node.key);
    for (const { id } of node.figures) addTo(this.ofNode, nodeOf(id), node.key);
    for (const { view } of node.shared) addTo(this.ofNode, sharedKey(view.id), node.key);
  }

  remove(node: Node): void {
    this.nodes.delete(node.key);
    for (const place of node.places) this.atPlace.get(place)?.delete(node.key);
    for (const kind of node.lists) this.ofList.get(kind)?.delete(node.key);
    for (const { id } of node.figures) this.ofNode.get(nodeOf(id))?.delete(node.key);
    for (const { view } of node.shared) this.ofNode.get(sharedKey(view.id))?.delete(node.key);
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

function addTo<K>(index: Map<K, Set<string>>, at: K, key: string): void {
  const known = index.get(at);
  if (known === undefined) index.set(at, new Set([key]));
  else known.add(key);
}
