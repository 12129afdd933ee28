import { readFileSync, writeFileSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import request from 'supertest';
import { reconcile } from '../src/journal/reconcile';
import { times } from '../../scripts/testing/thorough';
import { changeOf, makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
const job = 'job-1';
beforeAll(async () => {
  bench = await openBench();
  const design = await makeBus(bench, job);
  const post = (path: string, body: object) => request(bench.app).post(`/api/jobs/${job}/${path}`).send(body);
  await post(
    'changes',
    changeOf(design, 0, 'c1', (draft) => void (draft.pack.peakCurrentA = 333)),
  );
  for (let i = 1; i <= 3; i += 1) await post('entries', positionRequest(`entry-${i}`, i));
  await post('releases', { id: 'r1', label: 'For the inspector', version: 1 });
});
afterAll(() => bench.close());

test('a bit flipped anywhere in a journal is seen, named, repaired from the database, and stops nothing', async () => {
  const path = bench.rooms.journal.path(job);
  const kept = readFileSync(path);
  const [position] = await bench.database.query<{ n: number; sha256: string }>(
    'SELECT n, sha256 FROM chains WHERE name = $1',
    [job],
  );
  // The frame of a line, byte by byte; each end of a line; places all over the payloads.
  const second = kept.indexOf('\n') + 1;
  const places = new Set([...Array(times(11, 76)).keys()].map((i) => second + i * times(7, 1)));
  for (let at = 0; at < kept.length; at += Math.floor(kept.length / times(12, 40))) places.add(at);
  for (let at = kept.indexOf('\n'); at >= 0; at = kept.indexOf('\n', at + 1)) places.add(at);
  for (const at of places) {
    const bytes = Buffer.from(kept);
    bytes[at]! ^= 1 << (at % 8);
    writeFileSync(path, bytes);
    // Without its last end of line the last line still holds: only there nothing is lost.
    const isLast = at === kept.length - 1;
    const seen = await bench.rooms.verifier.job(job);
    if (!isLast)
      expect([at, seen.ok, seen.problems[0]?.what]).toEqual([
        at,
        false,
        expect.stringMatching(/journal|version/),
      ]);
    bench.rooms.journal.forget();
    await reconcile(bench.database, bench.rooms.journal, '2026-11-28T12:00:00.000Z');
    const { ok, problems, entries, versions, repairs } = await bench.rooms.verifier.job(job);
    expect([at, ok, problems, entries, versions]).toEqual([at, true, [], 3, 1]);
    if (!isLast) expect([at, repairs.length > 0]).toEqual([at, true]);
    await bench.database.query('UPDATE chains SET n = $2, sha256 = $3 WHERE name = $1', [
      job,
      position!.n,
      position!.sha256,
    ]);
  }
  writeFileSync(path, kept);
}, 60_000);
