import type { Head } from './lines';
import type { Turn } from './writer';

/** Heads of jobs go into the chain of the shop at most this often; at once where something leaves the house. */
const everyMs = 10_000;

/** Where the chains of jobs stand, on its way into the chain of the shop: a chain that is cut off or gone shows there. */
export class Heads {
  private readonly moved = new Map<string, Head>();
  private lastMs = 0;

  constructor(private readonly now: () => number = Date.now) {}

  stands(job: string, head: Head): void {
    this.moved.set(job, head);
  }

  /** Whether it is time to note them. */
  get due(): boolean {
    return this.moved.size > 0 && this.now() - this.lastMs >= everyMs;
  }

  /** Notes those that moved since the last time. */
  async note(turn: Turn): Promise<void> {
    if (this.moved.size === 0) return;
    const jobs = Object.fromEntries(this.moved);
    await turn.shop({ kind: 'heads', jobs });
    turn.done(() => {
      this.lastMs = this.now();
      for (const [job, { n }] of Object.entries(jobs))
        if (this.moved.get(job)?.n === n) this.moved.delete(job);
    });
  }
}
