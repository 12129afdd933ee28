import { parentPort, workerData } from 'node:worker_threads';
import { PGlite } from '@electric-sql/pglite';
import { digesting as digestingOn, type HeldTexts } from '../database/database';

/** The thread of the embedded database: it runs one statement after another, and nothing else waits for it. */
export interface Asked {
  id: number;
  /** One statement with parameters; without them several without an answer; null: close. */
  sql: string | null;
  parameters: unknown[] | null;
  /** Answer with the digest of what it says, not with the text itself. */
  digest: { held: HeldTexts | null } | null;
}

export interface Answered {
  id: number;
  rows?: unknown[];
  error?: { message: string; code?: string; constraint?: string };
}

const digesting = (lite: PGlite) =>
  digestingOn({
    query: async <Row>(sql: string, parameters?: unknown[]) => (await lite.query<Row>(sql, parameters)).rows,
  });
const opened = PGlite.create(workerData as string);
const answer = (message: Answered) => parentPort!.postMessage(message);

function plain(error: unknown): NonNullable<Answered['error']> {
  const { message, code, constraint } = error as { message?: string; code?: string; constraint?: string };
  return {
    message: message ?? 'failed',
    ...(typeof code === 'string' && { code }),
    ...(typeof constraint === 'string' && { constraint }),
  };
}

let last: Promise<void> = opened.then(
  () => answer({ id: 0 }),
  (error: unknown) => answer({ id: 0, error: plain(error) }),
);

async function run({ id, sql, parameters, digest }: Asked): Promise<void> {
  try {
    const lite = await opened;
    if (sql === null) {
      await lite.close();
      answer({ id });
    } else if (parameters === null) {
      await lite.exec(sql);
      answer({ id });
    } else if (digest !== null) answer({ id, rows: [await digesting(lite)(sql, parameters, digest.held)] });
    else answer({ id, rows: (await lite.query(sql, parameters)).rows });
  } catch (error) {
    answer({ id, error: plain(error) });
  }
}

parentPort!.on('message', (asked: Asked) => {
  last = last.then(() => run(asked));
});
