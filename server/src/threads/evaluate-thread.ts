import { parentPort } from 'node:worker_threads';
import { answerTo, type Answer } from '../evaluate/answer';

/** A thread that evaluates whole designs, one after another. */
export type Evaluated = { ready: true } | { answer: Answer } | { failed: string };

const say = (message: Evaluated) => parentPort!.postMessage(message);

parentPort!.on('message', (bytes: Uint8Array) => {
  try {
    say({ answer: answerTo(bytes) });
  } catch (error) {
    say({ failed: error instanceof Error ? (error.stack ?? error.message) : 'failed' });
  }
});
say({ ready: true });
