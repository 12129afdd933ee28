import { HttpError } from '../http/errors';

const most = 5;
const windowMs = 15 * 60_000;
/** Names that are remembered; beyond them the oldest are forgotten. */
const mostNames = 10_000;

/**
 * Counts failed passwords by name: after five within 15 minutes the name has to wait, whoever asks. An attempt counts from
 * the moment it is made, before its password is looked at: a hundred at once are five.
 */
export class Attempts {
  private readonly made = new Map<string, number[]>();

  constructor(private readonly now: () => number = Date.now) {}

  /**
   * Takes one attempt of a name.
   *
   * @returns `right` says that it was: then none counts any more; `half` that only a code was missing: this one does not count
   * @throws HttpError 429 while the name has to wait
   */
  take(name: string): { right(): void; half(): void } {
    const key = keyOf(name);
    const recent = (this.made.get(key) ?? []).filter((at) => at > this.now() - windowMs);
    if (recent.length >= most) {
      const waitS = Math.ceil((recent[0]! + windowMs - this.now()) / 1000);
      throw new HttpError(
        429,
        'too-many-attempts',
        `too many wrong passwords for this name; try again in ${Math.ceil(waitS / 60)} min`,
        [],
        { retryAfterS: waitS },
      );
    }
    // Set anew, so that the names stand in the order in which they were last tried.
    this.made.delete(key);
    const at = this.now();
    this.made.set(key, [...recent, at]);
    if (this.made.size > mostNames) this.made.delete(this.made.keys().next().value!);
    return {
      right: () => void this.made.delete(key),
      half: () => {
        const made = this.made.get(key);
        const i = made?.lastIndexOf(at) ?? -1;
        if (i >= 0) made!.splice(i, 1);
      },
    };
  }
}

const keyOf = (name: string) => name.normalize('NFKC').trim().toLowerCase();
