import { afterAll, expect, test } from '@jest/globals';
import { standsOf, topicOf, type Entry, type EntryBody } from '@torvek/core/record';
import { migrate, migrateTo } from '../src/database';
import { countingEntries } from '../src/entries/counting';
import { freshDatabase } from './bench-room';

const database = await freshDatabase();
afterAll(() => database.close());

/** Of every kind, and of those that replace one another two; what one of them corrects. */
const bodies = [
  { kind: 'result', step: 's', verdict: 'fail' },
  { kind: 'result', step: 's', verdict: 'pass' },
  { kind: 'result', step: 's', verdict: 'pass' },
  { kind: 'position' },
  { kind: 'position' },
  { kind: 'gate', gate: 'insulation' },
  { kind: 'intake' },
  { kind: 'cell-voltages' },
  { kind: 'cell-voltages' },
  { kind: 'balance' },
  { kind: 'joints' },
  { kind: 'acceptance', check: 'a' },
  { kind: 'acceptance', check: 'a' },
  { kind: 'acceptance', check: 'b' },
  { kind: 'deviation', of: 1 },
  { kind: 'snag' },
  { kind: 'snag-gone', of: 16 },
  { kind: 'work' },
  { kind: 'note' },
  { kind: 'correction', of: 13 },
];
const entries = bodies.map(
  (body, i) =>
    ({ seq: i + 1, by: 'Ada', subjects: [], body: body as unknown as EntryBody }) as unknown as Entry,
);

test('entries of before the column count as their kinds say, and the rows that count are read by it', async () => {
  await database.execute('DROP SCHEMA public CASCADE; CREATE SCHEMA public;');
  await migrateTo(5, database);
  await database.query(
    `INSERT INTO jobs (id, name, created_at, first_design, design, version) VALUES ('j', 'J', '2026-10-01', '{}', '{}', 0)`,
  );
  for (const entry of entries)
    await database.query(
      `INSERT INTO entries (job_id, seq, id, kind, sha256, recorded_at, topic, target, verdict, content)
       VALUES ('j', $1, $2, $3, '', '2026-10-01', $4, $5, $6, $7)`,
      [
        entry.seq,
        `e${entry.seq}`,
        entry.body.kind,
        topicOf(entry),
        'of' in entry.body ? entry.body.of : null,
        entry.body.kind === 'result' ? entry.body.verdict : null,
        JSON.stringify(entry),
      ],
    );
  await migrate(database);
  const rows = await database.query<{ stands: string }>('SELECT stands FROM entries ORDER BY seq');
  expect(rows.map(({ stands }) => stands)).toEqual(entries.map(standsOf));
  // The failed result stays, of two passed ones the newer; the corrected acceptance brings back what it had replaced.
  const counting = await countingEntries(database, 'j');
  expect(counting.map(({ seq }) => seq)).toEqual([1, 3, 5, 6, 7, 8, 9, 10, 11, 12, 14, 15, 16, 17, 18]);
  await expect(database.execute(`UPDATE entries SET stands = 'never' WHERE seq = 1`)).rejects.toThrow(
    /append-only/,
  );
});
