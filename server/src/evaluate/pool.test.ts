import { EventEmitter } from 'node:events';
import type { Worker } from 'node:worker_threads';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Answer } from './answer';
import { EvaluationPool } from './pool';

/** A thread that answers when the test says so. */
class FakeThread extends EventEmitter {
  asked: Uint8Array[] = [];
  ended = false;
  unref = () => undefined;
  postMessage = (bytes: Uint8Array) => void this.asked.push(bytes);
  terminate = () => {
    this.ended = true;
    return Promise.resolve(0);
  };
  ready = () => this.emit('message', { ready: true });
  answer = (label: string) => this.emit('message', { answer: label as unknown as Answer });
}
let threads: FakeThread[] = [];
const open = (more: object = {}) =>
  new EvaluationPool({
    threads: 2,
    limitMs: 1000,
    mostWaiting: 3,
    start: () => {
      threads.push(new FakeThread());
      return threads.at(-1) as unknown as Worker;
    },
    ...more,
  });
const bytes = (n: number) => new Uint8Array([n]);
const settle = async () => {
  for (let i = 0; i < 10; i += 1) await Promise.resolve();
};
beforeEach(() => {
  threads = [];
  jest.useFakeTimers();
});
afterEach(() => void jest.useRealTimers());

describe('the pool', () => {
  test('starts threads as they are needed and gives each one design at a time', async () => {
    const pool = open();
    const first = pool.answer(bytes(1));
    const second = pool.answer(bytes(2));
    const third = pool.answer(bytes(3));
    expect(threads).toHaveLength(2);
    expect(threads[0]!.asked).toEqual([]);
    threads.forEach((one) => one.ready());
    expect(threads.map(({ asked }) => asked.map(([n]) => n))).toEqual([[1], [2]]);
    threads[1]!.answer('two');
    expect(await second).toBe('two');
    expect(threads[1]!.asked.map(([n]) => n)).toEqual([2, 3]);
    threads[1]!.answer('three');
    threads[0]!.answer('one');
    expect(await Promise.all([first, third])).toEqual(['one', 'three']);
    expect(threads).toHaveLength(2);
  });

  test('gives up what takes too long; the thread ends, and the next one gets a new one', async () => {
    const pool = open({ threads: 1 });
    const slow = pool.answer(bytes(1));
    const next = pool.answer(bytes(2));
    // Starting does not count.
    await jest.advanceTimersByTimeAsync(5000);
    threads[0]!.ready();
    const refused = expect(slow).rejects.toMatchObject({ status: 422, code: 'too-long' });
    await jest.advanceTimersByTimeAsync(1001);
    await refused;
    expect([threads[0]!.ended, threads.length]).toEqual([true, 2]);
    threads[1]!.ready();
    threads[1]!.answer('two');
    expect(await next).toBe('two');
  });

  test('turns away what more than its queue holds, at once', async () => {
    const pool = open({ threads: 1 });
    const kept = [1, 2, 3].map((n) => pool.answer(bytes(n)));
    await expect(pool.answer(bytes(4))).rejects.toMatchObject({ status: 503, code: 'busy' });
    await expect(open({ mostWaitingBytes: 2 }).answer(new Uint8Array(3))).rejects.toMatchObject({
      status: 503,
    });
    const gone = kept.map((one) => expect(one).rejects.toMatchObject({ code: 'busy' }));
    await pool.close();
    await Promise.all(gone);
    expect(threads[0]!.ended).toBe(true);
  });

  test('tells whoever asked when a thread dies, and goes on', async () => {
    const pool = open({ threads: 1 });
    const lost = pool.answer(bytes(1));
    threads[0]!.ready();
    const refused = expect(lost).rejects.toThrow('out of memory');
    threads[0]!.emit('error', new Error('out of memory'));
    threads[0]!.emit('exit', 1);
    await refused;
    await settle();
    const next = pool.answer(bytes(2));
    threads[1]!.ready();
    threads[1]!.answer('two');
    expect(await next).toBe('two');
  });

  test('does not start threads for ever when none comes up', async () => {
    const pool = open();
    const lost = [1, 2].map((n) => expect(pool.answer(bytes(n))).rejects.toThrow('no thread'));
    threads[0]!.emit('error', new Error('no thread'));
    threads[1]!.emit('error', new Error('no thread'));
    await Promise.all(lost);
    await settle();
    expect(threads).toHaveLength(2);
  });
});
