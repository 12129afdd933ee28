import { list, number, oneOf, openDoor, orNull, record, text, type Issue } from '../ground/shape';
import { entryFormat, entryFormatVersion } from './entry';
import { instrumentShape } from './instrument';
import { entryKinds, type EntryKind } from './kinds';
import type { Fields } from './kind';
import { hash, seq, words } from './shapes';

/** The fields of a body, by its kind. */
const kinds = Object.keys(entryKinds) as EntryKind[];
const bodies = Object.fromEntries(
  kinds.map((kind): [EntryKind, Fields] => [kind, { kind: oneOf([kind]), ...entryKinds[kind].fields }]),
) as Record<EntryKind, Fields>;
const body = record.by<EntryKind | 'none'>({ ...bodies, none: { kind: oneOf(kinds) } }, ({ kind }) =>
  Object.hasOwn(bodies, String(kind)) ? (kind as EntryKind) : 'none',
);

const entry = record({
  format: oneOf([entryFormat]),
  formatVersion: number({ min: 1, max: entryFormatVersion, integer: true }),
  id: text(120),
  job: text(80),
  seq,
  previous: orNull(hash),
  takenAt: text(40),
  recordedAt: text(40),
  clockWentBack: text.optional(40),
  zone: text(80),
  by: text(120),
  witness: orNull(text(120)),
  against: record({ version: number({ min: 0, integer: true }), sha256: hash, core: text(40) }),
  subjects: list(record({ id: text(160), tag: words(200) }), { maxRows: 2000 }),
  basis: list(
    record({
      figure: text(400),
      label: words(400),
      value: number(),
      unit: words(20),
      toleranceFraction: number(),
    }),
    { maxRows: 2000 },
  ),
  instrument: orNull(instrumentShape),
  attachments: list(hash, { maxRows: 100 }),
  body,
});

/**
 * What is wrong with an entry that came from elsewhere: every field, and its body by the schema of its kind. Its hash and its place
 * in the chain are another matter.
 */
export function checkEntry(given: unknown): Issue[] {
  const parsed = openDoor(given, { schema: entry });
  if (!parsed.ok) return parsed.issues;
  const { takenAt, recordedAt } = given as { takenAt: string; recordedAt: string };
  const times = { takenAt, recordedAt };
  return Object.entries(times).flatMap(([path, at]) =>
    Number.isNaN(Date.parse(at)) ? [{ path, message: 'must be a time (ISO 8601)' }] : [],
  );
}
