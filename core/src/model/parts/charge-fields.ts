import { stationLinks } from './charge-kinds';
import type { ChargePartKind, LoomPartKind } from './kinds';
import { axis, maybe, n, temperature, type PartField } from './part-field';

const whole = (min: number, max: number) => ({ min, max, integer: true });
const flag = (name: string, label: string, yes: string, no: string): PartField => ({
  kind: 'flag',
  name,
  label,
  yes,
  no,
});
const mass = n('massKg', 'Mass', 'kg');

/** What sees a residual current, from nothing to all of it. */
export const residualKinds = ['none', 'AC', 'A', 'A and 6 mA DC', 'B'] as const;

/** Curves by which breakers of the mains trip. */
export const tripCurves = ['B', 'C', 'D'] as const;

/** Data of what charges, from the inlet on. */
export const chargePartFields: Record<ChargePartKind, readonly PartField[]> = {
  charger: [
    { kind: 'choice', name: 'phases', label: 'Phases', choices: [1, 3] },
    n('maxInputA', 'Draws at most, on each phase', 'A'),
    maybe('onePhaseA', 'On a single phase', 'A'),
    {
      kind: 'table',
      name: 'efficiency',
      label: 'Efficiency over load',
      columns: [
        axis('Share of full power', 'fraction', { above: 0, max: 1 }),
        axis('Efficiency', 'fraction', { above: 0, max: 1 }),
      ],
      minRows: 1,
    },
    n('maxOutputA', 'Gives at most', 'A'),
    n('minV', 'Works from', 'V', { min: 0 }),
    n('maxV', 'Works up to', 'V'),
    flag('isolated', 'Parted from the mains', 'isolated', 'not isolated'),
    flag('dcDetection', 'Direct current to earth', 'trips at 6 mA by itself', 'not seen'),
    n('inrushA', 'Inrush', 'A', { min: 0 }),
    mass,
  ],
  inlet: [
    { kind: 'choice', name: 'phases', label: 'Phases of the mains, 0: DC alone', choices: [0, 1, 3] },
    n('acA', 'Mains, on each phase', 'A', { min: 0 }),
    n('dcA', 'Station, 0: none', 'A', { min: 0 }),
    n('maxDcV', 'Rated voltage, DC', 'V', { min: 0 }),
    n('temperatureSensors', 'Temperature sensors', '', whole(0, 10)),
    flag('lock', 'Lock', 'with a motor', 'none'),
    mass,
  ],
  converter: [
    n('minV', 'Works from', 'V', { min: 0 }),
    n('maxV', 'Works up to', 'V'),
    n('outputV', 'Output', 'V'),
    n('continuousA', 'Continuous current', 'A'),
    n('peakA', 'Peak current, 10 s', 'A'),
    n('efficiency', 'Efficiency', 'fraction', { above: 0, max: 1 }),
    n('standbyW', 'Draws without load', 'W', { min: 0 }),
    mass,
  ],
  breaker: [
    n('ratedA', 'Rated current', 'A'),
    { kind: 'choice', name: 'poles', label: 'Poles', choices: [1, 2, 3, 4] },
    { kind: 'choice', name: 'trip', label: 'Trips by curve', choices: tripCurves },
    n('breakingA', 'Breaking capacity', 'A'),
    { kind: 'choice', name: 'residual', label: 'Residual current', choices: residualKinds },
  ],
  controller: [
    {
      kind: 'choice',
      name: 'station',
      label: 'Talks with stations by',
      choices: ['none', ...stationLinks, 'both'],
    },
    n('supplyMinV', 'Supply from', 'V'),
    n('supplyMaxV', 'Supply to', 'V'),
    n('standbyA', 'Draws asleep', 'A', { min: 0 }),
    n('awakeA', 'Draws awake', 'A', { min: 0 }),
    n('wakes', 'Outputs that wake others', '', whole(0, 20)),
    n('sensors', 'Temperature sensors it reads', '', whole(0, 8)),
    flag('lock', 'Lock', 'driven and read back', 'not driven'),
    mass,
  ],
};

/** Data of the low-voltage side. */
export const loomPartFields: Record<LoomPartKind, readonly PartField[]> = {
  battery: [
    { kind: 'choice', name: 'chemistry', label: 'Chemistry', choices: ['lead', 'LFP'] },
    n('nominalV', 'Nominal voltage', 'V'),
    n('capacityAh', 'Capacity', 'Ah'),
    n('resistanceOhm', 'Resistance', 'Ω'),
    n('usableFraction', 'Usable', 'fraction', { above: 0, max: 1 }),
    n('dischargeA', 'Gives for long', 'A'),
    mass,
  ],
  connector: [
    n('cavities', 'Cavities', '', whole(1, 200)),
    n('rows', 'Rows', '', whole(1, 10)),
    n('pinA', 'Each pin carries', 'A'),
    n('wireMinMm2', 'Wires from', 'mm²'),
    n('wireMaxMm2', 'Wires to', 'mm²'),
    flag('sealed', 'Seal', 'sealed', 'open'),
    flag('keyed', 'Coding', 'fits its own socket alone', 'fits any of its kind'),
  ],
  wire: [
    n('areaMm2', 'Conductor area', 'mm²'),
    n('cores', 'Conductors', '', whole(1, 60)),
    flag('twisted', 'Twist', 'twisted', 'straight'),
    flag('screened', 'Screen', 'screened', 'none'),
    n('outerMm', 'Outside', 'mm'),
    n('maxC', 'Conductor at most', '°C', temperature),
    n('massKgPerM', 'Mass', 'kg/m'),
  ],
  relay: [
    n('coilV', 'Coil voltage', 'V'),
    n('coilW', 'Coil power', 'W'),
    n('contactA', 'Contact carries', 'A'),
    n('makesA', 'Contact makes', 'A'),
    flag('suppressed', 'Suppression', 'built in', 'none'),
  ],
  unit: [
    n('channels', 'Channels', '', whole(1, 60)),
    n('minChannels', 'Cells at the least', '', whole(1, 60)),
    n('bleedA', 'Bleeds', 'A', { min: 0 }),
    n('sensors', 'Temperature sensors', '', whole(0, 40)),
    n('supplyV', 'Supply', 'V'),
    n('supplyA', 'Draws', 'A', { min: 0 }),
    flag('isolatedLink', 'Link to the next', 'parts their potentials', 'does not part them'),
    flag('keyed', 'Coding of its plugs', 'fit their own sockets alone', 'fit any of its kind'),
    maybe('passMs', 'Reads and passes on in', 'ms'),
    mass,
  ],
};
