import type { ContactorData, FuseData, PartOf, ResistorData } from '../kinds';

/** Average melting times at multiples of the rating, of a fast full-range fuse. */
const fastMultiples: [multiple: number, timeS: number][] = [
  [1.6, 1000],
  [2, 150],
  [3, 15],
  [5, 1.2],
  [10, 0.08],
  [20, 0.012],
  [40, 0.0024],
];

/** The same shape for a slower element that rides through launches. */
const slowMultiples: [multiple: number, timeS: number][] = [
  [1.6, 2200],
  [2, 420],
  [3, 52],
  [5, 4.6],
  [10, 0.32],
  [20, 0.042],
  [40, 0.0088],
];

/** A partial-range element: it melts late below about four times its rating and must not be relied on there. */
const partialMultiples: [multiple: number, timeS: number][] = [
  [2.4, 600],
  [3, 90],
  [4, 12],
  [6, 0.9],
  [10, 0.055],
  [20, 0.0075],
  [40, 0.0016],
];

const curveOf = (ratedA: number, multiples: [number, number][]): [number, number][] =>
  multiples.map(([multiple, timeS]) => [Math.round(ratedA * multiple * 10) / 10, timeS]);

const derating: [number, number][] = [
  [-20, 1.1],
  [25, 1],
  [60, 0.9],
  [85, 0.78],
];

type FuseRow = Pick<FuseData, 'ratedA' | 'ratedVoltageV' | 'breakingA'> & {
  kind: 'fast' | 'slow' | 'partial';
};

function fuseOf(id: string, number: string, row: FuseRow): PartOf<'fuse'> {
  const { kind, ...ratings } = row;
  const multiples = { fast: fastMultiples, slow: slowMultiples, partial: partialMultiples }[kind];
  const range = { fast: 'full range, fast', slow: 'full range, slow', partial: 'partial range' }[kind];
  return {
    id,
    revision: 1,
    kind: 'fuse',
    make: 'Calderside',
    number,
    label: `Calderside ${number}, ${row.ratedA} A ${row.ratedVoltageV} V, ${range}`,
    data: {
      ...ratings,
      minBreakingA: kind === 'partial' ? row.ratedA * 5 : 0,
      curve: curveOf(row.ratedA, multiples),
      currentToleranceFraction: 0.1,
      arcI2tFactor: 2,
      ambientDerating: derating,
    },
  };
}

/** Invented fuses. */
export const fuses: PartOf<'fuse'>[] = [
  fuseOf('calderside-f32', 'F32-500', { ratedA: 32, ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' }),
  fuseOf('calderside-f63', 'F63-500', { ratedA: 63, ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' }),
  fuseOf('calderside-f160', 'F160-500', { ratedA: 160, ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' }),
  fuseOf('calderside-f250', 'F250-500', { ratedA: 250, ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' }),
  fuseOf('calderside-f350', 'F350-500', { ratedA: 350, ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' }),
  fuseOf('calderside-f500', 'F500-500', { ratedA: 500, ratedVoltageV: 500, breakingA: 25_000, kind: 'fast' }),
  fuseOf('calderside-s250', 'S250-500', { ratedA: 250, ratedVoltageV: 500, breakingA: 15_000, kind: 'slow' }),
  fuseOf('calderside-s350', 'S350-500', { ratedA: 350, ratedVoltageV: 500, breakingA: 15_000, kind: 'slow' }),
  fuseOf('calderside-p300', 'P300-700', {
    ratedA: 300,
    ratedVoltageV: 700,
    breakingA: 50_000,
    kind: 'partial',
  }),
  fuseOf('calderside-f400l', 'F400-150', {
    ratedA: 400,
    ratedVoltageV: 150,
    breakingA: 10_000,
    kind: 'fast',
  }),
];

function contactorOf(id: string, number: string, data: ContactorData): PartOf<'contactor'> {
  const label = `Hollin ${number}, ${data.continuousA} A ${data.ratedVoltageV} V`;
  return { id, revision: 1, kind: 'contactor', make: 'Hollin', number, label, data };
}

/** Invented contactors. */
export const contactors: PartOf<'contactor'>[] = [
  contactorOf('hollin-k50', 'K50', {
    ratedVoltageV: 450,
    continuousA: 50,
    makeA: 80,
    breakA: 120,
    coilV: 12,
    coilPullInA: 0.4,
    coilHoldW: 4.5,
    closeMs: 18,
    openMs: 8,
    polarised: false,
  }),
  contactorOf('hollin-k200', 'K200', {
    ratedVoltageV: 500,
    continuousA: 200,
    makeA: 300,
    breakA: 900,
    coilV: 12,
    coilPullInA: 3.8,
    coilHoldW: 1.7,
    closeMs: 25,
    openMs: 10,
    polarised: true,
  }),
  contactorOf('hollin-k350', 'K350', {
    ratedVoltageV: 500,
    continuousA: 350,
    makeA: 650,
    breakA: 2000,
    coilV: 12,
    coilPullInA: 3.9,
    coilHoldW: 2.1,
    closeMs: 28,
    openMs: 12,
    polarised: true,
  }),
  contactorOf('hollin-k400', 'K400L', {
    ratedVoltageV: 150,
    continuousA: 400,
    makeA: 700,
    breakA: 1500,
    coilV: 12,
    coilPullInA: 3.6,
    coilHoldW: 2.4,
    closeMs: 30,
    openMs: 12,
    polarised: false,
  }),
];

function resistorOf(id: string, number: string, data: ResistorData): PartOf<'resistor'> {
  const label = `Ember ${number}, ${data.resistanceOhm} Ω ${data.continuousW} W`;
  return { id, revision: 1, kind: 'resistor', make: 'Ember', number, label, data };
}

const resistor = (
  resistanceOhm: number,
  pulseEnergyJ: number,
  continuousW: number,
  maxVoltageV: number,
  toleranceFraction = 0.05,
): ResistorData => ({ resistanceOhm, toleranceFraction, pulseEnergyJ, continuousW, maxVoltageV });

/** Invented wire-wound pre-charge resistors. */
export const resistors: PartOf<'resistor'>[] = [
  resistorOf('ember-22', 'E22-50', resistor(22, 1800, 50, 500)),
  resistorOf('ember-47', 'E47-50', resistor(47, 2600, 50, 750)),
  resistorOf('ember-47h', 'E47-200', resistor(47, 12_000, 200, 900)),
  resistorOf('ember-82', 'E82-100', resistor(82, 6500, 100, 900)),
  resistorOf('ember-100', 'E100-50', resistor(100, 2600, 50, 750)),
  resistorOf('ember-150', 'E150-100', resistor(150, 5200, 100, 900)),
  resistorOf('ember-220', 'E220-50', resistor(220, 2400, 50, 750)),
  resistorOf('ember-330', 'E330-25', resistor(330, 1300, 25, 500, 0.1)),
];
