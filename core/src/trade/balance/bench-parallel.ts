import { interpolate, type Table } from '../../ground/math';

/** A module on the bench. */
export interface BenchModule {
  id: string;
  /** At rest. */
  voltageV: number;
  capacityAh: number;
  resistanceOhm: number;
  /** What it may carry. */
  limitA: number;
}

export interface BenchParallelInput {
  modules: BenchModule[];
  /** Cells in series in each. */
  series: number;
  /** Lead and both joints from a module to the common bars. */
  leadOhm: number;
  ocvTable: Table;
  /** How close a cell must come to the level. */
  toleranceV: number;
}

export interface BenchJoin {
  id: string;
  /** At the moment all are joined; positive: it gives. */
  currentA: number;
  withinLimit: boolean;
  /** What leaves it until all are level; negative: what it takes. */
  givesAh: number;
  /** What must leave it before, so that its current stays within its limit; negative: be put in. */
  firstAh: number;
}

export interface BenchParallelResult {
  /** Voltage of the bars at the moment of joining. */
  barV: number;
  joins: BenchJoin[];
  worstA: number;
  withinLimits: boolean;
  /** Where all of them end. */
  levelSocFraction: number;
  levelCellV: number;
  /** Until every cell is within the tolerance of the level; null: not within 10 000 h. */
  hours: number | null;
}

const mostHours = 10_000;

/**
 * All modules side by side on common bars: the current of each at the moment of joining, where they end, and when.
 *
 * Source: node of the star of their resistances; charge is kept; each step relaxes every module towards the bars by
 * its own time constant on its stretch of the curve, the bars chosen so that what is given is taken.
 *
 * @throws when there is no module, or one has no resistance in its path
 */
export function benchParallel({
  modules,
  series,
  leadOhm,
  ocvTable,
  toleranceV,
}: BenchParallelInput): BenchParallelResult {
  if (modules.length === 0) throw new Error('no module');
  const paths = modules.map(({ resistanceOhm }) => resistanceOhm + leadOhm);
  if (paths.some((ohm) => !(ohm > 0))) throw new Error('a module without resistance in its path');
  const barV = barOf(
    modules.map(({ voltageV }) => voltageV),
    paths,
  );
  const turned = ocvTable.map(([soc, v]): [number, number] => [v, soc]);
  const socOf = (voltageV: number) => interpolate(turned, voltageV / series);
  const socs = modules.map(({ voltageV }) => socOf(voltageV));
  const totalAh = modules.reduce((sum, { capacityAh }) => sum + capacityAh, 0);
  const levelSocFraction =
    modules.reduce((sum, { capacityAh }, i) => sum + capacityAh * socs[i]!, 0) / totalAh;
  const joins = modules.map(({ id, voltageV, capacityAh, limitA }, i): BenchJoin => {
    const currentA = (voltageV - barV) / paths[i]!;
    const over = Math.abs(currentA) > limitA;
    const nearV = barV + Math.sign(currentA) * limitA * paths[i]!;
    return {
      id,
      currentA,
      withinLimit: !over,
      givesAh: capacityAh * (socs[i]! - levelSocFraction),
      firstAh: over ? capacityAh * (socs[i]! - socOf(nearV)) : 0,
    };
  });
  return {
    barV,
    joins,
    worstA: Math.max(...joins.map(({ currentA }) => Math.abs(currentA))),
    withinLimits: joins.every(({ withinLimit }) => withinLimit),
    levelSocFraction,
    levelCellV: interpolate(ocvTable, levelSocFraction),
    hours: hoursToLevel(modules, socs, paths, series, ocvTable, levelSocFraction, toleranceV),
  };
}

/** Voltage of the node at which sources meet. */
function barOf(volts: readonly number[], ohms: readonly number[]): number {
  let currents = 0;
  let conductance = 0;
  volts.forEach((voltageV, i) => {
    currents += voltageV / ohms[i]!;
    conductance += 1 / ohms[i]!;
  });
  return currents / conductance;
}

/** V per unit of charge on the stretch of the curve that holds `soc`. */
function slopeAt(table: Table, soc: number): number {
  let i = 1;
  while (i < table.length - 1 && table[i]![0] <= soc) i += 1;
  const [s0, v0] = table[i - 1]!;
  const [s1, v1] = table[i]!;
  return Math.max((v1 - v0) / (s1 - s0), 1e-9);
}

function hoursToLevel(
  modules: readonly BenchModule[],
  start: readonly number[],
  paths: readonly number[],
  series: number,
  ocvTable: Table,
  level: number,
  toleranceV: number,
): number | null {
  const socs = [...start];
  const levelV = interpolate(ocvTable, level);
  const off = () => Math.max(...socs.map((soc) => Math.abs(interpolate(ocvTable, soc) - levelV)));
  let hours = 0;
  let stepH = 1e-4;
  while (off() > toleranceV) {
    if (hours > mostHours) return null;
    let given = 0;
    let taking = 0;
    const ways = socs.map((soc, i) => {
      const slope = slopeAt(ocvTable, soc) * series;
      const { capacityAh } = modules[i]!;
      // Ah that a volt of difference moves within the step.
      const ahPerV = (capacityAh / slope) * -Math.expm1((-stepH * slope) / (capacityAh * paths[i]!));
      const volts = interpolate(ocvTable, soc) * series;
      given += ahPerV * volts;
      taking += ahPerV;
      return { ahPerV, volts, capacityAh };
    });
    const barV = given / taking;
    let largest = 0;
    ways.forEach(({ ahPerV, volts, capacityAh }, i) => {
      const moved = (ahPerV * (volts - barV)) / capacityAh;
      socs[i] = socs[i]! - moved;
      largest = Math.max(largest, Math.abs(moved));
    });
    hours += stepH;
    stepH *= largest > 0.001 ? 0.7 : 1.2;
    stepH = Math.min(stepH, 2);
  }
  return hours;
}
