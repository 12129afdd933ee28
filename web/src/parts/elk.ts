import ElkApi from 'elkjs/lib/elk-api';
import workerUrl from 'elkjs/lib/elk-worker.min.js?url';
import type { ElkNode } from 'elkjs/lib/elk-api';

/** Lays a graph out. */
export interface Elk {
  layout(graph: ElkNode): Promise<ElkNode>;
}

let started: Elk | null = null;

/** The layout library in a worker of its own, started once. */
export function elkWorker(): Elk {
  started ??= new ElkApi({ workerFactory: () => new Worker(workerUrl) });
  return started;
}
