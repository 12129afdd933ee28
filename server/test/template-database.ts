import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { migrate } from '../src/database/migrate';
import { wrapPglite } from '../src/database/pglite';

/** Where the migrated, empty database lies that every server test starts from. */
export const templatePath = join(process.cwd(), '.cache', 'template-database.tar');

/** Makes it once for all test files: opening a new directory each time would take seconds. */
export default async function prepare(): Promise<void> {
  const lite = await PGlite.create();
  await migrate(wrapPglite(lite));
  const dump = await lite.dumpDataDir('none');
  await lite.close();
  mkdirSync(join(process.cwd(), '.cache'), { recursive: true });
  writeFileSync(templatePath, Buffer.from(await dump.arrayBuffer()));
}
