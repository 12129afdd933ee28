import type { Database, Digested, HeldTexts, Queryable } from './database';

/** A database that everyone but one can be kept away from. */
export class Guarded implements Database {
  private gate: Promise<void> = Promise.resolve();
  constructor(private readonly inner: Database) {}
  async query<Row>(sql: string, parameters?: unknown[]): Promise<Row[]> {
    await this.gate;
    return this.inner.query<Row>(sql, parameters);
  }
  async digest(sql: string, parameters: unknown[], held: HeldTexts | null): Promise<Digested> {
    await this.gate;
    return this.inner.digest(sql, parameters, held);
  }
  async execute(sql: string): Promise<void> {
    await this.gate;
    return this.inner.execute(sql);
  }
  async transaction<T>(work: (db: Queryable) => Promise<T>): Promise<T> {
    await this.gate;
    return this.inner.transaction(work);
  }
  async close(): Promise<void> {
    await this.gate;
    await this.inner.close();
  }
  /** Lets one piece of work have it; all others wait. */
  async alone(work: (open: Database) => Promise<void>): Promise<void> {
    let go: () => void = () => undefined;
    this.gate = new Promise((resolve) => (go = resolve));
    try {
      await work(this.inner);
    } catch (error) {
      // What was decided is on the disk; only a start can carry it on.
      setImmediate(() => {
        throw error;
      });
      throw error;
    } finally {
      go();
    }
  }
}
