import { defineCalculator } from '../../ground/calculator';
import { number, record, table } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { interpolate, type Table } from '../../ground/math';
import { formatQuantity } from '../../ground/quantity';
import { ocvSchema } from '../pack';

export interface ChargeCurveInput {
  cell: {
    ocvTable: [soc: number, voltageV: number][];
    capacityAh: number;
    resistanceOhm: number;
    maxV: number;
  };
  series: number;
  parallel: number;
  startSoc: number;
  endSoc: number;
  source: { maxW?: number; maxA?: number; maxV: number };
  /** The cells are taken no higher. */
  cellMaxV: number;
  taperEndA?: number;
  cRateLimit?: number;
  /** Pack amperes, linear between. */
  currentBySoc?: [soc: number, maxA: number][];
  /** The longest step; the integral is exact between its points, so that none shortens it. */
  stepS: number;
}

export interface ChargeCurveResult {
  minutes: number;
  energyToPackKWh: number;
  energyStoredKWh: number;
  lossKWh: number;
  peakA: number;
  /** Where the voltage first governs. */
  startTaperSoc: number | null;
  endSocReached: number;
  endedBy: 'soc' | 'taper' | 'current';
  curve: [minutes: number, soc: number, currentA: number, packV: number][];
}

const rule = rulesOf('charge-curve');

export const chargeCurveRules = {
  short: rule(
    'not-full',
    'note',
    'The charge ends before the state that was asked',
    'Voltage or current give out first.',
    'A higher end voltage where cells and charger allow it, or ask for less.',
    'Limits of charger and cells along the open-circuit voltage',
  ),
};

/** Below this nothing worth mentioning flows. */
const noCurrentA = 0.01;
const curvePoints = 400;
/** Limits change places no more often between two neighbouring states. */
const mostTurns = 8;

type Governor = 'power' | 'current' | 'rate' | 'soc' | 'voltage';

/** At a state of charge: the governing current, what governs it, and the voltage at rest. */
interface AtState {
  currentA: number;
  by: Governor;
  packV: number;
}

interface Limits {
  at(soc: number): AtState;
}

function limitsOf(input: ChargeCurveInput): Limits & { ohm: number; coulombs: number } {
  const { cell, series, parallel, source, currentBySoc } = input;
  const ohm = (series * cell.resistanceOhm) / parallel;
  const highV = Math.min(source.maxV, series * input.cellMaxV);
  const rateA = input.cRateLimit === undefined ? Infinity : input.cRateLimit * cell.capacityAh * parallel;
  const sourceA = source.maxA ?? Infinity;
  const { maxW } = source;
  const ocv = cell.ocvTable as Table;
  return {
    ohm,
    coulombs: cell.capacityAh * parallel * 3600,
    // The innermost of it all: nothing is made here but what is given back.
    at(soc) {
      const packV = series * interpolate(ocv, soc);
      let currentA = sourceA;
      let by: Governor = 'current';
      if (rateA < currentA) [currentA, by] = [rateA, 'rate'];
      if (maxW !== undefined) {
        const powerA = (2 * maxW) / (packV + Math.sqrt(packV * packV + 4 * ohm * maxW));
        if (powerA < currentA) [currentA, by] = [powerA, 'power'];
      }
      if (currentBySoc !== undefined) {
        const socA = interpolate(currentBySoc, soc);
        if (socA < currentA) [currentA, by] = [socA, 'soc'];
      }
      const room = highV - packV;
      // Without resistance the voltage either leaves room for any current, or for none.
      const heldA = Math.max(0, ohm > 0 ? room / ohm : room > 0 ? Infinity : 0);
      if (heldA < currentA) [currentA, by] = [heldA, 'voltage'];
      return { currentA, by, packV };
    },
  };
}

/** Five-point Gauss–Legendre on [-1, 1]. */
const gauss: readonly (readonly [at: number, weight: number])[] = (() => {
  const inner = Math.sqrt(5 - 2 * Math.sqrt(10 / 7)) / 3;
  const outer = Math.sqrt(5 + 2 * Math.sqrt(10 / 7)) / 3;
  const [heavy, light] = [(322 + 13 * Math.sqrt(70)) / 900, (322 - 13 * Math.sqrt(70)) / 900];
  return [
    [0, 128 / 225],
    [-inner, heavy],
    [inner, heavy],
    [-outer, light],
    [outer, light],
  ] as const;
})();

/**
 * A charge from one state to another: current by the strictest limit, voltage held where it governs.
 *
 * Source: quasi-steady cell of open-circuit voltage and resistance. Current depends on the state alone, so time is the
 * integral of charge over current along it: exact where the current runs straight, by Gauss–Legendre where power governs.
 */
export const chargeCurve = defineCalculator<ChargeCurveInput, ChargeCurveResult>({
  name: 'charge-curve',
  version: 1,
  title: 'Charge over time',
  rules: Object.values(chargeCurveRules),
  door: {
    schema: record({
      cell: record({
        ocvTable: ocvSchema,
        capacityAh: number({ above: 0 }),
        resistanceOhm: number({ min: 0 }),
        maxV: number({ above: 0 }),
        // What else a sheet says of a cell has no bearing here.
        minV: number.optional({ min: 0 }),
        massKg: number.optional({ min: 0 }),
      }),
      series: number({ min: 1, integer: true }),
      parallel: number({ min: 1, integer: true }),
      startSoc: number({ min: 0, max: 1 }),
      endSoc: number({ min: 0, max: 1 }),
      source: record({
        maxW: number.optional({ above: 0 }),
        maxA: number.optional({ above: 0 }),
        maxV: number({ above: 0 }),
      }),
      cellMaxV: number({ above: 0 }),
      taperEndA: number.optional({ min: 0 }),
      cRateLimit: number.optional({ above: 0 }),
      currentBySoc: table.optional({ columns: [{ min: 0, max: 1 }, { min: 0 }] }),
      stepS: number.optional({ above: 0 }),
    }),
    defaults: { stepS: 10 },
    cross(input: ChargeCurveInput, issue) {
      const { source, cell } = input;
      if (!(input.endSoc > input.startSoc)) issue('endSoc', 'must be above startSoc');
      if (input.cellMaxV > cell.maxV) issue('cellMaxV', 'must not be above the cell’s own maxV');
      if (
        source.maxW === undefined &&
        source.maxA === undefined &&
        input.cRateLimit === undefined &&
        input.currentBySoc === undefined
      )
        issue('source', 'must limit power or current, or cRateLimit or currentBySoc must be given');
    },
  },
  compute(input, { sheet, raise }) {
    const limits = limitsOf(input);
    const { ohm, coulombs } = limits;
    const told = { seconds: 0, toPackJ: 0, storedJ: 0, lossJ: 0, peakA: 0 };
    const rows: [number, number, number, number][] = [];
    const row = (soc: number) => {
      const { currentA, packV } = limits.at(soc);
      rows.push([told.seconds / 60, soc, currentA, packV + currentA * ohm]);
    };
    const add = (from: number, to: number) => {
      const half = (to - from) / 2;
      const [a, b] = [limits.at(from), limits.at(to)];
      told.peakA = Math.max(told.peakA, a.currentA, b.currentA);
      const isStraight = a.by === b.by && a.by !== 'power';
      if (isStraight) {
        const [i, j] = [a.currentA, b.currentA];
        const even = Math.abs(j - i) <= 1e-9 * Math.max(i, j);
        told.seconds += even
          ? (coulombs * (to - from)) / ((i + j) / 2)
          : (coulombs * (to - from) * Math.log(j / i)) / (j - i);
      }
      for (const [at, weight] of gauss) {
        const { currentA, packV } = limits.at((from + to) / 2 + half * at);
        const dq = coulombs * half * weight;
        if (!isStraight) told.seconds += dq / currentA;
        told.storedJ += packV * dq;
        told.lossJ += currentA * ohm * dq;
      }
    };
    /** Whether the charge is over at a state, and by what. */
    const over = (soc: number): 'taper' | 'current' | null => {
      const { currentA, by } = limits.at(soc);
      if (by === 'voltage' && input.taperEndA !== undefined && currentA <= input.taperEndA) return 'taper';
      return currentA < noCurrentA ? 'current' : null;
    };
    const last = (isSame: (soc: number) => boolean, from: number, to: number) => {
      let [low, high] = [from, to];
      for (let k = 0; k < 60; k += 1) {
        const middle = (low + high) / 2;
        if (isSame(middle)) low = middle;
        else high = middle;
      }
      return low;
    };
    let soc = input.startSoc;
    let startTaperSoc = limits.at(soc).by === 'voltage' ? soc : null;
    let endedBy: ChargeCurveResult['endedBy'] = 'soc';
    const atOnce = over(soc);
    row(soc);
    if (atOnce !== null) endedBy = atOnce;
    else
      for (const next of statesOf(input)) {
        for (let turns = 0; soc < next; turns += 1) {
          const governor = limits.at(soc).by;
          // Limits that are alike but for rounding change places all the time: the rest of the piece is taken as one.
          const whole = turns > mostTurns || (over(next) === null && limits.at(next).by === governor);
          const to = whole ? next : last((s) => over(s) === null && limits.at(s).by === governor, soc, next);
          if (to > soc) add(soc, to);
          soc = to;
          if (whole) break;
          // Past the turn: what comes next begins a hair later.
          const past = Math.min(next, Math.max(soc + 1e-15, soc * (1 + 4e-16)));
          const end = over(past);
          if (end !== null) {
            endedBy = end;
            break;
          }
          if (startTaperSoc === null && limits.at(past).by === 'voltage') startTaperSoc = past;
          soc = past;
        }
        row(soc);
        if (endedBy !== 'soc') break;
      }
    const wayOf = 'Charge over current along the state of charge';
    sheet.add({
      symbol: 't',
      label: 'Time',
      formula: '∫ Q/I dsoc',
      inputs: [
        { symbol: 'Q', value: coulombs / 3600, unit: 'Ah' },
        { symbol: 'I', label: 'at the start', value: limits.at(input.startSoc).currentA, unit: 'A' },
      ],
      value: told.seconds / 60,
      unit: 'min',
      source: wayOf,
    });
    told.toPackJ = told.storedJ + told.lossJ;
    sheet.add({
      symbol: 'E_loss',
      label: 'Turned to heat in the pack',
      formula: '∫ I²·R dt',
      inputs: [
        { symbol: 'I', label: 'peak', value: told.peakA, unit: 'A' },
        { symbol: 'R', value: ohm, unit: 'Ω' },
      ],
      value: told.lossJ / 3.6e6,
      unit: 'kWh',
      source: wayOf,
    });
    if (endedBy !== 'soc')
      raise(
        chargeCurveRules.short,
        `It ends at ${formatQuantity(100 * soc, '%')}; ${formatQuantity(100 * input.endSoc, '%')} was asked.`,
      );
    return {
      minutes: told.seconds / 60,
      energyToPackKWh: told.toPackJ / 3.6e6,
      energyStoredKWh: told.storedJ / 3.6e6,
      lossKWh: told.lossJ / 3.6e6,
      peakA: told.peakA,
      startTaperSoc,
      endSocReached: soc,
      endedBy,
      curve: thinned(rows),
    };
  },
});

/** States after the start at which a table turns, with others between, up to the end. */
function statesOf({ cell, currentBySoc = [], startSoc, endSoc }: ChargeCurveInput): number[] {
  const all = [...cell.ocvTable, ...currentBySoc]
    .map(([soc]) => soc)
    .filter((soc) => soc > startSoc && soc < endSoc);
  const turns = [...new Set([startSoc, ...all, endSoc])].sort((a, b) => a - b);
  const pieces = Math.max(3, Math.ceil(60 / turns.length));
  return turns
    .slice(1)
    .flatMap((to, i) =>
      Array.from({ length: pieces }, (_, k) =>
        k === pieces - 1 ? to : turns[i]! + ((to - turns[i]!) * (k + 1)) / pieces,
      ),
    );
}

function thinned<T>(rows: readonly T[]): T[] {
  if (rows.length <= curvePoints) return [...rows];
  return Array.from(
    { length: curvePoints },
    (_, i) => rows[Math.round((i * (rows.length - 1)) / (curvePoints - 1))]!,
  );
}
