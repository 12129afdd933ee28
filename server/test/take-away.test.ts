import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Design } from '@torvek/core/document';
import { strFromU8, unzipSync } from 'fflate';
import request from 'supertest';
import { seedDemo } from '../src/demo/seed';
import { hashBytes } from '../src/files/files';
import { jsonFile, pack, unpack } from '../src/take-away/archive';
import { checkArchive } from '../src/take-away/import';
import {
  changeOf,
  makeBus,
  openBench,
  positionRequest,
  signIn,
  testPassword,
  type Bench,
} from './bench-room';

let bench: Bench;
let design: Design;
beforeAll(async () => {
  bench = await openBench();
  design = await makeBus(bench);
});
afterAll(() => bench.close());

/** The smallest PNG there is. */
const png = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

const binary = (response: request.Response, done: (error: Error | null, body: Buffer) => void) => {
  const chunks: Buffer[] = [];
  response.on('data', (chunk: Buffer) => chunks.push(chunk));
  response.on('end', () => done(null, Buffer.concat(chunks)));
};
const download = (from: Bench, path: string) =>
  request(from.app)
    .get(path)
    .buffer()
    .parse(binary as never);
const upload = (to: Bench, path: string, bytes: Uint8Array) =>
  request(to.app).post(path).set('Content-Type', 'application/octet-stream').send(Buffer.from(bytes));
const attach = (name: string, bytes: Uint8Array, job = 'job-bus') =>
  upload(bench, `/api/jobs/${job}/files?name=${encodeURIComponent(name)}`, bytes);

describe('files', () => {
  test('are kept by the hash of their content, whatever they are called; the same again is the same', async () => {
    const first = await attach('weld seam.png', png);
    expect(first.body).toMatchObject({
      sha256: hashBytes(png),
      type: 'image/png',
      size: png.length,
      addedBy: 'Test',
    });
    expect((await attach('again.png', png)).body).toEqual(first.body);
    const back = await download(bench, `/api/jobs/job-bus/files/${first.body.sha256}`);
    expect(Buffer.compare(back.body as Buffer, png)).toBe(0);
    expect(back.headers['content-security-policy']).toContain('sandbox');
    expect(back.headers['x-content-type-options']).toBe('nosniff');
  });

  test.each([
    ['a program', Buffer.from('7f454c4602010100000000000000000002003e00', 'hex')],
    ['a page that calls itself a picture', Buffer.from('<html><script>alert(1)</script>')],
    ['nothing', Buffer.alloc(0)],
    ['bytes that are no text', Buffer.from([0xff, 0xfe, 0x00, 0x41])],
  ])('%s is refused by its content', async (_what, bytes) => {
    const { status, body } = await attach('photo.jpg', bytes);
    expect([status, body.error.issues[0].path]).toEqual([422, 'file']);
  });

  test('one byte over the limit is refused', async () => {
    const { status, body } = await attach('big.txt', Buffer.alloc(20 * 1024 * 1024 + 1, 'a'));
    expect([status, body.error.code]).toEqual([413, 'too-large']);
  });

  test('go with an entry only when they are files of the job', async () => {
    const send = (id: string, attachments: string[]) =>
      request(bench.app)
        .post('/api/jobs/job-bus/entries')
        .send({ ...positionRequest(id), attachments });
    expect((await send('with-1', [hashBytes(png)])).body.attachments).toEqual([hashBytes(png)]);
    expect((await send('with-2', ['0'.repeat(64)])).body.error.issues[0].path).toBe('attachments.0');
  });

  test('that were changed on the disk are not handed out', async () => {
    const { body } = await attach('note.txt', Buffer.from('torque 24 Nm'));
    writeFileSync(join(bench.folder, 'files', body.sha256), 'torque 42 Nm');
    expect((await request(bench.app).get(`/api/jobs/job-bus/files/${body.sha256}`)).status).toBe(409);
    writeFileSync(join(bench.folder, 'files', body.sha256), 'torque 24 Nm');
  });
});

describe('releases', () => {
  test('freeze a numbered revision with figures and head, and stay as they were', async () => {
    const release = (id: string, version: number) =>
      request(bench.app).post('/api/jobs/job-bus/releases').send({ id, label: 'For the inspector', version });
    expect((await release('r-0', 7)).body.error.issues[0].path).toBe('version');
    const { body } = await release('r-1', 0);
    expect(body).toMatchObject({ number: 1, version: 0, label: 'For the inspector', by: 'Test' });
    await request(bench.app)
      .post('/api/jobs/job-bus/changes')
      .send(changeOf(design, 0, 'c-1', (draft) => void (draft.pack.peakCurrentA = 333)));
    expect((await release('r-2', 1)).body.number).toBe(2);
    expect((await release('r-1', 1)).body).toEqual(body);
    const frozen = (await request(bench.app).get('/api/jobs/job-bus/releases/1')).body;
    expect(frozen.design.pack.peakCurrentA).toBe(400);
    expect(frozen.figures['pack.pack:pack:voltageMaxV']).toEqual({
      value: expect.closeTo(403.2, 9),
      unit: 'V',
    });
    const [last] = (await bench.rooms.ledger.all('job-bus')).slice(-1);
    expect(frozen.head).toEqual({ seq: last!.seq, sha256: last!.sha256 });
  });

  test('cannot be changed in the database', async () => {
    await expect(bench.database.query("UPDATE releases SET label = 'x'")).rejects.toThrow('append-only');
  });
});

describe('a job as one file', () => {
  test('comes back elsewhere with everything, and verifies there', async () => {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const there = await openBench();
    const { body: report } = await upload(there, '/api/import', bytes as Buffer);
    expect(report).toMatchObject({ ok: true, entries: 1, releases: 2, files: 2, changes: 1, problems: [] });
    expect(await there.rooms.ledger.verify('job-bus')).toMatchObject({ ok: true, entries: 1 });
    expect((await there.rooms.jobs.get('job-bus')).design).toEqual(
      (await bench.rooms.jobs.get('job-bus')).design,
    );
    expect(await there.rooms.releases.content('job-bus', 1)).toEqual(
      await bench.rooms.releases.content('job-bus', 1),
    );
    expect(Buffer.from(there.rooms.files.read(hashBytes(png))).equals(png)).toBe(true);
    const [listed] = (await request(there.app).get('/api/jobs')).body;
    expect(listed).toMatchObject({ id: 'job-bus', importedBy: 'Test' });
    // And it goes on there.
    const next = await request(there.app).post('/api/jobs/job-bus/entries').send(positionRequest('after'));
    expect(next.body.seq).toBe(2);
    expect((await there.rooms.ledger.verify('job-bus')).ok).toBe(true);
    const again = await upload(there, '/api/import', bytes as Buffer);
    expect([again.status, again.body.error.code]).toEqual([409, 'job-is-here']);
    await there.close();
  });

  test('holds readable JSON and CSV; what looks like a formula is text', async () => {
    await request(bench.app)
      .post('/api/jobs/job-bus/entries')
      .send({ id: 'formula', kind: 'note', takenAt: '2026-11-25T08:00:00Z', text: '=1+1' });
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const files = unzipSync(bytes as Buffer);
    expect(Object.keys(files).sort()).toEqual(
      expect.arrayContaining(['changes.csv', 'design.json', 'entries.csv', 'entries.json', 'manifest.json']),
    );
    expect(JSON.parse(strFromU8(files['design.json']!)).pack.peakCurrentA).toBe(333);
    const lines = strFromU8(files['entries.csv']!).split('\r\n');
    expect(lines[0]).toMatch(/^number,kind,recorded at \(UTC\)/);
    expect(lines.at(-1)).toContain("'=1+1");
  });

  test('with any one byte changed is refused, and nothing is written', async () => {
    const small = await openBench();
    await small.rooms.jobs.create('job-small', 'Small');
    await request(small.app).post('/api/jobs/job-small/entries').send(positionRequest('one'));
    const { body: bytes } = await download(small, '/api/jobs/job-small/export');
    const whole = new Uint8Array(bytes as Buffer);
    expect((await checkArchive(whole)).report.ok).toBe(true);
    for (let at = 0; at < whole.length; at += 1) {
      whole[at]! ^= 1 << (at % 8);
      const { report } = await checkArchive(whole);
      if (report.ok) throw new Error(`a changed byte ${at} went unseen`);
      whole[at]! ^= 1 << (at % 8);
    }
    const there = await openBench();
    whole[400]! ^= 4;
    const { status, body } = await upload(there, '/api/import', whole);
    expect([status, body.error.code]).toEqual([422, 'archive-broken']);
    expect(await there.rooms.jobs.list()).toEqual([]);
    await Promise.all([small.close(), there.close()]);
  });

  test('a thousand changed bytes of the demo’s are each refused, the file named where it can be', async () => {
    const demo = await openBench(true);
    await seedDemo(demo.database, demo.folder);
    const { body: bytes } = await download(demo, '/api/jobs/job-demo-library-bus/export');
    const whole = new Uint8Array(bytes as Buffer);
    const { report } = await checkArchive(whole);
    expect([report.ok, report.entries, report.version]).toEqual([true, 72, 4]);
    let named = 0;
    for (let i = 0; i < 1000; i += 1) {
      const at = Math.floor((i * whole.length) / 1000);
      whole[at]! ^= 0x10;
      const { report: altered } = await checkArchive(whole);
      if (altered.ok) throw new Error(`a changed byte ${at} went unseen`);
      if (altered.problems.some(({ file }) => file !== '')) named += 1;
      whole[at]! ^= 0x10;
    }
    expect(named).toBeGreaterThan(20);
    await demo.close();
  });

  /** The export, opened, altered and sealed again: what a careful forger would send. */
  async function forged(alter: (files: Record<string, Uint8Array>) => void) {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const opened = unpack(bytes as Buffer, 'torvek-job', 1);
    if (!opened.ok) throw new Error('the export does not open');
    alter(opened.contents);
    const { files: _files, ...manifest } = opened.manifest;
    return (await checkArchive(pack(manifest, opened.contents, '2026-11-25T08:00:00Z'))).report;
  }

  test.each<[string, string, RegExp, (files: Record<string, Uint8Array>) => void]>([
    [
      'an entry’s text',
      'entries.json',
      /entry 1 its text does not match its hash/,
      (files) =>
        (files['entries.json'] = Buffer.from(
          strFromU8(files['entries.json']!).replace('\\"linksOut\\":2', '\\"linksOut\\":0'),
        )),
    ],
    [
      'a missing last entry',
      'entries.json',
      /does not end at the head/,
      (files) =>
        (files['entries.json'] = jsonFile(JSON.parse(strFromU8(files['entries.json']!)).slice(0, -1))),
    ],
    [
      'a design its changes do not lead to',
      'design.json',
      /pack\.peakCurrentA differs/,
      (files) => (files['design.json'] = Buffer.from(strFromU8(files['design.json']!).replace('333', '334'))),
    ],
    [
      'a release',
      'releases.json',
      /release 1 does not match its hash/,
      (files) =>
        (files['releases.json'] = Buffer.from(
          strFromU8(files['releases.json']!).replace('inspector', 'Inspector'),
        )),
    ],
    [
      'a missing attachment',
      `attachments/${hashBytes(png)}`,
      /is missing/,
      (files) => delete files[`attachments/${hashBytes(png)}`],
    ],
    [
      'another attachment under its name',
      `attachments/${hashBytes(png)}`,
      /is not what its name says/,
      (files) => (files[`attachments/${hashBytes(png)}`] = Buffer.from('something else')),
    ],
    [
      'a file that is no JSON',
      'changes.json',
      /is missing or not what it should be/,
      (files) => (files['changes.json'] = Buffer.from('{')),
    ],
  ])('re-sealed with %s altered is refused with its name', async (_what, file, message, alter) => {
    const { ok, problems } = await forged(alter);
    expect(ok).toBe(false);
    expect(problems.find((problem) => problem.file === file)?.message).toMatch(message);
  });

  test('of a newer format or schema is refused by naming the version', async () => {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const opened = unpack(bytes as Buffer, 'torvek-job', 1);
    if (!opened.ok) throw new Error('the export does not open');
    const { files: _files, ...manifest } = opened.manifest;
    const messageOf = async (more: object) =>
      (await checkArchive(pack({ ...manifest, ...more }, opened.contents, '2026-11-25T08:00:00Z'))).report
        .problems[0]!.message;
    expect(await messageOf({ formatVersion: 9 })).toContain('format version 9');
    expect(await messageOf({ schema: 77 })).toContain('schema 77');
    expect(await messageOf({ format: 'torvek-backup' })).toContain('not a torvek-job');
    expect((await checkArchive(Buffer.from('no zip at all'))).report.problems[0]!.message).toContain(
      'no sealed archive',
    );
  });
});

describe('a backup of everything', () => {
  test('puts jobs, record, people, instruments and files back, and keeps what was there', async () => {
    await signIn(bench.rooms, 'Olga', ['designer']);
    const { body: bytes } = await download(bench, '/api/backup');
    const there = await openBench();
    await there.rooms.jobs.create('job-other', 'Another job');
    const { body: report } = await upload(there, '/api/restore', bytes as Buffer);
    expect(report.rows).toMatchObject({ jobs: 1, people: 2, entries: 2, releases: 2, files: 2 });
    expect((await there.rooms.jobs.list()).map(({ id }) => id)).toEqual(['job-bus']);
    expect(await there.rooms.ledger.verify('job-bus')).toMatchObject({ ok: true, entries: 2 });
    expect(
      (await request(there.bare).post('/api/session').send({ name: 'Olga', password: testPassword })).status,
    ).toBe(200);
    await expect(there.database.query('DELETE FROM entries')).rejects.toThrow('append-only');
    expect(existsSync(join(report.keptIn, 'backup.zip'))).toBe(true);
    expect(readdirSync(join(report.keptIn, 'journal'))).toEqual([]);
    // What was kept is itself a backup of what was there.
    const kept = unpack(readFileSync(join(report.keptIn, 'backup.zip')), 'torvek-backup', 1);
    expect(kept.ok && strFromU8(kept.contents['tables/jobs.jsonl']!)).toContain('job-other');
    await there.close();
  });

  test('that is damaged changes nothing', async () => {
    const { body } = await download(bench, '/api/backup');
    const bytes = new Uint8Array(body as Buffer);
    bytes[bytes.length >> 1]! ^= 1;
    const before = await bench.rooms.jobs.list();
    const { status, body: answer } = await upload(bench, '/api/restore', bytes);
    expect([status, answer.error.code]).toEqual([422, 'archive-broken']);
    expect(await bench.rooms.jobs.list()).toEqual(before);
    expect((await bench.rooms.ledger.verify('job-bus')).ok).toBe(true);
  });
});
