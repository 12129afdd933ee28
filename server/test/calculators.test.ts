import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Ajv2020 } from 'ajv/dist/2020.js';
import request from 'supertest';
import { libraryBus } from '../../demo/library-bus';
import { openBench, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());

const precharge = { packVoltageV: 360, busCapacitanceF: 0.0012, resistanceOhm: 47 };

describe('GET /api/openapi.json', () => {
  test('describes each calculator there is, and a design that the door for designs takes', async () => {
    const { status, body } = await request(bench.app).get('/api/openapi.json');
    const { body: list } = await request(bench.app).get('/api/calc');
    expect(status).toBe(200);
    expect(Object.keys(body.paths)).toEqual([
      '/api/calc',
      ...list.map(({ name }: { name: string }) => `/api/calc/${name}`),
      '/api/evaluate',
    ]);
    const ajv = new Ajv2020({ strict: false });
    const isDesign = ajv.compile(body.components.schemas.Design);
    expect(isDesign(libraryBus.design)).toBe(true);
    expect(isDesign({ ...libraryBus.design, unheardOf: {} })).toBe(false);
    expect(isDesign({ ...libraryBus.design, modules: { m1: { tag: 'M1', part: 7 } } })).toBe(false);
  });

  test('answers as it describes', async () => {
    const { body: api } = await request(bench.app).get('/api/openapi.json');
    const ajv = new Ajv2020({ strict: false });
    const { Calculated, Refused } = api.components.schemas;
    const right = await request(bench.app).post('/api/calc/precharge').send(precharge);
    const wrong = await request(bench.app).post('/api/calc/precharge').send({});
    expect([ajv.validate(Calculated, right.body), ajv.validate(Calculated, wrong.body)]).toEqual([
      true,
      false,
    ]);
    expect([ajv.validate(Refused, wrong.body), ajv.validate(Refused, right.body)]).toEqual([true, false]);
  });
});

describe('POST /api/calc/<name>', () => {
  test('answers result, working with substituted numbers, and findings', async () => {
    const { status, body } = await request(bench.app).post('/api/calc/precharge').send(precharge);
    expect(status).toBe(200);
    expect(body.result.timeToThresholdS).toBeCloseTo(0.1689593, 6);
    expect(body.working.find((step: { symbol: string }) => step.symbol === 'τ')).toEqual({
      symbol: 'τ',
      label: 'Time constant',
      formula: 'R·C·k',
      substituted: '47·0.0012·1',
      value: 47 * 0.0012,
      unit: 's',
      source: 'First-order RC circuit with a parallel load',
    });
    expect(body.findings).toEqual([]);
  });

  test('a finding carries rule, severity and a message with numbers', async () => {
    const { body } = await request(bench.app)
      .post('/api/calc/precharge')
      .send({ ...precharge, parallelLoadOhm: 600 });
    expect(body.findings).toEqual([
      {
        rule: 'precharge.threshold-never-reached',
        severity: 'stop',
        message: expect.stringContaining('334 V'),
      },
    ]);
  });

  test.each([
    ['text/plain', JSON.stringify(precharge), 200],
    ['application/octet-stream', JSON.stringify(precharge), 200],
    ['application/json', '5', 422],
    ['application/json', 'null', 422],
    ['application/json', '[]', 422],
    ['application/json', '{"packVoltageV": 1e999}', 422],
    ['application/json', '{', 400],
    ['application/x-www-form-urlencoded', 'packVoltageV=360', 400],
  ])('a body of %s %s is answered with %i', async (type, body, status) => {
    const answer = await request(bench.app).post('/api/calc/precharge').set('Content-Type', type).send(body);
    expect(answer.status).toBe(status);
    if (status !== 200) {
      expect(typeof answer.body.error.code).toBe('string');
      expect(Array.isArray(answer.body.error.issues)).toBe(true);
    }
  });

  test('no body at all is 422', async () => {
    const { status, body } = await request(bench.app).post('/api/calc/precharge');
    expect(status).toBe(422);
    expect(body.error.code).toBe('invalid-input');
  });

  test('nesting of 10 000 levels and __proto__ are refused by name', async () => {
    const deep = `{"packVoltageV":360,"busCapacitanceF":1,"resistanceOhm":1,"deep":${'['.repeat(10_000)}${']'.repeat(10_000)}}`;
    const nested = await request(bench.app)
      .post('/api/calc/precharge')
      .set('Content-Type', 'application/json')
      .send(deep);
    expect([nested.status, nested.body.error.issues[0].path]).toEqual([422, 'deep']);
    const proto = `{"packVoltageV":360,"busCapacitanceF":1,"resistanceOhm":1,"__proto__":{"x":1}}`;
    const polluted = await request(bench.app)
      .post('/api/calc/precharge')
      .set('Content-Type', 'application/json')
      .send(proto);
    expect([polluted.status, polluted.body.error.issues[0].path]).toEqual([422, '__proto__']);
  });

  test('a body over 16 MB is 413 with the limit in the message', async () => {
    const { status, body } = await request(bench.app)
      .post('/api/calc/precharge')
      .set('Content-Type', 'application/json')
      .send(`{"x":"${'a'.repeat(17 * 1024 * 1024)}"}`);
    expect(status).toBe(413);
    expect(body.error.message).toContain('16 MB');
  });

  test('an unknown calculator is 404', async () => {
    expect((await request(bench.app).post('/api/calc/guess').send({})).status).toBe(404);
  });
});

describe('who is answered', () => {
  test('a foreign host name is refused', async () => {
    const { status, body } = await request(bench.app).get('/api/health').set('Host', 'evil.example');
    expect([status, body.error.code]).toEqual([403, 'wrong-host']);
  });
  test('a page of another site is refused, the own page passes', async () => {
    const foreign = await request(bench.app)
      .get('/api/health')
      .set('Host', 'localhost:4178')
      .set('Origin', 'http://evil.example');
    expect([foreign.status, foreign.body.error.code]).toEqual([403, 'wrong-origin']);
    const own = await request(bench.app)
      .get('/api/health')
      .set('Host', 'localhost:4178')
      .set('Origin', 'http://localhost:4178');
    expect(own.body).toEqual({ status: 'ok', core: '0.1.0' });
  });
  test('the policy lets nothing be fetched from elsewhere', async () => {
    const { headers } = await request(bench.app).get('/api/health');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['content-security-policy']).not.toContain('upgrade-insecure-requests');
  });
});
