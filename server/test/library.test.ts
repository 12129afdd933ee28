import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { newerRevision } from '@torvek/core/library';
import { catalogueOf, type Part, type PartOf } from '@torvek/core/parts';
import request from 'supertest';
import { makeBus, openBench, type Bench } from './bench-room';

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
  await makeBus(bench);
});
afterAll(() => bench.close());

const fuse = catalogueOf('fuse').find(({ id }) => id === 'calderside-f350')!;
const ours: PartOf<'fuse'> = {
  ...fuse,
  id: 'corrow-r350',
  make: 'Corrow',
  number: 'R350',
  label: 'Corrow R350',
};
const revised: PartOf<'fuse'> = { ...fuse, revision: 2, data: { ...fuse.data, breakingA: 9000 } };
const save = (part: unknown, note?: string) => request(bench.app).post('/api/library').send({ part, note });
const shelf = async () =>
  (await request(bench.app).get('/api/library')).body as { own: { part: Part }[]; retired: string[] };
const keys = async () => (await shelf()).own.map(({ part }) => `${part.id}@${part.revision}`);

describe('the shop’s own parts', () => {
  test('are saved once, with who and when; the same again changes nothing', async () => {
    const { status, body } = await save(ours, 'From the box');
    expect(status).toBe(200);
    expect(body.own).toEqual([
      { part: ours, note: 'From the box', savedBy: 'Test', savedAt: expect.any(String) },
    ]);
    expect((await save(ours)).status).toBe(200);
    expect(await keys()).toEqual(['corrow-r350@1']);
  });

  test('a correction is the next revision, of a part of the starter catalogue too', async () => {
    expect((await save(revised, 'Issue C')).status).toBe(200);
    expect(await keys()).toEqual(['corrow-r350@1', 'calderside-f350@2']);
  });

  test('a revision that is taken or leaves a gap is refused with the next one', async () => {
    const other = { ...ours, data: { ...ours.data, ratedA: 300 } };
    for (const revision of [1, 3]) {
      const { status, body } = await save({ ...other, revision });
      expect([status, body.error.code, body.error.next]).toEqual([409, 'revision-taken', 2]);
    }
    expect((await save({ ...catalogueOf('resistor')[0]!, id: ours.id, revision: 2 })).body.error.code).toBe(
      'other-kind',
    );
  });

  test('what is no part is refused by the field', async () => {
    const { status, body } = await save({
      ...ours,
      id: 'x-1',
      data: { ...ours.data, curve: [[1, 2]], ratedA: 'much' },
    });
    expect(status).toBe(422);
    expect(body.error.issues.map(({ path }: { path: string }) => path).sort()).toEqual([
      'part.data.curve',
      'part.data.ratedA',
    ]);
    const crossed = await save({ ...ours, id: 'x-1', data: { ...ours.data, ratedA: 900 } });
    expect(crossed.body.error.issues[0].path).toBe('part.data.ratedA');
    expect(await keys()).not.toContain('x-1@1');
  });

  test('a file comes in as a whole or not at all, and says what became of each', async () => {
    const resistor = { ...catalogueOf('resistor')[0]!, id: 'corrow-r22' };
    const take = (parts: unknown[]) =>
      request(bench.app).post('/api/library/take-in').send({ parts, note: 'file' });
    const bad = await take([resistor, { ...resistor, id: 'calderside-f10' }]);
    expect([bad.status, bad.body.error.code]).toEqual([409, 'other-kind']);
    expect(await keys()).not.toContain('corrow-r22@1');
    const { body } = await take([resistor, ours, { ...ours, data: { ...ours.data, breakingA: 12_000 } }]);
    expect(
      body.arrivals.map(({ as, part }: { as: string; part: Part }) => [as, part.id, part.revision]),
    ).toEqual([
      ['new', 'corrow-r22', 1],
      ['same', 'corrow-r350', 1],
      ['revision', 'corrow-r350', 2],
    ]);
    expect(await keys()).toEqual(['corrow-r350@1', 'calderside-f350@2', 'corrow-r22@1', 'corrow-r350@2']);
  });

  test('are retired and offered again; one that is not there is named', async () => {
    const set = (id: string, retired: boolean) =>
      request(bench.app).patch(`/api/library/${id}`).send({ retired });
    expect((await set(ours.id, true)).body.retired).toEqual([ours.id]);
    expect((await set(ours.id, true)).body.retired).toEqual([ours.id]);
    expect((await set(ours.id, false)).body.retired).toEqual([]);
    expect((await set('nothing', true)).status).toBe(404);
  });

  test('cannot be rewritten in the database', async () => {
    await expect(bench.database.query(`UPDATE library_parts SET content = '{}'`)).rejects.toThrow(
      /append-only/,
    );
  });

  test('which job uses which', async () => {
    const { body } = await request(bench.app).get('/api/library/uses');
    expect(body).toHaveLength(1);
    expect(body[0].name).toBe('Bus');
    expect(body[0].keys).toContain('calderside-f350@1');
  });

  test('the note of a newer revision can be accepted: the server sees the library too', async () => {
    const accept = (check: string) =>
      request(bench.app)
        .post('/api/jobs/job-bus/entries')
        .send({
          id: `entry-${check.length}`,
          takenAt: '2026-11-26T08:00:00Z',
          kind: 'acceptance',
          check,
          reason: 'fitted is the old one',
        });
    const { status, body } = await accept(`${newerRevision.id}|calderside-f350@1`);
    expect([status, body.error]).toEqual([200, undefined]);
    expect(body.body).toMatchObject({ kind: 'acceptance', rule: newerRevision.id });
    expect((await accept(`${newerRevision.id}|calderside-f63@1`)).body.error.code).toBe('not-raised');
  });
});
