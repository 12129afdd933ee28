<script setup lang="ts">
import type { Design, Id } from '@torvek/core/document';
import { gapText } from '@torvek/core/figure';
import { proposeInputOf, type Proposal } from '@torvek/core/routing';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { proxy, wrap, type Remote } from 'comlink';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { useJob } from '../../../stores/job';
import type { WaysDoor } from '../../../workers/ways.worker';

/** Ways between the two ends of a run, searched for in a worker; each is seen in the views before it is taken. */
const props = defineProps<{ runId: Id }>();
const job = useJob();
const needs = computed(() => proposeInputOf(job.committed, props.runId));
const state = ref<'idle' | 'busy' | 'done' | 'stopped'>('idle');
const fraction = ref(0);
const found = shallowRef<Proposal[]>([]);
const shown = ref<number | null>(null);
let worker: Worker | null = null;
let door: Remote<WaysDoor> | null = null;
let asked = '';

async function search(): Promise<void> {
  const { input } = needs.value;
  if (input === null) return;
  if (door === null) {
    worker = new Worker(new URL('../../../workers/ways.worker.ts', import.meta.url), { type: 'module' });
    door = wrap<WaysDoor>(worker);
  }
  asked = JSON.stringify(input);
  state.value = 'busy';
  fraction.value = 0;
  found.value = [];
  show(null);
  const own = asked;
  const ways = await door.search(
    JSON.parse(asked) as typeof input,
    proxy((share: number) => (fraction.value = share)),
  );
  // Whoever changed the run meanwhile asks anew.
  if (ways === null || own !== asked) return;
  found.value = ways;
  state.value = 'done';
}
function stop(): void {
  void door?.stop();
  state.value = 'stopped';
}
/** The points of a proposal; what lies between them lies as the first leg did. */
function lay(draft: Design, { points, out }: Proposal): void {
  for (const zone of out) if (draft.zones?.[zone] !== undefined) draft.zones[zone].staysOut = true;
  const run = draft.runs?.[props.runId];
  if (run === undefined) return;
  const after = run.points?.[0]?.after;
  run.points = points.map(([xM, yM, zM], i) => ({
    xM,
    yM,
    zM,
    ...(i === 0 && after !== undefined && { after }),
  }));
  run.bendRadiusMm ??= (needs.value.input?.bendRadiusM ?? 0.1) * 1000;
}
function show(index: number | null): void {
  shown.value = index;
  const one = index === null ? undefined : found.value[index];
  job.preview(one === undefined ? null : (draft) => lay(draft, one));
}
function take(one: Proposal): void {
  show(null);
  job.change(`Way of ${job.design.runs?.[props.runId]?.tag ?? ''}: ${one.says}`, (draft) => lay(draft, one));
  close();
}
function close(): void {
  show(null);
  found.value = [];
  state.value = 'idle';
}
/** Ways between other ends, or around other things than there are, help nobody. */
watch([() => job.committed, () => props.runId], () => {
  if (state.value === 'idle') return;
  const { input } = needs.value;
  if (input !== null && JSON.stringify(input) === asked) return;
  if (state.value === 'busy') stop();
  asked = '';
  close();
});
onBeforeUnmount(() => {
  if (shown.value !== null) job.preview(null);
  worker?.terminate();
});
</script>

<template>
  <div class="ways" data-ways>
    <div class="ask">
      <BButton
        v-if="state !== 'busy'"
        size="sm"
        variant="light"
        :disabled="needs.input === null || !job.editable"
        @click="search"
        >Propose a way</BButton
      >
      <template v-else>
        <progress :value="fraction" max="1" aria-label="Search for ways" />
        <BButton size="sm" variant="light" @click="stop">Cancel</BButton>
      </template>
      <span v-if="needs.input === null" class="soft"
        >between its two ends, as soon as is given: {{ needs.gaps.map(gapText).join('; ') }}</span
      >
      <span v-else-if="state === 'idle'" class="soft"
        >around boxes and lines, along corridors, from its first point to its last</span
      >
      <span v-else-if="state === 'stopped'" class="soft" role="status">Cancelled.</span>
      <span v-else-if="state === 'done' && found.length === 0" role="status"
        >No way that holds: its ends may lie too near to something, or all between them is taken.</span
      >
    </div>
    <p v-if="state === 'done' && needs.unseen.length > 0" class="unseen" data-unseen>
      Not kept away from, for they have no place yet: {{ needs.unseen.join(', ') }}. See
      <RouterLink :to="{ name: 'route', params: { job: job.id }, query: { panel: 'lines' } }"
        >Lines, zones and places</RouterLink
      >.
    </p>
    <ol v-if="found.length > 0" class="found">
      <li v-for="(one, i) in found" :key="i" :class="{ picked: i === shown }">
        <span>{{ one.says }}</span>
        <button
          type="button"
          class="btn btn-sm btn-light"
          :aria-pressed="i === shown"
          :aria-label="`Show way ${i + 1}`"
          @click="show(i === shown ? null : i)"
        >
          {{ i === shown ? 'Hide' : 'Show' }}
        </button>
        <BButton size="sm" variant="primary" :aria-label="`Take way ${i + 1}`" @click="take(one)"
          >Take</BButton
        >
      </li>
      <li>
        <span class="soft"
          >Found on a grid of 50 mm, held against everything a run is judged by; whoever crawls under the
          vehicle knows more.</span
        >
        <button type="button" class="btn btn-sm btn-light" @click="close">Close</button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.ways {
  margin-bottom: 0.4rem;
}

.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 0.8rem;
  align-items: center;
  font-size: 0.9rem;
}

.unseen {
  margin: 0.3rem 0 0;
  font-size: 0.9rem;
  color: var(--tv-mend);
}

.found {
  list-style: none;
  padding: 0;
  margin: 0.3rem 0 0;
}

.found li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 0.5rem;
  align-items: center;
  padding: 0.15rem 0.3rem;
  font-size: 0.9rem;
}

.picked {
  background: var(--tv-pick);
}
</style>
