import { closeSync, existsSync, openSync, readFileSync, readSync } from 'node:fs';
import { entryOutcome, entryTitle } from '@torvek/core/record';
import Papa from 'papaparse';
import { readChain } from '../journal/lines';
import { entryOf, tell, type Story } from '../journal/story';
import { hashBytes } from '../files/files';
import { jsonFile, pack, textFile, type Contents, type Manifest } from './archive';

/** The first bytes of a file: what comes after them was written later. */
function firstBytes(path: string, bytes: number): Buffer {
  const buffer = Buffer.alloc(bytes);
  const file = openSync(path, 'r');
  try {
    let read = 0;
    while (read < bytes) {
      const more = readSync(file, buffer, read, bytes - read, read);
      if (more === 0) break;
      read += more;
    }
    return buffer.subarray(0, read);
  } finally {
    closeSync(file);
  }
}

export interface Piece {
  /** Name in the archive. */
  name: string;
  path: string;
  /** Only so many bytes of it; absent: all. */
  bytes?: number;
}

/** A job as one sealed zip: its chain to the byte, and the same to read: designs as JSON, versions and record as CSV. */
export function packJob({
  chain,
  attachments,
  manifest,
  at,
}: {
  chain: Piece;
  attachments: Piece[];
  manifest: Omit<Manifest, 'files'>;
  at: string;
}): Uint8Array {
  const bytes = firstBytes(chain.path, chain.bytes ?? 0);
  const story = tell(readChain(bytes));
  if (story === null) throw new Error('the journal of this job does not begin with a job: verify says more');
  const last = story.entries.at(-1);
  const contents: Contents = {
    [chain.name]: bytes,
    'design.json': jsonFile(story.design),
    'first-design.json': jsonFile(story.job.design),
    'changes.csv': textFile(csv(story.changes.map(changeLine))),
    'entries.csv': textFile(csv(story.entries.map(entryLine))),
    'releases.json': jsonFile(story.releases.map(({ content, sha256 }) => ({ ...content, sha256 }))),
    'attachments.json': jsonFile(story.files.map(({ kind: _kind, ...file }) => file)),
    ...wholeFiles(attachments),
  };
  return pack(
    { ...manifest, head: last === undefined ? null : { seq: last.seq, sha256: last.sha256 } } as never,
    contents,
    at,
  );
}

/** Files by their hash: one that is no longer what was stored is left out, not sealed in. */
function wholeFiles(pieces: readonly Piece[]): Contents {
  const contents: Contents = {};
  for (const { name, path } of pieces) {
    if (!existsSync(path)) throw new Error(`${name} is missing in the folder: verify says more`);
    const bytes = readFileSync(path);
    if (hashBytes(bytes) !== name.split('/').at(-1))
      throw new Error(`${name} is not what was stored: verify says more`);
    contents[name] = bytes;
  }
  return contents;
}

/** Everything as one sealed zip: every chain and every file. The database follows from them. */
export function packBackup({
  chains,
  files,
  manifest,
  at,
}: {
  chains: Piece[];
  files: Piece[];
  manifest: Omit<Manifest, 'files'>;
  at: string;
}): Uint8Array {
  const contents: Contents = {};
  for (const { name, path, bytes } of chains) contents[name] = firstBytes(path, bytes ?? 0);
  // A damaged file is part of what is there: a backup keeps it, and a restore says so.
  for (const { name, path } of files) if (existsSync(path)) contents[name] = readFileSync(path);
  return pack(manifest, contents, at);
}

/** Comma separated, with a header; what a table program would take for a formula is made text. */
const csv = (rows: Record<string, string | number>[]) => Papa.unparse(rows, { escapeFormulae: true });

const changeLine = ({ version, label, by, madeAt, savedAt, forward }: Story['changes'][number]) => ({
  version,
  label,
  by,
  'made at (UTC)': madeAt,
  'saved at (UTC)': savedAt,
  places: forward.map(({ path }) => path).join(' '),
});

function entryLine({ link, sha256 }: Story['entries'][number]) {
  const entry = entryOf(link.text)!;
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
