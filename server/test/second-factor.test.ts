import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Secret, TOTP } from 'otpauth';
import request from 'supertest';
import { shopChain } from '../src/journal/links';
import { tellShop } from '../src/journal/shop-story';
import { Codes } from '../src/people/second-factor';
import { openBench, signIn, testPassword, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());

/** RFC 6238's own secret for SHA-1, “12345678901234567890”. */
const rfc = Secret.fromUTF8('12345678901234567890').base32;

describe('codes', () => {
  test('are those of RFC 6238, a period early or late at most', () => {
    // Appendix B: at 59 s the code of eight digits is 94287082; of six, its last six.
    let nowMs = 0;
    const codes = new Codes(() => nowMs);
    const check = (person: string, code: string) =>
      codes.check(person, { secret: rfc, recovery: [] }, code).as;
    nowMs = 59_000;
    expect(check('a', '287082')).toBe('code');
    expect(check('b', '287 082')).toBe('code');
    nowMs = 89_000;
    expect(check('c', '287082')).toBe('code');
    nowMs = 120_000;
    expect(check('d', '287082')).toBe('wrong');
    expect(check('d', '')).toBe('wrong');
  });

  test('count once, also an earlier one after a later one, and none of before the start', () => {
    const at = (ms: number) =>
      new TOTP({ secret: Secret.fromBase32(rfc), algorithm: 'SHA1', digits: 6, period: 30 }).generate({
        timestamp: ms,
      });
    let nowMs = 1_000_000_000;
    const codes = new Codes(() => nowMs);
    const check = (code: string) => codes.check('a', { secret: rfc, recovery: [] }, code).as;
    expect(check(at(nowMs - 30_000))).toBe('used');
    expect(check(at(nowMs))).toBe('code');
    expect(check(at(nowMs))).toBe('used');
    nowMs += 30_000;
    expect(check(at(nowMs))).toBe('code');
    expect(check(at(nowMs - 30_000))).toBe('used');
  });
});

describe('a second factor', () => {
  let cookie = '';
  let secret = '';
  let recovery: string[] = [];
  let period = 0;
  const post = (path: string, body: object, as = cookie) =>
    request(bench.bare).post(`/api${path}`).set('Cookie', as).send(body);
  const enter = (code?: string) =>
    request(bench.bare)
      .post('/api/session')
      .send({ name: 'Sefa', password: testPassword, ...(code !== undefined && { code }) });
  /** A code that was not used yet: of the next period, which counts, too. */
  const code = () =>
    new TOTP({ secret: Secret.fromBase32(secret), algorithm: 'SHA1', digits: 6, period: 30 }).generate({
      timestamp: Date.now() + period++ * 30_000,
    });

  test('is set up with the password and a code of it; the recovery codes are shown once', async () => {
    cookie = await signIn(bench.rooms, 'Sefa', ['technician', 'witness']);
    expect((await post('/second', { current: 'not the one' })).status).toBe(422);
    const begun = (await post('/second', { current: testPassword })).body;
    expect(begun.uri).toMatch(/^otpauth:\/\/totp\/Torvek:Sefa\?.*period=30/);
    secret = begun.secret;
    expect((await enter()).status).toBe(200);
    // Left for longer than a quarter of an hour (the clock moves a second whenever it is read), it counts no longer.
    for (let second = 0; second <= 15 * 60; second += 1) bench.rooms.clock.now();
    expect((await post('/second/confirm', { code: code() })).body.error.code).toBe('not-begun');
    secret = (await post('/second', { current: testPassword })).body.secret;
    period = 0;
    const wrong = await post('/second/confirm', { code: '000000' });
    expect(wrong.body.error.issues[0].path).toBe('code');
    const { codes } = (await post('/second/confirm', { code: code() })).body;
    expect([codes.length, new Set(codes).size, codes[0]]).toEqual([
      10,
      10,
      expect.stringMatching(/^(\w{4}-){3}\w{4}$/),
    ]);
    recovery = codes as string[];
    const text = JSON.stringify(bench.rooms.journal.read('~shop').links);
    expect(text).toContain(secret);
    expect(text).not.toContain(recovery[0]);
  });

  test('is asked for after the right password, once each code', async () => {
    const without = await enter();
    expect([without.status, without.body.error.code, without.body.error.issues[0].path]).toEqual([
      401,
      'code-needed',
      'code',
    ]);
    const good = code();
    expect((await enter(good)).status).toBe(200);
    expect((await enter(good)).body.error.code).toBe('used-code');
    expect((await enter('000000')).body.error.code).toBe('wrong-code');
  });

  test('wrong codes count as wrong passwords do; a missing one does not', async () => {
    const other = await openBench();
    const own = await signIn(other.rooms, 'Sefa', ['technician']);
    const ask = (given?: string) =>
      request(other.bare)
        .post('/api/session')
        .send({ name: 'Sefa', password: testPassword, ...(given && { code: given }) });
    const begun = (
      await request(other.bare).post('/api/second').set('Cookie', own).send({ current: testPassword })
    ).body;
    const now = new TOTP({
      secret: Secret.fromBase32(begun.secret),
      algorithm: 'SHA1',
      digits: 6,
      period: 30,
    });
    await request(other.bare).post('/api/second/confirm').set('Cookie', own).send({ code: now.generate() });
    for (let i = 0; i < 8; i += 1) expect((await ask()).body.error.code).toBe('code-needed');
    for (let i = 0; i < 5; i += 1) expect((await ask('000001')).body.error.code).toBe('wrong-code');
    expect((await ask()).status).toBe(429);
    await other.close();
  });

  test('a recovery code works once', async () => {
    expect((await enter(recovery[3]!.toUpperCase().replaceAll('-', ' '))).status).toBe(200);
    expect((await enter(recovery[3])).body.error.code).toBe('wrong-code');
    expect((await request(bench.bare).get('/api/second').set('Cookie', cookie)).body).toEqual({
      on: true,
      recoveryLeft: 9,
    });
  });

  test('goes with a witness’s word, and the shop can ask it of every witness', async () => {
    const { people } = bench.rooms;
    const first = { id: 'person-test' };
    const refused = (word: object) =>
      people
        .witness(first, word as never)
        .catch((error: { issues: { path: string }[] }) => error.issues[0]!.path);
    const sefa = { name: 'Sefa', password: testPassword };
    expect(await refused(sefa)).toBe('witness.code');
    expect(await refused({ ...sefa, code: '000000' })).toBe('witness.code');
    expect(await refused({ ...sefa, code: recovery[0] })).toMatchObject({ name: 'Sefa' });
    await signIn(bench.rooms, 'Ola', ['witness']);
    const ola = { name: 'Ola', password: testPassword };
    expect(await refused(ola)).toMatchObject({ name: 'Ola' });
    expect((await post('/rules', { witnessesNeedSecond: true })).status).toBe(403);
    await request(bench.app).post('/api/rules').send({ witnessesNeedSecond: true });
    expect(await refused(ola)).toBe('witness.name');
    await request(bench.app).post('/api/rules').send({ witnessesNeedSecond: false });
  });

  test('where codes on labels lead is the owner’s to set, and stands in the journal of the shop', async () => {
    const set = (labelAddress: string) => request(bench.app).post('/api/rules').send({ labelAddress });
    for (const wrong of ['torvek', 'ftp://torvek.example', 'https://torvek.example/jobs', 'javascript:1'])
      expect((await set(wrong)).body.error.issues[0].path).toBe('labelAddress');
    expect((await post('/rules', { labelAddress: 'https://torvek.example' })).status).toBe(403);
    expect((await set('https://torvek.example:8443/')).body).toEqual({
      witnessesNeedSecond: false,
      labelAddress: 'https://torvek.example:8443',
    });
    expect(tellShop(bench.rooms.journal.read(shopChain)).rules.labelAddress).toBe(
      'https://torvek.example:8443',
    );
    // Another rule leaves it as it is.
    await request(bench.app).post('/api/rules').send({ witnessesNeedSecond: true });
    await request(bench.app).post('/api/rules').send({ witnessesNeedSecond: false });
    expect((await request(bench.app).get('/api/rules')).body.labelAddress).toBe(
      'https://torvek.example:8443',
    );
    expect((await set('')).body.labelAddress).toBe('');
  });

  test('a witness whose password somebody else set is shown as such, until they set their own', async () => {
    const { people } = bench.rooms;
    const word = (password: string) => people.witness({ id: 'person-test' }, { name: 'Ola', password });
    // Whoever made the account set the password.
    expect((await word(testPassword)).passwordBy).toMatchObject({ by: 'Test' });
    const ola = `torvek_session=${await bench.rooms.sessions.begin(await people.get('person-ola'))}`;
    await post('/password', { current: testPassword, next: 'my very own word' }, ola);
    expect((await word('my very own word')).passwordBy).toBeNull();
    await request(bench.app).post('/api/people/person-ola/password').send({ password: 'the owner knows it' });
    expect((await word('the owner knows it')).passwordBy).toMatchObject({ by: 'Test' });
  });

  test('is taken away by its own person with a code, or by the owner; both stand in the shop’s chain', async () => {
    expect((await post('/second/end', { current: testPassword })).body.error.code).toBe('code-needed');
    expect((await post('/second/end', { current: testPassword, code: recovery[1] })).body).toEqual({
      on: false,
      recoveryLeft: 0,
    });
    expect((await enter()).status).toBe(200);
    const people = (await request(bench.app).get('/api/people')).body as { name: string; second: boolean }[];
    expect(people.find(({ name }) => name === 'Sefa')!.second).toBe(false);
    expect((await request(bench.app).post('/api/people/person-ola/second/end').send({})).status).toBe(200);
    const acts = bench.rooms.journal.read('~shop').links.map(({ body }) => body);
    expect(
      acts.filter(({ kind }) => kind === 'second').map(({ id, by, second }) => [id, by, second === null]),
    ).toEqual([
      ['person-sefa', 'Sefa', false],
      ['person-sefa', 'Sefa', true],
      ['person-ola', 'Test', true],
    ]);
  });
});
