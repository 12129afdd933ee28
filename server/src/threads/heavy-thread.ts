import { setPriority } from 'node:os';
import { parentPort, workerData } from 'node:worker_threads';
import { tasks, type TaskName } from '../heavy/tasks';

/** A thread for one heavy piece of work. */
const { name, input } = workerData as { name: TaskName; input: never };

// On Linux this is the priority of the thread that asks: who answers requests goes first. Elsewhere it would be the whole server's.
if (process.platform === 'linux') setPriority(10);

Promise.resolve()
  .then(() => tasks[name](input) as unknown)
  .then(
    (result) => parentPort!.postMessage({ result }),
    (error: unknown) => parentPort!.postMessage({ error: error instanceof Error ? error.message : 'failed' }),
  );
