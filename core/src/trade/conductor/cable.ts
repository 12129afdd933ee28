import { defineCalculator } from '../../ground/calculator';
import { number, oneOf, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { cableAreasMm2, resistancePerM } from '../../model/parts';
import { groupingFactor, heatCapacityPerM } from './copper';
import { findBalance, heatAtConductor, hottestC, insulationResistance, type HeatPath } from './heat';

export interface CableInput {
  areaMm2: number;
  conductorDiameterMm: number;
  outerDiameterMm: number;
  conductorMaxC: number;
  ambientC: number;
  /** One way. */
  lengthM: number;
  /** Of the circuit. */
  currentA: number;
  /** Conductors in parallel per pole; 1 by default. */
  parallel: number;
  install: 'free-air' | 'steel-conduit';
  conduitInnerMm?: number;
  conduitOuterMm?: number;
  /** Circuits' cables that touch; + and − side by side are 2; 1 by default. */
  grouped: number;
  /** Thermal resistivity of the insulation; 4.0 K·m/W by default. */
  insulationKmPerW: number;
  /** 0.9 by default. */
  emissivity: number;
  /** 0.9 by default (painted); bright zinc about 0.3. */
  conduitEmissivity: number;
  /** 143 by default: copper from 90 to 250 °C. */
  adiabaticK: number;
  busVoltageV: number;
}

export interface CableResult {
  resistanceOhmPerM20: number;
  /** Of the circuit. */
  ampacityA: number;
  /** null: no balance below 400 °C. */
  conductorTemperatureC: number | null;
  voltageDropV: number | null;
  dropFraction: number | null;
  lossW: number | null;
  timeConstantS: number | null;
  /** (k·S·parallel)². */
  adiabaticA2s: number;
  /** (k·S)²: what a fault in one of several parallel conductors meets. */
  adiabaticPerConductorA2s: number;
}

const rule = rulesOf('cable');

export const cableRules = {
  overloaded: rule(
    'overloaded',
    'stop',
    'The cable carries more than its ampacity',
    'The conductor runs above the limit of its insulation: it ages, softens and in the end shorts.',
    'Choose a larger area, an insulation for a higher temperature, or run conductors in parallel.',
    'Heat balance after IEC 60287; Churchill and Chu',
    { formerly: ['cable.chosen-cable'] },
  ),
  noBalance: rule(
    'no-balance',
    'stop',
    'The cable finds no balance below 400 °C',
    'At this current the loss grows faster than the heat that leaves: the conductor burns.',
    'Choose a much larger area or run conductors in parallel.',
    'Heat balance after IEC 60287',
  ),
  smallInConduit: rule(
    'small-in-conduit',
    'note',
    'Conduit constants are extrapolated',
    'The published constants for cables in metallic conduit hold for cables of 25 mm diameter and more.',
    'Take the temperature with margin, or measure it under load.',
    'IEC 60287-2-1',
  ),
};

export const cableSchemaFields = {
  areaMm2: oneOf(cableAreasMm2),
  conductorDiameterMm: number({ above: 0 }),
  outerDiameterMm: number({ above: 0 }),
  conductorMaxC: number({ max: 2000 }),
  ambientC: number({ min: -140, max: 1000 }),
  lengthM: number({ min: 0 }),
  parallel: number.optional({ min: 1, integer: true }),
  install: oneOf(['free-air', 'steel-conduit']),
  conduitInnerMm: number.optional({ above: 0 }),
  conduitOuterMm: number.optional({ above: 0 }),
  grouped: number.optional({ min: 1, max: 6, integer: true }),
  insulationKmPerW: number.optional({ above: 0 }),
  emissivity: number.optional({ min: 0, max: 1 }),
  conduitEmissivity: number.optional({ min: 0, max: 1 }),
  adiabaticK: number.optional({ above: 0 }),
  busVoltageV: number({ above: 0 }),
};

export const cableDefaults = {
  parallel: 1,
  grouped: 1,
  insulationKmPerW: 4.0,
  emissivity: 0.9,
  conduitEmissivity: 0.9,
  adiabaticK: 143,
};

/** Rules between the fields of a cable and its installation. */
export function crossCable(
  input: Omit<CableInput, 'currentA'>,
  issue: (path: string, message: string) => void,
): void {
  if (input.outerDiameterMm <= input.conductorDiameterMm)
    issue('conductorDiameterMm', 'must be below outerDiameterMm');
  if (input.conductorMaxC <= input.ambientC) issue('conductorMaxC', 'must be above ambientC');
  if (input.install !== 'steel-conduit') return;
  const { conduitInnerMm, conduitOuterMm } = input;
  if (conduitInnerMm === undefined) issue('conduitInnerMm', 'is required in a steel conduit');
  if (conduitOuterMm === undefined) issue('conduitOuterMm', 'is required in a steel conduit');
  if (conduitInnerMm === undefined || conduitOuterMm === undefined) return;
  if (conduitInnerMm <= input.outerDiameterMm) issue('conduitInnerMm', 'must be above outerDiameterMm');
  if (conduitOuterMm <= conduitInnerMm) issue('conduitOuterMm', 'must be above conduitInnerMm');
}

/** The way heat leaves this cable in its installation. */
export function heatPathOf(input: Omit<CableInput, 'currentA'>): HeatPath {
  const { conductorDiameterMm, outerDiameterMm, insulationKmPerW, emissivity, ambientC } = input;
  const path: HeatPath = { conductorDiameterMm, outerDiameterMm, insulationKmPerW, emissivity, ambientC };
  if (
    input.install === 'steel-conduit' &&
    input.conduitInnerMm !== undefined &&
    input.conduitOuterMm !== undefined
  ) {
    path.conduit = {
      innerMm: input.conduitInnerMm,
      outerMm: input.conduitOuterMm,
      emissivity: input.conduitEmissivity,
    };
  }
  return path;
}

/**
 * Ampacity, operating temperature, voltage drop and short-circuit limit of a copper cable.
 *
 * Source: IEC 60228 (resistance), IEC 60287-2-1 (layers, conduit), Churchill and Chu (convection),
 * IEC 60364-5-52 (grouping), IEC 60364-4-43 (adiabatic limit).
 */
export const cable = defineCalculator<CableInput, CableResult>({
  name: 'cable',
  version: 1,
  title: 'Cable',
  rules: Object.values(cableRules),
  door: {
    schema: record({ ...cableSchemaFields, currentA: number({ min: 0 }) }),
    defaults: cableDefaults,
    cross: crossCable as (input: never, issue: (path: string, message: string) => void) => void,
  },
  compute(input, { sheet, raise }) {
    const { areaMm2, parallel, currentA, conductorMaxC, ambientC } = input;
    const path = heatPathOf(input);
    const grouping = groupingFactor[input.grouped] ?? 1;
    const g = { symbol: 'g', value: grouping, unit: '', from: 'grouped' };
    const p = { symbol: 'p', value: parallel, unit: '', from: 'parallel' };
    const resistanceOhmPerM20 = resistancePerM(areaMm2, 20);
    sheet.add({
      symbol: 'T_1',
      label: 'Thermal resistance of the insulation',
      formula: 'ρ/(2·π)·ln(D/d)',
      inputs: [
        { symbol: 'ρ', value: input.insulationKmPerW, unit: 'K·m/W', from: 'insulationKmPerW' },
        { symbol: 'D', value: input.outerDiameterMm, unit: 'mm', from: 'outerDiameterMm' },
        { symbol: 'd', value: input.conductorDiameterMm, unit: 'mm', from: 'conductorDiameterMm' },
      ],
      value: insulationResistance(path),
      unit: 'K·m/W',
      source: 'IEC 60287-2-1',
    });
    const heatAtLimit = sheet.add({
      symbol: 'q',
      label: 'Heat that leaves with the conductor at its limit',
      formula: 'heat(T_max − T_a)',
      inputs: [
        { symbol: 'T_max', value: conductorMaxC, unit: '°C', from: 'conductorMaxC' },
        { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' },
      ],
      value: heatAtConductor(path, conductorMaxC),
      unit: 'W/m',
      source: path.conduit
        ? 'IEC 60287-2-1 conduit, Churchill and Chu, radiation'
        : 'Churchill and Chu, radiation',
    });
    const ampacityA = sheet.add({
      symbol: 'I_z',
      label: 'Ampacity of the circuit',
      formula: '√(q/r_max)·g·p',
      inputs: [
        { symbol: 'q', value: heatAtLimit, unit: 'W/m' },
        { symbol: 'r_max', value: resistancePerM(areaMm2, conductorMaxC), unit: 'Ω/m', from: 'areaMm2' },
        g,
        p,
      ],
      value: Math.sqrt(heatAtLimit / resistancePerM(areaMm2, conductorMaxC)) * grouping * parallel,
      unit: 'A',
      source: 'Loss at the conductor’s limit equals the heat that leaves',
    });
    const conductorA = sheet.add({
      symbol: 'I_c',
      label: 'Conductor current with grouping',
      formula: 'I/(p·g)',
      inputs: [{ symbol: 'I', value: currentA, unit: 'A', from: 'currentA' }, p, g],
      value: currentA / (parallel * grouping),
      unit: 'A',
      source: 'IEC 60364-5-52 grouping factor',
    });
    const lossPerM = (temperatureC: number) => conductorA ** 2 * resistancePerM(areaMm2, temperatureC);
    const balance =
      conductorA === 0
        ? { conductorC: ambientC, riseK: 0, residualWPerM: 0, iterations: 0 }
        : findBalance(path, lossPerM);
    const conductorTemperatureC = sheet.add({
      symbol: 'T',
      label: 'Conductor temperature',
      formula: 'I_c²·r(T) = heat(T − T_a)',
      inputs: [
        { symbol: 'I_c', value: conductorA, unit: 'A' },
        { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' },
      ],
      value: balance?.conductorC ?? null,
      unit: '°C',
      source: 'Heat balance',
      ...(balance && {
        solver: {
          method: 'Brent',
          iterations: balance.iterations,
          residual: balance.residualWPerM,
          residualUnit: 'W/m',
        },
      }),
    });
    if (path.conduit !== undefined && input.outerDiameterMm < 25) {
      raise(
        cableRules.smallInConduit,
        `The cable is ${formatNumber(input.outerDiameterMm)} mm thick; the constants hold from 25 mm.`,
      );
    }
    if (balance === null) {
      raise(
        cableRules.noBalance,
        `${formatNumber(currentA)} A find no balance below ${hottestC} °C; the ampacity is ${formatNumber(ampacityA)} A.`,
      );
    } else if (currentA > ampacityA * (1 + 1e-9)) {
      raise(
        cableRules.overloaded,
        `${formatNumber(currentA)} A against an ampacity of ${formatNumber(ampacityA)} A: the conductor reaches ${formatNumber(balance.conductorC)} °C, its limit is ${formatNumber(conductorMaxC)} °C.`,
      );
    }
    const drop = balance === null ? null : voltageDrop(input, balance.conductorC);
    if (drop !== null) {
      sheet.add({
        symbol: 'ΔU',
        label: 'Voltage drop, both ways',
        formula: '2·l·I/p·r',
        inputs: [
          { symbol: 'l', value: input.lengthM, unit: 'm', from: 'lengthM' },
          { symbol: 'I', value: currentA, unit: 'A', from: 'currentA' },
          p,
          { symbol: 'r', value: resistancePerM(areaMm2, balance!.conductorC), unit: 'Ω/m', from: 'areaMm2' },
        ],
        value: drop,
        unit: 'V',
        source: 'Resistance at operating temperature, IEC 60228',
      });
    }
    const adiabaticA2s = sheet.add({
      symbol: 'W_c',
      label: 'Short-circuit limit of all conductors',
      formula: '(k·S·p)²',
      inputs: [
        { symbol: 'k', value: input.adiabaticK, unit: 'A√s/mm²', from: 'adiabaticK' },
        { symbol: 'S', value: areaMm2, unit: 'mm²', from: 'areaMm2' },
        p,
      ],
      value: (input.adiabaticK * areaMm2 * parallel) ** 2,
      unit: 'A²s',
      source: 'IEC 60364-4-43',
    });
    return {
      resistanceOhmPerM20,
      ampacityA,
      conductorTemperatureC,
      voltageDropV: drop,
      dropFraction: drop === null ? null : drop / input.busVoltageV,
      lossW: drop === null ? null : drop * currentA,
      timeConstantS: balance === null ? null : timeConstant(input, path, balance, lossPerM),
      adiabaticA2s,
      adiabaticPerConductorA2s: (input.adiabaticK * areaMm2) ** 2,
    };
  },
});

function voltageDrop({ lengthM, currentA, parallel, areaMm2 }: CableInput, conductorC: number): number {
  return ((2 * lengthM * currentA) / parallel) * resistancePerM(areaMm2, conductorC);
}

function timeConstant(
  input: CableInput,
  path: HeatPath,
  balance: { riseK: number; conductorC: number },
  lossPerM: (temperatureC: number) => number,
): number {
  const capacity = heatCapacityPerM(input.areaMm2, input.conductorDiameterMm, input.outerDiameterMm);
  const loss = lossPerM(balance.conductorC);
  const resistance = loss > 0 ? balance.riseK / loss : 1 / heatAtConductor(path, input.ambientC + 1);
  return capacity * resistance;
}
