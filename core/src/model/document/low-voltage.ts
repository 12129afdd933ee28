import { fedAs } from './cooling';
import { choice, chosen, defaultsOf, flag, num, part, refer, share, tag, words, type ItemOf } from './field';

export const lowVoltageSchools = ['converter', 'mains charger', 'both'] as const;

/** The low-voltage side as a whole: what feeds it, and how long it has to last. */
export const lowVoltageFields = {
  school: choice('Fed by', lowVoltageSchools),
  converter: part('Converter', 'converter'),
  battery: part('Battery', 'battery'),
  /** Typed, they hold instead of the parts’. */
  converterA: num('Converter gives', 'A', { usual: [3, 500] }),
  batteryAh: num('Capacity', 'Ah', { usual: [1, 500] }),
  usableFraction: share('Usable of it', { usual: [0.1, 1] }),
  systemV: num('Voltage while it is fed', 'V', { usual: [11, 30] }),
  deratingFraction: share('Counted on of the converter', { fallback: 0.8, usual: [0.3, 1] }),
  /** Coils and monitor run on another voltage than the vehicle: something stands between. */
  dropper: flag('Coils and monitor behind a dropper to their own voltage'),
  /** The loads that feed the coils of the contactors. */
  coilLoads: { ...fedAs, label: 'Coils fed as the loads' },
  /** A charger on the mains for the battery alone. */
  mainsChargerA: num('Mains charger gives', 'A', { usual: [1, 100] }),
  /** The cable between what feeds the battery and the battery: two sources, and a fuse against each. */
  sourceAreaMm2: num('Cable from source to battery', 'mm²', { usual: [0.5, 95] }),
  sourceLengthM: num('Its length, one way', 'm', { usual: [0.1, 15] }),
  sourceFuseA: num('Its fuse at the source', 'A', { usual: [3, 300] }),
  batteryFuseA: num('Its fuse at the battery', 'A', { usual: [3, 300] }),
  /** The longest that it is driven on one day, and stands without being touched. */
  journeyH: num('Longest journey', 'h', { fallback: 3, usual: [0.1, 16] }),
  parkedDays: num('Parked at the longest', 'days', { fallback: 21, usual: [1, 200] }),
  maxDropFraction: share('Drop allowed', { fallback: 0.03, usual: [0.005, 0.1] }),
  ambientC: num('Ambient of the looms', '°C', { fallback: 40, usual: [-20, 100] }),
};
export interface LowVoltageSettings extends ItemOf<typeof lowVoltageFields> {}
export const lowVoltageDefaults = defaultsOf(lowVoltageFields);

export const loadTimes = ['driving', 'always', 'charging'] as const;

/** Something that draws from the low voltage. */
export const loadFields = {
  tag,
  powerW: num('Power', 'W', { usual: [0.01, 5000] }),
  dutyFraction: share('On for', { fallback: 1, usual: [0.001, 1] }),
  when: choice('While', loadTimes),
  /** Absent: it is. */
  essential: flag('Cannot be left out'),
  /** Draws the same power at any voltage: electronics, pumps with their own control. */
  steadyPower: flag('Same power at any voltage'),
  peakW: num('Peak', 'W', { usual: [0.1, 10_000] }),
  fuseA: num('Fuse', 'A', { usual: [0.5, 600] }),
  /** Loads of one name hang behind one fuse. */
  behind: words('Behind the fuse'),
  /** What switches it, and where it sits: loads that share both can share a feed. */
  switchedBy: words('Switched by'),
  place: words('Place'),
  relay: part('Relay', 'relay'),
  wire: part('Wire', 'wire'),
  /** A feed beyond the table of wires: it holds instead of the wire. */
  cable: part('Cable of a feed above 35 mm²', 'cable'),
  lengthM: num('Feed', 'm', { usual: [0.05, 25] }),
  returnLengthM: num('Return', 'm', { usual: [0.02, 25] }),
  ambientC: num('Ambient', '°C', { usual: [-20, 110] }),
  /** From the battery or fuse box to its fuse. */
  toFuseM: num('To its fuse', 'm', { usual: [0.01, 5] }),
};
export interface LoadItem extends ItemOf<typeof loadFields> {}
export const loadDefaults = defaultsOf(loadFields);

export const serviceKinds = [
  'brake assistance',
  'steering assistance',
  'cabin heat',
  'demisting',
  'compressed air',
  'cabin cooling',
  'other',
] as const;

/** Something that the engine did. */
export const serviceFields = {
  tag,
  kind: chosen('Service', serviceKinds),
  /** What does it now. */
  successor: words('Successor'),
  load: refer('Fed as', 'loads'),
  device: refer('High-voltage device', 'devices'),
  runOnS: num('Runs on after key-off for', 's', { usual: [0, 600] }),
  /** With the pump off: how often it still helps. */
  reserveCount: num('Reserve: times it still helps', '', { usual: [0, 20] }),
  warns: flag('Warns when it fails or runs low'),
  /** Of heat out of high voltage. */
  withBlower: flag('Interlocked with its blower'),
  cutOut: flag('Thermal cut-out of its own'),
};
export interface ServiceItem extends ItemOf<typeof serviceFields> {}
