import { defineCalculator } from '../../ground/calculator';
import { number, record } from '../../ground/shape';
import { rulesOf } from '../../ground/finding';
import { formatQuantity } from '../../ground/quantity';

export interface Wire12vInput {
  currentA: number;
  lengthM: number;
  returnLengthM: number;
  systemV: number;
  maxDropFraction: number;
  ambientC: number;
  maxConductorC: number;
}

export interface Wire12vResult {
  areaMm2: number | null;
  dropV: number | null;
  governedBy: 'drop' | 'current';
  fuseA: number | null;
}

/** Area mm², resistance at 20 °C Ω/km (class 5), current in free air at 30 °C A. */
export const wireTable: readonly (readonly [areaMm2: number, ohmPerKm: number, freeAirA: number])[] = [
  [0.5, 39, 9],
  [0.75, 26, 12],
  [1, 19.5, 15],
  [1.5, 13.3, 20],
  [2.5, 7.98, 28],
  [4, 4.95, 38],
  [6, 3.3, 49],
  [10, 1.91, 68],
  [16, 1.21, 91],
  [25, 0.78, 120],
  [35, 0.554, 149],
];
export const bladeFusesA = [3, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100, 125] as const;
/** Resistance of copper at 60 °C over that at 20 °C. */
const warm = 1 + 0.00393 * 40;
/** A fuse nearer to the current than this is a finding. */
export const nearFraction = 0.1;

/** Of the current in free air at 30 °C, what an ambient and an insulation leave. */
const deratingOf = (ambientC: number, maxConductorC: number): number =>
  Math.sqrt(Math.max(0, maxConductorC - ambientC) / (maxConductorC - 30));

/** The row of an area, or the next thinner one: what is not in the table is not flattered; null: thinner than all. */
const rowOf = (areaMm2: number) => wireTable.findLast(([area]) => area <= areaMm2 * (1 + 1e-9)) ?? null;

/** Ohms of a kilometre at 20 °C, by its own area where it is not in the table. */
const ohmPerKmOf = (areaMm2: number): number => {
  const row = rowOf(areaMm2) ?? wireTable[0]!;
  return (row[1] * row[0]) / areaMm2;
};

/** What a wire carries at its ambient, A; thinner than the table: in proportion to its area. */
export function wireAmpacityA(areaMm2: number, ambientC: number, maxConductorC: number): number {
  const row = rowOf(areaMm2);
  const freeAirA = row?.[2] ?? (wireTable[0]![2] * areaMm2) / wireTable[0]![0];
  return freeAirA * deratingOf(ambientC, maxConductorC);
}

/** Drop over a length of wire at 60 °C, V. */
export const wireDropV = (areaMm2: number, currentA: number, lengthM: number): number =>
  (currentA * ohmPerKmOf(areaMm2) * warm * lengthM) / 1000;

const rule = rulesOf('wire-12v');
const source = 'IEC 60228 class 5 at 60 °C; current in free air, by ambient and class of the insulation';

export const wire12vRules = {
  none: rule(
    'none-fits',
    'mend',
    'No wire of the table carries this over that length',
    'It gets too hot, or too little voltage arrives.',
    'Two wires, a shorter way, or a supply nearer to the load.',
    source,
  ),
  fuse: rule(
    'fuse-near',
    'note',
    'The fuse lies close to the current of the load',
    'Fuses carry less than their rating for long: it opens one day for no reason.',
    'A fuse of the next size with a wire that carries it.',
    'Fuse within 10 % of the current',
  ),
};

/**
 * The smallest wire whose drop and current hold, and its fuse.
 *
 * Source: drop at 60 °C over both ways; current by the root of what the insulation leaves over the ambient.
 */
export const wire12v = defineCalculator<Wire12vInput, Wire12vResult>({
  name: 'wire-12v',
  version: 1,
  title: 'Wire of a low-voltage circuit',
  rules: Object.values(wire12vRules),
  door: {
    schema: record({
      currentA: number({ min: 0 }),
      lengthM: number({ min: 0 }),
      returnLengthM: number({ min: 0 }),
      systemV: number.optional({ above: 0 }),
      maxDropFraction: number.optional({ above: 0, max: 1 }),
      ambientC: number.optional({ min: -273.15 }),
      maxConductorC: number.optional({ above: 30 }),
    }),
    defaults: { systemV: 13.8, maxDropFraction: 0.03, ambientC: 40, maxConductorC: 105 },
    cross({ ambientC, maxConductorC }: Wire12vInput, issue) {
      if (!(maxConductorC > ambientC)) issue('ambientC', 'must be below maxConductorC');
    },
  },
  compute(input, { sheet, raise }) {
    const { currentA, lengthM, returnLengthM, systemV, maxDropFraction, ambientC, maxConductorC } = input;
    const derating = sheet.add({
      symbol: 'k',
      label: 'Of the current in free air at 30 °C',
      formula: '√((T_max − T_a)/(T_max − 30))',
      inputs: [
        { symbol: 'T_max', value: maxConductorC, unit: '°C', from: 'maxConductorC' },
        { symbol: 'T_a', value: ambientC, unit: '°C', from: 'ambientC' },
      ],
      value: deratingOf(ambientC, maxConductorC),
      unit: '',
      source,
    });
    const dropOf = (ohmPerKm: number) => (currentA * ohmPerKm * warm * (lengthM + returnLengthM)) / 1000;
    const carries = ([, , freeAirA]: (typeof wireTable)[number]) => currentA <= freeAirA * derating;
    const holds = ([, ohmPerKm]: (typeof wireTable)[number]) => dropOf(ohmPerKm) <= systemV * maxDropFraction;
    const byCurrent = wireTable.find(carries);
    const chosen = wireTable.find((row) => carries(row) && holds(row));
    if (chosen === undefined) {
      raise(
        wire12vRules.none,
        `${formatQuantity(currentA, 'A')} over ${formatQuantity(lengthM + returnLengthM, 'm')}.`,
      );
      return {
        areaMm2: null,
        dropV: null,
        governedBy: byCurrent === undefined ? 'current' : 'drop',
        fuseA: null,
      };
    }
    const [areaMm2, ohmPerKm, freeAirA] = chosen;
    const dropV = sheet.add({
      symbol: 'ΔU',
      label: `Drop over ${areaMm2} mm²`,
      formula: 'I·r·(l + l_r)·1.1572/1000',
      inputs: [
        { symbol: 'I', value: currentA, unit: 'A', from: 'currentA' },
        { symbol: 'r', value: ohmPerKm, unit: 'Ω/km' },
        { symbol: 'l', value: lengthM, unit: 'm', from: 'lengthM' },
        { symbol: 'l_r', value: returnLengthM, unit: 'm', from: 'returnLengthM' },
      ],
      value: dropOf(ohmPerKm),
      unit: 'V',
      source,
    });
    const fuseA =
      bladeFusesA.findLast((rating) => rating >= currentA && rating <= freeAirA * derating) ?? null;
    if (fuseA !== null && fuseA < currentA * (1 + nearFraction))
      raise(wire12vRules.fuse, `${formatQuantity(fuseA, 'A')} for ${formatQuantity(currentA, 'A')}.`);
    return { areaMm2, dropV, governedBy: areaMm2 > byCurrent![0] ? 'drop' : 'current', fuseA };
  },
});
