import { findRoot } from '../../ground/math';

// Bound once: the inner loops ask for these a million times.
const { PI, abs, log, max, min, sqrt } = Math;

const stefanBoltzmann = 5.670374e-8;
const kelvin = 273.15;

/**
 * Heat that leaves a horizontal cylinder to still air, W/m; negative when it is colder than the air.
 *
 * Source: Churchill and Chu for free convection, grey-body radiation to surroundings at air temperature.
 *
 * @param diameterM outer diameter
 * @param surfaceC surface temperature
 * @param ambientC air temperature
 */
export function freeAirHeatPerM(
  diameterM: number,
  surfaceC: number,
  ambientC: number,
  emissivity: number,
): number {
  const riseK = surfaceC - ambientC;
  if (riseK === 0) return 0;
  const filmC = (surfaceC + ambientC) / 2;
  const conductivity = 0.02436 + 7.1e-5 * filmC;
  const viscosity = 1.328e-5 + 9.2e-8 * filmC;
  const prandtl = 0.71;
  const rayleigh = (9.80665 * abs(riseK) * diameterM ** 3 * prandtl) / ((filmC + kelvin) * viscosity ** 2);
  const nusselt =
    (0.6 + (0.387 * rayleigh ** (1 / 6)) / (1 + (0.559 / prandtl) ** (9 / 16)) ** (8 / 27)) ** 2;
  const surfaceK = surfaceC + kelvin;
  const ambientK = ambientC + kelvin;
  const radiation = emissivity * stefanBoltzmann * (surfaceK ** 2 + ambientK ** 2) * (surfaceK + ambientK);
  return PI * diameterM * ((nusselt * conductivity) / diameterM + radiation) * riseK;
}

export interface Conduit {
  innerMm: number;
  outerMm: number;
  emissivity: number;
}

/** What a cable's heat has to cross on its way out. */
export interface HeatPath {
  conductorDiameterMm: number;
  outerDiameterMm: number;
  insulationKmPerW: number;
  emissivity: number;
  ambientC: number;
  conduit?: Conduit;
}

/** Thermal resistance of the insulation, K·m/W. Source: IEC 60287-2-1. */
export function insulationResistance(path: HeatPath): number {
  return (path.insulationKmPerW / (2 * PI)) * log(path.outerDiameterMm / path.conductorDiameterMm);
}

/** A point of the balance: what leaves, and how hot the conductor is while it does. */
interface Point {
  heatWPerM: number;
  conductorC: number;
}

/** The outermost surface `riseK` above ambient: heat that leaves it and the conductor's temperature behind it. */
type Outward = (riseK: number) => Point;

function inFreeAir(path: HeatPath): Outward {
  const insulation = insulationResistance(path);
  return (riseK) => {
    const surfaceC = path.ambientC + riseK;
    const heatWPerM = freeAirHeatPerM(path.outerDiameterMm / 1000, surfaceC, path.ambientC, path.emissivity);
    return { heatWPerM, conductorC: surfaceC + heatWPerM * insulation };
  };
}

/**
 * Between cable and conduit T4′ = 5.2/(1 + 0.1·(1.4 + 0.011·Tm)·D), Tm the mean of cable surface and wall:
 * a quadratic in the cable's surface temperature. Source: IEC 60287-2-1, cables in metallic conduit.
 */
function inConduit(path: HeatPath, conduit: Conduit): Outward {
  const insulation = insulationResistance(path);
  const a = 1 + 0.14 * path.outerDiameterMm;
  const b = 0.0011 * path.outerDiameterMm;
  return (riseK) => {
    const wallC = path.ambientC + riseK;
    const heatWPerM = freeAirHeatPerM(conduit.outerMm / 1000, wallC, path.ambientC, conduit.emissivity);
    const root = sqrt((a + b * wallC) ** 2 + 2 * b * 5.2 * heatWPerM);
    const surfaceC = wallC + (2 * 5.2 * heatWPerM) / (a + b * wallC + root);
    return { heatWPerM, conductorC: surfaceC + heatWPerM * insulation };
  };
}

/** The ways out to judge: a conduit never cools better than the same cable in free air. */
function waysOut(path: HeatPath): Outward[] {
  const free = inFreeAir(path);
  return path.conduit === undefined ? [free] : [free, inConduit(path, path.conduit)];
}

/** Heat that leaves with the conductor at a temperature, W/m (quasi-steady layers). */
export function heatAtConductor(path: HeatPath, conductorC: number): number {
  const wholeK = conductorC - path.ambientC;
  if (wholeK === 0) return 0;
  const leaving = waysOut(path).map((outward) => {
    const root = findRoot((riseK) => outward(riseK).conductorC - conductorC, 0, wholeK);
    return root === null ? 0 : outward(root.x).heatWPerM;
  });
  return wholeK > 0 ? min(...leaving) : max(...leaving);
}

/**
 * Points of the heat that leaves over the conductor's temperature, rising, one list for each way out; dense around
 * ambient, where the curve bends.
 *
 * @param count points on each side of ambient
 */
export function heatCurves(path: HeatPath, fromC: number, toC: number, count: number): Point[][] {
  return waysOut(path).map((outward) => {
    const end = (limitC: number) => {
      const wholeK = limitC - path.ambientC;
      if (wholeK === 0) return 0;
      return findRoot((riseK) => outward(riseK).conductorC - limitC, 0, wholeK)?.x ?? wholeK;
    };
    const [low, high] = [end(min(fromC, path.ambientC)), end(max(toC, path.ambientC))];
    const side = (endK: number) =>
      Array.from({ length: count }, (_, i) => outward(endK * ((i + 1) / count) ** 2));
    return [...(low < 0 ? side(low).reverse() : []), outward(0), ...(high > 0 ? side(high) : [])];
  });
}

export interface Balance {
  conductorC: number;
  /** Rise over ambient, kept apart so that tiny rises do not drown in rounding. */
  riseK: number;
  residualWPerM: number;
  iterations: number;
}

/** Beyond this conductor temperature no balance is reported. */
export const hottestC = 400;

/**
 * The temperature at which the loss equals the heat that leaves.
 *
 * @param lossWPerM loss per metre at a conductor temperature, above 0
 * @returns null when there is no balance below 400 °C
 */
export function findBalance(path: HeatPath, lossWPerM: (conductorC: number) => number): Balance | null {
  let hottest: Balance | null = null;
  for (const outward of waysOut(path)) {
    const surplus = (riseK: number) => {
      const { heatWPerM, conductorC } = outward(riseK);
      return heatWPerM - lossWPerM(conductorC);
    };
    const top = findRoot((riseK) => outward(riseK).conductorC - hottestC, 0, hottestC - path.ambientC);
    const root = top === null || surplus(top.x) < 0 ? null : findRoot(surplus, 0, top.x);
    if (root === null) return null;
    const { conductorC, heatWPerM } = outward(root.x);
    const riseK = root.x + (conductorC - (path.ambientC + root.x));
    const balance = {
      conductorC,
      riseK,
      residualWPerM: heatWPerM - lossWPerM(conductorC),
      iterations: root.iterations,
    };
    if (hottest === null || balance.conductorC > hottest.conductorC) hottest = balance;
  }
  return hottest;
}
