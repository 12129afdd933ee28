import { HttpError } from '../http/errors';
import { pageOf } from '../http/page';
import { route, signedIn, type Route } from '../http/route';
import type { Rooms } from '../rooms';
import { correctionIds, judgeCorrection, judgeRequest } from './judge';
import type { Draft } from './court';
import type { EntryRequest } from './judges';
import { sendThing } from './sending';
import { entryDoor, readingsDoor, type ReadingsRequest } from './request';

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
        const court = { by, now: clock.now(), witness, instruments, files, library };
        if (body.kind === 'correction' && body.right !== undefined) {
          const made = await ledger.appendAll(job, correctionIds(body.id), (bench) =>
            judgeCorrection(body, bench, court),
          );
          return made[0];
        }
        if (body.kind === 'sent') return sendThing({ ledger, jobs }, job, body, court);
        return ledger.append(job, body.id, (bench) => judgeRequest(body, bench, court));
      },
    }),
    route<ReadingsRequest>({
      method: 'post',
      path: '/jobs/:job/readings',
      role: 'technician',
      door: readingsDoor,
      handle(call) {
        const { readings } = call.body;
        const by = signedIn(call);
        return ledger.appendAll(
          call.params.job!,
          readings.map(({ id }) => id),
          async (bench) => {
            const court = { by, now: clock.now(), witness: null, instruments, files, library };
            const drafts: Draft[] = [];
            for (const [i, one] of readings.entries())
              drafts.push(
                await judgeRequest(one, bench, court).catch((error) => Promise.reject(inBatch(error, i))),
              );
            return drafts;
          },
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

/** What is wrong with one reading of a batch, by its row. */
function inBatch(error: unknown, row: number): unknown {
  if (!(error instanceof HttpError)) return error;
  const issues = (error.issues ?? []).map(({ path, message }) => ({
    path: `readings.${row}.${path}`,
    message,
  }));
  return new HttpError(error.status, error.code, `reading ${row + 1}: ${error.message}`, issues);
}
