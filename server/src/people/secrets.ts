/** What nobody else knows of a person, as the shop's journal tells it; kept in memory alone. */
export interface Secret {
  /** argon2id. */
  passwordHash: string;
  /** Who set the password last, and when: another name than the person's own is worth knowing at a gate. */
  passwordBy: string;
  passwordAt: string;
  second: Second | null;
}

/** The second factor of a person. */
export interface Second {
  /** Base32, RFC 6238 with SHA-1, six digits, 30 s: what every authenticator reads. */
  secret: string;
  /** SHA-256 of the recovery codes that are left. */
  recovery: string[];
}

export interface ShopRules {
  /** Nobody confirms an HV gate without a second factor. */
  witnessesNeedSecond: boolean;
  /** Where codes on labels lead, without a slash at its end: the address by which phones reach this server; empty: that of the page. */
  labelAddress: string;
}

export const firstRules: ShopRules = { witnessesNeedSecond: false, labelAddress: '' };

export class Secrets {
  readonly people = new Map<string, Secret>();
  readonly rules: ShopRules = { ...firstRules };

  clear(): void {
    this.people.clear();
    Object.assign(this.rules, firstRules);
  }
}
