/** A conductance between two nodes of a resistor network. */
export interface Conductance {
  a: number;
  b: number;
  siemens: number;
}

/**
 * Solves a connected resistor network for the potentials of its nodes, the last one at 0 V.
 *
 * Nodes are eliminated one after another, the one with fewest neighbours first, by star-mesh transformation: only
 * positive numbers are added, so that conductances of any ratio keep their digits; chains, of which such networks are
 * made, stay chains. Source: star-mesh (Rosen's) theorem.
 *
 * @param count nodes, 0 … count − 1; every node must be connected to every other
 * @param edges conductances above 0
 * @param injected for each right-hand side the current put into each node, A; its sum is taken out at the last node
 * @returns for each right-hand side the potentials, V
 */
export function solveNetwork(
  count: number,
  edges: readonly Conductance[],
  injected: readonly (readonly number[])[],
): number[][] {
  const neighbours = Array.from({ length: count }, () => new Map<number, number>());
  const connect = (a: number, b: number, siemens: number) => {
    if (a === b) return;
    neighbours[a]!.set(b, (neighbours[a]!.get(b) ?? 0) + siemens);
    neighbours[b]!.set(a, (neighbours[b]!.get(a) ?? 0) + siemens);
  };
  for (const { a, b, siemens } of edges) connect(a, b, siemens);
  const currents = injected.map((one) => [...one]);
  const eliminated: { node: number; star: [number, number][]; total: number; currents: number[] }[] = [];
  const queue = new DegreeQueue(neighbours, count - 1);
  for (let node = queue.next(); node !== null; node = queue.next()) {
    const star = [...neighbours[node]!];
    const total = star.reduce((sum, [, siemens]) => sum + siemens, 0);
    eliminated.push({ node, star, total, currents: currents.map((one) => one[node]!) });
    for (const [other, siemens] of star) {
      neighbours[other]!.delete(node);
      currents.forEach((one) => (one[other]! += (one[node]! * siemens) / total));
    }
    for (let i = 0; i < star.length; i += 1)
      for (let j = i + 1; j < star.length; j += 1) {
        const [a, ga] = star[i]!;
        const [b, gb] = star[j]!;
        connect(a, b, (ga * gb) / total);
      }
    for (const [other] of star) queue.changed(other);
  }
  const potentials = injected.map(() => new Array<number>(count).fill(0));
  for (const { node, star, total, currents: own } of eliminated.reverse())
    potentials.forEach((one, k) => {
      one[node] = star.reduce((sum, [other, siemens]) => sum + siemens * one[other]!, own[k]!) / total;
    });
  return potentials;
}

/** Hands out the node with the fewest neighbours; stale places are skipped. */
class DegreeQueue {
  private readonly buckets: number[][] = [];
  private readonly done: boolean[];
  private lowest = 0;

  constructor(
    private readonly neighbours: readonly ReadonlyMap<number, number>[],
    kept: number,
  ) {
    this.done = neighbours.map((_, node) => node === kept);
    neighbours.forEach((_, node) => this.changed(node));
  }

  changed(node: number): void {
    if (this.done[node]) return;
    const degree = this.neighbours[node]!.size;
    (this.buckets[degree] ??= []).push(node);
    this.lowest = Math.min(this.lowest, degree);
  }

  next(): number | null {
    for (; this.lowest < this.buckets.length; this.lowest += 1) {
      const bucket = this.buckets[this.lowest] ?? [];
      while (bucket.length > 0) {
        const node = bucket.pop()!;
        if (this.done[node] || this.neighbours[node]!.size !== this.lowest) continue;
        this.done[node] = true;
        return node;
      }
    }
    return null;
  }
}
