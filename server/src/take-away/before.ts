import type { ArchiveProblem } from '@torvek/core/record';
import type { Design } from '@torvek/core/document';
import { applyOperations } from '@torvek/core/document';
import { lineOf, type Head } from '../journal/lines';
import type { ChangeLink, JobFact } from '../journal/links';
import { designHashOf } from '../journal/story';
import { readJson, type Contents } from './archive';

/** A change as it lay there: without the hash of the design that it leads to. */
type ArchivedChange = Omit<ChangeLink, 'kind' | 'design'>;

interface Frame {
  id: string;
  name: string;
  demo?: boolean;
  createdAt: string;
}

interface File {
  sha256: string;
  name: string;
  type: string;
  size: number;
  addedBy: string;
  addedAt: string;
}

/** Builds the chain of a job from an archive of format version 1, which had none: what it tells is not witnessed. */
export function chainOfBefore(contents: Contents, at: string): Uint8Array | { problem: ArchiveProblem } {
  const problem = (file: string) => ({ problem: { file, message: 'is missing or not what it should be' } });
  const frame = readJson(contents['job.json']);
  if (!isFrame(frame)) return problem('job.json');
  const first = readJson(contents['first-design.json']);
  if (typeof first !== 'object' || first === null) return problem('first-design.json');
  const changes = listOf<ArchivedChange>(contents['changes.json'], [
    'version:number',
    'id:string',
    'forward:object',
  ]);
  if (changes === null) return problem('changes.json');
  const entries = listOf<{ sha256: string; text: string }>(contents['entries.json'], [
    'sha256:string',
    'text:string',
  ]);
  if (entries === null) return problem('entries.json');
  const releases = listOf<{ id: string; sha256: string; text: string }>(contents['releases.json'], [
    'id:string',
    'sha256:string',
    'text:string',
  ]);
  if (releases === null) return problem('releases.json');
  const files = listOf<File>(contents['attachments.json'], [
    'sha256:string',
    'name:string',
    'addedBy:string',
  ]);
  if (files === null) return problem('attachments.json');
  const rest: JobFact[] = [
    ...files.map(({ sha256, name, type, size, addedBy: by, addedAt }) => ({
      kind: 'file' as const,
      sha256,
      name,
      type,
      size,
      by,
      addedAt,
    })),
    ...withHashes(first as Design, changes),
    ...entries.map(({ sha256, text }) => ({ kind: 'entry' as const, sha256, text })),
    ...releases.map(({ id, sha256, text }) => ({ kind: 'release' as const, id, sha256, text })),
  ];
  const { id, name, demo = false, createdAt } = frame;
  const takenUp = { at, links: rest.length, sha256: '', problems: [], restored: [] };
  const job: JobFact = { kind: 'job', id, name, demo, createdAt, design: first as Design, takenUp };
  let head: Head | null = null;
  const lines: Buffer[] = [];
  for (const body of [job, ...rest]) {
    const { bytes, link } = lineOf(body, head, at);
    lines.push(bytes);
    head = link;
  }
  return Buffer.concat(lines);
}

function isFrame(value: unknown): value is Frame {
  const { id, name, createdAt } = (value ?? {}) as Partial<Frame>;
  return typeof id === 'string' && typeof name === 'string' && typeof createdAt === 'string';
}

function listOf<One>(bytes: Uint8Array | undefined, fields: readonly string[]): One[] | null {
  const value = readJson(bytes);
  const fits = (one: unknown) =>
    typeof one === 'object' &&
    one !== null &&
    fields.every((field) => {
      const [name, type] = field.split(':') as [string, string];
      return typeof (one as Record<string, unknown>)[name] === type;
    });
  return Array.isArray(value) && value.every(fits) ? (value as One[]) : null;
}

function withHashes(first: Design, changes: readonly ArchivedChange[]): JobFact[] {
  let design: Design | null = first;
  return changes.map(({ version, id, base, label, by, madeAt, savedAt, forward, inverse }) => {
    try {
      design = design === null ? null : applyOperations(design, forward);
    } catch {
      design = null;
    }
    const sha256 = design === null ? '' : designHashOf(design);
    return {
      kind: 'change',
      version,
      id,
      base,
      label,
      by,
      madeAt,
      savedAt,
      forward,
      inverse,
      design: sha256,
    };
  });
}
