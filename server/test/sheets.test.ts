import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
const job = 'job-sheets';
beforeAll(async () => {
  bench = await openBench();
  await makeBus(bench, job);
});
afterAll(() => bench.close());

const get = (path: string) => request(bench.app).get(`/api/jobs/${job}/sheets${path}`);
const post = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ takenAt: '2026-11-25T08:00:00Z', ...body });
const paths = (body: { error: { issues: { path: string }[] } }) => body.error.issues.map(({ path }) => path);

describe('sheets for paper', () => {
  test('are listed with what there is one of each', async () => {
    const { body } = await get('');
    expect(body.papers).toEqual(['A4', 'letter']);
    const ids = body.sheets.map(({ id }: { id: string }) => id);
    expect(ids).toEqual([
      'to-do',
      'circuits',
      'box',
      'torques',
      'bonds',
      'ladder',
      'looms',
      'sense',
      'procedure',
    ]);
    const box = body.sheets.find(({ id }: { id: string }) => id === 'box');
    expect(box.subjects).toContainEqual({ id: 'box-nose', tag: 'Nose box' });
  });

  test('come as a PDF with a name, set in a thread of its own', async () => {
    const answer = await get('/circuits?paper=letter').buffer();
    expect(answer.status).toBe(200);
    expect(answer.headers['content-type']).toContain('application/pdf');
    expect(answer.headers['content-disposition']).toMatch(/filename=".+-circuits\.pdf"/);
    expect(answer.body.subarray(0, 5).toString()).toBe('%PDF-');
  });

  test('ask for paper that there is, a sheet that there is, and of a thing that there is', async () => {
    const paper = await get('/circuits?paper=A5');
    expect([paper.status, paths(paper.body)]).toEqual([422, ['paper']]);
    expect((await get('/nothing')).status).toBe(404);
    expect((await get('/toString')).status).toBe(404);
    expect((await get('/box?subject=box-none')).status).toBe(404);
    expect((await request(bench.app).get('/api/jobs/job-none/sheets/circuits')).status).toBe(404);
    expect((await request(bench.bare).get(`/api/jobs/${job}/sheets/circuits`)).status).toBe(401);
  });
});

describe('tries of a hunt', () => {
  test('name what is suspected here, with how often it came; more restarts than starts are refused', async () => {
    const made = await post({
      id: 'hunt-1',
      kind: 'hunt-try',
      begins: true,
      out: ['observer', 'observer', 'box:box-nose'],
      starts: 4,
      restarts: 1,
    });
    expect(made.status).toBe(200);
    expect(made.body.body).toMatchObject({
      out: ['observer', 'box:box-nose'],
      names: ['the laptop or tester that looks on', 'boards in Nose box'],
    });
    const wrong = await post({
      id: 'h2',
      kind: 'hunt-try',
      begins: false,
      out: ['x'],
      starts: 4,
      restarts: 0,
    });
    expect([wrong.status, paths(wrong.body)]).toEqual([422, ['out.0']]);
    const many = await post({ id: 'h3', kind: 'hunt-try', begins: false, out: [], starts: 2, restarts: 3 });
    expect([many.status, paths(many.body)]).toEqual([422, ['restarts']]);
  });
});

test('sense plugs are boards of the design, and stay as last said', async () => {
  const unknown = await post({ ...positionRequest('p1'), plugged: ['board-9'] });
  expect([unknown.status, paths(unknown.body)]).toEqual([422, ['plugged.0']]);
  const none = await post({ ...positionRequest('p2'), plugged: [] });
  expect(none.body.body.plugged).toEqual([]);
  expect((await post(positionRequest('p3'))).body.body.plugged).toEqual([]);
});
