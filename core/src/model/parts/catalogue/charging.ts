import type { BreakerData, ChargerData, ControllerData, ConverterData, InletData, PartOf } from '../kinds';
import { part } from './part';

/** How efficiency falls at a small load, from its best. */
const efficiencyOf = (best: number): [number, number][] => [
  [0.1, Number((best - 0.07).toFixed(3))],
  [0.25, Number((best - 0.022).toFixed(3))],
  [0.5, best],
  [1, Number((best - 0.006).toFixed(3))],
];

/** number, phases, A a phase, A on one, output A, V from, V to, best efficiency, 6 mA DC, kg. */
const chargerRows: [string, 1 | 3, number, number | null, number, number, number, number, boolean, number][] =
  [
    ['C1-12', 1, 10, null, 18, 40, 72, 0.92, false, 3.4],
    ['C3-100', 1, 16, null, 30, 70, 150, 0.93, false, 5.8],
    ['C3-350', 1, 16, null, 12, 200, 430, 0.935, true, 6.2],
    ['C7-350', 1, 32, null, 24, 220, 440, 0.94, true, 9.4],
    ['C11-350', 3, 16, 16, 33, 250, 440, 0.945, true, 11.2],
    ['C11-400', 3, 16, 16, 28, 280, 480, 0.95, false, 11.5],
    ['C22-400', 3, 32, 32, 62, 260, 480, 0.95, true, 17.5],
    ['C22-700', 3, 32, null, 36, 450, 820, 0.955, true, 18.2],
  ];

/** Invented chargers for the mains. */
export const chargers: PartOf<'charger'>[] = chargerRows.map(
  ([number, phases, maxInputA, onePhaseA, maxOutputA, minV, maxV, best, dcDetection, massKg]) => {
    const data: ChargerData = {
      phases,
      maxInputA,
      ...(onePhaseA !== null && { onePhaseA }),
      efficiency: efficiencyOf(best),
      maxOutputA,
      minV,
      maxV,
      isolated: true,
      dcDetection,
      inrushA: Math.round(maxInputA * 1.6),
      massKg,
    };
    return part('charger', 'Thornwick', number, `${phases} × ${maxInputA} A, ${minV} to ${maxV} V`, data);
  },
);

/** number, phases, A of the mains, A of a station, V, sensors, lock, kg. */
const inletRows: [string, 0 | 1 | 3, number, number, number, number, boolean, number][] = [
  ['M16', 1, 16, 0, 0, 0, false, 0.6],
  ['M32', 1, 32, 0, 0, 1, true, 1.1],
  ['M32-3', 3, 32, 0, 0, 1, true, 1.4],
  ['B32-125', 3, 32, 125, 500, 2, true, 3.2],
  ['B32-200', 3, 32, 200, 920, 2, true, 3.9],
  ['D125', 0, 0, 125, 500, 2, true, 2.6],
];

/** Invented inlets: M for the mains, D for stations, B for both. */
export const inlets: PartOf<'inlet'>[] = inletRows.map(
  ([number, phases, acA, dcA, maxDcV, temperatureSensors, lock, massKg]) => {
    const data: InletData = { phases, acA, dcA, maxDcV, temperatureSensors, lock, massKg };
    const mains = phases > 0 ? [`${phases} × ${acA} A`] : [];
    const station = dcA > 0 ? [`${dcA} A DC`] : [];
    return part('inlet', 'Saltmere', number, [...mains, ...station].join(', '), data);
  },
);

/** number, V from, V to, output V, A, A peak, efficiency, standby W, kg. */
const converterRows: [string, number, number, number, number, number, number, number, number][] = [
  ['X30-100', 60, 160, 13.8, 30, 40, 0.9, 4, 1.9],
  ['X60-100', 60, 160, 13.8, 60, 75, 0.91, 5, 2.8],
  ['X80-350', 180, 450, 13.8, 80, 100, 0.92, 6, 3.6],
  ['X150-350', 200, 450, 13.8, 150, 180, 0.93, 8, 4.4],
  ['X70-350/24', 200, 450, 27.6, 70, 90, 0.93, 8, 4.2],
  ['X110-350/24', 200, 450, 27.6, 110, 140, 0.935, 9, 5.1],
];

/** Invented converters from the pack to 12 or 24 V. */
export const converters: PartOf<'converter'>[] = converterRows.map(
  ([number, minV, maxV, outputV, continuousA, peakA, efficiency, standbyW, massKg]) => {
    const data: ConverterData = { minV, maxV, outputV, continuousA, peakA, efficiency, standbyW, massKg };
    return part('converter', 'Wexcombe', number, `${outputV} V, ${continuousA} A`, data);
  },
);

/** A, poles, curve, residual. */
const breakerRows: [number, BreakerData['poles'], BreakerData['trip'], BreakerData['residual']][] = [
  [10, 2, 'B', 'A'],
  [16, 2, 'C', 'A'],
  [16, 2, 'C', 'A and 6 mA DC'],
  [20, 2, 'C', 'A and 6 mA DC'],
  [16, 4, 'C', 'A and 6 mA DC'],
  [20, 4, 'C', 'B'],
  [32, 4, 'C', 'B'],
  [40, 4, 'C', 'B'],
  [20, 4, 'C', 'none'],
];

/** Invented breakers of the mains. */
export const breakers: PartOf<'breaker'>[] = breakerRows.map(([ratedA, poles, trip, residual]) => {
  const number = `${trip}${ratedA}-${poles}${{ none: '', AC: 'c', A: 'a', 'A and 6 mA DC': 'd', B: 'b' }[residual]}`;
  const words = residual === 'none' ? 'no residual current' : `residual ${residual}`;
  return part('breaker', 'Dunmarsh', number, `${ratedA} A ${trip}, ${poles} poles, ${words}`, {
    ratedA,
    poles,
    trip,
    breakingA: 6000,
    residual,
  });
});

/** number, stations, V from, V to, A asleep, A awake, wakes, sensors, lock, kg. */
const controllerRows: [
  string,
  ControllerData['station'],
  number,
  number,
  number,
  number,
  number,
  number,
  boolean,
  number,
][] = [
  ['P1', 'none', 9, 16, 0.004, 0.09, 1, 1, true, 0.12],
  ['P2-24', 'none', 9, 32, 0.006, 0.11, 2, 2, true, 0.16],
  ['S4', 'powerline', 9, 16, 0.012, 0.42, 4, 4, true, 0.48],
  ['S4-24', 'powerline', 9, 32, 0.015, 0.36, 4, 4, true, 0.5],
  ['S6-24', 'both', 9, 32, 0.022, 0.5, 6, 4, true, 0.74],
  ['K2', 'CAN', 9, 16, 0.03, 0.25, 2, 2, false, 0.35],
];

/** Invented charge controllers: P for the pilot alone, S and K for stations as well. */
export const controllers: PartOf<'controller'>[] = controllerRows.map(
  ([number, station, supplyMinV, supplyMaxV, standbyA, awakeA, wakes, sensors, lock, massKg]) =>
    part(
      'controller',
      'Larkhythe',
      number,
      station === 'none'
        ? 'pilot of the mains'
        : `stations by ${station === 'both' ? 'powerline and CAN' : station}`,
      { station, supplyMinV, supplyMaxV, standbyA, awakeA, wakes, sensors, lock, massKg },
    ),
);
