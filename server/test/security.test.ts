import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { pino } from 'pino';
import { shopChain } from '../src/journal/links';
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

test('an error of the database stands in the log without what was sent', async () => {
  const lines: string[] = [];
  const stream = new Writable({
    write(chunk: Buffer, _encoding, done) {
      lines.push(chunk.toString());
      done();
    },
  });
  const other = await openBench();
  const app = createApp({
    rooms: other.rooms,
    logger: pino({ level: 'trace' }, stream),
    allowedHosts: new Set(['127.0.0.1']),
    webFolder: null,
  });
  const cookie = await signIn(other.rooms, 'Kim', ['owner']);
  const person = { id: 'person-other', name: 'Another', roles: ['witness'], password: 'some long secret' };
  // What the database says of it holds the statement, its parameters and the row.
  await other.database.execute("ALTER TABLE people ADD CONSTRAINT nobody CHECK (name <> 'Another')");
  const { status, body } = await request(app).post('/api/people').set('Cookie', cookie).send(person);
  expect([status, body.error.code]).toEqual([500, 'internal']);
  const text = lines.join('');
  expect(text).toContain('"code":"23514"');
  expect(text).toContain('"path":"/api/people"');
  for (const secret of ['argon2id', 'some long secret', 'person-other', 'INSERT INTO', 'Another'])
    expect([secret, text.includes(secret)]).toEqual([secret, false]);
  // An id that is taken is no failure of the server.
  const taken = await request(app)
    .post('/api/people')
    .set('Cookie', cookie)
    .send({ ...person, id: 'person-kim', name: 'Zoe' });
  expect([taken.status, taken.body.error.code]).toEqual([409, 'taken']);
  await other.close();
});

describe('paths and characters', () => {
  test('a path has one way to be written: another neither signs in nor passes the limit', async () => {
    const other = await openBench();
    for (const path of ['/api/session/', '/api/Session', '/API/session', '/api//session', '/api/owner/'])
      expect([
        path,
        (await request(other.bare).post(path).send({ name: 'a', password: 'b' })).status,
      ]).toEqual([path, 404]);
    await other.close();
  });

  test('what cannot be recorded is refused at every door, parameters too, before anything is written', async () => {
    const { app } = bench;
    const before = await bench.rooms.jobs.list();
    for (const bad of ['a\u0000b', 'a\ud800b']) {
      for (const [path, sent] of [
        ['/api/jobs', { id: 'job-x', name: bad }],
        ['/api/people', { id: bad, name: 'Zoe', roles: ['witness'], password: testPassword }],
        ['/api/session', { name: bad, password: testPassword }],
        ['/api/session', { name: 'Kim', password: bad }],
      ] as const) {
        const { status, body } = await request(app).post(path).send(sent);
        expect([path, status, body.error.code]).toEqual([path, 422, 'invalid-input']);
      }
    }
    for (const path of [
      '/api/jobs/%00',
      '/api/jobs/a%00b/entries',
      '/api/jobs/%00/files',
      '/api/people/%00',
      '/api/jobs/x/changes?after=%00',
    ]) {
      const { status } = await request(app).get(path);
      expect([path, [404, 422].includes(status)]).toEqual([path, true]);
    }
    expect(await bench.rooms.jobs.list()).toEqual(before);
  });

  test('an id of a job can name a file anywhere; the files of an unknown job are not there', async () => {
    for (const id of ['ä'.repeat(80), 'a/b', '..', 'a b', ''])
      expect([id, (await request(bench.app).post('/api/jobs').send({ id, name: 'X' })).status]).toEqual([
        id,
        422,
      ]);
    const { body } = await request(bench.app).post('/api/jobs').send({ id: 'ä', name: 'X' });
    expect(body.error.issues).toEqual([
      { path: 'id', message: 'may hold letters without accents, digits, _ and -' },
    ]);
    expect((await request(bench.app).get('/api/jobs/unknown/files')).status).toBe(404);
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
  // Hashes of passwords stand in the shop's journal, for its owner alone to read, and nowhere else.
  expect(stored.some(({ row }) => row.includes('$argon2id$'))).toBe(false);
  const shop = bench.rooms.journal.path(shopChain);
  expect(files.filter((text) => text.includes('$argon2id$'))).toHaveLength(1);
  expect(readFileSync(shop, 'utf8')).toContain('$argon2id$');
  expect(statSync(shop).mode & 0o777).toBe(0o600);
});
