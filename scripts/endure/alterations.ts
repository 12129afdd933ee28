import { readFileSync, writeFileSync } from 'node:fs';
import request from 'supertest';
import { shopChain } from '../../server/src/journal/links';
import { tablesOfJob, tablesOfShop } from '../../server/src/journal/rows';
import { exportJob } from '../../server/src/take-away/export';
import { makeBackup } from '../../server/src/take-away/backup';
import { checkArchive } from '../../server/src/take-away/check';
import { unpack } from '../../server/src/take-away/archive';
import { changeOf, makeBus, openBench, positionRequest } from '../../server/test/bench-room';
import { seeded } from '../../server/test/fuzz';

/** Every table of a job, and those of the shop that hold something here. */
const columns: Record<string, readonly string[]> = {
  ...Object.fromEntries(
    [...tablesOfJob(''), ...tablesOfShop]
      .filter(({ table }) => !table.startsWith('library_'))
      .map(({ table, columns: of }) => [table, table === 'jobs' ? of.filter((name) => name !== 'id') : of]),
  ),
  chains: ['n', 'sha256'],
};
const numbers = new Set(['version', 'base', 'seq', 'target', 'number', 'size', 'n']);
const flags = new Set(['demo', 'active', 'retired']);
const designs = new Set(['design', 'first_design', 'forward', 'inverse']);

/** Alters one stored thing after another, of every class, and counts those that verifying does not name. */
export async function alterations(
  count: number,
  seed: number,
): Promise<{ unseen: string[]; classes: Record<string, number> }> {
  const random = seeded(seed);
  const pick = <One>(list: readonly One[]): One => list[Math.floor(random() * list.length)]!;
  const bench = await openBench();
  const { rooms, database } = bench;
  const job = 'job-bus';
  const design = await makeBus(bench);
  const post = (path: string, body: object) => request(bench.app).post(`/api/${path}`).send(body);
  for (let i = 0; i < 3; i += 1)
    await post(
      `jobs/${job}/changes`,
      changeOf(design, i, `c-${i}`, (draft) => void (draft.pack.peakCurrentA = 301 + i)),
    );
  for (let i = 0; i < 12; i += 1) await post(`jobs/${job}/entries`, positionRequest(`e-${i}`, i % 3));
  await post(`jobs/${job}/releases`, { id: 'r1', label: 'For the inspector', version: 3 });
  await post('instruments', {
    id: 'm1',
    kind: 'meter',
    name: 'Meter',
    serial: 'S 1',
    calibrationDue: '2027-03-31',
  });
  await request(bench.app)
    .post(`/api/jobs/${job}/files?name=note.txt`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from('torque 24 Nm'));
  await rooms.writer.note();
  const archive = await exportJob(rooms, job, 'Test');
  const backup = await makeBackup(rooms, 'Test');
  const [file] = await rooms.files.list(job);

  const named = async () => !(await rooms.verifier.job(job)).ok || !(await rooms.verifier.shop()).ok;
  const flipped = (bytes: Uint8Array): Buffer => {
    const other = Buffer.from(bytes);
    // The last end of a line is no more than that.
    other[Math.floor(random() * (other.length - 1))]! ^= 1 << Math.floor(random() * 8);
    return other;
  };
  const inFile = async (path: string) => {
    const kept = readFileSync(path);
    writeFileSync(path, flipped(kept));
    rooms.journal.forget();
    const seen = await named();
    writeFileSync(path, kept);
    rooms.journal.forget();
    return seen;
  };

  async function inTable(table: string): Promise<{ what: string; seen: boolean }> {
    const column = pick(columns[table]!);
    const value = numbers.has(column)
      ? `COALESCE(${column}, 0) + ${1000 + Math.floor(random() * 5)}`
      : flags.has(column)
        ? `NOT ${column}`
        : designs.has(column)
          ? `overlay(${column} placing 'q' from ${2 + Math.floor(random() * 40)})`
          : `COALESCE(${column}, '') || 'x'`;
    const [row] = await database.query<{ ctid: string }>(
      `SELECT ctid::text AS ctid FROM ${table} ORDER BY random() LIMIT 1`,
    );
    const before = await database.query<{ text: string }>(
      `SELECT row_to_json(t)::text AS text FROM ${table} t WHERE ctid = $1::tid`,
      [row!.ctid],
    );
    const change = async (sql: string, parameters: unknown[]) => {
      await database.execute(`SET session_replication_role = replica`);
      await database.query(sql, parameters);
      await database.execute(`SET session_replication_role = DEFAULT`);
    };
    const deleted = random() < 0.15;
    await change(
      deleted
        ? `DELETE FROM ${table} WHERE ctid = $1::tid`
        : `UPDATE ${table} SET ${column} = ${value} WHERE ctid = $1::tid`,
      [row!.ctid],
    );
    const seen = await named();
    const keys: Record<string, string> = { jobs: 'id', people: 'id', instruments: 'id', chains: 'name' };
    const old = JSON.parse(before[0]!.text) as Record<string, unknown>;
    // Put back as it was: what was altered goes, the row of before comes.
    const key = keys[table];
    if (!deleted)
      await change(
        key === undefined || column === key
          ? `DELETE FROM ${table} WHERE ctid = (SELECT ctid FROM ${table} t ORDER BY xmin::text::bigint DESC LIMIT 1)`
          : `DELETE FROM ${table} WHERE ${key} = $1`,
        key === undefined || column === key ? [] : [old[key]],
      );
    await change(`INSERT INTO ${table} SELECT * FROM json_populate_record(NULL::${table}, $1::json)`, [
      before[0]!.text,
    ]);
    return { what: `${table}.${deleted ? 'a row gone' : column}`, seen };
  }

  const unseen: string[] = [];
  const classes: Record<string, number> = {};
  for (let i = 0; i < count; i += 1) {
    const kind = pick(['table', 'table', 'journal', 'shop', 'file', 'archive', 'backup']);
    let what = kind;
    let seen: boolean;
    if (kind === 'table') ({ what, seen } = await inTable(pick(Object.keys(columns))));
    else if (kind === 'journal') seen = await inFile(rooms.journal.path(job));
    else if (kind === 'shop') seen = await inFile(rooms.journal.path(shopChain));
    else if (kind === 'file') seen = await inFile(rooms.files.pathOf(file!.sha256));
    else if (kind === 'archive') seen = !(await checkArchive(flipped(archive))).report.ok;
    else seen = !unpack(flipped(backup), 'torvek-backup', 2).ok;
    classes[kind] = (classes[kind] ?? 0) + 1;
    if (!seen) unseen.push(`${i}: ${what}`);
    if (i % 50 === 49 && (await named())) throw new Error(`after ${what} (${i}) not all was put back`);
  }
  await bench.close();
  return { unseen, classes };
}
