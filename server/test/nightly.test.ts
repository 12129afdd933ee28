import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { Nightly, type BackupState } from '../src/take-away/nightly';
import { makeBus, openBench, positionRequest, signIn, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
  await makeBus(bench);
  await request(bench.app).post('/api/jobs/job-bus/entries').send(positionRequest('one'));
});
afterAll(() => bench.close());

const folder = () => join(bench.folder, 'backups');

test('a backup is made, proved by restoring it, and shown to the owner alone', async () => {
  const technician = await signIn(bench.rooms, 'Tom', ['technician']);
  expect((await request(bench.bare).get('/api/backups').set('Cookie', technician)).status).toBe(403);
  const before = (await request(bench.app).get('/api/backups')).body as BackupState;
  expect(before).toMatchObject({ on: false, lastGood: null, kept: [], problem: null });
  const { body, status } = await request(bench.app).post('/api/backups').send({});
  expect([status, body.lastGood]).toMatchObject([200, { ok: true, jobs: 1, entries: 1, problems: [] }]);
  const [file] = readdirSync(folder()).filter((name) => name.endsWith('.zip'));
  expect(file).toBe(body.lastGood.name);
  expect(statSync(join(folder(), file!)).mode & 0o777).toBe(0o600);
  expect(readdirSync(folder()).sort()).toEqual(['state.json', file]);
});

test('one that does not fit is named and never called good', async () => {
  const path = bench.rooms.journal.path('job-bus');
  const kept = readFileSync(path);
  writeFileSync(path, readFileSync(path, 'utf8').replace('"linksOut":2', '"linksOut":0'));
  const good = bench.rooms.nightly.state().lastGood;
  const run = await bench.rooms.nightly.run('Test');
  expect(run.ok).toBe(false);
  expect(run.problems.join()).toMatch(/line 2 of the journal is damaged/);
  expect(run.name).toContain('does-not-fit');
  expect(bench.rooms.nightly.state()).toMatchObject({ lastGood: good, last: { ok: false } });
  writeFileSync(path, kept);
});

test('it is due once a night, or when the shop opens after one; a failed attempt waits an hour', async () => {
  rmSync(folder(), { recursive: true });
  let now = new Date(2026, 10, 28, 9, 0);
  const nightly = new Nightly(bench.rooms, true, () => now);
  expect(nightly.isDue()).toBe(true);
  mkdirSync(folder());
  const lastGood = { name: 'torvek-backup-2026-11-28-09-00.zip', at: now.toISOString(), ok: true };
  writeFileSync(join(folder(), 'state.json'), JSON.stringify({ lastGood }));
  // Its file is not there: it is good for nothing.
  expect(nightly.isDue()).toBe(true);
  writeFileSync(join(folder(), lastGood.name), '');
  expect(nightly.isDue()).toBe(false);
  const at = (day: number, hour: number) => {
    now = new Date(2026, 10, day, hour, 0);
    return nightly.isDue();
  };
  expect([at(28, 23), at(29, 1), at(29, 3)]).toEqual([false, false, true]);
  // Nothing can be written into a file: the attempt fails, in words.
  rmSync(folder(), { recursive: true });
  writeFileSync(folder(), '');
  await expect(nightly.run('by itself')).rejects.toThrow();
  expect(nightly.isDue()).toBe(false);
  rmSync(folder());
  expect([at(29, 3), at(29, 5)]).toEqual([false, true]);
});
