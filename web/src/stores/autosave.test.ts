import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { applyOperations, blankDesign, edit, type Design } from '@torvek/core/document';
import { createAutosave, type MadeChange, type PendingChange } from './autosave';

interface Call {
  body: { id: string; base: number; own: string[]; forward: unknown[] };
  answer(status: number, body: unknown): void;
  fail(): void;
}

/** A server that answers when the test says so. */
let calls: Call[] = [];
const realFetch = globalThis.fetch;
beforeEach(() => {
  calls = [];
  keptChanges = [];
  jest.useFakeTimers();
  globalThis.fetch = ((_url: string, init: { body: string }) =>
    new Promise((resolve, reject) => {
      calls.push({
        body: JSON.parse(init.body) as Call['body'],
        answer: (status, body) => resolve(new Response(JSON.stringify(body), { status })),
        fail: () => reject(new TypeError('no network')),
      });
    })) as typeof fetch;
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

/** Lets every promise that is ready run on. */
const settle = async () => {
  for (let i = 0; i < 20; i += 1) await Promise.resolve();
};

function changeOf(design: Design, id: string, recipe: (draft: Design) => void): MadeChange {
  const { forward, inverse } = edit(design, (draft) => recipe(draft as Design))!;
  return { id, label: id, at: '2026-11-25T08:00:00Z', forward, inverse };
}
const speed = (id: string, value: number) =>
  changeOf(blankDesign(), id, (draft) => void (draft.vehicle.speedKmH = value));
const wheelbase = (id: string, value: number) =>
  changeOf(blankDesign(), id, (draft) => void (draft.vehicle.wheelbaseM = value));

/** What the browser keeps beyond the page. */
let keptChanges: PendingChange[] = [];
const keeper = {
  read: () => keptChanges,
  write: (_job: string, changes: PendingChange[]) => void (keptChanges = changes),
};

function bench() {
  const rebased: Design[] = [];
  const autosave = createAutosave({
    job: 'job-1',
    version: 5,
    keeper,
    rebase: (design) => rebased.push(design),
  });
  return { autosave, rebased };
}

describe('saving', () => {
  test('one after another, each on the version it was made on and on top of one’s own', async () => {
    const { autosave } = bench();
    autosave.push(speed('a', 50));
    autosave.push(wheelbase('b', 4));
    await settle();
    expect(calls.map(({ body }) => [body.id, body.base])).toEqual([['a', 5]]);
    expect(autosave.state.value).toBe('saving');
    calls[0]!.answer(200, { version: 6 });
    await settle();
    expect(calls.map(({ body }) => [body.id, body.base, body.own])).toEqual([
      ['a', 5, []],
      ['b', 5, ['a']],
    ]);
    calls[1]!.answer(200, { version: 7 });
    await settle();
    expect([autosave.state.value, autosave.version.value, autosave.queue.value]).toEqual(['saved', 7, []]);
  });

  test('others’ changes arrive with the answer', async () => {
    const { autosave, rebased } = bench();
    autosave.push(speed('a', 50));
    await settle();
    const theirs = { ...blankDesign(), vehicle: { wheelbaseM: 3 } };
    calls[0]!.answer(200, { version: 9, design: theirs });
    await settle();
    expect([autosave.version.value, rebased]).toEqual([9, [theirs]]);
  });

  test('without a server the change waits, is tried again with the same id, and is saved', async () => {
    const { autosave } = bench();
    autosave.push(speed('a', 50));
    await settle();
    calls[0]!.fail();
    await settle();
    expect([autosave.state.value, autosave.queue.value.length]).toEqual(['waiting', 1]);
    await jest.advanceTimersByTimeAsync(2000);
    expect(calls.map(({ body }) => body.id)).toEqual(['a', 'a']);
    calls[1]!.answer(503, { error: { code: 'internal', message: 'later' } });
    await settle();
    await jest.advanceTimersByTimeAsync(2000);
    calls[2]!.answer(200, { version: 6 });
    await settle();
    expect(autosave.state.value).toBe('saved');
  });

  test('whoever waits for the queue learns whether it was saved', async () => {
    const { autosave } = bench();
    expect(await autosave.settled()).toBe(true);
    autosave.push(speed('a', 50));
    const waiting = autosave.settled();
    await settle();
    calls[0]!.answer(422, { error: { code: 'invalid-input', message: 'no', issues: [] } });
    expect(await waiting).toBe(false);
  });
});

describe('a page that goes before its changes are saved', () => {
  test('leaves them to the next one, which sends them with the same ids on the same version', async () => {
    const first = bench();
    first.autosave.push(speed('a', 50));
    first.autosave.push(wheelbase('b', 4));
    await settle();
    calls[0]!.fail();
    await settle();
    expect(keptChanges.map(({ id }) => id)).toEqual(['a', 'b']);

    const second = createAutosave({ job: 'job-1', version: 9, keeper, rebase: () => undefined });
    expect(second.takeUp().map(({ id }) => id)).toEqual(['a', 'b']);
    await settle();
    expect(calls[1]!.body).toMatchObject({ id: 'a', base: 5 });
    calls[1]!.answer(200, { version: 10 });
    await settle();
    expect(calls[2]!.body).toMatchObject({ id: 'b', base: 5, own: ['a'] });
    calls[2]!.answer(200, { version: 11 });
    await settle();
    expect([second.state.value, keptChanges]).toEqual(['saved', []]);
  });
});

describe('trouble', () => {
  test('a clash keeps the change and what followed it in its place; mine on top is sent on their version with a new inverse', async () => {
    const { autosave, rebased } = bench();
    autosave.push(speed('mine', 50));
    autosave.push(speed('later', 55));
    await settle();
    const theirs: Design = { ...blankDesign(), vehicle: { speedKmH: 70 } };
    calls[0]!.answer(409, { error: { code: 'clash', message: 'meets “speed”', version: 6, design: theirs } });
    await settle();
    expect([autosave.state.value, autosave.queue.value.length, autosave.trouble.value?.theirs]).toEqual([
      'clash',
      2,
      theirs,
    ]);
    expect(calls).toHaveLength(1);
    autosave.insist();
    await settle();
    expect(rebased).toEqual([theirs]);
    expect(calls[1]!.body).toMatchObject({ id: 'mine', base: 6 });
    const [mine] = autosave.queue.value;
    const after = applyOperations(theirs, mine!.forward);
    expect(after.vehicle.speedKmH).toBe(50);
    expect(applyOperations(after, mine!.inverse)).toEqual(theirs);
  });

  test('a clash in one place does not hold up changes of others; mine goes on top of all of them', async () => {
    const { autosave, rebased } = bench();
    autosave.push(speed('mine', 50));
    autosave.push(wheelbase('elsewhere', 4));
    await settle();
    const theirs: Design = { ...blankDesign(), vehicle: { speedKmH: 70 } };
    calls[0]!.answer(409, { error: { code: 'clash', message: 'meets “speed”', version: 6, design: theirs } });
    await settle();
    expect(calls[1]!.body).toMatchObject({ id: 'elsewhere', base: 5 });
    calls[1]!.answer(200, { version: 7 });
    await settle();
    expect([autosave.state.value, autosave.queue.value.map(({ id }) => id)]).toEqual(['clash', ['mine']]);
    expect(autosave.trouble.value?.theirs?.vehicle).toEqual({ speedKmH: 70, wheelbaseM: 4 });
    autosave.push(wheelbase('again', 5));
    await settle();
    calls[2]!.answer(200, { version: 8 });
    await settle();
    autosave.insist();
    await settle();
    expect(rebased.at(-1)?.vehicle).toEqual({ speedKmH: 70, wheelbaseM: 5 });
    expect(calls[3]!.body).toMatchObject({ id: 'mine', base: 8 });
  });

  test('a second one in trouble waits for its turn; giving up the first loses nothing of other places', async () => {
    const { autosave } = bench();
    autosave.push(speed('mine', 50));
    autosave.push(wheelbase('second', 4));
    autosave.push(speed('mine too', 55));
    await settle();
    const clash = { error: { code: 'clash', message: 'meets', version: 6, design: blankDesign() } };
    calls[0]!.answer(409, clash);
    await settle();
    calls[1]!.answer(409, clash);
    await settle();
    expect([calls.length, autosave.trouble.value?.change.id]).toEqual([2, 'mine']);
    autosave.drop();
    await settle();
    expect(autosave.queue.value.map(({ id }) => id)).toEqual(['second']);
    expect(calls[2]!.body).toMatchObject({ id: 'second' });
    calls[2]!.answer(409, clash);
    await settle();
    expect(autosave.trouble.value?.change.id).toBe('second');
  });

  test('a refused change stops what follows in its place until it is given up', async () => {
    const { autosave } = bench();
    autosave.push(speed('a', 50));
    autosave.push(speed('b', 60));
    await settle();
    calls[0]!.answer(422, {
      error: { code: 'invalid-input', message: 'vehicle.speedKmH is wrong', issues: [] },
    });
    await settle();
    expect([autosave.state.value, autosave.trouble.value?.message]).toEqual([
      'refused',
      'vehicle.speedKmH is wrong',
    ]);
    await jest.advanceTimersByTimeAsync(10_000);
    expect(calls).toHaveLength(1);
    autosave.drop();
    expect([autosave.state.value, autosave.queue.value]).toEqual(['saved', []]);
  });
});
