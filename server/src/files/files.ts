import { createHash } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileTypeFromBuffer } from 'file-type';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError, invalidInput, notFound } from '../http/errors';
import type { Writer } from '../journal/writer';
import { noRoom, syncFolder, writeWhole } from './disk';

/** Largest file. */
export const fileLimitBytes = 20 * 1024 * 1024;
/** All files of one job together. */
const jobLimitBytes = 500 * 1024 * 1024;

/** What may be attached, judged by content: pictures, documents, plain text (measurements as CSV). */
const allowedTypes = new Set(['image/png', 'image/jpeg', 'image/webp', 'image/heic', 'application/pdf']);

export interface StoredFile {
  sha256: string;
  name: string;
  type: string;
  size: number;
  addedBy: string;
  addedAt: string;
}

interface Row {
  sha256: string;
  name: string;
  type: string;
  size: number;
  added_by: string;
  added_at: string;
}

const ofRow = ({ added_by, added_at, ...row }: Row): StoredFile => ({
  sha256: row.sha256,
  name: row.name,
  type: row.type,
  size: row.size,
  addedBy: added_by,
  addedAt: added_at,
});

/**
 * What kind of file this is, by its bytes; what it is called does not count.
 *
 * @returns a media type, or null when it may not be attached
 */
export async function typeOf(bytes: Uint8Array): Promise<string | null> {
  const known = await fileTypeFromBuffer(bytes);
  if (known !== undefined) return allowedTypes.has(known.mime) ? known.mime : null;
  return isPlainText(bytes) ? 'text/plain; charset=utf-8' : null;
}

function isPlainText(bytes: Uint8Array): boolean {
  try {
    const text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    // A page with scripts is no measurement; neither is anything with control characters.
    return !/\p{Cc}/u.test(text.replace(/[\t\n\r]/g, '')) && !/^\s*</.test(text);
  } catch {
    return false;
  }
}

/** Photos and files of jobs, by the hash of their content. */
export class Files {
  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly folder: string,
    private readonly clock: Clock,
  ) {}

  /** Keeps a file: on disk and fsynced before the answer. The same content again is the same file. */
  async add(job: string, name: string, bytes: Uint8Array, by: string): Promise<StoredFile> {
    if (bytes.length === 0) throw invalidInput([{ path: 'file', message: 'is empty' }]);
    const type = await typeOf(bytes);
    if (type === null)
      throw invalidInput([
        { path: 'file', message: 'is neither a picture (PNG, JPEG, WebP, HEIC), a PDF nor plain text' },
      ]);
    const sha256 = hashBytes(bytes);
    const size = bytes.length;
    await this.refuseTooMuch(job, size, this.database);
    // The bytes first: what the chain names is there.
    this.write(sha256, bytes);
    await this.writer.write(async (turn) => {
      if ((await this.list(job, turn.db)).some((file) => file.sha256 === sha256)) return;
      await this.refuseTooMuch(job, size, turn.db);
      await turn.job(job, { kind: 'file', sha256, name, type, size, by, addedAt: this.clock.now() });
    });
    return this.describe(job, sha256);
  }

  private async refuseTooMuch(job: string, more: number, on: Queryable): Promise<void> {
    const [{ used } = { used: 0 }] = await on.query<{ used: number | string }>(
      'SELECT COALESCE(sum(size), 0) AS used FROM files WHERE job_id = $1',
      [job],
    );
    if (Number(used) + more > jobLimitBytes)
      throw new HttpError(413, 'too-large', 'the files of this job would be larger than 500 MB together');
  }

  async list(job: string, on: Queryable = this.database): Promise<StoredFile[]> {
    const rows = await on.query<Row>('SELECT * FROM files WHERE job_id = $1 ORDER BY added_at, sha256', [
      job,
    ]);
    return rows.map(ofRow);
  }

  /** @throws HttpError naming the attachment that is no file of the job */
  async check(job: string, hashes: readonly string[], on: Queryable): Promise<void> {
    if (hashes.length === 0) return;
    const there = new Set((await this.list(job, on)).map(({ sha256 }) => sha256));
    const missing = hashes.findIndex((hash) => !there.has(hash));
    if (missing >= 0)
      throw invalidInput([{ path: `attachments.${missing}`, message: 'is no file of this job' }]);
  }

  async describe(job: string, sha256: string): Promise<StoredFile> {
    const found = (await this.list(job)).find((file) => file.sha256 === sha256);
    if (found === undefined) throw notFound('this file');
    return found;
  }

  /** The bytes, checked against their name. */
  read(sha256: string): Uint8Array {
    const path = this.pathOf(sha256);
    if (!existsSync(path)) throw notFound('this file');
    const bytes = readFileSync(path);
    if (hashBytes(bytes) !== sha256)
      throw new HttpError(409, 'file-damaged', `the file ${sha256.slice(0, 12)}… is not what was stored`);
    return bytes;
  }

  /** Whether the bytes of a file are there and what they were. */
  async state(sha256: string): Promise<'whole' | 'altered' | 'missing'> {
    const path = this.pathOf(sha256);
    if (!existsSync(path)) return 'missing';
    return hashBytes(await readFile(path)) === sha256 ? 'whole' : 'altered';
  }

  /** Writes the bytes of a file under their hash: fsynced, then renamed into place. */
  write(sha256: string, bytes: Uint8Array): void {
    mkdirSync(this.folder, { recursive: true });
    const path = this.pathOf(sha256);
    if (existsSync(path)) return;
    const half = `${path}.${process.pid}.part`;
    const file = openSync(half, 'w');
    try {
      writeWhole(file, bytes);
      fsyncSync(file);
    } catch (error) {
      rmSync(half, { force: true });
      throw noRoom(error) ?? error;
    } finally {
      closeSync(file);
    }
    renameSync(half, path);
    syncFolder(this.folder);
  }

  /** The hashes under which bytes lie here. */
  stored(): string[] {
    return existsSync(this.folder)
      ? readdirSync(this.folder).filter((name) => /^[0-9a-f]{64}$/.test(name))
      : [];
  }

  /** Where the bytes of a file lie. */
  pathOf(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw notFound('this file');
    return join(this.folder, sha256);
  }
}

export const hashBytes = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
