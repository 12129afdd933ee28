import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createIdle } from './idle';

/** A browser that says when it has nothing to do. */
const asked: (() => void)[] = [];
const browser = globalThis as unknown as Record<string, unknown>;
const kept = {
  idle: browser.requestIdleCallback,
  cancel: browser.cancelIdleCallback,
  window: browser.window,
};

beforeEach(() => {
  asked.length = 0;
  browser.requestIdleCallback = (run: () => void) => asked.push(run);
  browser.cancelIdleCallback = (handle: number) => (asked[handle - 1] = () => undefined);
});
afterEach(() => {
  browser.requestIdleCallback = kept.idle;
  browser.cancelIdleCallback = kept.cancel;
  browser.window = kept.window;
  jest.useRealTimers();
});
const nothingToDo = () => asked.splice(0).forEach((run) => run());

describe('work for when the browser has nothing better to do', () => {
  test('is done once, by the last that was asked for', () => {
    const idle = createIdle();
    const done: string[] = [];
    for (const name of ['a', 'b', 'c']) idle.ask(() => done.push(name));
    expect([asked.length, done]).toEqual([1, []]);
    nothingToDo();
    expect(done).toEqual(['c']);
    idle.ask(() => done.push('d'));
    nothingToDo();
    expect(done).toEqual(['c', 'd']);
  });

  test('what is asked while it runs is done the next time', () => {
    const idle = createIdle();
    const done: number[] = [];
    const again = () => {
      done.push(done.length);
      if (done.length < 3) idle.ask(again);
    };
    idle.ask(again);
    nothingToDo();
    expect(done).toEqual([0]);
    nothingToDo();
    nothingToDo();
    expect(done).toEqual([0, 1, 2]);
  });

  test('what was dropped is not done, and something else can be asked for afterwards', () => {
    const idle = createIdle();
    const done: string[] = [];
    idle.ask(() => done.push('dropped'));
    idle.drop();
    nothingToDo();
    expect(done).toEqual([]);
    idle.ask(() => done.push('kept'));
    nothingToDo();
    expect(done).toEqual(['kept']);
  });

  test('a browser that cannot say does it a little later', () => {
    jest.useFakeTimers();
    delete browser.requestIdleCallback;
    browser.window = globalThis;
    const done: string[] = [];
    const idle = createIdle();
    idle.ask(() => done.push('later'));
    jest.advanceTimersByTime(99);
    expect(done).toEqual([]);
    jest.advanceTimersByTime(1);
    expect(done).toEqual(['later']);
  });
});
