import { once } from 'node:events';
import { connect, type AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { WebSocket } from 'ws';
import { serveLive } from '../src/live/socket';
import { changeOf, makeBus, openBench, positionRequest, signIn, type Bench } from './bench-room';
import type { Design } from '@torvek/core/document';

let bench: Bench;
let design: Design;
let base: string;
let cookie: string;
let close: () => Promise<void>;
beforeAll(async () => {
  bench = await openBench();
  design = await makeBus(bench);
  cookie = await signIn(bench.rooms, 'Lea', ['witness']);
  const server = bench.bare.listen(0, '127.0.0.1');
  await once(server, 'listening');
  base = `127.0.0.1:${(server.address() as AddressInfo).port}`;
  const live = serveLive(server, bench.rooms, new Set(['127.0.0.1']));
  close = async () => {
    live.close();
    await new Promise((resolve) => server.close(resolve));
  };
});
afterAll(async () => {
  await close();
  await bench.close();
});

const dial = (headers: Record<string, string>) =>
  new WebSocket(`ws://${base}/api/live`, { headers: { origin: `http://${base}`, ...headers } });

/** How a refused line ends: the status of the answer. */
const refusal = (line: WebSocket) =>
  new Promise<number | 'open'>((resolve) => {
    line.on('unexpected-response', (_request, response) => resolve(response.statusCode ?? 0));
    line.on('open', () => resolve('open'));
    line.on('error', () => undefined);
  });

test('a line without a session, with a made-up one, or from another site’s page is refused', async () => {
  expect(await refusal(dial({}))).toBe(401);
  expect(await refusal(dial({ cookie: 'torvek_session=made-up' }))).toBe(401);
  expect(await refusal(dial({ cookie, origin: 'http://elsewhere.example' }))).toBe(401);
  expect(await refusal(dial({ cookie, host: 'elsewhere.example' }))).toBe(401);
});

test('changes and entries of the watched job arrive, of others not; a session that ends closes the line', async () => {
  await makeBus(bench, 'job-other');
  const line = dial({ cookie });
  await once(line, 'open');
  const heard: { kind: string; job: string; version?: number; by?: string; entry?: { seq: number } }[] = [];
  line.on('message', (data: Buffer) => heard.push(JSON.parse(data.toString()) as (typeof heard)[0]));
  line.send(JSON.stringify({ watch: 'job-bus' }));
  await new Promise((resolve) => setTimeout(resolve, 50));
  const change = changeOf(design, 0, 'live-1', (draft) => void (draft.vehicle.speedKmH = 61));
  await request(bench.app).post('/api/jobs/job-bus/changes').send(change);
  await request(bench.app).post('/api/jobs/job-bus/changes').send(change);
  await request(bench.app).post('/api/jobs/job-other/entries').send(positionRequest('live-2'));
  await request(bench.app).post('/api/jobs/job-bus/entries').send(positionRequest('live-3'));
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(heard.map(({ kind, job, version, entry }) => [kind, job, version ?? entry?.seq])).toEqual([
    // How far the job had come when the line began to listen.
    ['here', 'job-bus', 0],
    ['change', 'job-bus', 1],
    ['entry', 'job-bus', 1],
  ]);
  expect(heard[0]).toMatchObject({ name: 'Bus', entries: 0 });
  expect(heard[1]!.by).toBe('Test');
  const closed = once(line, 'close');
  await bench.database.query('DELETE FROM sessions WHERE person_id = $1', ['person-lea']);
  await request(bench.app).post('/api/jobs/job-bus/entries').send(positionRequest('live-4'));
  expect((await closed)[0]).toBe(4401);
  expect(heard).toHaveLength(3);
});

test('whoever dials and hangs up at any moment ends nothing', async () => {
  const cookie = await signIn(bench.rooms, 'Mia', ['witness']);
  const [host, port] = base.split(':') as [string, string];
  const upgrade = (more: string) =>
    `GET /api/live HTTP/1.1\r\nHost: ${base}\r\nOrigin: http://${base}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n${more}\r\n`;
  const texts = [
    upgrade(''),
    upgrade(`Cookie: ${cookie}\r\n`),
    upgrade('').replace('dGhlIHNhbXBsZSBub25jZQ==', 'no key'),
    upgrade(`Cookie: ${cookie}\r\n`).replace('dGhlIHNhbXBsZSBub25jZQ==', 'no key'),
    `${upgrade(`Cookie: ${cookie}\r\n`)}\u00ff\u00ff\u00ff not a frame`,
    'GET /api/live HTTP/1.1\r\nHost',
  ];
  for (const text of texts)
    for (const waitMs of [0, 0, 1, 5, 20]) {
      const line = connect(Number(port), host);
      line.on('error', () => undefined);
      await once(line, 'connect');
      line.write(text, 'latin1');
      if (waitMs > 0) await new Promise((resolve) => setTimeout(resolve, waitMs));
      line.resetAndDestroy();
    }
  await new Promise((resolve) => setTimeout(resolve, 100));
  const line = dial({ cookie });
  await once(line, 'open');
  line.close();
});
