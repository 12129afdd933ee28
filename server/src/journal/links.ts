import type { Design, Operation } from '@torvek/core/document';
import type { Part } from '@torvek/core/parts';
import type { InstrumentKind, Role } from '@torvek/core/record';
import type { Second, ShopRules } from '../people/secrets';
import type { Head } from './lines';

/** The first link of a job: what it is, and the design it begins with. */
export interface JobLink {
  kind: 'job';
  id: string;
  name: string;
  demo: boolean;
  createdAt: string;
  design: Design;
  /** What was here before this chain was kept, taken up by its hash: nobody witnessed it link by link. */
  takenUp?: TakenUp;
}

export interface TakenUp {
  at: string;
  /** The links that follow and tell of it. */
  links: number;
  /** SHA-256 over what was taken up, row by row. */
  sha256: string;
  /** What did not fit then. */
  problems: string[];
  /** Entries that the database of then had lost and got back. */
  restored: { seq: number; at: string }[];
}

export interface NameLink {
  kind: 'name';
  name: string;
  by: string;
}

export interface ChangeLink {
  kind: 'change';
  version: number;
  id: string;
  base: number;
  label: string;
  by: string;
  madeAt: string;
  savedAt: string;
  forward: Operation[];
  inverse: Operation[];
  /** SHA-256 of the canonical text of the design that it leads to. */
  design: string;
}

/** An entry, its canonical text to the byte. */
export interface EntryLink {
  kind: 'entry';
  sha256: string;
  text: string;
}

export interface ReleaseLink {
  kind: 'release';
  id: string;
  sha256: string;
  text: string;
}

export interface FileLink {
  kind: 'file';
  sha256: string;
  name: string;
  type: string;
  size: number;
  by: string;
  addedAt: string;
}

/** The chain came from elsewhere, up to here; what vouched for it then. */
export interface ImportedLink {
  kind: 'imported';
  by: string;
  vouchedBy: string;
}

/** Lines of this journal were damaged or lost; what the database had of them is taken up, not witnessed. */
export interface RepairLink<Content> {
  kind: 'repair';
  lines: { n: number; message: string }[];
  contents: Content[];
}

export type JobFact = JobLink | NameLink | ChangeLink | EntryLink | ReleaseLink | FileLink | ImportedLink;
export type JobBody = JobFact | RepairLink<JobFact>;

export interface PersonLink {
  kind: 'person';
  id: string;
  name: string;
  roles: Role[];
  demo: boolean;
  createdAt: string;
  active: boolean;
  /** argon2id; it stands nowhere else. */
  passwordHash: string;
  /** Set when it was taken up again from what was known: who set the password, and when. */
  passwordBy?: string;
  passwordAt?: string;
  second?: Second | null;
  by: string;
}

export interface PersonChangeLink {
  kind: 'person-change';
  id: string;
  roles: Role[];
  active: boolean;
  by: string;
}

export interface PasswordLink {
  kind: 'password';
  id: string;
  passwordHash: string;
  by: string;
}

/** A person's second factor: set up, used up in part, or (null) taken away. Like password hashes it stands here alone. */
export interface SecondLink {
  kind: 'second';
  id: string;
  second: Second | null;
  by: string;
}

/** A recovery code was used. */
export interface RecoveryUsedLink {
  kind: 'recovery-used';
  id: string;
  hash: string;
}

/** A rule of the shop. */
export interface RulesLink extends Partial<ShopRules> {
  kind: 'rules';
  by: string;
}

export interface InstrumentLink {
  kind: 'instrument';
  id: string;
  instrument: InstrumentKind;
  name: string;
  serial: string;
  calibrationDue: string | null;
  retired: boolean;
  createdAt: string;
  by: string;
}

export interface InstrumentChangeLink {
  kind: 'instrument-change';
  id: string;
  calibrationDue: string | null;
  retired: boolean;
  by: string;
}

export interface PartLink {
  kind: 'part';
  part: Part;
  note: string;
  by: string;
  savedAt: string;
}

export interface PartRetiredLink {
  kind: 'part-retired';
  id: string;
  retired: boolean;
  by: string;
  retiredAt: string;
}

/** A job was made here, or came in: from here on it must be here. */
export interface JobHereLink {
  kind: 'job-here';
  id: string;
  name: string;
  by: string;
}

/** Where the chains of jobs stood. */
export interface HeadsLink {
  kind: 'heads';
  jobs: Record<string, Head>;
}

export interface RestoredLink {
  kind: 'restored';
  by: string;
  /** When the backup was made, and by whom. */
  madeAt: string;
  madeBy: string;
  /** Where what was there before lies. */
  keptIn: string;
}

export interface ShopTakenUpLink {
  kind: 'taken-up';
  links: number;
  sha256: string;
}

export type ShopFact =
  | PersonLink
  | PersonChangeLink
  | PasswordLink
  | SecondLink
  | RecoveryUsedLink
  | RulesLink
  | InstrumentLink
  | InstrumentChangeLink
  | PartLink
  | PartRetiredLink
  | JobHereLink
  | HeadsLink
  | RestoredLink
  | ShopTakenUpLink;
export type ShopBody = ShopFact | RepairLink<ShopFact>;

/** The chain of the shop; no job can have this id. */
export const shopChain = '~shop';
