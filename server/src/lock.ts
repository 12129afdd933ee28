import { createHash } from 'node:crypto';
import { mkdirSync, readFileSync, realpathSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { Refused } from './refused';

/** Somebody else uses the data folder. */
export class FolderTaken extends Refused {}

/**
 * Takes the data folder for this process. On Linux it listens on an abstract socket named after the folder, which
 * the kernel frees even after a kill; elsewhere a file holds the process id.
 *
 * @returns a function that lets the folder go
 * @throws FolderTaken when another process holds it
 */
export async function takeFolder(folder: string): Promise<() => void> {
  mkdirSync(folder, { recursive: true });
  const real = realpathSync(folder);
  const taken = new FolderTaken(
    `the data folder ${real} is in use by another Torvek process; stop that one first`,
  );
  if (process.platform !== 'linux') return takeByFile(join(real, 'process.lock'), taken);
  const name = `\0torvek-${createHash('sha256').update(real).digest('hex').slice(0, 32)}`;
  const server = createServer();
  await new Promise<void>((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'EADDRINUSE' ? taken : error),
    );
    server.listen(name, resolve);
  });
  server.unref();
  return () => server.close();
}

function takeByFile(path: string, taken: FolderTaken): () => void {
  try {
    writeFileSync(path, String(process.pid), { flag: 'wx' });
  } catch {
    const holder = Number(readFileSync(path, 'utf8'));
    if (isAlive(holder)) throw taken;
    writeFileSync(path, String(process.pid));
  }
  return () => rmSync(path, { force: true });
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
