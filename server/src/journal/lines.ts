import { hash } from 'node:crypto';

/** A link of a chain as it was read from a journal. */
export interface Link<Body = Record<string, unknown>> {
  /** From 1, without gaps. */
  n: number;
  /** SHA-256 of the frame of the link before; null for the first. */
  previous: string | null;
  /** The server's time, ISO 8601. */
  at: string;
  sha256: string;
  body: Body;
}

/** Where a chain stands. */
export interface Head {
  n: number;
  sha256: string;
}

/** A line that does not hold. */
export interface Damage {
  /** The number the link has, or must have had by its place. */
  n: number;
  message: string;
}

export interface Chain {
  links: Link[];
  damage: Damage[];
  /** The last link that holds, or the last that can be named after it; null: there is none. */
  head: Head | null;
  /** Bytes up to the end of the last whole line. */
  wholeBytes: number;
}

export const sha256Of = (bytes: Uint8Array | string) => hash('sha256', bytes, 'hex');

/**
 * A line: the SHA-256 of its frame in 64 hex digits, a blank, the frame, a newline. The frame is JSON that names its number, the
 * hash of the frame before and its time, so that each line carries its own check and holds the one before it. A canonical text
 * (`text`) follows the frame after a tab, to the byte, and is held by its own SHA-256 (`sha256`) in the frame.
 */
export function lineOf(body: object, head: Head | null, at: string): { bytes: Buffer; link: Link } {
  const n = (head?.n ?? 0) + 1;
  const previous = head?.sha256 ?? null;
  const { text, ...rest } = body as { text?: string };
  const frame = JSON.stringify({ n, previous, at, ...rest });
  const sha256 = sha256Of(frame);
  return {
    bytes: Buffer.from(`${sha256} ${frame}${text === undefined ? '' : `\t${text}`}\n`),
    link: { n, previous, at, sha256, body: body as Record<string, unknown> },
  };
}

const newline = 0x0a;
const tab = 0x09;
const hashLength = 64;
const ours = /^[0-9a-f]{64}$/;
const lineStart = /[0-9a-f]{64} \{"n":\d+,"previous":/g;

interface Read {
  /** The hash that stands before the payload; null: no line of ours. */
  claimed: string | null;
  link: Link | null;
}

/**
 * Reads a chain, whatever happened to its file: each line that holds is taken, each other one is named with the number it must
 * have had. Half a last line, which a crash leaves, is no damage: it was never acknowledged.
 */
export function readChain(bytes: Buffer): Chain {
  const links: Link[] = [];
  const damage: Damage[] = [];
  let before: { n: number; sha256: string | null } = { n: 0, sha256: null };
  let wholeBytes = 0;
  const take = ({ claimed, link }: Read) => {
    if (link === null) {
      const n = before.n + 1;
      damage.push({ n, message: 'is damaged: its line does not match its hash' });
      before = { n, sha256: claimed };
      return;
    }
    if (link.n > before.n + 1) {
      const last = link.n - 1;
      damage.push({
        n: before.n + 1,
        message: last === before.n + 1 ? 'is missing' : `is missing, and all up to ${last}`,
      });
    } else if (link.n <= before.n) damage.push({ n: link.n, message: 'stands there twice or out of order' });
    else if (link.previous !== before.sha256 && link.body.kind !== 'repair')
      damage.push({ n: link.n, message: 'does not follow the one before it' });
    links.push(link);
    before = { n: Math.max(link.n, before.n), sha256: link.sha256 };
  };
  for (let start = 0; start < bytes.length;) {
    const found = bytes.indexOf(newline, start);
    const line = bytes.subarray(start, found < 0 ? bytes.length : found);
    const read = readLine(line);
    if (found < 0 && read.link === null) break;
    if (read.link !== null) take(read);
    else
      piecesOf(line).forEach((piece, i) => {
        const one = readLine(piece);
        take(one);
        if (i > 0 && one.link !== null)
          damage.push({ n: one.link.n, message: 'has lost the end of the line before it' });
      });
    start = wholeBytes = found < 0 ? bytes.length : found + 1;
  }
  const { n, sha256 } = before;
  const head = n === 0 ? null : { n, sha256: sha256 ?? links.at(-1)?.sha256 ?? '0'.repeat(hashLength) };
  return { links, damage, head, wholeBytes };
}

function readLine(line: Buffer): Read {
  const claimed = line.toString('latin1', 0, hashLength);
  const cut = line.indexOf(tab, hashLength + 1);
  const frame = line.subarray(hashLength + 1, cut < 0 ? line.length : cut);
  if (line[hashLength] !== 0x20 || sha256Of(frame) !== claimed)
    return { claimed: ours.test(claimed) && line[hashLength] === 0x20 ? claimed : null, link: null };
  try {
    const { n, previous, at, ...framed } = JSON.parse(frame.toString('utf8')) as Link['body'];
    const text = cut < 0 ? null : line.subarray(cut + 1);
    if (text !== null && sha256Of(text) !== framed.sha256) return { claimed, link: null };
    const body = text === null ? framed : withText(framed, text);
    if (!Number.isInteger(n) || typeof at !== 'string') return { claimed, link: null };
    return {
      claimed,
      link: { n: n as number, previous: (previous ?? null) as string | null, at, sha256: claimed, body },
    };
  } catch {
    return { claimed, link: null };
  }
}

/** A text stays in the bytes it was read from until it is asked for: of a long record most are looked at once. */
function withText(framed: Link['body'], text: Buffer): Link['body'] {
  return {
    ...framed,
    get text() {
      return text.toString('utf8');
    },
  };
}

/** A line in which a newline was lost holds two: they are told apart by their beginnings. */
function piecesOf(line: Buffer): Buffer[] {
  const starts = [...line.toString('latin1').matchAll(lineStart)]
    .map(({ index }) => index)
    .filter((at) => at > 0);
  const cuts = [0, ...starts, line.length + 1];
  return cuts.slice(0, -1).map((from, i) => line.subarray(from, Math.min(cuts[i + 1]! - 1, line.length)));
}
