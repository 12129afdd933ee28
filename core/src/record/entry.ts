import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { Instrument } from './instrument';
import type { EntryBody } from './kinds';
import type { Basis } from './measured';

export const entryFormat = 'torvek-entry';
/** 2: an acceptance names the parts that were judged. Entries of version 1 verify as before. */
export const entryFormatVersion = 2;

/** One entry of a job's record, without its own hash. */
export interface Entry {
  format: typeof entryFormat;
  formatVersion: number;
  /** Made by the client: a retry is not a second entry. */
  id: string;
  job: string;
  /** From 1, without gaps. */
  seq: number;
  /** Hash of the entry before; null for the first. */
  previous: string | null;
  takenAt: string;
  recordedAt: string;
  /** The server's clock stood later at the entry before, which was recorded at this time; absent: it did not. */
  clockWentBack?: string;
  zone: string;
  by: string;
  /** The second person at an HV gate, who confirmed with their own password; null: nobody did. */
  witness: string | null;
  /** The design it was judged against. */
  against: { version: number; sha256: string; core: string };
  subjects: { id: string; tag: string }[];
  basis: Basis[];
  instrument: Instrument | null;
  /** SHA-256 of each file that goes with it. */
  attachments: string[];
  body: EntryBody;
}

/**
 * RFC 8785 canonical text: the truth of an entry.
 *
 * @throws UnrecordableText when a text holds U+0000 or half a surrogate pair
 */
export function canonicalText(value: unknown): string {
  const text = canonicalize(value);
  if (text === undefined) throw new UnrecordableText('nothing');
  // What cannot be recorded is written as an escape: only where there is one has anything to be looked at again.
  const bad = text.includes('\\u') ? unrecordable(value) : null;
  if (bad !== null) throw new UnrecordableText(bad);
  return text;
}

/** A text that cannot be kept faithfully. */
export class UnrecordableText extends Error {
  constructor(readonly path: string) {
    super(`${path} holds a character that cannot be recorded`);
  }
}

/** The path of the first text with U+0000 or a lone surrogate, or null. */
export function unrecordable(value: unknown, path = ''): string | null {
  if (typeof value === 'string')
    return value.includes('\u0000') || !isWellFormed(value) ? path || 'text' : null;
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, child] of Object.entries(value)) {
    const below = path === '' ? key : `${path}.${key}`;
    const found = unrecordable(key, below) ?? unrecordable(child, below);
    if (found !== null) return found;
  }
  return null;
}

function isWellFormed(text: string): boolean {
  return !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text);
}

/** SHA-256 of a text in UTF-8, as 64 hex digits. */
export function hashText(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/**
 * Whether a text is the canonical one of its value. Numbers and strings are written in RFC 8785 as JSON does, so that
 * a text that comes back from JSON unchanged, its keys in order, is; whatever is left is settled by writing it anew.
 */
export function isCanonical(value: unknown, text: string): boolean {
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
