import { canonicalText, hashText, type Entry } from './entry';
import { targetOf, topicOf } from './standing';

/** An entry as it is stored: the canonical text is the truth, the rest must agree with it. */
export interface StoredEntry {
  job: string;
  seq: number;
  id: string;
  kind: string;
  previous: string | null;
  sha256: string;
  recordedAt: string;
  /** Derived from the text, for finding entries. */
  topic: string;
  target: number | null;
  text: string;
}

/** An entry as the journal beside the database knows it; the last one is the head of the chain. */
export interface Known {
  seq: number;
  sha256: string;
}

export interface Problem {
  /** The number of the entry that does not fit. */
  seq: number;
  message: string;
}

export interface Verification {
  ok: boolean;
  entries: number;
  /** In the order of the chain; the first is where it breaks. */
  problems: Problem[];
}

/**
 * Walks a job's chain from its first entry and names every number that does not fit: altered columns or text,
 * missing, swapped, doubled or inserted entries, and whatever the journal kept elsewhere contradicts.
 *
 * A complete rewrite of everything, chain and journal alike, does not show.
 *
 * @param job the job whose chain it should be
 * @param rows as stored, in any order
 * @param journal every entry known elsewhere; null when none is kept, and then a cut tail does not show
 */
export function verifyChain(
  job: string,
  rows: readonly StoredEntry[],
  journal: readonly Known[] | null,
): Verification {
  const sorted = [...rows].sort((a, b) => a.seq - b.seq);
  const problems = [
    ...chainProblems(job, sorted),
    ...(journal === null ? [] : journalProblems(sorted, journal)),
  ];
  const seen = new Set<string>();
  const distinct = problems
    .sort((a, b) => a.seq - b.seq)
    .filter(({ seq, message }) => {
      const key = message.startsWith('is missing') ? `${seq} missing` : `${seq} ${message}`;
      return seen.has(key) ? false : seen.add(key);
    });
  return { ok: distinct.length === 0, entries: rows.length, problems: distinct };
}

/** More numbers than this are not listed as missing. */
const mostMissing = 1000;

function chainProblems(job: string, sorted: readonly StoredEntry[]): Problem[] {
  const problems: Problem[] = [];
  let previous: string | null | undefined = null;
  let expected = 1;
  for (const row of sorted) {
    if (row.seq > expected) {
      const count = Math.min(row.seq - expected, mostMissing);
      for (let i = 0; i < count; i += 1) problems.push({ seq: expected + i, message: 'is missing' });
      previous = undefined;
    }
    if (row.seq < expected) problems.push({ seq: row.seq, message: 'stands there twice' });
    for (const message of rowProblems(job, row, previous)) problems.push({ seq: row.seq, message });
    previous = row.sha256;
    expected = Math.max(expected, row.seq + 1);
  }
  return problems;
}

/** @param previous the hash of the entry before; undefined when that entry is missing */
function rowProblems(job: string, row: StoredEntry, previous: string | null | undefined): string[] {
  const entry = parse(row.text);
  if (entry === null) return ['its text is no entry'];
  const problems: string[] = [];
  if (hashText(row.text) !== row.sha256) problems.push('its text does not match its hash');
  if (canonical(entry) !== row.text) problems.push('its text is not canonical');
  const columns: [name: string, stored: unknown, text: unknown][] = [
    ['job', row.job, entry.job],
    ['number', row.seq, entry.seq],
    ['id', row.id, entry.id],
    ['kind', row.kind, entry.body?.kind],
    ['previous hash', row.previous, entry.previous],
    ['time', row.recordedAt, entry.recordedAt],
    ['topic', row.topic, said(() => topicOf(entry))],
    ['target', row.target, said(() => targetOf(entry))],
  ];
  for (const [name, stored, text] of columns)
    if (stored !== text) problems.push(`its ${name} is not what its text says`);
  if (entry.job !== job) problems.push('belongs to another job');
  if (previous !== undefined && entry.previous !== previous)
    problems.push('does not follow the entry before it');
  return problems;
}

/** What a text that may be no real entry says; undefined when it cannot say it. */
function said<T>(read: () => T): T | undefined {
  try {
    return read();
  } catch {
    return undefined;
  }
}

function parse(text: string): Entry | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Entry) : null;
  } catch {
    return null;
  }
}

function canonical(value: unknown): string | null {
  try {
    return canonicalText(value);
  } catch {
    return null;
  }
}

function journalProblems(rows: readonly StoredEntry[], journal: readonly Known[]): Problem[] {
  const known = new Map(journal.map(({ seq, sha256 }) => [seq, sha256]));
  const there = new Set(rows.map(({ seq }) => seq));
  const missing = journal
    .filter(({ seq }) => !there.has(seq))
    .slice(0, mostMissing)
    .map(({ seq }) => ({ seq, message: 'is missing: the journal beside the database knows it' }));
  const foreign = rows.flatMap(({ seq, sha256 }) => {
    const hash = known.get(seq);
    if (hash === sha256) return [];
    const message =
      hash === undefined
        ? 'is not known to the journal beside the database'
        : 'has another hash than the journal beside the database';
    return [{ seq, message }];
  });
  return [...missing, ...foreign];
}
