import type { Keeper, PendingChange } from './autosave';

const keyOf = (job: string) => `torvek.pending.${job}`;

/** Keeps changes that are not saved yet in this browser, by job; a browser that keeps nothing is no error. */
export const pendingKeeper: Keeper = {
  read(job) {
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(keyOf(job)) ?? '[]');
      return Array.isArray(kept) ? (kept as PendingChange[]) : [];
    } catch {
      return [];
    }
  },
  write(job, changes) {
    try {
      if (changes.length === 0) localStorage.removeItem(keyOf(job));
      else localStorage.setItem(keyOf(job), JSON.stringify(changes));
    } catch {
      // Full or forbidden: the changes still wait in this page.
    }
  },
};
