import { pageOf } from '../http/page';
import { route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { judgeRequest } from './judge';
import type { EntryRequest } from './judges';
import { entryDoor } from './request';

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
      handle: ({ params, query }) => {
        const { kind = null, subject = null } = query;
        return ledger.page(params.job!, { ...pageOf(query), kind, subject });
      },
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
