import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from '@jest/globals';
import request from 'supertest';
import { Journal } from '../src/entries/journal';
import { nodeDisk, type Disk } from '../src/files/disk';
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

const hash = (digit: string) => digit.repeat(64);

describe('a journal on a disk that fills', () => {
  test('at whatever byte: nothing of the line stays, and the next one is whole', () => {
    const folder = mkdtempSync(join(tmpdir(), 'torvek-full-'));
    const disk = new SmallDisk();
    const journal = new Journal(folder, disk);
    const path = join(folder, 'job.jsonl');
    journal.append('job', { seq: 1, sha256: hash('a'), text: 'the first' });
    const before = readFileSync(path, 'utf8');
    const second = { seq: 2, sha256: hash('b'), text: 'the second, with umlauts: äöü' };
    const length = Buffer.byteLength(JSON.stringify(second)) + 1;
    for (let room = 0; room < length; room += 1) {
      disk.roomBytes = room;
      expect(() => journal.append('job', second)).toThrow('the disk of the server is full');
      expect(readFileSync(path, 'utf8')).toBe(before);
    }
    expect(journal.last('job')).toMatchObject({ seq: 1, sha256: hash('a') });
    disk.roomBytes = length;
    journal.append('job', second);
    // The mark of the commit finds no room: the entry counts all the same.
    journal.commit('job', second);
    expect(journal.read('job').map(({ seq, committed }) => [seq, committed])).toEqual([
      [1, false],
      [2, false],
    ]);
    expect(readFileSync(path, 'utf8').endsWith(`${JSON.stringify(second)}\n`)).toBe(true);
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
    expect(await bench.rooms.ledger.verify('job-bus')).toMatchObject({ ok: true, entries: 2 });
    await bench.close();
  });
});
