import { vehicleDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { number, oneOf, record } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Worksheet } from '../../ground/working';

/** Standard gravity, m/s². */
export const gravityMPerS2 = 9.80665;

/** First-hour estimate: consumption proportional to mass. */
export interface MassRuleInput {
  method: 'mass-rule';
  usableEnergyKWh: number;
  massKg: number;
  /** Wh per km and kg; 0.14 by default. */
  whPerKmPerKg: number;
}

/** Steady speed: rolling, air, grade, drive train and accessories. */
export interface RoadLoadInput {
  method: 'road-load';
  usableEnergyKWh: number;
  massKg: number;
  speedKmH: number;
  rollingCoefficient: number;
  /** Drag coefficient × frontal area. */
  dragAreaM2: number;
  /** 1.2 by default. */
  airDensityKgM3: number;
  /** Rise over run; negative downhill; 0 by default. */
  gradeFraction: number;
  /** Battery to wheel, 0..1. */
  drivetrainEfficiency: number;
  accessoriesW: number;
}

export type RangeInput = MassRuleInput | RoadLoadInput;

export interface RangeResult {
  whPerKm: number;
  /** null when nothing is consumed. */
  rangeKm: number | null;
  /** Road load only; negative when the battery is charged. */
  batteryPowerW?: number;
  forces?: { rollingN: number; dragN: number; gradeN: number };
}

export const noConsumption = defineRule({
  id: 'range.no-consumption',
  version: 1,
  grade: 'note',
  title: 'No range: nothing is consumed',
  why: 'Downhill, or without load, the battery gains or keeps its energy; a range has no meaning there.',
  remedy: 'Compute the range for a speed, grade and load that consume energy.',
  source: 'Energy balance at constant speed',
});

const common = {
  usableEnergyKWh: number({ min: 0 }),
  massKg: number({ min: 0 }),
  method: oneOf(['mass-rule', 'road-load']),
};
const massRule = { ...common, whPerKmPerKg: number.optional({ min: 0 }) };
const roadLoad = {
  ...common,
  speedKmH: number({ above: 0 }),
  rollingCoefficient: number({ min: 0 }),
  dragAreaM2: number({ min: 0 }),
  airDensityKgM3: number.optional({ min: 0 }),
  gradeFraction: number.optional(),
  drivetrainEfficiency: number({ above: 0, max: 1 }),
  accessoriesW: number({ min: 0 }),
};

/**
 * Consumption and range by one of two schools: the mass rule for the first hour of a project, road load
 * once the car is known.
 *
 * Source: steady longitudinal force balance; a negative sum is multiplied by the efficiency (regeneration).
 */
export const range = defineCalculator<RangeInput, RangeResult>({
  name: 'range',
  version: 1,
  title: 'Consumption and range',
  rules: [noConsumption],
  door: {
    schema: record.by({ massRule, roadLoad }, ({ method }) =>
      method === 'road-load' ? 'roadLoad' : 'massRule',
    ),
    defaults: (body) =>
      body.method === 'road-load'
        ? { airDensityKgM3: 1.2, gradeFraction: vehicleDefaults.gradeFraction }
        : { whPerKmPerKg: vehicleDefaults.whPerKmPerKg },
  },
  compute(input, { sheet, raise }) {
    const consumption =
      input.method === 'mass-rule' ? { whPerKm: byMassRule(input, sheet) } : byRoadLoad(input, sheet);
    const { whPerKm } = consumption;
    const rangeKm = sheet.add({
      symbol: 's',
      label: 'Range',
      formula: '1000·E/e',
      inputs: [
        { symbol: 'E', value: input.usableEnergyKWh, unit: 'kWh', from: 'usableEnergyKWh' },
        { symbol: 'e', value: whPerKm, unit: 'Wh/km' },
      ],
      value: whPerKm > 0 ? (input.usableEnergyKWh * 1000) / whPerKm : null,
      unit: 'km',
      source: 'Usable energy over consumption',
    });
    if (rangeKm === null)
      raise(noConsumption, `Consumption is ${formatNumber(whPerKm)} Wh/km: there is no range.`);
    return { rangeKm, ...consumption };
  },
});

function byMassRule(input: MassRuleInput, sheet: Worksheet): number {
  return sheet.add({
    symbol: 'e',
    label: 'Consumption by the mass rule',
    formula: 'w·m',
    inputs: [
      { symbol: 'w', value: input.whPerKmPerKg, unit: 'Wh/(km·kg)', from: 'whPerKmPerKg' },
      { symbol: 'm', value: input.massKg, unit: 'kg', from: 'massKg' },
    ],
    value: input.whPerKmPerKg * input.massKg,
    unit: 'Wh/km',
    source: 'Mass rule: consumption proportional to mass',
  });
}

function byRoadLoad(input: RoadLoadInput, sheet: Worksheet) {
  const speedMPerS = input.speedKmH / 3.6;
  const slopeRad = Math.atan(input.gradeFraction);
  const weight = [
    { symbol: 'm', value: input.massKg, unit: 'kg', from: 'massKg' },
    { symbol: 'g', value: gravityMPerS2, unit: 'm/s²' },
    { symbol: 'α', value: slopeRad, unit: 'rad', from: 'gradeFraction' },
  ];
  const v = { symbol: 'v', value: speedMPerS, unit: 'm/s', from: 'speedKmH' };
  const rollingN = sheet.add({
    symbol: 'F_r',
    label: 'Rolling resistance',
    formula: 'm·g·c_rr·cos(α)',
    inputs: [
      ...weight,
      { symbol: 'c_rr', value: input.rollingCoefficient, unit: '', from: 'rollingCoefficient' },
    ],
    value: input.massKg * gravityMPerS2 * input.rollingCoefficient * Math.cos(slopeRad),
    unit: 'N',
    source: 'Coulomb rolling model',
  });
  const dragN = sheet.add({
    symbol: 'F_a',
    label: 'Air drag',
    formula: '½·ρ·A·v²',
    inputs: [
      { symbol: 'ρ', value: input.airDensityKgM3, unit: 'kg/m³', from: 'airDensityKgM3' },
      { symbol: 'A', value: input.dragAreaM2, unit: 'm²', from: 'dragAreaM2' },
      v,
    ],
    value: 0.5 * input.airDensityKgM3 * input.dragAreaM2 * speedMPerS ** 2,
    unit: 'N',
    source: 'Quadratic drag law',
  });
  const gradeN = sheet.add({
    symbol: 'F_g',
    label: 'Grade force',
    formula: 'm·g·sin(α)',
    inputs: weight,
    value: input.massKg * gravityMPerS2 * Math.sin(slopeRad),
    unit: 'N',
    source: 'Weight along the road',
  });
  const sumN = rollingN + dragN + gradeN;
  const regenerating = sumN < 0;
  const efficiency = input.drivetrainEfficiency;
  const batteryPowerW = sheet.add({
    symbol: 'P',
    label: regenerating ? 'Battery power, regenerating' : 'Battery power',
    formula: regenerating ? 'F·v·η + P_acc' : 'F·v/η + P_acc',
    inputs: [
      { symbol: 'F', value: sumN, unit: 'N' },
      v,
      { symbol: 'η', value: efficiency, unit: 'fraction', from: 'drivetrainEfficiency' },
      { symbol: 'P_acc', value: input.accessoriesW, unit: 'W', from: 'accessoriesW' },
    ],
    value: sumN * speedMPerS * (regenerating ? efficiency : 1 / efficiency) + input.accessoriesW,
    unit: 'W',
    source: 'Energy balance at constant speed',
  });
  const whPerKm = sheet.add({
    symbol: 'e',
    label: 'Consumption at this speed',
    formula: 'P/u',
    inputs: [
      { symbol: 'P', value: batteryPowerW, unit: 'W' },
      { symbol: 'u', value: input.speedKmH, unit: 'km/h', from: 'speedKmH' },
    ],
    value: batteryPowerW / input.speedKmH,
    unit: 'Wh/km',
    source: 'Definition',
  });
  return { whPerKm, batteryPowerW, forces: { rollingN, dragN, gradeN } };
}
