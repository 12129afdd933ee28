import type { Entry, EntryBody, EntryKind, Person } from '@torvek/core/record';
import type { record } from '@torvek/core/shape';
import type { Queryable } from '../database';
import type { Files } from '../files/files';
import type { Instruments } from '../instruments/instruments';
import type { Job } from '../jobs/jobs';
import type { Library } from '@torvek/core/library';
import type { Witness } from '../people/people';

export type RecordedEntry = Entry & { sha256: string };

/** What a judge makes of a request: the entry without what the ledger itself knows. */
export type Draft = Pick<
  Entry,
  'id' | 'takenAt' | 'zone' | 'by' | 'witness' | 'subjects' | 'basis' | 'instrument' | 'attachments' | 'body'
>;

/** What a judge has before it, inside the transaction. */
export interface Bench {
  job: Job;
  /** The entries that still matter, in order. */
  entries: readonly RecordedEntry[];
  /** Any entry by its number, also one that matters no longer. */
  at(seq: number): Promise<RecordedEntry | null>;
  db: Queryable;
}

/** Who records, when, and whom and what the judge may ask. */
export interface Court {
  /** Whoever is signed in: their name stands in the entry. */
  by: Pick<Person, 'id' | 'name' | 'roles'>;
  /** The server's time. */
  now: string;
  /** The second person, whose word was checked; null: none was given. */
  witness: Witness | null;
  instruments: Pick<Instruments, 'forEntry'>;
  files: Pick<Files, 'check'>;
  /** Read inside the turn: outside of it, it would wait for the turn to end. */
  library: { library(on: Queryable): Promise<Library> };
}

/** What every request has, whatever its kind. */
export interface Common {
  id: string;
  takenAt: string;
  /** SHA-256 of files sent before. */
  attachments?: string[];
}

export interface Case<Request> {
  request: Common & Request;
  bench: Bench;
  court: Court;
}

export type Judged<Kind extends EntryKind> = {
  body: Extract<EntryBody, { kind: Kind }>;
} & Partial<Pick<Draft, 'subjects' | 'basis' | 'instrument' | 'witness'>>;

/** How entries of one kind come about: what a client sends, and what is made of it. */
export interface Judge<Request extends { kind: EntryKind }> {
  /** The fields of a request of this kind, without those that all have. */
  fields: Record<string, ReturnType<typeof record>>;
  /** Rules between them. */
  cross?(request: Request, issue: (path: string, message: string) => void): void;
  /**
   * Makes the entry, against the design as it is saved: expectation, verdict and basis are the server's own.
   *
   * @throws HttpError when it cannot be
   */
  judge(asked: Case<Request>): Judged<Request['kind']> | Promise<Judged<Request['kind']>>;
}

export function defineJudge<Request extends { kind: EntryKind }>(judge: Judge<Request>): Judge<Request> {
  return judge;
}
