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
export function entryRoutes({ ledger, people, instruments, files, library, clock }: Rooms): Route[] {
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
      handle: (call) =>
        ledger.append(call.params.job!, call.body.id, (bench) =>
          judgeRequest(call.body, bench, {
            by: signedIn(call),
            now: clock.now(),
            people,
            instruments,
            files,
            library,
          }),
        ),
    }),
    route({
      method: 'get',
      path: '/jobs/:job/verify',
      role: 'witness',
      handle: ({ params }) => ledger.verify(params.job!),
    }),
  ];
}
