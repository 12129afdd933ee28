import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Config } from './config';
import type { Rooms } from './rooms';

/** A start or command that would do harm: said in words, and nothing is touched. */
export class Refused extends Error {}

/**
 * A database without jobs and people beside journals of jobs is not a new shop: it has lost what the journals tell of. Were
 * it started, its first visitor would become owner, and the journals would be written on.
 *
 * @throws Refused naming the journals that were found
 */
export async function refuseLostDatabase({ jobs, people, ledger, dataFolder }: Rooms): Promise<void> {
  const journals = ledger.journal.jobs();
  if (journals.length === 0 || (await jobs.list()).length > 0 || (await people.count()) > 0) return;
  throw new Refused(
    `the database of ${dataFolder} is empty, but the journals of ${journals.length} ${journals.length === 1 ? 'job lie' : 'jobs lie'} beside it ` +
      `(${journals.slice(0, 3).join(', ')}${journals.length > 3 ? ', …' : ''}). It was lost, or another folder is meant. ` +
      'Put the folder “database” back, or restore a backup: npm run restore -- <file>. To begin anew, move the folder “journal” away.',
  );
}

/** @throws Refused when there is nothing to look at: a command that only reads must not make it */
export function refuseMissingData({ dataFolder, databaseUrl }: Config): void {
  if (!existsSync(dataFolder)) throw new Refused(`the data folder ${dataFolder} does not exist`);
  if (databaseUrl === undefined && !existsSync(join(dataFolder, 'database')))
    throw new Refused(`there is no database in ${dataFolder}`);
}
