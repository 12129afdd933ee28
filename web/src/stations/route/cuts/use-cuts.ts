import { useStorage } from '@vueuse/core';
import { ref } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';

/** What is typed of cuts and not recorded: it lies in the browser until it is; and how it is recorded. */
export function useCuts() {
  const job = useJob();
  const session = useSession();
  const typed = useStorage<Record<string, { length: string; reel: string }>>(
    `torvek.cuts.${session.person?.id ?? ''}.${job.id}`,
    {},
  );
  const of = (run: string) => typed.value[run] ?? { length: '', reel: '' };
  const type = (run: string, field: 'length' | 'reel', event: Event) =>
    (typed.value[run] = { ...of(run), [field]: (event.target as HTMLInputElement).value });

  const said = ref<string | null>(null);
  const busy = ref(false);
  async function send(body: { kind: string } & Record<string, unknown>, title: string): Promise<boolean> {
    if (busy.value) return false;
    busy.value = true;
    said.value = null;
    try {
      await job.record({ id: newId('entry'), ...body }, title);
      said.value = `${title}: recorded.`;
      return true;
    } catch (error) {
      said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
      return false;
    } finally {
      busy.value = false;
    }
  }
  return { typed, of, type, said, busy, send };
}
