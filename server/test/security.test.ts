import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import request from 'supertest';
import { createApp, redactedPaths } from '../src/app';
import { openBench, signIn, testPassword, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());

describe('headers', () => {
  test('let a page load and run nothing from elsewhere, nor be framed', async () => {
    const { headers } = await request(bench.bare).get('/api/health');
    const policy = String(headers['content-security-policy']);
    for (const rule of [
      "default-src 'self'",
      "script-src 'self'",
      "object-src 'none'",
      "frame-ancestors 'self'",
    ])
      expect(policy).toContain(rule);
    expect(policy).not.toMatch(/unsafe-inline|unsafe-eval|https?:/);
    expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'cache-control': 'no-store' });
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

describe('who asks', () => {
  test('by another host name, as after a name was pointed at this machine, is refused', async () => {
    const { status, body } = await request(bench.app).get('/api/jobs').set('Host', 'evil.example');
    expect([status, body.error.code]).toEqual([403, 'wrong-host']);
  });
  test('from another site’s page is refused even with a session, also on another port', async () => {
    for (const origin of ['http://evil.example', 'http://127.0.0.1:1', 'null']) {
      const { status, body } = await request(bench.app)
        .post('/api/jobs')
        .set('Origin', origin)
        .send({ id: 'x', name: 'X' });
      expect([origin, status, body.error.code]).toEqual([origin, 403, 'wrong-origin']);
    }
    expect(await bench.rooms.jobs.list()).toEqual([]);
  });
});

describe('limits', () => {
  test('sign-ins are limited by address, calculators are not', async () => {
    const other = await openBench();
    const attempt = () => request(other.bare).post('/api/session').send({ name: 'Nobody', password: 'x' });
    const answers: number[] = [];
    for (let i = 0; i < 61; i += 1) answers.push((await attempt()).status);
    expect([answers[0], answers.at(-1)]).toEqual([401, 429]);
    const { status, headers } = await request(other.bare).post('/api/calc/precharge').send({});
    expect([status, headers['ratelimit']]).toEqual([422, undefined]);
    await other.close();
  });
});

describe('the log', () => {
  test('names refusals and holds neither password nor cookie', async () => {
    const lines: string[] = [];
    const stream = new Writable({
      write(chunk: Buffer, _encoding, done) {
        lines.push(chunk.toString());
        done();
      },
    });
    const logger = pino({ level: 'trace', redact: redactedPaths }, stream);
    const app = createApp({
      rooms: bench.rooms,
      logger,
      allowedHosts: new Set(['127.0.0.1']),
      webFolder: null,
    });
    const cookie = await signIn(bench.rooms, 'Kim', ['technician']);
    await request(app).post('/api/session').send({ name: 'Kim', password: 'the wrong secret' });
    await request(app).post('/api/people').set('Cookie', cookie).send({ password: testPassword });
    logger.info({ body: { password: testPassword }, headers: { cookie } }, 'a careless line');
    const text = lines.join('');
    expect(text).toContain('"code":"wrong-password"');
    expect(text).toContain('"code":"role-too-low"');
    for (const secret of ['the wrong secret', testPassword, cookie.split('=')[1]!])
      expect(text).not.toContain(secret);
  });
});

test('tokens and passwords lie in no file of the data folder as they are', async () => {
  const cookie = await signIn(bench.rooms, 'Lou', ['technician']);
  const token = cookie.split('=')[1]!;
  const stored = await bench.database.query<{ row: string }>(
    'SELECT row_to_json(p)::text AS row FROM people p UNION ALL SELECT row_to_json(s)::text FROM sessions s',
  );
  const files = readdirSync(bench.folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => readFileSync(join(entry.parentPath, entry.name), 'latin1'));
  for (const text of [...stored.map(({ row }) => row), ...files]) {
    expect(text).not.toContain(token);
    expect(text).not.toContain(testPassword);
  }
  expect(stored.some(({ row }) => row.includes('$argon2id$'))).toBe(true);
});
