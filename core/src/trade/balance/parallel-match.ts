import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { interpolate } from '../../ground/math';
import { formatNumber, formatQuantity } from '../../ground/quantity';

interface Side {
  voltageV: number;
  resistanceOhm: number;
  capacityAh: number;
}

export interface ParallelMatchInput {
  a: Side;
  b: Side;
  linkResistanceOhm: number;
  currentLimitA: number;
  /** Cells in series in each. */
  series: number;
  ocvTable: [socFraction: number, cellV: number][];
  benchCurrentA?: number;
}

export interface ParallelMatchResult {
  deltaV: number;
  equalisingCurrentA: number;
  withinLimit: boolean;
  maxDeltaV: number;
  higher: 'a' | 'b' | 'equal';
  /** What must be taken from the higher one to bring it to the lower one's voltage. */
  ahToMove: number;
  benchHours: number | null;
}

const rule = rulesOf('parallel-match');

export const parallelMatchRules = {
  overLimit: rule(
    'current-over-limit',
    'stop',
    'Joining them would drive more current than the path allows',
    'At the moment of joining only resistance limits the current between two packs of different voltage.',
    'Bring the voltages together first: charge the lower one, or discharge the higher one.',
    'Ohm’s law for the loop of both',
  ),
  beyondTable: rule(
    'beyond-table',
    'mend',
    'A cell voltage lies beyond the table',
    'Beyond its ends the table says nothing: the state of charge is held at the end, and the charge to move is a guess.',
    'Measure again at rest, or use a table of this chemistry that reaches there.',
    'Open-circuit voltage table',
  ),
};

/** The same table read from voltage to state of charge. */
const turned = (rows: ParallelMatchInput['ocvTable']) =>
  rows.map(([soc, volts]): [number, number] => [volts, soc]);

const side = () =>
  record({
    voltageV: number({ above: 0 }),
    resistanceOhm: number({ min: 0 }),
    capacityAh: number({ above: 0 }),
  });

/**
 * Two strings, or a module and its string, before they are joined: the current at the moment of joining, and the
 * charge to move first.
 *
 * Source: Ohm's law for the loop; state of charge by the open-circuit voltage table.
 */
export const parallelMatch = defineCalculator<ParallelMatchInput, ParallelMatchResult>({
  name: 'parallel-match',
  version: 1,
  title: 'Joining in parallel',
  rules: Object.values(parallelMatchRules),
  door: {
    schema: record({
      a: side(),
      b: side(),
      linkResistanceOhm: number({ min: 0 }),
      currentLimitA: number({ above: 0 }),
      series: number({ min: 1, integer: true }),
      ocvTable: table({
        columns: [{ min: 0, max: 1 }, { above: 0 }],
        minRows: 2,
        whole(rows) {
          if (rows[0]![0] !== 0 || rows.at(-1)![0] !== 1) return 'must run from state of charge 0 to 1';
          return rows.some(([, volts], i) => i > 0 && volts <= rows[i - 1]![1])
            ? 'must rise strictly in its second column'
            : null;
        },
      }),
      benchCurrentA: number.optional({ above: 0 }),
    }),
    cross({ a, b, linkResistanceOhm }: ParallelMatchInput, issue) {
      if (a.resistanceOhm + b.resistanceOhm + linkResistanceOhm === 0)
        issue('a.resistanceOhm', 'is zero like all others: no current can be computed');
    },
  },
  compute({ a, b, linkResistanceOhm, currentLimitA, series, ocvTable, benchCurrentA }, { sheet, raise }) {
    const higher = a.voltageV === b.voltageV ? 'equal' : a.voltageV > b.voltageV ? 'a' : 'b';
    const [high, low] = higher === 'b' ? [b, a] : [a, b];
    const loopOhm = a.resistanceOhm + b.resistanceOhm + linkResistanceOhm;
    const deltaV = sheet.add({
      symbol: 'ΔU',
      label: 'Difference of voltages',
      formula: '|U_a − U_b|',
      inputs: [
        { symbol: 'U_a', value: a.voltageV, unit: 'V', from: 'a.voltageV' },
        { symbol: 'U_b', value: b.voltageV, unit: 'V', from: 'b.voltageV' },
      ],
      value: high.voltageV - low.voltageV,
      unit: 'V',
      source: 'Measured at rest',
    });
    const R = [
      { symbol: 'R_a', value: a.resistanceOhm, unit: 'Ω', from: 'a.resistanceOhm' },
      { symbol: 'R_b', value: b.resistanceOhm, unit: 'Ω', from: 'b.resistanceOhm' },
      { symbol: 'R_l', value: linkResistanceOhm, unit: 'Ω', from: 'linkResistanceOhm' },
    ];
    const equalisingCurrentA = sheet.add({
      symbol: 'I',
      label: 'Current at the moment of joining',
      formula: 'ΔU/(R_a + R_b + R_l)',
      inputs: [{ symbol: 'ΔU', value: deltaV, unit: 'V' }, ...R],
      value: deltaV / loopOhm,
      unit: 'A',
      source: 'Ohm’s law for the loop',
    });
    const maxDeltaV = sheet.add({
      symbol: 'ΔU_max',
      label: 'Largest difference within the limit',
      formula: 'I_l·(R_a + R_b + R_l)',
      inputs: [{ symbol: 'I_l', value: currentLimitA, unit: 'A', from: 'currentLimitA' }, ...R],
      value: currentLimitA * loopOhm,
      unit: 'V',
      source: 'Ohm’s law for the loop',
    });
    const socAt = (one: Side) => {
      const cellV = one.voltageV / series;
      const [, lowest] = ocvTable[0]!;
      const [, top] = ocvTable.at(-1)!;
      if (cellV < lowest || cellV > top)
        raise(
          parallelMatchRules.beyondTable,
          `${formatNumber(cellV, 4)} V a cell lies beyond the table, ${formatNumber(lowest)} to ${formatNumber(top)} V.`,
        );
      return interpolate(turned(ocvTable), Math.max(lowest, Math.min(top, cellV)));
    };
    const socHigh = socAt(high);
    const socLow = higher === 'equal' ? socHigh : socAt(low);
    const ahToMove = sheet.add({
      symbol: 'Q',
      label: 'Charge to take from the higher one',
      formula: 'C_h·(s_h − s_l)',
      inputs: [
        {
          symbol: 'C_h',
          value: high.capacityAh,
          unit: 'Ah',
          from: `${higher === 'b' ? 'b' : 'a'}.capacityAh`,
        },
        { symbol: 's_h', value: socHigh, unit: 'fraction' },
        { symbol: 's_l', value: socLow, unit: 'fraction' },
      ],
      value: high.capacityAh * (socHigh - socLow),
      unit: 'Ah',
      source: 'Open-circuit voltage table, piecewise linear',
    });
    const benchHours = sheet.add({
      symbol: 't',
      label: 'Hours with the bench gear',
      formula: benchCurrentA === undefined ? 'no bench current given' : 'Q/I_b',
      inputs:
        benchCurrentA === undefined
          ? []
          : [
              { symbol: 'Q', value: ahToMove, unit: 'Ah' },
              { symbol: 'I_b', value: benchCurrentA, unit: 'A', from: 'benchCurrentA' },
            ],
      value: benchCurrentA === undefined ? null : ahToMove / benchCurrentA,
      unit: 'h',
      source: 'Constant current',
    });
    const withinLimit = equalisingCurrentA <= currentLimitA;
    if (!withinLimit)
      raise(
        parallelMatchRules.overLimit,
        `Joining drives ${formatNumber(equalisingCurrentA)} A where ${formatNumber(currentLimitA)} A are allowed; ${formatQuantity(maxDeltaV, 'V')} of difference would be.`,
      );
    return { deltaV, equalisingCurrentA, withinLimit, maxDeltaV, higher, ahToMove, benchHours };
  },
});
