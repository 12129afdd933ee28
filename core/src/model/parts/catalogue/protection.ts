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

/** Ratings of each series, A; every id is `calderside-` with what stands here. */
const fuseSeries: {
  ids: (ratedA: number) => [id: string, number: string];
  ratedA: number[];
  row: Omit<FuseRow, 'ratedA'>;
}[] = [
  {
    ids: (a) => [`f${a}`, `F${a}-500`],
    ratedA: [10, 16, 20, 32, 40, 50, 63, 80, 100, 125, 160, 200, 250, 300, 350, 400],
    row: { ratedVoltageV: 500, breakingA: 20_000, kind: 'fast' },
  },
  {
    ids: (a) => [`f${a}`, `F${a}-500`],
    ratedA: [500, 630],
    row: { ratedVoltageV: 500, breakingA: 25_000, kind: 'fast' },
  },
  {
    ids: (a) => [`s${a}`, `S${a}-500`],
    ratedA: [100, 160, 250, 350, 500],
    row: { ratedVoltageV: 500, breakingA: 15_000, kind: 'slow' },
  },
  {
    ids: (a) => [`h${a}`, `H${a}-1000`],
    ratedA: [63, 160, 300],
    row: { ratedVoltageV: 1000, breakingA: 30_000, kind: 'fast' },
  },
  {
    ids: (a) => [`p${a}`, `P${a}-700`],
    ratedA: [100, 200, 300, 400],
    row: { ratedVoltageV: 700, breakingA: 50_000, kind: 'partial' },
  },
  {
    ids: (a) => [`f${a}l`, `F${a}-150`],
    ratedA: [63, 160, 250, 400],
    row: { ratedVoltageV: 150, breakingA: 10_000, kind: 'fast' },
  },
];

/** Invented fuses. */
export const fuses: PartOf<'fuse'>[] = fuseSeries.flatMap(({ ids, ratedA, row }) =>
  ratedA.map((rating) => {
    const [id, number] = ids(rating);
    return fuseOf(`calderside-${id}`, number, { ratedA: rating, ...row });
  }),
);

/** For how long contacts carry multiples of their rating before they weld or lose their spring. */
const shortTimeMultiples: [multiple: number, timeS: number][] = [
  [1.3, 900],
  [1.6, 240],
  [2, 90],
  [3, 25],
  [5, 6],
  [8, 1.6],
  [12, 0.45],
];

function contactorOf(
  id: string,
  number: string,
  row: Omit<ContactorData, 'shortTime' | 'auxContact'>,
): PartOf<'contactor'> {
  const coilOhm = Number((row.coilV / row.coilPullInA).toPrecision(3));
  const data = {
    ...row,
    coilOhm,
    coilHenry: Number((0.012 * coilOhm).toPrecision(2)),
    pullInV: 7.2,
    dropOutA: Number((0.12 * row.coilPullInA).toPrecision(2)),
    auxContact: row.continuousA >= 100,
    economiser: row.coilHoldW < 0.7 * row.coilV * row.coilPullInA,
    shortTime: curveOf(row.continuousA, shortTimeMultiples),
  };
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
  contactorOf('hollin-k100', 'K100', {
    ratedVoltageV: 500,
    continuousA: 100,
    makeA: 160,
    breakA: 400,
    coilV: 12,
    coilPullInA: 1.9,
    coilHoldW: 1.2,
    closeMs: 22,
    openMs: 9,
    polarised: false,
  }),
  contactorOf('hollin-k150', 'K150', {
    ratedVoltageV: 500,
    continuousA: 150,
    makeA: 240,
    breakA: 650,
    coilV: 12,
    coilPullInA: 3.2,
    coilHoldW: 1.5,
    closeMs: 24,
    openMs: 10,
    polarised: true,
  }),
  contactorOf('hollin-k250', 'K250', {
    ratedVoltageV: 500,
    continuousA: 250,
    makeA: 420,
    breakA: 1300,
    coilV: 12,
    coilPullInA: 3.8,
    coilHoldW: 1.9,
    closeMs: 26,
    openMs: 11,
    polarised: true,
  }),
  contactorOf('hollin-k500', 'K500', {
    ratedVoltageV: 500,
    continuousA: 500,
    makeA: 900,
    breakA: 2600,
    coilV: 12,
    coilPullInA: 4.4,
    coilHoldW: 3.1,
    closeMs: 32,
    openMs: 13,
    polarised: true,
  }),
  contactorOf('hollin-h200', 'H200', {
    ratedVoltageV: 900,
    continuousA: 200,
    makeA: 320,
    breakA: 1000,
    coilV: 12,
    coilPullInA: 3.9,
    coilHoldW: 2.2,
    closeMs: 26,
    openMs: 11,
    polarised: true,
  }),
  contactorOf('hollin-h350', 'H350', {
    ratedVoltageV: 900,
    continuousA: 350,
    makeA: 600,
    breakA: 1800,
    coilV: 12,
    coilPullInA: 4.2,
    coilHoldW: 2.6,
    closeMs: 30,
    openMs: 12,
    polarised: true,
  }),
  contactorOf('hollin-l100', 'L100', {
    ratedVoltageV: 150,
    continuousA: 100,
    makeA: 250,
    breakA: 500,
    coilV: 12,
    coilPullInA: 1.1,
    coilHoldW: 2.8,
    closeMs: 18,
    openMs: 8,
    polarised: false,
  }),
  contactorOf('hollin-l250', 'L250', {
    ratedVoltageV: 150,
    continuousA: 250,
    makeA: 500,
    breakA: 1000,
    coilV: 12,
    coilPullInA: 1.8,
    coilHoldW: 3.6,
    closeMs: 24,
    openMs: 10,
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
  resistorOf('ember-33', 'E33-100', resistor(33, 5000, 100, 750)),
  resistorOf('ember-39', 'E39-100', resistor(39, 5600, 100, 750)),
  resistorOf('ember-56', 'E56-100', resistor(56, 6000, 100, 900)),
  resistorOf('ember-68', 'E68-50', resistor(68, 2600, 50, 750)),
  resistorOf('ember-68h', 'E68-200', resistor(68, 13_000, 200, 900)),
  resistorOf('ember-120', 'E120-50', resistor(120, 2500, 50, 750)),
  resistorOf('ember-180', 'E180-100', resistor(180, 5000, 100, 900)),
  resistorOf('ember-270', 'E270-50', resistor(270, 2300, 50, 900)),
  resistorOf('ember-390', 'E390-25', resistor(390, 1200, 25, 750, 0.1)),
  resistorOf('ember-470', 'E470-50', resistor(470, 2200, 50, 900)),
  resistorOf('ember-680', 'E680-25', resistor(680, 1100, 25, 750, 0.1)),
  resistorOf('ember-220h', 'E220-200', resistor(220, 11_000, 200, 900)),
  resistorOf('ember-470h', 'E470-100', resistor(470, 4600, 100, 900)),
  resistorOf('ember-1000h', 'E1000-50', resistor(1000, 1900, 50, 900)),
  resistorOf('ember-1000', 'E1000-25', resistor(1000, 1000, 25, 900, 0.1)),
];
