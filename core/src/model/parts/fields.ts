import { chargePartFields, loomPartFields } from './charge-fields';
import { coolingPartFields } from './cooling-fields';
import type { PartKind } from './kinds';
import { amps, area, celsius, fraction, maybe, n, seconds, temperature, type PartField } from './part-field';

export { residualKinds, tripCurves } from './charge-fields';
export type { CurveColumn, PartField, TableField } from './part-field';

const interlock: PartField = {
  kind: 'flag',
  name: 'interlock',
  label: 'Interlock',
  yes: 'opens before the main contacts part',
  no: 'none',
};
const fingerproof: PartField = {
  kind: 'flag',
  name: 'fingerproof',
  label: 'Apart',
  yes: 'no finger reaches live metal',
  no: 'live metal can be touched',
};

/** Chemistries of modules. */
export const chemistries = ['NMC', 'LFP', 'LMO'] as const;
/** What a lug's surface is. */
export const lugPlatings = ['tin', 'bare copper', 'nickel', 'silver'] as const;

/**
 * The data of each kind, in the order in which a data sheet gives them: one list for forms, comparison, files and the
 * library's door. Dots lead into a nested object.
 */
export const partFields: Record<PartKind, readonly PartField[]> = {
  module: [
    { kind: 'choice', name: 'chemistry', label: 'Chemistry', choices: chemistries },
    n('cellsInSeries', 'Cells in series', '', { min: 1, max: 500, integer: true }),
    n('cellsInParallel', 'Cells in parallel', '', { min: 1, max: 500, integer: true }),
    {
      kind: 'table',
      name: 'cell.ocvTable',
      label: 'Open-circuit voltage over charge',
      columns: [
        { label: 'State of charge', unit: 'fraction', rule: fraction, scale: 'linear' },
        { label: 'Voltage', unit: 'V', rule: { above: 0, max: 10 }, scale: 'linear' },
      ],
      minRows: 2,
    },
    n('cell.capacityAh', 'Capacity of a cell', 'Ah'),
    n('cell.resistanceOhm', 'Resistance of a cell', 'Ω', { min: 0 }),
    n('cell.minV', 'Lowest voltage of a cell', 'V', { above: 0, max: 10 }),
    n('cell.maxV', 'Highest voltage of a cell', 'V', { above: 0, max: 10 }),
    n('massKg', 'Mass', 'kg'),
    n('lengthMm', 'Length', 'mm'),
    n('widthMm', 'Width', 'mm'),
    n('heightMm', 'Height', 'mm'),
    ...(['Side', 'End'] as const).map((which): PartField => ({
      kind: 'flag',
      name: `on${which}`,
      label: `On its ${which.toLowerCase()}`,
      yes: 'its maker allows it',
      no: 'no',
      optional: true,
    })),
    n('continuousA', 'Continuous current', 'A'),
    n('peakA', 'Peak current, 10 s', 'A'),
    maybe('chargeA', 'Charging current, for long', 'A'),
    maybe('chargePeakA', 'Charging current, 10 s', 'A'),
    {
      kind: 'table',
      name: 'chargeOverC',
      label: 'Charging current over temperature',
      columns: [celsius('Temperature'), { label: 'Current', unit: 'A', rule: { min: 0 }, scale: 'linear' }],
      optional: true,
      minRows: 2,
    },
    n('senseLeadLimitA', 'Current the sense leads may carry', 'A', { min: 0 }),
    n('insulationMinMOhm', 'Insulation, terminals to case, at least', 'MΩ', { min: 0 }),
    {
      kind: 'flag',
      name: 'typical',
      label: 'Curve, resistance and limits',
      yes: 'typical of the chemistry',
      no: 'of its maker, or measured',
      optional: true,
    },
  ],
  contactor: [
    n('ratedVoltageV', 'Rated voltage, DC', 'V'),
    n('continuousA', 'Continuous current', 'A'),
    n('makeA', 'Makes', 'A'),
    n('breakA', 'Breaks', 'A'),
    n('coilV', 'Coil voltage', 'V'),
    n('coilPullInA', 'Coil current at pull-in', 'A'),
    n('coilHoldW', 'Coil power to hold', 'W', { min: 0 }),
    n('closeMs', 'Closes within', 'ms'),
    n('openMs', 'Opens within', 'ms'),
    { kind: 'flag', name: 'polarised', label: 'Polarity', yes: 'polarised', no: 'either way round' },
    {
      kind: 'table',
      name: 'shortTime',
      label: 'How long the contacts carry',
      columns: [amps, seconds],
      optional: true,
      minRows: 2,
      falling: true,
    },
    maybe('coilOhm', 'Resistance of the coil at 20 °C', 'Ω'),
    maybe('coilHenry', 'Inductance of the coil, pulled in', 'H'),
    maybe('pullInV', 'Pulls in at, 20 °C', 'V'),
    maybe('dropOutA', 'Drops out at', 'A'),
    {
      kind: 'flag',
      name: 'economiser',
      label: 'Holding',
      yes: 'with an economiser',
      no: 'as it pulls in',
      optional: true,
    },
    {
      kind: 'flag',
      name: 'auxContact',
      label: 'Auxiliary contact',
      yes: 'tells whether it is closed',
      no: 'none',
      optional: true,
    },
  ],
  fuse: [
    n('ratedA', 'Rated current', 'A'),
    n('ratedVoltageV', 'Rated voltage, DC', 'V'),
    n('breakingA', 'Breaking capacity', 'A'),
    n('minBreakingA', 'Least breaking current, 0: full range', 'A', { min: 0 }),
    {
      kind: 'table',
      name: 'curve',
      label: 'Melting curve, average',
      columns: [amps, seconds],
      minRows: 2,
      falling: true,
    },
    n('currentToleranceFraction', 'Tolerance of the curve on current', 'fraction', { min: 0, below: 1 }),
    n('arcI2tFactor', 'Clearing over melting I²t', '', { min: 1 }),
    {
      kind: 'table',
      name: 'ambientDerating',
      label: 'Derating over ambient',
      columns: [
        celsius('Ambient'),
        { label: 'Factor', unit: '', rule: { above: 0, max: 3 }, scale: 'linear' },
      ],
      minRows: 1,
    },
  ],
  cable: [
    area,
    n('conductorDiameterMm', 'Diameter of the conductor', 'mm'),
    n('outerDiameterMm', 'Outer diameter', 'mm'),
    n('conductorMaxC', 'Conductor at most', '°C', temperature),
    n('insulationKmPerW', 'Thermal resistivity of the insulation', 'K·m/W'),
    n('adiabaticK', 'k of the short circuit', 'A√s/mm²'),
    n('massKgPerM', 'Mass', 'kg/m'),
  ],
  resistor: [
    n('resistanceOhm', 'Resistance', 'Ω'),
    n('toleranceFraction', 'Tolerance', 'fraction', { min: 0, below: 1 }),
    n('pulseEnergyJ', 'Energy of one pulse', 'J'),
    n('continuousW', 'Continuous power', 'W'),
    n('maxVoltageV', 'Highest voltage', 'V'),
  ],
  lug: [
    area,
    n('studMm', 'Hole for a stud of M', 'mm'),
    n('palmWidthMm', 'Width of the palm', 'mm'),
    n('palmThicknessMm', 'Thickness of the palm', 'mm'),
    n('centreToEndMm', 'Middle of the hole to the end of the barrel', 'mm'),
    { kind: 'choice', name: 'plating', label: 'Surface', choices: lugPlatings },
    n('maxC', 'Temperature at most', '°C', temperature),
  ],
  gland: [
    n('threadMm', 'Thread M', 'mm'),
    n('clampMinMm', 'Clamps from', 'mm'),
    n('clampMaxMm', 'Clamps to', 'mm'),
    {
      kind: 'flag',
      name: 'screenContact',
      label: 'Screen',
      yes: 'meets the screen all round',
      no: 'no contact to the screen',
    },
    n('maxC', 'Temperature at most', '°C', temperature),
  ],
  disconnect: [
    n('ratedVoltageV', 'Rated voltage, DC', 'V'),
    n('continuousA', 'Continuous current', 'A'),
    n('breakA', 'Parts under load, 0: never', 'A', { min: 0 }),
    n('contactOhm', 'Resistance of its contacts', 'Ω', { min: 0 }),
    interlock,
    fingerproof,
  ],
  plug: [
    n('ratedVoltageV', 'Rated voltage, DC', 'V'),
    n('continuousA', 'Continuous current', 'A'),
    area,
    {
      kind: 'flag',
      name: 'screenContact',
      label: 'Screen',
      yes: 'its shell meets the screen all round',
      no: 'no contact to the screen',
    },
    interlock,
    fingerproof,
    n('maxC', 'Temperature at most', '°C', temperature),
  ],
  ...coolingPartFields,
  ...chargePartFields,
  ...loomPartFields,
};

/** The words of a kind, one and many. */
export const partKindNames: Record<PartKind, [one: string, many: string]> = {
  module: ['module', 'Modules and cells'],
  contactor: ['contactor', 'Contactors'],
  fuse: ['fuse', 'Fuses'],
  cable: ['cable', 'Cables'],
  resistor: ['resistor', 'Resistors'],
  lug: ['lug', 'Cable lugs'],
  gland: ['gland', 'Glands'],
  disconnect: ['service disconnect', 'Service disconnects'],
  plug: ['plug', 'Plugs'],
  pump: ['coolant pump', 'Coolant pumps'],
  plate: ['cold plate', 'Cold plates'],
  radiator: ['radiator', 'Radiators'],
  hose: ['hose', 'Hoses and pipes'],
  fan: ['fan', 'Fans'],
  heater: ['heater', 'Heaters'],
  coolant: ['coolant', 'Coolants'],
  charger: ['charger', 'Chargers'],
  inlet: ['inlet', 'Charging inlets'],
  converter: ['DC-DC converter', 'DC-DC converters'],
  breaker: ['breaker', 'Breakers of the mains'],
  controller: ['charge controller', 'Charge controllers'],
  battery: ['low-voltage battery', 'Low-voltage batteries'],
  connector: ['connector', 'Connectors of looms'],
  wire: ['wire', 'Wires of looms'],
  relay: ['relay', 'Relays'],
  unit: ['monitoring unit', 'Monitoring units'],
};

export const partKinds = Object.keys(partKindNames) as PartKind[];
