import { closeSync, fsyncSync, openSync } from 'node:fs';
import { join } from 'node:path';
import { syncFolder, writeWhole } from './files/disk';

/** Writes a small file of the data folder; it is on the disk before this returns. */
export function mark(dataFolder: string, name: string, text: string): void {
  const file = openSync(join(dataFolder, name), 'w', 0o600);
  try {
    writeWhole(file, Buffer.from(text));
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  syncFolder(dataFolder);
}
