import { canonicalText, hashText, type Entry } from './entry';
import { targetOf, topicOf, verdictOf } from './standing';

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
  verdict: string | null;
  text: string;
  /**
   * The journal knows this hash: a text that has it is, to the byte, what was recorded, and was canonical then.
   * Absent: nothing is known, and the text is looked at.
   */
  asRecorded?: boolean;
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

export interface VerifyOptions {
  /** SHA-256 of a text in UTF-8 as 64 hex digits; a faster one than the core's own where there is one. */
  hash?: (text: string) => string;
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
  options: VerifyOptions = {},
): Verification {
  const walk = new ChainWalk(job, journal, options);
  for (const row of [...rows].sort((a, b) => a.seq - b.seq)) walk.take(row);
  return walk.end();
}

/** More numbers than this are not listed as missing. */
const mostMissing = 1000;

/** The same walk, one entry after another in the order of their numbers: for records too long to hold at once. */
export class ChainWalk {
  private readonly problems: Problem[] = [];
  private readonly check: JournalCheck | null;
  private readonly hash: (text: string) => string;
  /** The hash of the entry before; undefined when that entry is missing. */
  private previous: string | null | undefined = null;
  private expected = 1;
  private count = 0;

  constructor(
    private readonly job: string,
    journal: readonly Known[] | null,
    { hash = hashText }: VerifyOptions = {},
  ) {
    this.check = journal === null ? null : new JournalCheck(journal);
    this.hash = hash;
  }

  take(row: StoredEntry): void {
    this.count += 1;
    if (row.seq > this.expected) {
      const missing = Math.min(row.seq - this.expected, mostMissing);
      for (let i = 0; i < missing; i += 1) this.name(this.expected + i, 'is missing');
      this.previous = undefined;
    }
    if (row.seq < this.expected) this.name(row.seq, 'stands there twice');
    for (const message of rowProblems(this.job, row, this.previous, this.hash)) this.name(row.seq, message);
    this.check?.take(row);
    this.previous = row.sha256;
    this.expected = Math.max(this.expected, row.seq + 1);
  }

  end(): Verification {
    return verification(this.count, [...this.problems, ...(this.check?.end() ?? [])]);
  }

  private name(seq: number, message: string): void {
    this.problems.push({ seq, message });
  }
}

/** Holds entries against what is known of them elsewhere; what is left there at the end is missing. */
export class JournalCheck {
  private readonly problems: Problem[] = [];
  private readonly known: Map<number, string>;

  constructor(journal: readonly Known[]) {
    this.known = new Map(journal.map(({ seq, sha256 }) => [seq, sha256]));
  }

  /** @returns whether the entry is the one that is known */
  take({ seq, sha256 }: Known): boolean {
    const hash = this.known.get(seq);
    this.known.delete(seq);
    if (hash === undefined)
      this.problems.push({ seq, message: 'is not known to the journal beside the database' });
    else if (hash !== sha256)
      this.problems.push({ seq, message: 'has another hash than the journal beside the database' });
    return hash === sha256;
  }

  end(): Problem[] {
    const left = [...this.known.keys()].slice(0, mostMissing);
    return [
      ...this.problems,
      ...left.map((seq) => ({ seq, message: 'is missing: the journal beside the database knows it' })),
    ];
  }
}

/** Puts problems in the order of the chain, each once. */
export function verification(entries: number, problems: readonly Problem[]): Verification {
  const seen = new Set<string>();
  const distinct = [...problems]
    .sort((a, b) => a.seq - b.seq)
    .filter(({ seq, message }) => {
      const key = message.startsWith('is missing') ? `${seq} missing` : `${seq} ${message}`;
      return seen.has(key) ? false : seen.add(key);
    });
  return { ok: distinct.length === 0, entries, problems: distinct };
}

/** @param previous the hash of the entry before; undefined when that entry is missing */
function rowProblems(
  job: string,
  row: StoredEntry,
  previous: string | null | undefined,
  hash: (text: string) => string,
): string[] {
  const entry = parse(row.text);
  if (entry === null) return ['its text is no entry'];
  const problems: string[] = [];
  const fits = hash(row.text) === row.sha256;
  if (!fits) problems.push('its text does not match its hash');
  if (!(fits && row.asRecorded) && !isCanonical(entry, row.text)) problems.push('its text is not canonical');
  const columns: [name: string, stored: unknown, text: unknown][] = [
    ['job', row.job, entry.job],
    ['number', row.seq, entry.seq],
    ['id', row.id, entry.id],
    ['kind', row.kind, entry.body?.kind],
    ['previous hash', row.previous, entry.previous],
    ['time', row.recordedAt, entry.recordedAt],
    ['topic', row.topic, said(() => topicOf(entry))],
    ['target', row.target, said(() => targetOf(entry))],
    ['verdict', row.verdict, said(() => verdictOf(entry))],
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

/**
 * Whether a text is the canonical one of its value. Numbers and strings are written in RFC 8785 as JSON does, so that
 * a text that comes back from JSON unchanged, its keys in order, is; whatever is left is settled by writing it anew.
 */
function isCanonical(value: unknown, text: string): boolean {
  if (JSON.stringify(value) === text && hasSortedKeys(value) && !text.includes('\\u')) return true;
  try {
    return canonicalText(value) === text;
  } catch {
    return false;
  }
}

function hasSortedKeys(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return true;
  if (Array.isArray(value)) return value.every(hasSortedKeys);
  let before = '';
  for (const key of Object.keys(value)) {
    if (key < before || !hasSortedKeys((value as Record<string, unknown>)[key])) return false;
    before = key;
  }
  return true;
}
