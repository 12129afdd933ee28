import { hash } from 'node:crypto';
import { parentPort, workerData } from 'node:worker_threads';
import { ChainWalk, type StoredEntry } from '@torvek/core/record';

/** The thread of `threadWalker`: takes pieces of a chain, answers with what it found. */
const walk = new ChainWalk(workerData as string, null, { hash: (text) => hash('sha256', text, 'hex') });

parentPort!.on('message', (message: StoredEntry[] | 'end') => {
  if (message === 'end') return parentPort!.postMessage(walk.end());
  for (const row of message) walk.take(row);
  parentPort!.postMessage('taken');
});
