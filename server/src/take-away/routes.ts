import { record, text } from '@torvek/core/shape';
import { invalidInput } from '../http/errors';
import { Download, route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { makeBackup, restoreBackup } from './backup';
import { exportJob } from './export';
import { checkedArchive, importJob } from './import';
import { anchorOf, checkPaper, paperInWords } from './paper';

/** Largest archive that is taken in. */
const archiveLimitBytes = 512 * 1024 * 1024;

function bytesOf(body: unknown): Uint8Array {
  if (body instanceof Uint8Array && body.length > 0) return body;
  throw invalidInput([{ path: 'file', message: 'is empty' }]);
}

const stamp = (instant: string) => instant.slice(0, 16).replace(/[T:]/g, '-');

/** A job as one file, out and in; everything as one file, out and back. */
export function takeAwayRoutes(rooms: Rooms): Route[] {
  return [
    route({
      method: 'get',
      path: '/jobs/:job/export',
      role: 'witness',
      async handle(call) {
        const job = await rooms.jobs.get(call.params.job!);
        const bytes = await exportJob(rooms, job.id, signedIn(call).name);
        const name = `${job.name.replace(/[^\p{L}\p{N}]+/gu, '-')}-${stamp(rooms.clock.now())}.torvek.zip`;
        return new Download(bytes, 'application/zip', name);
      },
    }),
    route({
      method: 'get',
      path: '/jobs/:job/anchor',
      role: 'witness',
      handle: ({ params }) => anchorOf(rooms, params.job!),
    }),
    route<{ text: string }>({
      method: 'post',
      path: '/papers/check',
      role: 'witness',
      door: { schema: record({ text: text(2000) }) },
      handle: async ({ body }) => {
        const answer = await checkPaper(rooms, body.text);
        return { ...answer, words: paperInWords(answer) };
      },
    }),
    route({ method: 'get', path: '/shop/verify', role: 'owner', handle: () => rooms.verifier.shop() }),
    route<unknown>({
      method: 'post',
      path: '/import/check',
      role: 'designer',
      rawLimitBytes: archiveLimitBytes,
      handle: async ({ body }) => (await checkedArchive(bytesOf(body))).report,
    }),
    route<unknown>({
      method: 'post',
      path: '/import',
      role: 'designer',
      rawLimitBytes: archiveLimitBytes,
      handle: (call) => importJob(rooms, bytesOf(call.body), signedIn(call).name),
    }),
    route({
      method: 'get',
      path: '/backup',
      role: 'owner',
      handle: async (call) =>
        new Download(
          await makeBackup(rooms, signedIn(call).name),
          'application/zip',
          `torvek-backup-${stamp(rooms.clock.now())}.zip`,
        ),
    }),
    route({ method: 'get', path: '/backups', role: 'owner', handle: () => rooms.nightly.state() }),
    route({
      method: 'post',
      path: '/backups',
      role: 'owner',
      async handle(call) {
        await rooms.nightly.run(signedIn(call).name);
        return rooms.nightly.state();
      },
    }),
    route<unknown>({
      method: 'post',
      path: '/restore',
      role: 'owner',
      rawLimitBytes: archiveLimitBytes,
      async handle(call) {
        const report = await restoreBackup(rooms, bytesOf(call.body), signedIn(call).name);
        // Whoever was signed in may be another person in the data that is there now.
        call.setSession(null);
        return report;
      },
    }),
  ];
}
