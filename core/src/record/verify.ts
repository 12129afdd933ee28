import { canonicalText, hashText, type Entry } from './entry';

/** An entry as it is stored: the canonical text is the truth, the rest must agree with it. */
export interface StoredEntry {
  job: string;
  seq: number;
  id: string;
  kind: string;
  previous: string | null;
  sha256: string;
  recordedAt: string;
  text: string;
}

/** The last entry as it is known beside the database. */
export interface Head {
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
 * missing, swapped, doubled or inserted entries, and a tail that the head kept elsewhere contradicts.
 *
 * A complete rewrite of everything, chain and head alike, does not show.
 *
 * @param job the job whose chain it should be
 * @param rows as stored, in any order
 * @param head the last entry known elsewhere; null when none is kept, and then the tail is not checked
 */
export function verifyChain(job: string, rows: readonly StoredEntry[], head: Head | null): Verification {
  const problems: Problem[] = [];
  const sorted = [...rows].sort((a, b) => a.seq - b.seq);
  let previous: string | null = null;
  let expected = 1;
  for (const row of sorted) {
    while (expected < row.seq && problems.length < 1000) {
      problems.push({ seq: expected, message: 'is missing' });
      expected += 1;
      previous = null;
    }
    if (row.seq < expected) problems.push({ seq: row.seq, message: 'stands there twice' });
    const broken = problems.length > 0 && problems[problems.length - 1]!.seq === row.seq - 1;
    for (const message of rowProblems(job, row, broken && previous === null ? undefined : previous)) {
      problems.push({ seq: row.seq, message });
    }
    previous = row.sha256;
    expected = Math.max(expected, row.seq + 1);
  }
  problems.push(...tailProblems(sorted, head));
  return { ok: problems.length === 0, entries: rows.length, problems };
}

/** @param previous the hash of the entry before; undefined when that entry is missing */
function rowProblems(job: string, row: StoredEntry, previous: string | null | undefined): string[] {
  const entry = parse(row.text);
  if (entry === null) return ['its text is no entry'];
  const problems: string[] = [];
  if (hashText(row.text) !== row.sha256) problems.push('its text does not match its hash');
  if (canonical(entry) !== row.text) problems.push('its text is not canonical');
  const columns: [name: string, stored: unknown, said: unknown][] = [
    ['job', row.job, entry.job],
    ['number', row.seq, entry.seq],
    ['id', row.id, entry.id],
    ['kind', row.kind, entry.body?.kind],
    ['previous hash', row.previous, entry.previous],
    ['time', row.recordedAt, entry.recordedAt],
  ];
  for (const [name, stored, said] of columns)
    if (stored !== said) problems.push(`its ${name} is not what its text says`);
  if (entry.job !== job) problems.push('belongs to another job');
  if (previous !== undefined && entry.previous !== previous)
    problems.push('does not follow the entry before it');
  return problems;
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

function tailProblems(sorted: readonly StoredEntry[], head: Head | null): Problem[] {
  if (head === null) return [];
  const last = sorted[sorted.length - 1];
  const lastSeq = last?.seq ?? 0;
  if (lastSeq < head.seq) {
    const count = Math.min(head.seq - lastSeq, 1000);
    return Array.from({ length: count }, (_, i) => ({
      seq: lastSeq + 1 + i,
      message: 'is missing: the head kept beside the database knows it',
    }));
  }
  if (lastSeq > head.seq) {
    return sorted
      .filter(({ seq }) => seq > head.seq)
      .map(({ seq }) => ({ seq, message: 'is not known to the head kept beside the database' }));
  }
  return last !== undefined && last.sha256 !== head.sha256
    ? [{ seq: last.seq, message: 'has another hash than the head kept beside the database' }]
    : [];
}
