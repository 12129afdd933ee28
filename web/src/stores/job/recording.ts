import { standing } from '@torvek/core/record';
import type { Ref } from 'vue';
import { api, isPassing } from '../../api/client';
import type { Sender } from '../sender';
import type { RecordedEntry } from './types';

/** Readings in one request. */
const readingsAtOnce = 300;

/** What is recorded of the open job, and how what was recorded is taken up. */
export function useRecording({
  id,
  entries,
  recorded,
  sender,
}: {
  id: Readonly<Ref<string>>;
  entries: Ref<RecordedEntry[]>;
  recorded: Ref<number>;
  sender: Readonly<Ref<Sender | null>>;
}) {
  /**
   * Records something; the design is saved first, for the server judges against what it has.
   *
   * @param title what it is about, shown while it waits for the server
   * @returns null when it waits; what needs the server at once (a witness's password) never waits
   */
  async function record(
    body: { id: string; kind: string } & Record<string, unknown>,
    title = body.kind,
  ): Promise<RecordedEntry | null> {
    const of = id.value;
    const current = sender.value;
    if (current === null) throw new Error('no job is open');
    const { autosave, outbox } = current;
    const taken = { takenAt: new Date().toISOString(), ...body };
    if (body.kind === 'gate') {
      const entry = await api.post<RecordedEntry>(`/jobs/${of}/entries`, taken);
      await take(entry, of);
      return entry;
    }
    if (autosave.trouble.value !== null)
      throw new Error('a change of the design could not be saved; settle that first');
    const away = autosave.state.value === 'waiting';
    if (!away) await autosave.settled();
    return outbox.send(taken, title, away);
  }

  /** Takes up an entry that was recorded, here or elsewhere. */
  async function take(entry: RecordedEntry, of: string): Promise<void> {
    if (id.value !== of) return;
    recorded.value += 1;
    // A correction may bring an older entry back: only the server knows it.
    if (entry.body.kind === 'correction') {
      const found = await api.get<RecordedEntry[]>(`/jobs/${of}/standing`);
      if (id.value === of) entries.value = found;
    } else if (!entries.value.some((one) => one.id === entry.id))
      entries.value = standing([...entries.value, entry]);
  }

  /** The same of a batch. */
  function takeAll(made: readonly RecordedEntry[], of: string): void {
    if (id.value !== of) return;
    const known = new Set(entries.value.map((one) => one.id));
    const fresh = made.filter((one) => !known.has(one.id));
    const correction = fresh.find(({ body }) => body.kind === 'correction');
    if (correction !== undefined) return void take(correction, of);
    if (fresh.length === 0) return;
    recorded.value += 1;
    entries.value = standing([...entries.value, ...fresh]);
  }

  /**
   * Records readings that do not hang on each other, a few hundred in one request: a longer one would hold up the others.
   *
   * @returns how many stand in the record, from the first on; the server is away for the rest, or others wait before them
   * @throws ApiError when one of them is refused: of its request none was taken
   */
  async function recordReadings(
    bodies: readonly ({ id: string } & Record<string, unknown>)[],
  ): Promise<number> {
    const of = id.value;
    const current = sender.value;
    if (current === null) throw new Error('no job is open');
    const { autosave, outbox } = current;
    if (autosave.trouble.value !== null)
      throw new Error('a change of the design could not be saved; settle that first');
    if (autosave.state.value === 'waiting' || outbox.waiting.value.length > 0) return 0;
    await autosave.settled();
    const takenAt = new Date().toISOString();
    for (let at = 0; at < bodies.length; at += readingsAtOnce) {
      const readings = bodies.slice(at, at + readingsAtOnce).map((body) => ({ takenAt, ...body }));
      try {
        takeAll(await api.post<RecordedEntry[]>(`/jobs/${of}/readings`, { readings }), of);
      } catch (error) {
        if (isPassing(error)) return at;
        throw error;
      }
    }
    return bodies.length;
  }
  return { record, take, takeAll, recordReadings };
}
