import type { Operation } from '@torvek/core/document';
import type { RecordedEntry } from '../entries/court';

/** Something that happened to a job, told to everyone who has it open. */
export type Happening =
  | { kind: 'change'; version: number; id: string; label: string; by: string; forward: Operation[] }
  | { kind: 'entry'; entry: RecordedEntry }
  /** A batch that was recorded at once. */
  | { kind: 'entries'; entries: RecordedEntry[] }
  /** How far a long piece of work on the job has come, 0…1. */
  | { kind: 'progress'; task: string; fraction: number };

type Listener = (job: string, happening: Happening) => void;

/** Carries what happens from the rooms in which it happens to whoever listens. */
export class Hub {
  private readonly listeners = new Set<Listener>();

  publish(job: string, happening: Happening): void {
    for (const listener of this.listeners) listener(job, happening);
  }

  /** @returns a function that stops listening */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }
}
