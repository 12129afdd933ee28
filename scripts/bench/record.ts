import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { libraryBus } from '../../demo/library-bus';
import { canonicalText, hashText, topicOf, verdictOf, type Entry } from '@torvek/core/record';
import { openDatabase } from '../../server/src/database';
import { openRooms } from '../../server/src/rooms';
import { startProcess, killProcess } from '../../server/test/real-process';

/** A record of 100 000 entries: opening Book, and verifying it. */
const count = Number(process.argv[2] ?? 100_000);
const job = 'job-long';
const folder = mkdtempSync(join(tmpdir(), 'torvek-long-'));

/** Entries as a shop makes them: mostly results of the same steps, some states and notes. */
function entryAt(seq: number, previous: string | null): Entry {
  const at = new Date(Date.parse('2024-01-01T08:00:00Z') + seq * 600_000).toISOString();
  const step = `intake-voltage:module-1${String((seq % 8) + 1).padStart(2, '0')}`;
  const body: Entry['body'] =
    seq % 50 === 0
      ? { kind: 'note', text: `Note ${seq}` }
      : seq % 97 === 0
        ? { kind: 'position', linksOut: seq % 3, serviceDisconnect: 'out', mains: 'open' }
        : {
            kind: 'result',
            step,
            title: `Intake voltage ${seq % 8}`,
            entered: 'typed',
            measured: { kind: 'value', value: 44 + (seq % 10) / 10, unit: 'V' },
            expected: '36 V to 50.4 V',
            verdict: 'pass',
            reasons: [],
            details: [],
          };
  return {
    format: 'torvek-entry',
    formatVersion: 1,
    id: `e-${seq}`,
    job,
    seq,
    previous,
    takenAt: at,
    recordedAt: at,
    zone: 'UTC',
    by: 'Test',
    witness: null,
    against: { version: 0, sha256: '0'.repeat(64), core: '0.1.0' },
    subjects: [{ id: 'module-101', tag: 'S1-M01' }],
    basis: [
      { figure: 'a:b:c', label: 'lowest voltage', value: 36, unit: 'V', toleranceFraction: 1e-6 },
      { figure: 'a:b:d', label: 'highest voltage', value: 50.4, unit: 'V', toleranceFraction: 1e-6 },
    ],
    instrument: {
      kind: 'meter',
      name: 'Bench meter, no. 3',
      standIn: false,
      serial: 'BM 30711',
      calibrationDue: '2027-03-31',
      overdue: false,
    },
    attachments: [],
    body,
  };
}

const database = await openDatabase(folder, undefined);
const rooms = openRooms(database, folder);
await rooms.people.create({
  id: 'person-test',
  name: 'Test',
  roles: ['owner'],
  password: 'a long enough one',
});
const token = await rooms.sessions.begin(await rooms.people.get('person-test'));
await rooms.jobs.create(job, 'Long record', libraryBus.design);
let previous: string | null = null;
const lines: { seq: number; sha256: string; text: string }[] = [];
let rows: object[] = [];
const write = () =>
  database.query('INSERT INTO entries SELECT * FROM json_populate_recordset(NULL::entries, $1::json)', [
    JSON.stringify(rows),
  ]);
for (let seq = 1; seq <= count; seq += 1) {
  const entry = entryAt(seq, previous);
  const text = canonicalText(entry);
  const sha256 = hashText(text);
  lines.push({ seq, sha256, text });
  rows.push({
    job_id: job,
    seq,
    id: entry.id,
    kind: entry.body.kind,
    previous,
    sha256,
    recorded_at: entry.recordedAt,
    topic: topicOf(entry),
    target: null,
    verdict: verdictOf(entry),
    content: text,
  });
  previous = sha256;
  if (rows.length === 5000 || seq === count) {
    await write();
    rows = [];
  }
}
rooms.ledger.journal.adopt(job, lines);
await database.close();

const began = performance.now();
const { child, url } = await startProcess(folder, true);
let failed = false;
function report(name: string, value: number, limit: number): void {
  failed ||= value >= limit;
  console.log(
    `  ${name.padEnd(46)} ${value.toFixed(0).padStart(8)} ms, limit ${limit} ms: ${value < limit ? 'holds' : 'DOES NOT HOLD'}`,
  );
}
report('start', performance.now() - began, 5000);
const get = async (path: string) => {
  const from = performance.now();
  const answer = (await (
    await fetch(url + path, { headers: { cookie: `torvek_session=${token}` } })
  ).json()) as {
    ok?: boolean;
    total?: number;
  };
  return { answer, ms: performance.now() - from };
};
const opening = performance.now();
await Promise.all([get(`/api/jobs/${job}`), get(`/api/jobs/${job}/standing`)]);
const { answer: page } = await get(`/api/jobs/${job}/entries?limit=100`);
report(`Book opens (${page.total} entries): its requests`, performance.now() - opening, 1000);
const verified = await get(`/api/jobs/${job}/verify`);
if (verified.answer.ok !== true) throw new Error('the chain does not fit');
report('verify', verified.ms, 5000);
const appended = performance.now();
await fetch(`${url}/api/jobs/${job}/entries`, {
  method: 'POST',
  headers: { cookie: `torvek_session=${token}` },
  body: JSON.stringify({ id: 'after', kind: 'note', takenAt: '2026-11-25T08:00:00Z', text: 'One more.' }),
});
report('one more entry', performance.now() - appended, 1000);
await killProcess(child);
rmSync(folder, { recursive: true, force: true });
process.exitCode = failed ? 1 : 0;
