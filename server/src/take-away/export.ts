import { statSync } from 'node:fs';
import { coreVersion } from '@torvek/core/design';
import { designSchemaNumber } from '@torvek/core/document';
import { heavy } from '../heavy/heavy';
import type { Rooms } from '../rooms';
import { jobFormat, jobFormatVersion } from './check';
import { anchorText } from './signature';

/** A job as one sealed zip, as it stands when its turn comes; signed by the shop's key. */
export async function exportJob(rooms: Rooms, jobId: string, by: string): Promise<Uint8Array> {
  const { writer, journal, heads, jobs, files, store, clock } = rooms;
  const at = clock.now();
  const { name } = await jobs.get(jobId);
  // What leaves the house can be held against the shop's chain.
  await writer.note();
  const path = journal.path(jobId);
  const { bytes, head } = await writer.write(async (turn) => {
    await heads.note(turn);
    return { bytes: statSync(path).size, head: turn.head(jobId)! };
  });
  const attachments = (await files.list(jobId)).map(({ sha256 }) => ({
    name: `attachments/${sha256}`,
    path: files.pathOf(sha256),
  }));
  const manifest = {
    format: jobFormat,
    formatVersion: jobFormatVersion,
    schema: designSchemaNumber,
    core: coreVersion,
    job: { id: jobId, name },
    exportedAt: at,
    exportedBy: by,
    chain: head,
    anchor: anchorText(store.key.anchor(jobId, head, at)),
  };
  return heavy('packJob', { chain: { name: 'chain.jsonl', path, bytes }, attachments, manifest, at }, bytes);
}
