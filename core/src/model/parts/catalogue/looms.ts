import type { BatteryData, ConnectorData, PartOf, RelayData, UnitData, WireData } from '../kinds';
import { part } from './part';

/** number, chemistry, V, Ah, mΩ, usable, A, kg. */
const batteryRows: [string, BatteryData['chemistry'], number, number, number, number, number, number][] = [
  ['P45', 'lead', 12, 45, 7, 0.5, 45, 12.5],
  ['P70', 'lead', 12, 70, 5, 0.5, 70, 18.5],
  ['P110', 'lead', 12, 110, 4, 0.5, 110, 27],
  ['P70-24', 'lead', 24, 70, 10, 0.5, 70, 37],
  ['P110-24', 'lead', 24, 110, 8, 0.5, 110, 54],
  ['L40', 'LFP', 12.8, 40, 8, 0.8, 40, 5.2],
  ['L100', 'LFP', 12.8, 100, 4, 0.8, 100, 11.6],
];

/** Invented low-voltage batteries. */
export const batteries: PartOf<'battery'>[] = batteryRows.map(
  ([number, chemistry, nominalV, capacityAh, milliohm, usableFraction, dischargeA, massKg]) =>
    part('battery', 'Fernhough', number, `${chemistry}, ${nominalV} V, ${capacityAh} Ah`, {
      chemistry,
      nominalV,
      capacityAh,
      resistanceOhm: milliohm / 1000,
      usableFraction,
      dischargeA,
      massKg,
    }),
);

/** number, cavities, rows, A a pin, mm² from, to, sealed, keyed. */
const connectorRows: [string, number, number, number, number, number, boolean, boolean][] = [
  ['J2', 2, 1, 14, 0.5, 2.5, true, false],
  ['J4', 4, 2, 14, 0.5, 2.5, true, false],
  ['J6', 6, 2, 14, 0.5, 2.5, true, true],
  ['J12', 12, 2, 10, 0.35, 1.5, true, true],
  ['J23', 23, 3, 7, 0.35, 1, true, true],
  ['J35', 35, 3, 7, 0.35, 1, true, true],
  ['S16', 16, 2, 3, 0.2, 0.5, false, true],
  ['S26', 26, 2, 3, 0.2, 0.5, false, true],
  ['W2', 2, 1, 60, 6, 16, false, true],
  ['W1', 1, 1, 120, 16, 35, false, true],
];

/** Invented connectors: J for looms, S for sense and signals, W for feeds. */
export const connectors: PartOf<'connector'>[] = connectorRows.map(
  ([number, cavities, rows, pinA, wireMinMm2, wireMaxMm2, sealed, keyed]) => {
    const data: ConnectorData = { cavities, rows, pinA, wireMinMm2, wireMaxMm2, sealed, keyed };
    return part(
      'connector',
      'Lintwell',
      number,
      `${cavities} pins, ${pinA} A${sealed ? ', sealed' : ''}`,
      data,
    );
  },
);

/** Area mm², outside mm. */
const singleRows: [number, number][] = [
  [0.35, 1.4],
  [0.5, 1.6],
  [0.75, 1.9],
  [1, 2.1],
  [1.5, 2.4],
  [2.5, 3],
  [4, 3.7],
  [6, 4.3],
  [10, 6],
  [16, 7.2],
  [25, 8.7],
  [35, 10.2],
];
const wire = (number: string, words: string, data: WireData) => part('wire', 'Marl', number, words, data);
const massOf = (areaMm2: number, cores: number) => Number((cores * areaMm2 * 0.0112 + 0.002).toPrecision(3));

/** Invented wires of looms, single and in pairs. */
export const wires: PartOf<'wire'>[] = [
  ...singleRows.map(([areaMm2, outerMm]) =>
    wire(`V${areaMm2}`, `${areaMm2} mm²`, {
      areaMm2,
      cores: 1,
      twisted: false,
      screened: false,
      outerMm,
      maxC: 105,
      massKgPerM: massOf(areaMm2, 1),
    }),
  ),
  ...([0.35, 0.5, 0.75] as const).flatMap((areaMm2) =>
    [false, true].map((screened) =>
      wire(
        `P${areaMm2}${screened ? 's' : ''}`,
        `pair of ${areaMm2} mm², twisted${screened ? ', screened' : ''}`,
        {
          areaMm2,
          cores: 2,
          twisted: true,
          screened,
          outerMm: 3.6 + areaMm2,
          maxC: 105,
          massKgPerM: massOf(areaMm2, screened ? 3 : 2),
        },
      ),
    ),
  ),
];

/** number, coil V, coil W, contact A, makes A, suppressed. */
const relayRows: [string, number, number, number, number, boolean][] = [
  ['R30', 12, 1.6, 30, 120, true],
  ['R30n', 12, 1.6, 30, 120, false],
  ['R70', 12, 2.2, 70, 240, true],
  ['R30-24', 24, 1.8, 20, 90, true],
  ['R70-24', 24, 2.4, 50, 200, true],
];

/** Invented relays. */
export const relays: PartOf<'relay'>[] = relayRows.map(
  ([number, coilV, coilW, contactA, makesA, suppressed]) => {
    const data: RelayData = { coilV, coilW, contactA, makesA, suppressed };
    return part('relay', 'Hollin', number, `${coilV} V, ${contactA} A`, data);
  },
);

/** number, channels, least, bleeds A, sensors, draws A, isolated link, keyed, passes on in ms, kg. */
const unitRows: [string, number, number, number, number, number, boolean, boolean, number, number][] = [
  ['D12', 12, 4, 0.1, 2, 0.02, true, true, 20, 0.12],
  ['B12', 12, 4, 0.2, 4, 0.03, true, true, 12, 0.18],
  ['B12u', 12, 6, 0.2, 4, 0.03, true, false, 12, 0.18],
  ['B16', 16, 6, 0.3, 8, 0.04, true, true, 12, 0.24],
  ['B24', 24, 8, 0.3, 8, 0.05, true, true, 16, 0.32],
  ['B8', 8, 3, 0.15, 2, 0.02, true, true, 10, 0.14],
  ['C48', 48, 12, 0.5, 16, 0.15, false, true, 120, 0.9],
  ['C60', 60, 12, 0.5, 24, 0.25, false, true, 150, 1.4],
];

/** Invented monitoring units: D stays in a donor module, B sits beside modules, C is one for all. */
export const units: PartOf<'unit'>[] = unitRows.map(
  ([number, channels, minChannels, bleedA, sensors, supplyA, isolatedLink, keyed, passMs, massKg]) => {
    const data: UnitData = {
      channels,
      minChannels,
      bleedA,
      sensors,
      supplyV: 12,
      supplyA,
      isolatedLink,
      keyed,
      passMs,
      massKg,
    };
    return part('unit', 'Harrowmere', number, `${channels} channels, bleeds ${bleedA} A`, data);
  },
);
