import { hash } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import { ChainWalk, type StoredEntry, type Verification } from '@torvek/core/record';

const sha256 = (text: string) => hash('sha256', text, 'hex');

/** Walks a chain piece by piece. */
export interface Walker {
  /** Resolves when it is ready for more. */
  take(rows: StoredEntry[]): Promise<void>;
  end(): Promise<Verification>;
}

/** In this thread. */
export function inlineWalker(job: string): Walker {
  const walk = new ChainWalk(job, null, { hash: sha256 });
  return {
    take(rows) {
      for (const row of rows) walk.take(row);
      // Let others have a turn.
      return new Promise((resolve) => setImmediate(resolve));
    },
    end: () => Promise.resolve(walk.end()),
  };
}

/** Pieces that may lie before the thread. */
const mostAhead = 6;

/** In a thread of its own, while this one reads; for long records. From source the thread reads source too. */
export function threadWalker(job: string): Walker {
  const fromSource = import.meta.url.endsWith('.ts');
  const worker = new Worker(new URL(fromSource ? './walk-thread.ts' : './walk-thread.js', import.meta.url), {
    workerData: job,
    ...(fromSource && { execArgv: ['--import', 'tsx'] }),
  });
  let ahead = 0;
  let wake: () => void = () => undefined;
  let finished: (result: Verification) => void;
  let failed: (error: unknown) => void;
  const result = new Promise<Verification>((resolve, reject) => {
    finished = resolve;
    failed = reject;
  });
  worker.on('message', (message: 'taken' | Verification) => {
    if (message === 'taken') {
      ahead -= 1;
      wake();
    } else finished(message);
  });
  worker.on('error', (error) => failed(error));
  return {
    async take(rows) {
      worker.postMessage(rows);
      ahead += 1;
      if (ahead >= mostAhead) await Promise.race([new Promise<void>((resolve) => (wake = resolve)), result]);
    },
    async end() {
      worker.postMessage('end');
      try {
        return await result;
      } finally {
        await worker.terminate();
      }
    },
  };
}
