import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { Database, Queryable } from '../database';
import { nodeDisk, type Disk } from '../files/disk';
import { Heads } from './heads';
import { Journal } from './journal';
import { Writer } from './writer';

/** A database that takes everything and notes it; it may refuse to commit. */
class Recorder implements Pick<Database, 'transaction'> {
  readonly said: string[] = [];
  commits = true;
  readonly db: Queryable = {
    query: <Row>(sql: string) => {
      this.said.push(sql.trim().split(/\s+/).slice(0, 3).join(' '));
      return Promise.resolve([] as Row[]);
    },
  };
  async transaction<T>(work: (db: Queryable) => Promise<T>): Promise<T> {
    this.said.push('BEGIN');
    const result = await work(this.db);
    if (!this.commits) throw new Error('the database refused to commit');
    this.said.push('COMMIT');
    return result;
  }
}

let folder = '';
let recorder: Recorder;
let journal: Journal;
let writer: Writer;
let broken: unknown[];
let disk: Disk & { full: boolean };
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-writer-'));
  recorder = new Recorder();
  disk = {
    full: false,
    write(file, bytes) {
      if (this.full) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      return nodeDisk.write(file, bytes);
    },
  };
  journal = new Journal(folder, disk);
  broken = [];
  writer = new Writer(
    recorder as unknown as Database,
    journal,
    { now: () => '2026-11-28T08:00:00.000Z' },
    new Heads(() => 0),
    (error) => broken.push(error),
  );
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const rename = (name: string) =>
  writer.write(async (turn) => (await turn.job('job', { kind: 'name', name, by: 'Test' })).n);
const names = () => journal.read('job').links.map(({ body }) => body.name);

describe('the one writer', () => {
  test('takes what waits together: one transaction, each in its turn, answered in order', async () => {
    const events: string[] = [];
    const answers = await Promise.all(
      ['a', 'b', 'c'].map((name) =>
        writer.write(async (turn) => {
          await turn.job('job', { kind: 'name', name, by: 'Test' });
          turn.done(() => events.push(`${name} after ${recorder.said.at(-1)}`));
          return turn.head('job')!.n;
        }),
      ),
    );
    expect(answers).toEqual([1, 2, 3]);
    expect(names()).toEqual(['a', 'b', 'c']);
    expect(recorder.said.filter((one) => one === 'BEGIN')).toHaveLength(1);
    expect(events).toEqual(['a after COMMIT', 'b after COMMIT', 'c after COMMIT']);
    expect(journal.read('job').damage).toEqual([]);
  });

  test('lets a refused turn take nothing of the others with it', async () => {
    const undone: string[] = [];
    const refused = writer.write(async (turn) => {
      turn.undone(() => undone.push('refused'));
      await turn.job('job', { kind: 'name', name: 'never', by: 'Test' });
      throw new Error('no');
    });
    const answers = await Promise.allSettled([rename('a'), refused, rename('b')]);
    expect(answers.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    expect(names()).toEqual(['a', 'b']);
    expect(journal.read('job').links.map(({ n }) => n)).toEqual([1, 2]);
    expect(recorder.said).toContain('ROLLBACK TO SAVEPOINT');
    expect(undone).toEqual(['refused']);
  });

  test('on a full disk refuses all of a batch, and goes on at the same number', async () => {
    await rename('a');
    disk.full = true;
    const undone: string[] = [];
    const noted = writer.write(async (turn) => {
      turn.undone(() => undone.push('b'));
      return turn.job('job', { kind: 'name', name: 'b', by: 'Test' });
    });
    const answers = await Promise.allSettled([noted, rename('c')]);
    expect(answers.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect([undone, names(), broken]).toEqual([['b'], ['a'], []]);
    disk.full = false;
    expect(await rename('d')).toBe(2);
  });

  test('a commit that fails after the journal was written asks for a new start', async () => {
    recorder.commits = false;
    await expect(rename('a')).rejects.toThrow('refused to commit');
    expect(broken).toHaveLength(1);
    expect(names()).toEqual(['a']);
    // Nothing is written on rows that are not there.
    recorder.commits = true;
    await expect(rename('b')).rejects.toMatchObject({ status: 503, code: 'starting-anew' });
    expect(names()).toEqual(['a']);
  });

  test('notes where the chains of jobs stand in the chain of the shop', async () => {
    const { n } = await writer.write((turn) => turn.job('job', { kind: 'name', name: 'a', by: 'Test' }));
    await writer.note();
    const heads = journal.read('~shop').links.map(({ body }) => body);
    expect(heads).toEqual([{ kind: 'heads', jobs: { job: { n, sha256: journal.head('job')!.sha256 } } }]);
    await writer.note();
    expect(journal.read('~shop').links).toHaveLength(1);
  });

  test('waits while somebody has the data alone', async () => {
    const order: string[] = [];
    let go: () => void = () => undefined;
    const alone = writer.alone(() =>
      new Promise<void>((resolve) => (go = resolve)).then(() => void order.push('alone')),
    );
    const later = rename('a').then(() => order.push('written'));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(names()).toEqual([]);
    go();
    await Promise.all([alone, later]);
    expect(order).toEqual(['alone', 'written']);
  });
});
