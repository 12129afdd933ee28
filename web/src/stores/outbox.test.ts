import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { RecordedEntry } from './job';
import { createOutbox, type WaitingEntry } from './outbox';

const realFetch = globalThis.fetch;
let sent: string[] = [];
let answer: (id: string) => Response | 'away' = () => 'away';
let kept: WaitingEntry[] = [];
let taken: string[] = [];
let saved = true;

beforeEach(() => {
  sent = [];
  kept = [];
  taken = [];
  saved = true;
  answer = () => 'away';
  jest.useFakeTimers();
  globalThis.fetch = ((_url: string, init: { body: string }) => {
    const { id } = JSON.parse(init.body) as { id: string };
    sent.push(id);
    const made = answer(id);
    return made === 'away' ? Promise.reject(new TypeError('no network')) : Promise.resolve(made);
  }) as typeof fetch;
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

const recorded = (id: string) => new Response(JSON.stringify({ id }));
const refusal = (message: string) =>
  new Response(JSON.stringify({ error: { code: 'gate-closed', message, issues: [] } }), { status: 409 });
const body = (id: string) => ({ id, kind: 'note', takenAt: '2026-11-25T14:03:00Z', text: id });
const open = () =>
  createOutbox({
    job: 'job-1',
    read: () => kept,
    write: (_job, waiting) => void (kept = waiting),
    ready: () => Promise.resolve(saved),
    taken: (entry: RecordedEntry) => Promise.resolve(void taken.push(entry.id)),
  });
const titles = (waiting: readonly WaitingEntry[]) => waiting.map(({ title, refused }) => [title, refused]);

describe('entries', () => {
  test('go straight to the server when it is there', async () => {
    answer = recorded;
    const outbox = open();
    expect((await outbox.send(body('a'), 'A', false))?.id).toBe('a');
    expect([taken, outbox.waiting.value]).toEqual([['a'], []]);
  });

  test('wait in their order while it is away, beyond the page, and go when it is back', async () => {
    const outbox = open();
    expect(await outbox.send(body('a'), 'A', false)).toBeNull();
    expect(await outbox.send(body('b'), 'B', false)).toBeNull();
    expect(titles(kept)).toEqual([
      ['A', null],
      ['B', null],
    ]);
    answer = recorded;
    await jest.advanceTimersByTimeAsync(3100);
    expect([taken, kept]).toEqual([['a', 'b'], []]);
  });

  test('left by an earlier page are taken up with their own time and id', async () => {
    kept = [{ body: body('old'), title: 'Old', refused: null }];
    answer = recorded;
    const outbox = open();
    outbox.takeUp();
    await jest.advanceTimersByTimeAsync(10);
    expect([sent, taken, outbox.waiting.value]).toEqual([['old'], ['old'], []]);
  });

  test('wait for the design that they are judged against', async () => {
    saved = false;
    answer = recorded;
    const outbox = open();
    await outbox.send(body('a'), 'A', true);
    await jest.advanceTimersByTimeAsync(100);
    expect(sent).toEqual([]);
    saved = true;
    await jest.advanceTimersByTimeAsync(3100);
    expect(taken).toEqual(['a']);
  });
});

describe('one that is closed', () => {
  test('sends nothing more, and keeps what the network lost behind what was kept meanwhile', async () => {
    let fail = (): void => undefined;
    globalThis.fetch = (() =>
      new Promise((_resolve, reject) => {
        fail = () => reject(new TypeError('no network'));
      })) as typeof fetch;
    const outbox = open();
    const sending = outbox.send(body('a'), 'A', false);
    outbox.close();
    kept = [{ body: body('later'), title: 'Later', refused: null }];
    fail();
    expect(await sending).toBeNull();
    expect(titles(kept)).toEqual([
      ['Later', null],
      ['A', null],
    ]);
    expect(await outbox.send(body('b'), 'B', false)).toBeNull();
    await jest.advanceTimersByTimeAsync(10_000);
    expect([sent, taken, titles(kept).map(([title]) => title)]).toEqual([[], [], ['Later', 'A', 'B']]);
  });
});

describe('a refusal', () => {
  test('of an entry that is sent at once goes to whoever sends it', async () => {
    answer = () => refusal('the gate is closed');
    const outbox = open();
    await expect(outbox.send(body('a'), 'A', false)).rejects.toThrow('the gate is closed');
    expect(outbox.waiting.value).toEqual([]);
  });

  test('of one that waited is kept with its reason; others go on; it can be tried again or given up', async () => {
    const outbox = open();
    await outbox.send(body('a'), 'A', false);
    await outbox.send(body('b'), 'B', false);
    answer = (id) => (id === 'a' ? refusal('the gate is closed') : recorded(id));
    await jest.advanceTimersByTimeAsync(3100);
    expect([titles(kept), taken]).toEqual([[['A', 'the gate is closed']], ['b']]);
    outbox.retry('a');
    await jest.advanceTimersByTimeAsync(10);
    expect(titles(kept)).toEqual([['A', 'the gate is closed']]);
    outbox.drop('a');
    expect(kept).toEqual([]);
  });
});
