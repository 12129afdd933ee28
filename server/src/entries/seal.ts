import { coreVersion } from '@torvek/core/design';
import {
  canonicalText,
  entryFormat,
  entryFormatVersion,
  UnrecordableText,
  type Entry,
} from '@torvek/core/record';
import { invalidInput } from '../http/errors';
import type { Job } from '../jobs/jobs';
import { sha256Of } from '../journal/lines';
import { designHashOf } from '../journal/story';
import type { Draft } from './court';

/** The last entry of a job, to which the next one is bound. */
export interface Tail {
  seq: number;
  sha256: string | null;
  recordedAt: string | null;
}

/**
 * The whole entry with its text and hash: bound to the one before, and to the design it was judged against.
 *
 * @throws HttpError 422 when a text holds a character that cannot be recorded
 */
export function sealed(
  job: Job,
  draft: Draft,
  tail: Tail,
  recordedAt: string,
): { entry: Entry; text: string; sha256: string } {
  const entry = complete(job, draft, tail, recordedAt);
  const text = canonical(entry);
  return { entry, text, sha256: sha256Of(text) };
}

/** Of designs that were hashed: a batch is judged against one. */
const hashes = new WeakMap<Job['design'], string>();

function hashOf(design: Job['design']): string {
  const known = hashes.get(design);
  if (known !== undefined) return known;
  const made = designHashOf(design);
  hashes.set(design, made);
  return made;
}

function complete(job: Job, draft: Draft, tail: Tail, recordedAt: string): Entry {
  return {
    format: entryFormat,
    formatVersion: entryFormatVersion,
    ...draft,
    job: job.id,
    seq: tail.seq + 1,
    previous: tail.sha256,
    recordedAt,
    // Said in the entry itself: whoever reads its time must know that the clock is not to be trusted here.
    ...(tail.recordedAt !== null && recordedAt < tail.recordedAt && { clockWentBack: tail.recordedAt }),
    against: { version: job.version, sha256: hashOf(job.design), core: coreVersion },
  };
}

function canonical(entry: Entry): string {
  try {
    return canonicalText(entry);
  } catch (error) {
    if (error instanceof UnrecordableText)
      throw invalidInput([{ path: error.path, message: 'holds a character that cannot be recorded' }]);
    throw error;
  }
}
