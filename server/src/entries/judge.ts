import type { Bench, Court, Draft } from './court';
import { zoneOf } from './instrument';
import type { EntryRequest } from './judges';
import { rightResult } from './judges/correction';
import { judgeOf } from './request';

/** An entry without its body: of whoever asks, when they say, in the zone of the job. */
export const blankDraft = (
  { id, takenAt }: Pick<EntryRequest, 'id' | 'takenAt'>,
  bench: Bench,
  court: Court,
): Omit<Draft, 'body'> => ({
  id,
  takenAt,
  by: court.by.name,
  zone: zoneOf(bench.job),
  witness: null,
  subjects: [],
  basis: [],
  instrument: null,
  attachments: [],
});

/**
 * Makes an entry from a request, against the design as it is saved: expectation, verdict and basis are the
 * server's own.
 */
export async function judgeRequest(request: EntryRequest, bench: Bench, court: Court): Promise<Draft> {
  const { attachments = [] } = request;
  await court.files.check(bench.job.id, attachments, bench.db);
  const judged = await judgeOf(request.kind).judge({ request, bench, court });
  return { ...blankDraft(request, bench, court), attachments, ...judged };
}

/** Ids of the entries that a correction with the right value makes: itself, and the result. */
export const correctionIds = (id: string) => [id, `${id}-right`];

/** A correction and the result that takes the place of the corrected one. */
export async function judgeCorrection(
  request: Extract<EntryRequest, { kind: 'correction' }>,
  bench: Bench,
  court: Court,
): Promise<Draft[]> {
  const [, rightId] = correctionIds(request.id);
  const correction = await judgeRequest(request, bench, court);
  const { takenAt, judged } = await rightResult({ request, bench, court });
  return [correction, { ...correction, ...judged, id: rightId!, takenAt, attachments: [] }];
}
