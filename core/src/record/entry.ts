import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import canonicalize from 'canonicalize';
import type { CheckValue, Grade } from '../finding';

export const entryFormat = 'torvek-entry';
export const entryFormatVersion = 1;

/** A value a judgement read directly, and how far it may move before the judgement is stale. */
export interface Basis {
  figure: string;
  label: string;
  value: number;
  unit: string;
  toleranceFraction: number;
}

export type Measured =
  | { kind: 'value'; value: number; unit: string }
  | {
      kind: 'trace';
      samples: [timeS: number, voltageV: number][];
      /** The pack's own voltage just before the run, by a meter. */
      packVoltageV: number;
      unit: 'V';
    };

export type Verdict = 'pass' | 'fail';

/** Where a measurement came from. */
export interface Instrument {
  kind: 'meter' | 'insulation-tester' | 'scope';
  name: string;
  /** True for an instrument that ships with the product: it measures no vehicle. */
  standIn: boolean;
  /** How a stand-in was told to misbehave. */
  behaviour?: string;
}

/** A detail the judgement found beside its verdict, such as a fitted capacitance. */
export interface Detail {
  label: string;
  value: number | null;
  unit: string;
}

export interface ResultBody {
  kind: 'result';
  step: string;
  title: string;
  /** How the measurement came in. */
  entered: 'stand-in' | 'typed' | 'pasted';
  measured: Measured;
  /** The expectation in words, as it was judged against. */
  expected: string;
  verdict: Verdict;
  reasons: string[];
  details: Detail[];
  remark?: string;
}

/** A person takes a finding on, with a reason; it lapses when what it was judged on moves. */
export interface AcceptanceBody {
  kind: 'acceptance';
  check: string;
  rule: string;
  ruleVersion: number;
  grade: Grade;
  message: string;
  values: CheckValue[];
  reason: string;
}

/** What stands open or closed on the vehicle now; feeds the nameplate. */
export interface PositionBody {
  kind: 'position';
  linksOut: number;
  serviceDisconnect: 'out' | 'in';
  mains: 'open' | 'closed';
  remark?: string;
}

/** Work that was done; makes results on its subjects due again. */
export interface WorkBody {
  kind: 'work';
  what: string;
}

/** Sets an earlier entry right; the earlier one stays. */
export interface CorrectionBody {
  kind: 'correction';
  of: number;
  reason: string;
}

export type EntryBody = ResultBody | AcceptanceBody | PositionBody | WorkBody | CorrectionBody;

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
  zone: string;
  by: string;
  witness: string | null;
  /** The design it was judged against. */
  against: { version: number; sha256: string; core: string };
  subjects: { id: string; tag: string }[];
  basis: Basis[];
  instrument: Instrument | null;
  attachments: string[];
  body: EntryBody;
}

/**
 * RFC 8785 canonical text: the truth of an entry.
 *
 * @throws UnrecordableText when a text holds U+0000 or half a surrogate pair
 */
export function canonicalText(value: unknown): string {
  const bad = unrecordable(value);
  if (bad !== null) throw new UnrecordableText(bad);
  const text = canonicalize(value);
  if (text === undefined) throw new UnrecordableText('nothing');
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
