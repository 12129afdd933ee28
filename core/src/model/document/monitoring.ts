import { choice, defaultsOf, flag, num, part, refer, tag, words, type ItemOf } from './field';

export const topologySchools = ['central', 'split', 'per-module', 'donor'] as const;
export const mapStrategies = ['fill', 'per-module'] as const;
/** Whether the link between boards ends at the last, or comes back to the first. */
export const linkEnds = ['ends', 'ring'] as const;
export const currentSigns = ['positive in drive', 'positive in charge'] as const;

/** How cells are watched. */
export const sensingFields = {
  school: choice('School', topologySchools),
  strategy: choice('Channels are shared out', mapStrategies),
  /** A board ends early at a disconnect, fuse or contactor. */
  mayStraddle: flag('Boards may reach over disconnects and fuses'),
  /** Donor boards that are kept: what they assume of the pack they came from. */
  donorCells: num('Donor: cells in series', '', { usual: [4, 250] }),
  donorAh: num('Donor: capacity', 'Ah', { usual: [1, 800] }),
  donorMinV: num('Donor: cell at least', 'V', { usual: [1, 3.6] }),
  donorMaxV: num('Donor: cell at most', 'V', { usual: [2, 4.6] }),
  donorSensors: num('Donor: sensors', '', { usual: [0, 400] }),
  /** Absent: it ends at the last board. */
  link: choice('Link between boards', linkEnds, { at: 'sense/harness' }),
  linkEndOhm: num('Resistor at the end of the link', 'Ω', { at: 'sense/harness', usual: [50, 1000] }),
  /** Thermistors, read at the plug before anything is plugged in. */
  sensorOhm: num('Temperature sensors at 25 °C', 'Ω', { at: 'sense/power', usual: [1000, 200_000] }),
  /** A first spin on a part of the pack: what its cells stand at, and what may flow. */
  spinCellV: num('First spin: a cell stands at', 'V', { at: 'sense/power', usual: [2, 4.2] }),
  spinA: num('First spin: current at most', 'A', { at: 'sense/power', usual: [1, 100] }),
  /** At first power-up a channel may lie off its recorded step by this. */
  channelMv: num('Channel off its recorded step by at most', 'mV', {
    fallback: 20,
    at: 'sense/power',
    usual: [2, 100],
  }),
  /** How soon its loop opens once a limit is crossed. */
  reactionS: num('Opens its loop within', 's', { fallback: 5, at: 'sense/power', usual: [0.1, 30] }),
  /** A restart that was not seen again stays open for so many starts. */
  coldStarts: num('Cold starts before a restart counts as gone', '', {
    fallback: 3,
    at: 'sense/power',
    usual: [1, 30],
  }),
};
export interface SensingSettings extends ItemOf<typeof sensingFields> {}

/** A board that reads cells. Boards of a string serve it in their order. */
export const boardFields = {
  tag,
  unit: part('Unit', 'unit'),
  string: refer('Of string', 'strings'),
  order: num('Place in its chain', '', { usual: [1, 200] }),
  /** Fewer than its channels: the next one begins there. */
  takes: num('Takes cells', '', { usual: [1, 60] }),
  box: refer('Sits in', 'boxes'),
  address: num('Address', '', { usual: [0, 255] }),
  /** The connector that its sense wires end in. */
  plug: part('Plug of its sense wires', 'connector'),
};
export interface BoardItem extends ItemOf<typeof boardFields> {}

/** A temperature sensor. */
export const sensorFields = {
  tag,
  module: refer('In the module', 'modules'),
  board: refer('Read by', 'boards'),
  place: words('Place in it'),
  /** It tells the mean of so many, and not a place. */
  meanOf: num('Mean of sensors', '', { usual: [1, 60] }),
  /** A second way of what it feels, to a unit that is no board. */
  alsoFor: refer('Also read by', 'devices'),
};
export interface SensorItem extends ItemOf<typeof sensorFields> {}

/** What tells how much current flows: where it sits, how far it reads, and which way round. */
export const currentSensorFields = {
  tag,
  /** Absent: the current of the whole pack. */
  string: refer('In the string', 'strings'),
  rangeA: num('Reads up to', 'A', { usual: [10, 3000] }),
  sign: choice('Reads', currentSigns),
};
export interface CurrentSensorItem extends ItemOf<typeof currentSensorFields> {}

/** What is said of a derived sense wire, by its id. */
export const senseWireFields = {
  tag,
  colour: words('Colour'),
  lengthM: num('Length', 'm', { usual: [0.02, 15] }),
  fuseA: num('Fuse', 'A', { usual: [0.05, 10] }),
};
export interface SenseWireItem extends ItemOf<typeof senseWireFields> {}
export const sensingDefaults = { ...defaultsOf(sensingFields), strategy: 'fill' as const };
