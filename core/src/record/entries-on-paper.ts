import { asPresent, stepParts, stockOf, type Entry, type EntryBody } from '.';

let seq = 0;
export const entry = (body: EntryBody, ...subjects: string[]): Entry => {
  seq += 1;
  return {
    format: 'torvek-entry',
    formatVersion: 2,
    id: `entry-${seq}`,
    job: 'job-1',
    seq,
    previous: null,
    takenAt: new Date(Date.UTC(2026, 10, 1, 8, seq)).toISOString(),
    recordedAt: '2026-11-01T08:00:00Z',
    zone: 'UTC',
    by: 'Tess',
    witness: null,
    against: { version: 1, sha256: '', core: '' },
    subjects: subjects.map((id) => ({ id, tag: id })),
    basis: [],
    instrument: null,
    attachments: [],
    body,
  };
};
export const record = (...made: (() => Entry)[]): Entry[] => {
  seq = 0;
  return made.map((one) => one());
};
export const intake = (place: string, serial: string | null, same?: true) => () =>
  entry({ kind: 'intake', serial, look: null, ...(same && { same }) }, place);
export const result = (step: string, value: number, item?: string) => () =>
  entry(
    {
      kind: 'result',
      step,
      ...(item !== undefined && { item }),
      title: step,
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'Ah' },
      expected: '',
      verdict: 'pass',
      reasons: [],
      details: [],
    },
    stepParts(step).subject,
  );
export const arrival =
  (...serials: string[]) =>
  () =>
    entry({
      kind: 'arrival',
      items: serials.map((serial) => ({ part: null, serial, donor: null, price: null, note: null })),
    });
export const fit =
  (place: string, item: string, former: string | null = null) =>
  () =>
    entry({ kind: 'fit', place, item, serial: null, former, formerSerial: null, reason: '' }, place);
export const remove = (place: string, item: string) => () =>
  entry({ kind: 'remove', place, item, serial: null, state: 'suspect', reason: 'leaks' }, place);
/** Steps of results as they are told of now, with their values. */
export const told = (entries: readonly Entry[]) =>
  asPresent(entries).flatMap(({ body }) =>
    body.kind === 'result' && body.measured.kind === 'value' ? [`${body.step} ${body.measured.value}`] : [],
  );
export const place = (entries: readonly Entry[], at: string) => stockOf(entries).inPlace.get(at);

/** Numbers from 0 to 1, the same each time. */

export function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
}
