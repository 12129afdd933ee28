import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { libraryBus } from '../../demo/library-bus';
import { canonicalText, type Entry } from '@torvek/core/record';
import { lineOf, sha256Of } from '../../server/src/journal/lines';
import { insertRows, rowsOfJob } from '../../server/src/journal/rows';
import { designHashOf, tell } from '../../server/src/journal/story';
import { keepHead } from '../../server/src/journal/writer';
import { openRooms } from '../../server/src/rooms';
import { openStore } from '../../server/src/store';
import { startProcess, killProcess } from '../../server/test/real-process';

/** A record of 100 000 entries: opening Book, and verifying it. */
const count = Number(process.argv[2] ?? 100_000);
const job = 'job-long';
const folder = mkdtempSync(join(tmpdir(), 'torvek-long-'));

/** Entries as a shop makes them: mostly results of the same steps, some states and notes. */
function entryAt(seq: number, previous: string | null, design: string): Entry {
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
    against: { version: 0, sha256: design, core: '0.1.0' },
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

const store = await openStore(folder, undefined);
const rooms = openRooms(store);
await rooms.people.create(
  { id: 'person-test', name: 'Test', roles: ['owner'], password: 'a long enough one' },
  'Test',
);
const token = await rooms.sessions.begin(await rooms.people.get('person-test'));
await rooms.jobs.create(job, 'Long record', 'Test', { design: libraryBus.design });
await rooms.writer.note();
const design = designHashOf(libraryBus.design);
let previous: string | null = null;
let head = rooms.journal.head(job);
const lines: Buffer[] = [];
for (let seq = 1; seq <= count; seq += 1) {
  const text = canonicalText(entryAt(seq, previous, design));
  const sha256 = sha256Of(text);
  const { bytes, link } = lineOf(
    { kind: 'entry', sha256, text },
    head,
    entryAt(seq, null, design).recordedAt,
  );
  lines.push(bytes);
  head = link;
  previous = sha256;
}
await rooms.journal.write(new Map([[job, { lines }]]));
const rows = rowsOfJob(tell(rooms.journal.read(job))!).find(({ table }) => table === 'entries')!;
await rooms.database.transaction(async (db) => {
  await insertRows(db, rows);
  await keepHead(db, job, head!);
});
await store.close();

const began = performance.now();
const { child, url } = await startProcess(folder, true, false);
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
const verify = async () => {
  const { answer, ms } = await get(`/api/jobs/${job}/verify`);
  if (answer.ok !== true) throw new Error(`the chain does not fit: ${JSON.stringify(answer)}`);
  return ms;
};
report('verify', await verify(), 5000);
// What others wait for meanwhile: somebody who asks again and again, which itself takes a good part of a core.
let longest = 0;
let verifying = true;
const others = (async () => {
  while (verifying) {
    longest = Math.max(longest, (await get('/api/jobs')).ms);
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
})();
const busy = await verify();
verifying = false;
await others;
report('verify, while others ask 50 times a second', busy, 10_000);
report('another request meanwhile, at most', longest, 50);
const taken = async (path: string) => {
  const from = performance.now();
  const bytes = (
    await (await fetch(url + path, { headers: { cookie: `torvek_session=${token}` } })).arrayBuffer()
  ).byteLength;
  return { ms: performance.now() - from, bytes };
};
const exported = await taken(`/api/jobs/${job}/export`);
report(`export (${(exported.bytes / 1e6).toFixed(1)} MB)`, exported.ms, 20_000);
report('backup', (await taken('/api/backup')).ms, 20_000);
const appended = performance.now();
await fetch(`${url}/api/jobs/${job}/entries`, {
  method: 'POST',
  headers: { cookie: `torvek_session=${token}` },
  body: JSON.stringify({ id: 'after', kind: 'note', takenAt: '2026-11-25T08:00:00Z', text: 'One more.' }),
});
report('one more entry', performance.now() - appended, 1000);
await killProcess(child);
if (process.env.KEEP === undefined) rmSync(folder, { recursive: true, force: true });
else console.log(folder);
process.exitCode = failed ? 1 : 0;
