import type { Worker } from 'node:worker_threads';
import { HttpError } from '../http/errors';
import { startThread } from '../threads';
import type { Evaluated } from '../threads/evaluate-thread';
import type { Answer } from './answer';

interface Asked {
  bytes: Uint8Array;
  resolve(answer: Answer): void;
  reject(error: Error): void;
}

interface Thread {
  worker: Worker;
  /** What it is at; null: it waits for work. */
  at: Asked | null;
  ready: boolean;
  timer: NodeJS.Timeout | undefined;
}

export interface PoolOptions {
  threads?: number;
  /** Longest time of one evaluation, ms; starting a thread does not count. */
  limitMs?: number;
  /** More than these, or more than these bytes, are turned away. */
  mostWaiting?: number;
  mostWaitingBytes?: number;
  start?: () => Worker;
}

const busy = () =>
  new HttpError(503, 'busy', 'too many designs are being evaluated; ask again in a few seconds');
const tooLong = (limitMs: number) =>
  new HttpError(422, 'too-long', `evaluating this takes more than ${limitMs / 1000} s and was given up`, [
    { path: 'document', message: 'takes too long to evaluate' },
  ]);

/** Threads that evaluate whole designs for anybody: whatever is sent, no other request waits for it. */
export class EvaluationPool {
  private readonly threads = new Set<Thread>();
  private readonly waiting: Asked[] = [];
  private readonly options: Required<PoolOptions>;

  constructor(options: PoolOptions = {}) {
    this.options = {
      threads: 2,
      limitMs: 10_000,
      mostWaiting: 400,
      mostWaitingBytes: 64 * 1024 * 1024,
      start: () => startThread('evaluate-thread', null),
      ...options,
    };
  }

  /** @throws HttpError when it takes too long, or too many wait */
  answer(bytes: Uint8Array): Promise<Answer> {
    const { mostWaiting, mostWaitingBytes } = this.options;
    const queued = this.waiting.reduce((sum, one) => sum + one.bytes.length, 0);
    if (this.waiting.length >= mostWaiting || queued + bytes.length > mostWaitingBytes)
      return Promise.reject(busy());
    return new Promise((resolve, reject) => {
      this.waiting.push({ bytes, resolve, reject });
      this.next();
    });
  }

  async close(): Promise<void> {
    const ended = [...this.threads].map((thread) => this.end(thread, busy()));
    for (const { reject } of this.waiting.splice(0)) reject(busy());
    await Promise.all(ended);
  }

  private next(): void {
    if (this.waiting.length === 0) return;
    const free = [...this.threads].find(({ at, ready }) => at === null && ready);
    if (free !== undefined) this.give(free, this.waiting.shift()!);
    // One that starts will take what waits.
    else if (
      this.threads.size < this.options.threads &&
      [...this.threads].filter(({ ready }) => !ready).length < this.waiting.length
    )
      this.begin();
  }

  private give(thread: Thread, asked: Asked): void {
    thread.at = asked;
    const { limitMs } = this.options;
    thread.timer = setTimeout(() => void this.end(thread, tooLong(limitMs)), limitMs);
    thread.worker.postMessage(asked.bytes);
  }

  private begin(): void {
    const worker = this.options.start();
    const thread: Thread = { worker, at: null, ready: false, timer: undefined };
    this.threads.add(thread);
    worker.on('message', (message: Evaluated) => {
      const { at } = thread;
      clearTimeout(thread.timer);
      thread.at = null;
      thread.ready = true;
      if ('answer' in message) at?.resolve(message.answer);
      else if ('failed' in message) at?.reject(new Error(message.failed));
      this.next();
    });
    // Out of memory, or a fault of ours: who asked is told, the next one gets a new thread.
    worker.on('error', (error) => void this.end(thread, error));
    worker.on('exit', () => void this.end(thread, new Error('a thread that evaluates has ended')));
    // It holds up no end of the server: last, because listening to it takes that back.
    worker.unref();
  }

  private async end(thread: Thread, error: Error): Promise<void> {
    if (!this.threads.delete(thread)) return;
    clearTimeout(thread.timer);
    const { at, ready } = thread;
    thread.at = null;
    at?.reject(error);
    // One that never came up will not the next time either: nobody waits for it.
    if (!ready) for (const { reject } of this.waiting.splice(0)) reject(error);
    await thread.worker.terminate();
    this.next();
  }
}
