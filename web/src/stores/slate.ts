import type { FigureId } from '@torvek/core/figure';
import { defineStore } from 'pinia';
import { nextTick, ref } from 'vue';
import { useSession } from './session';

/** What the slate shows: findings of the station, or the working of a figure. */
export const useSlate = defineStore('slate', () => {
  const session = useSession();
  const tab = ref<'findings' | 'working'>('findings');
  const figureId = ref<FigureId | null>(null);

  /** The finding that was asked for last: its card opens and takes the focus. */
  const findingKey = ref<string | null>(null);

  function showFinding(key: string): void {
    tab.value = 'findings';
    session.slateOpen = true;
    findingKey.value = null;
    void nextTick(() => (findingKey.value = key));
  }

  function showWorking(id: FigureId | null): void {
    if (id !== null) figureId.value = id;
    tab.value = 'working';
    session.slateOpen = true;
  }

  function showFindings(): void {
    tab.value = 'findings';
    session.slateOpen = true;
  }

  return { tab, figureId, findingKey, showFinding, showWorking, showFindings };
});
