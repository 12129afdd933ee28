import { existsSync } from 'node:fs';
import { cp, mkdir, rename, rm } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import type { Answered, Asked } from '../threads/database-thread';
import { startThread } from '../threads';
import { digesting, type Database, type Digested, type Digesting, type Queryable } from './database';

/** Opens an embedded database in memory, in this thread: for tests and scratch work. */
export async function openPglite(loadDataDir?: Blob): Promise<Database> {
  return wrapPglite(await PGlite.create(loadDataDir === undefined ? {} : { loadDataDir }));
}

export function wrapPglite(lite: Pick<PGlite, 'query' | 'exec' | 'close'>): Database {
  const inline: Queryable = {
    query: async <Row>(sql: string, parameters: unknown[] = []) =>
      (await lite.query<Row>(sql, parameters)).rows,
  };
  return exclusive(
    {
      ...inline,
      digest: digesting(inline),
      execute: async (sql) => void (await lite.exec(sql)),
    },
    () => lite.close(),
  );
}

/** An empty, migrated database as the last build made it: beside the program, or from source where the build puts it. */
export const madeAtBuild = fileURLToPath(
  new URL(
    import.meta.url.endsWith('.ts') ? '../../dist/template-database' : './template-database',
    import.meta.url,
  ),
);

/**
 * Opens the embedded database of a folder, in a thread of its own: a long statement holds up other statements, and no request.
 *
 * @param template an empty one to begin with where there is none; null: make it
 * @throws Error when it does not open
 */
export async function openPgliteThread(
  folder: string,
  template: string | null = madeAtBuild,
): Promise<Database> {
  if (!existsSync(folder) && template !== null && existsSync(template)) {
    const half = `${folder}.part`;
    await rm(half, { recursive: true, force: true });
    await cp(template, half, { recursive: true });
    await rename(half, folder);
  }
  await mkdir(folder, { recursive: true });
  const worker = startThread('database-thread', folder);
  const waiting = new Map<number, { resolve(rows: unknown[]): void; reject(error: Error): void }>();
  let count = 0;
  let ended: Error | null = null;
  const end = (error: Error) => {
    ended = error;
    for (const { reject } of waiting.values()) reject(error);
    waiting.clear();
  };
  worker.on('message', ({ id, rows, error }: Answered) => {
    const one = waiting.get(id);
    waiting.delete(id);
    if (error === undefined) one?.resolve(rows ?? []);
    else one?.reject(Object.assign(new Error(error.message), error));
  });
  worker.on('error', end);
  worker.on('exit', () => end(new Error('the database has ended')));
  const ask = (
    sql: string | null,
    parameters: unknown[] | null,
    digest: Asked['digest'] = null,
  ): Promise<unknown[]> =>
    new Promise((resolve, reject) => {
      if (ended !== null) return reject(ended);
      count += 1;
      waiting.set(count, { resolve, reject });
      worker.postMessage({ id: count, sql, parameters, digest } satisfies Asked);
    });
  try {
    await new Promise<unknown[]>((resolve, reject) => waiting.set(0, { resolve, reject }));
  } catch (error) {
    await worker.terminate();
    throw error;
  }
  return exclusive(
    {
      query: async <Row>(sql: string, parameters: unknown[] = []) => (await ask(sql, parameters)) as Row[],
      digest: async (sql, parameters, held) => (await ask(sql, parameters, { held }))[0] as Digested,
      execute: async (sql) => void (await ask(sql, null)),
    },
    async () => {
      await ask(null, null);
      await worker.terminate();
    },
  );
}

/** How often heavy reading lets others go first before it takes its turn all the same. */
const mostWaits = 50;

/**
 * One connection: a transaction has it to itself, everything else waits its turn. A digest, which is the heaviest reading, waits until
 * nobody else asks: a request of several statements meets one of them, not one before each.
 */
function exclusive(
  on: Digesting & { execute(sql: string): Promise<void> },
  close: () => Promise<void>,
): Database {
  let last: Promise<unknown> = Promise.resolve();
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const mine = last.then(work, work);
    last = mine.catch(() => undefined);
    return mine;
  };
  const whenFree = async <T>(work: () => Promise<T>): Promise<T> => {
    for (let i = 0; i < mostWaits; i += 1) {
      const before = last;
      await before;
      await new Promise((resolve) => setImmediate(resolve));
      if (last === before) break;
    }
    return inTurn(work);
  };
  return {
    query: <Row>(sql: string, parameters?: unknown[]) => inTurn(() => on.query<Row>(sql, parameters)),
    digest: (sql, parameters, held) => whenFree(() => on.digest(sql, parameters, held)),
    execute: (sql) => inTurn(() => on.execute(sql)),
    transaction: (work) =>
      inTurn(async () => {
        await on.query('BEGIN');
        try {
          const result = await work({ query: (sql, parameters) => on.query(sql, parameters) });
          await on.query('COMMIT');
          return result;
        } catch (error) {
          await on.query('ROLLBACK');
          throw error;
        }
      }),
    close: () => inTurn(close),
  };
}
