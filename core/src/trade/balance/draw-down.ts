import { integrate, interpolate, type Table } from '../../ground/math';

/** A cell under a load resistor, until the load cuts off. */
export interface DrawDownInput {
  ocvTable: Table;
  capacityAh: number;
  /** Of the cell. */
  resistanceOhm: number;
  /** At rest, before. */
  fromV: number;
  /** Under load, where it cuts off. */
  cutOffV: number;
  loadOhm: number;
}

export interface DrawDown {
  /** At the first moment. */
  startA: number;
  startW: number;
  /** Open-circuit voltage at which the terminals have fallen to the cut-off. */
  emptyV: number;
  ah: number;
  hours: number;
  /** In the resistor, until the cut-off. */
  heatWh: number;
}

/**
 * Hours, charge and heat until a load first cuts off. Recovering and drawing again afterwards is not in it: pilots show
 * that.
 *
 * Source: I = U_oc/(R_i + R_l) along the open-circuit voltage table, in closed form on each of its stretches.
 *
 * @returns null when the cell lies below the cut-off already
 */
export function drawDown({
  ocvTable,
  capacityAh,
  resistanceOhm,
  fromV,
  cutOffV,
  loadOhm,
}: DrawDownInput): DrawDown | null {
  const loopOhm = resistanceOhm + loadOhm;
  const emptyV = (cutOffV * loopOhm) / loadOhm;
  if (emptyV >= fromV) return null;
  const turned = ocvTable.map(([soc, v]): [number, number] => [v, soc]);
  const from = interpolate(turned, fromV);
  const to = interpolate(turned, emptyV);
  const startA = fromV / loopOhm;
  return {
    startA,
    startW: startA ** 2 * loadOhm,
    emptyV,
    ah: (from - to) * capacityAh,
    hours: capacityAh * loopOhm * integralOfInverse(ocvTable, to, from),
    heatWh: (capacityAh * loadOhm * integrate(ocvTable, to, from)) / loopOhm,
  };
}

/** ∫ ds/U over a table that is straight between its points. */
function integralOfInverse(table: Table, from: number, to: number): number {
  const inside = table.filter(([x]) => x > from && x < to);
  const points: [number, number][] = [
    [from, interpolate(table, from)],
    ...inside.map(([x, y]): [number, number] => [x, y]),
    [to, interpolate(table, to)],
  ];
  let sum = 0;
  for (let i = 1; i < points.length; i += 1) {
    const [x0, v0] = points[i - 1]!;
    const [x1, v1] = points[i]!;
    const rise = v1 - v0;
    sum += Math.abs(rise) < 1e-9 * v0 ? (x1 - x0) / v0 : ((x1 - x0) * Math.log(v1 / v0)) / rise;
  }
  return sum;
}

/** Preferred values of a decade (IEC 60063, E12). */
const e12 = [1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2];
/** Usual powers of wire-wound resistors in a metal case. */
const powersW = [5, 10, 25, 50, 100, 200, 300];
/** A resistor in the open is run at half of what it is rated for on its heat sink. */
export const loadRatingUse = 0.5;

export interface LoadChoice extends DrawDown {
  loadOhm: number;
  /** The smallest usual rating of which at most half is used; null: none is large enough. */
  ratedW: number | null;
  fits: boolean;
  reasons: string[];
}

/**
 * Load resistors of preferred values for drawing a cell down: those within current, heat and hours first, of these the
 * gentlest.
 *
 * @param mostA what the cell, or the thinnest lead in the path, may carry
 * @param wantedH hours within which the load should first cut off
 */
export function chooseLoad(
  input: Omit<DrawDownInput, 'loadOhm'>,
  mostA: number,
  wantedH: number,
): LoadChoice[] {
  const values = [0.01, 0.1, 1, 10].flatMap((decade) => e12.map((value) => value * decade));
  return values
    .flatMap((value): LoadChoice[] => {
      const loadOhm = Number(value.toPrecision(3));
      const found = drawDown({ ...input, loadOhm });
      if (found === null || found.hours > wantedH * 20 || found.startA > mostA * 3) return [];
      const ratedW = powersW.find((watts) => watts * loadRatingUse >= found.startW) ?? null;
      const reasons = [
        ...(found.startA > mostA ? ['more current than the path may carry'] : []),
        ...(found.hours > wantedH ? ['slower than wanted'] : []),
        ...(ratedW === null ? ['no usual resistor takes its heat'] : []),
      ];
      return [{ ...found, loadOhm, ratedW, fits: reasons.length === 0, reasons }];
    })
    .sort((a, b) => Number(b.fits) - Number(a.fits) || (a.fits ? b.loadOhm - a.loadOhm : a.hours - b.hours));
}
