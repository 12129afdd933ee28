import {
  closeSync,
  existsSync,
  fstatSync,
  fsyncSync,
  ftruncateSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
} from 'node:fs';
import { basename, join } from 'node:path';
import { nodeDisk, noRoom, syncFolder, writeWhole, type Disk } from '../files/disk';
import { HttpError } from '../http/errors';

export interface JournalLine {
  seq: number;
  sha256: string;
  text: string;
}

type Head = Pick<JournalLine, 'seq' | 'sha256'>;

type Written =
  | JournalLine
  | { abandoned: number; sha256: string }
  | { committed: number; sha256: string }
  /** The database had lost it, and it was brought back. */
  | { restored: number; sha256: string; at: string };

/** An entry of the journal, whether the database is known to have had it, and when it was brought back into it. */
export interface JournalEntry {
  seq: number;
  sha256: string;
  committed: boolean;
  restoredAt: string | null;
  /** Its line in the file, not decoded yet: a long journal is mostly texts that nobody asks for. */
  raw: Buffer;
}

/** The canonical text of a journal's entry; null: its line is damaged. */
export function textOf({ raw }: Pick<JournalEntry, 'raw'>): string | null {
  const written = parse(raw);
  return written !== null && 'text' in written && typeof written.text === 'string' ? written.text : null;
}

/**
 * A plain file per job beside the database: each entry is written and fsynced here before the database has it.
 * Its last line is the head of the chain, kept elsewhere than the chain.
 */
export class Journal {
  private readonly lasts = new Map<string, Head | null>();

  /** @param disk what writes; tests let it fail */
  constructor(
    private readonly folder: string,
    private readonly disk: Disk = nodeDisk,
  ) {
    mkdirSync(folder, { recursive: true });
  }

  append(job: string, line: JournalLine): void {
    this.write(job, line);
    this.lasts.set(job, line);
  }

  /** The last entry of a job: the head of its chain. */
  last(job: string): Head | undefined {
    let last = this.lasts.get(job);
    if (last === undefined) {
      last = this.read(job).at(-1) ?? null;
      this.lasts.set(job, last);
    }
    return last ?? undefined;
  }

  /** The database has the entry. A crash before this line only means that the entry is looked for again at start. */
  commit(job: string, { seq, sha256 }: Head): void {
    try {
      this.write(job, { committed: seq, sha256 }, false);
    } catch (error) {
      // The entry itself is on the disk and in the database: a full disk takes nothing of it back.
      if (!(error instanceof HttpError)) throw error;
    }
  }

  /** The database had the entry, lost it, and has it again. */
  restore(job: string, { seq, sha256 }: Head, at: string): void {
    this.write(job, { restored: seq, sha256, at });
  }

  /** The database refused the entry: the line before does not count. */
  abandon(job: string, { seq, sha256 }: JournalLine): void {
    this.lasts.delete(job);
    this.write(job, { abandoned: seq, sha256 });
  }

  /** Takes over the entries of a job that came from elsewhere, before the database has them. */
  adopt(job: string, lines: readonly JournalLine[]): void {
    if (existsSync(this.path(job))) throw new Error(`a journal of ${job} is here already`);
    const text = lines.map(({ seq, sha256, text: content }) =>
      [JSON.stringify({ seq, sha256, text: content }), JSON.stringify({ committed: seq, sha256 })].join('\n'),
    );
    const file = openSync(this.path(job), 'wx');
    try {
      writeWhole(file, Buffer.from(text.length === 0 ? '' : `${text.join('\n')}\n`), this.disk);
      fsyncSync(file);
    } catch (error) {
      rmSync(this.path(job), { force: true });
      throw noRoom(error) ?? error;
    } finally {
      closeSync(file);
    }
    syncFolder(this.folder);
    this.lasts.delete(job);
  }

  /** Takes an adoption back that the database refused. */
  disown(job: string): void {
    rmSync(this.path(job), { force: true });
    this.lasts.delete(job);
  }

  /** Jobs that have a journal with something in it. */
  jobs(): string[] {
    return readdirSync(this.folder)
      .filter((name) => name.endsWith('.jsonl') && statSync(join(this.folder, name)).size > 0)
      .map((name) => jobOf(name.slice(0, -'.jsonl'.length)));
  }

  /** Every file of the journal, for a backup. */
  files(): { name: string; bytes: Uint8Array }[] {
    return readdirSync(this.folder).map((name) => ({ name, bytes: readFileSync(join(this.folder, name)) }));
  }

  /**
   * Puts other files in the place of all: at a restore. The old ones are moved aside.
   *
   * @param aside a folder that is not there yet
   */
  replace(files: { name: string; bytes: Uint8Array }[], aside: string): void {
    renameSync(this.folder, aside);
    mkdirSync(this.folder, { recursive: true });
    for (const { name, bytes } of files) {
      const file = openSync(join(this.folder, basename(name)), 'w');
      try {
        writeWhole(file, bytes, this.disk);
        fsyncSync(file);
      } catch (error) {
        throw noRoom(error) ?? error;
      } finally {
        closeSync(file);
      }
    }
    syncFolder(this.folder);
    this.lasts.clear();
  }

  /** Forgets what is kept in memory: the files were replaced. */
  forget(): void {
    this.lasts.clear();
  }

  /** All entries of a job, in order; a torn last line is not one. */
  read(job: string): JournalEntry[] {
    const path = this.path(job);
    if (!existsSync(path)) return [];
    const entries = new Map<string, JournalEntry>();
    for (const raw of linesOf(readFileSync(path))) {
      const written = headOf(raw) ?? parse(raw);
      if (written === null) continue;
      const known = entries.get(written.sha256);
      if ('abandoned' in written) entries.delete(written.sha256);
      else if ('seq' in written)
        entries.set(written.sha256, {
          seq: written.seq,
          sha256: written.sha256,
          committed: false,
          restoredAt: null,
          raw,
        });
      else if (known !== undefined && 'restored' in written) known.restoredAt = written.at;
      else if (known !== undefined) known.committed = true;
    }
    const all = [...entries.values()];
    this.lasts.set(job, all.at(-1) ?? null);
    return all;
  }

  /** Cuts off a line that a crash tore, so that the next one starts clean. */
  mend(job: string): void {
    const path = this.path(job);
    if (!existsSync(path)) return;
    const bytes = readFileSync(path);
    const end = bytes.lastIndexOf(0x0a) + 1;
    if (end < bytes.length) truncateSync(path, end);
  }

  /** @throws HttpError 507 when there is no room: then nothing of the line is left in the file */
  private write(job: string, line: Written, sync = true): void {
    const fresh = !existsSync(this.path(job));
    const file = openSync(this.path(job), 'a');
    const before = fstatSync(file).size;
    try {
      writeWhole(file, Buffer.from(`${JSON.stringify(line)}\n`), this.disk);
      if (sync) fsyncSync(file);
    } catch (error) {
      ftruncateSync(file, before);
      throw noRoom(error) ?? error;
    } finally {
      closeSync(file);
    }
    if (fresh) syncFolder(this.folder);
  }

  private path(job: string): string {
    return join(this.folder, `${encodeURIComponent(job)}.jsonl`);
  }
}

/** The job of a journal's file name; one that nobody here has written stands for itself. */
function jobOf(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}

function* linesOf(bytes: Buffer): Generator<Buffer> {
  for (let start = 0; start < bytes.length;) {
    const found = bytes.indexOf(0x0a, start);
    const end = found < 0 ? bytes.length : found;
    if (end > start) yield bytes.subarray(start, end);
    start = end + 1;
  }
}

/** Longest beginning of a line that says which entry it is about. */
const headBytes = 120;

/** The beginning of an entry's or a commit's line, without reading the rest; null for any other line. */
function headOf(raw: Buffer): Head | { committed: number; sha256: string } | null {
  if (raw[raw.length - 1] !== 0x7d) return null;
  const start = raw.toString('latin1', 0, Math.min(raw.length, headBytes));
  const match = /^\{"(seq|committed)":(\d+),"sha256":"([0-9a-f]{64})"/.exec(start);
  if (match === null) return null;
  const [, kind, number, sha256] = match as unknown as [string, string, string, string];
  return kind === 'seq' ? { seq: Number(number), sha256 } : { committed: Number(number), sha256 };
}

function parse(raw: Buffer): Written | null {
  try {
    const value: unknown = JSON.parse(raw.toString('utf8'));
    return typeof value === 'object' && value !== null ? (value as Written) : null;
  } catch {
    return null;
  }
}
