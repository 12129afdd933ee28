import { useStorage } from '@vueuse/core';
import { newId } from '../../../api/client';
import { useAttempt } from '../../../parts/use-attempt';
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

  const { said, busy, attempt } = useAttempt();
  const send = (body: { kind: string } & Record<string, unknown>, title: string): Promise<boolean> =>
    attempt(async () => {
      await job.record({ id: newId('entry'), ...body }, title);
      return `${title}: recorded.`;
    });
  return { typed, of, type, said, busy, send };
}
