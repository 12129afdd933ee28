import { list, number, oneOf, openDoor, orNull, record, table, text, type Issue } from '../ground/calculator';
import { balanceGear, instrumentKinds, jointWorks, looks, soloMeasures, type EntryKind } from './bodies';
import { entryFormat, entryFormatVersion } from './entry';

type Schema = ReturnType<typeof record>;
type Fields = Record<string, Schema>;

/** Words that may be empty. */
const words = (max: number) => text(max, { min: 0 });
const remark = text.optional(2000, { min: 0 });
const hash = text(64, { min: 64 });
const seq = number({ min: 1, integer: true });
const value = record({ label: words(200), value: number(), unit: words(20) });
const detail = record({ label: words(200), value: orNull(number()), unit: words(20) });
const ids = (maxRows: number) => list(text(160), { maxRows });

const measured = record.by((given): Fields =>
  given.kind === 'trace'
    ? {
        kind: oneOf(['trace']),
        samples: table({ columns: [{}, {}], minRows: 1, maxRows: 20_000, rising: false }),
        packVoltageV: number(),
        unit: oneOf(['V']),
      }
    : { kind: oneOf(['value']), value: number(), unit: words(20), over: oneOf.optional([true, false]) },
);

/** The fields of each kind of body, as the server writes them. */
const bodies: Record<EntryKind, Fields> = {
  result: {
    kind: oneOf(['result']),
    step: text(160),
    title: words(400),
    entered: oneOf(['stand-in', 'typed', 'pasted']),
    measured,
    expected: words(1000),
    verdict: oneOf(['pass', 'fail']),
    reasons: list(words(1000), { maxRows: 200 }),
    details: list(detail, { maxRows: 200 }),
    confirmedBy: number.optional({ min: 1, integer: true }),
    remark,
  },
  acceptance: {
    kind: oneOf(['acceptance']),
    check: text(300),
    rule: text(160),
    ruleVersion: number({ min: 0, integer: true }),
    grade: oneOf(['stop', 'mend', 'note']),
    message: words(4000),
    values: list(value, { maxRows: 200 }),
    parts: list.optional(text(200), { maxRows: 200 }),
    reason: words(2000),
  },
  position: {
    kind: oneOf(['position']),
    linksOut: number({ min: 0, integer: true }),
    serviceDisconnect: oneOf(['out', 'in']),
    mains: oneOf(['open', 'closed']),
    open: list.optional(text(160), { maxRows: 5000 }),
    stored: list.optional(text(160), { maxRows: 5000 }),
    remark,
  },
  work: { kind: oneOf(['work']), what: words(2000) },
  correction: { kind: oneOf(['correction']), of: seq, reason: words(2000) },
  gate: {
    kind: oneOf(['gate']),
    gate: text(80),
    title: words(200),
    alone: orNull(record({ replacedBy: list(oneOf(soloMeasures), { maxRows: 10 }), how: words(2000) })),
    witnessPassword: record.optional({ by: text(120), at: text(40) }),
  },
  deviation: {
    kind: oneOf(['deviation']),
    of: seq,
    tried: words(2000),
    cause: orNull(words(300)),
    cured: oneOf([true, false]),
  },
  snag: { kind: oneOf(['snag']), what: words(500), gate: text(80) },
  'snag-gone': { kind: oneOf(['snag-gone']), of: seq, how: words(2000) },
  intake: {
    kind: oneOf(['intake']),
    serial: orNull(words(80)),
    look: orNull(oneOf(looks)),
    remark,
  },
  'cell-voltages': {
    kind: oneOf(['cell-voltages']),
    entered: oneOf(['typed', 'pasted', 'logged']),
    cells: list(
      record({
        cell: text(160),
        tag: words(200),
        samples: table({ columns: [{}, {}], minRows: 1, maxRows: 20_000, rising: false }),
      }),
      { maxRows: 2000 },
    ),
    remark,
  },
  balance: {
    kind: oneOf(['balance']),
    act: oneOf(['on', 'off']),
    gear: oneOf(balanceGear),
    cells: ids(2000),
    place: orNull(number({ min: 1, integer: true })),
    recipe: list(detail, { maxRows: 200 }),
    remark,
  },
  joints: {
    kind: oneOf(['joints']),
    work: oneOf(jointWorks),
    currentA: orNull(number()),
    joints: list(record({ joint: text(160), tag: words(200), value: number() }), { maxRows: 2000 }),
    remark,
  },
  note: { kind: oneOf(['note']), text: words(4000) },
};

const instrument = record({
  kind: oneOf(instrumentKinds),
  name: words(120),
  serial: text.optional(80, { min: 0 }),
  calibrationDue: orNull(text.optional(10)),
  overdue: oneOf.optional([true, false]),
  standIn: oneOf([true, false]),
  behaviour: text.optional(40),
});

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
  instrument: orNull(instrument),
  attachments: list(hash, { maxRows: 100 }),
  body: record.by(
    (given): Fields =>
      (Object.hasOwn(bodies, String(given.kind)) ? bodies[given.kind as EntryKind] : null) ?? {
        kind: oneOf(Object.keys(bodies)),
      },
  ),
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
