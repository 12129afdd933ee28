/** What holding a record against its chain, or an archive against itself, came to: as the server says it and the pages read it. */

/** Something about a record that does not hold. */
export interface RecordProblem {
  /** What it is about, in words: “entry 4”, “version 3”, “line 12 of the journal”. */
  what: string;
  /** The number of the entry, where it is one. */
  seq: number | null;
  message: string;
}

/** What verifying a job, or the shop, came to. */
export interface Verification {
  ok: boolean;
  entries: number;
  /** Versions of the design that were replayed. */
  versions: number;
  /** Files whose bytes were hashed. */
  files: number;
  problems: RecordProblem[];
  head: { n: number; sha256: string } | null;
  /** Entries that a database of before had lost and got back from its journal. */
  restored: { seq: number; at: string }[];
  /** Lines of the journal that were damaged or lost, and taken up again from the database: recorded then, not witnessed. */
  repairs: string[];
  /** What was taken up when the chain began, link by link unwitnessed. */
  notWitnessed: { links: number; at: string; problems: string[] } | null;
  /** Who vouched for the chain when it came from elsewhere; null: it was made here. */
  vouchedBy: string | null;
}

export interface ArchiveProblem {
  /** A file of the archive; empty for the archive as a whole. */
  file: string;
  message: string;
}

/** What an archive holds, after everything about it was checked. */
export interface ImportReport {
  ok: boolean;
  job: { id: string; name: string } | null;
  version: number;
  changes: number;
  entries: number;
  releases: number;
  files: number;
  /** What vouches for it, in words: a whole chain shows that nothing was altered since it was made, not who made it. */
  vouchedBy: string;
  problems: ArchiveProblem[];
}
