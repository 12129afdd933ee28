import type { ArchiveProblem } from '@torvek/core/record';
import { zipSync } from 'fflate';
import { hashBytes } from '../files/files';
import { BadZip, unzip } from './zip';

/**
 * A sealed archive: a zip whose end comment holds, as 64 hex digits, the SHA-256 of all bytes before the comment. Its
 * `manifest.json` lists every other file with size and hash.
 */
export interface Manifest {
  format: string;
  formatVersion: number;
  files: { path: string; bytes: number; sha256: string }[];
}

export type Contents = Record<string, Uint8Array>;

/** Something that does not fit, and where. */
const sealLength = 64;
/** The end record of a zip, without its comment. */
const endLength = 22;
const encode = (text: string) => new TextEncoder().encode(text);
export const textFile = encode;
export const jsonFile = (value: unknown) => encode(`${JSON.stringify(value, null, 1)}\n`);

/**
 * Packs and seals files.
 *
 * @param at the time the archive says it was made
 */
export function pack(manifest: Omit<Manifest, 'files'>, contents: Contents, at: string): Uint8Array {
  const files = Object.entries(contents).map(([path, bytes]) => ({
    path,
    bytes: bytes.length,
    sha256: hashBytes(bytes),
  }));
  const zip = zipSync(
    { 'manifest.json': jsonFile({ ...manifest, files }), ...contents },
    { level: 6, mtime: new Date(at) },
  );
  // The end record's last two bytes give the length of the comment.
  zip[zip.length - 2] = sealLength;
  zip[zip.length - 1] = 0;
  const sealed = new Uint8Array(zip.length + sealLength);
  sealed.set(zip);
  sealed.set(encode(hashBytes(zip)), zip.length);
  return sealed;
}

export type Unpacked =
  | { ok: true; manifest: Manifest & Record<string, unknown>; contents: Contents }
  | { ok: false; problems: ArchiveProblem[] };

/**
 * Opens a sealed archive: seal, zip, manifest, and the hash of every file. Nothing in it is believed before.
 *
 * @param format the format it must be of
 * @param formatVersion the newest version this program reads
 */
export function unpack(bytes: Uint8Array, format: string, formatVersion: number): Unpacked {
  // Under a broken seal nothing is unpacked.
  const broken = sealProblem(bytes);
  if (broken !== null) return { ok: false, problems: [{ file: '', message: broken }] };
  const opened = open(bytes);
  if (!opened.ok) return { ok: false, problems: [{ file: '', message: opened.message }] };
  const manifest = manifestOf(opened.contents);
  if (manifest === null)
    return { ok: false, problems: [{ file: 'manifest.json', message: 'is missing or no manifest' }] };
  if (manifest.format !== format)
    return {
      ok: false,
      problems: [{ file: 'manifest.json', message: `is of a ${manifest.format}, not a ${format}` }],
    };
  if (manifest.formatVersion > formatVersion) {
    const message = `is of format version ${manifest.formatVersion}; this Torvek reads up to ${formatVersion}`;
    return { ok: false, problems: [{ file: 'manifest.json', message }] };
  }
  const problems = fileProblems(opened.contents);
  if (problems.length > 0) return { ok: false, problems };
  const { 'manifest.json': _manifest, ...contents } = opened.contents;
  return { ok: true, manifest, contents };
}

function sealProblem(bytes: Uint8Array): string | null {
  const comment = bytes.length - sealLength;
  const end = comment - endLength;
  const isEnd =
    end >= 0 &&
    [0x50, 0x4b, 0x05, 0x06].every((byte, i) => bytes[end + i] === byte) &&
    bytes[comment - 2] === sealLength &&
    bytes[comment - 1] === 0;
  if (!isEnd) return 'is no sealed archive, or its end is damaged';
  const seal = new TextDecoder('latin1').decode(bytes.subarray(comment));
  const hash = hashBytes(bytes.subarray(0, comment));
  if (seal === hash) return null;
  return `was altered after it was made: its seal says ${seal.slice(0, 12)}…, its bytes hash to ${hash.slice(0, 12)}…`;
}

function open(bytes: Uint8Array): { ok: true; contents: Contents } | { ok: false; message: string } {
  try {
    return { ok: true, contents: unzip(bytes, sealLength) };
  } catch (error) {
    const why = error instanceof BadZip ? error.message : 'damaged';
    return { ok: false, message: `cannot be unpacked: ${why}` };
  }
}

function manifestOf(contents: Contents): (Manifest & Record<string, unknown>) | null {
  const value = readJson(contents['manifest.json']);
  if (typeof value !== 'object' || value === null) return null;
  const { format, formatVersion, files } = value as Partial<Manifest>;
  const listed =
    Array.isArray(files) &&
    files.every((file) => typeof file?.path === 'string' && typeof file.sha256 === 'string');
  return typeof format === 'string' && Number.isInteger(formatVersion) && listed
    ? (value as Manifest & Record<string, unknown>)
    : null;
}

/** Files that are not what the manifest says, are missing, or are not listed. */
function fileProblems(contents: Contents): ArchiveProblem[] {
  const manifest = manifestOf(contents);
  if (manifest === null) return [{ file: 'manifest.json', message: 'is missing or no manifest' }];
  const listed = new Set(manifest.files.map(({ path }) => path));
  const problems = manifest.files.flatMap(({ path, sha256 }): ArchiveProblem[] => {
    const bytes = Object.hasOwn(contents, path) ? contents[path] : undefined;
    if (bytes === undefined) return [{ file: path, message: 'is missing' }];
    const hash = hashBytes(bytes);
    return hash === sha256
      ? []
      : [{ file: path, message: `is not what the manifest says: ${hash.slice(0, 12)}…` }];
  });
  const unlisted = Object.keys(contents)
    .filter((path) => path !== 'manifest.json' && !listed.has(path))
    .map((path) => ({ file: path, message: 'is not listed in the manifest' }));
  return [...problems, ...unlisted];
}

/** A JSON file of an archive, or undefined. */
export function readJson(bytes: Uint8Array | undefined): unknown {
  if (bytes === undefined) return undefined;
  try {
    return JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  } catch {
    return undefined;
  }
}
