import type { FigureId } from '@torvek/core/figure';
import { stationOfCheck } from '@torvek/core/design';
import { stations, type Station } from '@torvek/core/document';
import { useEventListener } from '@vueuse/core';
import { nextTick, ref, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';
import { createKeyReader, type KeyAction } from './keys';

const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  target.closest('input, textarea, select, [contenteditable], [role="grid"], [role="dialog"]') !== null;

/** The keys of the frame: finder, stations, findings, working, the list of keys, undo and redo. */
export function useKeys(station: Ref<Station>) {
  const job = useJob();
  const slate = useSlate();
  const router = useRouter();
  const finding = ref(false);
  const help = ref(false);
  const read = createKeyReader();

  useEventListener(document, 'keydown', (event: KeyboardEvent) => {
    const { ctrlKey, metaKey, altKey, shiftKey, key } = event;
    if (ctrlKey || metaKey) {
      if (key.toLowerCase() === 'z') undo(event, shiftKey);
      return;
    }
    if (key.length !== 1) return;
    const action = read(key, isField(event.target), altKey);
    if (action === null) return;
    event.preventDefault();
    act(action);
  });

  function undo(event: KeyboardEvent, again: boolean): void {
    if (event.target instanceof HTMLElement && event.target.matches('textarea')) return;
    event.preventDefault();
    const focus = document.activeElement as HTMLElement | null;
    if (focus?.matches('input')) focus.blur();
    // Whoever has an undo of its own takes this one: it acts where the hands are.
    const mine = new CustomEvent('torvek-undo', { detail: again, bubbles: true, cancelable: true });
    if (event.target instanceof HTMLElement && !event.target.dispatchEvent(mine)) return;
    if (again) job.redo();
    else job.undo();
  }

  function act(action: KeyAction): void {
    if (action === 'find') finding.value = true;
    else if (action === 'help') help.value = true;
    else if (action === 'next') void nextFinding();
    else if (action === 'working') working();
    else if (action.go === 'jobs' || action.go === 'shop') void router.push({ name: action.go });
    else void router.push({ name: action.go, params: { job: job.id } });
  }

  function working(): void {
    const figure = document.activeElement?.closest<HTMLElement>('[data-figure]')?.dataset.figure;
    if (figure !== undefined) slate.showWorking(figure as FigureId);
    else slate.showWorking(slate.figureId);
  }

  /** The next open finding in the order of the stations, from the one that was shown last. */
  async function nextFinding(): Promise<void> {
    const open = job.assessment.findings
      .filter(({ accepted }) => accepted === null)
      .map(({ check }) => ({ key: check.key, at: stationOfCheck(check) }))
      .sort((a, b) => stations.indexOf(a.at) - stations.indexOf(b.at));
    if (open.length === 0) return slate.showFindings();
    const last = open.findIndex(({ key }) => key === slate.findingKey);
    const first = open.findIndex(({ at }) => at === station.value);
    const next = open[last >= 0 ? (last + 1) % open.length : Math.max(first, 0)]!;
    if (next.at !== station.value && station.value !== 'prove' && station.value !== 'book')
      await router.push({ name: next.at, params: { job: job.id } });
    await nextTick();
    slate.showFinding(next.key);
  }

  return { finding, help };
}
