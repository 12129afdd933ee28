import { createHash, randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import type { Second } from './secrets';

const periodS = 30;
/** Codes of one period before and after count: clocks differ. */
const window = 1;
const recoveryCount = 10;

const totpOf = (secret: string, label: string) =>
  new TOTP({
    issuer: 'Torvek',
    label,
    algorithm: 'SHA1',
    digits: 6,
    period: periodS,
    secret: Secret.fromBase32(secret),
  });

/** A new secret for a person, and the address that an authenticator reads from a code. */
export function newSecond(name: string): { secret: string; uri: string } {
  const secret = new Secret({ size: 20 }).base32;
  return { secret, uri: totpOf(secret, name).toString() };
}

/** Codes for the day the authenticator is lost: each works once. Only their hashes are kept. */
export function newRecoveryCodes(): { codes: string[]; hashes: string[] } {
  const codes = Array.from({ length: recoveryCount }, () =>
    randomBytes(8)
      .toString('hex')
      .replace(/(.{4})(?=.)/g, '$1-'),
  );
  return { codes, hashes: codes.map(hashOfCode) };
}

/** However a recovery code was typed. */
const hashOfCode = (code: string) =>
  createHash('sha256')
    .update(code.toLowerCase().replace(/[^0-9a-f]/g, ''))
    .digest('hex');

export type CodeCheck = { as: 'code' } | { as: 'recovery'; hash: string } | { as: 'wrong' | 'used' };

/** Checks codes, and lets none count twice. */
export class Codes {
  /** The period of the last code that counted, by person. */
  private readonly last = new Map<string, number>();
  private readonly from: number;

  constructor(private readonly nowMs: () => number = Date.now) {
    // Which codes counted before the start is forgotten: those of that time count no more.
    this.from = this.period(nowMs());
  }

  check(person: string, { secret, recovery }: Second, given: string): CodeCheck {
    const code = given.replace(/\s/g, '');
    if (!/^\d{6}$/.test(code)) {
      const hash = hashOfCode(code);
      return recovery.includes(hash) ? { as: 'recovery', hash } : { as: 'wrong' };
    }
    const timestamp = this.nowMs();
    const delta = totpOf(secret, '').validate({ token: code, timestamp, window });
    if (delta === null) return { as: 'wrong' };
    const period = this.period(timestamp) + delta;
    if (period <= (this.last.get(person) ?? this.from - 1)) return { as: 'used' };
    this.last.set(person, period);
    return { as: 'code' };
  }

  private period(ms: number): number {
    return Math.floor(ms / 1000 / periodS);
  }
}
