import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { coreVersion } from '@torvek/core/design';
import { heavy } from '../heavy/heavy';
import { HttpError } from '../http/errors';
import { forgetEvaluations } from '../jobs/evaluated';
import { shopChain } from '../journal/links';
import type { Rooms } from '../rooms';
import { backupFormat, backupFormatVersion, type RestoreReport } from './restore';

/** Everything there is, as one sealed zip: every chain and every file. It holds password hashes: for owners alone. */
export async function makeBackup(rooms: Omit<Rooms, 'nightly'>, by: string): Promise<Uint8Array> {
  const { writer, journal, heads, files, clock } = rooms;
  const at = clock.now();
  await writer.note();
  // Lengths of one moment: whatever is written while it is packed comes after them.
  const chains = await writer.write(async (turn) => {
    await heads.note(turn);
    return [shopChain, ...journal.jobs()]
      .filter((chain) => journal.has(chain))
      .map((chain) => {
        const path = journal.path(chain);
        return { name: `journal/${path.split('/').at(-1)!}`, path, bytes: statSync(path).size };
      });
  });
  const pieces = files.stored().map((sha256) => ({ name: `files/${sha256}`, path: files.pathOf(sha256) }));
  const manifest = {
    format: backupFormat,
    formatVersion: backupFormatVersion,
    core: coreVersion,
    madeAt: at,
    madeBy: by,
  };
  const size = chains.reduce((sum, { bytes }) => sum + bytes, 0);
  return heavy('packBackup', { chains, files: pieces, manifest, at }, size + pieces.length * 100_000);
}

/**
 * Puts a backup in the place of everything, while the server runs: staged and checked first, then decided by one rename, and the
 * database built anew from the journals that came. Whoever was signed in has to sign in again.
 *
 * @throws HttpError 422 naming what does not fit; nothing is changed then
 */
export async function restoreBackup(rooms: Rooms, bytes: Uint8Array, by: string): Promise<RestoreReport> {
  const { store, writer, clock } = rooms;
  const staged = await heavy(
    'stageBackup',
    { bytes, dataFolder: store.dataFolder, by, now: clock.now() },
    bytes.length,
  );
  if (!staged.ok) {
    const [first] = staged.problems;
    const what = `${first?.file || 'the backup'} ${first?.message ?? 'does not fit'}`;
    throw new HttpError(422, 'archive-broken', `nothing was restored: ${what}`, [], {
      report: { problems: staged.problems.slice(0, 50) },
    });
  }
  await writer.alone(() => store.replace());
  rooms.ledger.forget();
  rooms.library.forget();
  forgetEvaluations();
  return staged.report;
}

/** Backups that lie in a folder, newest first. */
export function backupsIn(folder: string): { name: string; bytes: number }[] {
  return readdirSync(folder)
    .filter((name) => /^torvek-backup-[\w-]+\.zip$/.test(name))
    .sort()
    .reverse()
    .map((name) => ({ name, bytes: statSync(join(folder, name)).size }));
}
