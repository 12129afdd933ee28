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
  job = `job-balance-${count}`;
  await makeBus(bench, job);
});

const one = 'module-101/cell-1';
const two = 'module-101/cell-2';
const other = 'module-205/cell-12';
let made = 0;
const post = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ id: `entry-balance-${(made += 1)}`, takenAt: '2026-11-25T08:00:00Z', ...body });
const meter = { kind: 'meter', name: 'Bench meter', standIn: false };
const volts = (cells: object[], change: object = {}) =>
  post({ kind: 'cell-voltages', entered: 'typed', instrument: meter, cells, ...change });
const load = (act: 'on' | 'off', cells: string[], change: object = {}) =>
  post({ kind: 'balance', act, gear: 'load', cells, ...change });

describe('balancing in the record', () => {
  test('a load carries the recipe of the plan, and its modules are what the entry is about', async () => {
    const { status, body } = await load('on', [one, two, other], { place: 3 });
    expect(status).toBe(200);
    expect(body.subjects.map(({ id }: { id: string }) => id)).toEqual(['module-101', 'module-205']);
    expect(body.body).toMatchObject({ act: 'on', gear: 'load', cells: [one, two, other], place: 3 });
    const { body: bleed } = await post({
      kind: 'balance',
      act: 'on',
      gear: 'bleed',
      cells: ['module-102/cell-1'],
    });
    expect(bleed.body.recipe).toEqual([{ label: 'bleed', value: 0.4, unit: 'A' }]);
  });

  test('what one module was brought level with stands in the entry instead of the plan', async () => {
    const recipe = [
      { label: 'before', value: 44.9, unit: 'V' },
      { label: 'stop at', value: 44.1, unit: 'V' },
    ];
    const { status, body } = await load('on', [one, two], { recipe });
    expect([status, body.body.recipe]).toEqual([200, recipe]);
    const wrong = await load('on', [other], { recipe: [{ label: 'before', value: '44', unit: 'V' }] });
    expect([wrong.status, wrong.body.error.issues[0].path]).toEqual([422, 'recipe.0.value']);
  });

  test('a load does not come on twice, nor off what it is not on; the words name the cell', async () => {
    await load('on', [one], { place: 2 });
    const again = await load('on', [two, one]);
    expect([again.status, again.body.error.code]).toEqual([409, 'not-so']);
    expect(again.body.error.message).toContain('S1-M01.1 is on already');
    expect((await load('off', [two])).status).toBe(409);
    const off = await load('off', [one]);
    // The bench it stood on is remembered.
    expect([off.status, off.body.body.place]).toEqual([200, 2]);
  });

  test('voltages keep each cell’s tag and the instrument', async () => {
    const { status, body } = await volts([
      { cell: one, samples: [[0, 4.12]] },
      {
        cell: other,
        samples: [
          [0, 4.13],
          [0.5, 4.131],
        ],
      },
    ]);
    expect(status).toBe(200);
    expect(body.instrument).toMatchObject({ name: 'Bench meter' });
    expect(body.body.cells.map(({ tag }: { tag: string }) => tag)).toEqual(['S1-M01.1', 'S2-M05.12']);
    const { body: page } = await request(bench.app).get(`/api/jobs/${job}/entries?subject=module-205`);
    expect(page.entries.map(({ id }: { id: string }) => id)).toEqual([body.id]);
  });

  test.each([
    ['a cell that is none', () => volts([{ cell: 'module-101/cell-13', samples: [[0, 4]] }]), 'cells.0.cell'],
    [
      'a cell named twice',
      () => volts([one, one].map((cell) => ({ cell, samples: [[0, 4]] }))),
      'cells.1.cell',
    ],
    ['no samples', () => volts([{ cell: one, samples: [] }]), 'cells.0.samples'],
    [
      'hours that fall',
      () =>
        volts([
          {
            cell: one,
            samples: [
              [1, 4],
              [0.5, 4],
            ],
          },
        ]),
      'cells.0.samples',
    ],
    [
      'a pack’s voltage for a cell’s',
      () => volts([{ cell: one, samples: [[0, 41.2]] }]),
      'cells.0.samples.0.1',
    ],
    ['a bench that is none', () => load('on', [one], { place: 0 }), 'place'],
    ['a gear that is none', () => load('on', [one], { gear: 'wish' }), 'gear'],
  ])('%s is refused by the field', async (_what, ask, path) => {
    const { status, body } = await ask();
    expect([status, body.error.issues[0].path]).toEqual([422, path]);
  });

  test('what was corrected does not count: the load may come on', async () => {
    const first = await load('on', [one]);
    await post({ kind: 'correction', of: first.body.seq, reason: 'The wrong cell.' });
    expect((await load('on', [one])).status).toBe(200);
    const { body: standing } = await request(bench.app).get(`/api/jobs/${job}/standing`);
    expect(standing.map(({ seq }: { seq: number }) => seq)).toEqual([first.body.seq + 2]);
  });
});
