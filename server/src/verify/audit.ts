import { existsSync, readFileSync } from 'node:fs';
import { readChain, type Chain, type Head } from '../journal/lines';
import { digestsOf, pagesOf, type Digests } from '../journal/compare';
import { rowsOfJob, rowsOfShop, type Row } from '../journal/rows';
import { tellShop } from '../journal/shop-story';
import type { RecordProblem as Problem } from '@torvek/core/record';
import { tell, type Quoted } from '../journal/story';
import type { TakenUp } from '../journal/links';

export interface Audit {
  /** null: the chain does not begin with a job. */
  head: Head | null;
  entries: number;
  versions: number;
  files: string[];
  /** Hashes of links that the shop's chain may name, by number. */
  linkHashes: [n: number, sha256: string][];
  problems: Problem[];
  repairs: string[];
  takenUp: TakenUp | null;
  vouchedBy: string | null;
  /** Entries of other jobs that it quotes. */
  quotations: Quoted[];
  /** What the database must hold of each table, page by page. */
  digests: Digests[];
}

const empty: Audit = {
  head: null,
  entries: 0,
  versions: 0,
  files: [],
  linkHashes: [],
  problems: [],
  repairs: [],
  takenUp: null,
  vouchedBy: null,
  quotations: [],
  digests: [],
};

/** Hashes of some links; that of a damaged one is known to the link after it. */
function hashesOf({ links }: Chain, asked: readonly number[]): Audit['linkHashes'] {
  return links.flatMap(({ n, sha256, previous }): Audit['linkHashes'] => [
    ...(asked.includes(n) ? [[n, sha256] as [number, string]] : []),
    ...(asked.includes(n - 1) && previous !== null ? [[n - 1, previous] as [number, string]] : []),
  ]);
}

const bytesOf = (path: string) => (existsSync(path) ? readFileSync(path) : Buffer.alloc(0));

/**
 * Reads the chain of a job from its file and says what does not hold in it, and which rows must follow from it.
 *
 * @param asked numbers of links whose hashes are wanted
 */
export function auditJob({ path, asked }: { path: string; asked: number[] }): Audit {
  const chain = readChain(bytesOf(path));
  const story = tell(chain);
  const problems = chain.damage.map(({ n, message }) => ({
    what: `line ${n} of the journal`,
    seq: null,
    message,
  }));
  if (story === null)
    return {
      ...empty,
      problems: [
        ...problems,
        { what: 'the journal', seq: null, message: 'does not begin with a job, or is gone' },
      ],
    };
  return {
    head: chain.head,
    entries: story.entries.length,
    versions: story.changes.length,
    files: story.files.map(({ sha256 }) => sha256),
    linkHashes: hashesOf(chain, asked),
    problems: story.problems,
    repairs: story.repairs.flatMap(({ lines }) => lines.map(({ n, message }) => `line ${n} ${message}`)),
    takenUp: story.takenUp,
    vouchedBy: story.imported?.vouchedBy ?? null,
    quotations: story.quotations,
    digests: rowsOfJob(story, { texts: false }).map(digestsOf),
  };
}

/** The same of the shop. */
export function auditShop({ path, asked }: { path: string; asked: number[] }): Audit & {
  jobs: [id: string, name: string][];
  heads: Record<string, Head>;
} {
  const chain = readChain(bytesOf(path));
  const story = tellShop(chain);
  return {
    ...empty,
    head: chain.head,
    linkHashes: hashesOf(chain, asked),
    problems: story.problems,
    jobs: [...story.jobs],
    heads: story.heads,
    digests: rowsOfShop(story).map(digestsOf),
  };
}

/** The rows of some pages, for saying what exactly differs in them. */
export function expectedPages({
  path,
  shop,
  wanted,
}: {
  path: string;
  shop: boolean;
  wanted: { table: number; page: number }[];
}): Row[][] {
  const chain = readChain(bytesOf(path));
  const story = shop ? null : tell(chain);
  const tables = shop ? rowsOfShop(tellShop(chain)) : story === null ? [] : rowsOfJob(story);
  const pages = tables.map(pagesOf);
  return wanted.map(({ table, page }) => pages[table]?.get(page) ?? []);
}
