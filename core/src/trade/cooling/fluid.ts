import { interpolate, type Table } from '../../ground/math';

/** What a coolant is at one temperature. */
export interface Fluid {
  densityKgM3: number;
  specificHeatJPerKgK: number;
  viscosityMPaS: number;
  conductivityWPerMK: number;
}

/** A coolant over temperature: °C, kg/m³, J/kgK, mPa·s, W/mK; rising in temperature. */
export type FluidTable = readonly (readonly [
  temperatureC: number,
  densityKgM3: number,
  specificHeatJPerKgK: number,
  viscosityMPaS: number,
  conductivityWPerMK: number,
])[];

/** Ethylene glycol in water, 50 % by volume: typical figures. */
export const glycol50: FluidTable = [
  [-20, 1094, 3240, 22, 0.35],
  [0, 1086, 3310, 7.8, 0.365],
  [20, 1076, 3380, 3.9, 0.38],
  [40, 1064, 3450, 2.25, 0.392],
  [60, 1052, 3520, 1.45, 0.402],
  [80, 1038, 3590, 1.02, 0.409],
];

export const glycol50FreezesC = -36;
export const glycol50Source = 'Typical figures of 50 % by volume ethylene glycol in water';

export const coldestOf = (table: FluidTable): number => table[0]![0];
export const hottestOf = (table: FluidTable): number => table[table.length - 1]![0];

interface Columns {
  density: Table;
  specificHeat: Table;
  logViscosity: Table;
  conductivity: Table;
}

const columnsOf = new WeakMap<FluidTable, Columns>();

/** A coolant at a temperature: linear between rows, viscosity linear in its logarithm; end values held beyond the ends. */
export function fluidAt(table: FluidTable, temperatureC: number): Fluid {
  let columns = columnsOf.get(table);
  if (columns === undefined) {
    columns = {
      density: table.map((row) => [row[0], row[1]]),
      specificHeat: table.map((row) => [row[0], row[2]]),
      logViscosity: table.map((row) => [row[0], Math.log(row[3])]),
      conductivity: table.map((row) => [row[0], row[4]]),
    };
    columnsOf.set(table, columns);
  }
  return {
    densityKgM3: interpolate(columns.density, temperatureC),
    specificHeatJPerKgK: interpolate(columns.specificHeat, temperatureC),
    viscosityMPaS: Math.exp(interpolate(columns.logViscosity, temperatureC)),
    conductivityWPerMK: interpolate(columns.conductivity, temperatureC),
  };
}
