import { fieldValue, partFields, type Part, type PartField, type PartKind } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';

/** The figures by which parts of a kind are told apart at a glance. */
const keys: Record<PartKind, [name: string, head: string][]> = {
  module: [
    ['chemistry', ''],
    ['cellsInSeries', 'in series'],
    ['cell.capacityAh', 'cell'],
  ],
  contactor: [
    ['continuousA', 'carries'],
    ['ratedVoltageV', 'up to'],
    ['breakA', 'breaks'],
  ],
  fuse: [
    ['ratedA', 'rated'],
    ['ratedVoltageV', 'up to'],
    ['minBreakingA', 'breaks from'],
  ],
  cable: [
    ['areaMm2', 'area'],
    ['outerDiameterMm', 'outside'],
    ['conductorMaxC', 'up to'],
  ],
  resistor: [
    ['resistanceOhm', ''],
    ['pulseEnergyJ', 'pulse'],
    ['continuousW', 'steady'],
  ],
  lug: [
    ['areaMm2', 'for'],
    ['studMm', 'stud M'],
    ['palmWidthMm', 'palm'],
  ],
  gland: [
    ['threadMm', 'thread M'],
    ['clampMinMm', 'from'],
    ['clampMaxMm', 'to'],
  ],
  disconnect: [
    ['continuousA', 'carries'],
    ['ratedVoltageV', 'up to'],
    ['breakA', 'parts'],
  ],
  plug: [
    ['areaMm2', 'for'],
    ['continuousA', 'carries'],
    ['ratedVoltageV', 'up to'],
  ],
  pump: [
    ['supplyV', 'supply'],
    ['powerW', 'takes'],
    ['portMm', 'hoses'],
  ],
  plate: [
    ['contactM2', 'area'],
    ['uaWPerK', 'takes up'],
    ['kPaPerLpm2', 'resists'],
  ],
  radiator: [
    ['uaWPerK', 'gives off'],
    ['uaAirKgPerS', 'with air'],
    ['volumeL', 'holds'],
  ],
  hose: [
    ['innerMm', 'bore'],
    ['outerMm', 'outside'],
    ['maxC', 'up to'],
  ],
  fan: [
    ['airKgPerS', 'air'],
    ['supplyV', 'supply'],
    ['powerW', 'takes'],
  ],
  heater: [
    ['ratedW', 'rated'],
    ['ratedMinV', 'from'],
    ['ratedMaxV', 'to'],
  ],
  coolant: [
    ['freezesC', 'freezes'],
    ['expansionPerK', 'expands'],
  ],
  charger: [
    ['maxInputA', 'a phase'],
    ['maxOutputA', 'gives'],
    ['maxV', 'up to'],
  ],
  inlet: [
    ['phases', 'phases'],
    ['acA', 'mains'],
    ['dcA', 'station'],
  ],
  converter: [
    ['outputV', 'output'],
    ['continuousA', 'gives'],
    ['maxV', 'from up to'],
  ],
  breaker: [
    ['ratedA', 'rated'],
    ['poles', 'poles'],
    ['residual', 'residual'],
  ],
  battery: [
    ['nominalV', 'nominal'],
    ['capacityAh', 'capacity'],
    ['massKg', 'mass'],
  ],
  connector: [
    ['cavities', 'pins'],
    ['pinA', 'a pin'],
    ['wireMaxMm2', 'wires to'],
  ],
  wire: [
    ['areaMm2', 'area'],
    ['cores', 'cores'],
    ['outerMm', 'outside'],
  ],
  controller: [
    ['supplyMinV', 'from'],
    ['standbyA', 'asleep'],
    ['wakes', 'wakes'],
  ],
  relay: [
    ['coilV', 'coil'],
    ['contactA', 'carries'],
    ['makesA', 'makes'],
  ],
  unit: [
    ['channels', 'channels'],
    ['minChannels', 'at least'],
    ['bleedA', 'bleeds'],
  ],
};

export interface KeyFigure {
  field: PartField;
  head: string;
}

/** Columns of the list: a field with a short head. */
export const keyFigures = (kind: PartKind): KeyFigure[] =>
  keys[kind].map(([name, head]) => {
    const field = partFields[kind].find((one) => one.name === name);
    if (field === undefined) throw new Error(`${kind} has no field ${name}`);
    return { field, head };
  });

export function keyText(part: Part, { field }: KeyFigure): string {
  const value = fieldValue(part.data, field.name);
  if (typeof value !== 'number') return String(value ?? '—');
  if (part.kind === 'fuse' && field.name === 'minBreakingA' && value === 0) return 'full range';
  const unit = field.kind === 'number' || field.kind === 'choice' ? (field.unit ?? '') : '';
  return unit === '' ? formatNumber(value) : `${formatNumber(value)} ${unit}`;
}

/** Kinds whose curve is worth a plot, by the field that holds it. */
export const curveOf: Partial<Record<PartKind, string>> = {
  fuse: 'curve',
  contactor: 'shortTime',
  module: 'cell.ocvTable',
  pump: 'curve',
  coolant: 'viscosity',
  charger: 'efficiency',
};
