import { appendFileSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { canonicalText, hashText } from '@torvek/core/record';
import request from 'supertest';
import { makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
beforeEach(async () => {
  bench = await openBench();
  await makeBus(bench);
  for (let i = 1; i <= 6; i += 1)
    await request(bench.app)
      .post('/api/jobs/job-bus/entries')
      .send(positionRequest(`entry-${i}`, i));
});
afterEach(() => bench.close());

/** Changes the record behind the product's back, as someone with the database in hand could. */
const tamper = (sql: string) =>
  bench.database.execute(
    `ALTER TABLE entries DISABLE TRIGGER ALL; ${sql}; ALTER TABLE entries ENABLE TRIGGER ALL;`,
  );
const verify = () => bench.rooms.ledger.verify('job-bus');
const numbers = async () => [...new Set((await verify()).problems.map(({ seq }) => seq))];

test('an untouched chain fits', async () => {
  expect(await verify()).toEqual({ ok: true, entries: 6, problems: [] });
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
    await tamper(`UPDATE entries SET ${column} = ${value} WHERE seq = 4`);
    const { ok, problems } = await verify();
    expect(ok).toBe(false);
    expect(problems[0]!.seq).toBe(4);
  });
});

test('moving an entry to another job is found in both', async () => {
  await makeBus(bench, 'job-other');
  await tamper("UPDATE entries SET job_id = 'job-other' WHERE seq = 4");
  expect(await numbers()).toContain(4);
  const other = await bench.rooms.ledger.verify('job-other');
  expect(other.ok).toBe(false);
  expect(other.problems.map(({ seq }) => seq)).toContain(4);
});

describe('missing, swapped and inserted entries', () => {
  test.each([1, 3, 6])('deleting entry %i', async (seq) => {
    await tamper(`DELETE FROM entries WHERE seq = ${seq}`);
    expect((await verify()).problems[0]).toMatchObject({
      seq,
      message: expect.stringContaining('is missing'),
    });
  });

  test('swapping two', async () => {
    await tamper(
      'UPDATE entries SET seq = 99 WHERE seq = 2; UPDATE entries SET seq = 2 WHERE seq = 5; UPDATE entries SET seq = 5 WHERE seq = 99',
    );
    expect(await numbers()).toEqual(expect.arrayContaining([2, 5]));
  });

  test('inserting one at the end, well made in itself', async () => {
    const [last] = (await bench.rooms.ledger.list('job-bus')).slice(-1);
    const { sha256, ...rest } = last!;
    const forged = { ...rest, id: 'forged', seq: 7, previous: sha256 };
    const text = canonicalText(forged);
    await bench.database.query(
      "INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, content) VALUES ('job-bus', 7, 'forged', 'position', $1, $2, $3, $4)",
      [sha256, hashText(text), forged.recordedAt, text],
    );
    expect((await verify()).problems).toEqual([
      { seq: 7, message: 'is not known to the head kept beside the database' },
    ]);
  });

  test('replacing the last one by another well made one', async () => {
    const [last] = (await bench.rooms.ledger.list('job-bus')).slice(-1);
    const { sha256: _old, ...rest } = last!;
    const text = canonicalText({ ...rest, by: 'Somebody else' });
    await tamper(`UPDATE entries SET content = $t$${text}$t$, sha256 = '${hashText(text)}' WHERE seq = 6`);
    expect((await verify()).problems).toEqual([
      { seq: 6, message: 'has another hash than the head kept beside the database' },
    ]);
  });

  test('deleting everything', async () => {
    await tamper('DELETE FROM entries');
    expect(await numbers()).toEqual([1, 2, 3, 4, 5, 6]);
  });
});

describe('the journal beside the database', () => {
  const path = () => join(bench.folder, 'journal', 'job-bus.jsonl');

  test('brings back what a crash kept from the database, and mends a torn line', async () => {
    await tamper('DELETE FROM entries WHERE seq >= 5');
    appendFileSync(path(), '{"seq":7,"sha256":"to');
    expect(await bench.rooms.ledger.reconcile()).toBe(2);
    expect(await verify()).toEqual({ ok: true, entries: 6, problems: [] });
    const { body } = await request(bench.app)
      .post('/api/jobs/job-bus/entries')
      .send(positionRequest('entry-7'));
    expect(body.seq).toBe(7);
    expect((await verify()).ok).toBe(true);
  });

  test('is not believed where it does not fit the chain', async () => {
    await tamper('DELETE FROM entries WHERE seq >= 5');
    writeFileSync(path(), readFileSync(path(), 'utf8').replace('\\"linksOut\\":5', '\\"linksOut\\":0'));
    expect(await bench.rooms.ledger.reconcile()).toBe(0);
    expect((await verify()).ok).toBe(false);
  });

  test('an entry the database refused does not count', async () => {
    await expect(
      bench.rooms.ledger.append('job-bus', 'entry-8', () => ({
        id: 'entry-1',
        takenAt: '2026-11-25T08:00:00Z',
        zone: 'UTC',
        by: 'Test',
        witness: null,
        subjects: [],
        basis: [],
        instrument: null,
        attachments: [],
        body: { kind: 'work', what: 'an id that is taken' },
      })),
    ).rejects.toThrow();
    expect(await verify()).toEqual({ ok: true, entries: 6, problems: [] });
  });
});
