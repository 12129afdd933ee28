import pg from 'pg';
import { digesting, type Database, type Queryable } from './database';

/** One key for all Torvek servers: the second one on the same database is refused. */
const lockKey = 7_370_816;

/**
 * Opens a PostgreSQL server's database.
 *
 * @throws Error when another Torvek process uses it
 */
export async function openPostgres(url: string): Promise<Database> {
  const pool = new pg.Pool({ connectionString: url, max: 8 });
  const holder = await pool.connect();
  const { rows } = await holder.query<{ held: boolean }>('SELECT pg_try_advisory_lock($1) AS held', [
    lockKey,
  ]);
  if (rows[0]?.held !== true) {
    holder.release();
    await pool.end();
    throw new Error('another Torvek process uses this PostgreSQL database; stop it first');
  }
  const queryable = (on: pg.Pool | pg.PoolClient): Queryable => ({
    query: async <Row>(sql: string, parameters: unknown[] = []) =>
      (await on.query(sql, parameters)).rows as Row[],
  });
  return {
    ...queryable(pool),
    digest: digesting(queryable(pool)),
    execute: async (sql) => void (await pool.query(sql)),
    async transaction(work) {
      const client = await pool.connect();
      try {
        await client.query('BEGIN');
        const result = await work(queryable(client));
        await client.query('COMMIT');
        return result;
      } catch (error) {
        await client.query('ROLLBACK');
        throw error;
      } finally {
        client.release();
      }
    },
    async close() {
      holder.release();
      await pool.end();
    },
  };
}
