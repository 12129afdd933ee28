import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  truncateSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Head } from '@torvek/core/record';

export interface JournalLine {
  seq: number;
  sha256: string;
  text: string;
}

type Written = JournalLine | { abandoned: number; sha256: string };

/**
 * A plain file per job beside the database: each entry is written and fsynced here before the database has it.
 * Its last line is the head of the chain, kept elsewhere than the chain.
 */
export class Journal {
  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true });
  }

  append(job: string, line: JournalLine): void {
    this.write(job, line);
  }

  /** The database refused the entry: the line before does not count. */
  abandon(job: string, { seq, sha256 }: JournalLine): void {
    this.write(job, { abandoned: seq, sha256 });
  }

  /** All entries of a job, in order; a torn last line is not one. */
  read(job: string): JournalLine[] {
    const path = this.path(job);
    if (!existsSync(path)) return [];
    const lines: JournalLine[] = [];
    for (const raw of readFileSync(path, 'utf8').split('\n')) {
      const written = parse(raw);
      if (written === null) continue;
      if ('abandoned' in written)
        lines.splice(0, lines.length, ...lines.filter(({ sha256 }) => sha256 !== written.sha256));
      else lines.push(written);
    }
    return lines;
  }

  /** The last entry; seq 0 when there is none. */
  head(job: string): Head {
    const last = this.read(job).at(-1);
    return last === undefined ? { seq: 0, sha256: '' } : { seq: last.seq, sha256: last.sha256 };
  }

  /** Cuts off a line that a crash tore, so that the next one starts clean. */
  mend(job: string): void {
    const path = this.path(job);
    if (!existsSync(path)) return;
    const bytes = readFileSync(path);
    const end = bytes.lastIndexOf(0x0a) + 1;
    if (end < bytes.length) truncateSync(path, end);
  }

  private write(job: string, line: Written): void {
    const file = openSync(this.path(job), 'a');
    try {
      writeSync(file, `${JSON.stringify(line)}\n`);
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
  }

  private path(job: string): string {
    return join(this.folder, `${encodeURIComponent(job)}.jsonl`);
  }
}

function parse(raw: string): Written | null {
  if (raw === '') return null;
  try {
    return JSON.parse(raw) as Written;
  } catch {
    return null;
  }
}
