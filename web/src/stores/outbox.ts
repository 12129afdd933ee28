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
  jobId(): string;
  read(job: string): WaitingEntry[];
  write(job: string, waiting: WaitingEntry[]): void;
  /** Resolves when the design is saved that entries are judged against; false while it cannot be. */
  ready(): Promise<boolean>;
  /** Called with each entry the server has taken. */
  taken(entry: RecordedEntry): Promise<void>;
}

const retryMs = 3000;

/** Sends entries in their order; keeps them, beyond this page, while the server is away. */
export function createOutbox(host: Host) {
  const waiting = shallowRef<WaitingEntry[]>([]);
  let running = false;

  function keep(entries: WaitingEntry[]): void {
    waiting.value = entries;
    host.write(host.jobId(), entries);
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
    if (away || waiting.value.some((one) => one.refused === null)) {
      keep([...waiting.value, { body, title, refused: null }]);
      void flush();
      return null;
    }
    try {
      return await post(body);
    } catch (error) {
      if (!isPassing(error)) throw error;
      if (!waiting.value.some((one) => one.body.id === body.id))
        keep([...waiting.value, { body, title, refused: null }]);
      void flush();
      return null;
    }
  }

  async function post(body: WaitingEntry['body']): Promise<RecordedEntry> {
    const entry = await api.post<RecordedEntry>(`/jobs/${host.jobId()}/entries`, body);
    await host.taken(entry);
    return entry;
  }

  async function flush(): Promise<void> {
    if (running) return;
    running = true;
    const job = host.jobId();
    for (;;) {
      const next = waiting.value.find((one) => one.refused === null);
      if (next === undefined || host.jobId() !== job) break;
      try {
        if (!(await host.ready())) {
          await new Promise((resolve) => setTimeout(resolve, retryMs));
          continue;
        }
        await post(next.body);
        if (host.jobId() === job) keep(waiting.value.filter((one) => one !== next));
      } catch (error) {
        if (isPassing(error)) await new Promise((resolve) => setTimeout(resolve, retryMs));
        else if (host.jobId() === job)
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
    waiting.value = host.read(host.jobId());
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

  function reset(): void {
    waiting.value = [];
  }

  return { waiting, send, takeUp, retry, drop, reset };
}
