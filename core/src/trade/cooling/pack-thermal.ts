import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { follow, type LumpState, type LumpTold } from './lump';

export interface PackThermalInput {
  massKg: number;
  specificHeatJPerKgK: number;
  startC: number;
  ambientC: number;
  uaToAmbientWPerK: number;
  resistanceOhm: number;
  profile: [durationS: number, currentA: number][];
  repeat: number;
  heaterW: number;
  cooling?: { uaWPerK: number; coolantC: number; onAboveC: number; offBelowC: number };
}

export interface PackThermalResult {
  endC: number;
  maxC: number;
  minC: number;
  /** Above the temperature at which cooling comes on; null without cooling. */
  timeAboveOnS: number | null;
  coolingOnS: number | null;
  /** At most 400 points. */
  curve: [timeS: number, temperatureC: number][];
}

const curvePoints = 400;
/** Stretches in all that are followed. */
const mostStretches = 5_000_000;

const celsius = { min: -273.15, max: 1e6 };

/**
 * The temperature of a pack, as one lump, over a profile of current.
 *
 * Source: m·c·dT/dt = I²R + heater − UA·(T − T_a) − (cooling on: UA_c·(T − T_c)), each stretch exactly.
 */
export const packThermal = defineCalculator<PackThermalInput, PackThermalResult>({
  name: 'pack-thermal',
  version: 1,
  title: 'Temperature of the pack over time',
  door: {
    schema: record({
      massKg: number({ above: 0 }),
      specificHeatJPerKgK: number.optional({ above: 0 }),
      startC: number(celsius),
      ambientC: number(celsius),
      uaToAmbientWPerK: number({ min: 0 }),
      resistanceOhm: number({ min: 0 }),
      profile: table({ columns: [{ above: 0 }, {}], rising: false }),
      repeat: number.optional({ min: 1, integer: true }),
      heaterW: number.optional({ min: 0 }),
      cooling: record.optional({
        uaWPerK: number({ min: 0 }),
        coolantC: number(celsius),
        onAboveC: number(celsius),
        offBelowC: number(celsius),
      }),
    }),
    defaults: { specificHeatJPerKgK: 1000, repeat: 1, heaterW: 0 },
    cross({ cooling, profile, repeat }: PackThermalInput, issue) {
      if (cooling !== undefined && !(cooling.offBelowC < cooling.onAboveC))
        issue('cooling.offBelowC', 'must be below onAboveC');
      if (profile.length * repeat > mostStretches)
        issue('repeat', `makes more than ${mostStretches} stretches of the profile`);
    },
  },
  isLong: (body) => {
    const { profile, repeat } = body as { profile?: unknown; repeat?: unknown };
    return Array.isArray(profile) && profile.length * (typeof repeat === 'number' ? repeat : 1) > 100_000;
  },
  compute(input, { sheet }) {
    const { massKg, specificHeatJPerKgK, startC, resistanceOhm, profile, repeat, heaterW, cooling } = input;
    const state: LumpState = {
      temperatureC: startC,
      isCooling: cooling !== undefined && startC > cooling.onAboveC,
    };
    const told: LumpTold = { maxC: startC, minC: startC, timeAboveOnS: 0, coolingOnS: 0 };
    const lump = {
      capacityJPerK: massKg * specificHeatJPerKgK,
      ambientC: input.ambientC,
      uaToAmbientWPerK: input.uaToAmbientWPerK,
      ...(cooling !== undefined && { cooling }),
    };
    const onceS = profile.reduce((sum, [durationS]) => sum + durationS, 0);
    const totalS = onceS * repeat;
    const curve: [number, number][] = [[0, startC]];
    let heatJ = 0;
    const look = (atS: number, durationS: number, temperatureAt: (s: number) => number) => {
      for (;;) {
        const next = (curve.length / (curvePoints - 1)) * totalS;
        if (curve.length >= curvePoints - 1 || next > atS + durationS) return;
        curve.push([next, temperatureAt(Math.max(0, next - atS))]);
      }
    };
    for (let turn = 0; turn < repeat; turn += 1) {
      let atS = turn * onceS;
      for (const [durationS, currentA] of profile) {
        const heat = currentA * currentA * resistanceOhm + heaterW;
        heatJ += heat * durationS;
        follow(lump, state, heat, atS, durationS, told, look);
        atS += durationS;
      }
    }
    curve.push([totalS, state.temperatureC]);
    const source = 'Heat balance of one lump, each stretch of constant current exactly';
    sheet.add({
      symbol: 'P',
      label: 'Mean heat given to the pack',
      formula: 'E/t',
      inputs: [
        { symbol: 'E', label: 'I²R and heater over all stretches', value: heatJ, unit: 'J' },
        { symbol: 't', value: totalS, unit: 's' },
      ],
      value: heatJ / totalS,
      unit: 'W',
      source,
    });
    sheet.add({
      symbol: 'T_end',
      label: 'Temperature at the end',
      formula: 'T_0 + (E − losses)/(m·c)',
      inputs: [
        { symbol: 'T_0', value: startC, unit: '°C', from: 'startC' },
        { symbol: 'E', value: heatJ, unit: 'J' },
        {
          symbol: 'losses',
          value: heatJ - (state.temperatureC - startC) * lump.capacityJPerK,
          unit: 'J',
        },
        { symbol: 'm', value: massKg, unit: 'kg', from: 'massKg' },
        { symbol: 'c', value: specificHeatJPerKgK, unit: 'J/kgK', from: 'specificHeatJPerKgK' },
      ],
      value: state.temperatureC,
      unit: '°C',
      source,
    });
    return {
      endC: state.temperatureC,
      maxC: told.maxC,
      minC: told.minC,
      timeAboveOnS: cooling === undefined ? null : told.timeAboveOnS,
      coolingOnS: cooling === undefined ? null : told.coolingOnS,
      curve,
    };
  },
});
