/**
 * Groups of nodes with known voltages between them: a union-find that carries the potential of each node against the
 * group's root.
 */
export class PotentialGroups {
  private readonly parent: Int32Array;
  /** Potential of a node over its parent. */
  private readonly over: Float64Array;
  private readonly size: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, i) => i);
    this.over = new Float64Array(count);
    this.size = new Int32Array(count).fill(1);
  }

  root(node: number): number {
    let at = node;
    while (this.parent[at] !== at) at = this.parent[at]!;
    return at;
  }

  /** Potential of a node over the root of its group, V. */
  potential(node: number): number {
    let sum = 0;
    for (let at = node; this.parent[at] !== at; at = this.parent[at]!) sum += this.over[at]!;
    return sum;
  }

  /**
   * Says that b lies `volts` above a.
   *
   * @returns null when that is new; otherwise by how much it contradicts what is known, V
   */
  join(a: number, b: number, volts: number): number | null {
    const rootA = this.root(a);
    const rootB = this.root(b);
    const between = this.potential(b) - this.potential(a);
    if (rootA === rootB) return volts - between;
    // The potential that root B must have over root A.
    const lift = volts - between;
    if (this.size[rootA]! >= this.size[rootB]!) this.hang(rootB, rootA, lift);
    else this.hang(rootA, rootB, -lift);
    return null;
  }

  private hang(child: number, parent: number, volts: number): void {
    this.parent[child] = parent;
    this.over[child] = volts;
    this.size[parent]! += this.size[child]!;
  }
}
