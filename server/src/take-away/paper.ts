import { HttpError } from '../http/errors';
import { heavy } from '../heavy/heavy';
import type { Rooms } from '../rooms';
import { anchorText, isSigned, keyName, readAnchor } from './signature';

/** Where the chain of a job stands now, signed, for what is printed; the shop's chain knows it from then on. */
export async function anchorOf(
  { jobs, writer, heads, store, clock }: Rooms,
  id: string,
): Promise<{ text: string; n: number; key: string }> {
  const job = await jobs.get(id);
  const head = await writer.write(async (turn) => {
    heads.stands(job.id, turn.head(job.id)!);
    await heads.note(turn);
    return turn.head(job.id)!;
  });
  return {
    text: anchorText(store.key.anchor(job.id, head, clock.now())),
    n: head.n,
    key: keyName(store.key.key),
  };
}

/** What holding a printed head against the chain came to. */
export interface PaperCheck {
  /** The chain holds the very link that the paper names. */
  fits: boolean;
  job: { id: string; name: string | null };
  n: number;
  at: string;
  /** Links of the chain now; null: the job is not here. */
  links: number | null;
  signedBy: 'this shop' | 'another shop' | 'nobody';
  key: string;
}

/** @throws HttpError 422 when the text is no printed head */
export async function checkPaper(
  { journal, jobs, store }: Pick<Rooms, 'journal' | 'jobs' | 'store'>,
  text: string,
): Promise<PaperCheck> {
  const anchor = readAnchor(text);
  if (anchor === null)
    throw new HttpError(
      422,
      'no-paper',
      'this is no printed head: it begins with torvek-head and has seven words',
      [{ path: 'text', message: 'is no printed head' }],
    );
  const { job, n, sha256, at, key } = anchor;
  const there = await jobs.find(job);
  const audit = await heavy('auditJob', { path: journal.path(job), asked: [n] }, journal.size(job));
  return {
    fits: audit.linkHashes.some(([, hash]) => hash === sha256),
    job: { id: job, name: there?.name ?? null },
    n,
    at,
    links: audit.head?.n ?? null,
    signedBy: !isSigned(anchor) ? 'nobody' : key === store.key.key ? 'this shop' : 'another shop',
    key: keyName(key),
  };
}

export function paperInWords({ fits, job, n, at, links, signedBy, key }: PaperCheck): string {
  const whose =
    signedBy === 'nobody'
      ? 'Its signature does not hold.'
      : `It was signed by ${signedBy === 'this shop' ? 'this shop' : 'another shop'}, key ${key}.`;
  if (links === null) return `The job ${job.id} is not here. ${whose}`;
  const day = at.slice(0, 16).replace('T', ' ');
  return fits
    ? `Fits: the chain of ${job.name ?? job.id} still holds link ${n} as it was printed on ${day} UTC; ${links - n} came after it. ${whose}`
    : `DOES NOT FIT: the chain of ${job.name ?? job.id} was rewritten since ${day} UTC, or the paper is of another chain: it has another link ${n}. ${whose}`;
}
