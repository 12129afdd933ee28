import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Express } from 'express';
import { pino } from 'pino';
import request from 'supertest';
import { createApp, routeTable } from '../src/app';
import { seedDemo } from '../src/demo/seed';
import { Attempts } from '../src/people/attempts';
import { openRooms } from '../src/rooms';
import { makeBus, openBench, positionRequest, signIn, testPassword, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
  await makeBus(bench);
});
afterAll(() => bench.close());

const cookieOf = (answer: request.Response) => String(answer.headers['set-cookie']?.[0]).split(';')[0]!;
const me = async (cookie: string) =>
  (await request(bench.bare).get('/api/session').set('Cookie', cookie)).body.person;

/** What everyone may call without a session; a route that is added here by mistake fails the test. */
const publicRoutes = [
  'get /health',
  'get /calc',
  'get /openapi.json',
  'post /calc/:name',
  'post /evaluate',
  'get /session',
  'post /session',
  'post /session/demo',
  'post /owner',
];

describe('every route', () => {
  test('is public exactly when it is on the list', () => {
    const open = routeTable(bench.rooms)
      .filter(({ role }) => role === 'public')
      .map(({ method, path }) => `${method} ${path}`);
    expect(open.sort()).toEqual([...publicRoutes].sort());
  });

  test('that is not public answers nothing without a session, nor with a made-up one', async () => {
    for (const { method, path, role } of routeTable(bench.rooms)) {
      if (role === 'public') continue;
      const at = `/api${path.replace(':job', 'job-bus').replace(/:\w+/g, '1')}`;
      for (const cookie of ['', 'torvek_session=AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA']) {
        const { status, body } = await request(bench.bare)[method](at).set('Cookie', cookie).send({});
        expect([at, status, Object.keys(body)]).toEqual([at, 401, ['error']]);
      }
    }
  });

  test('that asks for more than a role may do answers no data', async () => {
    const rank = ['witness', 'technician', 'designer', 'owner'] as const;
    for (const [i, held] of rank.entries()) {
      const cookie = await signIn(bench.rooms, `Only ${held}`, [held]);
      for (const { method, path, role } of routeTable(bench.rooms)) {
        if (role === 'public' || rank.indexOf(role) <= i) continue;
        const at = `/api${path.replace(':job', 'job-bus').replace(/:\w+/g, '1')}`;
        const { status, body } = await request(bench.bare)[method](at).set('Cookie', cookie).send({});
        expect([held, at, status, body.error.code]).toEqual([held, at, 403, 'role-too-low']);
      }
    }
  });

  test('a stranger’s body is not even read', async () => {
    const { status } = await request(bench.bare).post('/api/jobs').send('{ not json');
    expect(status).toBe(401);
  });
});

describe('signing in', () => {
  test('with the right password gives a cookie no script can read and no other site can use', async () => {
    await signIn(bench.rooms, 'Ada', ['technician']);
    const answer = await request(bench.bare)
      .post('/api/session')
      .send({ name: ' ada', password: testPassword });
    expect(answer.status).toBe(200);
    expect(String(answer.headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict/);
    expect(await me(cookieOf(answer))).toMatchObject({ name: 'Ada', roles: ['technician'] });
    expect(JSON.stringify(answer.body)).not.toContain('argon2');
  });

  test('with a wrong one, or a name that nobody has, says the same', async () => {
    const attempt = async (name: string) =>
      (await request(bench.bare).post('/api/session').send({ name, password: 'not the one' })).body;
    expect(await attempt('Ada')).toEqual(await attempt('Nobody'));
  });

  test('is stopped after five wrong passwords for a name, also with the right one', async () => {
    await signIn(bench.rooms, 'Bo', ['designer']);
    const attempt = (password: string) =>
      request(bench.bare).post('/api/session').send({ name: 'Bo', password });
    for (let i = 0; i < 5; i += 1) expect((await attempt('wrong password')).status).toBe(401);
    const { status, body } = await attempt(testPassword);
    expect([status, body.error.code]).toEqual([429, 'too-many-attempts']);
  });

  test('the wait ends after a quarter of an hour, and a success starts the count anew', () => {
    let now = 0;
    const attempts = new Attempts(() => now);
    for (let i = 0; i < 5; i += 1) attempts.take('Cy');
    expect(() => attempts.take(' CY')).toThrow('try again in 15 min');
    now += 15 * 60_000 + 1;
    for (let i = 0; i < 4; i += 1) attempts.take('Cy');
    attempts.take('Cy').right();
    for (let i = 0; i < 5; i += 1) attempts.take('Cy');
    expect(() => attempts.take('Cy')).toThrow('too many wrong passwords');
  });

  test('of fifty wrong passwords at once five are looked at', async () => {
    const other = await openBench();
    await signIn(other.rooms, 'Kim', ['designer']);
    const answers = await Promise.all(
      Array.from({ length: 50 }, (_, i) =>
        request(other.bare)
          .post('/api/session')
          .send({ name: i % 2 === 0 ? 'Kim' : ' kIM ', password: `wrong password ${i}` }),
      ),
    );
    const count = (status: number) => answers.filter((answer) => answer.status === status).length;
    expect([count(401), count(429)]).toEqual([5, 45]);
    await other.close();
  });

  test('signing out ends this session; everywhere ends all', async () => {
    const first = await signIn(bench.rooms, 'Di', ['technician']);
    const di = (await me(first)) as { id: string };
    const more = async () =>
      cookieOf(await request(bench.bare).post('/api/session').send({ name: 'Di', password: testPassword }));
    const [second, third] = [await more(), await more()];
    await request(bench.bare).post('/api/session/end').set('Cookie', first);
    expect([await me(first), (await me(second))?.id]).toEqual([null, di.id]);
    await request(bench.bare).post('/api/session/end-everywhere').set('Cookie', second);
    expect([await me(second), await me(third)]).toEqual([null, null]);
  });

  test('a changed password ends the other sessions and opens a new one', async () => {
    const before = await signIn(bench.rooms, 'Ed', ['technician']);
    const change = (current: string, next: string) =>
      request(bench.bare).post('/api/password').set('Cookie', before).send({ current, next });
    expect((await change('nonsense', 'another long one')).body.error.issues[0].path).toBe('current');
    expect((await change(testPassword, 'short')).body.error.issues[0]).toEqual({
      path: 'next',
      message: 'must have at least 10 characters',
    });
    const after = cookieOf(await change(testPassword, 'another long one'));
    expect([await me(before), (await me(after))?.name]).toEqual([null, 'Ed']);
  });
});

describe('people', () => {
  test('the first start asks for an owner, once', async () => {
    const fresh = await openBench();
    await fresh.database.query('DELETE FROM sessions');
    await fresh.database.query('DELETE FROM people');
    const session = async () => (await request(fresh.bare).get('/api/session')).body;
    expect(await session()).toEqual({ person: null, needsOwner: true, demoPeople: [] });
    const own = (name: string) =>
      request(fresh.bare)
        .post('/api/owner')
        .send({ id: `p-${name}`, name, password: testPassword });
    expect((await own(' x')).body.error.issues[0].path).toBe('name');
    expect((await own('Fay')).body.person).toMatchObject({ name: 'Fay', roles: ['owner'] });
    expect((await own('Gus')).body.error.code).toBe('has-owner');
    expect((await session()).needsOwner).toBe(false);
    await fresh.close();
  });

  test('a name is taken whatever its case; the last owner stays one', async () => {
    const add = (name: string) =>
      request(bench.app)
        .post('/api/people')
        .send({ id: `p-${name}`, name, roles: ['witness'], password: testPassword });
    await add('Hal');
    expect((await add('HAL')).body.error.issues[0]).toEqual({ path: 'name', message: 'is taken' });
    await request(bench.app)
      .patch('/api/people/person-only owner')
      .send({ roles: ['witness'], active: true });
    const demote = await request(bench.app)
      .patch('/api/people/person-test')
      .send({ roles: ['designer'], active: true });
    expect([demote.status, demote.body.error.code]).toEqual([409, 'last-owner']);
    expect((await bench.rooms.people.get('person-test')).roles).toEqual(['owner']);
  });

  test('someone who may no longer sign in is out at once', async () => {
    const cookie = await signIn(bench.rooms, 'Ike', ['technician']);
    await request(bench.app)
      .patch('/api/people/person-ike')
      .send({ roles: ['technician'], active: false });
    expect(await me(cookie)).toBeNull();
    const again = await request(bench.bare)
      .post('/api/session')
      .send({ name: 'Ike', password: testPassword });
    expect(again.status).toBe(401);
  });

  test('the demo’s people sign in with one click in demo mode, and in no other', async () => {
    const demo = await openBench(true);
    await seedDemo(demo.rooms.store);
    const click = (of: Express) =>
      request(of).post('/api/session/demo').send({ person: 'person-demo-owner' });
    expect((await request(demo.bare).get('/api/session')).body.demoPeople).toHaveLength(4);
    expect((await click(demo.bare)).body.person.roles).toEqual(['owner']);
    // The same data, served as anybody’s own.
    const plain = createApp({
      rooms: openRooms(demo.rooms.store, { demoMode: false }),
      logger: pino({ level: 'silent' }),
      allowedHosts: new Set(['127.0.0.1']),
      webFolder: null,
    });
    expect((await click(plain)).status).toBe(403);
    const byPassword = await request(plain)
      .post('/api/session')
      .send({ name: 'Sunniva Drell', password: 'torvek-demo' });
    expect(byPassword.status).toBe(401);
    expect((await request(plain).get('/api/session')).body.demoPeople).toEqual([]);
    await demo.close();
  });
});

describe('the session’s cookie', () => {
  const signedIn = async (at: Bench, headers: Record<string, string>) => {
    const response = await request(at.bare)
      .post('/api/session')
      .set(headers)
      .send({ name: 'Test', password: testPassword });
    return String(response.headers['set-cookie']);
  };

  test('is named after the port, so that two servers of one host sign nobody out of the other', async () => {
    const one = await signedIn(bench, { host: '127.0.0.1:4178' });
    expect(one).toMatch(/^torvek_session_4178=[\w-]{43}; .*HttpOnly; SameSite=Strict/);
    expect(one).not.toContain('Secure');
    expect(await signedIn(bench, { host: 'localhost' })).toMatch(/^torvek_session=/);
    const [pair] = one.split(';');
    const other = pair!.replace(/=.*/, '').replace('4178', '4179');
    const me = (cookie: string) =>
      request(bench.bare)
        .get('/api/session')
        .set({ host: '127.0.0.1:4178', cookie })
        .then(({ body }) => body.person?.name);
    expect(await me(`${other}=made-up; ${pair}`)).toBe('Test');
    expect(await me(`${other}=${pair!.split('=')[1]}`)).toBeUndefined();
  });

  test('is Secure behind a trusted proxy with TLS, and only there', async () => {
    const forwarded = { host: 'torvek.example', 'x-forwarded-proto': 'https' };
    const behind = await openBench(false, undefined, {
      trustedProxies: 1,
      allowedHosts: new Set(['torvek.example']),
    });
    expect(await signedIn(behind, forwarded)).toMatch(/^__Host-torvek_session=.*; Secure; SameSite=Strict/);
    await behind.close();
    const bare = await openBench(false, undefined, { allowedHosts: new Set(['torvek.example']) });
    expect(await signedIn(bare, forwarded)).not.toContain('Secure');
    await bare.close();
  });
});

test('changes and entries carry who is signed in, whatever is sent', async () => {
  const cookie = await signIn(bench.rooms, 'Jo', ['technician']);
  const send = (body: object) =>
    request(bench.bare).post('/api/jobs/job-bus/entries').set('Cookie', cookie).send(body);
  expect((await send({ ...positionRequest('jo-1'), by: 'Somebody else' })).body.error.issues[0].path).toBe(
    'by',
  );
  expect((await send(positionRequest('jo-1'))).body.by).toBe('Jo');
  const accept = { id: 'jo-2', kind: 'acceptance', takenAt: '2026-11-25T08:00:00Z', reason: 'Agreed.' };
  const answer = await send({ ...accept, check: 'vehicle.range-short|road-load' });
  expect([answer.status, answer.body.error.code]).toEqual([403, 'role-too-low']);
});
