import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { join } from 'node:path';
import { syncFolder, writeWhole } from '../files/disk';
import { heavy } from '../heavy/heavy';
import { mark } from '../marks';
import type { Rooms } from '../rooms';
import { backupsIn, makeBackup } from './backup';
import { backupsToKeep } from './keep';
import type { Tried } from './try-backup';

export interface BackupRun extends Tried {
  name: string;
  at: string;
  bytes: number;
}

export interface BackupState {
  /** Whether backups are made by themselves. */
  on: boolean;
  folder: string;
  last: BackupRun | null;
  lastGood: BackupRun | null;
  kept: { name: string; bytes: number }[];
  /** Why the last attempt came to nothing; null: it did not fail. */
  problem: string | null;
  running: boolean;
}

type Kept = Pick<BackupState, 'last' | 'lastGood' | 'problem'>;

const stateName = 'state.json';
/** From this hour of the server's own night on. */
const fromHour = 2;
const lookEveryMs = 10 * 60_000;
/** A failed attempt is repeated after this long. */
const againAfterMs = 60 * 60_000;

/** Backups by themselves: one a night, each proved by restoring it into a scratch folder, kept by a rule. */
export class Nightly {
  private timer: NodeJS.Timeout | null = null;
  private running: Promise<BackupRun> | null = null;
  private triedMs = -Infinity;
  readonly folder: string;

  constructor(
    private readonly rooms: Omit<Rooms, 'nightly'>,
    private readonly on: boolean,
    private readonly now: () => Date = () => new Date(),
  ) {
    this.folder = join(rooms.dataFolder, 'backups');
  }

  /** @param failed hears what went wrong */
  start(failed: (error: unknown) => void): void {
    if (!this.on) return;
    this.timer = setInterval(() => {
      if (this.isDue()) this.run('by itself').catch(failed);
    }, lookEveryMs);
    this.timer.unref();
  }

  stop(): void {
    if (this.timer !== null) clearInterval(this.timer);
  }

  /** Once a day, at night; in a shop that is closed at night, as soon as it opens. */
  isDue(): boolean {
    const now = this.now();
    if (this.running !== null || now.getTime() - this.triedMs < againAfterMs) return false;
    const night = new Date(now);
    night.setHours(fromHour, 0, 0, 0);
    if (night > now) night.setDate(night.getDate() - 1);
    const last = this.kept().lastGood;
    return last === null || new Date(last.at) < night;
  }

  /** Makes one now, proves it, and lets go of those that the rule does not keep. */
  run(by: string): Promise<BackupRun> {
    this.triedMs = this.now().getTime();
    this.running ??= this.make(by).finally(() => (this.running = null));
    return this.running;
  }

  state(): BackupState {
    return {
      on: this.on,
      folder: this.folder,
      ...this.kept(),
      kept: existsSync(this.folder) ? backupsIn(this.folder) : [],
      running: this.running !== null,
    };
  }

  private async make(by: string): Promise<BackupRun> {
    mkdirSync(this.folder, { recursive: true, mode: 0o700 });
    const at = this.now().toISOString();
    const name = `torvek-backup-${at.slice(0, 16).replace(/[T:]/g, '-')}.zip`;
    const path = join(this.folder, name);
    const half = `${path}.part`;
    try {
      const bytes = await makeBackup(this.rooms, by);
      const file = openSync(half, 'w', 0o600);
      try {
        writeWhole(file, bytes);
        fsyncSync(file);
      } finally {
        closeSync(file);
      }
      const tried = await heavy('tryBackup', { path: half, scratch: `${half}.scratch` }, bytes.length);
      renameSync(half, tried.ok ? path : path.replace(/\.zip$/, '-does-not-fit.zip'));
      syncFolder(this.folder);
      const run = {
        name: tried.ok ? name : name.replace(/\.zip$/, '-does-not-fit.zip'),
        at,
        bytes: bytes.length,
        ...tried,
      };
      const before = this.kept();
      this.keep({ last: run, lastGood: tried.ok ? run : before.lastGood, problem: null });
      if (tried.ok) this.letGo();
      return run;
    } catch (error) {
      rmSync(half, { force: true });
      const problem = error instanceof Error ? error.message : 'failed';
      this.keep({ ...this.kept(), problem });
      throw error;
    } finally {
      rmSync(`${half}.scratch`, { recursive: true, force: true });
    }
  }

  private letGo(): void {
    const names = backupsIn(this.folder).map(({ name }) => name);
    const keep = backupsToKeep(names);
    for (const name of names) if (!keep.has(name)) rmSync(join(this.folder, name), { force: true });
  }

  private kept(): Kept {
    const path = join(this.folder, stateName);
    const none: Kept = { last: null, lastGood: null, problem: null };
    if (!existsSync(path)) return none;
    try {
      const { lastGood, ...rest } = { ...none, ...(JSON.parse(readFileSync(path, 'utf8')) as Partial<Kept>) };
      // A file that is gone is good for nothing.
      const there = lastGood !== null && existsSync(join(this.folder, lastGood.name));
      return { ...rest, lastGood: there ? lastGood : null };
    } catch {
      return none;
    }
  }

  private keep(state: Kept): void {
    mark(this.folder, stateName, JSON.stringify(state));
  }
}
