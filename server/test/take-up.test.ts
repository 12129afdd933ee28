import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { blankDesign, edit } from '@torvek/core/document';
import { canonicalText, topicOf, type Entry } from '@torvek/core/record';
import { migrate, migrateTo, type Database } from '../src/database';
import { Journal } from '../src/journal/journal';
import { sha256Of } from '../src/journal/lines';
import { shopChain } from '../src/journal/links';
import { reconcile } from '../src/journal/reconcile';
import { tellShop } from '../src/journal/shop-story';
import { designHashOf, tell } from '../src/journal/story';
import { isOfBefore, takeUp } from '../src/journal/take-up';
import { freshDatabase } from './bench-room';

/** A data folder as it was before chains: tables up to the fourth migration, journals of entries alone. */
let database: Database;
let folder = '';
const now = '2026-11-28T12:00:00.000Z';
const first = blankDesign();
const { design, forward, inverse } = edit(first, (draft) => void (draft.vehicle.speedKmH = 77))!;

function entryAt(seq: number, previous: string | null): { entry: Entry; text: string; sha256: string } {
  const entry = {
    format: 'torvek-entry',
    formatVersion: 2,
    id: `e${seq}`,
    job: 'job-old',
    seq,
    previous,
    takenAt: '2026-11-01T08:00:00Z',
    recordedAt: `2026-11-01T08:00:0${seq}.000Z`,
    zone: 'UTC',
    by: 'Olga',
    witness: null,
    against: { version: 1, sha256: designHashOf(design), core: '0.1.0' },
    subjects: [],
    basis: [],
    instrument: null,
    attachments: [],
    body: { kind: 'note', text: `note ${seq}` },
  } as unknown as Entry;
  const text = canonicalText(entry);
  return { entry, text, sha256: sha256Of(text) };
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-old-'));
  database = await freshDatabase();
  await database.execute('DROP SCHEMA public CASCADE; CREATE SCHEMA public;');
  await migrateTo(4, database);
  await database.query(
    `INSERT INTO people (id, name, roles, password_hash, created_at) VALUES ('p1', 'Olga', '["owner"]', '$argon2id$old', '2026-10-01')`,
  );
  await database.query(
    `INSERT INTO jobs (id, name, created_at, first_design, design, version) VALUES ('job-old', 'Old', '2026-10-01', $1, $2, 1)`,
    [JSON.stringify(first), JSON.stringify(design)],
  );
  await database.query(
    `INSERT INTO changes VALUES ('job-old', 1, 'c1', 0, 'speed', 'Olga', '2026-10-02', '2026-10-02', $1, $2)`,
    [JSON.stringify(forward), JSON.stringify(inverse)],
  );
  const one = entryAt(1, null);
  const two = entryAt(2, one.sha256);
  await database.query(
    `INSERT INTO entries (job_id, seq, id, kind, previous, sha256, recorded_at, topic, content)
     VALUES ('job-old', 1, 'e1', 'note', NULL, $1, $2, $3, $4)`,
    [one.sha256, one.entry.recordedAt, topicOf(one.entry), one.text],
  );
  mkdirSync(join(folder, 'journal'));
  const line = ({ entry, sha256, text }: typeof one) => JSON.stringify({ seq: entry.seq, sha256, text });
  writeFileSync(
    join(folder, 'journal', 'job-old.jsonl'),
    [
      line(one),
      JSON.stringify({ committed: 1, sha256: one.sha256 }),
      JSON.stringify({ restored: 1, sha256: one.sha256, at: '2026-11-02T08:00:00.000Z' }),
      line(two),
      '{"seq":3,"sha',
    ].join('\n'),
  );
  await migrate(database);
});
afterAll(async () => {
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

test('data of before is taken up, with what its journals alone had; its people keep their passwords', async () => {
  expect(isOfBefore(folder)).toBe(true);
  const notes = await takeUp(database, folder, now);
  expect(notes).toEqual([
    '1 jobs were taken up into chains: what was there before is not witnessed link by link',
  ]);
  expect(isOfBefore(folder)).toBe(false);
  const journal = new Journal(join(folder, 'journal'));
  const story = tell(journal.read('job-old'))!;
  expect(story).toMatchObject({
    name: 'Old',
    design: { vehicle: { speedKmH: 77 } },
    problems: [],
    takenUp: { at: now, links: 3, problems: [], restored: [{ seq: 1, at: '2026-11-02T08:00:00.000Z' }] },
  });
  expect(story.entries.map(({ seq }) => seq)).toEqual([1, 2]);
  expect(tellShop(journal.read(shopChain)).people.get('p1')?.secret).toMatchObject({
    passwordHash: '$argon2id$old',
    second: null,
  });
  // The database has the lost entry, and no password any more.
  expect(await database.query('SELECT seq FROM entries ORDER BY seq')).toEqual([{ seq: 1 }, { seq: 2 }]);
  expect(JSON.stringify(await database.query('SELECT * FROM people'))).not.toContain('argon2id');
  expect(await database.query(`SELECT to_regclass('moved_passwords')::text AS found`)).toEqual([
    { found: null },
  ]);
  expect(readFileSync(join(folder, 'journal-before-chains', 'job-old.jsonl'), 'utf8')).toContain('"seq":1');
});

test('it is taken up once: the next start finds everything as it is', async () => {
  const journal = new Journal(join(folder, 'journal'));
  const before = readFileSync(journal.path(shopChain));
  // A database that was built anew begins with an empty table of moved passwords.
  await database.execute('CREATE TABLE moved_passwords (id text, password_hash text)');
  expect(await takeUp(database, folder, now)).toEqual([]);
  expect(await reconcile(database, journal, now)).toEqual({ notes: [], rebuild: false });
  expect(readFileSync(journal.path(shopChain)).equals(before)).toBe(true);
  expect(existsSync(join(folder, 'journal-staged'))).toBe(false);
});

test('an alteration of before is named when it is taken up, and stays named', async () => {
  const other = mkdtempSync(join(tmpdir(), 'torvek-old-'));
  mkdirSync(join(other, 'journal'));
  const forged = entryAt(1, null);
  writeFileSync(
    join(other, 'journal', 'job-old.jsonl'),
    `${JSON.stringify({ seq: 1, sha256: '0'.repeat(64), text: forged.text })}\n`,
  );
  const notes = await takeUp(database, other, now);
  expect(notes.slice(1)).toEqual([
    'job-old: entry 1 had another hash than the journal',
    'job-old: entry 2 was not known to the journal',
  ]);
  expect(tell(new Journal(join(other, 'journal')).read('job-old'))!.takenUp?.problems).toHaveLength(2);
  rmSync(other, { recursive: true });
});
