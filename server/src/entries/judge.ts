import type { Bench, Court, Draft } from './court';
import { zoneOf } from './instrument';
import type { EntryRequest } from './judges';
import { judgeOf } from './request';

/**
 * Makes an entry from a request, against the design as it is saved: expectation, verdict and basis are the
 * server's own.
 */
export async function judgeRequest(request: EntryRequest, bench: Bench, court: Court): Promise<Draft> {
  const { id, takenAt, attachments = [] } = request;
  await court.files.check(bench.job.id, attachments, bench.db);
  const judged = await judgeOf(request.kind).judge({ request, bench, court });
  return {
    id,
    takenAt,
    by: court.by.name,
    zone: zoneOf(bench.job),
    witness: null,
    subjects: [],
    basis: [],
    instrument: null,
    attachments,
    ...judged,
  };
}
