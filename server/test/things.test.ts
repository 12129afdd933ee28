import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate, recordChecks } from '@torvek/core/design';
import { cutPlaces, mainCircuit, type Design } from '@torvek/core/document';
import { catalogueOf, partKey } from '@torvek/core/parts';
import { quotedValues, shopShelf, stockOf } from '@torvek/core/record';
import request from 'supertest';
import { makeBus, openBench, type Bench } from './bench-room';

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
  job = `job-things-${count}`;
  design = await makeBus(bench, job);
});

let made = 0;
const send = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ id: `${job}-${(made += 1)}`, takenAt: '2026-11-25T08:00:00Z', ...body });
const meter = { kind: 'meter', name: 'Bench meter', standIn: false };
const reading = (step: string, value: number, unit = 'V') =>
  send({
    kind: 'result',
    step,
    measured: { kind: 'value', value, unit },
    entered: 'typed',
    instrument: meter,
  });
const crate = (...serials: string[]) =>
  send({ kind: 'arrival', items: serials.map((serial) => ({ serial, part: 'brackwater-m12@1' })) });
const fit = (item: string, place: string) => send({ kind: 'fit', item, place, reason: 'Chosen.' });
const standing = () => bench.rooms.ledger.standing(job);
const stateOf = async (step: string) => {
  const evaluation = evaluate(design);
  const { steps } = assess(evaluation, procedureFor(design, evaluation), await standing());
  return steps.find((one) => one.step.id === step)?.state;
};
const first = () => Object.keys(design.modules)[0]!;
const second = () => Object.keys(design.modules)[1]!;

describe('things', () => {
  test('arrive, are measured on the shelf, fitted with what was measured, swapped without it', async () => {
    const arrived = await crate('K1', 'K2');
    expect(arrived.status).toBe(200);
    const [a, b] = [1, 2].map((row) => `item-${arrived.body.seq}-${row}`);
    const read = await reading(`intake-voltage:${a}`, 44.7);
    expect([read.status, read.body.body.item, read.body.body.title]).toEqual([
      200,
      a,
      'Intake voltage of K1',
    ]);
    const step = `intake-voltage:${first()}`;
    expect(await stateOf(step)).toBe('due');
    expect((await fit(a!, first())).status).toBe(200);
    expect(await stateOf(step)).toBe('passed');
    const swapped = await fit(b!, first());
    expect(swapped.body.body).toMatchObject({ former: a, formerSerial: 'K1', serial: 'K2' });
    expect(await stateOf(step)).toBe('due');
    const again = await reading(step, 44.6);
    expect(again.body.body.item).toBe(b);
    expect(await stateOf(step)).toBe('passed');
    const { items } = stockOf(await standing());
    expect([items.get(a!)!.place, items.get(b!)!.place]).toEqual([null, first()]);
  });

  test('taken out, nothing is measured in their place, and what is rejected is not fitted', async () => {
    const arrived = await crate('K1');
    const item = `item-${arrived.body.seq}-1`;
    await fit(item, first());
    const out = await send({ kind: 'remove', item, state: 'rejected', reason: 'Leaks.' });
    expect(out.body.body).toMatchObject({ place: first(), state: 'rejected' });
    expect(await reading(`intake-voltage:${first()}`, 44.7).then(({ body }) => body.error.code)).toBe(
      'nothing-fitted',
    );
    expect((await fit(item, second())).body.error).toMatchObject({
      code: 'not-usable',
      message: 'K1 is rejected: judge it anew first',
    });
    expect((await send({ kind: 'item-state', item, state: 'good', reason: 'Seal replaced.' })).status).toBe(
      200,
    );
    expect((await fit(item, second())).status).toBe(200);
    expect((await send({ kind: 'item-state', item, state: 'retired' })).body.error.code).toBe('fitted');
  });

  test('one thing is in one place, and a serial is one thing’s alone', async () => {
    const arrived = await crate('K1');
    const item = `item-${arrived.body.seq}-1`;
    await fit(item, first());
    expect((await fit(item, second())).body.error.code).toBe('fitted-elsewhere');
    expect((await fit(item, first())).body.error.code).toBe('fitted');
    expect((await reading(`intake-voltage:${item}`, 44.7)).body.error.code).toBe('fitted');
    const twice = await crate('K2', 'K1', 'K2');
    expect([twice.status, twice.body.error.issues.map(({ path }: { path: string }) => path)]).toEqual([
      422,
      ['items.1.serial', 'items.2.serial'],
    ]);
  });

  test('another serial typed for a place is asked about', async () => {
    expect((await send({ kind: 'intake', module: first(), serial: 'K1' })).status).toBe(200);
    const other = await send({ kind: 'intake', module: first(), serial: 'K7' });
    expect([other.status, other.body.error.code]).toEqual([409, 'another-serial']);
    expect((await send({ kind: 'intake', module: first(), serial: 'K7', same: true })).status).toBe(200);
    expect(stockOf(await standing()).items.get(`item-of-${first()}`)!.serial).toBe('K7');
    expect((await send({ kind: 'intake', module: second(), serial: 'K7' })).body.error.issues[0].path).toBe(
      'serial',
    );
  });

  test('what never arrived, no place, no part: each is named', async () => {
    expect((await fit('item-9-9', first())).body.error.issues[0]).toEqual({
      path: 'item',
      message: 'is nothing that arrived',
    });
    const arrived = await crate('K1');
    expect((await fit(`item-${arrived.body.seq}-1`, 'module-9')).body.error.issues[0].path).toBe('place');
    const unknown = await send({ kind: 'arrival', items: [{ part: 'nothing@1' }] });
    expect(unknown.body.error.issues[0].path).toBe('items.0.part');
    const bare = await send({ kind: 'arrival', items: [{}] });
    // The bus has one kind of module: a thing that says nothing is one of it.
    expect((await reading(`intake-voltage:item-${bare.body.seq}-1`, 44.7)).status).toBe(200);
  });
});

describe('parts as things', () => {
  const place = `circuits.${mainCircuit}.fuse`;
  const designed = () => design.circuits[mainCircuit]!.fuse!;
  const arrive = (items: object[]) => send({ kind: 'arrival', items });

  test('arrive, go into a place of their kind, and come out again', async () => {
    const arrived = await arrive([
      { part: designed(), serial: 'F1' },
      { part: designed(), serial: 'F2' },
      { sort: 'device', serial: 'INV-7' },
    ]);
    expect(arrived.body.body.items.map(({ sort }: { sort: string }) => sort)).toEqual([
      'fuse',
      'fuse',
      'device',
    ]);
    const [a, b, inverter] = [1, 2, 3].map((row) => `item-${arrived.body.seq}-${row}`);
    const put = await send({ kind: 'part-fitted', place, item: a });
    expect([put.status, put.body.body.serial, put.body.body.exchanged, put.body.body.item]).toEqual([
      200,
      'F1',
      false,
      a,
    ]);
    const swapped = await send({ kind: 'part-fitted', place, item: b });
    expect(swapped.body.body).toMatchObject({ serial: 'F2', formerSerial: 'F1', exchanged: true });
    expect((await send({ kind: 'part-fitted', place, item: inverter })).body.error.issues[0]).toEqual({
      path: 'item',
      message: 'is a device, not a fuse',
    });
    expect(
      (await send({ kind: 'part-fitted', place, item: a, serial: 'F9' })).body.error.issues[0].path,
    ).toBe('serial');
    const device = Object.keys(design.devices)[0]!;
    expect((await send({ kind: 'part-fitted', place: `devices.${device}`, item: inverter })).status).toBe(
      200,
    );
    expect((await fit(a!, first())).body.error.code).toBe('no-module');
    expect((await send({ kind: 'item-state', item: b, state: 'retired' })).body.error.code).toBe('fitted');
    const out = await send({ kind: 'remove', item: b, state: 'rejected', reason: 'Cracked.' });
    expect(out.body.subjects.map(({ id }: { id: string }) => id)).toEqual([mainCircuit]);
    expect((await send({ kind: 'part-fitted', place, item: b })).body.error.code).toBe('not-usable');
    const checks = recordChecks(design, await standing(), Date.now());
    expect(
      checks.filter(({ rule, state }) => rule.id === 'stock.nothing-fitted' && state === 'raised'),
    ).toMatchObject([{ subjects: [`${mainCircuit}/fuse`] }]);
    // What was in a place before may go into it again.
    expect((await send({ kind: 'part-fitted', place, serial: 'F1' })).status).toBe(200);
    expect(stockOf(await standing()).inPlace.get(place)).toBe(a);
  });

  test('another part than designed asks for the reason; a kind that is not its part’s is refused', async () => {
    const other = catalogueOf('fuse').find((one) => partKey(one) !== designed())!;
    const arrived = await arrive([{ part: partKey(other), serial: 'G1' }]);
    const item = `item-${arrived.body.seq}-1`;
    expect((await send({ kind: 'part-fitted', place, item })).body.error.issues[0].path).toBe('reason');
    const done = await send({ kind: 'part-fitted', place, item, reason: 'Of the shelf.' });
    expect([done.body.body.part, JSON.parse(done.body.body.snapshot).id]).toEqual([partKey(other), other.id]);
    const wrong = await arrive([{ part: designed(), sort: 'contactor' }]);
    expect(wrong.body.error.issues[0]).toMatchObject({ path: 'items.0.sort' });
    // A number is its maker’s: a module may have that of a fuse.
    expect((await crate('G1')).status).toBe(200);
    expect((await arrive([{ part: partKey(other), serial: 'G1' }])).status).toBe(422);
  });
});

test('what is seen of a module is kept with it, on the shelf and in its place', async () => {
  const arrived = await crate('K1');
  const item = `item-${arrived.body.seq}-1`;
  const seen = await send({ kind: 'intake', module: item, seals: 'worn', drained: true, dateCode: '19-34' });
  expect([seen.status, seen.body.subjects, seen.body.body]).toEqual([
    200,
    [{ id: item, tag: 'K1' }],
    { kind: 'intake', serial: null, look: null, seals: 'worn', drained: true, dateCode: '19-34' },
  ]);
  await fit(item, first());
  const mended = await send({ kind: 'intake', module: first(), seals: 'sound', look: 'marked' });
  expect([mended.status, mended.body.body.serial]).toEqual([200, null]);
  expect(stockOf(await standing()).items.get(item)).toMatchObject({
    serial: 'K1',
    place: first(),
    look: 'marked',
    seen: { seals: 'sound', drained: true, dateCode: '19-34' },
  });
  // In its place it is told of by that.
  expect((await send({ kind: 'intake', module: item, look: 'sound' })).body.error.issues[0]).toEqual({
    path: 'module',
    message: 'is no module of this design',
  });
  expect((await send({ kind: 'intake', module: first(), seals: 'gone' })).body.error.issues[0].path).toBe(
    'seals',
  );
});

describe('sent to another job', () => {
  const sendTo = (item: string, to: string, id = `${job}-sent`) =>
    send({ kind: 'sent', item, to, reason: 'Not needed here.', id });

  test('what is recorded of it goes along with its hashes, in one turn; the same again is the same', async () => {
    const to = `${job}-other`;
    await makeBus(bench, to);
    const arrived = await crate('K1');
    const item = `item-${arrived.body.seq}-1`;
    const read = await reading(`intake-voltage:${item}`, 44.7);
    const gone = await sendTo(item, to);
    expect([gone.status, gone.body.body]).toMatchObject([200, { kind: 'sent', serial: 'K1', to }]);
    expect((await sendTo(item, to)).body.sha256).toBe(gone.body.sha256);
    const there = await bench.rooms.ledger.standing(to);
    expect(there).toHaveLength(1);
    const [thing] = stockOf(there).items.values();
    expect([thing!.serial, thing!.from!.job, thing!.from!.entries.map(({ sha256 }) => sha256)]).toEqual([
      'K1',
      job,
      [arrived.body.sha256, read.body.sha256],
    ]);
    expect(quotedValues(thing!).get('intake-voltage')?.value).toBe(44.7);
    for (const one of [job, to]) {
      const verified = await request(bench.app).get(`/api/jobs/${one}/verify`);
      expect([verified.status, verified.body.problems]).toEqual([200, []]);
    }
    // Had the entry here been another, the quotation there would say so.
    const written = (sha256: string) =>
      bench.database.execute(
        `ALTER TABLE entries DISABLE TRIGGER ALL;
         UPDATE entries SET sha256 = '${sha256}' WHERE job_id = '${job}' AND seq = ${read.body.seq};
         ALTER TABLE entries ENABLE TRIGGER ALL;`,
      );
    await written('f'.repeat(64));
    expect((await request(bench.app).get(`/api/jobs/${to}/verify`)).body.problems).toEqual([
      {
        what: 'entry 1',
        seq: 1,
        message: `quotes entry ${read.body.seq} of Bus otherwise than it stands there`,
      },
    ]);
    await written(read.body.sha256);
    expect((await fit(item, first())).body.error).toMatchObject({ code: 'sent' });
    // Neither half is corrected by itself.
    const half = await send({ kind: 'correction', of: gone.body.seq, reason: 'Wrong.' });
    expect(half.body.error.code).toBe('moved');
    // On again: what was told first is told there as well.
    const back = await request(bench.app)
      .post(`/api/jobs/${to}/entries`)
      .send({ kind: 'sent', id: `${to}-back`, takenAt: '2026-11-26T08:00:00Z', item: thing!.id, to: job });
    expect(back.status).toBe(200);
    const again = [...stockOf(await standing()).items.values()].at(-1)!;
    expect(again.from!.entries.map(({ job: of }) => of)).toEqual([job, job, to]);
    expect(again.place).toBeNull();
  });

  test('to the shelf of the shop, which is there as soon as something lies on it', async () => {
    const arrived = await crate('K1', 'K2');
    const [a, b] = [1, 2].map((row) => `item-${arrived.body.seq}-${row}`);
    await fit(a!, first());
    // What is refused makes no shelf either.
    const jobsBefore = (await bench.rooms.jobs.list()).length;
    expect((await sendTo(a!, shopShelf.id)).body.error.code).toBe('fitted');
    expect(await bench.rooms.jobs.list()).toHaveLength(jobsBefore);
    expect((await sendTo(b!, shopShelf.id)).status).toBe(200);
    const onShelf = stockOf(await bench.rooms.ledger.standing(shopShelf.id));
    expect([...onShelf.items.values()].at(-1)).toMatchObject({ serial: 'K2', place: null });
    expect((await sendTo('item-9-9', shopShelf.id, `${job}-x`)).body.error.issues[0].path).toBe('item');
    expect((await sendTo(a!, job, `${job}-y`)).body.error.issues[0]).toEqual({
      path: 'to',
      message: 'is this job',
    });
    await send({ kind: 'remove', item: a, state: 'good' });
    expect((await sendTo(a!, 'job-nowhere', `${job}-z`)).body.error.issues[0].message).toBe('is no job here');
  });

  test('of a reel what is left goes, and of one that is used up nothing', async () => {
    const cable = catalogueOf('cable')[0]!;
    const arrived = await send({
      kind: 'arrival',
      items: [{ part: partKey(cable), serial: 'R1', lengthM: 30 }],
    });
    const item = `item-${arrived.body.seq}-1`;
    const [place] = cutPlaces(design);
    await send({ kind: 'cable-cut', place: place!.path, lengthM: 12.5, reel: item, count: 2 });
    expect((await sendTo(item, shopShelf.id)).status).toBe(200);
    const reel = [...stockOf(await bench.rooms.ledger.standing(shopShelf.id)).items.values()].at(-1)!;
    expect([reel.lengthM, reel.cutM, reel.sort]).toEqual([5, 0, 'cable']);
  });
});

describe('a batch of readings', () => {
  const batch = (readings: object[]) =>
    request(bench.app).post(`/api/jobs/${job}/readings`).send({ readings });
  const one = (id: string, step: string, value: number, unit = 'V') => ({
    id,
    kind: 'result',
    takenAt: '2026-11-25T08:00:00Z',
    step,
    measured: { kind: 'value', value, unit },
    entered: 'pasted',
    instrument: meter,
  });

  test('is recorded at once, in order, each bound to the one before; again it answers the same', async () => {
    const arrived = await crate('K1', 'K2');
    const steps = [1, 2].map((row) => `intake-voltage:item-${arrived.body.seq}-${row}`);
    const readings = steps.map((step, i) => one(`${job}-b${i}`, step, 44.7 + i / 10));
    const first = await batch(readings);
    expect(first.status).toBe(200);
    const [a, b] = first.body as { seq: number; sha256: string; previous: string; body: { item: string } }[];
    expect([a!.seq, b!.seq]).toEqual([arrived.body.seq + 1, arrived.body.seq + 2]);
    expect(b!.previous).toBe(a!.sha256);
    expect([a!.body.item, b!.body.item]).toEqual(steps.map((step) => step.split(':')[1]));
    expect((await batch(readings)).body).toEqual(first.body);
    expect((await standing()).map(({ seq }) => seq)).toEqual([1, 2, 3]);
    const verified = await request(bench.app).get(`/api/jobs/${job}/verify`);
    expect(verified.body.ok).toBe(true);
  });

  test('some that are there and some that are not are refused, and nothing is added', async () => {
    const a = one(`${job}-d1`, `intake-voltage:${first()}`, 44.7);
    const b = one(`${job}-d2`, `intake-voltage:${second()}`, 44.7);
    expect((await batch([b])).status).toBe(200);
    const { status, body } = await batch([a, b]);
    expect([status, body.error.code]).toEqual([409, 'some-known']);
    expect(await standing()).toHaveLength(1);
  });

  test('one that is refused takes all back, and is named by its row', async () => {
    const { status, body } = await batch([
      one(`${job}-c1`, `intake-voltage:${first()}`, 44.7),
      one(`${job}-c2`, 'intake-voltage:module-999', 44.7),
    ]);
    expect([status, body.error.issues[0].path]).toEqual([422, 'readings.1.step']);
    expect(await standing()).toEqual([]);
    expect((await batch([one('x', 's', 1), one('x', 's', 1)])).body.error.issues[0]).toEqual({
      path: 'readings.1.id',
      message: 'stands twice',
    });
    expect((await batch([])).status).toBe(422);
  });
});
