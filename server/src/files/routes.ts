import { invalidInput } from '../http/errors';
import { Download, route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { fileLimitBytes } from './files';

/** Photos and files of a job: sent as bytes, the name in the query. */
export function fileRoutes({ files, jobs }: Rooms): Route[] {
  return [
    route({
      method: 'get',
      path: '/jobs/:job/files',
      role: 'witness',
      handle: async ({ params }) => files.list((await jobs.get(params.job!)).id),
    }),
    route<Uint8Array>({
      method: 'post',
      path: '/jobs/:job/files',
      role: 'technician',
      rawLimitBytes: fileLimitBytes,
      async handle(call) {
        const job = await jobs.get(call.params.job!);
        const name = (call.query.name ?? '').replace(/[\p{Cc}/\\]/gu, '').trim();
        if (name === '' || name.length > 200)
          throw invalidInput([{ path: 'name', message: 'must be 1 to 200 characters' }]);
        const bytes = call.body instanceof Uint8Array ? call.body : new Uint8Array();
        return files.add(job.id, name, bytes, signedIn(call).name);
      },
    }),
    route({
      method: 'get',
      path: '/jobs/:job/files/:sha256',
      role: 'witness',
      async handle({ params }) {
        const { sha256, type, name } = await files.describe(params.job!, params.sha256!);
        return new Download(
          files.read(sha256),
          type,
          name,
          type.startsWith('image/') && type !== 'image/heic',
        );
      },
    }),
  ];
}
