import { defineStore } from 'pinia';
import { ref } from 'vue';
import { useSession } from './session';

/** What the slate shows: findings of the station, or the working of a figure. */
export const useSlate = defineStore('slate', () => {
  const session = useSession();
  const tab = ref<'findings' | 'working'>('findings');
  const figureId = ref<string | null>(null);

  function showWorking(id: string): void {
    figureId.value = id;
    tab.value = 'working';
    session.slateOpen = true;
  }

  function showFindings(): void {
    tab.value = 'findings';
    session.slateOpen = true;
  }

  return { tab, figureId, showWorking, showFindings };
});
