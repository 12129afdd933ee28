import { defineStore } from 'pinia';
import { nextTick, ref } from 'vue';
import { useSession } from './session';

/** What the slate shows: findings of the station, or the working of a figure. */
export const useSlate = defineStore('slate', () => {
  const session = useSession();
  const tab = ref<'findings' | 'working'>('findings');
  const figureId = ref<string | null>(null);

  /** The finding that was asked for last: its card opens and takes the focus. */
  const findingKey = ref<string | null>(null);

  function showFinding(key: string): void {
    tab.value = 'findings';
    session.slateOpen = true;
    findingKey.value = null;
    void nextTick(() => (findingKey.value = key));
  }

  function showWorking(id: string | null): void {
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
