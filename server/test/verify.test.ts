import { appendFileSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { canonicalText, hashText } from '@torvek/core/record';
import request from 'supertest';
import { lineOf, readChain } from '../src/journal/lines';
import { shopChain } from '../src/journal/links';
import { reconcile } from '../src/journal/reconcile';
import { changeOf, makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
let job = '';
let count = 0;
beforeAll(async () => {
  bench = await openBench();
  await request(bench.app).post('/api/instruments').send({
    id: 'meter-1',
    kind: 'meter',
    name: 'Bench meter',
    serial: 'BM 1',
    calibrationDue: '2027-03-31',
  });
});
afterAll(() => bench.close());

/** A job with two versions, six entries, a release and a file. */
beforeEach(async () => {
  count += 1;
  job = `job-${count}`;
  const design = await makeBus(bench, job);
  const post = (path: string, body: object) => request(bench.app).post(`/api/jobs/${job}/${path}`).send(body);
  await post(
    'changes',
    changeOf(design, 0, `${job}-c1`, (draft) => void (draft.pack.peakCurrentA = 333)),
  );
  for (let i = 1; i <= 6; i += 1) await post('entries', positionRequest(`${job}-entry-${i}`, i));
  await post('releases', { id: `${job}-r1`, label: 'For the inspector', version: 1 });
  await request(bench.app)
    .post(`/api/jobs/${job}/files?name=note.txt`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(`torque 24 Nm, ${job}`));
});

/** `@` stands for this test's job. Changes rows behind the product's back, as someone with the database in hand could. */
async function tamper(table: string, sql: string): Promise<void> {
  const picked = table === 'jobs' ? `id = '${job}'` : `job_id = '${job}'`;
  await bench.database.execute(
    `ALTER TABLE ${table} DISABLE TRIGGER ALL; ${sql.replaceAll('@', picked)}; ALTER TABLE ${table} ENABLE TRIGGER ALL;`,
  );
}
const tamperEntries = (sql: string) => tamper('entries', sql);
const verify = () => bench.rooms.verifier.job(job);
const named = async () => (await verify()).problems.map(({ what, message }) => `${what} ${message}`);
const numbers = async () => [...new Set((await verify()).problems.map(({ seq }) => seq))];

test('an untouched job fits: entries, versions, files, and its place in the shop’s chain', async () => {
  expect(await verify()).toMatchObject({
    ok: true,
    entries: 6,
    versions: 1,
    files: 1,
    problems: [],
    restored: [],
    repairs: [],
    notWitnessed: null,
    vouchedBy: null,
  });
  expect(await bench.rooms.verifier.shop()).toMatchObject({ ok: true, problems: [] });
});

test.each([
  [
    'entries',
    'seq = 4',
    'entry 4',
    [
      ['id', "'forged'"],
      ['kind', "'result'"],
      ['previous', "repeat('0', 64)"],
      ['sha256', "repeat('0', 64)"],
      ['recorded_at', "'2020-01-01T00:00:00.000Z'"],
      ['topic', "'work'"],
      ['target', '2'],
      ['stands', "'both'"],
      ['content', 'replace(content, \'"linksOut":4\', \'"linksOut":0\')'],
      ['content', "content || ' '"],
      ['seq', '40'],
    ],
  ],
  [
    'changes',
    'version = 1',
    'version 1',
    [
      ['author', "'Somebody else'"],
      ['label', "'another label'"],
      ['made_at', "'2020-01-01T00:00:00.000Z'"],
      ['saved_at', "'2020-01-01T00:00:00.000Z'"],
      ['forward', "replace(forward, '333', '334')"],
      ['inverse', "replace(inverse, '400', '401')"],
      ['id', "'forged-change'"],
      ['base', '7'],
    ],
  ],
  [
    'releases',
    'number = 1',
    'release 1',
    [
      ['label', "'For somebody else'"],
      ['released_by', "'Somebody else'"],
      ['content', "replace(content, 'inspector', 'Inspector')"],
      ['version', '0'],
    ],
  ],
  [
    'files',
    'TRUE',
    'the file ',
    [
      ['name', "'another.txt'"],
      ['added_by', "'Somebody else'"],
      ['size', '7'],
    ],
  ],
  [
    'jobs',
    'TRUE',
    'the job',
    [
      ['name', "'Another name'"],
      ['demo', 'true'],
      ['version', '0'],
      ['created_at', "'2020-01-01T00:00:00.000Z'"],
      ['design', "replace(design, '333', '334')"],
      ['first_design', "replace(first_design, '400', '401')"],
      ['imported_by', "'Somebody else'"],
    ],
  ],
] as [string, string, string, [string, string][]][])(
  'altering a row of %s in any of its columns is found and named',
  async (table, where, what, columns) => {
    const picked = table === 'jobs' ? `id = '${job}'` : `job_id = '${job}'`;
    const [kept] = await bench.database.query<{ text: string }>(
      `SELECT row_to_json(t)::text AS text FROM ${table} t WHERE ${picked} AND ${where}`,
    );
    for (const [column, value] of columns) {
      await tamper(table, `UPDATE ${table} SET ${column} = ${value} WHERE @ AND ${where}`);
      const problems = await named();
      expect([column, problems.some((one) => one.startsWith(what))]).toEqual([column, true]);
      // Put back as it was.
      const altered = table === 'entries' ? 'seq IN (4, 40)' : 'TRUE';
      await tamper(table, `DELETE FROM ${table} WHERE @ AND ${altered}`);
      await bench.database.query(
        `INSERT INTO ${table} SELECT * FROM json_populate_record(NULL::${table}, $1::json)`,
        [kept!.text],
      );
    }
    expect((await verify()).ok).toBe(true);
  },
);

test('moving an entry to another job is found in both', async () => {
  await makeBus(bench, `${job}-other`);
  await tamperEntries(`UPDATE entries SET job_id = '${job}-other' WHERE @ AND seq = 4`);
  expect(await named()).toEqual(['entry 4 is missing in the database']);
  const other = await bench.rooms.verifier.job(`${job}-other`);
  expect(other.problems.map(({ what, message }) => `${what} ${message}`)).toEqual([
    'entry 4 is in the database, and was never recorded',
  ]);
});

describe('missing, swapped and inserted rows', () => {
  test.each([1, 3, 6])('deleting entry %i', async (seq) => {
    await tamperEntries(`DELETE FROM entries WHERE @ AND seq = ${seq}`);
    expect(await named()).toEqual([`entry ${seq} is missing in the database`]);
  });

  test('swapping two', async () => {
    await tamperEntries(
      'UPDATE entries SET seq = 99 WHERE @ AND seq = 2; UPDATE entries SET seq = 2 WHERE @ AND seq = 5; UPDATE entries SET seq = 5 WHERE @ AND seq = 99',
    );
    expect(await numbers()).toEqual([2, 5]);
  });

  test('inserting one at the end, well made in itself', async () => {
    const [last] = (await bench.rooms.ledger.all(job)).slice(-1);
    const { sha256, ...rest } = last!;
    const forged = { ...rest, id: `${job}-forged`, seq: 7, previous: sha256 };
    const text = canonicalText(forged);
    await bench.database.query(
      "INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, topic, stands, content) VALUES ($5, 7, $6, 'position', $1, $2, $3, 'position', 'newest', $4)",
      [sha256, hashText(text), forged.recordedAt, text, job, forged.id],
    );
    expect(await named()).toEqual(['entry 7 is in the database, and was never recorded']);
  });

  test('deleting everything that was recorded, and the design’s history', async () => {
    await tamperEntries('DELETE FROM entries WHERE @');
    await tamper('changes', 'DELETE FROM changes WHERE @');
    await tamper('releases', 'DELETE FROM releases WHERE @');
    expect(await numbers()).toEqual([null, 1, 2, 3, 4, 5, 6]);
    expect(await named()).toEqual(
      expect.arrayContaining([
        'version 1 is missing in the database',
        'release 1 is missing in the database',
      ]),
    );
  });

  test('an attachment that was altered, or is gone', async () => {
    const [file] = await bench.rooms.files.list(job);
    const path = bench.rooms.files.pathOf(file!.sha256);
    writeFileSync(path, 'torque 42 Nm');
    expect(await named()).toEqual([`the file ${file!.sha256.slice(0, 12)}… is not what was stored`]);
    rmSync(path);
    expect(await named()).toEqual([`the file ${file!.sha256.slice(0, 12)}… is missing in the folder`]);
  });
});

describe('the shop', () => {
  const shopProblems = async () =>
    (await bench.rooms.verifier.shop()).problems.map(({ what, message }) => `${what} ${message}`);

  test('a role given, a person added, an instrument altered behind its back', async () => {
    await bench.database.query(
      `UPDATE people SET roles = '["owner"]', name = 'Text' WHERE id = 'person-test'`,
    );
    await bench.database.query(
      `INSERT INTO people (id, name, roles, created_at) VALUES ('person-x', 'Xaver', '["owner"]', '2026-11-25')`,
    );
    await bench.database.query(`UPDATE instruments SET calibration_due = '2030-01-01' WHERE id = 'meter-1'`);
    expect(await shopProblems()).toEqual([
      'the person person-test has another name in the database than was recorded',
      'the person person-x is in the database, and was never recorded',
      'the instrument meter-1 has another calibration due in the database than was recorded',
    ]);
    await bench.database.query(`UPDATE people SET name = 'Test' WHERE id = 'person-test'`);
    await bench.database.query(`DELETE FROM people WHERE id = 'person-x'`);
    await bench.database.query(`UPDATE instruments SET calibration_due = '2027-03-31' WHERE id = 'meter-1'`);
    expect(await shopProblems()).toEqual([]);
  });

  test('a whole job removed, from the database and from the folder', async () => {
    const path = bench.rooms.journal.path(job);
    const kept = readFileSync(path);
    for (const table of ['entries', 'changes', 'releases', 'files'])
      await tamper(table, `DELETE FROM ${table} WHERE @`);
    await bench.database.query('DELETE FROM jobs WHERE id = $1', [job]);
    rmSync(path);
    expect(await shopProblems()).toEqual([
      `the job Bus (${job}) is gone with its journal: the shop’s journal knows it`,
    ]);
    // Its journal put back is all that it takes.
    writeFileSync(path, kept);
    await bench.database.query('DELETE FROM chains WHERE name = $1', [job]);
    await reconcile(bench.database, bench.rooms.journal, '2026-11-28T12:00:00.000Z');
    expect(await shopProblems()).toEqual([]);
    expect(await verify()).toMatchObject({ ok: true, entries: 6, versions: 1, files: 1 });
  });

  test('a chain cut off with all its rows, once the shop’s chain knows where it stood', async () => {
    await bench.rooms.writer.note();
    const path = bench.rooms.journal.path(job);
    const kept = readFileSync(path, 'utf8');
    const lines = kept.split('\n');
    // The file, the release and the last entry go, and their rows.
    writeFileSync(path, `${lines.slice(0, -4).join('\n')}\n`);
    await tamperEntries('DELETE FROM entries WHERE @ AND seq = 6');
    await tamper('releases', 'DELETE FROM releases WHERE @');
    await tamper('files', 'DELETE FROM files WHERE @');
    expect(await named()).toEqual([
      'the journal ends at link 7; the shop’s journal knows 10',
      'the journal has another link 10 than the database knows',
    ]);
    writeFileSync(path, kept);
  });

  test('a chain written anew, whole in itself', async () => {
    await bench.rooms.writer.note();
    const path = bench.rooms.journal.path(job);
    const kept = readFileSync(path);
    const { links } = readChain(kept);
    let head = null;
    const lines: Buffer[] = [];
    for (const { body, at } of links) {
      const { bytes, link } = lineOf(
        body.kind === 'file' ? { ...body, by: 'Somebody else' } : body,
        head,
        at,
      );
      lines.push(bytes);
      head = link;
    }
    writeFileSync(path, Buffer.concat(lines));
    await tamper('files', "UPDATE files SET added_by = 'Somebody else' WHERE @");
    expect(await named()).toEqual([
      'the journal has another link 10 than the shop’s journal knows',
      'the journal has another link 10 than the database knows',
    ]);
    writeFileSync(path, kept);
  });
});

describe('an entry is held against the design it was judged by', () => {
  test('a version altered consistently in chain and database is named by the entries', async () => {
    const path = bench.rooms.journal.path(job);
    const kept = readFileSync(path);
    const { links } = readChain(kept);
    let head = null;
    const lines: Buffer[] = [];
    for (const { body, at } of links) {
      const altered =
        body.kind === 'change' ? (JSON.parse(JSON.stringify(body).replaceAll('333', '334')) as object) : body;
      const { bytes, link } = lineOf(altered, head, at);
      lines.push(bytes);
      head = link;
    }
    writeFileSync(path, Buffer.concat(lines));
    const problems = await named();
    expect(problems).toContain('version 1 leads to another design than its hash says');
    expect(problems).toContain('entry 3 was judged against another design than version 1 is');
    expect(problems).toContain('release 1 does not hold the design of version 1');
    writeFileSync(path, kept);
  });
});

describe('bringing database and journals together', () => {
  const path = () => bench.rooms.journal.path(job);
  const now = '2026-11-28T12:00:00.000Z';
  const again = () => reconcile(bench.database, bench.rooms.journal, now);
  /** The database as it was before the last links of this job. */
  async function behindBy(links: number): Promise<void> {
    const chain = readChain(readFileSync(path()));
    const at = chain.links.at(-1 - links)!;
    await tamper('files', 'DELETE FROM files WHERE @');
    await tamper('releases', 'DELETE FROM releases WHERE @');
    await tamperEntries(`DELETE FROM entries WHERE @ AND seq > ${8 - links}`);
    await bench.database.query('UPDATE chains SET n = $2, sha256 = $3 WHERE name = $1', [
      job,
      at.n,
      at.sha256,
    ]);
  }

  test('what a crash kept from the database is brought in; half a line is cut off', async () => {
    await behindBy(4);
    appendFileSync(path(), `${'0'.repeat(64)} {"n":11,"previ`);
    expect((await again()).notes).toEqual([`${job}: 4 links brought into the database`]);
    expect(await verify()).toMatchObject({ ok: true, entries: 6, files: 1, repairs: [] });
    const { body } = await request(bench.app)
      .post(`/api/jobs/${job}/entries`)
      .send(positionRequest(`${job}-entry-7`));
    expect(body.seq).toBe(7);
    expect((await verify()).ok).toBe(true);
  });

  test('a change that the database lost is applied again', async () => {
    const design = (await bench.rooms.jobs.get(job)).design;
    const before = bench.rooms.journal.head(job)!;
    await request(bench.app)
      .post(`/api/jobs/${job}/changes`)
      .send(changeOf(design, 1, `${job}-c2`, (draft) => void (draft.pack.peakCurrentA = 444)));
    await tamper('changes', 'DELETE FROM changes WHERE @ AND version = 2');
    await bench.database.query('UPDATE jobs SET design = $2, version = 1 WHERE id = $1', [
      job,
      JSON.stringify(design),
    ]);
    await bench.database.query('UPDATE chains SET n = $2, sha256 = $3 WHERE name = $1', [
      job,
      before.n,
      before.sha256,
    ]);
    await again();
    expect(await bench.rooms.jobs.get(job)).toMatchObject({
      version: 2,
      design: { pack: { peakCurrentA: 444 } },
    });
    expect((await verify()).ok).toBe(true);
  });

  test('a chain of another history is refused, and nothing is touched', async () => {
    const kept = readFileSync(path());
    const { links } = readChain(kept);
    let head = null;
    const lines: Buffer[] = [];
    for (const { body } of links) {
      const { bytes, link } = lineOf(body, head, now);
      lines.push(bytes);
      head = link;
    }
    writeFileSync(path(), Buffer.concat(lines));
    bench.rooms.journal.forget();
    await expect(again()).rejects.toThrow(
      `the database and the journal of ${job} tell of different histories: one of them was altered or exchanged.`,
    );
    expect(await named()).toEqual(['the journal has another link 10 than the database knows']);
    writeFileSync(path(), kept);
    bench.rooms.journal.forget();
  });

  test('a journal that lost its end, or is gone: taken up from the database, and said for ever', async () => {
    const kept = readFileSync(path(), 'utf8');
    const lines = kept.split('\n');
    writeFileSync(path(), `${lines.slice(0, -3).join('\n')}\n`);
    bench.rooms.journal.forget();
    expect((await again()).notes).toEqual([
      `the journal of ${job}: line 9 was lost, and all up to 10; 2 facts taken up from the database`,
    ]);
    expect(await verify()).toMatchObject({
      ok: true,
      entries: 6,
      files: 1,
      repairs: ['line 9 was lost, and all up to 10'],
    });
    rmSync(path());
    bench.rooms.journal.forget();
    await again();
    const whole = await verify();
    expect(whole).toMatchObject({
      ok: true,
      entries: 6,
      versions: 1,
      repairs: ['line 1 was lost, and all up to 11'],
    });
  });

  test('lines that are no links stop no start', async () => {
    const kept = readFileSync(path());
    for (const line of ['null', '{}', '0'.repeat(200), '', ' ']) {
      writeFileSync(path(), Buffer.concat([kept, Buffer.from(`${line}\n`)]));
      bench.rooms.journal.forget();
      await again();
      expect([line, (await verify()).ok]).toEqual([line, true]);
    }
  });

  test('a damaged line of the shop is named and repaired, the person with it', async () => {
    const shop = bench.rooms.journal.path(shopChain);
    const bytes = readFileSync(shop);
    const at = bytes.indexOf('"serial":"BM 1"') + 11;
    bytes[at]! ^= 1;
    writeFileSync(shop, bytes);
    expect((await bench.rooms.verifier.shop()).problems[0]!.message).toBe(
      'is damaged: its line does not match its hash',
    );
    bench.rooms.journal.forget();
    await again();
    expect(await bench.rooms.verifier.shop()).toMatchObject({ ok: true, problems: [] });
  });
});

test('an entry the database refuses leaves nothing in the journal', async () => {
  const before = readFileSync(bench.rooms.journal.path(job));
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
  expect(readFileSync(bench.rooms.journal.path(job)).equals(before)).toBe(true);
  expect(await verify()).toMatchObject({ ok: true, entries: 6 });
});
