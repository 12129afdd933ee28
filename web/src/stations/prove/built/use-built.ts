import { useStorage } from '@vueuse/core';
import { newId } from '../../../api/client';
import { useAttempt } from '../../../parts/use-attempt';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';

interface Typed {
  serial: string;
  /** A thing of the stock. */
  item: string;
  part: string;
  reason: string;
  length: string;
  batch: string;
}
const blank: Typed = { serial: '', item: '', part: '', reason: '', length: '', batch: '' };

/** What is typed of parts as fitted and cables as cut, and not recorded yet; and how it is recorded. */
export function useBuilt() {
  const job = useJob();
  const session = useSession();
  /** Typed and not recorded: it lies in the browser until it is. */
  const typed = useStorage<Record<string, Typed>>(`torvek.built.${session.person?.id ?? ''}.${job.id}`, {});
  const of = (path: string): Typed => ({ ...blank, ...typed.value[path] });
  const type = (path: string, field: keyof Typed, event: Event) =>
    (typed.value[path] = { ...of(path), [field]: (event.target as HTMLInputElement).value });
  function forget(path: string): void {
    const { [path]: _gone, ...rest } = typed.value;
    typed.value = rest;
  }

  const { said, busy, attempt } = useAttempt();
  const send = (
    body: { kind: string } & Record<string, unknown>,
    title: string,
    path: string,
  ): Promise<boolean> =>
    attempt(async () => {
      await job.record({ id: newId('entry'), ...body }, title);
      forget(path);
      return `${title}: recorded.`;
    });
  return { of, type, said, busy, send };
}
