import { oneOf, orNull, record, text } from '../ground/shape';
import { words } from './shapes';

export const instrumentKinds = [
  'meter',
  'insulation-tester',
  'scope',
  'torque-wrench',
  'leak-bench',
  'flow-meter',
  'thermometer',
  'clamp-meter',
  'charge-tester',
  'monitor-readout',
  'bench-supply',
  'rule',
] as const;
export type InstrumentKind = (typeof instrumentKinds)[number];

/** What each kind is called in the shop. */
export const instrumentNames: Record<InstrumentKind, string> = {
  meter: 'meter',
  'insulation-tester': 'insulation tester',
  scope: 'scope',
  'torque-wrench': 'torque wrench',
  'leak-bench': 'leak bench',
  'flow-meter': 'flow meter',
  thermometer: 'thermometer',
  'clamp-meter': 'clamp meter',
  'charge-tester': 'supply tester',
  'monitor-readout': 'readout of the monitor',
  'bench-supply': 'bench supply',
  rule: 'rule, tape or gauge',
};

/** Where a measurement came from. */
export interface Instrument {
  kind: InstrumentKind;
  name: string;
  /** From the shop's register; absent when it is not registered. */
  serial?: string;
  /** Day through which its calibration holds; null: none is kept. Absent when it is not registered. */
  calibrationDue?: string | null;
  /** True when the calibration had run out on the day of the measurement. */
  overdue?: boolean;
  /** True for an instrument that ships with the product: it measures no vehicle. */
  standIn: boolean;
  /** How a stand-in was told to misbehave. */
  behaviour?: string;
}

/** The fields of an instrument as it stands in an entry. */
export const instrumentShape = record({
  kind: oneOf(instrumentKinds),
  name: words(120),
  serial: text.optional(80, { min: 0 }),
  calibrationDue: orNull(text.optional(10)),
  overdue: oneOf.optional([true, false]),
  standIn: oneOf([true, false]),
  behaviour: text.optional(40),
});
