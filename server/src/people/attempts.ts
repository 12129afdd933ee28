import { HttpError } from '../http/errors';

const most = 5;
const windowMs = 15 * 60_000;

/** Counts failed passwords by name: after five within 15 minutes the name has to wait, whoever asks. */
export class Attempts {
  private readonly failures = new Map<string, number[]>();

  constructor(private readonly now: () => number = Date.now) {}

  /** @throws HttpError 429 while the name has to wait */
  admit(name: string): void {
    const recent = this.recent(name);
    if (recent.length < most) return;
    const waitS = Math.ceil((recent[0]! + windowMs - this.now()) / 1000);
    throw new HttpError(
      429,
      'too-many-attempts',
      `too many wrong passwords for this name; try again in ${Math.ceil(waitS / 60)} min`,
      [],
      { retryAfterS: waitS },
    );
  }

  failed(name: string): void {
    if (this.failures.size > 10_000) this.failures.clear();
    this.failures.set(keyOf(name), [...this.recent(name), this.now()]);
  }

  succeeded(name: string): void {
    this.failures.delete(keyOf(name));
  }

  private recent(name: string): number[] {
    return (this.failures.get(keyOf(name)) ?? []).filter((at) => at > this.now() - windowMs);
  }
}

const keyOf = (name: string) => name.trim().toLowerCase();
