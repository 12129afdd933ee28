import { parentPort, workerData } from 'node:worker_threads';
import { tasks, type TaskName } from '../heavy/tasks';

/** A thread for one heavy piece of work. */
const { name, input } = workerData as { name: TaskName; input: never };

Promise.resolve()
  .then(() => tasks[name](input) as unknown)
  .then(
    (result) => parentPort!.postMessage({ result }),
    (error: unknown) => parentPort!.postMessage({ error: error instanceof Error ? error.message : 'failed' }),
  );
