import { inflateSync } from 'fflate';

/** What an archive may unpack to. */
const mostBytes = 2 * 1024 * 1024 * 1024;
const mostFiles = 50_000;
/** Text compresses to a twentieth; whatever shrinks more than this is made to swell. */
const mostRatio = 200;
/** Below this nobody is hurt by a ratio. */
const smallBytes = 64 * 1024 * 1024;

/** An archive that is not unpacked, and why. */
export class BadZip extends Error {}

interface Entry {
  name: string;
  method: number;
  packed: number;
  unpacked: number;
  dataAt: number;
}

const endLength = 22;
const directoryLength = 46;
const localLength = 30;

/**
 * Unpacks a zip that may come from anybody: names, sizes and places are looked at before a byte is inflated. It must be as this
 * program writes them: sizes said beforehand, stored or deflated, no two files on the same bytes, none larger than it says.
 *
 * @param bytes with the end record at `bytes.length - endLength - commentLength`
 * @throws BadZip
 */
export function unzip(bytes: Uint8Array, commentLength: number): Record<string, Uint8Array> {
  const entries = entriesOf(bytes, commentLength);
  refuseOverlap(entries);
  let total = 0;
  for (const { name, packed, unpacked } of entries) {
    total += unpacked;
    if (total > mostBytes) throw new BadZip(`unpacks to more than ${mostBytes / 1024 ** 3} GB`);
    if (unpacked > smallBytes && unpacked > packed * mostRatio)
      throw new BadZip(`${name} swells to more than ${mostRatio} times its size`);
  }
  return Object.fromEntries(entries.map((entry) => [entry.name, contentOf(bytes, entry)]));
}

function entriesOf(bytes: Uint8Array, commentLength: number): Entry[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = bytes.length - endLength - commentLength;
  if (end < 0 || view.getUint32(end, true) !== 0x06054b50) throw new BadZip('has no end');
  const count = view.getUint16(end + 10, true);
  const start = view.getUint32(end + 16, true);
  if (count > mostFiles || count === 0xffff) throw new BadZip(`holds more than ${mostFiles} files`);
  const names = new Set<string>();
  const entries: Entry[] = [];
  let at = start;
  for (let i = 0; i < count; i += 1) {
    if (at + directoryLength > end || view.getUint32(at, true) !== 0x02014b50)
      throw new BadZip('has a damaged directory');
    const flags = view.getUint16(at + 8, true);
    const nameLength = view.getUint16(at + 28, true);
    const local = view.getUint32(at + 42, true);
    const name = new TextDecoder().decode(
      bytes.subarray(at + directoryLength, at + directoryLength + nameLength),
    );
    const packed = view.getUint32(at + 20, true);
    const unpacked = view.getUint32(at + 24, true);
    const method = view.getUint16(at + 10, true);
    if ((flags & 0b1001) !== 0 || packed === 0xffffffff || unpacked === 0xffffffff)
      throw new BadZip(`${name} does not say its size`);
    if (method !== 0 && method !== 8) throw new BadZip(`${name} is packed in a way that is not read here`);
    if (names.has(name)) throw new BadZip(`${name} stands there twice`);
    names.add(name);
    if (local + localLength > start || view.getUint32(local, true) !== 0x04034b50)
      throw new BadZip(`${name} is not where the directory says`);
    const dataAt = local + localLength + view.getUint16(local + 26, true) + view.getUint16(local + 28, true);
    if (dataAt + packed > start) throw new BadZip(`${name} reaches beyond the files`);
    entries.push({ name, method, packed, unpacked, dataAt });
    at += directoryLength + nameLength + view.getUint16(at + 30, true) + view.getUint16(at + 32, true);
  }
  if (at !== end) throw new BadZip('has bytes that no file accounts for');
  return entries;
}

function refuseOverlap(entries: readonly Entry[]): void {
  const byPlace = [...entries].sort((a, b) => a.dataAt - b.dataAt);
  byPlace.forEach(({ name, dataAt }, i) => {
    const before = byPlace[i - 1];
    if (before !== undefined && dataAt < before.dataAt + before.packed + localLength)
      throw new BadZip(`${name} lies on the bytes of ${before.name}`);
  });
}

function contentOf(bytes: Uint8Array, { name, method, packed, unpacked, dataAt }: Entry): Uint8Array {
  const data = bytes.subarray(dataAt, dataAt + packed);
  if (method === 0) {
    if (packed !== unpacked) throw new BadZip(`${name} has another size than it says`);
    return data.slice();
  }
  try {
    // A byte more than it says: what swells beyond shows, and gets no more room.
    const content = inflateSync(data, { out: new Uint8Array(unpacked + 1) });
    if (content.length !== unpacked) throw new BadZip(`${name} has another size than it says`);
    return content.slice();
  } catch (error) {
    throw error instanceof BadZip ? error : new BadZip(`${name} is damaged`);
  }
}
