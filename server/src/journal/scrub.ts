import { heavy } from '../heavy/heavy';
import type { Rooms } from '../rooms';
import { readFileSync } from 'node:fs';
import { readChain } from './lines';
import { shopChain, type JobFact, type RepairLink } from './links';
import { reconcile } from './reconcile';

/** Damaged lines of a chain that no repair answers for. */
export function damageOf({ path }: { path: string }): number {
  const { links, damage } = readChain(readFileSync(path));
  const mended = new Set(
    links.flatMap(({ body }) =>
      body.kind === 'repair' ? (body as unknown as RepairLink<JobFact>).lines.map(({ n }) => n) : [],
    ),
  );
  return damage.filter(({ n }) => !mended.has(n)).length;
}

/**
 * Reads every journal through after the start, in threads of their own: lines that were damaged while nobody looked are taken up
 * from the database while it still has them, and that is recorded.
 *
 * @returns what was found and done, in words
 */
export async function scrub({ journal, database, writer, clock }: Rooms): Promise<string[]> {
  const notes: string[] = [];
  for (const chain of [shopChain, ...journal.jobs()]) {
    if (!journal.has(chain)) continue;
    const damaged = await heavy('damageOf', { path: journal.path(chain) }, journal.size(chain));
    if (damaged === 0) continue;
    const done = await writer.alone(() => reconcile(database, journal, clock.now(), { only: chain }));
    notes.push(...done.notes);
  }
  return notes;
}
