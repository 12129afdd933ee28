import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface WarmUpInput {
  massKg: number;
  specificHeatJPerKgK: number;
  startC: number;
  targetC: number;
  ambientC: number;
  uaToAmbientWPerK: number;
  heaterW: number;
}

export interface WarmUpResult {
  /** null: it never gets that warm. */
  timeS: number | null;
  /** Given by the heater meanwhile. */
  energyKWh: number | null;
  /** To stay there. */
  holdW: number;
  /** Where it would end; null: nothing stops it. */
  finalC: number | null;
}

const rule = rulesOf('warm-up');

export const warmUpRules = {
  never: rule(
    'never',
    'mend',
    'The heater never warms it to what is asked',
    'Below its limit a cell must not be charged: the vehicle stands at its charger and does not charge.',
    'A stronger heater, a better insulated box, or a warmer place to stand.',
    'End of the exponential: ambient plus heater over UA',
  ),
};

const celsius = { min: -273.15, max: 1e6 };

/**
 * How long a heater takes to warm a pack, and what it takes to hold it there.
 *
 * Source: one lump of heat against its surroundings, turned round for the time.
 */
export const warmUp = defineCalculator<WarmUpInput, WarmUpResult>({
  name: 'warm-up',
  version: 1,
  title: 'Warming up',
  rules: Object.values(warmUpRules),
  door: {
    schema: record({
      massKg: number({ above: 0 }),
      specificHeatJPerKgK: number({ above: 0 }),
      startC: number(celsius),
      targetC: number(celsius),
      ambientC: number(celsius),
      uaToAmbientWPerK: number({ min: 0 }),
      heaterW: number({ min: 0 }),
    }),
  },
  compute(input, { sheet, raise }) {
    const { startC, targetC, ambientC, uaToAmbientWPerK: ua, heaterW } = input;
    const capacity = input.massKg * input.specificHeatJPerKgK;
    const source = 'Heat balance of one lump against its surroundings';
    const m = { symbol: 'm', value: input.massKg, unit: 'kg', from: 'massKg' };
    const c = { symbol: 'c', value: input.specificHeatJPerKgK, unit: 'J/kgK', from: 'specificHeatJPerKgK' };
    const start = { symbol: 'T_0', value: startC, unit: '°C', from: 'startC' };
    const target = { symbol: 'T', value: targetC, unit: '°C', from: 'targetC' };
    const ambient = { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' };
    const loss = { symbol: 'UA', value: ua, unit: 'W/K', from: 'uaToAmbientWPerK' };
    const heater = { symbol: 'P', value: heaterW, unit: 'W', from: 'heaterW' };
    const holdW = sheet.add({
      symbol: 'P_hold',
      label: 'Power to hold it there',
      formula: 'UA·(T − T_a)',
      inputs: [loss, target, ambient],
      value: Math.max(0, ua * (targetC - ambientC)),
      unit: 'W',
      source,
    });
    let finalC: number | null;
    if (ua === 0) finalC = heaterW > 0 ? null : startC;
    else
      finalC = sheet.add({
        symbol: 'T_∞',
        label: 'Where it would end',
        formula: 'T_a + P/UA',
        inputs: [ambient, heater, loss],
        value: ambientC + heaterW / ua,
        unit: '°C',
        source,
      });
    const timeS = timeOf();
    if (timeS === null)
      raise(
        warmUpRules.never,
        `It ends at ${formatQuantity(finalC!, '°C')}; ${formatQuantity(targetC, '°C')} is asked.`,
      );
    return { timeS, energyKWh: timeS === null ? null : (heaterW * timeS) / 3.6e6, holdW, finalC };

    function timeOf(): number | null {
      if (startC >= targetC) return 0;
      if (finalC === null)
        return sheet.add({
          symbol: 't',
          label: 'Time to warm up',
          formula: 'm·c·(T − T_0)/P',
          inputs: [m, c, target, start, heater],
          value: (capacity * (targetC - startC)) / heaterW,
          unit: 's',
          source,
        });
      if (finalC <= targetC) return null;
      return sheet.add({
        symbol: 't',
        label: 'Time to warm up',
        formula: 'm·c/UA·ln((T_∞ − T_0)/(T_∞ − T))',
        inputs: [m, c, loss, { symbol: 'T_∞', value: finalC, unit: '°C' }, start, target],
        value: (capacity / ua) * Math.log((finalC - startC) / (finalC - targetC)),
        unit: 's',
        source,
      });
    }
  },
});
