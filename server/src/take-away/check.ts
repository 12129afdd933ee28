import { checkDesign, designSchemaNumber, wasUnchecked, type Design } from '@torvek/core/document';
import { checkEntry, type ArchiveProblem, type ImportReport } from '@torvek/core/record';
import { hashBytes, typeOf } from '../files/files';
import { readChain, type Head } from '../journal/lines';
import { entryOf, tell, type Story } from '../journal/story';
import { readJson, unpack, type Contents } from './archive';
import { chainOfBefore } from './before';
import { signatureOf } from './signature';

export const jobFormat = 'torvek-job';
/** 2: the chain of the job, to the byte. Archives of version 1 held its history without one. */
export const jobFormatVersion = 2;

export interface Checked {
  report: ImportReport;
  /** The chain of the job as it will lie here; null: it does not come in. */
  chain: Uint8Array | null;
  head: Head | null;
  files: { sha256: string; bytes: Uint8Array }[];
}

/** How many problems a report lists. */
const mostProblems = 50;

const refusedWith = (problems: ArchiveProblem[], more: Partial<ImportReport> = {}): Checked => ({
  report: {
    ok: false,
    job: null,
    version: 0,
    changes: 0,
    entries: 0,
    releases: 0,
    files: 0,
    vouchedBy: '',
    ...more,
    problems: problems.slice(0, mostProblems),
  },
  chain: null,
  head: null,
  files: [],
});

/**
 * Checks an archive of a job through and through; nothing is written.
 *
 * Seal, manifest and hashes; that every link of the chain holds and every body is of its kind; that the versions lead from the
 * first design to the last, each a design; that the record fits; that releases and attachments are what they say.
 */
export async function checkArchive(bytes: Uint8Array): Promise<Checked> {
  const unpacked = unpack(bytes, jobFormat, jobFormatVersion);
  if (!unpacked.ok) return refusedWith(unpacked.problems);
  const { contents, manifest } = unpacked;
  const schema = Number(manifest.schema);
  if (schema > designSchemaNumber)
    return refusedWith([
      {
        file: 'manifest.json',
        message: `holds a design of schema ${schema}; this Torvek knows ${designSchemaNumber}`,
      },
    ]);
  const before = manifest.formatVersion < 2;
  const made = before ? chainOfBefore(contents, String(manifest.exportedAt)) : contents['chain.jsonl'];
  if (made === undefined) return refusedWith([{ file: 'chain.jsonl', message: 'is missing' }]);
  if ('problem' in made) return refusedWith([made.problem]);
  const file = before ? 'entries.json' : 'chain.jsonl';
  const chain = readChain(Buffer.from(made));
  const story = tell(chain, { own: false });
  if (story === null) return refusedWith([{ file, message: 'does not begin with a job' }]);
  const problems = [
    ...(chain.wholeBytes < made.length ? [{ file, message: 'ends in the middle of a line' }] : []),
    ...story.problems.map(({ what, message }) => ({
      file: before ? fileOf(what) : file,
      message: `${what} ${message}`,
    })),
    ...frameProblems(story),
    ...designProblems(story, contents),
    ...bodyProblems(story, file),
    ...headProblems(story, chain.head, manifest),
    ...(await fileProblems(story, contents)),
  ];
  const report: ImportReport = {
    ok: problems.length === 0,
    job: { id: story.job.id, name: story.name },
    version: story.changes.length,
    changes: story.changes.length,
    entries: story.entries.length,
    releases: story.releases.length,
    files: story.files.length,
    vouchedBy: before
      ? 'nobody: it was made by an older Torvek without a signature, and its history was not chained'
      : signatureOf(manifest, chain.head),
    problems: problems.slice(0, mostProblems),
  };
  if (!report.ok) return { report, chain: null, head: null, files: [] };
  return {
    report,
    chain: made,
    head: chain.head,
    files: story.files.map(({ sha256 }) => ({ sha256, bytes: contents[`attachments/${sha256}`]! })),
  };
}

/** In an archive of before each thing lay in a file of its own. */
function fileOf(what: string): string {
  if (what.startsWith('version')) return 'changes.json';
  if (what.startsWith('release') || what === 'a release') return 'releases.json';
  return 'entries.json';
}

function frameProblems({ job, name }: Story): ArchiveProblem[] {
  return /^[\w-]{1,80}$/.test(job.id) && name !== '' && name.length <= 120 && typeof job.demo === 'boolean'
    ? []
    : [{ file: 'chain.jsonl', message: 'names a job with an id or a name that is not allowed' }];
}

function designProblems(story: Story, contents: Contents): ArchiveProblem[] {
  const problems: ArchiveProblem[] = [];
  const look = (design: Design, file: string) => {
    const checked = checkDesign(design, wasUnchecked);
    if (!checked.ok)
      problems.push({
        file,
        message: `is no design: ${checked.issues[0]?.path} ${checked.issues[0]?.message}`,
      });
  };
  look(story.job.design, 'first-design.json');
  look(story.design, 'design.json');
  const said = readJson(contents['design.json']);
  const path = said === undefined ? '' : firstDifference(said, story.design, '');
  if (path !== null)
    problems.push({
      file: 'design.json',
      message: `is not what its changes lead to: ${path || 'it'} differs`,
    });
  return problems;
}

/** The first place in which two values differ; null: none. */
function firstDifference(a: unknown, b: unknown, path: string): string | null {
  if (Object.is(a, b)) return null;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return path;
  const left = a as Record<string, unknown>;
  const right = b as Record<string, unknown>;
  for (const key of new Set([...Object.keys(left), ...Object.keys(right)])) {
    const found = firstDifference(left[key], right[key], path === '' ? key : `${path}.${key}`);
    if (found !== null) return found;
  }
  return null;
}

/** Every body through the schema of its kind: what is no entry of ours does not come in, however well it is chained. */
function bodyProblems({ entries, changes, files }: Story, file: string): ArchiveProblem[] {
  const problems: ArchiveProblem[] = [];
  for (const { seq, link } of entries) {
    const issues = checkEntry(entryOf(link.text));
    if (issues.length > 0)
      problems.push({
        file,
        message: `entry ${seq} is malformed: ${issues[0]!.path} ${issues[0]!.message}`,
      });
  }
  const texts = (one: object, names: readonly string[]) =>
    names.every((name) => {
      const value = (one as Record<string, unknown>)[name];
      return typeof value === 'string' && value.length <= 400;
    });
  for (const change of changes)
    if (
      !texts(change, ['id', 'label', 'by', 'madeAt', 'savedAt']) ||
      !Number.isInteger(change.base) ||
      !Array.isArray(change.inverse)
    )
      problems.push({ file, message: `version ${change.version} is malformed` });
  for (const one of files)
    if (!texts(one, ['sha256', 'name', 'by', 'addedAt', 'type']) || !Number.isInteger(one.size))
      problems.push({ file, message: `the file ${String(one.sha256).slice(0, 12)}… is malformed` });
  return problems;
}

function headProblems(
  { entries }: Story,
  head: Head | null,
  manifest: Record<string, unknown>,
): ArchiveProblem[] {
  const last = entries.at(-1);
  const said = manifest.head as { seq?: number; sha256?: string } | null;
  const cut = (said?.seq ?? 0) !== (last?.seq ?? 0) || (said?.sha256 ?? '') !== (last?.sha256 ?? '');
  const chainHead = manifest.chain as Head | undefined;
  const chainCut = chainHead !== undefined && (chainHead.n !== head?.n || chainHead.sha256 !== head.sha256);
  return cut || chainCut
    ? [{ file: 'chain.jsonl', message: 'does not end at the head that the manifest names' }]
    : [];
}

async function fileProblems({ files }: Story, contents: Contents): Promise<ArchiveProblem[]> {
  const wrong: ArchiveProblem[] = [];
  for (const { sha256, type, size } of files) {
    const file = `attachments/${sha256}`;
    const bytes = contents[file];
    if (bytes === undefined) wrong.push({ file, message: 'is missing' });
    else if (hashBytes(bytes) !== sha256) wrong.push({ file, message: 'is not what its name says' });
    else if ((await typeOf(bytes)) !== type) wrong.push({ file, message: `is no ${type}` });
    else if (bytes.length !== size) wrong.push({ file, message: 'has another size than was recorded' });
  }
  return wrong;
}
