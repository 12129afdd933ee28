import type { CoolingPartKind } from './kinds';
import { axis, celsius, maybe, n, temperature, type PartField } from './part-field';

const drop = [
  n('kPaPerLpm', 'Pressure over flow', 'kPa/(L/min)', { min: 0 }),
  n('kPaPerLpm2', 'Pressure over its square', 'kPa/(L/min)²', { min: 0 }),
];
const holds = [n('volumeL', 'Holds', 'L', { min: 0 }), n('massKg', 'Mass', 'kg')];
/** Over temperature, from cold to hot. */
const overTemperature = (name: string, label: string, unit: string): PartField => ({
  kind: 'table',
  name,
  label,
  columns: [celsius('Temperature'), axis(label, unit)],
  minRows: 2,
});

/** Data of what coolant flows through, and of what warms and blows. */
export const coolingPartFields: Record<CoolingPartKind, readonly PartField[]> = {
  pump: [
    {
      kind: 'table',
      name: 'curve',
      label: 'Head over flow',
      columns: [axis('Flow', 'L/min', { min: 0 }), axis('Head', 'kPa', {})],
      minRows: 2,
      neverRising: true,
    },
    n('supplyV', 'Supply', 'V'),
    n('powerW', 'Power at the most', 'W'),
    n('coolantMaxC', 'Coolant at most', '°C', temperature),
    n('portMm', 'Ports for hoses of', 'mm'),
    n('massKg', 'Mass', 'kg'),
  ],
  plate: [
    ...drop,
    n('contactM2', 'Area that cells lie on', 'm²'),
    n('uaWPerK', 'From its surface to its coolant', 'W/K'),
    n('leastLPerMin', 'Its figures hold from', 'L/min', { min: 0 }),
    n('testKPa', 'Tested with at most', 'kPa'),
    ...holds,
    n('lengthMm', 'Length', 'mm'),
    n('widthMm', 'Width', 'mm'),
    n('heightMm', 'Height', 'mm'),
  ],
  radiator: [
    ...drop,
    n('coreWidthMm', 'Width of the core', 'mm'),
    n('coreHeightMm', 'Height of the core', 'mm'),
    n('coreDepthMm', 'Depth of the core', 'mm'),
    n('uaWPerK', 'Heat exchanged per kelvin', 'W/K'),
    n('uaAirKgPerS', 'With air of', 'kg/s'),
    maybe('testKPa', 'Tested with at most', 'kPa'),
    ...holds,
  ],
  hose: [
    n('innerMm', 'Bore', 'mm'),
    n('outerMm', 'Outside', 'mm'),
    n('roughnessMm', 'Roughness', 'mm', { min: 0 }),
    n('maxC', 'Temperature at most', '°C', temperature),
    n('burstKPa', 'Bursts at', 'kPa'),
    n('massKgPerM', 'Mass', 'kg/m'),
  ],
  fan: [
    n('airKgPerS', 'Air through a radiator', 'kg/s'),
    n('supplyV', 'Supply', 'V'),
    n('powerW', 'Power', 'W'),
    n('massKg', 'Mass', 'kg'),
  ],
  heater: [
    n('ratedW', 'Rated power', 'W'),
    n('ratedMinV', 'Rated from', 'V'),
    n('ratedMaxV', 'Rated up to', 'V'),
    { kind: 'choice', name: 'element', label: 'Element', choices: ['ptc', 'resistive'] },
    { kind: 'flag', name: 'stopsBelow', label: 'Below its window', yes: 'stops', no: 'goes on with less' },
    n('kPaPerLpm', 'Pressure over flow', 'kPa/(L/min)', { min: 0 }),
    n('kPaPerLpm2', 'Pressure over its square', 'kPa/(L/min)²', { min: 0 }),
    n('massKg', 'Mass', 'kg'),
  ],
  coolant: [
    overTemperature('density', 'Density', 'kg/m³'),
    overTemperature('specificHeat', 'Specific heat', 'J/kgK'),
    overTemperature('viscosity', 'Viscosity', 'mPa·s'),
    overTemperature('conductivity', 'Conductivity', 'W/mK'),
    n('freezesC', 'Freezes at', '°C', { min: -273.15, max: 100 }),
    n('expansionPerK', 'Expands by', '1/K', { min: 0 }),
  ],
};
