import {
  closeSync,
  existsSync,
  fstatSync,
  fsync,
  ftruncateSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  truncateSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { nodeDisk, noRoom, syncFolder, writeWhole, type Disk } from '../files/disk';
import { readChain, type Chain, type Head } from './lines';
import { shopChain } from './links';

const synced = promisify(fsync);
const ending = '.jsonl';
/** A chain that is being brought in. */
const half = '.part';

/** What waits to be written, by chain: lines at its end, or a whole chain that came from elsewhere. */
export type Lines = ReadonlyMap<string, { lines: readonly Buffer[]; whole?: Buffer }>;

/**
 * The truth of a data folder: one append-only file a chain, one chain a job and one of the shop. Whatever is acknowledged was
 * written and fsynced here first; the database can be built from it.
 */
export class Journal {
  private readonly heads = new Map<string, Head | null>();

  /** @param disk what writes; tests let it fail */
  constructor(
    readonly folder: string,
    private readonly disk: Disk = nodeDisk,
  ) {
    mkdirSync(folder, { recursive: true });
    for (const name of readdirSync(folder)) if (name.endsWith(half)) rmSync(join(folder, name));
  }

  head(chain: string): Head | null {
    let head = this.heads.get(chain);
    if (head === undefined) {
      head = this.read(chain).head;
      this.heads.set(chain, head);
    }
    return head;
  }

  /** Says where a chain stands after its lines were written. */
  stands(chain: string, head: Head | null): void {
    this.heads.set(chain, head);
  }

  has(chain: string): boolean {
    return existsSync(this.path(chain));
  }

  /** Bytes of a chain's file; 0: there is none. */
  size(chain: string): number {
    return this.has(chain) ? statSync(this.path(chain)).size : 0;
  }

  bytes(chain: string): Buffer {
    return this.has(chain) ? readFileSync(this.path(chain)) : Buffer.alloc(0);
  }

  read(chain: string): Chain {
    return readChain(this.bytes(chain));
  }

  /** Where a chain ends, by its last line alone; null when that does not hold, or is not the end. */
  tail(chain: string): Head | null {
    const size = this.size(chain);
    if (size === 0) return null;
    const file = openSync(this.path(chain), 'r');
    try {
      for (let length = Math.min(size, 65_536); ; length = Math.min(size, length * 4)) {
        const end = Buffer.alloc(length);
        readSync(file, end, 0, length, size - length);
        const before = end.lastIndexOf(0x0a, length - 2);
        if (before < 0 && length < size) continue;
        const { links, wholeBytes } = readChain(end.subarray(before + 1));
        const last = links[0];
        const whole = end.at(-1) === 0x0a && wholeBytes === length - before - 1;
        return last !== undefined && whole ? { n: last.n, sha256: last.sha256 } : null;
      }
    } finally {
      closeSync(file);
    }
  }

  /** The chains of jobs that lie here. */
  jobs(): string[] {
    return readdirSync(this.folder)
      .filter((name) => name.endsWith(ending) && statSync(join(this.folder, name)).size > 0)
      .map((name) => chainOf(name.slice(0, -ending.length)))
      .filter((chain) => chain !== shopChain);
  }

  /**
   * Writes and fsyncs lines, the shop's last: what it says of a job is there then.
   *
   * @throws HttpError 507 when there is no room: then nothing of any line is left
   */
  async write(waiting: Lines): Promise<void> {
    const written: { path: string; file: number; before: number; fresh: boolean }[] = [];
    try {
      const chains = [...waiting.keys()].sort((a, b) => Number(a === shopChain) - Number(b === shopChain));
      for (const chain of chains) {
        const { lines, whole } = waiting.get(chain)!;
        const fresh = !this.has(chain);
        // A whole chain gets its name when all of it is there: half of one would be a job with half a history.
        const path = whole === undefined ? this.path(chain) : `${this.path(chain)}${half}`;
        const file = openSync(path, whole === undefined ? 'a' : 'w', 0o600);
        written.push({ path, file, before: fstatSync(file).size, fresh });
        writeWhole(file, Buffer.concat([...(whole === undefined ? [] : [whole]), ...lines]), this.disk);
        await synced(file);
        if (whole !== undefined) renameSync(path, this.path(chain));
      }
      if (written.some(({ fresh }) => fresh)) syncFolder(this.folder);
    } catch (error) {
      for (const { file, before } of written) ftruncateSync(file, before);
      for (const { path, fresh } of written)
        if (fresh) for (const one of [path, path.replace(half, '')]) rmSync(one, { force: true });
      throw noRoom(error) ?? error;
    } finally {
      for (const { file } of written) closeSync(file);
    }
  }

  /** Cuts off half a line that a crash left, or ends the last one, so that the next starts clean. */
  mend(chain: string, { wholeBytes }: Chain): void {
    const path = this.path(chain);
    if (!existsSync(path)) return;
    const { size } = statSync(path);
    if (wholeBytes < size) truncateSync(path, wholeBytes);
    if (wholeBytes === 0) return;
    const file = openSync(path, 'r+');
    try {
      const end = this.bytes(chain).at(-1);
      if (end !== 0x0a) writeSync(file, '\n', wholeBytes);
    } finally {
      closeSync(file);
    }
  }

  /** Forgets what is kept in memory: the files were replaced. */
  forget(): void {
    this.heads.clear();
  }

  path(chain: string): string {
    return join(this.folder, `${encodeURIComponent(chain)}${ending}`);
  }
}

/** The chain of a file's name; one that nobody here has written stands for itself. */
function chainOf(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
