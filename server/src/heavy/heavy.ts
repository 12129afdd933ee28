import { startThread } from '../threads';
import type { Tasks, TaskName } from './tasks';

/** Work on fewer bytes than this is done at once: starting a thread would take longer. */
const threadFromBytes = 1_000_000;
/** Threads at work at the same time. */
const mostThreads = 2;

let running = 0;
const waiting: (() => void)[] = [];

/**
 * Runs a heavy piece of work: in a thread of its own when it has much to do, so that no request waits for it.
 *
 * @param bytes about how much it has to read
 */
export async function heavy<Name extends TaskName>(
  name: Name,
  input: Parameters<Tasks[Name]>[0],
  bytes: number,
): Promise<Awaited<ReturnType<Tasks[Name]>>> {
  if (bytes < threadFromBytes) {
    const { tasks } = await import('./tasks');
    return (await (tasks[name] as (one: unknown) => unknown)(input)) as Awaited<ReturnType<Tasks[Name]>>;
  }
  if (running >= mostThreads) await new Promise<void>((resolve) => waiting.push(resolve));
  running += 1;
  try {
    return await inThread<Awaited<ReturnType<Tasks[Name]>>>(name, input);
  } finally {
    running -= 1;
    waiting.shift()?.();
  }
}

function inThread<Result>(name: string, input: unknown): Promise<Result> {
  return new Promise((resolve, reject) => {
    const worker = startThread('heavy-thread', { name, input });
    worker.once('message', (answer: { result?: Result; error?: string }) => {
      void worker.terminate();
      if (answer.error !== undefined) reject(new Error(answer.error));
      else resolve(answer.result as Result);
    });
    worker.once('error', reject);
    worker.once('exit', (code) => reject(new Error(`a thread ended with ${code}`)));
  });
}
