import { removeRun, runGeometry, type Id, type RunItem } from '@torvek/core/document';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';

/** The run that is looked at, by the address; and what is done to runs as such. */
export function useRuns() {
  const job = useJob();
  const route = useRoute();
  const router = useRouter();
  const runs = computed(() => job.design.runs ?? {});
  const ids = computed(() => Object.keys(runs.value));
  const asked = computed(() => {
    if (typeof route.query.run === 'string') return route.query.run;
    const at = typeof route.query.at === 'string' ? route.query.at : '';
    return at.startsWith('runs.') ? at.split('.')[1]! : '';
  });
  const runId = computed(() => (ids.value.includes(asked.value) ? asked.value : (ids.value[0] ?? '')));
  const run = computed((): RunItem | undefined => runs.value[runId.value]);
  const geometry = computed(() => (run.value === undefined ? null : runGeometry(run.value)));
  const pick = (id: Id) => void router.replace({ query: { ...route.query, at: undefined, run: id } });

  function add(): void {
    const id = newId('run');
    job.change('Run added', (draft) => {
      const count = Object.keys((draft.runs ??= {})).length;
      draft.runs[id] = { tag: `Run ${count + 1}` };
    });
    pick(id);
  }
  function remove(id: Id): void {
    job.change(`Run removed: ${runs.value[id]?.tag ?? ''}`, (draft) => {
      removeRun(draft, id);
    });
  }
  return { runs, ids, runId, run, geometry, pick, add, remove };
}
