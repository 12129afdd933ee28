import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Design } from '@torvek/core/document';
import { canonicalText, hashText } from '@torvek/core/record';
import { strFromU8, unzipSync } from 'fflate';
import request from 'supertest';
import { seedDemo } from '../src/demo/seed';
import { hashBytes } from '../src/files/files';
import { jsonFile, pack, unpack } from '../src/take-away/archive';
import { lineOf, readChain } from '../src/journal/lines';
import { tell } from '../src/journal/story';
import { checkArchive } from '../src/take-away/check';
import { keyName } from '../src/take-away/signature';
import {
  changeOf,
  makeBus,
  openBench,
  positionRequest,
  signIn,
  testPassword,
  type Bench,
} from './bench-room';
import { times } from '../../scripts/testing/thorough';

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
    const key = keyName(bench.rooms.store.key.key);
    expect(report.vouchedBy).toMatch(`the shop with the key ${key}, which signed its end on 2026-11-25`);
    expect(await there.rooms.verifier.job('job-bus')).toMatchObject({
      ok: true,
      entries: 1,
      vouchedBy: report.vouchedBy,
    });
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
    expect((await there.rooms.verifier.job('job-bus')).ok).toBe(true);
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
      expect.arrayContaining(['chain.jsonl', 'changes.csv', 'design.json', 'entries.csv', 'manifest.json']),
    );
    expect(JSON.parse(strFromU8(files['design.json']!)).pack.peakCurrentA).toBe(333);
    const lines = strFromU8(files['entries.csv']!).split('\r\n');
    expect(lines[0]).toMatch(/^number,kind,recorded at \(UTC\)/);
    expect(lines.at(-1)).toContain("'=1+1");
  });

  test('with any one byte changed is refused, and nothing is written', async () => {
    const small = await openBench();
    await small.rooms.jobs.create('job-small', 'Small', 'Test');
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

  test('changed bytes of the demo’s all over it are each refused by its seal, and nothing is unpacked', async () => {
    const demo = await openBench(true);
    await seedDemo(demo.rooms.store);
    const { body: bytes } = await download(demo, '/api/jobs/job-demo-library-bus/export');
    const whole = new Uint8Array(bytes as Buffer);
    const { report } = await checkArchive(whole);
    expect([report.ok, report.entries, report.version]).toEqual([true, 144, 5]);
    const many = times(50, 1000);
    for (let i = 0; i < many; i += 1) {
      const at = Math.floor((i * whole.length) / many);
      whole[at]! ^= 0x10;
      const { report: altered } = await checkArchive(whole);
      expect([at, altered.ok, altered.problems.length, altered.problems[0]?.file]).toEqual([
        at,
        false,
        1,
        '',
      ]);
      whole[at]! ^= 0x10;
    }
    await demo.close();
  });

  type Body = Record<string, unknown>;
  type Alter = (files: Record<string, Uint8Array>, manifest: Record<string, unknown>) => void;

  /** The export, opened, altered and sealed again: what a careful forger would send. */
  async function forged(alter: Alter) {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const opened = unpack(bytes as Buffer, 'torvek-job', 2);
    if (!opened.ok) throw new Error('the export does not open');
    const { files: _files, ...manifest } = opened.manifest;
    alter(opened.contents, manifest);
    return (await checkArchive(pack(manifest, opened.contents, '2026-11-25T08:00:00Z'))).report;
  }

  /** The chain written anew with other bodies, every hash of its links right, and the manifest's head with it. */
  const rechained =
    (alter: (body: Body) => Body | null): Alter =>
    (files, manifest) => {
      let head = null;
      const lines: Buffer[] = [];
      for (const { body, at } of readChain(Buffer.from(files['chain.jsonl']!)).links) {
        const other = alter(body);
        if (other === null) continue;
        const { bytes, link } = lineOf(other, head, at);
        lines.push(bytes);
        head = { n: link.n, sha256: link.sha256 };
      }
      files['chain.jsonl'] = Buffer.concat(lines);
      manifest.chain = head;
    };
  const ofKind = (kind: string, alter: (body: Body) => Body | null) =>
    rechained((body) => (body.kind === kind ? alter(body) : body));
  /** An entry with its own hash made anew. */
  const reentered = (alter: (entry: Body) => void) =>
    ofKind('entry', (body) => {
      const entry = JSON.parse(body.text as string) as Body;
      alter(entry);
      const text = canonicalText(entry);
      return { ...body, text, sha256: hashText(text) };
    });

  test.each<[string, string, RegExp, Alter]>([
    [
      'a line of the chain',
      'chain.jsonl',
      /line \d+ of the journal is damaged/,
      (files) =>
        (files['chain.jsonl'] = Buffer.from(
          strFromU8(files['chain.jsonl']!).replace('"linksOut":2', '"linksOut":0'),
        )),
    ],
    [
      'an entry’s text',
      'chain.jsonl',
      /line \d+ of the journal is damaged/,
      ofKind('entry', (body) => ({
        ...body,
        text: (body.text as string).replace('"linksOut":2', '"linksOut":0'),
      })),
    ],
    [
      'an entry of another kind of body, well hashed',
      'chain.jsonl',
      /entry 1 is malformed: body.kind must be one of/,
      reentered((entry) => (entry.body = { kind: 'toast', of: 1 })),
    ],
    [
      'a field that no entry has, well hashed',
      'chain.jsonl',
      /entry 1 is malformed: body\.mains must be one of open, closed/,
      reentered((entry) => ((entry.body as Body).mains = { toString: 1 })),
    ],
    [
      'a design altered consistently',
      'chain.jsonl',
      /version 1 leads to another design than its hash says/,
      ofKind('change', (body) => JSON.parse(JSON.stringify(body).replaceAll('333', '334')) as Body),
    ],
    [
      'a first design altered',
      'chain.jsonl',
      /entry 1 was judged against another design than version 0 is/,
      ofKind(
        'job',
        (body) =>
          JSON.parse(JSON.stringify(body).replace('"peakCurrentA":400', '"peakCurrentA":401')) as Body,
      ),
    ],
    ['a missing entry', 'chain.jsonl', /does not end at the head/, ofKind('entry', () => null)],
    [
      'a design its changes do not lead to',
      'design.json',
      /pack\.peakCurrentA differs/,
      (files) => (files['design.json'] = Buffer.from(strFromU8(files['design.json']!).replace('333', '334'))),
    ],
    [
      'a release hashed anew',
      'chain.jsonl',
      /release 2 does not hold the design of version 1/,
      ofKind('release', (body) => {
        const text = (body.text as string).replace('"peakCurrentA":333', '"peakCurrentA":334');
        return { ...body, text, sha256: hashText(text) };
      }),
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
      'a chain that is none',
      'chain.jsonl',
      /does not begin with a job/,
      (files) => (files['chain.jsonl'] = Buffer.from('{')),
    ],
  ])('re-sealed with %s is refused with its name', async (_what, file, message, alter) => {
    const { ok, problems } = await forged(alter);
    expect(ok).toBe(false);
    expect(problems.find((problem) => problem.file === file && message.test(problem.message))).toBeDefined();
  });

  test('written anew from end to end it comes in, and nobody vouches for it', async () => {
    const { ok, vouchedBy } = await forged(ofKind('change', (body) => ({ ...body, by: 'Somebody else' })));
    expect([ok, vouchedBy]).toEqual([true, 'nobody: its signature does not belong to this chain']);
    const unsigned = await forged((_files, manifest) => delete manifest.anchor);
    expect([unsigned.ok, unsigned.vouchedBy]).toEqual([true, 'nobody: it is not signed']);
  });

  test('of an older Torvek comes in too: chained here, and said to be unwitnessed', async () => {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const opened = unpack(bytes as Buffer, 'torvek-job', 2);
    if (!opened.ok) throw new Error('the export does not open');
    const story = tell(readChain(Buffer.from(opened.contents['chain.jsonl']!)))!;
    const { id, name, demo, createdAt } = story.job;
    const older: Record<string, Uint8Array> = {
      'job.json': jsonFile({ id, name, demo, createdAt, version: story.changes.length }),
      'design.json': jsonFile(story.design),
      'first-design.json': jsonFile(story.job.design),
      'changes.json': jsonFile(story.changes),
      'entries.json': jsonFile(
        story.entries.map(({ seq, sha256, link }) => ({ seq, sha256, text: link.text })),
      ),
      'releases.json': jsonFile(
        story.releases.map(({ id: one, sha256, text }, i) => ({ number: i + 1, id: one, sha256, text })),
      ),
      'attachments.json': jsonFile(story.files.map(({ by, ...file }) => ({ ...file, addedBy: by }))),
    };
    for (const [path, content] of Object.entries(opened.contents))
      if (path.startsWith('attachments/')) older[path] = content;
    const { head } = opened.manifest;
    const manifest = {
      format: 'torvek-job',
      formatVersion: 1,
      schema: 1,
      head,
      exportedAt: '2026-11-25T08:00:00Z',
    };
    const sealed = (files: Record<string, Uint8Array>) => pack(manifest, files, '2026-11-25T08:00:00Z');
    const there = await openBench();
    const { body: report } = await upload(there, '/api/import', sealed(older));
    expect(report).toMatchObject({ ok: true, entries: 2, changes: 1, releases: 2, files: 2 });
    expect(report.vouchedBy).toContain('made by an older Torvek');
    expect(await there.rooms.verifier.job('job-bus')).toMatchObject({
      ok: true,
      entries: 2,
      notWitnessed: { links: 7, problems: [] },
    });
    older['entries.json'] = Buffer.from(
      strFromU8(older['entries.json']!).replace('\\"linksOut\\":2', '\\"linksOut\\":0'),
    );
    const { report: altered } = await checkArchive(sealed(older));
    expect(altered.problems[0]).toEqual({
      file: 'entries.json',
      message: expect.stringMatching(/^line \d+ of the journal is damaged/) as unknown,
    });
    await there.close();
  });

  test('of a newer format or schema is refused by naming the version', async () => {
    const { body: bytes } = await download(bench, '/api/jobs/job-bus/export');
    const opened = unpack(bytes as Buffer, 'torvek-job', 2);
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

async function signInAgain(at: Bench, name: string): Promise<string> {
  const { headers } = await request(at.bare).post('/api/session').send({ name, password: testPassword });
  return String(headers['set-cookie']).split(';')[0]!;
}

describe('a backup of everything', () => {
  test('puts jobs, record, people, instruments and files back, and keeps what was there', async () => {
    await signIn(bench.rooms, 'Olga', ['designer']);
    const { body: bytes } = await download(bench, '/api/backup');
    const there = await openBench();
    await there.rooms.jobs.create('job-other', 'Another job', 'Test');
    const { body: report } = await upload(there, '/api/restore', bytes as Buffer);
    expect(report.rows).toMatchObject({ jobs: 1, people: 2, entries: 2, releases: 2, files: 2 });
    expect((await there.rooms.jobs.list()).map(({ id }) => id)).toEqual(['job-bus']);
    expect(await there.rooms.verifier.job('job-bus')).toMatchObject({ ok: true, entries: 2 });
    expect(
      (await request(there.bare).post('/api/session').send({ name: 'Olga', password: testPassword })).status,
    ).toBe(200);
    await expect(there.database.query('DELETE FROM entries')).rejects.toThrow('append-only');
    // What was there is kept: its chains to the byte.
    expect(readdirSync(join(report.keptIn, 'journal')).sort()).toEqual(['job-other.jsonl', '~shop.jsonl']);
    const shop = there.rooms.journal.read('~shop').links.map(({ body }) => body);
    expect(shop.at(-1)).toMatchObject({
      kind: 'restored',
      by: 'Test',
      madeBy: 'Test',
      keptIn: report.keptIn,
    });
    expect(await there.rooms.verifier.shop()).toMatchObject({ ok: true, problems: [] });
    // And it goes on: whoever was signed in signs in again.
    expect((await request(there.app).get('/api/jobs')).status).toBe(401);
    const back = await signInAgain(there, 'Olga');
    const renamed = await request(there.bare)
      .patch('/api/jobs/job-bus')
      .set('Cookie', back)
      .send({ name: 'Bus after the restore' });
    expect(renamed.body.name).toBe('Bus after the restore');
    expect((await there.rooms.verifier.job('job-bus')).ok).toBe(true);
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
    expect((await bench.rooms.verifier.job('job-bus')).ok).toBe(true);
  });
});
