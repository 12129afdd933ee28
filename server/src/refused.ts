import { existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Config } from './config';

/** A start or command that would do harm: said in words, and nothing is touched. */
export class Refused extends Error {}

/** @throws Refused when the folder is not there: a command that looks at it must not make it */
export function refuseMissingFolder({ dataFolder }: Pick<Config, 'dataFolder'>): void {
  if (!existsSync(dataFolder)) throw new Refused(`the data folder ${dataFolder} does not exist`);
}

/** @throws Refused when there is nothing to look at */
export function refuseMissingData(config: Config): void {
  refuseMissingFolder(config);
  const { dataFolder, databaseUrl } = config;
  const there = ['database', 'journal'].some((name) => existsSync(join(dataFolder, name)));
  if (databaseUrl === undefined && !there) throw new Refused(`there is no database in ${dataFolder}`);
}
