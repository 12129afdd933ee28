import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { asBuilt } from '@torvek/core/built';
import { mainCircuit, partPlaces, type Design } from '@torvek/core/document';
import { catalogueOf, partKey } from '@torvek/core/parts';
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
  job = `job-built-${count}`;
  design = await makeBus(bench, job);
});

let made = 0;
const send = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ id: `${job}-${(made += 1)}`, takenAt: '2026-11-25T08:00:00Z', ...body });
const place = `circuits.${mainCircuit}.fuse`;
const fitted = (change: object) => send({ kind: 'part-fitted', place, ...change });
const pathOf = ({ body }: { body: { error: { issues: { path: string }[] } } }) => body.error.issues[0]?.path;
const other = () => {
  const key = design.circuits[mainCircuit]!.fuse;
  return catalogueOf('fuse').find((one) => partKey(one) !== key)!;
};

describe('parts as fitted', () => {
  test('as designed, by its serial; a second serial is an exchange, the first of a blank one is not', async () => {
    const blank = await fitted({ reason: 'Plate painted over.' });
    expect([blank.status, blank.body.body.serial, blank.body.body.exchanged]).toEqual([200, null, false]);
    const known = await fitted({ serial: 'F 1' });
    expect(known.body.body).toMatchObject({
      part: design.circuits[mainCircuit]!.fuse,
      designed: design.circuits[mainCircuit]!.fuse,
      serial: 'F 1',
      snapshot: null,
      exchanged: false,
    });
    expect(known.body.subjects.map(({ id }: { id: string }) => id)).toEqual([mainCircuit]);
    const next = await fitted({ serial: 'F 2' });
    expect(next.body.body).toMatchObject({ formerSerial: 'F 1', exchanged: true });
  });

  test('another part asks for the reason, carries its data, and results are judged by it from then on', async () => {
    const part = partKey(other());
    expect(pathOf(await fitted({ part, serial: 'F 3' }))).toBe('reason');
    const done = await fitted({ part, serial: 'F 3', reason: 'Out of stock.' });
    expect([done.status, JSON.parse(done.body.body.snapshot)]).toEqual([200, other()]);
    const standing = await bench.rooms.ledger.standing(job);
    expect(asBuilt(design, standing).design.circuits[mainCircuit]!.fuse).toBe(part);
    const reading = await send({
      kind: 'result',
      step: `intake-voltage:${Object.keys(design.modules)[0]}`,
      measured: { kind: 'value', value: 44.7, unit: 'V' },
      entered: 'typed',
      instrument: { kind: 'meter', name: 'Bench meter', standIn: false },
    });
    expect([reading.status, reading.body.body.asBuilt]).toEqual([200, done.body.seq]);
  });

  test('what cannot be is refused by its field, and nothing is recorded', async () => {
    expect(pathOf(await fitted({}))).toBe('serial');
    expect(pathOf(await fitted({ place: 'circuits.nobody.fuse', serial: 'x' }))).toBe('place');
    expect(pathOf(await fitted({ part: 'nobody@1', serial: 'x', reason: 'y' }))).toBe('part');
    const cable = partKey(catalogueOf('cable')[0]!);
    const wrongKind = await fitted({ part: cable, serial: 'x', reason: 'y' });
    expect([pathOf(wrongKind), wrongKind.body.error.message]).toEqual([
      'part',
      expect.stringContaining('not a fuse'),
    ]);
    const device = `devices.${Object.keys(design.devices)[0]}`;
    expect(pathOf(await send({ kind: 'part-fitted', place: device, part: cable, serial: 'x' }))).toBe('part');
    expect((await send({ kind: 'part-fitted', place: device, serial: 'D 9' })).status).toBe(200);
  });

  test('one serial of one part is not in two places', async () => {
    const places = partPlaces(design).filter(({ kind }) => kind === 'fuse');
    const [one, two] = [
      places[0]!,
      places.find(({ path, part }) => path !== places[0]!.path && part !== null)!,
    ];
    await send({ kind: 'part-fitted', place: one.path, serial: 'F 7' });
    const again = await send({
      kind: 'part-fitted',
      place: two.path,
      serial: 'F 7',
      ...(two.part !== one.part && { part: one.part, reason: 'The drawer.' }),
    });
    expect([again.status, again.body.error.code]).toEqual([409, 'serial-twice']);
  });
});

describe('cables as cut', () => {
  test('length and drum; what the design said then; what is no cable is refused', async () => {
    const path = `circuits.${mainCircuit}.lengthM`;
    const { status, body } = await send({ kind: 'cable-cut', place: path, lengthM: 7.25, batch: 'Drum 4' });
    expect([status, body.body]).toEqual([
      200,
      expect.objectContaining({
        lengthM: 7.25,
        designedM: design.circuits[mainCircuit]!.lengthM,
        batch: 'Drum 4',
      }),
    ]);
    expect(pathOf(await send({ kind: 'cable-cut', place: 'circuits.nobody.lengthM', lengthM: 2 }))).toBe(
      'place',
    );
    expect(pathOf(await send({ kind: 'cable-cut', place: path, lengthM: 0 }))).toBe('lengthM');
    const standing = await bench.rooms.ledger.standing(job);
    expect(asBuilt(design, standing).design.circuits[mainCircuit]!.lengthM).toBe(7.25);
  });
});
