import type { LoopElement } from './laws';
import { airJPerKgK, exchange } from './exchanger';

/** What a piece does to the coolant in it. */
export interface Exchanger {
  /** Into the coolant, W. */
  heatW?: number;
  /** A radiator with its air. */
  radiator?: { uaWPerK: number; airKgPerS: number; airC: number };
}

export interface LoopTemperatures {
  /** By node; null where nothing flows. */
  nodes: Map<string, number | null>;
  /** By element: as coolant enters and leaves it the way it flows; null where nothing flows. */
  elements: ({ inC: number; outC: number } | null)[];
}

/** L/min: less is standing still. */
export const standsBelowLPerMin = 1e-4;

/**
 * Steady temperatures of coolant in a network with its flows: what meets at a node is mixed by its flow, each load adds its heat,
 * radiators give off by their effectiveness.
 *
 * Source: energy balance at every node, solved at once.
 *
 * @returns null where heat has no way out: it would warm without end
 */
export function temperaturesOf(
  elements: readonly LoopElement[],
  flows: readonly number[],
  doing: ReadonlyMap<string, Exchanger>,
  coolant: { densityKgM3: number; specificHeatJPerKgK: number },
): LoopTemperatures | null {
  const perLPerMin = (coolant.densityKgM3 * coolant.specificHeatJPerKgK) / 60_000;
  return mixed(elements, flows, ({ id }, lPerMin) => {
    const wPerK = lPerMin * perLPerMin;
    const { heatW = 0, radiator } = doing.get(id) ?? {};
    const added = heatW / wPerK;
    if (radiator === undefined || !(radiator.airKgPerS > 0)) return { keep: 1, add: added };
    const { effectiveness, leastWPerK } = exchange(radiator.uaWPerK, wPerK, radiator.airKgPerS * airJPerKgK);
    const share = (effectiveness * leastWPerK) / wPerK;
    return { keep: 1 - share, add: added + share * radiator.airC };
  });
}

/**
 * How much of the first pump’s flow goes through something that is to be served before it comes back: a drop is marked behind every pump
 * and loses its mark in each load.
 *
 * @returns null where the pump moves nothing
 */
export function servedShare(
  elements: readonly LoopElement[],
  flows: readonly number[],
  loads: ReadonlySet<string>,
): number | null {
  const first = elements.findIndex(({ kind }) => kind === 'pump');
  if (first < 0 || flows[first]! < standsBelowLPerMin) return null;
  const marked = mixed(elements, flows, ({ id, kind }) =>
    kind === 'pump' ? { keep: 0, add: 1 } : { keep: loads.has(id) ? 0 : 1, add: 0 },
  );
  const left = marked?.elements[first]?.inC;
  return left === undefined ? null : 1 - left;
}

/** What is carried along by the flow, mixed at the nodes; every element keeps a part of it and adds its own. */
function mixed(
  elements: readonly LoopElement[],
  flows: readonly number[],
  changeIn: (element: LoopElement, lPerMin: number) => { keep: number; add: number },
): LoopTemperatures | null {
  const numbers = new Map<string, number>();
  const numberOf = (node: string) => {
    let number = numbers.get(node);
    if (number === undefined) numbers.set(node, (number = numbers.size));
    return number;
  };
  /** Outlet = keep·inlet + add. */
  const moving = elements.map((element, i) => {
    const q = flows[i]!;
    if (Math.abs(q) < standsBelowLPerMin) return null;
    const [from, to] = q > 0 ? [element.from, element.to] : [element.to, element.from];
    const lPerMin = Math.abs(q);
    return { from: numberOf(from), to: numberOf(to), lPerMin, ...changeIn(element, lPerMin) };
  });
  const n = numbers.size;
  const matrix = Array.from({ length: n }, () => new Float64Array(n + 1));
  for (const one of moving) {
    if (one === null) continue;
    const row = matrix[one.to]!;
    row[one.to]! += one.lPerMin;
    row[one.from]! -= one.lPerMin * one.keep;
    row[n]! += one.lPerMin * one.add;
  }
  const solved = solveRows(matrix);
  if (solved === null) return null;
  const nodes = new Map<string, number | null>();
  for (const { from, to } of elements)
    for (const node of [from, to]) {
      const number = numbers.get(node);
      nodes.set(node, number === undefined ? null : solved[number]!);
    }
  return {
    nodes,
    elements: moving.map((one) =>
      one === null ? null : { inC: solved[one.from]!, outC: one.keep * solved[one.from]! + one.add },
    ),
  };
}

/** Gauss with the largest pivot; null where the rows do not settle it. */
function solveRows(rows: Float64Array[]): Float64Array | null {
  const n = rows.length;
  const size = Math.max(
    1e-300,
    ...rows.map((row) => row.slice(0, n).reduce((most, x) => Math.max(most, Math.abs(x)), 0)),
  );
  for (let k = 0; k < n; k += 1) {
    let best = k;
    for (let i = k + 1; i < n; i += 1) if (Math.abs(rows[i]![k]!) > Math.abs(rows[best]![k]!)) best = i;
    if (Math.abs(rows[best]![k]!) < 1e-11 * size) return null;
    [rows[k], rows[best]] = [rows[best]!, rows[k]!];
    const pivot = rows[k]!;
    for (let i = k + 1; i < n; i += 1) {
      const row = rows[i]!;
      const by = row[k]! / pivot[k]!;
      if (by === 0) continue;
      for (let j = k; j <= n; j += 1) row[j]! -= by * pivot[j]!;
    }
  }
  const x = new Float64Array(n);
  for (let k = n - 1; k >= 0; k -= 1) {
    let sum = rows[k]![n]!;
    for (let j = k + 1; j < n; j += 1) sum -= rows[k]![j]! * x[j]!;
    x[k] = sum / rows[k]![k]!;
  }
  return x;
}
