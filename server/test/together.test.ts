import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { times } from '../../scripts/testing/thorough';
import { serveLive } from '../src/live/socket';
import { changeOf, makeBus, openBench, positionRequest, signIn, type Bench } from './bench-room';
import { runEditors } from './editors';
import { rawRequest, rawUpgrade, runResets } from './resets';

/** Many at once, and many who hang up. */
let bench: Bench;
let host: string;
let cookie: string;
let close: () => Promise<void>;
beforeAll(async () => {
  bench = await openBench(false, undefined, { unlimited: true });
  cookie = await signIn(bench.rooms, 'Lea', ['owner']);
  const server = bench.bare.listen(0, '127.0.0.1');
  await once(server, 'listening');
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  const live = serveLive(server, bench.rooms, new Set(['127.0.0.1']));
  close = async () => {
    live.close();
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  };
});
afterAll(async () => {
  await close();
  await bench.close();
});

test('people who edit one job at the same time lose nothing to each other', async () => {
  const design = await makeBus(bench, 'job-shared');
  const { editors, saves } = { editors: times(8, 40), saves: 4 };
  const report = await runEditors(
    `http://${host}`,
    cookie,
    'job-shared',
    { design, base: 0 },
    { editors, saves, pauseMs: 5 },
  );
  expect(report).toMatchObject({ saves: editors * saves, lost: [], chainFits: true });
  const { version } = (await request(bench.app).get('/api/jobs/job-shared')).body as { version: number };
  expect(version).toBe(editors * saves);
});

test('whoever hangs up in the middle of a request or of its answer ends nothing, and leaves nothing half done', async () => {
  const design = await makeBus(bench, 'job-left');
  const change = changeOf(design, 0, 'left-1', (draft) => void (draft.vehicle.speedKmH = 61));
  const json = (value: object) => Buffer.from(JSON.stringify(value));
  const at = (method: string, path: string, body?: Buffer) => rawRequest(host, cookie, method, path, body);
  const requests = [
    at('GET', '/api/jobs/job-left'),
    at('POST', '/api/jobs/job-left/changes', json(change)),
    at('POST', '/api/jobs/job-left/entries', json(positionRequest('left-2'))),
    at('POST', '/api/jobs/job-left/files?name=a.txt', Buffer.alloc(300_000, 'words ')),
    at('GET', '/api/jobs/job-left/export'),
    at('GET', '/api/jobs/job-left/verify'),
    at('POST', '/api/evaluate', json({ design })),
    at('POST', '/api/import', gzipSync(Buffer.alloc(50_000))),
    rawUpgrade(host, cookie, 'job-left'),
  ];
  const { hungUp, sending, reading } = await runResets(host, requests, times(90, 900), 20_261_130);
  expect(hungUp).toBe(sending + reading);
  expect(Math.min(sending, reading)).toBeGreaterThan(20);
  const { body, status } = await request(bench.app).get('/api/jobs/job-left/verify');
  expect({ status, body: body as object }).toMatchObject({ status: 200, body: { ok: true, problems: [] } });
  // The change and the entry were sent again and again: each stands there once, or not at all.
  const { versions, entries } = body as { versions: number; entries: number };
  expect([versions, entries]).toEqual([1, 1]);
});
