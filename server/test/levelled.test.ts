import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { makeBus, openBench, type Bench } from './bench-room';

let bench: Bench;
const job = 'job-levelled';
beforeAll(async () => {
  bench = await openBench();
  await makeBus(bench, job);
});
afterAll(() => bench.close());
let made = 0;
const post = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({
      id: `entry-levelled-${(made += 1)}`,
      takenAt: '2026-11-25T08:00:00Z',
      kind: 'levelled',
      ...body,
    });
const pair = (more: object = {}) => ({
  sides: [
    { id: 'module-208', beforeV: 43.86, afterV: 44.7 },
    { id: 'module-207', beforeV: 44.71, afterV: 44.71 },
  ],
  ...more,
});

test('two modules brought level: what would flow when they are joined is computed here, over what joins them', async () => {
  const { status, body } = await post(pair({ linkOhm: 0.001, gearA: 10, hours: 1.5 }));
  expect(status).toBe(200);
  // 10 mV over two modules of 9 mΩ and 1 mΩ; modules of 180 A.
  expect(body.body.joinedA).toBeCloseTo(0.01 / 0.019, 6);
  expect(body.body).toMatchObject({ limitA: 180, linkOhm: 0.001, gearA: 10, hours: 1.5 });
  expect(body.body.sides).toEqual([
    { id: 'module-208', tag: 'S2-M08', beforeV: 43.86, afterV: 44.7 },
    { id: 'module-207', tag: 'S2-M07', beforeV: 44.71, afterV: 44.71 },
  ]);
  expect(body.subjects.map(({ tag }: { tag: string }) => tag)).toEqual(['S2-M08', 'S2-M07']);
});

test('without what joins them no current is guessed', async () => {
  const { body } = await post(pair());
  expect(body.body.joinedA).toBeUndefined();
  expect(body.body.limitA).toBeUndefined();
});

test('two strings are about all their modules', async () => {
  const sides = [
    { id: 'string-1', beforeV: 357, afterV: 357.4 },
    { id: 'string-2', beforeV: 357.6, afterV: 357.5 },
  ];
  const { status, body } = await post({ sides, linkOhm: 0.006 });
  expect([status, body.subjects.length]).toEqual([200, 16]);
  expect(body.body.joinedA).toBeGreaterThan(0.1);
});

test('what is wrong is named by its field, and nothing is recorded', async () => {
  const paths = async (body: object) => {
    const answer = await post(body);
    return [answer.status, ...answer.body.error.issues.map(({ path }: { path: string }) => path)];
  };
  const [one, two] = pair().sides;
  expect(await paths({ sides: [one] })).toEqual([422, 'sides']);
  expect(await paths({ sides: [one, { ...two, id: 'module-208' }] })).toEqual([422, 'sides.1.id']);
  expect(await paths({ sides: [one, { ...two, id: 'box-nose' }] })).toEqual([422, 'sides.1.id']);
  expect(await paths({ sides: [one, { ...two, id: 'string-2' }] })).toEqual([422, 'sides.1.id']);
  expect(await paths({ sides: [one, { ...two, afterV: -1 }] })).toEqual([422, 'sides.1.afterV']);
  expect(await paths(pair({ linkOhm: 0 }))).toEqual([422, 'linkOhm']);
});
