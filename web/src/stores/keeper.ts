/** Keeps lists in this browser beyond the page. A browser that keeps nothing is no error. */
export function browserKeeper<Item>(keyOf: (job: string) => string) {
  return {
    read(job: string): Item[] {
      try {
        const kept: unknown = JSON.parse(localStorage.getItem(keyOf(job)) ?? '[]');
        return Array.isArray(kept) ? (kept as Item[]) : [];
      } catch {
        return [];
      }
    },
    write(job: string, items: Item[]): void {
      try {
        if (items.length === 0) localStorage.removeItem(keyOf(job));
        else localStorage.setItem(keyOf(job), JSON.stringify(items));
      } catch {
        // Full or forbidden: the items still wait in this page.
      }
    },
  };
}
