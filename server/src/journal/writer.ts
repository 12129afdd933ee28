import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import { HttpError } from '../http/errors';
import { lineOf, type Head, type Link } from './lines';
import type { JobBody, ShopBody } from './links';
import { shopChain } from './links';
import type { Heads } from './heads';
import type { Journal } from './journal';
import { projectJob, projectShop, type Known } from './project';

/** What a piece of work has while its turn lasts. */
export interface Turn {
  /** The transaction: whatever is read or written belongs to this turn. */
  db: Queryable;
  /** Adds a link to the chain of a job; its rows are written with it. */
  job(id: string, body: JobBody, known?: Known): Promise<Link>;
  /** The same in the chain of the shop. */
  shop(body: ShopBody): Promise<Link>;
  /** Takes a whole chain over that came from elsewhere; its rows are the caller's. */
  adopt(id: string, whole: Buffer, head: Head): void;
  /** Where a chain stands, with what this turn added. */
  head(chain: string): Head | null;
  /** Called when it is on the disk. */
  done(run: () => void): void;
  /** Called when it was not kept after all. */
  undone(run: () => void): void;
}

interface Waiting {
  work(turn: Turn): Promise<unknown>;
  resolve(value: unknown): void;
  reject(error: unknown): void;
}

interface Kept {
  one: Waiting;
  result: unknown;
  done: (() => void)[];
  undone: (() => void)[];
}

interface Staged {
  head: Head | null;
  lines: Buffer[];
  whole?: Buffer;
}

/** Turns of one batch. */
const mostAtOnce = 64;

/**
 * The one writer. It takes all that waits: one transaction, one fsync of the journal, one commit, and only then the answers. A
 * refused turn takes nothing of the others with it.
 */
export class Writer {
  private readonly waiting: Waiting[] = [];
  private running: Promise<void> | null = null;
  /** Links of the batch that is being made: lines and heads, not written yet. */
  private staged = new Map<string, Staged>();
  private current: Promise<void> = Promise.resolve();
  private paused: Promise<void> | null = null;
  private isBroken = false;

  /**
   * @param heads hears where the chains of jobs stand
   * @param broken called when the journal holds what the database refused to commit: only a start puts that right
   */
  constructor(
    private readonly database: Database,
    private readonly journal: Journal,
    private readonly clock: Clock,
    private readonly heads: Heads,
    private readonly broken: (error: unknown) => void = (error) => {
      setImmediate(() => {
        throw error;
      });
    },
  ) {}

  /** Runs a piece of work when its turn comes, and answers when what it wrote is on the disk. */
  write<T>(work: (turn: Turn) => Promise<T>): Promise<T> {
    if (this.isBroken)
      return Promise.reject(
        new HttpError(503, 'starting-anew', 'the server is about to start anew: send it again in a moment'),
      );
    return new Promise<T>((resolve, reject) => {
      this.waiting.push({ work, resolve: resolve as (value: unknown) => void, reject });
      this.running ??= this.run();
    });
  }

  /** Notes where the chains of jobs stand in the chain of the shop: now and then, and where something leaves the house. */
  note(): Promise<void> {
    return this.write((turn) => this.heads.note(turn));
  }

  /** Runs a piece of work between two batches; what comes meanwhile waits. */
  async alone<T>(work: () => Promise<T>): Promise<T> {
    while (this.paused !== null) await this.paused;
    let go: () => void = () => undefined;
    this.paused = new Promise((resolve) => (go = resolve));
    try {
      await this.current;
      return await work();
    } finally {
      this.paused = null;
      go();
    }
  }

  /** Resolves when nothing waits. */
  async idle(): Promise<void> {
    while (this.running !== null) await this.running;
  }

  private async run(): Promise<void> {
    // A moment, so that what arrives together goes together.
    await Promise.resolve();
    while (this.waiting.length > 0) {
      await this.paused;
      this.current = this.batch(this.waiting.splice(0, mostAtOnce));
      await this.current;
      if (this.waiting.length === 0 && this.heads.due) this.note().catch(() => undefined);
    }
    this.running = null;
  }

  private async batch(batch: readonly Waiting[]): Promise<void> {
    const kept: Kept[] = [];
    let written = false;
    this.staged = new Map();
    try {
      await this.database.transaction(async (db) => {
        for (const one of batch) {
          const taken = await this.turn(one, db, batch.length > 1);
          if (taken !== null) kept.push(taken);
        }
        if (this.staged.size === 0) return;
        for (const [chain, { head }] of this.staged) await keepHead(db, chain, head!);
        await this.journal.write(this.staged);
        written = true;
        for (const [chain, { head }] of this.staged) {
          this.journal.stands(chain, head);
          if (chain !== shopChain) this.heads.stands(chain, head!);
        }
      });
    } catch (error) {
      // Whoever came next would be written on rows that are not there.
      if (written) {
        this.isBroken = true;
        this.broken(error);
      }
      for (const { one, undone } of kept) {
        for (const run of undone) run();
        one.reject(error);
      }
      return;
    }
    for (const { one, result, done } of kept) {
      for (const run of done) run();
      one.resolve(result);
    }
  }

  /** @returns null when the turn was refused; its caller has the reason then */
  private async turn(one: Waiting, db: Queryable, among: boolean): Promise<Kept | null> {
    const before = new Map(
      [...this.staged].map(([chain, staged]) => [chain, { ...staged, lines: [...staged.lines] }]),
    );
    const kept: Kept = { one, result: undefined, done: [], undone: [] };
    const head = (chain: string) => this.staged.get(chain)?.head ?? this.journal.head(chain);
    const add = (chain: string, body: object): Link => {
      const { bytes, link } = lineOf(body, head(chain), this.clock.now());
      const staged: Staged = this.staged.get(chain) ?? { head: null, lines: [] };
      staged.lines.push(bytes);
      staged.head = { n: link.n, sha256: link.sha256 };
      this.staged.set(chain, staged);
      return link;
    };
    const turn: Turn = {
      db,
      head,
      async job(id, body, known) {
        const link = add(id, body);
        await projectJob(db, id, link, known);
        return link;
      },
      async shop(body) {
        const link = add(shopChain, body);
        await projectShop(db, link);
        return link;
      },
      adopt: (id, whole, { n, sha256 }) =>
        void this.staged.set(id, { head: { n, sha256 }, lines: [], whole }),
      done: (run) => void kept.done.push(run),
      undone: (run) => void kept.undone.push(run),
    };
    if (among) await db.query('SAVEPOINT turn');
    try {
      kept.result = await one.work(turn);
    } catch (error) {
      this.staged = before;
      for (const run of kept.undone) run();
      one.reject(error);
      if (!among) throw error;
      await db.query('ROLLBACK TO SAVEPOINT turn');
      return null;
    }
    if (among) await db.query('RELEASE SAVEPOINT turn');
    return kept;
  }
}

/** Notes in the database up to which link it holds a chain. */
export async function keepHead(db: Queryable, chain: string, { n, sha256 }: Head): Promise<void> {
  await db.query(
    `INSERT INTO chains (name, n, sha256) VALUES ($1, $2, $3)
     ON CONFLICT (name) DO UPDATE SET n = $2, sha256 = $3`,
    [chain, n, sha256],
  );
}
