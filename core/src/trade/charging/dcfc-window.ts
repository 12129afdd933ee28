import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface DcfcWindowInput {
  packMinV: number;
  packMaxV: number;
  stationMinV: number;
  stationMaxV: number;
  stationMaxA: number;
  packMaxChargeA: number;
}

export interface DcfcWindowResult {
  possible: boolean;
  usableFromV: number | null;
  usableToV: number | null;
  maxPowerKW: number | null;
}

const rule = rulesOf('dcfc-window');
const source = 'Window of the pack against that of the station';

export const dcfcRules = {
  none: rule(
    'none',
    'mend',
    'No station of this kind charges the pack',
    'Their voltages do not meet: the station refuses before it begins.',
    'Another arrangement of modules, or another kind of station.',
    source,
  ),
  part: rule(
    'part',
    'note',
    'A station of this kind charges only a part of the pack’s window',
    'An empty pack is refused, or the charge ends before it is full.',
    'Know from which state it works, and bring the pack there otherwise.',
    source,
  ),
};

/**
 * What of the pack’s window a DC station can charge, and with how much.
 *
 * Source: overlap of two windows; the smaller current at the highest voltage of it.
 */
export const dcfcWindow = defineCalculator<DcfcWindowInput, DcfcWindowResult>({
  name: 'dcfc-window',
  version: 1,
  title: 'Window of a DC station',
  rules: Object.values(dcfcRules),
  door: {
    schema: record({
      packMinV: number({ min: 0 }),
      packMaxV: number({ above: 0 }),
      stationMinV: number({ min: 0 }),
      stationMaxV: number({ above: 0 }),
      stationMaxA: number({ above: 0 }),
      packMaxChargeA: number({ above: 0 }),
    }),
    cross({ packMinV, packMaxV, stationMinV, stationMaxV }: DcfcWindowInput, issue) {
      if (!(packMinV < packMaxV)) issue('packMaxV', 'must be above packMinV');
      if (!(stationMinV < stationMaxV)) issue('stationMaxV', 'must be above stationMinV');
    },
  },
  compute(input, { sheet, raise }) {
    const from = Math.max(input.packMinV, input.stationMinV);
    const to = Math.min(input.packMaxV, input.stationMaxV);
    const possible = from < to;
    const amps = Math.min(input.stationMaxA, input.packMaxChargeA);
    const maxPowerKW = sheet.add({
      symbol: 'P',
      label: 'Power at the most',
      formula: 'U·I/1000',
      inputs: [
        { symbol: 'U', value: to, unit: 'V' },
        { symbol: 'I', value: amps, unit: 'A' },
      ],
      value: possible ? (to * amps) / 1000 : null,
      unit: 'kW',
      source,
    });
    const windows = `the pack has ${formatQuantity(input.packMinV, 'V')} to ${formatQuantity(input.packMaxV, 'V')}, the station ${formatQuantity(input.stationMinV, 'V')} to ${formatQuantity(input.stationMaxV, 'V')}`;
    if (!possible) raise(dcfcRules.none, `They do not meet: ${windows}.`);
    else if (from > input.packMinV || to < input.packMaxV)
      raise(dcfcRules.part, `From ${formatQuantity(from, 'V')} to ${formatQuantity(to, 'V')}: ${windows}.`);
    return {
      possible,
      usableFromV: possible ? from : null,
      usableToV: possible ? to : null,
      maxPowerKW,
    };
  },
});
