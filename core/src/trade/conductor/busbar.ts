import { defineCalculator } from '../../ground/calculator';
import { number, oneOf, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { findRoot } from '../../ground/math';
import { formatNumber } from '../../ground/quantity';
import { hottestC } from './heat';

export const busbarMaterials = ['copper', 'aluminium'] as const;
export type BusbarMaterial = (typeof busbarMaterials)[number];

export interface BusbarInput {
  widthMm: number;
  thicknessMm: number;
  lengthMm: number;
  currentA: number;
  ambientC: number;
  /** 0.3 by default: bare, a little tarnished. */
  emissivity: number;
  /** 0 by default: no hole. */
  holeDiameterMm: number;
  /** Copper by default. */
  material: BusbarMaterial;
}

export interface BusbarResult {
  /** At its temperature; null: no balance below 400 °C. */
  resistanceOhm: number | null;
  temperatureC: number | null;
  lossW: number | null;
  currentDensityAPerMm2: number;
  densityAtHoleAPerMm2: number;
  expansionMmPer50K: number;
}

interface Metal {
  rho20OhmM: number;
  alphaPerK: number;
  expansionPerK: number;
  massKgPerM3: number;
}

/** Source: IEC 60228 for resistivity, usual data of annealed copper and of aluminium for the rest. */
export const metals: Record<BusbarMaterial, Metal> = {
  copper: { rho20OhmM: 1.7241e-8, alphaPerK: 0.00393, expansionPerK: 17e-6, massKgPerM3: 8930 },
  aluminium: { rho20OhmM: 2.826e-8, alphaPerK: 0.00403, expansionPerK: 23.5e-6, massKgPerM3: 2700 },
};

const rule = rulesOf('busbar');

export const busbarRules = {
  noBalance: rule(
    'no-balance',
    'stop',
    'The bus bar finds no balance below 400 °C',
    'At this current the loss grows faster than the heat that leaves.',
    'A much larger section.',
    'Heat balance of a bar on edge',
  ),
  hole: rule(
    'hole-takes-section',
    'note',
    'The stud hole takes more than a third of the section',
    'The current crowds beside the hole, where the lug or washer presses: that place runs hottest.',
    'A wider bar, a smaller stud, or a washer that takes the current over.',
    'Section left beside the hole',
  ),
};

const stefanBoltzmann = 5.670374e-8;
const kelvin = 273.15;

/** Heat that leaves a bar on edge, W per metre of length; an odd function of the rise. */
export function busbarHeatPerM(
  {
    widthMm,
    thicknessMm,
    ambientC,
    emissivity,
  }: Pick<BusbarInput, 'widthMm' | 'thicknessMm' | 'ambientC' | 'emissivity'>,
  temperatureC: number,
): number {
  const riseK = temperatureC - ambientC;
  if (riseK === 0) return 0;
  const perimeterM = (2 * (widthMm + thicknessMm)) / 1000;
  const convection = 1.42 * (Math.abs(riseK) / (widthMm / 1000)) ** 0.25;
  const [hot, air] = [temperatureC + kelvin, ambientC + kelvin];
  const radiation = emissivity * stefanBoltzmann * (hot ** 2 + air ** 2) * (hot + air);
  return perimeterM * (convection + radiation) * riseK;
}

/** Resistance of a bar at a temperature, Ω per metre. */
export function busbarOhmPerM(
  { widthMm, thicknessMm, material }: Pick<BusbarInput, 'widthMm' | 'thicknessMm' | 'material'>,
  temperatureC: number,
): number {
  const { rho20OhmM, alphaPerK } = metals[material];
  return (rho20OhmM * (1 + alphaPerK * (temperatureC - 20))) / (widthMm * thicknessMm * 1e-6);
}

/**
 * Temperature, resistance and densities of a flat bus bar.
 *
 * Source: free convection of a vertical plate, 1.42·(ΔT/w)^0.25, and grey radiation over the whole perimeter.
 */
export const busbar = defineCalculator<BusbarInput, BusbarResult>({
  name: 'busbar',
  version: 1,
  title: 'Bus bar',
  rules: Object.values(busbarRules),
  door: {
    schema: record({
      widthMm: number({ above: 0 }),
      thicknessMm: number({ above: 0 }),
      lengthMm: number({ above: 0 }),
      currentA: number({ min: 0 }),
      ambientC: number({ min: -140, max: 399 }),
      emissivity: number.optional({ min: 0, max: 1 }),
      holeDiameterMm: number.optional({ min: 0 }),
      material: oneOf.optional(busbarMaterials),
    }),
    defaults: { emissivity: 0.3, holeDiameterMm: 0, material: 'copper' },
    cross({ widthMm, holeDiameterMm }: BusbarInput, issue) {
      if (holeDiameterMm >= widthMm) issue('holeDiameterMm', 'must be below widthMm');
    },
  },
  compute(input, { sheet, raise }) {
    const { widthMm, thicknessMm, lengthMm, currentA, ambientC, holeDiameterMm, material } = input;
    const sizes = [
      { symbol: 'w', value: widthMm, unit: 'mm', from: 'widthMm' },
      { symbol: 't', value: thicknessMm, unit: 'mm', from: 'thicknessMm' },
    ];
    const I = { symbol: 'I', value: currentA, unit: 'A', from: 'currentA' };
    const surplus = (temperatureC: number) =>
      busbarHeatPerM(input, temperatureC) - currentA ** 2 * busbarOhmPerM(input, temperatureC);
    const root = currentA === 0 ? null : findRoot(surplus, ambientC, hottestC);
    const balanced = currentA === 0 ? ambientC : (root?.x ?? null);
    const temperatureC = sheet.add({
      symbol: 'T',
      label: 'Temperature of the bar',
      formula: 'I²·r(T) = heat(T − T_a)',
      inputs: [I, ...sizes, { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' }],
      value: balanced,
      unit: '°C',
      source: 'Heat balance of a bar on edge',
      ...(root !== null && {
        solver: {
          method: 'Brent',
          iterations: root.iterations,
          residual: root.residual,
          residualUnit: 'W/m',
        },
      }),
    });
    const resistanceOhm = sheet.add({
      symbol: 'R',
      label: 'Resistance at that temperature',
      formula: 'ρ·(1 + α·(T − 20))·l/(w·t)',
      inputs: [
        { symbol: 'ρ', value: metals[material].rho20OhmM, unit: 'Ω·m', from: 'material' },
        { symbol: 'α', value: metals[material].alphaPerK, unit: '1/K', from: 'material' },
        { symbol: 'T', value: temperatureC ?? hottestC, unit: '°C' },
        { symbol: 'l', value: lengthMm, unit: 'mm', from: 'lengthMm' },
        ...sizes,
      ],
      value: temperatureC === null ? null : (busbarOhmPerM(input, temperatureC) * lengthMm) / 1000,
      unit: 'Ω',
      source: 'Resistivity of the metal',
    });
    const currentDensityAPerMm2 = sheet.add({
      symbol: 'J',
      label: 'Current density',
      formula: 'I/(w·t)',
      inputs: [I, ...sizes],
      value: currentA / (widthMm * thicknessMm),
      unit: 'A/mm²',
      source: 'Whole section',
    });
    const densityAtHoleAPerMm2 = sheet.add({
      symbol: 'J_h',
      label: 'Current density beside the hole',
      formula: 'I/((w − d)·t)',
      inputs: [I, ...sizes, { symbol: 'd', value: holeDiameterMm, unit: 'mm', from: 'holeDiameterMm' }],
      value: currentA / ((widthMm - holeDiameterMm) * thicknessMm),
      unit: 'A/mm²',
      source: 'Section left beside the hole',
    });
    const expansionMmPer50K = sheet.add({
      symbol: 'Δl',
      label: 'Expansion over 50 K',
      formula: 'a·l·50',
      inputs: [
        { symbol: 'a', value: metals[material].expansionPerK, unit: '1/K', from: 'material' },
        { symbol: 'l', value: lengthMm, unit: 'mm', from: 'lengthMm' },
      ],
      value: metals[material].expansionPerK * lengthMm * 50,
      unit: 'mm',
      source: 'Linear expansion',
    });
    if (temperatureC === null)
      raise(busbarRules.noBalance, `${formatNumber(currentA)} A find no balance below ${hottestC} °C.`);
    if (holeDiameterMm > widthMm / 3)
      raise(
        busbarRules.hole,
        `A hole of ${formatNumber(holeDiameterMm)} mm leaves ${formatNumber(widthMm - holeDiameterMm)} mm of ${formatNumber(widthMm)} mm: ${formatNumber(densityAtHoleAPerMm2)} A/mm² there.`,
      );
    return {
      resistanceOhm,
      temperatureC,
      lossW: resistanceOhm === null ? null : currentA ** 2 * resistanceOhm,
      currentDensityAPerMm2,
      densityAtHoleAPerMm2,
      expansionMmPer50K,
    };
  },
});
