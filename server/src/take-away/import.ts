import {
  applyOperations,
  checkDesign,
  designSchemaNumber,
  differences,
  type Design,
} from '@torvek/core/document';
import {
  hashText,
  targetOf,
  topicOf,
  verdictOf,
  verifyChain,
  type Entry,
  type StoredEntry,
} from '@torvek/core/record';
import type { Queryable } from '../database';
import { insertEntry } from '../entries/ledger';
import { hashBytes, typeOf, type StoredFile } from '../files/files';
import { HttpError } from '../http/errors';
import { insertRelease, type ReleaseContent } from '../jobs/releases';
import type { Rooms } from '../rooms';
import { readJson, unpack, type ArchiveProblem, type Contents } from './archive';
import {
  jobFormat,
  jobFormatVersion,
  type ArchivedChange,
  type ArchivedEntry,
  type ArchivedJob,
  type ArchivedRelease,
} from './export';

/** What an archive holds, after everything about it was checked. */
export interface ImportReport {
  ok: boolean;
  job: { id: string; name: string } | null;
  version: number;
  changes: number;
  entries: number;
  releases: number;
  files: number;
  problems: ArchiveProblem[];
}

interface Archived {
  frame: ArchivedJob;
  design: Design;
  firstDesign: Design;
  changes: ArchivedChange[];
  entries: ArchivedEntry[];
  releases: ArchivedRelease[];
  files: StoredFile[];
}

/** How many problems a report lists. */
const mostProblems = 50;

/**
 * Checks an archive of a job through and through; nothing is written.
 *
 * Seal, manifest and hashes; that the changes lead from the first design to the last; that the record's chain fits;
 * that releases and attachments are what they say.
 */
export async function checkArchive(
  bytes: Uint8Array,
): Promise<{ report: ImportReport; archived: Archived | null; contents: Contents }> {
  const empty: ImportReport = {
    ok: false,
    job: null,
    version: 0,
    changes: 0,
    entries: 0,
    releases: 0,
    files: 0,
    problems: [],
  };
  const unpacked = unpack(bytes, jobFormat, jobFormatVersion);
  if (!unpacked.ok)
    return {
      report: { ...empty, problems: unpacked.problems.slice(0, mostProblems) },
      archived: null,
      contents: {},
    };
  const { contents, manifest } = unpacked;
  const schema = Number(manifest.schema);
  if (schema > designSchemaNumber) {
    const message = `holds a design of schema ${schema}; this Torvek knows ${designSchemaNumber}`;
    return { report: { ...empty, problems: [{ file: 'manifest.json', message }] }, archived: null, contents };
  }
  const archived = read(contents);
  if ('file' in archived) return { report: { ...empty, problems: [archived] }, archived: null, contents };
  const problems = [
    ...designProblems(archived),
    ...chainProblems(archived, manifest.head),
    ...releaseProblems(archived),
    ...(await fileProblems(archived, contents)),
  ];
  const { frame, changes, entries, releases, files } = archived;
  const report: ImportReport = {
    ok: problems.length === 0,
    job: { id: frame.id, name: frame.name },
    version: frame.version,
    changes: changes.length,
    entries: entries.length,
    releases: releases.length,
    files: files.length,
    problems: problems.slice(0, mostProblems),
  };
  return { report, archived: report.ok ? archived : null, contents };
}

function read(contents: Contents): Archived | ArchiveProblem {
  const part = <T>(file: string, isIt: (value: unknown) => boolean): T | ArchiveProblem => {
    const value = readJson(contents[file]);
    return value !== undefined && isIt(value)
      ? (value as T)
      : { file, message: 'is missing or not what it should be' };
  };
  const objectWith = (keys: Record<string, string>) => (value: unknown) =>
    typeof value === 'object' &&
    value !== null &&
    Object.entries(keys).every(([key, type]) => typeof (value as Record<string, unknown>)[key] === type);
  const listOf = (keys: Record<string, string>) => (value: unknown) =>
    Array.isArray(value) && value.every(objectWith(keys));
  const parts = {
    frame: part(
      'job.json',
      objectWith({ id: 'string', name: 'string', createdAt: 'string', version: 'number' }),
    ),
    design: part('design.json', objectWith({})),
    firstDesign: part('first-design.json', objectWith({})),
    changes: part(
      'changes.json',
      listOf({
        version: 'number',
        id: 'string',
        base: 'number',
        label: 'string',
        by: 'string',
        madeAt: 'string',
        savedAt: 'string',
        forward: 'object',
        inverse: 'object',
      }),
    ),
    entries: part('entries.json', listOf({ seq: 'number', sha256: 'string', text: 'string' })),
    releases: part(
      'releases.json',
      listOf({ number: 'number', id: 'string', sha256: 'string', text: 'string' }),
    ),
    files: part(
      'attachments.json',
      listOf({ sha256: 'string', name: 'string', size: 'number', addedBy: 'string', addedAt: 'string' }),
    ),
  };
  const wrong = Object.values(parts).find(
    (one): one is ArchiveProblem =>
      typeof one === 'object' && one !== null && 'file' in one && 'message' in one,
  );
  if (wrong !== undefined) return wrong;
  const archived = parts as unknown as Archived;
  if (!/^[\w-]{1,80}$/.test(archived.frame.id) || archived.frame.name === '')
    return { file: 'job.json', message: 'has an id or a name that is not allowed' };
  return archived;
}

/** The changes must lead from the first design to the last one, and that one must be a design. */
function designProblems({ frame, design, firstDesign, changes }: Archived): ArchiveProblem[] {
  const first = checkDesign(firstDesign);
  const last = checkDesign(design);
  const invalid = [
    ...(first.ok
      ? []
      : [
          {
            file: 'first-design.json',
            message: `is no design: ${first.issues[0]?.path} ${first.issues[0]?.message}`,
          },
        ]),
    ...(last.ok
      ? []
      : [
          {
            file: 'design.json',
            message: `is no design: ${last.issues[0]?.path} ${last.issues[0]?.message}`,
          },
        ]),
  ];
  if (invalid.length > 0) return invalid;
  if (changes.length !== frame.version || changes.some(({ version }, i) => version !== i + 1))
    return [{ file: 'changes.json', message: `does not hold the versions 1 to ${frame.version}` }];
  let at = firstDesign;
  for (const { version, forward } of changes) {
    try {
      at = applyOperations(at, forward);
    } catch {
      return [{ file: 'changes.json', message: `version ${version} does not fit the design before it` }];
    }
  }
  const apart = differences(at, design);
  return apart.length === 0
    ? []
    : [{ file: 'design.json', message: `is not what its changes lead to: ${apart[0]!.path} differs` }];
}

function chainProblems({ frame, entries }: Archived, head: unknown): ArchiveProblem[] {
  const rows = entries.map((entry): StoredEntry => {
    const said = entryOf(entry.text);
    return {
      job: frame.id,
      seq: entry.seq,
      id: said?.id ?? '',
      kind: said?.body?.kind ?? '',
      previous: said?.previous ?? null,
      sha256: entry.sha256,
      recordedAt: said?.recordedAt ?? '',
      topic: said === null ? '' : topicOf(said),
      target: said === null ? null : targetOf(said),
      verdict: said === null ? null : verdictOf(said),
      text: entry.text,
    };
  });
  const { problems } = verifyChain(frame.id, rows, null);
  const last = entries.at(-1);
  const said = head as { seq?: number; sha256?: string } | null;
  const cut = (said?.seq ?? 0) !== (last?.seq ?? 0) || (said?.sha256 ?? '') !== (last?.sha256 ?? '');
  return [
    ...problems.map(({ seq, message }) => ({ file: 'entries.json', message: `entry ${seq} ${message}` })),
    ...(cut ? [{ file: 'entries.json', message: 'does not end at the head that the manifest names' }] : []),
  ];
}

function entryOf(text: string): Entry | null {
  try {
    const value = JSON.parse(text) as Entry;
    topicOf(value);
    return value;
  } catch {
    return null;
  }
}

function releaseProblems({ frame, releases, entries }: Archived): ArchiveProblem[] {
  return releases.flatMap(({ number, sha256, text }, i): ArchiveProblem[] => {
    const problem = (message: string) => [{ file: 'releases.json', message: `release ${number} ${message}` }];
    if (number !== i + 1) return problem('is out of order');
    if (hashText(text) !== sha256) return problem('does not match its hash');
    const content = JSON.parse(text) as ReleaseContent;
    if (content.job !== frame.id || content.number !== number) return problem('belongs elsewhere');
    const { head } = content;
    const entry = head === null ? null : entries.find(({ seq }) => seq === head.seq);
    return head === null || entry?.sha256 === head.sha256
      ? []
      : problem(`knows another entry ${head.seq} than the record`);
  });
}

async function fileProblems({ files, entries }: Archived, contents: Contents): Promise<ArchiveProblem[]> {
  const there = new Set(files.map(({ sha256 }) => sha256));
  const wrong: ArchiveProblem[] = [];
  for (const { sha256 } of files) {
    const file = `attachments/${sha256}`;
    const bytes = contents[file];
    if (bytes === undefined) wrong.push({ file, message: 'is missing' });
    else if (hashBytes(bytes) !== sha256) wrong.push({ file, message: 'is not what its name says' });
    else if ((await typeOf(bytes)) === null)
      wrong.push({ file, message: 'is no picture, PDF or plain text' });
  }
  const dangling = entries.flatMap(({ seq, text }) =>
    (entryOf(text)?.attachments ?? [])
      .filter((hash) => !there.has(hash))
      .map((hash) => ({ file: 'attachments.json', message: `lacks ${hash.slice(0, 12)}… of entry ${seq}` })),
  );
  return [...wrong, ...dangling];
}

/**
 * Brings a job in: checked first, written only when all of it fits.
 *
 * @throws HttpError 422 with the report when something does not fit, 409 when the job is here already
 */
export async function importJob(rooms: Rooms, bytes: Uint8Array, by: string): Promise<ImportReport> {
  const { report, archived, contents } = await checkArchive(bytes);
  if (archived === null) {
    const first = report.problems[0];
    const message = `nothing was brought in: ${first?.file || 'the archive'} ${first?.message ?? 'does not fit'}`;
    throw new HttpError(422, 'archive-broken', message, [], { report });
  }
  const { frame, files, entries } = archived;
  const there = (await rooms.jobs.list()).some(({ id }) => id === frame.id);
  if (there)
    throw new HttpError(409, 'job-is-here', `“${frame.name}” is here already; a job is in one place once`);
  for (const file of files) {
    const content = contents[`attachments/${file.sha256}`]!;
    file.type = (await typeOf(content))!;
    file.size = content.length;
    rooms.files.write(file.sha256, content);
  }
  rooms.ledger.journal.adopt(frame.id, entries);
  try {
    await rooms.database.transaction((db) => write(db, archived, { by, at: rooms.clock.now() }));
  } catch (error) {
    rooms.ledger.journal.disown(frame.id);
    const taken = (error as { code?: string }).code === '23505';
    if (taken)
      throw new HttpError(409, 'id-taken', 'changes or entries of this job are here under another job');
    throw error;
  }
  return report;
}

async function write(
  db: Queryable,
  { frame, design, firstDesign, changes, entries, releases, files }: Archived,
  { by, at }: { by: string; at: string },
): Promise<void> {
  await db.query(
    `INSERT INTO jobs (id, name, demo, created_at, first_design, design, version, imported_at, imported_by)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [
      frame.id,
      frame.name.slice(0, 120),
      frame.demo === true,
      frame.createdAt,
      JSON.stringify(firstDesign),
      JSON.stringify(design),
      frame.version,
      at,
      by,
    ],
  );
  for (const { version, id, base, label, by: author, madeAt, savedAt, forward, inverse } of changes)
    await db.query(
      `INSERT INTO changes (job_id, version, id, base, label, author, made_at, saved_at, forward, inverse)
       VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
      [
        frame.id,
        version,
        id,
        base,
        label,
        author,
        madeAt,
        savedAt,
        JSON.stringify(forward),
        JSON.stringify(inverse),
      ],
    );
  for (const line of entries) await insertEntry(db, JSON.parse(line.text) as Entry, line);
  for (const { id, sha256, text } of releases) {
    const { number, version, label, by: releasedBy, at: releasedAt } = JSON.parse(text) as ReleaseContent;
    await insertRelease(db, frame.id, {
      number,
      id,
      version,
      label,
      released_by: releasedBy,
      released_at: releasedAt,
      sha256,
      content: text,
    });
  }
  for (const file of files)
    await db.query(
      `INSERT INTO files (job_id, sha256, name, type, size, added_by, added_at) VALUES ($1, $2, $3, $4, $5, $6, $7)`,
      [frame.id, file.sha256, file.name, file.type, file.size, file.addedBy, file.addedAt],
    );
}
