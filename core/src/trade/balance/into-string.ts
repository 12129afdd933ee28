import { interpolate, type Table } from '../../ground/math';
import type { ModuleData } from '../../model/parts';
import { drawDown } from './draw-down';
import { medianOf } from './outliers';

/** One module that goes in series with others, brought to where they stand. */
export interface IntoStringInput {
  data: ModuleData;
  /** At rest, of the other modules of its string that were measured. */
  neighboursV: readonly number[];
  /** At rest, of itself. */
  moduleV: number;
  /** As measured, Ah; absent: its sheet's. */
  capacityAh?: number | undefined;
  /** How near is near enough, per cell in series. */
  toleranceVPerCell: number;
  /** Resistor that draws it down, Ω. */
  loadOhm?: number | undefined;
  /** Current of the supply that charges it, A. */
  supplyA?: number | undefined;
}

export interface IntoString {
  /** Middle of its neighbours, V. */
  targetV: number;
  /** Between the highest and the lowest of its neighbours, V. */
  spreadV: number;
  /** Positive: it stands higher than they. */
  offV: number;
  toleranceV: number;
  way: 'draw down' | 'charge up' | 'none';
  /** Charge to move, by the open-circuit voltage table. */
  ahToMove: number;
  /** What the charge would be if both readings were 5 mV per cell off against each other, Ah either way. */
  ahUnsure: number;
  /** Of its sheet, because nobody measured it. */
  capacityAssumed: boolean;
  /** With this load or supply; null: none given, or it is not to be used. */
  hours: number | null;
  /** Terminal voltage, under load or while charging, at which to stop. */
  stopV: number | null;
  /** At the first moment, through the load; of the supply. */
  currentA: number | null;
  /** Heat in the load at the first moment, W. */
  loadW: number | null;
  /** Why this load or supply is not to be used. */
  refused: string[];
}

const readingOffV = 0.005;

/**
 * Where a module has to stand before it goes into its series string, which way charge must go, how long that takes with the gear at hand,
 * and at which voltage to stop. In series nothing equalises by itself: what is off stays off and ends every charge and every drive.
 *
 * Source: target by the median of the neighbours; charge by the open-circuit voltage table; drawing down by U/(Ri + Rl) along it;
 * charging by a constant current, with I·Ri on top of what rest would show.
 *
 * @returns null where no neighbour was measured
 */
export function intoString(input: IntoStringInput): IntoString | null {
  const { data, neighboursV, moduleV, toleranceVPerCell, loadOhm, supplyA } = input;
  const targetV = medianOf(neighboursV);
  if (targetV === null) return null;
  const { cell, cellsInSeries, cellsInParallel } = data;
  const table = cell.ocvTable.map(([soc, v]): [number, number] => [soc, v * cellsInSeries]);
  const resistanceOhm = (cell.resistanceOhm * cellsInSeries) / cellsInParallel;
  const capacityAh = input.capacityAh ?? cell.capacityAh * cellsInParallel;
  const toleranceV = toleranceVPerCell * cellsInSeries;
  const offV = moduleV - targetV;
  const way = Math.abs(offV) <= toleranceV + 1e-9 ? 'none' : offV > 0 ? 'draw down' : 'charge up';
  const ah = (fromV: number, toV: number) => Math.abs(socAt(table, fromV) - socAt(table, toV)) * capacityAh;
  const wrongV = readingOffV * cellsInSeries * Math.SQRT2;
  const [nearV, farV] = [Math.abs(offV) - wrongV, Math.abs(offV) + wrongV].map(
    (off) => targetV + Math.sign(offV || 1) * Math.max(off, 0),
  ) as [number, number];
  const base = {
    targetV,
    spreadV: Math.max(...neighboursV) - Math.min(...neighboursV),
    offV,
    toleranceV,
    way,
    ahToMove: ah(moduleV, targetV),
    ahUnsure: Math.max(ah(farV, targetV) - ah(moduleV, targetV), ah(moduleV, targetV) - ah(nearV, targetV)),
    capacityAssumed: input.capacityAh === undefined,
    hours: null,
    stopV: null,
    currentA: null,
    loadW: null,
    refused: [],
  } as const;
  const limits = { low: cell.minV * cellsInSeries, high: cell.maxV * cellsInSeries };
  if (way === 'draw down' && loadOhm !== undefined) {
    const stopV = (targetV * loadOhm) / (resistanceOhm + loadOhm);
    const drawn = drawDown({
      ocvTable: table,
      capacityAh,
      resistanceOhm,
      fromV: moduleV,
      cutOffV: stopV,
      loadOhm,
    });
    const currentA = moduleV / (resistanceOhm + loadOhm);
    const refused = [
      ...(currentA > data.continuousA ? ['more current than the module may give without end'] : []),
      ...(stopV < limits.low ? ['under this load the cells fall below their least voltage'] : []),
    ];
    const ok = refused.length === 0 && drawn !== null;
    return {
      ...base,
      currentA,
      loadW: currentA ** 2 * loadOhm,
      refused,
      ...(ok && { hours: drawn.hours, stopV }),
    };
  }
  if (way === 'charge up' && supplyA !== undefined) {
    const stopV = targetV + supplyA * resistanceOhm;
    const most = data.chargeA;
    const refused = [
      ...(most !== undefined && supplyA > most ? ['more current than the module takes without end'] : []),
      ...(stopV > limits.high ? ['at this current the cells rise above their highest voltage'] : []),
    ];
    return {
      ...base,
      currentA: supplyA,
      refused,
      ...(refused.length === 0 && { hours: base.ahToMove / supplyA, stopV }),
    };
  }
  return { ...base, refused: [] };
}

const socAt = (table: Table, volts: number) =>
  interpolate(
    table.map(([soc, v]): [number, number] => [v, soc]),
    volts,
  );
