import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { deriveNetwork, stagesOf } from '@torvek/core/network';
import type { Design } from '@torvek/core/document';
import request from 'supertest';
import { makeBus, openBench, positionRequest, type Bench } from './bench-room';

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
  job = `job-p${count}`;
  design = await makeBus(bench, job);
});

const takenAt = '2026-11-25T08:00:00Z';
const post = (body: object) => request(bench.app).post(`/api/jobs/${job}/entries`).send(body);
const openAt = (stage: string) =>
  stagesOf(design, deriveNetwork(design)).find(({ id }) => id === stage)!.open;
const position = (id: string, open: string[]) => ({ id: `${job}-${id}`, kind: 'position', takenAt, open });
const paths = (body: { error: { issues: { path: string }[] } }) => body.error.issues.map(({ path }) => path);

describe('positions by element', () => {
  test('are summed up by the server: seven joints a string, one of them the disconnect', async () => {
    const { body } = await post(position('1', openAt('bench')));
    expect(body.body).toMatchObject({ linksOut: 12, serviceDisconnect: 'out', mains: 'open' });
    expect(body.body.open).toHaveLength(openAt('bench').length);
    const driving = await post(position('2', openAt('driving')));
    expect(driving.body.body).toMatchObject({ linksOut: 0, serviceDisconnect: 'in', mains: 'closed' });
  });

  test('name nothing that cannot be opened', async () => {
    for (const [id, wrong] of [
      ['a', 'module-101'],
      ['b', 'device-inverter'],
      ['c', 'circuit-main/cable+'],
      ['d', 'no such thing'],
    ]) {
      const { status, body } = await post(position(id!, ['circuit-main/contactor+', wrong!]));
      expect([wrong, status, paths(body)]).toEqual([wrong, 422, ['open.1']]);
    }
  });

  test('come element by element or in sum, never both', async () => {
    const both = await post({ ...positionRequest(`${job}-3`), open: [] });
    expect([both.status, paths(both.body)]).toEqual([422, ['linksOut', 'serviceDisconnect', 'mains']]);
    const neither = await post({ id: `${job}-4`, kind: 'position', takenAt });
    expect([neither.status, paths(neither.body)]).toEqual([422, ['linksOut', 'serviceDisconnect', 'mains']]);
    expect((await post(positionRequest(`${job}-5`, 3))).body.body).toEqual({
      kind: 'position',
      linksOut: 3,
      serviceDisconnect: 'out',
      mains: 'open',
    });
  });

  test('what was live may hold charge until the bus is proved dead', async () => {
    await post(position('6', openAt('driving')));
    const off = await post(position('7', openAt('locked-off')));
    // All with capacitors: inlet and monitor have none.
    expect([...off.body.body.stored].sort()).toEqual([
      'device-charger',
      'device-compressor',
      'device-dcdc',
      'device-heater',
      'device-inverter',
    ]);
    // It stays so through the next position: nobody has measured.
    expect((await post(position('8', openAt('boxes')))).body.body.stored).toHaveLength(5);
  });

  test('a position twice in one request counts once', async () => {
    const { body } = await post(position('9', ['string-1/disconnect', 'string-1/disconnect']));
    expect(body.body.open).toEqual(['string-1/disconnect']);
  });
});

describe('modules as they come in', () => {
  const intake = (id: string, rest: object) => ({ id: `${job}-${id}`, kind: 'intake', takenAt, ...rest });

  test('serial and look are recorded; all of a module still matter: together they tell which thing it is', async () => {
    await post(intake('1', { module: 'module-103', serial: 'BW 1', look: 'sound' }));
    const { body } = await post(intake('2', { module: 'module-103', serial: 'BW 2', same: true }));
    expect(body.body).toEqual({ kind: 'intake', serial: 'BW 2', look: null, same: true });
    expect(body.subjects).toEqual([{ id: 'module-103', tag: 'S1-M03' }]);
    const standing = await request(bench.app).get(`/api/jobs/${job}/standing`);
    expect(standing.body.map(({ body: one }: { body: { serial: string } }) => one.serial)).toEqual([
      'BW 1',
      'BW 2',
    ]);
  });

  test.each([
    ['module', { module: 'module-999' }],
    ['look', { module: 'module-101', look: 'fine' }],
    ['serial', { module: 'module-101', serial: 7 }],
    ['colour', { module: 'module-101', colour: 'red' }],
  ])('a wrong %s is refused by its name', async (path, rest) => {
    const { status, body } = await post(intake(`x${path}`, rest));
    expect([status, paths(body)]).toEqual([422, [path]]);
  });

  test('the record of one thing is what names it, and no wildcard of the database', async () => {
    await post(intake('3', { module: 'module-101', serial: 'A' }));
    await post(intake('4', { module: 'module-102', serial: 'B' }));
    const about = async (subject: string) =>
      (await request(bench.app).get(`/api/jobs/${job}/entries`).query({ subject })).body;
    expect((await about('module-101')).total).toBe(1);
    expect((await about('module-101')).entries[0].body.serial).toBe('A');
    for (const none of ['module-1%', 'module-10_', 'module', "'", '"', '\\'])
      expect([none, (await about(none)).total]).toEqual([none, 0]);
  });
});
