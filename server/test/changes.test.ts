import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { removeBox, type Design } from '@torvek/core/document';
import request from 'supertest';
import { changeOf, makeBus, openBench, type Bench } from './bench-room';

let bench: Bench;
let job: string;
let design: Design;
let count = 0;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());
beforeEach(async () => {
  count += 1;
  job = `job-${count}`;
  design = await makeBus(bench, job);
});

const send = (body: object) => request(bench.app).post(`/api/jobs/${job}/changes`).send(body);
const speed = (value: number) => (draft: Design) => {
  draft.vehicle.speedKmH = value;
};
const range = (value: number) => (draft: Design) => {
  draft.vehicle.wantedRangeKm = value;
};

describe('saving changes', () => {
  test('a change makes a version; the same id again is the same change', async () => {
    const change = changeOf(design, 0, `${job}-a`, speed(70));
    expect((await send(change)).body).toEqual({ version: 1 });
    expect((await send(change)).body).toEqual({ version: 1 });
    const { body } = await request(bench.app).get(`/api/jobs/${job}`);
    expect([body.version, body.design.vehicle.speedKmH]).toEqual([1, 70]);
    expect((await request(bench.app).get(`/api/jobs/${job}/changes`)).body).toHaveLength(1);
  });

  test('changes are read in pages, the newest first; a page asked for wrongly is named', async () => {
    for (let i = 0; i < 5; i += 1) await send(changeOf(design, i, `${job}-${i}`, speed(61 + i)));
    const page = async (query: string) =>
      (await request(bench.app).get(`/api/jobs/${job}/changes${query}`)).body as { version: number }[];
    const versions = async (query: string) => (await page(query)).map(({ version }) => version);
    expect(await versions('')).toEqual([5, 4, 3, 2, 1]);
    expect(await versions('?limit=2')).toEqual([5, 4]);
    expect(await versions('?limit=2&before=4')).toEqual([3, 2]);
    expect(await versions('?before=1')).toEqual([]);
    for (const [query, path] of [
      ['limit=1001', 'limit'],
      ['before=x', 'before'],
      ['limit=0', 'limit'],
    ]) {
      const { status, body } = await request(bench.app).get(`/api/jobs/${job}/changes?${query}`);
      expect([status, body.error.issues[0].path]).toEqual([422, path]);
    }
  });

  test('two changes that do not touch the same place merge', async () => {
    await send(changeOf(design, 0, `${job}-a`, speed(70)));
    const { status, body } = await send(changeOf(design, 0, `${job}-b`, range(90)));
    expect([status, body.version]).toEqual([200, 2]);
    expect([body.design.vehicle.speedKmH, body.design.vehicle.wantedRangeKm]).toEqual([70, 90]);
  });

  test('two changes of one place are a clash that names the other and loses nothing', async () => {
    await send(changeOf(design, 0, `${job}-a`, speed(70)));
    const { status, body } = await send(changeOf(design, 0, `${job}-b`, speed(80)));
    expect([status, body.error.code, body.error.version]).toEqual([409, 'clash', 1]);
    expect(body.error.changes[0].label).toBe(`change ${job}-a`);
    expect(body.error.design.vehicle.speedKmH).toBe(70);
  });

  test('a change queued behind an own one still clashes with what others did meanwhile, not with the own one', async () => {
    const first = changeOf(design, 0, `${job}-mine-1`, speed(70));
    const again = { ...changeOf(design, 0, `${job}-mine-2`, speed(75)), own: [`${job}-mine-1`] };
    const other = {
      ...changeOf(design, 0, `${job}-mine-3`, range(90)),
      own: [`${job}-mine-1`, `${job}-mine-2`],
    };
    await send(first);
    await send(changeOf(design, 0, `${job}-theirs`, range(120)));
    expect((await send(again)).status).toBe(200);
    const { status, body } = await send(other);
    expect([
      status,
      body.error.code,
      body.error.changes.map(({ label }: { label: string }) => label),
    ]).toEqual([409, 'clash', [`change ${job}-theirs`]]);
  });

  test('a merge that leaves a reference dangling is refused by its path', async () => {
    const boxGone = changeOf(design, 0, `${job}-a`, (draft) => removeBox(draft, 'box-tail'));
    expect((await send(boxGone)).status).toBe(200);
    const useBox = changeOf(design, 0, `${job}-b`, (draft) => {
      draft.modules['module-101']!.box = 'box-tail';
    });
    const { status, body } = await send(useBox);
    expect(status).toBe(422);
    expect(body.error.issues[0].path).toBe('design.modules.module-101.box');
  });

  test('a reference that pointed at nothing before is no reason to refuse; one more of them is', async () => {
    const old = 'job-of-before';
    const { design: first } = await bench.rooms.jobs.create(old, 'Before', 'Test', {
      design: { ...design, bonds: { 'device-gone': { by: 'strap' } } },
    });
    const post = (change: object) => request(bench.app).post(`/api/jobs/${old}/changes`).send(change);
    expect((await post(changeOf(first, 0, 'old-1', speed(71)))).status).toBe(200);
    const more = changeOf(first, 1, 'old-2', (draft) => void (draft.bonds!['box-gone'] = { by: 'bolted' }));
    const { status, body } = await post(more);
    expect([status, body.error.issues.map(({ path }: { path: string }) => path)]).toEqual([
      422,
      ['design.bonds.box-gone'],
    ]);
  });

  test('wrong types, unknown places and versions that are ahead are refused', async () => {
    const change = changeOf(design, 0, `${job}-a`, speed(70));
    const text = await send({
      ...change,
      forward: [{ op: 'replace', path: '/vehicle/speedKmH', value: 'fast' }],
    });
    expect([text.status, text.body.error.issues[0].path]).toEqual([422, 'design.vehicle.speedKmH']);
    const nowhere = await send({
      ...change,
      forward: [{ op: 'replace', path: '/vehicle/colour/paint', value: 1 }],
    });
    expect([nowhere.status, nowhere.body.error.issues[0].path]).toEqual([422, 'forward']);
    const proto = await send({ ...change, forward: [{ op: 'add', path: '/vehicle/__proto__', value: {} }] });
    expect(proto.status).toBe(422);
    expect((await send({ ...change, base: 7 })).status).toBe(409);
    expect((await send({ ...change, base: 'x' })).body.error.issues[0].path).toBe('base');
    expect((await request(bench.app).get(`/api/jobs/${job}`)).body.version).toBe(0);
  });
});

describe('versions', () => {
  test('every version can be had again, and any two compared', async () => {
    await send(changeOf(design, 0, `${job}-a`, speed(70)));
    await send({ ...changeOf(design, 1, `${job}-b`, range(90)) });
    const at = async (version: number) =>
      (await request(bench.app).get(`/api/jobs/${job}/versions/${version}`)).body;
    expect((await at(0)).vehicle.speedKmH).toBe(60);
    expect((await at(1)).vehicle.speedKmH).toBe(70);
    const { body } = await request(bench.app).get(`/api/jobs/${job}/compare?from=0&to=2`);
    expect(body).toEqual([
      { path: 'vehicle.speedKmH', from: 60, to: 70 },
      { path: 'vehicle.wantedRangeKm', from: 160, to: 90 },
    ]);
    expect((await request(bench.app).get(`/api/jobs/${job}/versions/9`)).status).toBe(404);
    expect((await request(bench.app).get(`/api/jobs/${job}/compare?from=0&to=x`)).status).toBe(422);
  });
});

describe('jobs', () => {
  test('a new job asks only for a name; a retry makes no second one; another name under the id is refused', async () => {
    const make = (name: string) => request(bench.app).post('/api/jobs').send({ id: 'job-new', name });
    expect((await make('Truck')).body).toMatchObject({ name: 'Truck', version: 0 });
    expect((await make('Truck')).status).toBe(200);
    expect((await make('Other')).status).toBe(409);
    expect((await request(bench.app).post('/api/jobs').send({ id: 'job-x' })).body.error.issues).toEqual([
      { path: 'name', message: 'is required' },
    ]);
  });

  test('a duplicate has the design and neither history nor record', async () => {
    await send(changeOf(design, 0, `${job}-a`, speed(70)));
    const { body } = await request(bench.app)
      .post(`/api/jobs/${job}/duplicate`)
      .send({ id: `${job}-copy`, name: 'Copy' });
    expect([body.version, body.design.vehicle.speedKmH, body.demo]).toEqual([0, 70, false]);
    expect((await request(bench.app).get(`/api/jobs/${job}-copy/entries`)).body.total).toBe(0);
  });

  test('a job that is not there is 404 everywhere', async () => {
    for (const path of ['', '/changes', '/entries', '/verify', '/versions/0']) {
      expect((await request(bench.app).get(`/api/jobs/nobody${path}`)).status).toBe(404);
    }
  });
});
