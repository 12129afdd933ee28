import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, expect, test } from '@jest/globals';
import { edit, blankDesign, type Design } from '@torvek/core/document';
import { positionRequest } from './bench-room';

/** The real process on a real folder: the lock, and what a kill leaves behind. */
let folder = '';
const running = new Set<ChildProcess>();

afterEach(() => {
  for (const child of running) child.kill('SIGKILL');
  running.clear();
  if (folder !== '') rmSync(folder, { recursive: true, force: true });
});

async function start(): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/src/main.ts'], {
    env: { ...process.env, TORVEK_DATA: folder, PORT: '0', NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.add(child);
  let errors = '';
  child.stderr!.on('data', (chunk) => (errors += String(chunk)));
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout!.on('data', (chunk) => {
      const match = /http:\S+\d/.exec(String(chunk));
      if (match !== null) resolve(match[0]);
    });
    child.once('exit', () => reject(new Error(errors)));
  });
  return { child, url };
}

async function kill(child: ChildProcess): Promise<void> {
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
  running.delete(child);
}

async function post(
  url: string,
  path: string,
  body: unknown,
): Promise<{ status: number; body: Record<string, unknown> }> {
  const response = await fetch(url + path, { method: 'POST', body: JSON.stringify(body) });
  return { status: response.status, body: (await response.json()) as Record<string, unknown> };
}

test('a second process on the same folder is refused with a clear message', async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-lock-'));
  await start();
  await expect(start()).rejects.toThrow(/is in use by another Torvek process/);
});

test('kills during writes lose nothing acknowledged, and repeated requests double nothing', async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-kill-'));
  const acknowledged = new Set<string>();
  let design: Design = blankDesign();
  let version = 0;
  let unanswered: { path: string; body: { id: string } }[] = [];
  for (let round = 0; round < 3; round += 1) {
    const { child, url } = await start();
    await post(url, '/api/jobs', { id: 'job-kill', name: 'Kill' });
    for (const { path, body } of unanswered) {
      const answer = await post(url, path, body);
      expect(answer.status).toBe(200);
      acknowledged.add(body.id);
      if (path.endsWith('changes')) version = answer.body.version as number;
    }
    unanswered = [];
    const timer = setTimeout(() => child.kill('SIGKILL'), 400 + round * 150);
    for (let i = 0; ; i += 1) {
      const edited = edit(design, (draft) => {
        draft.vehicle.speedKmH = round * 1000 + i + 1;
      })!;
      const { forward, inverse } = edited;
      const change = {
        id: `c-${round}-${i}`,
        base: version,
        label: 'speed',
        by: 'Test',
        at: '2026-11-25T08:00:00Z',
        forward,
        inverse,
      };
      const entry = positionRequest(`e-${round}-${i}`);
      const requests = [
        { path: '/api/jobs/job-kill/changes', body: change },
        { path: '/api/jobs/job-kill/entries', body: entry },
      ];
      design = edited.design;
      const answers = await Promise.allSettled(requests.map(({ path, body }) => post(url, path, body)));
      answers.forEach((answer, j) => {
        if (answer.status === 'fulfilled' && answer.value.status === 200)
          acknowledged.add(requests[j]!.body.id);
        else unanswered.push(requests[j]!);
      });
      const [changed] = answers;
      if (changed?.status === 'fulfilled') version = changed.value.body.version as number;
      if (unanswered.length > 0) break;
    }
    clearTimeout(timer);
    await kill(child).catch(() => undefined);
  }
  const { child, url } = await start();
  for (const { path, body } of unanswered) {
    expect((await post(url, path, body)).status).toBe(200);
    acknowledged.add(body.id);
  }
  const get = async (path: string) => (await fetch(url + path)).json() as Promise<{ id: string }[]>;
  const ids = [
    ...(await get('/api/jobs/job-kill/changes')),
    ...(await get('/api/jobs/job-kill/entries')),
  ].map(({ id }) => id);
  expect(acknowledged.size).toBeGreaterThan(10);
  expect([...acknowledged].filter((id) => !ids.includes(id))).toEqual([]);
  expect(new Set(ids).size).toBe(ids.length);
  expect(ids.length).toBe(acknowledged.size);
  expect(await get('/api/jobs/job-kill/verify')).toMatchObject({ ok: true });
  await kill(child);
});
