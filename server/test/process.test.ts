import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, expect, test } from '@jest/globals';
import { killAll, startProcess } from './real-process';
import { runKillRounds } from './kill-rounds';
import { times } from '../../scripts/testing/thorough';

const verifyCommand =
  process.env.TORVEK_TEST_BUILT === '1'
    ? ['server/dist/verify.js']
    : ['--import', 'tsx', 'server/src/commands/verify.ts'];

/** The real process on a real folder: the lock, and what a kill leaves behind. */
let folder = '';
afterEach(() => {
  killAll();
  if (folder !== '') rmSync(folder, { recursive: true, force: true });
});

test('a second process on the same folder is refused with a clear message', async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-lock-'));
  await startProcess(folder);
  await expect(startProcess(folder)).rejects.toThrow(/is in use by another Torvek process/);
});

test('kills during writes lose nothing acknowledged, and repeated requests double nothing', async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-kill-'));
  const { acknowledged, found, missing, doubled, chainFits } = await runKillRounds(folder, times(2, 12));
  expect(acknowledged).toBeGreaterThan(10);
  expect({ missing, doubled, chainFits }).toEqual({ missing: [], doubled: 0, chainFits: true });
  expect(found).toBe(acknowledged);
});

test('an empty database beside journals is refused in words, by the server and by verify; nothing is made', async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-lost-'));
  const journal = join(folder, 'journal');
  mkdirSync(journal);
  writeFileSync(join(journal, 'job-shop.jsonl'), '{"seq":1,"sha256":"","text":""}\n');
  await expect(startProcess(folder)).rejects.toThrow(
    /Torvek: the database of .* is empty or missing, but the journals of 1 job lie beside it \(job-shop\)/,
  );
  const verify = (data: string) =>
    spawnSync(process.execPath, ['--liftoff-only', ...verifyCommand], {
      env: { ...process.env, TORVEK_DATA: data, NODE_OPTIONS: '' },
      encoding: 'utf8',
    });
  expect(verify(folder)).toMatchObject({ status: 2, stderr: expect.stringContaining('job-shop') as unknown });
  const nowhere = join(folder, 'nowhere');
  expect(verify(nowhere)).toMatchObject({
    status: 2,
    stderr: `Torvek: the data folder ${nowhere} does not exist\n`,
  });
  expect(existsSync(nowhere)).toBe(false);
});
