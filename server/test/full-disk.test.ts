import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { nodeDisk, type Disk } from '../src/files/disk';
import { Journal } from '../src/journal/journal';
import { lineOf, type Head } from '../src/journal/lines';
import { shopChain } from '../src/journal/links';
import { makeBus, openBench, positionRequest } from './bench-room';

/** A disk with so much room left; it writes what still fits, as a file system does. */
class SmallDisk implements Disk {
  constructor(public roomBytes = Infinity) {}
  write(file: number, bytes: Uint8Array): number {
    if (this.roomBytes <= 0) throw Object.assign(new Error('ENOSPC: no space left'), { code: 'ENOSPC' });
    const fits = bytes.subarray(0, Math.min(bytes.length, this.roomBytes));
    this.roomBytes -= fits.length;
    return nodeDisk.write(file, fits);
  }
}

const line = (n: number, what: string, head: Head | null) => {
  const made = lineOf({ kind: 'name', name: what, by: 'Test' }, head, `2026-11-28T08:00:0${n}.000Z`);
  return { bytes: made.bytes, head: { n: made.link.n, sha256: made.link.sha256 } };
};

test('half a chain that a kill left while it came in is no job, and goes', () => {
  const folder = mkdtempSync(join(tmpdir(), 'torvek-half-'));
  const whole = line(1, 'here', null).bytes;
  writeFileSync(join(folder, 'job.jsonl'), whole);
  writeFileSync(join(folder, 'other.jsonl.part'), whole.subarray(0, 40));
  expect(new Journal(folder).jobs()).toEqual(['job']);
  expect(readdirSync(folder)).toEqual(['job.jsonl']);
  rmSync(folder, { recursive: true });
});

describe('a journal on a disk that fills', () => {
  test('at whatever byte of whichever file: nothing of any line stays, and the next ones are whole', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'torvek-full-'));
    const disk = new SmallDisk();
    const journal = new Journal(folder, disk);
    const first = line(1, 'the first', null);
    const both = (bytes: Buffer) =>
      new Map([
        [shopChain, { lines: [bytes] }],
        ['job', { lines: [bytes] }],
      ]);
    await journal.write(both(first.bytes));
    const stand = () => [shopChain, 'job'].map((chain) => readFileSync(journal.path(chain), 'utf8'));
    const before = stand();
    const second = line(2, 'the second, with umlauts: äöü', first.head);
    for (let room = 0; room < 2 * second.bytes.length; room += 3) {
      disk.roomBytes = room;
      await expect(journal.write(both(second.bytes))).rejects.toThrow('the disk of the server is full');
      expect(stand()).toEqual(before);
    }
    disk.roomBytes = 2 * second.bytes.length;
    await journal.write(both(second.bytes));
    expect(journal.read('job')).toMatchObject({ damage: [], head: second.head });
    expect(journal.read(shopChain).links.map(({ n }) => n)).toEqual([1, 2]);
    rmSync(folder, { recursive: true });
  });

  test('leaves nothing of a chain that was coming in', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'torvek-full-'));
    const disk = new SmallDisk();
    const journal = new Journal(folder, disk);
    const whole = line(1, 'from elsewhere', null).bytes;
    disk.roomBytes = whole.length - 1;
    await expect(journal.write(new Map([['job', { lines: [], whole }]]))).rejects.toThrow('is full');
    expect(readdirSync(folder)).toEqual([]);
    rmSync(folder, { recursive: true });
  });

  test('the server answers 507 in words, records nothing, and goes on when there is room', async () => {
    const disk = new SmallDisk();
    const bench = await openBench(false, disk);
    await makeBus(bench);
    const post = (id: string) =>
      request(bench.app).post('/api/jobs/job-bus/entries').send(positionRequest(id));
    expect((await post('one')).status).toBe(200);
    disk.roomBytes = 100;
    const { status, body } = await post('two');
    expect([status, body.error.code]).toEqual([507, 'no-room']);
    expect(body.error.message).toContain('nothing was recorded');
    disk.roomBytes = Infinity;
    const again = await post('two');
    expect([again.status, again.body.seq]).toEqual([200, 2]);
    expect(await bench.rooms.verifier.job('job-bus')).toMatchObject({ ok: true, entries: 2 });
    await bench.close();
  });
});
