import type { BmsMapInput, BmsMapResult } from '@torvek/core/monitoring';
import { boardsOf, harnessOf } from '@torvek/core/monitoring';
import type { Id } from '@torvek/core/document';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useJob } from '../../stores/job';

/** The string that is looked at, its map, and its boards. */
export function useMap() {
  const job = useJob();
  const route = useRoute();
  const router = useRouter();
  const strings = computed(() =>
    Object.entries(job.design.strings)
      .filter(([, { modules }]) => modules.length > 0)
      .map(([id, { tag }]) => ({ id, tag })),
  );
  const asked = computed(() => {
    if (typeof route.query.string === 'string') return route.query.string;
    const [root, id = ''] = typeof route.query.at === 'string' ? route.query.at.split('.') : [];
    return root === 'boards' ? (job.design.boards?.[id]?.string ?? '') : '';
  });
  const stringId = computed(() =>
    strings.value.some(({ id }) => id === asked.value) ? asked.value : (strings.value[0]?.id ?? ''),
  );
  const run = computed(() => job.evaluation.runs[`monitoring.map:${stringId.value}`]);
  const input = computed(() => (run.value?.input as BmsMapInput | undefined) ?? null);
  const result = computed(() => (run.value?.result as BmsMapResult | null | undefined) ?? null);
  const boards = computed(() => boardsOf({ boards: job.design.boards ?? {} }, stringId.value));
  const wires = computed(() => harnessOf(result.value?.boards ?? []));
  const boardTag = (id: Id) => job.design.boards?.[id]?.tag ?? id;
  const moduleTag = (id: Id) => job.design.modules[id]?.tag ?? id;
  const pick = (id: Id) => void router.replace({ query: { ...route.query, at: undefined, string: id } });
  return { strings, stringId, input, result, boards, wires, boardTag, moduleTag, pick };
}
