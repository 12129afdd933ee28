import { closeSync, fsyncSync, openSync, writeSync } from 'node:fs';
import { HttpError } from '../http/errors';

/** What writes bytes to an open file; it may write fewer than it was given. */
export interface Disk {
  write(file: number, bytes: Uint8Array): number;
}

export const nodeDisk: Disk = { write: (file, bytes) => writeSync(file, bytes) };

/** Writes all of some bytes, however many calls it takes. */
export function writeWhole(file: number, bytes: Uint8Array, disk: Disk = nodeDisk): void {
  for (let done = 0; done < bytes.length;) {
    const written = disk.write(file, bytes.subarray(done));
    if (written <= 0) throw Object.assign(new Error('the disk takes no more'), { code: 'ENOSPC' });
    done += written;
  }
}

/** After a file was made or renamed: only then its name is on the disk, too. */
export function syncFolder(folder: string): void {
  const handle = openSync(folder, 'r');
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

const full = new Set(['ENOSPC', 'EDQUOT', 'EFBIG']);

/** The answer when there is no room; null for any other error. */
export function noRoom(error: unknown): HttpError | null {
  return full.has(String((error as { code?: unknown }).code))
    ? new HttpError(
        507,
        'no-room',
        'the disk of the server is full: nothing was recorded; make room there and send it again',
      )
    : null;
}
