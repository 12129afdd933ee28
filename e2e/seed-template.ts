import { rmSync } from 'node:fs';
import { TestServer, templateFolder } from './server';

/** Seeds the demo once; tests copy the folder. */
export default async function seedTemplate(): Promise<void> {
  rmSync(templateFolder, { recursive: true, force: true });
  const server = new TestServer(templateFolder, ['--demo']);
  await server.start();
  await server.stop();
}
