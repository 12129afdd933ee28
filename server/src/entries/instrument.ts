import { oneOf, record, text } from '@torvek/core/shape';
import { dayIn, instrumentKinds, type Instrument, type InstrumentKind } from '@torvek/core/record';
import type { Job } from '../jobs/jobs';
import type { Case } from './court';

/** From the register by its id, or named by hand. */
export type AskedInstrument = { id: string } | Instrument;

export const instrumentFields = record.by(
  {
    registered: { id: text(80) },
    byHand: {
      kind: oneOf(instrumentKinds),
      name: text(120),
      standIn: oneOf([true, false]),
      behaviour: text.optional(40),
    },
  },
  (value) => (Object.hasOwn(value, 'id') ? 'registered' : 'byHand'),
);

export const zoneOf = ({ design }: Job) => design.settings.zone ?? 'UTC';

/**
 * The instrument as it stands in an entry, its calibration as on the day of the measurement.
 *
 * @throws HttpError when the register has none of this kind by that id
 */
export async function instrumentOf(
  { request: { instrument, takenAt }, bench: { job, db }, court }: Case<{ instrument: AskedInstrument }>,
  kind: InstrumentKind,
): Promise<Instrument> {
  if (!('id' in instrument)) return instrument;
  return court.instruments.forEntry(instrument.id, kind, dayIn(takenAt, zoneOf(job)), db);
}
