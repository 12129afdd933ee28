import {
  closeSync,
  mkdirSync,
  openSync,
  readFileSync,
  realpathSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { connect, createServer, type Server } from 'node:net';
import { join } from 'node:path';
import { Refused } from './refused';

/** Somebody else uses the data folder. */
export class FolderTaken extends Refused {}

/** The socket in the folder, by which whoever sees the folder sees that it is taken: also in another namespace of the network. */
const socketName = 'in-use';

/**
 * Takes the data folder for this process. On Linux it listens on an abstract socket named after the folder's device and inode,
 * which the kernel frees even after a kill and which is the same by whatever path; and on a socket inside the folder, which holds
 * in other namespaces, too: one that nobody answers is stale. Elsewhere a file holds the process id.
 *
 * @returns a function that lets the folder go
 * @throws FolderTaken when another process holds it
 */
export async function takeFolder(folder: string): Promise<() => void> {
  try {
    mkdirSync(folder, { recursive: true });
  } catch (error) {
    const { code } = error as { code?: string };
    throw new Refused(
      `the data folder ${folder} cannot be made (${code ?? 'failed'}): check the path and its rights`,
    );
  }
  const real = realpathSync(folder);
  const taken = new FolderTaken(
    `the data folder ${real} is in use by another Torvek process; stop that one first`,
  );
  if (process.platform !== 'linux') return takeByFile(join(real, 'process.lock'), taken);
  const { dev, ino } = statSync(real);
  const abstract = await listen(`\0torvek-${dev}-${ino}`, taken);
  // A path of a socket has little room: by the folder's own descriptor any folder is short enough.
  const handle = openSync(real, 'r');
  const path = `/proc/self/fd/${handle}/${socketName}`;
  try {
    if (await answers(path)) throw taken;
    rmSync(path, { force: true });
    const inside = await listen(path, taken).catch((error: unknown) => {
      // A file system without sockets has no other namespaces to speak of.
      if (error instanceof FolderTaken) throw error;
      return null;
    });
    return () => {
      rmSync(join(real, socketName), { force: true });
      inside?.close();
      abstract.close();
    };
  } catch (error) {
    abstract.close();
    throw error;
  } finally {
    closeSync(handle);
  }
}

function listen(path: string, taken: FolderTaken): Promise<Server> {
  const server = createServer();
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'EADDRINUSE' ? taken : error),
    );
    server.listen(path, () => {
      server.unref();
      resolve(server);
    });
  });
}

/** Whether somebody listens on a socket: a refused connection is one that a kill left behind. */
function answers(path: string): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect(path);
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
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
