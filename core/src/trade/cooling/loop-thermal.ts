import { defineCalculator } from '../../ground/calculator';
import { list, number, record, text } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';
import { airJPerKgK, exchange, type Exchange } from './exchanger';
import { fluidByTemperature } from './door';
import { coldestOf, fluidAt, glycol50, glycol50Source, hottestOf } from './fluid';

export interface HeatLoad {
  id: string;
  heatW: number;
  /** From its surface to the mean of its coolant, (in + out)/2. */
  resistanceKPerW?: number;
}

export interface LoopThermalInput {
  /** Empty: as the coolant is at its mean temperature. */
  fluid: { temperatureC?: number; densityKgM3?: number; specificHeatJPerKgK?: number };
  flowLPerMin: number;
  /** In the order in which the coolant meets them. */
  heatLoads: HeatLoad[];
  radiator: { uaWPerK: number; airFlowKgPerS: number; airInC: number };
  limits?: { id: string; maxC: number }[];
}

export interface LoopThermalResult {
  coolantHotC: number;
  coolantColdC: number;
  riseK: number;
  effectiveness: number;
  loads: {
    id: string;
    coolantInC: number;
    coolantOutC: number;
    surfaceC: number | null;
    ok: boolean | null;
  }[];
}

const rule = rulesOf('loop-thermal');

export const loopThermalRules = {
  limit: rule(
    'limit',
    'mend',
    'Something gets hotter than it may',
    'Power is cut back, or life is lost, on the day it matters most.',
    'More air or radiator, more flow, another order in the loop, or a loop of its own.',
    'Surface: mean coolant plus heat times resistance',
  ),
  outside: rule(
    'outside-table',
    'note',
    'The coolant is beyond the temperatures it is known at',
    'Figures of the end of its table were taken.',
    'Look at the temperatures: most likely the loop does not cool at all, or nobody drives then.',
    glycol50Source,
  ),
};

interface Point {
  exchanged: Exchange;
  coolantWPerK: number;
  hotC: number;
  coldC: number;
}

/**
 * Steady temperatures of one coolant loop with its radiator.
 *
 * Source: heat balance of the loop; ε-NTU of a cross-flow radiator, both streams unmixed.
 */
export const loopThermal = defineCalculator<LoopThermalInput, LoopThermalResult>({
  name: 'loop-thermal',
  version: 1,
  title: 'Temperatures of a coolant loop',
  rules: Object.values(loopThermalRules),
  door: {
    schema: record({
      fluid: record.by(
        {
          table: fluidByTemperature,
          own: { densityKgM3: number({ above: 0 }), specificHeatJPerKgK: number({ above: 0 }) },
          none: {},
        },
        (fluid) => {
          if ('temperatureC' in fluid) return 'table';
          return 'densityKgM3' in fluid || 'specificHeatJPerKgK' in fluid ? 'own' : 'none';
        },
      ),
      flowLPerMin: number({ above: 0 }),
      heatLoads: list(
        record({ id: text(), heatW: number({ min: 0 }), resistanceKPerW: number.optional({ min: 0 }) }),
        { minRows: 1, maxRows: 200 },
      ),
      radiator: record({
        uaWPerK: number({ above: 0 }),
        airFlowKgPerS: number({ above: 0 }),
        airInC: number({ min: -273.15 }),
      }),
      limits: list.optional(record({ id: text(), maxC: number() }), { maxRows: 200 }),
    }),
    cross({ heatLoads, limits = [] }: LoopThermalInput, issue) {
      const ids = heatLoads.map(({ id }) => id);
      ids.forEach((id, i) => {
        if (ids.indexOf(id) < i) issue(`heatLoads.${i}.id`, 'stands twice');
      });
      limits.forEach(({ id }, i) => {
        if (!ids.includes(id)) issue(`limits.${i}.id`, 'is no load of this loop');
        if (limits.findIndex((one) => one.id === id) < i) issue(`limits.${i}.id`, 'stands twice');
      });
    },
  },
  compute(input, { sheet, raise }) {
    const { flowLPerMin, heatLoads, radiator, limits = [] } = input;
    const heatW = heatLoads.reduce((sum, load) => sum + load.heatW, 0);
    const airWPerK = radiator.airFlowKgPerS * airJPerKgK;
    const pointAt = ({
      densityKgM3,
      specificHeatJPerKgK,
    }: {
      densityKgM3: number;
      specificHeatJPerKgK: number;
    }): Point => {
      const coolantWPerK = ((densityKgM3 * flowLPerMin) / 60_000) * specificHeatJPerKgK;
      const exchanged = exchange(radiator.uaWPerK, coolantWPerK, airWPerK);
      const hotC = radiator.airInC + heatW / (exchanged.effectiveness * exchanged.leastWPerK);
      return { exchanged, coolantWPerK, hotC, coldC: hotC - heatW / coolantWPerK };
    };
    let iterations = 0;
    let moved = 0;
    let point: Point;
    const { densityKgM3, specificHeatJPerKgK, temperatureC } = input.fluid;
    if (densityKgM3 !== undefined && specificHeatJPerKgK !== undefined)
      point = pointAt({ densityKgM3, specificHeatJPerKgK });
    else if (temperatureC !== undefined) point = pointAt(fluidAt(glycol50, temperatureC));
    else {
      let meanC = radiator.airInC;
      do {
        point = pointAt(fluidAt(glycol50, meanC));
        const next = (point.hotC + point.coldC) / 2;
        moved = Math.abs(next - meanC);
        meanC = next;
        iterations += 1;
      } while (moved > 1e-9 && iterations < 200);
      if (meanC < coldestOf(glycol50) || meanC > hottestOf(glycol50))
        raise(
          loopThermalRules.outside,
          `Mean ${formatQuantity(meanC, '°C')}; known from ${coldestOf(glycol50)} to ${hottestOf(glycol50)} °C.`,
        );
    }
    const { exchanged, coolantWPerK } = point;
    const source = 'ε-NTU of cross flow, both streams unmixed';
    const capacity = { symbol: 'C_c', label: 'of the coolant', value: coolantWPerK, unit: 'W/K' };
    sheet.add({
      symbol: 'ε',
      label: 'Effectiveness of the radiator',
      formula: '1 − exp(NTU^0.22/C_r·(exp(−C_r·NTU^0.78) − 1))',
      inputs: [
        { symbol: 'NTU', value: exchanged.ntu, unit: '' },
        { symbol: 'C_r', value: exchanged.ratio, unit: '' },
      ],
      value: exchanged.effectiveness,
      unit: '',
      source,
      ...(iterations > 0 && {
        solver: { method: 'Coolant at its mean temperature', iterations, residual: moved, residualUnit: 'K' },
      }),
    });
    const riseK = sheet.add({
      symbol: 'ΔT',
      label: 'Rise of the coolant over the loads',
      formula: 'P/C_c',
      inputs: [{ symbol: 'P', value: heatW, unit: 'W' }, capacity],
      value: heatW / coolantWPerK,
      unit: 'K',
      source: 'Heat balance of the coolant',
    });
    sheet.add({
      symbol: 'T_hot',
      label: 'Coolant entering the radiator',
      formula: 'T_air + P/(ε·C_min)',
      inputs: [
        { symbol: 'T_air', value: radiator.airInC, unit: '°C', from: 'radiator.airInC' },
        { symbol: 'P', value: heatW, unit: 'W' },
        { symbol: 'ε', value: exchanged.effectiveness, unit: '' },
        { symbol: 'C_min', value: exchanged.leastWPerK, unit: 'W/K' },
      ],
      value: point.hotC,
      unit: '°C',
      source,
    });
    let coolantInC = point.coldC;
    const over: string[] = [];
    const loads = heatLoads.map(({ id, heatW: own, resistanceKPerW }, i) => {
      const coolantOutC = coolantInC + own / coolantWPerK;
      const meanC = (coolantInC + coolantOutC) / 2;
      const surfaceC =
        resistanceKPerW === undefined
          ? null
          : sheet.add({
              symbol: `T_${i + 1}`,
              label: `Surface of ${id}`,
              formula: 'T_m + P·R',
              inputs: [
                { symbol: 'T_m', value: meanC, unit: '°C' },
                { symbol: 'P', value: own, unit: 'W', from: `heatLoads.${i}.heatW` },
                { symbol: 'R', value: resistanceKPerW, unit: 'K/W', from: `heatLoads.${i}.resistanceKPerW` },
              ],
              value: meanC + own * resistanceKPerW,
              unit: '°C',
              source: loopThermalRules.limit.source,
            });
      const limit = limits.find((one) => one.id === id);
      const ok = limit === undefined || surfaceC === null ? null : surfaceC <= limit.maxC;
      if (ok === false)
        over.push(`${id} ${formatQuantity(surfaceC!, '°C')}, ${formatQuantity(limit!.maxC, '°C')} allowed`);
      const at = { id, coolantInC, coolantOutC, surfaceC, ok };
      coolantInC = coolantOutC;
      return at;
    });
    if (over.length > 0) raise(loopThermalRules.limit, `${over.slice(0, 8).join('; ')}.`);
    return {
      coolantHotC: point.hotC,
      coolantColdC: point.coldC,
      riseK,
      effectiveness: exchanged.effectiveness,
      loads,
    };
  },
});
