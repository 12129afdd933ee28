import type { Design, Operation } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';

/** A job as the server gives it. */
export interface JobAnswer {
  id: string;
  name: string;
  demo: boolean;
  version: number;
  design: Design;
}

/** A change that can be taken back, or done again. */
export interface Done {
  label: string;
  forward: Operation[];
  inverse: Operation[];
}

/** What the server tells of a job while it is open. */
export type News = { job: string } & (
  | { kind: 'change'; version: number; id: string; label: string; by: string; forward: Operation[] }
  | { kind: 'entry'; entry: RecordedEntry }
  | { kind: 'entries'; entries: RecordedEntry[] }
  /** How far it has come, at the moment the line began to listen. */
  | { kind: 'here'; name: string; version: number; entries: number }
  | { kind: 'progress'; task: string; fraction: number }
);

export type RecordedEntry = Entry & { sha256: string };
