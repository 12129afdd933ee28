import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { migrate } from '../src/database/migrate';
import { madeAtBuild, wrapPglite } from '../src/database/pglite';

/** Where the migrated, empty database lies that every server test starts from. */
export const templatePath = join(process.cwd(), '.cache', 'template-database.tar');

/** Makes it once for all test files: opening a new directory each time would take seconds. */
export default async function prepare(): Promise<void> {
  mkdirSync(join(process.cwd(), '.cache'), { recursive: true });
  const folder = join(process.cwd(), '.cache', 'template-database');
  rmSync(folder, { recursive: true, force: true });
  if (existsSync(madeAtBuild)) cpSync(madeAtBuild, folder, { recursive: true });
  const lite = await PGlite.create(folder);
  await migrate(wrapPglite(lite));
  const dump = await lite.dumpDataDir('none');
  await lite.close();
  writeFileSync(templatePath, Buffer.from(await dump.arrayBuffer()));
}
