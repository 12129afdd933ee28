import { mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { FolderTaken, takeFolder } from './lock';

let folder = '';
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-lock-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('a folder is taken once, by whatever path, and free again afterwards', async () => {
  const release = await takeFolder(folder);
  await expect(takeFolder(folder)).rejects.toThrow(FolderTaken);
  const link = `${folder}-link`;
  symlinkSync(folder, link);
  await expect(takeFolder(link)).rejects.toThrow('is in use by another Torvek process');
  rmSync(link);
  release();
  (await takeFolder(folder))();
});

test('whoever cannot see the kernel’s names sees the socket in the folder', async () => {
  const other = createServer();
  await new Promise<void>((resolve) => other.listen(join(folder, 'in-use'), resolve));
  await expect(takeFolder(folder)).rejects.toThrow(FolderTaken);
  await new Promise((resolve) => other.close(resolve));
});

test('a socket that a kill left behind is taken over, in a folder of whatever depth', async () => {
  writeFileSync(join(folder, 'in-use'), '');
  (await takeFolder(folder))();
  const deep = join(folder, 'd'.repeat(90), 'e'.repeat(90));
  (await takeFolder(deep))();
});

test('a folder that cannot be made is said in words', async () => {
  writeFileSync(join(folder, 'file'), '');
  await expect(takeFolder(join(folder, 'file', 'data'))).rejects.toThrow(/cannot be made \(ENOTDIR\)/);
});
