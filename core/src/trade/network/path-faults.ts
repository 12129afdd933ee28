import { defineCalculator } from '../../ground/calculator';
import { record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { solveNetwork } from '../../ground/math';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { elementList, type NetworkElement } from './elements';

export interface PathFaultsInput {
  /** All switches are taken as closed. */
  elements: NetworkElement[];
  /** The load whose terminals are shorted. */
  from: string;
}

export interface PathFaultsResult {
  prospectiveA: number;
  /** Thevenin voltage at the terminals, b over a. */
  sourceVoltageV: number;
  /** Thevenin resistance, source included; null: nothing feeds the short. */
  pathResistanceOhm: number | null;
  /** Fuses that carry the fault current, nearest to a module first. */
  fuses: string[];
  /** With every fuse taken out a module still feeds the short. */
  unprotected: boolean;
}

const rule = rulesOf('path-faults');

export const pathFaultRules = {
  unprotected: rule(
    'unprotected',
    'stop',
    'A short is fed past every fuse',
    'Without a fuse in its path nothing but melting copper ends the current of a short circuit.',
    'A fuse in every string, near its source, rated to break the largest fault.',
    'Network with every fuse taken out',
  ),
};

/** A resistance of nothing is computed as this, Ω: far below any joint. */
const nothingOhm = 1e-9;
/** A share of the fault current below which a fuse carries none of it. */
const carriesFraction = 1e-9;

interface Solved {
  volts: number;
  ohms: number;
  /** Current in each element without the short and with it, by id. */
  open: Map<string, number>;
  shorted: Map<string, number>;
}

/** The network that hangs on the load's terminals, loads left out; null when nothing joins them. */
function connected(elements: readonly NetworkElement[], a: string, b: string): NetworkElement[] | null {
  const at = new Map<string, NetworkElement[]>();
  for (const element of elements)
    for (const terminal of [element.a, element.b]) at.set(terminal, [...(at.get(terminal) ?? []), element]);
  const seen = new Set([a]);
  const found = new Set<NetworkElement>();
  const queue = [a];
  for (let terminal = queue.pop(); terminal !== undefined; terminal = queue.pop())
    for (const element of at.get(terminal) ?? []) {
      found.add(element);
      for (const next of [element.a, element.b])
        if (!seen.has(next)) {
          seen.add(next);
          queue.push(next);
        }
    }
  return seen.has(b) ? elements.filter((element) => found.has(element)) : null;
}

/** Thevenin pair at two terminals, and the currents with and without a short there. */
function solve(elements: readonly NetworkElement[], a: string, b: string): Solved {
  // The load's own negative post comes last: potentials are solved over it, so that nothing cancels in the difference.
  const names = new Set(elements.flatMap((element) => [element.a, element.b]));
  names.delete(a);
  const index = new Map([...names, a].map((name, i) => [name, i]));
  const node = (name: string) => index.get(name)!;
  const edges = elements.map((element) => ({
    a: node(element.a),
    b: node(element.b),
    siemens: 1 / Math.max(element.resistanceOhm!, nothingOhm),
    volts: element.kind === 'module' ? element.voltageV! : 0,
  }));
  const sources = new Array<number>(index.size).fill(0);
  for (const { a: from, b: to, siemens, volts } of edges) {
    if (from === to) continue;
    sources[from]! -= volts * siemens;
    sources[to]! += volts * siemens;
  }
  const unit = new Array<number>(index.size).fill(0);
  unit[index.get(b)!] = 1;
  unit[index.get(a)!]! -= 1;
  const [potentials, response] = solveNetwork(index.size, edges, [sources, unit]) as [number[], number[]];
  const across = (of: number[]) => of[index.get(b)!]! - of[index.get(a)!]!;
  const volts = across(potentials);
  const ohms = across(response);
  const current = (share: number) =>
    new Map(
      edges.map(({ a: from, b: to, siemens, volts: own }, i) => {
        const rise = (k: number) => potentials[k]! - share * response[k]!;
        return [elements[i]!.id, (rise(from) - rise(to) + own) * siemens];
      }),
    );
  return { volts, ohms, open: current(0), shorted: current(volts / ohms) };
}

/** Elements between each terminal and the nearest module. */
function stepsFromModules(elements: readonly NetworkElement[]): Map<string, number> {
  const steps = new Map<string, number>();
  let edge = elements.filter(({ kind }) => kind === 'module').flatMap(({ a, b }) => [a, b]);
  for (let count = 0; edge.length > 0; count += 1) {
    const fresh = edge.filter((terminal) => !steps.has(terminal));
    for (const terminal of fresh) steps.set(terminal, count);
    const here = new Set(fresh);
    edge = elements.flatMap(({ a, b }) => [...(here.has(a) ? [b] : []), ...(here.has(b) ? [a] : [])]);
  }
  return steps;
}

function carrying(elements: readonly NetworkElement[], { volts, ohms, open, shorted }: Solved): string[] {
  const least = carriesFraction * Math.abs(volts / ohms);
  const steps = stepsFromModules(elements);
  return elements
    .filter(({ kind }) => kind === 'fuse')
    .filter(({ id }) => {
      const now = shorted.get(id)!;
      return Math.abs(now) > least && Math.abs(now - open.get(id)!) > least;
    })
    .map(({ id, a, b }, place) => ({
      id,
      place,
      away: Math.min(steps.get(a) ?? Infinity, steps.get(b) ?? Infinity),
    }))
    .sort((x, y) => x.away - y.away || x.place - y.place)
    .map(({ id }) => id);
}

/** Whether the pair feeds anything, beyond what rounding leaves. */
const feeds = (volts: number, elements: readonly NetworkElement[]) =>
  Math.abs(volts) > 1e-9 * Math.max(0, ...elements.map(({ voltageV }) => voltageV ?? 0));

/**
 * The short circuit at a load's terminals: what feeds it, through what, and which fuses see it.
 *
 * Source: Thevenin's theorem on the resistor network of modules, conductors and fuses.
 */
export const pathFaults = defineCalculator<PathFaultsInput, PathFaultsResult>({
  name: 'path-faults',
  version: 1,
  title: 'Fault at the end of a path',
  rules: Object.values(pathFaultRules),
  door: {
    schema: record({ elements: elementList(true), from: text(80) }),
    cross({ elements, from }: PathFaultsInput, issue) {
      const load = elements.find(({ id }) => id === from);
      if (load?.kind !== 'load') return issue('from', 'is no load of this network');
      const network = connected(
        elements.filter(({ kind }) => kind !== 'load'),
        load.a,
        load.b,
      );
      if (network === null || load.a === load.b) return;
      const { volts, ohms } = solve(network, load.a, load.b);
      const nothing = network.filter(({ resistanceOhm }) => resistanceOhm! < nothingOhm).length * nothingOhm;
      if (feeds(volts, network) && ohms <= nothing * (1 + 1e-6))
        issue('elements', 'have no resistance in the path of the fault: no current can be computed');
    },
  },
  compute({ elements, from }, { sheet, raise }) {
    const load = elements.find(({ id }) => id === from)!;
    const rest = elements.filter(({ kind }) => kind !== 'load');
    const network = load.a === load.b ? null : connected(rest, load.a, load.b);
    const solved = network === null ? null : solve(network, load.a, load.b);
    const none = solved === null || !feeds(solved.volts, network!);
    const V = { symbol: 'V_t', value: none ? 0 : solved.volts, unit: 'V' };
    const pathResistanceOhm = sheet.add({
      symbol: 'R_t',
      label: 'Resistance at the terminals, source included',
      formula: none ? 'nothing feeds the short' : 'Thevenin',
      inputs: [],
      value: none ? null : solved.ohms,
      unit: 'Ω',
      source: 'Network solved by star-mesh elimination',
    });
    const prospectiveA = sheet.add({
      symbol: 'I_p',
      label: 'Prospective fault current',
      formula: none ? '0' : 'V_t/R_t',
      inputs: none ? [] : [V, { symbol: 'R_t', value: solved.ohms, unit: 'Ω' }],
      value: none ? 0 : solved.volts / solved.ohms,
      unit: 'A',
      source: 'Thevenin’s theorem',
    });
    if (none)
      return { prospectiveA: 0, sourceVoltageV: 0, pathResistanceOhm: null, fuses: [], unprotected: false };
    const bare = connected(
      rest.filter(({ kind }) => kind !== 'fuse'),
      load.a,
      load.b,
    );
    const unprotected = bare !== null && feeds(solve(bare, load.a, load.b).volts, bare);
    if (unprotected)
      raise(
        pathFaultRules.unprotected,
        `A short at ${from} of ${formatNumber(prospectiveA)} A from ${formatQuantity(solved.volts, 'V')} is fed past every fuse.`,
      );
    return {
      prospectiveA,
      sourceVoltageV: solved.volts,
      pathResistanceOhm,
      fuses: carrying(network!, solved),
      unprotected,
    };
  },
});
