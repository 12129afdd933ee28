import { applyOperations, type Design } from '@torvek/core/document';
import { shallowRef, type Ref } from 'vue';
import { api } from '../../api/client';
import type { Sender } from '../sender';
import type { JobAnswer, News, RecordedEntry } from './types';

/** What others do to the open job, as it arrives over the line. */
export function useNews({
  id,
  name,
  committed,
  entries,
  recorded,
  sender,
  take,
  takeAll,
}: {
  id: Readonly<Ref<string>>;
  name: Ref<string>;
  committed: Ref<Design>;
  entries: Ref<RecordedEntry[]>;
  recorded: Ref<number>;
  sender: Readonly<Ref<Sender | null>>;
  take: (entry: RecordedEntry, of: string) => Promise<void>;
  takeAll: (made: readonly RecordedEntry[], of: string) => void;
}) {
  /** The last change of somebody else that arrived. */
  const heard = shallowRef<{ by: string; label: string; at: number } | null>(null);

  /** What was missed while the line was down, or could not be put on top: the server's state, fetched. */
  async function catchUp(): Promise<void> {
    const of = id.value;
    const autosave = sender.value?.autosave;
    if (autosave === undefined || !(await autosave.settled())) return;
    try {
      const [job, record] = await Promise.all([
        api.get<JobAnswer>(`/jobs/${of}`),
        api.get<RecordedEntry[]>(`/jobs/${of}/standing`),
      ]);
      if (id.value !== of || autosave.queue.value.length > 0 || job.version < autosave.version.value) return;
      if (job.version > autosave.version.value) {
        committed.value = job.design;
        autosave.advance(job.version);
      }
      name.value = job.name;
      if (
        JSON.stringify(record.map(({ seq }) => seq)) !== JSON.stringify(entries.value.map(({ seq }) => seq))
      ) {
        entries.value = record;
        recorded.value += 1;
      }
    } catch {
      // The line is down again: the next connection tries anew.
    }
  }

  /** Something of the job has arrived over the line. */
  async function hear(news: News): Promise<void> {
    const autosave = sender.value?.autosave;
    if (news.job !== id.value || autosave === undefined) return;
    if (news.kind === 'entry') {
      if (!entries.value.some((one) => one.id === news.entry.id)) await take(news.entry, news.job);
      return;
    }
    if (news.kind === 'entries') return takeAll(news.entries, news.job);
    if (news.kind === 'here') {
      name.value = news.name;
      // The last entry of a job nearly always stands; where it does not, the record is read once more.
      if (news.version > autosave.version.value || news.entries !== (entries.value.at(-1)?.seq ?? 0))
        await catchUp();
      return;
    }
    if (news.kind !== 'change' || news.version <= autosave.version.value) return;
    if (autosave.queue.value.some((one) => one.id === news.id)) return;
    if (autosave.queue.value.length > 0 || news.version !== autosave.version.value + 1) return catchUp();
    committed.value = applyOperations(committed.value, news.forward);
    autosave.advance(news.version);
    heard.value = { by: news.by, label: news.label, at: Date.now() };
  }
  return { heard, hear };
}
