import { removeLoop, type Id, type LoopItem } from '@torvek/core/document';
import type { CoolingCase, LoopAnswer } from '@torvek/core/cooling';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';

/** The loop that is looked at, by the address; how it works; and what is done to loops as such. */
export function useLoops() {
  const job = useJob();
  const route = useRoute();
  const router = useRouter();
  const loops = computed(() => job.design.loops ?? {});
  const ids = computed(() => Object.keys(loops.value));
  const asked = computed(() => {
    if (typeof route.query.loop === 'string') return route.query.loop;
    const [root, id = ''] = typeof route.query.at === 'string' ? route.query.at.split('.') : [];
    if (root === 'loops') return id;
    if (root === 'plumbing') return job.design.plumbing?.[id]?.loop ?? '';
    return root === 'joins' ? (job.design.joins?.[id]?.loop ?? '') : '';
  });
  const loopId = computed(() => (ids.value.includes(asked.value) ? asked.value : (ids.value[0] ?? '')));
  const loop = computed((): LoopItem | undefined => loops.value[loopId.value]);
  const answer = computed(() => answerOf(loopId.value));
  const pick = (id: Id) => void router.replace({ query: { ...route.query, at: undefined, loop: id } });

  /** How a loop works; null: its plumbing is not complete. */
  function answerOf(id: Id): LoopAnswer | null {
    return (job.evaluation.runs[`cooling.loop:${id}`]?.result as LoopAnswer | undefined) ?? null;
  }

  function add(): void {
    const id = newId('loop');
    job.change('Coolant loop added', (draft) => {
      draft.cooling ??= {};
      const count = Object.keys((draft.loops ??= {})).length;
      draft.loops[id] = { tag: `Loop ${count + 1}` };
    });
    pick(id);
  }
  function remove(id: Id): void {
    job.change(`Coolant loop removed: ${loops.value[id]?.tag ?? ''}`, (draft) => removeLoop(draft, id));
  }
  return { loops, ids, loopId, loop, answer, answerOf, pick, add, remove };
}

export const caseTitles: Record<CoolingCase, string> = {
  hill: 'Hill, hottest day',
  fast: 'Fast charge',
  home: 'Charge at home',
};
