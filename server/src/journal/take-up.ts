import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Entry } from '@torvek/core/record';
import type { Queryable } from '../database';
import { syncFolder } from '../files/disk';
import { factsInDatabase, shopInDatabase } from './facts';
import { Journal } from './journal';
import { lineOf, sha256Of, type Head } from './lines';
import { shopChain, type EntryLink, type JobFact, type ShopFact } from './links';
import { projectJob } from './project';
import { keepHead } from './writer';

/** Where the journals of before lie afterwards. */
const asideName = 'journal-before-chains';
const stagedName = 'journal-staged';

interface OldEntry {
  seq: number;
  sha256: string;
  text: string | null;
  restoredAt: string | null;
}

/** Entries of a journal as it was kept before: one JSON object a line. */
function oldEntries(path: string): OldEntry[] {
  if (!existsSync(path)) return [];
  const entries = new Map<string, OldEntry>();
  for (const line of readFileSync(path, 'utf8').split('\n')) {
    const one = objectOf(line);
    if (one === null) continue;
    const sha256 = String(one.sha256);
    if ('abandoned' in one) entries.delete(sha256);
    else if (Number.isInteger(one.seq))
      entries.set(sha256, {
        seq: one.seq as number,
        sha256,
        text: typeof one.text === 'string' ? one.text : null,
        restoredAt: null,
      });
    else if ('restored' in one && entries.has(sha256)) entries.get(sha256)!.restoredAt = String(one.at);
  }
  return [...entries.values()];
}

function objectOf(line: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(line);
    return typeof value === 'object' && value !== null ? (value as Record<string, unknown>) : null;
  } catch {
    return null;
  }
}

/** Whether the journals of a folder are of before, in whole or in part of a taking up that was interrupted. */
export function isOfBefore(dataFolder: string): boolean {
  const folder = join(dataFolder, 'journal');
  if (!existsSync(folder)) return existsSync(join(dataFolder, stagedName));
  return readdirSync(folder).some((name) => {
    const path = join(folder, name);
    return name.endsWith('.jsonl') && readFileSync(path).subarray(0, 1).toString() === '{';
  });
}

/**
 * Takes up a database of before, whose journals held entries alone: each job gets a chain that begins with what is there, by its
 * hash, as not witnessed. The journals of before are kept aside.
 *
 * @param now the time that stands in the links
 * @returns what was taken up, in words; empty when there was nothing
 */
export async function takeUp(db: Queryable, dataFolder: string, now: string): Promise<string[]> {
  const folder = join(dataFolder, 'journal');
  const staged = join(dataFolder, stagedName);
  const jobs = await db.query<{ id: string }>('SELECT id FROM jobs ORDER BY created_at, id');
  const people = await db.query<{ id: string }>('SELECT id FROM people');
  const hashes = await movedPasswords(db);
  const chained = existsSync(join(folder, `${shopChain}.jsonl`));
  if (!isOfBefore(dataFolder) && (chained || jobs.length + people.length === 0)) {
    await db.query('DROP TABLE IF EXISTS moved_passwords');
    return [];
  }
  const notes: string[] = [];
  if (existsSync(folder) || !existsSync(staged)) {
    rmSync(staged, { recursive: true, force: true });
    mkdirSync(staged);
    const journal = new Journal(staged);
    for (const { id } of jobs)
      notes.push(...(await takeUpJob(db, id, journal, join(folder, `${encodeURIComponent(id)}.jsonl`), now)));
    const secrets = new Map(
      [...(hashes ?? [])].map(([id, passwordHash]) => [
        id,
        { passwordHash, passwordBy: 'not known', passwordAt: now, second: null },
      ]),
    );
    const shop = await shopInDatabase(db, secrets);
    await writeChain(
      journal,
      shopChain,
      [{ kind: 'taken-up', links: shop.length, sha256: digest(shop) }, ...shop],
      now,
    );
    if (existsSync(folder)) renameSync(folder, join(dataFolder, asideName));
  }
  if (existsSync(staged)) renameSync(staged, folder);
  syncFolder(dataFolder);
  const journal = new Journal(folder);
  for (const chain of [...journal.jobs(), shopChain]) await keepHead(db, chain, journal.head(chain)!);
  await db.query('DROP TABLE IF EXISTS moved_passwords');
  return [
    `${jobs.length} jobs were taken up into chains: what was there before is not witnessed link by link`,
    ...notes,
  ];
}

async function movedPasswords(db: Queryable): Promise<Map<string, string> | null> {
  const [there] = await db.query<{ found: string | null }>(
    `SELECT to_regclass('moved_passwords')::text AS found`,
  );
  if (there?.found == null) return null;
  const rows = await db.query<{ id: string; password_hash: string }>('SELECT * FROM moved_passwords');
  return new Map(rows.map(({ id, password_hash }) => [id, password_hash]));
}

const digest = (facts: readonly object[]) => sha256Of(facts.map((one) => JSON.stringify(one)).join('\n'));

async function takeUpJob(
  db: Queryable,
  id: string,
  journal: Journal,
  before: string,
  now: string,
): Promise<string[]> {
  const old = oldEntries(before);
  const facts = await factsInDatabase(db, id);
  if (facts === null) return [];
  const [job, ...rest] = facts;
  const known = rest.filter((one): one is EntryLink => one.kind === 'entry');
  const lost = lostTail(known, old);
  for (const one of lost) await insertLost(db, one);
  const problems = old.length === 0 ? [] : apart([...known, ...lost], old);
  const taken: JobFact[] = [...rest, ...lost];
  const first = {
    ...job,
    takenUp: {
      at: now,
      links: taken.length,
      sha256: digest([job, ...taken]),
      problems,
      restored: old.flatMap(({ seq, restoredAt }) => (restoredAt === null ? [] : [{ seq, at: restoredAt }])),
    },
  };
  await writeChain(journal, id, [first, ...taken], now);
  return problems.map((one) => `${id}: ${one}`);
}

/** What the old journal and the database say otherwise. */
function apart(entries: readonly EntryLink[], old: readonly OldEntry[]): string[] {
  const known = new Map(old.map(({ seq, sha256 }) => [seq, sha256]));
  const problems: string[] = [];
  for (const { sha256, text } of entries) {
    const { seq } = JSON.parse(text) as Entry;
    const hash = known.get(seq);
    known.delete(seq);
    if (hash === undefined) problems.push(`entry ${seq} was not known to the journal`);
    else if (hash !== sha256) problems.push(`entry ${seq} had another hash than the journal`);
  }
  return [...problems, ...[...known.keys()].map((seq) => `entry ${seq} was missing: the journal knew it`)];
}

/** Entries that the old journal had and the database did not, going on where its chain ends. */
function lostTail(known: readonly EntryLink[], old: readonly OldEntry[]): EntryLink[] {
  const last = known.at(-1);
  let tail = last === undefined ? null : { seq: (JSON.parse(last.text) as Entry).seq, sha256: last.sha256 };
  const lost: EntryLink[] = [];
  for (const { seq, sha256, text } of old) {
    if (seq !== (tail?.seq ?? 0) + 1 || text === null || sha256Of(text) !== sha256) continue;
    if ((JSON.parse(text) as Entry).previous !== (tail?.sha256 ?? null)) continue;
    lost.push({ kind: 'entry', sha256, text });
    tail = { seq, sha256 };
  }
  return lost;
}

async function insertLost(db: Queryable, link: EntryLink): Promise<void> {
  const { job } = JSON.parse(link.text) as Entry;
  await projectJob(db, job, { n: 0, previous: null, at: '', sha256: '', body: { ...link } });
}

/** Writes a whole new chain. */
export async function writeChain(
  journal: Journal,
  chain: string,
  bodies: readonly (JobFact | ShopFact)[],
  at: string,
): Promise<Head> {
  let head: Head | null = null;
  const lines: Buffer[] = [];
  for (const body of bodies) {
    const { bytes, link } = lineOf(body, head, at);
    lines.push(bytes);
    head = { n: link.n, sha256: link.sha256 };
  }
  await journal.write(new Map([[chain, { lines }]]));
  journal.stands(chain, head);
  return head!;
}
