import ElkApi from 'elkjs/lib/elk-api';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import type { Elk } from './layout';

let started: Elk | null = null;

/** The layout library in a worker of its own, started once. */
export function elkWorker(): Elk {
  started ??= new ElkApi({ workerFactory: () => new Worker(workerUrl) });
  return started;
}
