import { defineCalculator } from '../../ground/calculator';
import { number, oneOf, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export const heaterKinds = ['ptc', 'resistive'] as const;

export interface HeaterAtVoltageInput {
  ratedW: number;
  ratedMinV: number;
  ratedMaxV: number;
  busV: number;
  kind: (typeof heaterKinds)[number];
}

export interface HeaterAtVoltageResult {
  lowW: number | null;
  highW: number | null;
  allowed: boolean;
}

const rule = rulesOf('heater-at-voltage');
const source = 'Rated window of the heater; the square of the voltage for a bare element';

export const heaterRules = {
  over: rule(
    'over-voltage',
    'stop',
    'A heater gets more voltage than it is made for',
    'It overheats, or its insulation and contacts fail.',
    'A heater for this voltage, or two in series that their maker allows so.',
    source,
  ),
  bare: rule(
    'bare-element',
    'note',
    'A bare element’s power rises with the square of the voltage',
    'The rated power holds at one voltage of its window; at the top of the window it is more than that.',
    'Ask its maker at which voltage it is rated, and protect cable and fuse for the top.',
    source,
  ),
};

/**
 * What a heater gives at a bus voltage: bounds where its kind leaves it open.
 *
 * Source: rated window; below it a resistor by the square, a PTC between square and proportion.
 */
export const heaterAtVoltage = defineCalculator<HeaterAtVoltageInput, HeaterAtVoltageResult>({
  name: 'heater-at-voltage',
  version: 1,
  title: 'Heater at a voltage',
  rules: Object.values(heaterRules),
  door: {
    schema: record({
      ratedW: number({ above: 0 }),
      ratedMinV: number({ above: 0 }),
      ratedMaxV: number({ above: 0 }),
      busV: number({ min: 0 }),
      kind: oneOf(heaterKinds),
    }),
    cross({ ratedMinV, ratedMaxV }: HeaterAtVoltageInput, issue) {
      if (ratedMaxV < ratedMinV) issue('ratedMaxV', 'must not be below ratedMinV');
    },
  },
  compute({ ratedW, ratedMinV, ratedMaxV, busV, kind }, { sheet, raise }) {
    const rated = { symbol: 'P', value: ratedW, unit: 'W', from: 'ratedW' };
    const bus = { symbol: 'U', value: busV, unit: 'V', from: 'busV' };
    const least = { symbol: 'U_min', value: ratedMinV, unit: 'V', from: 'ratedMinV' };
    if (busV > ratedMaxV) {
      sheet.add({
        symbol: 'U_over',
        label: 'Beyond the window',
        formula: 'U − U_max',
        inputs: [bus, { symbol: 'U_max', value: ratedMaxV, unit: 'V', from: 'ratedMaxV' }],
        value: busV - ratedMaxV,
        unit: 'V',
        source,
      });
      raise(
        heaterRules.over,
        `${formatQuantity(busV, 'V')}; made for ${formatQuantity(ratedMaxV, 'V')} at the most.`,
      );
      return { lowW: null, highW: null, allowed: false };
    }
    if (busV >= ratedMinV) {
      if (kind === 'resistive' && ratedMaxV > ratedMinV)
        raise(
          heaterRules.bare,
          `Rated ${formatQuantity(ratedW, 'W')} from ${formatQuantity(ratedMinV, 'V')} to ${formatQuantity(ratedMaxV, 'V')}.`,
        );
      sheet.add({
        symbol: 'P_h',
        label: 'Power',
        formula: 'P',
        inputs: [rated],
        value: ratedW,
        unit: 'W',
        source,
      });
      return { lowW: ratedW, highW: ratedW, allowed: true };
    }
    const lowW = sheet.add({
      symbol: 'P_low',
      label: 'Power at the least',
      formula: 'P·(U/U_min)²',
      inputs: [rated, bus, least],
      value: ratedW * (busV / ratedMinV) ** 2,
      unit: 'W',
      source,
    });
    if (kind === 'resistive') return { lowW, highW: lowW, allowed: true };
    const highW = sheet.add({
      symbol: 'P_high',
      label: 'Power at the most',
      formula: 'P·U/U_min',
      inputs: [rated, bus, least],
      value: (ratedW * busV) / ratedMinV,
      unit: 'W',
      source: 'A PTC that keeps its current',
    });
    return { lowW, highW, allowed: true };
  },
});
