import { applyOperations, type Design } from '@torvek/core/document';
import {
  canonicalText,
  hashText,
  isCanonical,
  standsOf,
  targetOf,
  topicOf,
  type Entry,
  type RecordProblem as Problem,
} from '@torvek/core/record';
import type { ReleaseContent } from '../jobs/releases';
import { sha256Of, type Chain, type Link } from './lines';
import type {
  ChangeLink,
  EntryLink,
  FileLink,
  JobFact,
  JobLink,
  ReleaseLink,
  RepairLink,
  TakenUp,
} from './links';

/**
 * An entry as its row holds it: the canonical text is the truth, the rest must agree with it. No more of it is kept than its row and
 * its place in the chain need: a record may have a hundred thousand. `entryOf` reads the whole.
 */
export interface ToldEntry {
  seq: number;
  id: string;
  kind: string;
  previous: string | null;
  sha256: string;
  recordedAt: string;
  /** Derived from the text, for finding entries. */
  topic: string;
  target: number | null;
  /** How long it counts. */
  stands: string;
  job: string;
  /** The design that it says it was judged by. */
  against: { version: number; sha256: string } | undefined;
  attachments: readonly string[];
  /** Holds the text. */
  link: Readonly<EntryLink>;
}

/** What the chain of a job tells. */
export interface Story {
  job: JobLink;
  name: string;
  imported: { at: string; by: string; vouchedBy: string } | null;
  changes: ChangeLink[];
  entries: ToldEntry[];
  releases: (ReleaseLink & { content: ReleaseContent })[];
  files: FileLink[];
  /** The design at the end, and the hash of each version's canonical text. */
  design: Design;
  designHashes: string[];
  repairs: RepairLink<JobFact>[];
  takenUp: TakenUp | null;
  /** Entries of other jobs that this one quotes. */
  quotations: Quoted[];
  problems: Problem[];
}

/** An entry of another job as it is quoted here. */
export interface Quoted {
  /** The entry that quotes it. */
  by: number;
  job: string;
  jobName: string;
  seq: number;
  sha256: string;
}

export const designHashOf = (design: Design) => sha256Of(canonicalText(design));

export interface TellOptions {
  /** The lines come from here: their hashes were made when their texts were canonical. */
  own: boolean;
}

/**
 * Tells a job from its chain: every link in its place, every version replayed from the first design, every entry held against the
 * one before it and against the design it says it was judged by. What does not hold is named; the rest is told all the same.
 *
 * @returns null when the chain does not begin with a job
 */
export function tell(chain: Chain, { own }: TellOptions = { own: true }): Story | null {
  const facts = factsOf(chain);
  const first = facts.find((one) => one.body.kind === 'job')?.body as JobLink | undefined;
  if (first === undefined) return null;
  const problems: Problem[] = chain.damage.map(({ n, message }) => ({
    what: `line ${n} of the journal`,
    seq: null,
    message,
  }));
  const story: Story = {
    job: first,
    name: first.name,
    imported: null,
    changes: [],
    entries: [],
    releases: [],
    files: [],
    design: first.design,
    designHashes: [designHashOf(first.design)],
    repairs: chain.links.flatMap(({ body }) =>
      body.kind === 'repair' ? [body as unknown as RepairLink<JobFact>] : [],
    ),
    takenUp: first.takenUp ?? null,
    quotations: [],
    problems,
  };
  const name = (what: string, message: string, seq: number | null = null) =>
    problems.push({ what, seq, message });
  for (const { body, at, repaired } of facts) {
    if (repaired) holdText(body, name);
    take(story, body, at, name);
  }
  story.changes.sort((a, b) => a.version - b.version);
  replay(story, name);
  story.entries.sort((a, b) => a.seq - b.seq);
  walkEntries(story, own, name);
  story.releases.sort((a, b) => a.content.number - b.content.number);
  checkReleases(story, name);
  return { ...story, problems: mendedLess(story) };
}

type Name = (what: string, message: string, seq?: number | null) => void;

interface Fact {
  body: JobFact;
  at: string;
  /** It stands in a repair. */
  repaired: boolean;
}

/** The facts of a chain: a repair stands for what it brings. */
export function factsOf({ links }: Chain): Fact[] {
  return links.flatMap(({ body, at }: Link): Fact[] =>
    body.kind === 'repair'
      ? (body as unknown as RepairLink<JobFact>).contents.map((one) => ({ body: one, at, repaired: true }))
      : [{ body: body as unknown as JobFact, at, repaired: false }],
  );
}

/** A text in a line of its own was held against its hash when the line was read; within a repair it is held here. */
function holdText(body: JobFact, name: Name): void {
  if ((body.kind === 'entry' || body.kind === 'release') && sha256Of(body.text) !== body.sha256)
    name(`a text taken up in a repair (${body.sha256.slice(0, 12)}…)`, 'is not what its hash says');
}

function take(story: Story, body: JobFact, at: string, name: Name): void {
  switch (body.kind) {
    case 'job':
      if (body !== story.job) name('the journal', 'begins twice');
      return;
    case 'name':
      story.name = body.name;
      return;
    case 'change':
      story.changes.push(body);
      return;
    case 'entry': {
      const told = toldOf(body);
      if (told === null) name('an entry of the journal', 'is no entry');
      else story.entries.push(told);
      return;
    }
    case 'release': {
      const content = readObject(body.text) as ReleaseContent | null;
      if (content === null || typeof content.design !== 'object') name('a release', 'is no release');
      else story.releases.push({ ...body, content });
      return;
    }
    case 'file':
      story.files.push(body);
      return;
    case 'imported':
      story.imported = { at, by: body.by, vouchedBy: body.vouchedBy };
      return;
    default:
      name(
        'the journal',
        `holds a link of a kind that is not known: ${String((body as { kind: unknown }).kind)}`,
      );
  }
}

/** A repair that was recorded answers for the lines it names: they are no news any more. */
function mendedLess({ problems, repairs }: Story): Problem[] {
  const mended = new Set(repairs.flatMap(({ lines }) => lines.map(({ n }) => `line ${n} of the journal`)));
  return problems.filter(({ what }) => !mended.has(what));
}

/** Every version from the first design on, each by its hash. */
function replay(story: Story, name: Name): void {
  for (const [i, { version, forward, design: sha256 }] of story.changes.entries()) {
    const expected = i + 1;
    if (version !== expected) {
      name(`version ${expected}`, 'is missing');
      return;
    }
    try {
      story.design = applyOperations(story.design, forward);
    } catch {
      name(`version ${version}`, 'does not fit the design before it');
      return;
    }
    const found = designHashOf(story.design);
    story.designHashes.push(found);
    if (found !== sha256) name(`version ${version}`, 'leads to another design than its hash says');
  }
}

/** What is kept of an entry; null: it is none. */
function toldOf(link: EntryLink): ToldEntry | null {
  const entry = entryOf(link.text);
  if (entry === null) return null;
  return {
    seq: entry.seq,
    id: entry.id,
    kind: entry.body.kind,
    previous: entry.previous,
    sha256: link.sha256,
    recordedAt: entry.recordedAt,
    topic: topicOf(entry),
    target: targetOf(entry),
    stands: standsOf(entry),
    job: entry.job,
    against: entry.against ?? undefined,
    attachments: Array.isArray(entry.attachments) ? entry.attachments : [],
    link,
  };
}

function walkEntries(story: Story, own: boolean, name: Name): void {
  const attached = new Set(story.files.map(({ sha256 }) => sha256));
  let before: { seq: number; sha256: string | null } | null = { seq: 0, sha256: null };
  for (const { seq, kind, job, previous, against, attachments, sha256, link } of story.entries) {
    const problem = (message: string) => name(`entry ${seq}`, message, seq);
    // The hash of its link says that it is, to the byte, what was written here, and it was canonical then.
    if (!own && !isCanonical(entryOf(link.text), link.text)) problem('its text is not canonical');
    if (job !== story.job.id) problem('belongs to another job');
    if (seq === before?.seq) problem('stands there twice');
    else if (seq !== (before?.seq ?? 0) + 1) {
      name(`entry ${(before?.seq ?? 0) + 1}`, 'is missing', (before?.seq ?? 0) + 1);
      before = null;
    }
    if (before !== null && previous !== before.sha256) problem('does not follow the entry before it');
    const of = against === undefined ? undefined : story.designHashes[against.version];
    if (against === undefined || of === undefined)
      problem(`was judged against version ${against?.version}, which is not there`);
    else if (of !== against.sha256)
      problem(`was judged against another design than version ${against.version} is`);
    for (const hash of attachments)
      if (!attached.has(hash)) problem(`goes with a file that is not there: ${hash.slice(0, 12)}…`);
    if (kind === 'arrival')
      for (const of of takeQuotations(story, seq, link.text)) problem(`misquotes ${of}`);
    before = { seq, sha256 };
  }
}

/**
 * Takes what an arrival quotes of other jobs.
 *
 * @returns those quoted with a text that is not what its hash says, or not of the entry that is named
 */
function takeQuotations({ quotations }: Story, by: number, text: string): string[] {
  const { body } = entryOf(text)!;
  if (body.kind !== 'arrival' || !Array.isArray(body.items)) return [];
  return body.items.flatMap(({ from }) =>
    (from?.entries ?? []).flatMap(({ job, seq, sha256, text: quoted }) => {
      quotations.push({ by, job, jobName: from!.jobName, seq, sha256 });
      if (quoted === null) return [];
      const entry = entryOf(quoted);
      const fits = hashText(quoted) === sha256 && entry?.job === job && entry.seq === seq;
      return fits ? [] : [`entry ${seq} of ${from!.jobName}`];
    }),
  );
}

function checkReleases(story: Story, name: Name): void {
  const bySeq = new Map(story.entries.map(({ seq, sha256 }) => [seq, sha256]));
  story.releases.forEach(({ content }, i) => {
    const what = `release ${content.number}`;
    const { job, number, version, head, design } = content;
    if (number !== i + 1) name(what, 'is out of order');
    if (job !== story.job.id) name(what, 'belongs to another job');
    if (designHashOf(design) !== story.designHashes[version])
      name(what, `does not hold the design of version ${version}`);
    if (head !== null && bySeq.get(head.seq) !== head.sha256)
      name(what, `knows another entry ${head.seq} than the record`);
  });
}

/** An entry by its text, or null when it is none. */
export function entryOf(text: string): Entry | null {
  const value = readObject(text) as Entry | null;
  try {
    if (value === null || !Number.isInteger(value.seq)) return null;
    topicOf(value);
    return value;
  } catch {
    return null;
  }
}

function readObject(text: string): object | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null && !Array.isArray(value) ? value : null;
  } catch {
    return null;
  }
}
