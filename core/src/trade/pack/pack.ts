import { packDefaults } from '../../model/document';
import { defineCalculator } from '../../ground/calculator';
import { number, record, span, table } from '../../ground/shape';
import { defineRule } from '../../ground/finding';
import { integrate, interpolate } from '../../ground/math';

/** One cell, as the maker or a measurement gives it. */
export interface CellData {
  /** Open-circuit voltage over state of charge, 0 to 1. */
  ocvTable: [socFraction: number, voltageV: number][];
  capacityAh: number;
  resistanceOhm: number;
  minV: number;
  maxV: number;
  massKg?: number;
}

export interface PackInput {
  cell: CellData;
  /** Cells in series. */
  series: number;
  /** Cells in parallel. */
  parallel: number;
  socWindow: [lowFraction: number, highFraction: number];
  /** All links as seen at the pack’s terminals: one string’s divided by the strings side by side; 0 by default. */
  linkResistanceOhm: number;
  peakCurrentA: number;
  /** State of charge at which the peak is judged; 0.5 by default. */
  socForPeakFraction: number;
}

export interface PackResult {
  voltageMinV: number;
  voltageMaxV: number;
  voltageNominalV: number;
  capacityAh: number;
  energyKWh: number;
  usableEnergyKWh: number;
  resistanceOhm: number;
  sagAtPeakV: number;
  voltageAtPeakV: number;
  cellVoltageAtPeakV: number;
  shortCircuitCurrentA: number;
  massKg: number | null;
}

export const tenSecondResistance = defineRule({
  id: 'pack.ten-second-resistance',
  version: 1,
  grade: 'note',
  title: 'Short-circuit current is understated',
  why: 'A cell resistance from a 10 s test holds polarisation that is absent in the first milliseconds of a short circuit: the real current starts higher.',
  remedy: 'Take the breaking capacity of the fuse with margin, or use a resistance measured at 1 kHz.',
  source: 'Cell makers’ pulse test practice',
});

/** Open-circuit voltage over the whole state of charge. */
export const ocvSchema = table({
  columns: [{ min: 0, max: 1 }, { min: 0 }],
  minRows: 2,
  maxRows: 2000,
  whole(rows) {
    if (rows[0]![0] !== 0 || rows[rows.length - 1]![0] !== 1) return 'must run from state of charge 0 to 1';
    const fall = rows.findIndex(([, voltage], i) => i > 0 && voltage < rows[i - 1]![1]);
    return fall > 0 ? `must not fall in voltage (row ${fall} does)` : null;
  },
});

/** The shape of a cell; other doors that take a cell use the same. */
export const cellSchema = record({
  ocvTable: ocvSchema,
  capacityAh: number({ above: 0 }),
  resistanceOhm: number({ min: 0 }),
  minV: number({ min: 0 }),
  maxV: number({ above: 0 }),
  massKg: number.optional({ min: 0 }),
});

/**
 * Voltages, energy, resistance and sag of a pack of like cells.
 *
 * Source: series and parallel connection of equal sources; energy as the integral of the open-circuit
 * voltage over the charge, the table taken as piecewise linear.
 */
export const pack = defineCalculator<PackInput, PackResult>({
  name: 'pack',
  version: 1,
  title: 'Pack figures',
  rules: [tenSecondResistance],
  door: {
    schema: record({
      cell: cellSchema,
      series: number({ min: 1, integer: true }),
      parallel: number({ min: 1, integer: true }),
      socWindow: span({ min: 0, max: 1 }),
      linkResistanceOhm: number.optional({ min: 0 }),
      peakCurrentA: number({ min: 0 }),
      socForPeakFraction: number.optional({ min: 0, max: 1 }),
    }),
    defaults: {
      linkResistanceOhm: packDefaults.linkResistanceOhm,
      socForPeakFraction: packDefaults.socForPeakFraction,
    },
    cross(input: PackInput, issue) {
      if (input.cell.maxV <= input.cell.minV) issue('cell.maxV', 'must be above minV');
      if (input.cell.resistanceOhm === 0 && input.linkResistanceOhm === 0) {
        issue(
          'cell.resistanceOhm',
          'must be above 0 when the links have none: the short-circuit current has no limit',
        );
      }
    },
  },
  compute(input, { sheet, raise }) {
    const { cell, parallel, linkResistanceOhm, peakCurrentA, socForPeakFraction } = input;
    const [low, high] = input.socWindow;
    const n = { symbol: 'n', value: input.series, unit: '', from: 'series' };
    const p = { symbol: 'p', value: parallel, unit: '', from: 'parallel' };
    const r = { symbol: 'r', value: cell.resistanceOhm, unit: 'Ω', from: 'cell.resistanceOhm' };
    const current = { symbol: 'I', value: peakCurrentA, unit: 'A', from: 'peakCurrentA' };
    const connection = 'Equal cells in series and parallel';

    const voltageMinV = sheet.add({
      symbol: 'U_min',
      label: 'Lowest pack voltage',
      formula: 'n·u_min',
      inputs: [n, { symbol: 'u_min', value: cell.minV, unit: 'V', from: 'cell.minV' }],
      value: input.series * cell.minV,
      unit: 'V',
      source: connection,
    });
    const voltageMaxV = sheet.add({
      symbol: 'U_max',
      label: 'Highest pack voltage',
      formula: 'n·u_max',
      inputs: [n, { symbol: 'u_max', value: cell.maxV, unit: 'V', from: 'cell.maxV' }],
      value: input.series * cell.maxV,
      unit: 'V',
      source: connection,
    });
    const meanCellV = integrate(cell.ocvTable, 0, 1);
    const voltageNominalV = sheet.add({
      symbol: 'U_nom',
      label: 'Nominal pack voltage',
      formula: 'n·u_mean',
      inputs: [n, { symbol: 'u_mean', value: meanCellV, unit: 'V', from: 'cell.ocvTable' }],
      value: input.series * meanCellV,
      unit: 'V',
      source: 'Mean of the open-circuit voltage over 0 to 1, trapezoids',
    });
    const capacityAh = sheet.add({
      symbol: 'Q',
      label: 'Capacity',
      formula: 'p·q',
      inputs: [p, { symbol: 'q', value: cell.capacityAh, unit: 'Ah', from: 'cell.capacityAh' }],
      value: parallel * cell.capacityAh,
      unit: 'Ah',
      source: connection,
    });
    const q = { symbol: 'Q', value: capacityAh, unit: 'Ah' };
    const energyKWh = sheet.add({
      symbol: 'E',
      label: 'Energy, full to empty',
      formula: 'U_nom·Q/1000',
      inputs: [{ symbol: 'U_nom', value: voltageNominalV, unit: 'V' }, q],
      value: (voltageNominalV * capacityAh) / 1000,
      unit: 'kWh',
      source: 'Integral of open-circuit voltage over charge',
    });
    const windowArea = integrate(cell.ocvTable, low, high);
    const usableEnergyKWh = sheet.add({
      symbol: 'E_use',
      label: `Usable energy, ${Math.round(low * 100)} to ${Math.round(high * 100)} %`,
      formula: 'n·A·Q/1000',
      inputs: [n, { symbol: 'A', value: windowArea, unit: 'V', from: 'socWindow' }, q],
      value: (input.series * windowArea * capacityAh) / 1000,
      unit: 'kWh',
      source: 'A: integral of the open-circuit voltage over the window, piecewise linear',
    });
    const resistanceOhm = sheet.add({
      symbol: 'R',
      label: 'Pack resistance with links',
      formula: 'n·r/p + R_link',
      inputs: [n, r, p, { symbol: 'R_link', value: linkResistanceOhm, unit: 'Ω', from: 'linkResistanceOhm' }],
      value: (input.series * cell.resistanceOhm) / parallel + linkResistanceOhm,
      unit: 'Ω',
      source: connection,
    });
    const sagAtPeakV = sheet.add({
      symbol: 'ΔU',
      label: 'Sag at peak current',
      formula: 'R·I',
      inputs: [{ symbol: 'R', value: resistanceOhm, unit: 'Ω' }, current],
      value: resistanceOhm * peakCurrentA,
      unit: 'V',
      source: 'Ohm’s law',
    });
    const cellOcvV = interpolate(cell.ocvTable, socForPeakFraction);
    const ocv = { symbol: 'u_oc', value: cellOcvV, unit: 'V', from: 'socForPeakFraction' };
    const voltageAtPeakV = sheet.add({
      symbol: 'U_pk',
      label: 'Pack voltage at peak current',
      formula: 'n·u_oc − ΔU',
      inputs: [n, ocv, { symbol: 'ΔU', value: sagAtPeakV, unit: 'V' }],
      value: input.series * cellOcvV - sagAtPeakV,
      unit: 'V',
      source: 'Open-circuit voltage less sag',
    });
    const cellVoltageAtPeakV = sheet.add({
      symbol: 'u_pk',
      label: 'Cell voltage at peak current',
      formula: 'u_oc − r·I/p',
      inputs: [ocv, r, current, p],
      value: cellOcvV - (cell.resistanceOhm * peakCurrentA) / parallel,
      unit: 'V',
      source: 'As the pack, without the links',
    });
    const shortCircuitCurrentA = sheet.add({
      symbol: 'I_sc',
      label: 'Short-circuit current, full',
      formula: 'U_max/R',
      inputs: [
        { symbol: 'U_max', value: voltageMaxV, unit: 'V' },
        { symbol: 'R', value: resistanceOhm, unit: 'Ω' },
      ],
      value: voltageMaxV / resistanceOhm,
      unit: 'A',
      source: 'Ohm’s law at the pack’s terminals',
    });
    raise(
      tenSecondResistance,
      `The short-circuit current of ${Math.round(shortCircuitCurrentA)} A rests on a pulse-test resistance; the first milliseconds run higher.`,
    );
    const massKg = cell.massKg === undefined ? null : input.series * parallel * cell.massKg;
    return {
      voltageMinV,
      voltageMaxV,
      voltageNominalV,
      capacityAh,
      energyKWh,
      usableEnergyKWh,
      resistanceOhm,
      sagAtPeakV,
      voltageAtPeakV,
      cellVoltageAtPeakV,
      shortCircuitCurrentA,
      massKg,
    };
  },
});
