import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createAfterPaint } from './after-paint';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** A browser that paints when it is told to. */
function browser() {
  let frames: (() => void)[] = [];
  const paint = () => {
    const due = frames;
    frames = [];
    for (const run of due) run();
    jest.advanceTimersByTime(0);
  };
  return { paints: (run: () => void) => void frames.push(run), paint };
}

describe('what waits for the paint', () => {
  test('runs after it, once, and only the last of what was asked for', () => {
    const { paints, paint } = browser();
    const ran: string[] = [];
    const after = createAfterPaint(paints);
    after.ask(() => ran.push('1'));
    after.ask(() => ran.push('12'));
    expect(ran).toEqual([]);
    paint();
    expect(ran).toEqual(['12']);
    jest.advanceTimersByTime(1000);
    paint();
    expect(ran).toEqual(['12']);
    after.ask(() => ran.push('123'));
    paint();
    expect(ran).toEqual(['12', '123']);
  });

  test('does not run once it is dropped, and what is asked for afterwards has a turn of its own', () => {
    const { paints, paint } = browser();
    const ran: string[] = [];
    const after = createAfterPaint(paints);
    after.ask(() => ran.push('typed'));
    after.drop();
    after.ask(() => ran.push('next'));
    paint();
    expect(ran).toEqual(['next']);
    after.ask(() => ran.push('gone'));
    after.drop();
    paint();
    jest.advanceTimersByTime(1000);
    expect(ran).toEqual(['next']);
  });

  test('runs without a paint after a tenth of a second: a page behind others paints nothing', () => {
    const ran: number[] = [];
    const after = createAfterPaint(() => undefined);
    after.ask(() => ran.push(1));
    jest.advanceTimersByTime(99);
    expect(ran).toEqual([]);
    jest.advanceTimersByTime(1);
    expect(ran).toEqual([1]);
  });
});
