import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  verify,
} from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Head } from '../journal/lines';

/** Where a chain stood, as it is printed and sent: whoever holds it can tell whether the chain was rewritten since. */
export interface Anchor {
  job: string;
  n: number;
  sha256: string;
  at: string;
  /** The public key of the shop, 32 bytes as base64url, and its signature. */
  key: string;
  signature: string;
}

const word = 'torvek-head';
const signedText = ({ job, n, sha256, at }: Omit<Anchor, 'key' | 'signature'>) =>
  `${word} 1 ${job} ${n} ${sha256} ${at}`;

/** DER around a raw Ed25519 public key (RFC 8410). */
const spki = Buffer.from('302a300506032b6570032100', 'hex');

/** The shop's own key (Ed25519): it shows whose paper it is, no more. */
export class ShopKey {
  private constructor(
    private readonly pem: string,
    /** The public key as base64url. */
    readonly key: string,
  ) {}

  /**
   * Reads the key of a data folder, or makes it.
   *
   * @param keep writes a new one to the disk
   */
  static of(dataFolder: string, keep: (name: string, text: string) => void): ShopKey {
    const path = join(dataFolder, keyFile);
    if (!existsSync(path))
      keep(
        keyFile,
        generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' }).toString(),
      );
    const pem = readFileSync(path, 'utf8');
    const der = createPublicKey(createPrivateKey(pem)).export({ type: 'spki', format: 'der' });
    return new ShopKey(pem, der.subarray(spki.length).toString('base64url'));
  }

  anchor(job: string, { n, sha256 }: Head, at: string): Anchor {
    const what = { job, n, sha256, at };
    const signature = sign(null, Buffer.from(signedText(what)), createPrivateKey(this.pem));
    return { ...what, key: this.key, signature: signature.toString('base64url') };
  }
}

const keyFile = 'shop-key.pem';

/** An anchor as one line, as it stands in a QR code. */
export const anchorText = (anchor: Anchor) => `${signedText(anchor)} ${anchor.key} ${anchor.signature}`;

/** Reads such a line, however it was broken or spaced; null: it is none. */
export function readAnchor(text: string): Anchor | null {
  const match =
    /^torvek-head 1 ([\w-]{1,80}) (\d{1,9}) ([0-9a-f]{64}) (\S{10,40}) ([\w-]{43}) ([\w-]{86})$/.exec(
      text.trim().replace(/\s+/g, ' '),
    );
  if (match === null) return null;
  const [, job, n, sha256, at, key, signature] = match as unknown as [string, ...string[]];
  return { job: job!, n: Number(n), sha256: sha256!, at: at!, key: key!, signature: signature! };
}

/** Whether the signature of an anchor is that of the key it names. */
export function isSigned({ key, signature, ...what }: Anchor): boolean {
  try {
    const der = Buffer.concat([spki, Buffer.from(key, 'base64url')]);
    const publicKey = createPublicKey({ key: der, format: 'der', type: 'spki' });
    return verify(null, Buffer.from(signedText(what)), publicKey, Buffer.from(signature, 'base64url'));
  } catch {
    return false;
  }
}

/** A key as people compare it: four groups of four letters and digits. */
export const keyName = (key: string) =>
  createHash('sha256')
    .update(Buffer.from(key, 'base64url'))
    .digest('hex')
    .slice(0, 16)
    .replace(/(.{4})(?=.)/g, '$1-');

/** What vouches for the chain of an archive, in words. */
export function signatureOf(manifest: Record<string, unknown>, head: Head | null): string {
  const anchor = typeof manifest.anchor === 'string' ? readAnchor(manifest.anchor) : null;
  if (anchor === null) return 'nobody: it is not signed';
  if (anchor.n !== head?.n || anchor.sha256 !== head.sha256 || !isSigned(anchor))
    return 'nobody: its signature does not belong to this chain';
  return `the shop with the key ${keyName(anchor.key)}, which signed its end on ${anchor.at.slice(0, 10)}`;
}
