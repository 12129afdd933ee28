import { coreVersion, entryOutcome, entryTitle } from '@torvek/core/design';
import { designSchemaNumber, type Operation } from '@torvek/core/document';
import type { Entry } from '@torvek/core/record';
import Papa from 'papaparse';
import type { Queryable } from '../database';
import type { StoredFile } from '../files/files';
import type { ChangeRow } from '../jobs/changes';
import type { ReleaseRow } from '../jobs/releases';
import type { Rooms } from '../rooms';
import { jsonFile, pack, textFile, type Contents } from './archive';

export const jobFormat = 'torvek-job';
export const jobFormatVersion = 1;

/** A change as it lies in an archive. */
export interface ArchivedChange {
  version: number;
  id: string;
  base: number;
  label: string;
  by: string;
  madeAt: string;
  savedAt: string;
  forward: Operation[];
  inverse: Operation[];
}

/** `job.json`: the frame of a job. */
export interface ArchivedJob {
  id: string;
  name: string;
  demo: boolean;
  createdAt: string;
  version: number;
}

/** An entry as it lies in an archive: its canonical text, to the byte. */
export interface ArchivedEntry {
  seq: number;
  sha256: string;
  text: string;
}

interface JobRow {
  id: string;
  name: string;
  demo: boolean;
  created_at: string;
  version: number;
  design: string;
  first_design: string;
}

/** A job as one sealed zip: design, changes, releases, record, files. */
export async function exportJob(rooms: Rooms, jobId: string, by: string): Promise<Uint8Array> {
  const at = rooms.clock.now();
  return rooms.database.transaction(async (db) => {
    await rooms.jobs.lock(jobId, db);
    const [job] = await db.query<JobRow>('SELECT * FROM jobs WHERE id = $1', [jobId]);
    const { id, name, demo, created_at, version, design, first_design } = job!;
    const changes = await changesOf(jobId, db);
    const entries = await db.query<ArchivedEntry>(
      'SELECT seq, sha256, content AS text FROM entries WHERE job_id = $1 ORDER BY seq',
      [jobId],
    );
    const files = await rooms.files.list(jobId, db);
    const frame: ArchivedJob = { id, name, demo, createdAt: created_at, version };
    const contents: Contents = {
      'job.json': jsonFile(frame),
      'design.json': jsonFile(JSON.parse(design)),
      'first-design.json': jsonFile(JSON.parse(first_design)),
      'changes.json': jsonFile(changes),
      'changes.csv': textFile(csv(changes.map(changeLine))),
      'entries.json': jsonFile(entries),
      'entries.csv': textFile(csv(entries.map(entryLine))),
      'releases.json': jsonFile(releaseLines(await rooms.releases.rows(jobId, db))),
      'attachments.json': jsonFile(files),
      ...attachments(rooms, files),
    };
    const last = entries.at(-1);
    const manifest = {
      format: jobFormat,
      formatVersion: jobFormatVersion,
      schema: designSchemaNumber,
      core: coreVersion,
      job: { id, name },
      exportedAt: at,
      exportedBy: by,
      head: last === undefined ? null : { seq: last.seq, sha256: last.sha256 },
    };
    return pack(manifest, contents, at);
  });
}

function attachments({ files }: Rooms, listed: StoredFile[]): Contents {
  return Object.fromEntries(listed.map(({ sha256 }) => [`attachments/${sha256}`, files.read(sha256)]));
}

async function changesOf(job: string, db: Queryable): Promise<ArchivedChange[]> {
  const rows = await db.query<ChangeRow>('SELECT * FROM changes WHERE job_id = $1 ORDER BY version', [job]);
  return rows.map(({ author, made_at, saved_at, forward, inverse, version, id, base, label }) => ({
    version,
    id,
    base,
    label,
    by: author,
    madeAt: made_at,
    savedAt: saved_at,
    forward: JSON.parse(forward) as Operation[],
    inverse: JSON.parse(inverse) as Operation[],
  }));
}

/** A release as it lies in an archive. */
export type ArchivedRelease = Pick<ReleaseRow, 'number' | 'id' | 'sha256'> & { text: string };

const releaseLines = (rows: ReleaseRow[]): ArchivedRelease[] =>
  rows.map(({ number, id, sha256, content }) => ({ number, id, sha256, text: content }));

/** Comma separated, with a header; what a table program would take for a formula is made text. */
const csv = (rows: Record<string, string | number>[]) => Papa.unparse(rows, { escapeFormulae: true });

const changeLine = ({ version, label, by, madeAt, savedAt, forward }: ArchivedChange) => ({
  version,
  label,
  by,
  'made at (UTC)': madeAt,
  'saved at (UTC)': savedAt,
  places: forward.map(({ path }) => path).join(' '),
});

function entryLine({ text, sha256 }: ArchivedEntry) {
  const entry = JSON.parse(text) as Entry;
  const { body, instrument } = entry;
  const value = body.kind === 'result' && body.measured.kind === 'value' ? body.measured : null;
  return {
    number: entry.seq,
    kind: body.kind,
    'recorded at (UTC)': entry.recordedAt,
    'taken at (UTC)': entry.takenAt,
    by: entry.by,
    witness: entry.witness ?? '',
    what: entryTitle(body),
    outcome: entryOutcome(entry),
    value: value?.value ?? '',
    unit: value?.unit ?? '',
    expected: body.kind === 'result' ? body.expected : '',
    instrument: instrument?.name ?? '',
    serial: instrument?.serial ?? '',
    'calibration due': instrument?.calibrationDue ?? '',
    'design version': entry.against.version,
    sha256,
  };
}
