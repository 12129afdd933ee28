import { invalidInput } from '../http/errors';
import { route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { judgeRequest } from './judge';
import type { PageRequest } from './ledger';
import { entryDoor, type EntryRequest } from './request';

/** Most entries of one page. */
const mostPerPage = 1000;

function pageOf({ before, limit, kind = null, subject = null }: Record<string, string | null>): PageRequest {
  const whole = (text: string | null | undefined, path: string, most: number, otherwise: number) => {
    if (text === undefined || text === null) return otherwise;
    const value = /^\d{1,10}$/.test(text) ? Number(text) : NaN;
    if (!(value >= 1 && value <= most))
      throw invalidInput([{ path, message: `must be a whole number from 1 to ${most}` }]);
    return value;
  };
  const at = whole(before, 'before', 2_147_483_647, 0);
  return { before: at === 0 ? null : at, limit: whole(limit, 'limit', mostPerPage, 200), kind, subject };
}

/** The record of a job: read, append, verify. */
export function entryRoutes({
  ledger,
  jobs,
  verifier,
  people,
  instruments,
  files,
  library,
  clock,
}: Rooms): Route[] {
  return [
    route({
      method: 'get',
      path: '/jobs/:job/entries',
      role: 'witness',
      handle: ({ params, query }) => ledger.page(params.job!, pageOf(query)),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/standing',
      role: 'witness',
      handle: ({ params }) => ledger.standing(params.job!),
    }),
    route<EntryRequest>({
      method: 'post',
      path: '/jobs/:job/entries',
      role: 'technician',
      door: entryDoor,
      async handle(call) {
        const { body } = call;
        const job = call.params.job!;
        const known = await ledger.known(job, body.id);
        if (known !== null) return known;
        const by = signedIn(call);
        // Before its turn: checking a password takes its time, and nobody else waits for it.
        const witness =
          body.kind === 'gate' && body.witness !== undefined ? await people.witness(by, body.witness) : null;
        return ledger.append(job, body.id, (bench) =>
          judgeRequest(body, bench, { by, now: clock.now(), witness, instruments, files, library }),
        );
      },
    }),
    route({
      method: 'get',
      path: '/jobs/:job/verify',
      role: 'witness',
      handle: async ({ params }) => verifier.job((await jobs.get(params.job!)).id),
    }),
  ];
}
