import { ref, shallowRef, watch } from 'vue';
import type { EntryKind } from '@torvek/core/record';
import { api } from '../../api/client';
import { useJob, type RecordedEntry } from '../../stores/job';

export type ListedEntry = RecordedEntry & { correctedBy: number | null };

/** Entries of one page. */
export const pageSize = 100;

/** The record of the open job, a page at a time, newest first; read again when something is recorded. */
export function useRecordPages() {
  const job = useJob();
  const kind = ref<EntryKind | null>(null);
  const entries = shallowRef<ListedEntry[]>([]);
  const total = ref(0);
  const problem = ref<string | null>(null);
  const reading = ref(false);
  /** The number each page before this one began below; null: from the newest. */
  const trail = shallowRef<(number | null)[]>([null]);

  async function read(): Promise<void> {
    reading.value = true;
    const before = trail.value.at(-1);
    const query = new URLSearchParams({
      limit: String(pageSize),
      ...(before != null && { before: String(before) }),
      ...(kind.value !== null && { kind: kind.value }),
    });
    try {
      const page = await api.get<{ total: number; entries: ListedEntry[] }>(
        `/jobs/${job.id}/entries?${query}`,
      );
      entries.value = page.entries;
      total.value = page.total;
      problem.value = null;
    } catch (error) {
      problem.value = error instanceof Error ? error.message : 'the record cannot be read';
    } finally {
      reading.value = false;
    }
  }

  function older(): void {
    const last = entries.value.at(-1);
    if (last === undefined) return;
    trail.value = [...trail.value, last.seq];
    void read();
  }

  function newer(): void {
    if (trail.value.length > 1) trail.value = trail.value.slice(0, -1);
    void read();
  }

  function show(of: EntryKind | null): void {
    kind.value = of;
    trail.value = [null];
    void read();
  }

  /** Goes to the page that begins with an entry. */
  function goTo(seq: number): void {
    kind.value = null;
    trail.value = seq >= total.value ? [null] : [null, seq + 1];
    void read();
  }

  watch(() => [job.id, job.recorded], read, { immediate: true });
  return { kind, entries, total, problem, reading, trail, older, newer, show, goTo, read };
}
