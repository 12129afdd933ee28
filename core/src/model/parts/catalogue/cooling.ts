import type {
  CoolantData,
  FanData,
  HeaterData,
  HoseData,
  PartOf,
  PlateData,
  PumpData,
  RadiatorData,
} from '../kinds';
import { part } from './part';

/** number, shut-off kPa, free flow L/min, supply V, power W, port mm, mass kg: curves fall slowly at first. */
const pumpRows: [string, number, number, number, number, number, number][] = [
  ['C8', 18, 14, 12, 14, 16, 0.4],
  ['C12', 28, 20, 12, 22, 19, 0.5],
  ['C20', 42, 26, 12, 38, 19, 0.7],
  ['C30', 60, 32, 12, 62, 19, 0.9],
  ['C45', 85, 44, 12, 110, 25, 1.4],
  ['C20-24', 44, 28, 24, 42, 19, 0.7],
  ['C45-24', 90, 46, 24, 120, 25, 1.4],
  ['C70-24', 130, 72, 24, 230, 32, 2.3],
  ['B5', 12, 9, 12, 9, 12, 0.25],
];
/** Share of the free flow, share of the shut-off head. */
const pumpShape: [number, number][] = [
  [0, 1],
  [0.17, 0.965],
  [0.33, 0.9],
  [0.5, 0.78],
  [0.67, 0.61],
  [0.83, 0.36],
  [1, 0.05],
];
const rounded = (value: number, digits = 3) => Number(value.toPrecision(digits));

/** Invented coolant pumps. */
export const pumps: PartOf<'pump'>[] = pumpRows.map(
  ([number, head, free, supplyV, powerW, portMm, massKg]) => {
    const data: PumpData = {
      curve: pumpShape.map(([q, h]) => [rounded(q * free), rounded(h * head)]),
      supplyV,
      powerW,
      coolantMaxC: 105,
      portMm,
      massKg,
    };
    return part('pump', 'Tarnbeck', number, `${free} L/min, ${head} kPa, ${supplyV} V`, data);
  },
);

/** number, length, width, height mm, a, b, UA W/K, least L/min, volume L, mass kg. */
const plateRows: [string, number, number, number, number, number, number, number, number, number][] = [
  ['P300', 300, 180, 8, 1.1, 0.42, 95, 0.6, 0.12, 0.9],
  ['P380', 380, 200, 8, 1.4, 0.5, 130, 0.7, 0.16, 1.2],
  ['P480', 480, 240, 8, 1.6, 0.55, 185, 0.8, 0.24, 1.8],
  ['P640', 640, 240, 10, 1.9, 0.48, 240, 1, 0.36, 2.6],
  ['P640F', 640, 240, 10, 3.2, 0.95, 340, 1.2, 0.3, 2.7],
  ['P800', 800, 300, 10, 2.1, 0.44, 360, 1.2, 0.56, 4.1],
  ['P1000', 1000, 320, 12, 2.3, 0.4, 470, 1.5, 0.85, 6],
  ['S120', 120, 90, 6, 0.7, 0.3, 32, 0.4, 0.04, 0.25],
  ['S160', 160, 110, 6, 0.8, 0.34, 48, 0.4, 0.06, 0.35],
  ['R220', 220, 150, 14, 0.25, 0.07, 60, 1.5, 0.2, 1.1],
  ['R260', 260, 220, 16, 0.2, 0.05, 85, 2, 0.32, 1.7],
];

/** Invented cold plates: P and S under or between modules, R under electronics. */
export const plates: PartOf<'plate'>[] = plateRows.map(
  ([number, lengthMm, widthMm, heightMm, kPaPerLpm, kPaPerLpm2, uaWPerK, leastLPerMin, volumeL, massKg]) => {
    const data: PlateData = {
      kPaPerLpm,
      kPaPerLpm2,
      contactM2: rounded((lengthMm * widthMm) / 1e6),
      uaWPerK,
      leastLPerMin,
      testKPa: 200,
      volumeL,
      massKg,
      lengthMm,
      widthMm,
      heightMm,
    };
    return part('plate', 'Ollerton', number, `${lengthMm} × ${widthMm} mm`, data);
  },
);

/** number, core W, H, D mm, a, b, UA W/K, air kg/s, volume L, mass kg. */
const radiatorRows: [string, number, number, number, number, number, number, number, number, number][] = [
  ['K300', 300, 220, 26, 0.18, 0.02, 150, 0.3, 0.7, 1.9],
  ['K420', 420, 300, 26, 0.14, 0.014, 260, 0.5, 1.1, 3],
  ['K560', 560, 380, 32, 0.1, 0.01, 430, 0.8, 1.9, 4.8],
  ['K700', 700, 450, 40, 0.08, 0.008, 680, 1.2, 3, 7.6],
  ['K900', 900, 520, 48, 0.06, 0.006, 1050, 1.9, 4.6, 11.5],
];

/** Invented radiators of aluminium. */
export const radiators: PartOf<'radiator'>[] = radiatorRows.map(
  ([
    number,
    coreWidthMm,
    coreHeightMm,
    coreDepthMm,
    kPaPerLpm,
    kPaPerLpm2,
    uaWPerK,
    uaAirKgPerS,
    volumeL,
    massKg,
  ]) => {
    const data: RadiatorData = {
      kPaPerLpm,
      kPaPerLpm2,
      coreWidthMm,
      coreHeightMm,
      coreDepthMm,
      uaWPerK,
      uaAirKgPerS,
      testKPa: 180,
      volumeL,
      massKg,
    };
    return part('radiator', 'Galewood', number, `${coreWidthMm} × ${coreHeightMm} mm, ${uaWPerK} W/K`, data);
  },
);

/** bore mm, outside mm, kg/m; of rubber, and pipes of aluminium. */
const hoseRows: [string, number, number, number, number][] = [
  ['H8', 8, 14, 0.13, 0.0015],
  ['H10', 10, 17, 0.19, 0.0015],
  ['H13', 13, 20, 0.23, 0.0015],
  ['H16', 16, 24, 0.32, 0.0015],
  ['H19', 19, 27, 0.37, 0.0015],
  ['H25', 25, 34, 0.53, 0.0015],
  ['H32', 32, 42, 0.74, 0.0015],
  ['A16', 16, 19, 0.22, 0.005],
  ['A22', 22, 25, 0.3, 0.005],
];

/** Invented hoses (H) and pipes (A). */
export const hoses: PartOf<'hose'>[] = hoseRows.map(([number, innerMm, outerMm, massKgPerM, roughnessMm]) => {
  const data: HoseData = { innerMm, outerMm, roughnessMm, maxC: 125, burstKPa: 900, massKgPerM };
  return part('hose', 'Wendover', number, `bore ${innerMm} mm`, data);
});

const fanRows: [string, number, number, number, number][] = [
  ['F225', 0.28, 12, 80, 1.1],
  ['F305', 0.55, 12, 130, 1.7],
  ['F305-24', 0.56, 24, 135, 1.7],
  ['F385-24', 0.95, 24, 220, 2.6],
];

/** Invented fans. */
export const fans: PartOf<'fan'>[] = fanRows.map(([number, airKgPerS, supplyV, powerW, massKg]) => {
  const data: FanData = { airKgPerS, supplyV, powerW, massKg };
  return part('fan', 'Galewood', number, `${airKgPerS} kg/s, ${supplyV} V`, data);
});

/** number, W, from V, to V, element, stops below, a, b, kg. */
const heaterRows: [string, number, number, number, 'ptc' | 'resistive', boolean, number, number, number][] = [
  ['E3', 3000, 250, 420, 'ptc', true, 0.15, 0.02, 2.1],
  ['E5', 5000, 280, 420, 'ptc', false, 0.12, 0.016, 2.7],
  ['E2-120', 2000, 90, 140, 'ptc', false, 0.2, 0.03, 1.5],
  ['M60', 60, 85, 132, 'resistive', false, 0, 0, 0.15],
  ['M150', 150, 85, 132, 'resistive', false, 0, 0, 0.25],
  ['M400', 400, 85, 132, 'ptc', false, 0, 0, 0.4],
  ['M600', 600, 260, 420, 'ptc', false, 0, 0, 0.6],
  ['M250-12', 250, 10, 15, 'resistive', false, 0, 0, 0.3],
];

/** Invented heaters: E in the coolant, M mats under modules. */
export const heaters: PartOf<'heater'>[] = heaterRows.map(
  ([number, ratedW, ratedMinV, ratedMaxV, element, stopsBelow, kPaPerLpm, kPaPerLpm2, massKg]) => {
    const data: HeaterData = {
      ratedW,
      ratedMinV,
      ratedMaxV,
      element,
      stopsBelow,
      kPaPerLpm,
      kPaPerLpm2,
      massKg,
    };
    return part('heater', 'Emberley', number, `${ratedW} W, ${ratedMinV} to ${ratedMaxV} V`, data);
  },
);

/** °C, density, specific heat, viscosity, conductivity; then freezing point and expansion. */
const coolantRows: [string, string, [number, number, number, number, number][], number, number][] = [
  [
    'G50',
    '50 % glycol in water',
    [
      [-20, 1094, 3240, 22, 0.35],
      [0, 1086, 3310, 7.8, 0.365],
      [20, 1076, 3380, 3.9, 0.38],
      [40, 1064, 3450, 2.25, 0.392],
      [60, 1052, 3520, 1.45, 0.402],
      [80, 1038, 3590, 1.02, 0.409],
    ],
    -36,
    5.5e-4,
  ],
  [
    'G33',
    '33 % glycol in water',
    [
      [-10, 1063, 3530, 7.4, 0.415],
      [0, 1059, 3560, 4.9, 0.425],
      [20, 1052, 3620, 2.5, 0.445],
      [40, 1042, 3680, 1.5, 0.46],
      [60, 1031, 3740, 1, 0.472],
      [80, 1018, 3800, 0.72, 0.48],
    ],
    -18,
    4.9e-4,
  ],
];

/** Invented coolants. */
export const coolants: PartOf<'coolant'>[] = coolantRows.map(
  ([number, words, rows, freezesC, expansionPerK]) => {
    const column = (i: 1 | 2 | 3 | 4) => rows.map((row): [number, number] => [row[0], row[i]]);
    const data: CoolantData = {
      density: column(1),
      specificHeat: column(2),
      viscosity: column(3),
      conductivity: column(4),
      freezesC,
      expansionPerK,
    };
    return part('coolant', 'Brinmere', number, words, data);
  },
);
