import { appendFileSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { canonicalText, hashText } from '@torvek/core/record';
import request from 'supertest';
import { makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
let job = '';
let count = 0;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());
beforeEach(async () => {
  count += 1;
  job = `job-${count}`;
  await makeBus(bench, job);
  for (let i = 1; i <= 6; i += 1)
    await request(bench.app)
      .post(`/api/jobs/${job}/entries`)
      .send(positionRequest(`${job}-entry-${i}`, i));
});

/** `@` stands for this test's job. Changes the record behind the product's back, as someone with the database in hand could. */
const tamper = (sql: string) =>
  bench.database.execute(
    `ALTER TABLE entries DISABLE TRIGGER ALL; ${sql.replaceAll('@', `job_id = '${job}'`)}; ALTER TABLE entries ENABLE TRIGGER ALL;`,
  );
const verify = () => bench.rooms.ledger.verify(job);
const numbers = async () => [...new Set((await verify()).problems.map(({ seq }) => seq))];

test('an untouched chain fits', async () => {
  expect(await verify()).toEqual({ ok: true, entries: 6, problems: [], restored: [] });
});

describe.each([
  ['id', "'forged'"],
  ['kind', "'result'"],
  ['previous', "repeat('0', 64)"],
  ['sha256', "repeat('0', 64)"],
  ['recorded_at', "'2020-01-01T00:00:00.000Z'"],
  ['content', 'replace(content, \'"linksOut":4\', \'"linksOut":0\')'],
  ['content', "content || ' '"],
  ['seq', '40'],
])('altering column %s to %s', (column, value) => {
  test('is found and named', async () => {
    await tamper(`UPDATE entries SET ${column} = ${value} WHERE @ AND seq = 4`);
    const { ok, problems } = await verify();
    expect(ok).toBe(false);
    expect(problems[0]!.seq).toBe(4);
  });
});

test('moving an entry to another job is found in both', async () => {
  await makeBus(bench, `${job}-other`);
  await tamper(`UPDATE entries SET job_id = '${job}-other' WHERE @ AND seq = 4`);
  expect(await numbers()).toContain(4);
  const other = await bench.rooms.ledger.verify(`${job}-other`);
  expect(other.ok).toBe(false);
  expect(other.problems.map(({ seq }) => seq)).toContain(4);
});

describe('missing, swapped and inserted entries', () => {
  test.each([1, 3, 6])('deleting entry %i', async (seq) => {
    await tamper(`DELETE FROM entries WHERE @ AND seq = ${seq}`);
    expect((await verify()).problems[0]).toMatchObject({
      seq,
      message: expect.stringContaining('is missing'),
    });
  });

  test('swapping two', async () => {
    await tamper(
      'UPDATE entries SET seq = 99 WHERE @ AND seq = 2; UPDATE entries SET seq = 2 WHERE @ AND seq = 5; UPDATE entries SET seq = 5 WHERE @ AND seq = 99',
    );
    expect(await numbers()).toEqual(expect.arrayContaining([2, 5]));
  });

  test('inserting one at the end, well made in itself', async () => {
    const [last] = (await bench.rooms.ledger.all(job)).slice(-1);
    const { sha256, ...rest } = last!;
    const forged = { ...rest, id: `${job}-forged`, seq: 7, previous: sha256 };
    const text = canonicalText(forged);
    await bench.database.query(
      "INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, topic, content) VALUES ($5, 7, $6, 'position', $1, $2, $3, 'position', $4)",
      [sha256, hashText(text), forged.recordedAt, text, job, forged.id],
    );
    expect((await verify()).problems).toEqual([
      { seq: 7, message: 'is not known to the journal beside the database' },
    ]);
  });

  test('replacing the last one by another well made one', async () => {
    const [last] = (await bench.rooms.ledger.all(job)).slice(-1);
    const { sha256: _old, ...rest } = last!;
    const text = canonicalText({ ...rest, by: 'Somebody else' });
    await tamper(
      `UPDATE entries SET content = $t$${text}$t$, sha256 = '${hashText(text)}' WHERE @ AND seq = 6`,
    );
    expect((await verify()).problems).toEqual([
      { seq: 6, message: 'has another hash than the journal beside the database' },
    ]);
  });

  test('deleting everything', async () => {
    await tamper('DELETE FROM entries WHERE @');
    expect(await numbers()).toEqual([1, 2, 3, 4, 5, 6]);
  });
});

describe('the journal beside the database', () => {
  // Other tests' jobs are whole before one of these counts.
  beforeEach(() => bench.rooms.ledger.reconcile());

  const path = () => join(bench.folder, 'journal', `${job}.jsonl`);

  /** The journal as it is when the process dies between writing it and the database's commit. */
  const uncommit = (from: number) =>
    writeFileSync(
      path(),
      readFileSync(path(), 'utf8')
        .split('\n')
        .filter((line) => !(line.startsWith('{"committed"') && Number(/\d+/.exec(line)![0]) >= from))
        .join('\n'),
    );

  test('brings in what a crash kept from the database, and mends a torn line', async () => {
    await tamper('DELETE FROM entries WHERE @ AND seq >= 5');
    uncommit(5);
    appendFileSync(path(), '{"seq":7,"sha256":"to');
    expect(await bench.rooms.ledger.reconcile()).toBe(2);
    expect(await verify()).toEqual({ ok: true, entries: 6, problems: [], restored: [] });
    const { body } = await request(bench.app)
      .post(`/api/jobs/${job}/entries`)
      .send(positionRequest(`${job}-entry-7`));
    expect(body.seq).toBe(7);
    expect((await verify()).ok).toBe(true);
  });

  test('brings back a tail that the database had and lost, and says so for ever', async () => {
    await tamper('DELETE FROM entries WHERE @ AND seq >= 5');
    expect((await verify()).problems.map(({ seq }) => seq)).toEqual([5, 6]);
    expect(await bench.rooms.ledger.reconcile()).toBe(2);
    const { ok, restored } = await bench.rooms.ledger.verify(job);
    expect([ok, restored.map(({ seq }) => seq)]).toEqual([true, [5, 6]]);
  });

  test('a gap in the middle is not smoothed over; the chain goes on after it', async () => {
    await tamper('DELETE FROM entries WHERE @ AND seq = 4');
    expect(await bench.rooms.ledger.reconcile()).toBe(0);
    const { body } = await request(bench.app)
      .post(`/api/jobs/${job}/entries`)
      .send(positionRequest(`${job}-entry-7`));
    expect(body.seq).toBe(7);
    expect((await verify()).problems).toEqual([{ seq: 4, message: 'is missing' }]);
  });

  test('is not believed where it does not fit the chain', async () => {
    await tamper('DELETE FROM entries WHERE @ AND seq >= 5');
    uncommit(5);
    writeFileSync(path(), readFileSync(path(), 'utf8').replace('\\"linksOut\\":5', '\\"linksOut\\":0'));
    expect(await bench.rooms.ledger.reconcile()).toBe(0);
    expect((await verify()).ok).toBe(false);
  });

  test('a line that was damaged at any place stops no start, and nothing untrue comes out of it', async () => {
    await tamper('DELETE FROM entries WHERE @ AND seq >= 5');
    uncommit(5);
    const whole = readFileSync(path());
    const from = whole.indexOf('{"seq":5');
    const rows = async () =>
      (
        await bench.database.query<{ sha256: string }>(
          'SELECT sha256 FROM entries WHERE job_id = $1 AND seq >= 5 ORDER BY seq',
          [job],
        )
      ).map(({ sha256 }) => sha256);
    const [fifth, sixth] = bench.rooms.ledger.journal
      .read(job)
      .slice(-2)
      .map(({ sha256 }) => sha256);
    for (let at = from; at < whole.length; at += 7) {
      const bytes = Buffer.from(whole);
      bytes[at]! ^= 1 << (at % 8);
      writeFileSync(path(), bytes);
      await bench.rooms.ledger.reconcile();
      const found = await rows();
      expect([at, [[], [fifth], [fifth, sixth]].some((good) => String(good) === String(found))]).toEqual([
        at,
        true,
      ]);
      await verify();
      await tamper('DELETE FROM entries WHERE @ AND seq >= 5');
    }
    for (const line of ['null', '5', '"text"', '[]', '{}', '{"seq":5}']) {
      writeFileSync(path(), `${whole.subarray(0, from).toString('utf8')}${line}\n`);
      expect([line, await bench.rooms.ledger.reconcile()]).toEqual([line, 0]);
    }
    writeFileSync(path(), whole);
    expect(await bench.rooms.ledger.reconcile()).toBe(2);
    expect((await verify()).ok).toBe(true);
  });

  test('an entry the database refused does not count', async () => {
    await expect(
      bench.rooms.ledger.append(job, `${job}-entry-8`, () => ({
        id: `${job}-entry-1`,
        by: 'Test',
        takenAt: '2026-11-25T08:00:00Z',
        zone: 'UTC',
        witness: null,
        subjects: [],
        basis: [],
        instrument: null,
        attachments: [],
        body: { kind: 'work', what: 'an id that is taken' },
      })),
    ).rejects.toThrow();
    expect(await verify()).toEqual({ ok: true, entries: 6, problems: [], restored: [] });
  });
});
