import { rmSync, writeFileSync } from 'node:fs';
import { TestServer, templateBackup, templateFolder } from './server';

/** Seeds the demo once; each worker copies the folder, each test begins with the backup. */
export default async function seedTemplate(): Promise<void> {
  rmSync(templateFolder, { recursive: true, force: true });
  const server = new TestServer(templateFolder, ['--demo']);
  await server.start();
  writeFileSync(templateBackup, await server.backup());
  await server.stop();
}
