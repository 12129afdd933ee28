import { isClosed, lawOf, type FluidOfPipes, type Law, type LoopElement } from './laws';

export interface SolvedLoop {
  /** L/min by element, in their order; a closed valve carries 0. */
  flows: number[];
  /** kPa by node against the ground node; null without an open way to it. */
  pressures: Map<string, number | null>;
  /** kPa from one node to another; null where no open way joins them. */
  across(from: string, to: string): number | null;
  /** Largest mismatch of an element's law, kPa. */
  residualKPa: number;
  iterations: number;
}

/** A flow that is put into a node, L/min; all of them in one part of the network add up to nothing. */
export type Injected = ReadonlyMap<string, number>;

/** An open element between numbered nodes. */
interface Branch {
  index: number;
  from: number;
  to: number;
  law: Law;
}

/** A loop: chords close it, branches of the tree carry it on; +1 along their own direction. */
type Loop = [branch: number, sign: 1 | -1][];

const mostIterations = 200;
const goodKPa = 1e-10;
/** Least resistance that the steps of the solution go by, kPa per L/min: a level pump has none. */
const leastSlope = 1e-12;

/**
 * Flows and pressures of a network of coolant: continuity holds at every node by construction, for what is solved for are the
 * flows around its loops; the laws of the elements around each loop are brought to balance by Newton steps on the loop flows,
 * each shortened to where the energy of the network is least along it, so that it arrives from anywhere.
 *
 * Source: content of a network of monotone elements (Millar, 1951), of which the flows are the only minimum.
 *
 * @param groundNode its pressure is 0
 * @param injected flows put into nodes from outside
 * @param near flows of the same elements to begin from, L/min: those of a loop that is nearly as this one, with nothing injected
 * @returns null where what is put in has no way out
 */
export function solveLoop(
  elements: readonly LoopElement[],
  fluid: FluidOfPipes,
  groundNode: string,
  injected: Injected = new Map(),
  near: readonly number[] | null = null,
): SolvedLoop | null {
  const numbers = new Map<string, number>();
  const numberOf = (node: string) => {
    let number = numbers.get(node);
    if (number === undefined) numbers.set(node, (number = numbers.size));
    return number;
  };
  const branches: Branch[] = [];
  elements.forEach((element, index) => {
    const [from, to] = [numberOf(element.from), numberOf(element.to)];
    if (!isClosed(element)) branches.push({ index, from, to, law: lawOf(element, fluid) });
  });
  for (const node of injected.keys()) numberOf(node);
  const tree = treeOf(branches, numbers.size);
  const flow = new Float64Array(branches.length);
  const into = new Float64Array(numbers.size);
  for (const [node, lPerMin] of injected) into[numbers.get(node)!]! += lPerMin;
  if (!carryIn(tree, branches, into, flow)) return null;
  if (near !== null) branches.forEach(({ index }, i) => (flow[i] = near[index]!));
  const loops = loopsOf(tree, branches);
  const { residualKPa, iterations } = balance(branches, loops, flow, near !== null);
  const flows = elements.map(() => 0);
  branches.forEach(({ index }, i) => (flows[index] = flow[i]!));
  const { root, kPa } = pressuresOf(tree, branches, flow, numbers.size);
  const across = (from: string, to: string) => {
    const [a, b] = [numbers.get(from), numbers.get(to)];
    return a !== undefined && b !== undefined && root[a] === root[b] ? kPa[a]! - kPa[b]! : null;
  };
  const pressures = new Map([...numbers.keys()].map((node) => [node, across(node, groundNode)]));
  return { flows, pressures, across, residualKPa, iterations };
}

interface Tree {
  /** By node: the branch towards its root, or -1 for a root. */
  up: Int32Array;
  /** Nodes from the roots outwards. */
  order: number[];
  depth: Int32Array;
  chords: number[];
}

/** A spanning tree of the branches that resist least: what resists most closes loops, which keeps their equations apart. */
function treeOf(branches: readonly Branch[], nodes: number): Tree {
  const rank = branches.map(({ law }) => Math.abs(law.at(1).slope) + Math.abs(law.at(10).slope));
  const sorted = branches.map((_, i) => i).sort((a, b) => rank[a]! - rank[b]!);
  const leader = Int32Array.from({ length: nodes }, (_, i) => i);
  const find = (node: number): number => {
    while (leader[node]! !== node) {
      leader[node] = leader[leader[node]!]!;
      node = leader[node]!;
    }
    return node;
  };
  const beside: number[][] = Array.from({ length: nodes }, () => []);
  const chords: number[] = [];
  for (const i of sorted) {
    const { from, to } = branches[i]!;
    const [a, b] = [find(from), find(to)];
    if (a === b) {
      chords.push(i);
      continue;
    }
    leader[a] = b;
    beside[from]!.push(i);
    beside[to]!.push(i);
  }
  const up = new Int32Array(nodes).fill(-1);
  const depth = new Int32Array(nodes);
  const seen = new Uint8Array(nodes);
  const order: number[] = [];
  for (let root = 0; root < nodes; root += 1) {
    if (seen[root]) continue;
    seen[root] = 1;
    order.push(root);
    for (let at = order.length - 1; at < order.length; at += 1) {
      const node = order[at]!;
      for (const i of beside[node]!) {
        const { from, to } = branches[i]!;
        const other = from === node ? to : from;
        if (seen[other]) continue;
        seen[other] = 1;
        up[other] = i;
        depth[other] = depth[node]! + 1;
        order.push(other);
      }
    }
  }
  return { up, order, depth, chords };
}

/** Leads what is put into nodes along the tree to its roots; false where something is left over there. */
function carryIn(tree: Tree, branches: readonly Branch[], into: Float64Array, flow: Float64Array): boolean {
  const size = into.reduce((sum, one) => sum + Math.abs(one), 0);
  if (size === 0) return true;
  for (let k = tree.order.length - 1; k >= 0; k -= 1) {
    const node = tree.order[k]!;
    const i = tree.up[node]!;
    if (i < 0) {
      if (Math.abs(into[node]!) > 1e-12 * size) return false;
      continue;
    }
    const { from, to } = branches[i]!;
    flow[i] = from === node ? into[node]! : -into[node]!;
    into[from === node ? to : from]! += into[node]!;
  }
  return true;
}

function loopsOf({ up, depth, chords }: Tree, branches: readonly Branch[]): Loop[] {
  return chords.map((chord) => {
    const loop: Loop = [[chord, 1]];
    // Back from where the chord leads to where it starts, over the tree.
    let a = branches[chord]!.to;
    let b = branches[chord]!.from;
    while (a !== b) {
      if (depth[a]! >= depth[b]!) {
        const i = up[a]!;
        const { from, to } = branches[i]!;
        loop.push([i, from === a ? 1 : -1]);
        a = from === a ? to : from;
      } else {
        const i = up[b]!;
        const { from, to } = branches[i]!;
        loop.push([i, to === b ? 1 : -1]);
        b = from === b ? to : from;
      }
    }
    return loop;
  });
}

function balance(
  branches: readonly Branch[],
  loops: readonly Loop[],
  flow: Float64Array,
  isNear: boolean,
): { residualKPa: number; iterations: number } {
  const count = loops.length;
  if (count === 0) return { residualKPa: 0, iterations: 0 };
  const drop = new Float64Array(branches.length);
  const slope = new Float64Array(branches.length);
  const step = new Float64Array(branches.length);
  const loopsOfBranch: [loop: number, sign: number][][] = branches.map(() => []);
  loops.forEach((loop, k) => loop.forEach(([i, sign]) => loopsOfBranch[i]!.push([k, sign])));
  const matrix = new Float64Array(count * count);
  const off = new Float64Array(count);
  const look = () => {
    branches.forEach(({ law }, i) => {
      const { dropKPa, slope: rise } = law.at(flow[i]!);
      drop[i] = dropKPa;
      slope[i] = rise;
    });
    let worst = 0;
    loops.forEach((loop, k) => {
      let sum = 0;
      for (const [i, sign] of loop) sum += sign * drop[i]!;
      off[k] = sum;
      worst = Math.max(worst, Math.abs(sum));
    });
    return worst;
  };
  let residualKPa = look();
  let best = residualKPa;
  let bestFlow = flow.slice();
  let stuck = 0;
  let iterations = 0;
  while (residualKPa > goodKPa && iterations < mostIterations && stuck < 12) {
    iterations += 1;
    if (iterations === 1 && !isNear)
      // From standstill nothing resists: the first step goes by what resists at a usual flow.
      branches.forEach(({ law }, i) => {
        const q = Math.abs(flow[i]!) + 3;
        slope[i] = Math.max(slope[i]!, Math.abs(law.at(q).dropKPa - law.at(0).dropKPa) / q);
      });
    matrix.fill(0);
    branches.forEach((_, i) => {
      const d = Math.max(slope[i]!, leastSlope);
      const through = loopsOfBranch[i]!;
      for (const [k, a] of through)
        for (const [l, b] of through) if (l <= k) matrix[k * count + l]! += a * b * d;
    });
    const turn = solveSymmetric(matrix, off, count);
    step.fill(0);
    loops.forEach((loop, k) => {
      for (const [i, sign] of loop) step[i]! -= sign * turn[k]!;
    });
    const by = shorten(branches, flow, step);
    for (let i = 0; i < flow.length; i += 1) flow[i]! += by * step[i]!;
    residualKPa = look();
    if (residualKPa < best) {
      stuck = residualKPa < 0.9 * best || residualKPa > 1e-6 ? 0 : stuck + 1;
      best = residualKPa;
      bestFlow = flow.slice();
    } else stuck += residualKPa > 1e-6 ? 0.25 : 1;
  }
  flow.set(bestFlow);
  return { residualKPa: best, iterations };
}

/** How far to go along a step: to where the energy is least along it; all of it where that is nearly so. */
function shorten(branches: readonly Branch[], flow: Float64Array, step: Float64Array): number {
  const rise = (t: number) => {
    let sum = 0;
    for (let i = 0; i < branches.length; i += 1)
      if (step[i] !== 0) sum += branches[i]!.law.at(flow[i]! + t * step[i]!).dropKPa * step[i]!;
    return sum;
  };
  const start = rise(0);
  const end = rise(1);
  // Newton's own step is right at the end: shortened only where it goes well past the least.
  if (!(end > 0.5 * Math.abs(start))) return 1;
  let [low, high] = [0, 1];
  let [lowRise, highRise] = [start, end];
  for (let k = 0; k < 60; k += 1) {
    const even = low - (lowRise * (high - low)) / (highRise - lowRise);
    const t = k % 3 === 2 || !(even > low && even < high) ? (low + high) / 2 : even;
    const here = rise(t);
    if (Math.abs(here) <= 0.1 * Math.abs(start)) return t;
    if (here < 0) [low, lowRise] = [t, here];
    else [high, highRise] = [t, here];
  }
  return (low + high) / 2;
}

/** Cholesky’s way, in place; the lower half of the matrix is read. Rows of very different size keep their digits. */
function solveSymmetric(matrix: Float64Array, right: Float64Array, n: number): Float64Array {
  const x = right.slice();
  for (let k = 0; k < n; k += 1) {
    for (let j = 0; j <= k; j += 1) {
      let sum = matrix[k * n + j]!;
      for (let i = 0; i < j; i += 1) sum -= matrix[k * n + i]! * matrix[j * n + i]!;
      if (j < k) matrix[k * n + j] = sum / matrix[j * n + j]!;
      else matrix[k * n + k] = Math.sqrt(sum > 0 ? sum : Math.max(matrix[k * n + k]! * 1e-14, 1e-300));
    }
    let sum = x[k]!;
    for (let i = 0; i < k; i += 1) sum -= matrix[k * n + i]! * x[i]!;
    x[k] = sum / matrix[k * n + k]!;
  }
  for (let k = n - 1; k >= 0; k -= 1) {
    let sum = x[k]!;
    for (let i = k + 1; i < n; i += 1) sum -= matrix[i * n + k]! * x[i]!;
    x[k] = sum / matrix[k * n + k]!;
  }
  return x;
}

/** Pressure of each node over that of the root of its part, and which root that is. */
function pressuresOf(
  { up, order }: Tree,
  branches: readonly Branch[],
  flow: Float64Array,
  nodes: number,
): { root: Int32Array; kPa: Float64Array } {
  const root = new Int32Array(nodes);
  const kPa = new Float64Array(nodes);
  for (const node of order) {
    const i = up[node]!;
    if (i < 0) {
      root[node] = node;
      continue;
    }
    const { from, to, law } = branches[i]!;
    const before = from === node ? to : from;
    const { dropKPa } = law.at(flow[i]!);
    root[node] = root[before]!;
    kPa[node] = kPa[before]! + (to === node ? -dropKPa : dropKPa);
  }
  return { root, kPa };
}
