import { shallowRef } from 'vue';
import { api, isPassing } from '../api/client';
import type { RecordedEntry } from './job';

/** Something that was recorded while the server was away, or that the server would not take when it was back. */
export interface WaitingEntry {
  body: { id: string; kind: string; takenAt: string } & Record<string, unknown>;
  /** What it is about, in words. */
  title: string;
  /** Why the server refused it; null: it waits. */
  refused: string | null;
}

interface Host {
  /** The job whose record these go to, and to none other. */
  job: string;
  read(job: string): WaitingEntry[];
  write(job: string, waiting: WaitingEntry[]): void;
  /** Resolves when the design is saved that entries are judged against; false while it cannot be. */
  ready(): Promise<boolean>;
  /** Called with each entry the server has taken. */
  taken(entry: RecordedEntry): Promise<void>;
}

const retryMs = 3000;

/** Sends entries of one job in their order; keeps them, beyond this page, while the server is away. */
export function createOutbox(host: Host) {
  const waiting = shallowRef<WaitingEntry[]>([]);
  let running = false;
  let closed = false;

  function keep(entries: WaitingEntry[]): void {
    waiting.value = entries;
    host.write(host.job, entries);
  }

  /**
   * Sends an entry, or keeps it when the server is away or others wait before it.
   *
   * @param away the server is known to be away: nothing is tried now
   * @returns the recorded entry, or null when it waits
   * @throws ApiError when the server refuses it
   */
  async function send(
    body: WaitingEntry['body'],
    title: string,
    away: boolean,
  ): Promise<RecordedEntry | null> {
    // Whose entry it is may be somebody else now: it lies kept for its author.
    if (closed) {
      keep([...host.read(host.job), { body, title, refused: null }]);
      return null;
    }
    if (away || waiting.value.some((one) => one.refused === null)) {
      keep([...waiting.value, { body, title, refused: null }]);
      void flush();
      return null;
    }
    try {
      return await post(body);
    } catch (error) {
      if (!isPassing(error)) throw error;
      // Whoever takes up what is kept may have begun already: it is put behind what lies there.
      const others = closed ? host.read(host.job) : waiting.value;
      if (!others.some((one) => one.body.id === body.id)) keep([...others, { body, title, refused: null }]);
      void flush();
      return null;
    }
  }

  async function post(body: WaitingEntry['body']): Promise<RecordedEntry> {
    const entry = await api.post<RecordedEntry>(`/jobs/${host.job}/entries`, body);
    await host.taken(entry);
    return entry;
  }

  async function flush(): Promise<void> {
    if (running) return;
    running = true;
    for (;;) {
      const next = waiting.value.find((one) => one.refused === null);
      if (next === undefined || closed) break;
      try {
        if (!(await host.ready())) {
          await new Promise((resolve) => setTimeout(resolve, retryMs));
          continue;
        }
        if (closed) break;
        await post(next.body);
        if (!closed) keep(waiting.value.filter((one) => one !== next));
      } catch (error) {
        if (isPassing(error)) await new Promise((resolve) => setTimeout(resolve, retryMs));
        else if (!closed)
          keep(
            waiting.value.map((one) =>
              one === next
                ? { ...one, refused: error instanceof Error ? error.message : 'it was refused' }
                : one,
            ),
          );
      }
    }
    running = false;
  }

  /** Takes up what an earlier page could not send. */
  function takeUp(): void {
    waiting.value = host.read(host.job);
    void flush();
  }

  /** Tries a refused entry again. */
  function retry(id: string): void {
    keep(waiting.value.map((one) => (one.body.id === id ? { ...one, refused: null } : one)));
    void flush();
  }

  /** Gives up an entry that the server refused. */
  function drop(id: string): void {
    keep(waiting.value.filter((one) => one.body.id !== id));
  }

  /** Sends nothing more: what waits lies where it is kept, for whoever takes it up. */
  function close(): void {
    closed = true;
  }

  return { waiting, send, takeUp, retry, drop, close };
}
