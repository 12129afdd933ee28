import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, expect, test } from '@jest/globals';
import { killAll, startProcess } from './real-process';
import { runKillRounds } from './kill-rounds';

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
  const { acknowledged, found, missing, doubled, chainFits } = await runKillRounds(folder, 3);
  expect(acknowledged).toBeGreaterThan(10);
  expect({ missing, doubled, chainFits }).toEqual({ missing: [], doubled: 0, chainFits: true });
  expect(found).toBe(acknowledged);
});
