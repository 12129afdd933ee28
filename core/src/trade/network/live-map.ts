import { defineCalculator } from '../../ground/calculator';
import { judgedInParts, numberProblem, numberSchema, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { alwaysJoins, elementList, isConductor, type NetworkElement } from './elements';
import { PotentialGroups } from './islands';

export interface LiveMapInput {
  elements: NetworkElement[];
  /** Voltage left on the capacitors of loads, by id; absent: proved discharged. */
  storedV: Record<string, number>;
}

export type LiveState = 'live' | 'stored' | 'floating';

export interface LiveTerminal {
  state: LiveState;
  /** Live and stored components, from 1; null: floating. */
  component: number | null;
  /** Over the lowest terminal of the component; null: floating. */
  potentialV: number | null;
}

export interface LiveMapResult {
  terminals: Record<string, LiveTerminal>;
  reaches: Record<string, { maxVoltageV: number; between: [string, string] | null }>;
  conflicts: { element: string; differenceV: number }[];
}

const rule = rulesOf('live-map');

export const liveMapRules = {
  conflict: rule(
    'conflict',
    'stop',
    'Something closes a loop of different voltages',
    'Strings of different voltage, or a short, are joined: the difference drives a current that only resistance limits.',
    'Leave it open; bring the voltages together first, or find the wrong connection.',
    'Sum of voltages around a loop',
  ),
};

/** A mismatch below this is measurement, not conflict, V. */
const conflictAboveV = 1;
/** A capacitor above this is stored charge, V. */
const storedAboveV = 60;
/** Potentials that differ by less are the same, V. */
const sameV = 1e-9;

interface Graph {
  names: string[];
  index: Map<string, number>;
  ends: [a: number, b: number][];
}

/** Terminals in the order in which they first appear. */
function graphOf(elements: readonly NetworkElement[]): Graph {
  const index = new Map<string, number>();
  const names: string[] = [];
  const node = (name: string) => {
    let at = index.get(name);
    if (at === undefined) {
      at = names.length;
      index.set(name, at);
      names.push(name);
    }
    return at;
  };
  return { names, index, ends: elements.map(({ a, b }) => [node(a), node(b)]) };
}

const joins = ({ kind, closed }: NetworkElement) => alwaysJoins(kind) || closed === true;

/** Modules first, then closed conductors, in list order: what was found first stays. */
function islandsOf(elements: readonly NetworkElement[], { names, ends }: Graph) {
  const islands = new PotentialGroups(names.length);
  const conflicts: LiveMapResult['conflicts'] = [];
  const take = (i: number, volts: number) => {
    const [a, b] = ends[i]!;
    const off = islands.join(a, b, volts);
    if (off !== null && Math.abs(off) > conflictAboveV)
      conflicts.push({ element: elements[i]!.id, differenceV: Math.abs(off) });
  };
  elements.forEach(({ kind, voltageV }, i) => kind === 'module' && take(i, voltageV!));
  elements.forEach((element, i) => isConductor(element.kind) && joins(element) && take(i, 0));
  return { islands, conflicts };
}

/** Which nodes hang together over anything that joins. */
function componentsOf(elements: readonly NetworkElement[], { names, ends }: Graph): Int32Array {
  const groups = new PotentialGroups(names.length);
  elements.forEach((element, i) => joins(element) && groups.join(...ends[i]!, 0));
  return Int32Array.from(names, (_, i) => groups.root(i));
}

/** A way between islands: through stored charge, a resistor, another load. */
interface Bridge {
  rank: 0 | 1 | 2;
  a: number;
  b: number;
  volts: number;
}

function bridgesOf({ elements, storedV }: LiveMapInput, { ends }: Graph): Bridge[] {
  return elements.flatMap(({ id, kind }, i): Bridge[] => {
    const [a, b] = ends[i]!;
    if (kind === 'resistor') return [{ rank: 1, a, b, volts: 0 }];
    if (kind !== 'load') return [];
    const stored = Object.hasOwn(storedV, id) ? storedV[id]! : null;
    return [stored === null ? { rank: 2, a, b, volts: 0 } : { rank: 0, a, b, volts: stored }];
  });
}

/** Potentials of the nodes of one component, its lowest at 0 V. */
function place(
  nodes: readonly number[],
  islands: PotentialGroups,
  bridges: readonly Bridge[],
): Map<number, number> {
  const members = new Map<number, number[]>();
  for (const node of nodes) {
    const root = islands.root(node);
    const known = members.get(root);
    if (known === undefined) members.set(root, [node]);
    else known.push(node);
  }
  const placed = new Map<number, number>();
  const put = (root: number, shift: number) => {
    for (const node of members.get(root)!) placed.set(node, islands.potential(node) + shift);
    members.delete(root);
  };
  put(widest(members, islands), 0);
  while (members.size > 0) {
    const next = highestBridge(bridges, placed);
    // Whatever hangs together is reached over some bridge; this only guards against an endless loop.
    if (next === null) break;
    put(islands.root(next.node), next.potentialV - islands.potential(next.node));
  }
  const lowest = Math.min(...placed.values());
  return new Map([...placed].map(([node, potential]) => [node, potential - lowest]));
}

/** The island with the largest spread of potentials; of equals the one that appears first. */
function widest(members: ReadonlyMap<number, number[]>, islands: PotentialGroups): number {
  let best = -1;
  let spread = -1;
  for (const [root, nodes] of members) {
    const potentials = nodes.map((node) => islands.potential(node));
    const own = Math.max(...potentials) - Math.min(...potentials);
    if (own > spread + sameV) {
      best = root;
      spread = own;
    }
  }
  return best;
}

function highestBridge(
  bridges: readonly Bridge[],
  placed: ReadonlyMap<number, number>,
): { node: number; potentialV: number } | null {
  let best: { rank: number; from: number; node: number; potentialV: number } | null = null;
  for (const { rank, a, b, volts } of bridges) {
    const atA = placed.get(a);
    const atB = placed.get(b);
    if ((atA === undefined) === (atB === undefined)) continue;
    const from = atA ?? atB!;
    if (best !== null && (rank > best.rank || (rank === best.rank && from <= best.from + sameV))) continue;
    best =
      atA === undefined
        ? { rank, from, node: a, potentialV: atB! - volts }
        : { rank, from, node: b, potentialV: atA + volts };
  }
  return best;
}

/** The largest voltage that can be touched within each reach. */
function reachesOf(
  elements: readonly NetworkElement[],
  { names, ends }: Graph,
  terminals: readonly LiveTerminal[],
): LiveMapResult['reaches'] {
  const nodesOf = new Map<string, Set<number>>();
  elements.forEach(({ reach }, i) => {
    const nodes = nodesOf.get(reach) ?? new Set<number>();
    for (const node of ends[i]!) nodes.add(node);
    nodesOf.set(reach, nodes);
  });
  const found = [...nodesOf].map(([reach, nodes]): [string, LiveMapResult['reaches'][string]] => {
    const extremes = new Map<number, { low: number; high: number }>();
    for (const node of [...nodes].sort((a, b) => a - b)) {
      const { component, potentialV } = terminals[node]!;
      if (component === null) continue;
      const known = extremes.get(component);
      if (known === undefined) extremes.set(component, { low: node, high: node });
      else {
        if (potentialV! < terminals[known.low]!.potentialV! - sameV) known.low = node;
        if (potentialV! > terminals[known.high]!.potentialV! + sameV) known.high = node;
      }
    }
    let maxVoltageV = 0;
    let between: [string, string] | null = null;
    for (const { low, high } of extremes.values()) {
      const volts = terminals[high]!.potentialV! - terminals[low]!.potentialV!;
      if (volts <= maxVoltageV + sameV) continue;
      maxVoltageV = volts;
      between = [names[low]!, names[high]!];
    }
    return [reach, { maxVoltageV, between }];
  });
  return Object.fromEntries(found);
}

const storedShape = judgedInParts(
  (value) => {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return [{ path: '', message: 'must be an object of voltages by load' }];
    for (const [id, volts] of Object.entries(value)) {
      const message = id.length > 80 ? 'is no load of this network' : numberProblem(volts);
      if (message !== null) return [{ path: id.slice(0, 60), message }];
    }
    return [];
  },
  true,
  () => ({ type: 'object', additionalProperties: numberSchema({}) }),
);

/**
 * What is live, with stored charge, or floating, for a position of every switch, and the highest voltage within reach.
 *
 * Source: connected components of the network; potentials by the series chains of modules.
 */
export const liveMap = defineCalculator<LiveMapInput, LiveMapResult>({
  name: 'live-map',
  version: 1,
  title: 'What is live',
  rules: Object.values(liveMapRules),
  door: {
    schema: record({ elements: elementList(false), storedV: storedShape }),
    defaults: { storedV: {} },
    cross({ elements, storedV }: LiveMapInput, issue) {
      const loads = new Set(elements.filter(({ kind }) => kind === 'load').map(({ id }) => id));
      for (const id of Object.keys(storedV))
        if (!loads.has(id)) issue(`storedV.${id}`, 'is no load of this network');
    },
  },
  compute(input, { sheet, raise }) {
    const { elements, storedV } = input;
    const graph = graphOf(elements);
    const { islands, conflicts } = islandsOf(elements, graph);
    const component = componentsOf(elements, graph);
    const nodes = new Map<number, number[]>();
    component.forEach((root, node) => nodes.set(root, [...(nodes.get(root) ?? []), node]));
    const states = new Map<number, LiveState>();
    elements.forEach(({ id, kind }, i) => {
      const root = component[graph.ends[i]![0]]!;
      if (kind === 'module') states.set(root, 'live');
      else if (kind === 'load' && (storedV[id] ?? 0) > storedAboveV && states.get(root) !== 'live')
        states.set(root, 'stored');
    });
    const bridges = bridgesOf(input, graph);
    const terminals = graph.names.map((): LiveTerminal => ({
      state: 'floating',
      component: null,
      potentialV: null,
    }));
    let number = 0;
    for (const [root, members] of nodes) {
      const state = states.get(root);
      if (state === undefined) continue;
      number += 1;
      const own = bridges.filter(({ a }) => component[a] === root);
      for (const [node, potentialV] of place(members, islands, own))
        terminals[node] = { state, component: number, potentialV };
    }
    const reaches = reachesOf(elements, graph, terminals);
    for (const { element, differenceV } of conflicts.slice(0, 20))
      raise(
        liveMapRules.conflict,
        `${element} closes a loop in which ${formatNumber(differenceV, 4)} V are left over.`,
      );
    const highest = Object.entries(reaches).slice(0, 40);
    sheet.add({
      symbol: 'U',
      label: 'Highest voltage within one reach',
      formula: 'max(U_r)',
      inputs: highest.map(([reach, { maxVoltageV }], i) => ({
        symbol: `U_r${i + 1}`,
        label: reach,
        value: maxVoltageV,
        unit: 'V',
      })),
      value: Math.max(0, ...Object.values(reaches).map(({ maxVoltageV }) => maxVoltageV)),
      unit: 'V',
      source: 'Connected components; potentials by the series chains of modules',
    });
    return {
      terminals: Object.fromEntries(graph.names.map((name, i) => [name, terminals[i]!])),
      reaches,
      conflicts,
    };
  },
});
