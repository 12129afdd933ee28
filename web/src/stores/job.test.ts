import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { blankDesign, type Design } from '@torvek/core/document';
import { createPinia, setActivePinia } from 'pinia';
import { useJob } from './job';
import { useSession } from './session';

/** Two jobs on a server that answers each request when the test says so; and what the browser keeps. */
interface Call {
  method: string;
  path: string;
  body: Record<string, unknown>;
  answer(body: unknown, status?: number): void;
  fail(): void;
}
let calls: Call[] = [];
let kept = new Map<string, string>();
const realFetch = globalThis.fetch;

beforeEach(() => {
  calls = [];
  kept = new Map();
  jest.useFakeTimers();
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
    fetch: (path: string, init: { method: string; body?: string }) =>
      new Promise((resolve, reject) => {
        calls.push({
          method: init.method,
          path: path.replace('/api', ''),
          body: JSON.parse(init.body ?? '{}') as Call['body'],
          answer: (body, status = 200) => resolve(new Response(JSON.stringify(body), { status })),
          fail: () => reject(new TypeError('no network')),
        });
      }),
  });
  setActivePinia(createPinia());
  useSession().person = { id: 'person-1', name: 'Ada', roles: ['owner'] } as never;
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

const settle = async () => {
  for (let i = 0; i < 40; i += 1) await Promise.resolve();
};
/** Takes the first waiting request to a path. */
function take(path: string): Call {
  const found = calls.find((call) => call.path === path);
  if (found === undefined)
    throw new Error(`nothing was asked of ${path}: ${calls.map((one) => one.path).join(', ')}`);
  calls = calls.filter((call) => call !== found);
  return found;
}
const design = (speedKmH: number): Design => ({ ...blankDesign(), vehicle: { speedKmH } });
const answerJob = (job: string, version: number, speedKmH: number) => {
  take(`/jobs/${job}`).answer({ id: job, name: job, demo: false, version, design: design(speedKmH) });
  take(`/jobs/${job}/standing`).answer([]);
};
async function opened(job: string, version: number, speedKmH: number) {
  const store = useJob();
  const opening = store.open(job);
  await settle();
  for (const { path, answer } of calls) if (path.startsWith('/library')) answer({ parts: [], retired: [] });
  answerJob(job, version, speedKmH);
  await settle();
  await opening;
  return store;
}
const set = (store: ReturnType<typeof useJob>, speedKmH: number) =>
  store.change('speed', (draft) => void (draft.vehicle.speedKmH = speedKmH));
const recorded = (body: Record<string, unknown>, seq: number) => ({
  ...body,
  seq,
  sha256: 'a'.repeat(64),
  body: { kind: 'note', text: 'x' },
});

describe('two jobs, one after the other', () => {
  test('an entry whose network is lost while the next job opens goes to the job it was made in', async () => {
    const store = await opened('job-a', 3, 50);
    const recording = store.record({ id: 'entry-1', kind: 'note', text: 'pole covers on' });
    await settle();
    const first = take('/jobs/job-a/entries');
    await opened('job-b', 7, 80);
    first.fail();
    await settle();
    expect(await recording).toBeNull();
    // The job that is open knows nothing of it.
    expect(store.waiting).toEqual([]);
    await jest.advanceTimersByTimeAsync(3100);
    expect(calls.map(({ path }) => path).filter((path) => path.endsWith('entries'))).toEqual([
      '/jobs/job-a/entries',
    ]);
    const again = take('/jobs/job-a/entries');
    expect(again.body).toMatchObject({ id: 'entry-1', takenAt: first.body.takenAt });
    again.answer(recorded(again.body, 1));
    await settle();
    expect([store.id, store.recorded, [...kept.keys()]]).toEqual(['job-b', 0, []]);
  });

  test('a change made in the next job while one of the first is being saved is sent, and reads saved only then', async () => {
    const store = await opened('job-a', 3, 50);
    set(store, 60);
    await settle();
    const first = take('/jobs/job-a/changes');
    await opened('job-b', 7, 80);
    expect([store.saveState, store.version]).toEqual(['saved', 7]);
    set(store, 90);
    await settle();
    const second = take('/jobs/job-b/changes');
    expect([second.body.base, store.saveState]).toEqual([7, 'saving']);
    first.answer({ version: 4 });
    await settle();
    expect([store.saveState, store.version, store.pending.length]).toEqual(['saving', 7, 1]);
    second.answer({ version: 8 });
    await settle();
    expect([store.saveState, store.version, store.committed.vehicle.speedKmH]).toEqual(['saved', 8, 90]);
  });

  test('what others did in the first job does not reach the design of the next', async () => {
    const store = await opened('job-a', 3, 50);
    set(store, 60);
    await settle();
    const first = take('/jobs/job-a/changes');
    await opened('job-b', 7, 80);
    first.answer({ version: 5, design: design(61) });
    await settle();
    expect(store.committed.vehicle.speedKmH).toBe(80);
  });

  test('changes that wait go on from where they were when the first job is opened again, once each', async () => {
    const store = await opened('job-a', 3, 50);
    set(store, 60);
    await settle();
    take('/jobs/job-a/changes').fail();
    await settle();
    await opened('job-b', 7, 80);
    await opened('job-a', 3, 50);
    expect([store.committed.vehicle.speedKmH, store.saveState, store.pending.length]).toEqual([
      60,
      'waiting',
      1,
    ]);
    await jest.advanceTimersByTimeAsync(2100);
    expect(calls.filter(({ path }) => path === '/jobs/job-a/changes')).toHaveLength(1);
    take('/jobs/job-a/changes').answer({ version: 4 });
    await settle();
    expect([store.saveState, store.version, [...kept.keys()]]).toEqual(['saved', 4, []]);
  });

  test('an answer that comes after another job was opened changes nothing', async () => {
    const store = useJob();
    const slow = store.open('job-a');
    await settle();
    await opened('job-b', 7, 80);
    answerJob('job-a', 3, 50);
    await slow;
    expect([store.id, store.name, store.committed.vehicle.speedKmH]).toEqual(['job-b', 'job-b', 80]);
  });

  test('an entry on its way from a job that is left is never sent again as somebody else’s', async () => {
    const store = await opened('job-a', 3, 50);
    const recording = store.record({ id: 'entry-1', kind: 'note', text: 'pole covers on' });
    await settle();
    const first = take('/jobs/job-a/entries');
    await opened('job-b', 7, 80);
    useSession().person = { id: 'person-2', name: 'Bo', roles: ['owner'] } as never;
    await settle();
    first.fail();
    expect(await recording).toBeNull();
    await jest.advanceTimersByTimeAsync(10_000);
    expect(calls.filter(({ path }) => path.endsWith('entries'))).toEqual([]);
    expect([...kept.keys()]).toEqual(['torvek.waiting.person-1.job-a']);
  });

  test('when somebody else signs in, nothing more is sent as theirs; it lies kept for its author', async () => {
    const store = await opened('job-a', 3, 50);
    set(store, 60);
    await settle();
    take('/jobs/job-a/changes').fail();
    await settle();
    useSession().person = { id: 'person-2', name: 'Bo', roles: ['owner'] } as never;
    await settle();
    await jest.advanceTimersByTimeAsync(10_000);
    expect(calls.filter(({ path }) => path.endsWith('changes'))).toEqual([]);
    expect([store.loaded, [...kept.keys()]]).toEqual([false, ['torvek.pending.person-1.job-a']]);
  });
});

describe('the line', () => {
  const here = (version: number, entries: number) =>
    ({ kind: 'here', job: 'job-a', name: 'Renamed', version, entries }) as const;
  const asked = () => calls.filter(({ path, method }) => method === 'GET' && path.startsWith('/jobs/job-a'));

  test('says how far the job has come: what the page has is not read a second time', async () => {
    const store = await opened('job-a', 3, 50);
    calls.length = 0;
    await store.hear(here(3, 0));
    expect(asked()).toEqual([]);
    expect(store.name).toBe('Renamed');
  });

  test('a change or an entry between reading and listening is read', async () => {
    const store = await opened('job-a', 3, 50);
    for (const [version, speedKmH, entries] of [
      [4, 55, 0],
      [4, 55, 1],
    ] as const) {
      calls.length = 0;
      const hearing = store.hear(here(version, entries));
      await settle();
      const design = { ...store.committed, vehicle: { speedKmH } };
      take('/jobs/job-a').answer({ id: 'job-a', name: 'Renamed', demo: false, version, design });
      take('/jobs/job-a/standing').answer(entries === 0 ? [] : [recorded({ id: 'e-1', kind: 'note' }, 1)]);
      await hearing;
      expect([store.committed.vehicle.speedKmH, store.version, store.entries.length]).toEqual([
        speedKmH,
        version,
        entries,
      ]);
    }
  });
});

test('while something is typed the steps stay; they follow once it is a change', async () => {
  const job = await opened('a', 1, 40);
  const branch = (draft: Design) =>
    Object.assign(draft, {
      devices: { d: { tag: 'Heater', kind: 'heater' } },
      circuits: { c: { tag: 'Heater', role: 'branch', device: 'd' } },
    });
  const before = job.procedure;
  job.preview(branch);
  await jest.advanceTimersByTimeAsync(200);
  expect(Object.keys(job.design.devices)).toEqual(['d']);
  expect(job.procedure).toBe(before);
  job.preview(null);
  job.change('Heater', branch);
  expect(job.procedure.map(({ id }) => id)).not.toEqual(before.map(({ id }) => id));
});
