import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { makeBus, openBench, type Bench } from './bench-room';

let bench: Bench;
let job: string;
let count = 0;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());
beforeEach(async () => {
  count += 1;
  job = `job-joints-${count}`;
  await makeBus(bench, job);
});

let made = 0;
const post = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ id: `entry-joints-${(made += 1)}`, takenAt: '2026-11-25T08:00:00Z', ...body });
const meter = { kind: 'meter', name: 'Bench meter', standIn: false };
const walk = (work: string, joints: object[], change: object = {}) =>
  post({
    kind: 'joints',
    work,
    instrument: meter,
    joints,
    ...(work !== 'torque' && { currentA: 60 }),
    ...change,
  });
const posts = ['101', '102', '103', '104'].flatMap((id) => [`module-${id}/minus`, `module-${id}/plus`]);
const issues = ({ body }: { body: { error: { issues: { path: string; message: string }[] } } }) =>
  body.error.issues.map(({ path, message }) => [path, message]);

describe('joints in the record', () => {
  test('a walk keeps the tags of its joints; their modules are what it is about', async () => {
    const { status, body } = await walk('drop', [
      { joint: posts[0], value: 0.002 },
      { joint: posts[1], value: -0.0021 },
      { joint: 'circuit-main/source-plus', value: 0.001 },
    ]);
    expect(status).toBe(200);
    expect(body.subjects).toEqual([
      { id: 'module-101', tag: 'S1-M01' },
      { id: 'circuit-main', tag: 'Main' },
    ]);
    expect(body.body).toEqual({
      kind: 'joints',
      work: 'drop',
      currentA: 60,
      joints: [
        { joint: posts[0], tag: 'S1-M01 −', value: 0.002 },
        { joint: posts[1], tag: 'S1-M01 +', value: -0.0021 },
        { joint: 'circuit-main/source-plus', tag: 'Main + at the source', value: 0.001 },
      ],
    });
  });

  test('bonds are of bodies, torques have no current and lie above 0', async () => {
    const bond = await walk('bond', [{ joint: 'box-nose', value: 0.003 }], { currentA: 2 });
    expect(bond.body.subjects).toEqual([{ id: 'box-nose', tag: 'Nose box' }]);
    expect(issues(await walk('bond', [{ joint: 'device-inlet', value: 0.003 }]))).toEqual([
      ['joints.0.joint', 'is no body of this design that is bonded'],
    ]);
    expect((await walk('torque', [{ joint: posts[0], value: 14 }])).body.body.currentA).toBeNull();
    expect(issues(await walk('torque', [{ joint: posts[0], value: 14 }], { currentA: 3 }))).toEqual([
      ['currentA', 'has no place in a torque'],
    ]);
    expect(issues(await walk('torque', [{ joint: posts[0], value: 0 }]))).toEqual([
      ['joints.0.value', 'must be above 0'],
    ]);
  });

  test('what is wrong is named by its place', async () => {
    expect(issues(await walk('drop', [{ joint: posts[0], value: 0.002 }], { currentA: undefined }))).toEqual([
      ['currentA', 'is required'],
    ]);
    expect(issues(await walk('drop', [{ joint: 'module-999/plus', value: 0.002 }]))).toEqual([
      ['joints.0.joint', 'is no joint of this design'],
    ]);
    const twice = { joint: posts[0], value: 0.002 };
    expect(issues(await walk('drop', [twice, twice]))).toEqual([['joints.1.joint', 'is named twice']]);
    expect(issues(await walk('sniff', [twice]))[0]![0]).toBe('work');
    expect((await walk('drop', [])).status).toBe(422);
  });

  test('an outlier that the record shows can be accepted, and only while it is one', async () => {
    const accept = () =>
      post({
        kind: 'acceptance',
        check: 'joints.outlier|joint-posts',
        reason: 'Opened and cleaned on Friday.',
      });
    expect((await accept()).body.error.code).toBe('not-raised');
    const value = (i: number) => (i === 5 ? 0.0094 : 0.002 + 0.0001 * (i % 3));
    await walk(
      'drop',
      posts.map((joint, i) => ({ joint, value: value(i) })),
    );
    const { status, body } = await accept();
    expect(status).toBe(200);
    expect(body.body.message).toContain('S1-M03 + lies far above the rest');
    expect(body.subjects).toEqual([{ id: 'joint-posts', tag: 'Posts of the modules' }]);
  });

  test('every walk still matters to the state of the job', async () => {
    await walk('torque', [{ joint: posts[0], value: 14 }]);
    await walk('torque', [{ joint: posts[1], value: 14 }]);
    const standing = await request(bench.app).get(`/api/jobs/${job}/standing`);
    expect(standing.body.map(({ body }: { body: { kind: string } }) => body.kind)).toEqual([
      'joints',
      'joints',
    ]);
  });
});
