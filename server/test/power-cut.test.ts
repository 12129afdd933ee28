import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { cp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, test } from '@jest/globals';
import { blankDesign, edit } from '@torvek/core/document';
import { positionRequest } from './bench-room';
import { killAll, killProcess, startProcess } from './real-process';
import { long, some } from '../../scripts/testing/thorough';

/** What a power cut leaves: whatever was fsynced, and of the rest any older or half written state. */
const parent = mkdtempSync(join(tmpdir(), 'torvek-power-'));
afterEach(killAll);
afterAll(() => rmSync(parent, { recursive: true, force: true }));

const owner = { name: 'Test', password: 'a long enough one' };

async function client(url: string) {
  let cookie = '';
  const send = async (path: string, body?: object | Uint8Array) => {
    const response = await fetch(url + path, {
      ...(body !== undefined && {
        method: 'POST',
        body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body),
      }),
      headers: { cookie, ...(body instanceof Uint8Array && { 'content-type': 'application/octet-stream' }) },
    });
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    const bytes = new Uint8Array(await response.arrayBuffer());
    return {
      status: response.status,
      bytes,
      body: (response.headers.get('content-type')?.includes('json')
        ? JSON.parse(Buffer.from(bytes).toString('utf8'))
        : null) as Record<string, unknown>,
    };
  };
  const first = await send('/api/owner', { id: 'person-test', ...owner });
  if (first.status !== 200) await send('/api/session', owner);
  return send;
}
type Send = Awaited<ReturnType<typeof client>>;

const job = 'job-power';
const design = blankDesign();
const change = (base: number) => {
  const { forward, inverse } = edit(design, (draft) => void (draft.vehicle.speedKmH = 100 + base))!;
  return { id: `c-${base}`, base, label: 'speed', at: '2026-11-25T08:00:00Z', forward, inverse };
};

/** Some of everything, each of it acknowledged. */
async function work(send: Send, from: number): Promise<void> {
  const ok = async (path: string, body: object | Uint8Array) => {
    const { status, body: answer } = await send(path, body);
    if (status !== 200) throw new Error(`${path} answered ${status}: ${JSON.stringify(answer)}`);
  };
  for (let i = from; i < from + 5; i += 1) {
    await ok(`/api/jobs/${job}/changes`, change(i));
    await ok(`/api/jobs/${job}/entries`, positionRequest(`e-${i}`, i % 3));
  }
  await ok('/api/jobs', { id: `job-${from}`, name: `Job ${from}` });
  await ok(`/api/jobs/${job}/files?name=note.txt`, Buffer.from(`torque ${from} Nm`));
  await ok('/api/people', {
    id: `person-${from}`,
    name: `Person ${from}`,
    roles: ['technician'],
    password: 'another long one',
  });
  await ok('/api/instruments', {
    id: `i-${from}`,
    kind: 'meter',
    name: 'Meter',
    serial: `S${from}`,
    calibrationDue: null,
  });
}

/** Everything that was acknowledged is there, once, and fits. */
async function expectAll(url: string): Promise<Send> {
  const send = await client(url);
  const verified = (await send(`/api/jobs/${job}/verify`)).body;
  expect(verified).toMatchObject({ ok: true, entries: 10, versions: 10, files: 2, problems: [] });
  expect((await send(`/api/jobs/${job}`)).body).toMatchObject({
    version: 10,
    design: { vehicle: { speedKmH: 109 } },
  });
  expect((await send('/api/shop/verify')).body).toMatchObject({ ok: true, problems: [] });
  const ids = async (path: string) =>
    ((await send(path)).body as unknown as { id: string }[]).map(({ id }) => id).sort();
  expect(await ids('/api/jobs')).toEqual(['job-0', 'job-5', job]);
  expect(await ids('/api/people')).toEqual(['person-0', 'person-5', 'person-test']);
  expect(await ids('/api/instruments')).toEqual(['i-0', 'i-5']);
  return send;
}

/** The socket by which a folder is held is no file. */
const isFile = (path: string) => !path.endsWith('/in-use');

/** The folder as the disk has it after the cut, and the database of some time before. */
let after = '';
let early = '';
beforeAll(async () => {
  const folder = join(parent, 'live');
  mkdirSync(folder);
  const { child, url } = await startProcess(folder);
  const send = await client(url);
  await send('/api/jobs', { id: job, name: 'Power' });
  await work(send, 0);
  early = join(parent, 'early');
  // Not at once: the server closes a connection that is silent for seconds, and this process would not see it in time.
  await cp(join(folder, 'database'), early, { recursive: true });
  await work(send, 5);
  after = join(parent, 'after');
  cpSync(folder, after, { recursive: true, filter: isFile });
  await killProcess(child);
});

let count = 0;
function cut(alter: (folder: string) => void): string {
  count += 1;
  const folder = join(parent, `cut-${count}`);
  cpSync(after, folder, { recursive: true });
  alter(folder);
  return folder;
}
const exchangeDatabase = (folder: string) => {
  rmSync(join(folder, 'database'), { recursive: true });
  cpSync(early, join(folder, 'database'), { recursive: true });
};
/** Every file of the database with its second half gone or full of noughts. */
const halveDatabase = (folder: string) => {
  for (const entry of readdirSync(join(folder, 'database'), { recursive: true, withFileTypes: true })) {
    if (!entry.isFile()) continue;
    const path = join(entry.parentPath, entry.name);
    const { size } = statSync(path);
    if (size > 1)
      writeFileSync(
        path,
        Buffer.concat([readFileSync(path).subarray(0, size >> 1), Buffer.alloc(size >> 2)]),
      );
  }
};

describe('after a power cut', () => {
  test.each(
    some<[string, (folder: string) => void]>([
      ['with a database that does not open', halveDatabase],
      ['with the database of some time before', exchangeDatabase],
      [
        'with half a line at the end of each journal',
        (folder: string) => {
          for (const name of readdirSync(join(folder, 'journal')))
            writeFileSync(join(folder, 'journal', name), `${'a'.repeat(64)} {"n":99,"prev`, { flag: 'a' });
        },
      ],
    ]),
  )('%s everything acknowledged is there, and it goes on', async (_what, alter) => {
    const folder = cut(alter);
    const { url, child } = await startProcess(folder);
    const send = await expectAll(url);
    expect((await send(`/api/jobs/${job}/changes`, change(10))).body).toEqual({ version: 11 });
    await killProcess(child);
    // The start after it, too, finds everyone's password and everything.
    const again = await startProcess(folder);
    const back = await client(again.url);
    expect((await back(`/api/jobs/${job}/verify`)).body).toMatchObject({
      ok: true,
      entries: 10,
      versions: 11,
    });
  });

  test('a database that was behind after a mere kill is brought up', async () => {
    const folder = cut(exchangeDatabase);
    // This folder, this start of the machine: not a copy.
    const { dev, ino } = statSync(folder);
    const running = JSON.parse(readFileSync(join(folder, 'running'), 'utf8')) as { boot: string };
    writeFileSync(join(folder, 'running'), JSON.stringify({ boot: running.boot, folder: `${dev}:${ino}` }));
    const { url } = await startProcess(folder);
    await expectAll(url);
    expect(existsSync(join(folder, 'set-aside'))).toBe(false);
  });
});

describe('a restore that was killed', () => {
  let backup: Uint8Array;
  let folder = '';
  /** A shop into which another one is restored; stopped after the restore was decided. */
  async function decided(): Promise<void> {
    if (backup === undefined) {
      const { url, child } = await startProcess(cut(() => undefined));
      backup = (await (await client(url))('/api/backup')).bytes;
      await killProcess(child);
    }
    folder = mkdtempSync(join(parent, 'restored-'));
    const { url, child } = await startProcess(folder);
    await (
      await client(url)
    )('/api/jobs', { id: 'job-other', name: 'Other' });
    await killProcess(child);
    const { stageBackup } = await import('../src/take-away/restore');
    const staged = await stageBackup({
      bytes: backup,
      dataFolder: folder,
      by: 'Test',
      now: '2026-11-28T12:00:00.000Z',
    });
    expect(staged).toMatchObject({ ok: true, report: { rows: { jobs: 3, entries: 10, changes: 10 } } });
  }

  long('before it was decided: nothing has changed, and nothing lies about', async () => {
    await decided();
    rmSync(join(folder, 'restore.json'));
    const { url } = await startProcess(folder);
    const send = await client(url);
    expect((await send('/api/jobs')).body).toMatchObject([{ id: 'job-other' }]);
    expect(existsSync(join(folder, 'restore-staged'))).toBe(false);
  });

  test.each(
    some<[string, () => void]>([
      [
        'with the old journals aside',
        () => {
          const kept = join(folder, 'before-restore', '2026-11-28T12-00-00-000Z');
          mkdirSync(kept, { recursive: true });
          renameSync(join(folder, 'journal'), join(kept, 'journal'));
        },
      ],
      [
        'with the new journals in place',
        () => {
          const kept = join(folder, 'before-restore', '2026-11-28T12-00-00-000Z');
          mkdirSync(kept, { recursive: true });
          renameSync(join(folder, 'journal'), join(kept, 'journal'));
          renameSync(join(folder, 'restore-staged', 'journal'), join(folder, 'journal'));
        },
      ],
      ['right after it was decided', () => undefined],
    ]),
  )('%s it is carried to its end', async (_what, alter) => {
    await decided();
    alter();
    const { url } = await startProcess(folder);
    await expectAll(url);
    expect(existsSync(join(folder, 'restore.json'))).toBe(false);
    expect(readdirSync(join(folder, 'before-restore', '2026-11-28T12-00-00-000Z'))).toContain('journal');
  });

  long('replaces a database that does not open', async () => {
    await decided();
    halveDatabase(folder);
    const { url } = await startProcess(folder);
    await expectAll(url);
  });
});

long('an import that was killed while it wrote leaves no half a job, and can be repeated', async () => {
  const { url, child } = await startProcess(cut(() => undefined));
  const { bytes } = await (await client(url))(`/api/jobs/${job}/export`);
  await killProcess(child);
  const folder = mkdtempSync(join(parent, 'import-'));
  const first = await startProcess(folder);
  await client(first.url);
  await killProcess(first.child);
  // Half the chain under its own name that is no name yet.
  writeFileSync(
    join(folder, 'journal', `${job}.jsonl.part`),
    readFileSync(join(after, 'journal', `${job}.jsonl`)).subarray(0, 5000),
  );
  const again = await startProcess(folder);
  const send = await client(again.url);
  expect((await send('/api/jobs')).body).toEqual([]);
  expect((await send('/api/import', bytes)).body).toMatchObject({ ok: true, entries: 10, changes: 10 });
  expect((await send(`/api/jobs/${job}/verify`)).body).toMatchObject({ ok: true, entries: 10 });
  await killProcess(again.child);
  // A whole chain whose rows a kill kept from the database: it is here at the next start.
  const orphan = mkdtempSync(join(parent, 'orphan-'));
  const third = await startProcess(orphan);
  await client(third.url);
  await killProcess(third.child);
  cpSync(join(folder, 'journal', `${job}.jsonl`), join(orphan, 'journal', `${job}.jsonl`));
  const last = await startProcess(orphan);
  expect((await (await client(last.url))('/api/jobs')).body).toMatchObject([
    { id: job, version: 10, entries: 10 },
  ]);
});
