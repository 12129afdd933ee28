import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { openRooms } from '../rooms';
import { openStore } from '../store';
import { finishRestore, stageBackup } from './restore';

/** What restoring a backup into a scratch folder came to. */
export interface Tried {
  ok: boolean;
  jobs: number;
  entries: number;
  problems: string[];
}

/** Proves a backup: restores it into a folder of its own, builds its database, and verifies all of it there. */
export async function tryBackup({ path, scratch }: { path: string; scratch: string }): Promise<Tried> {
  rmSync(scratch, { recursive: true, force: true });
  mkdirSync(scratch, { recursive: true });
  try {
    const now = new Date().toISOString();
    const staged = await stageBackup({ bytes: readFileSync(path), dataFolder: scratch, by: 'a trial', now });
    if (!staged.ok)
      return {
        ok: false,
        jobs: 0,
        entries: 0,
        problems: staged.problems.map(({ file, message }) => `${file} ${message}`),
      };
    finishRestore(scratch);
    const store = await openStore(scratch, undefined);
    try {
      const { verifier, journal } = openRooms(store);
      const problems = [...staged.report.problems];
      const found = [await verifier.shop()];
      for (const id of journal.jobs()) found.push(await verifier.job(id));
      for (const one of found)
        problems.push(...one.problems.map(({ what, message }) => `${what} ${message}`));
      const { jobs, entries } = staged.report.rows;
      return { ok: problems.length === 0, jobs, entries, problems: [...new Set(problems)].slice(0, 50) };
    } finally {
      await store.close();
    }
  } finally {
    rmSync(scratch, { recursive: true, force: true });
  }
}
