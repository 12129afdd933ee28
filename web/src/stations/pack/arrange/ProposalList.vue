<script setup lang="ts">
import { arrangeInputOf, takeArrangement, type Arrangement, type ArrangeResult } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { proxy, wrap, type Remote } from 'comlink';
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import GapLink from '../../../parts/GapLink.vue';
import { useJob } from '../../../stores/job';
import type { ArrangeDoor } from '../../../workers/arrange.worker';
import { explain } from './explain';

/** Arrangements that fit, ranked by shift, joints between boxes and spare room; searched for in a worker. */
const job = useJob();
const needs = computed(() => arrangeInputOf(job.committed));
const state = ref<'idle' | 'busy' | 'done' | 'stopped'>('idle');
const fraction = ref(0);
const seen = ref(0);
const result = shallowRef<ArrangeResult | null>(null);
const previewed = ref<number | null>(null);
let worker: Worker | null = null;
let door: Remote<ArrangeDoor> | null = null;
let asked = '';

async function search(): Promise<void> {
  const { input } = needs.value;
  if (input === null) return;
  if (door === null) {
    worker = new Worker(new URL('../../../workers/arrange.worker.ts', import.meta.url), { type: 'module' });
    door = wrap<ArrangeDoor>(worker);
  }
  asked = JSON.stringify(input);
  state.value = 'busy';
  fraction.value = 0;
  seen.value = 0;
  result.value = null;
  previewed.value = null;
  // Through text: the store's reactive objects cannot be posted.
  const found = await door.search(
    JSON.parse(asked) as typeof input,
    proxy((share: number, feasible: number) => {
      fraction.value = share;
      seen.value = feasible;
    }),
  );
  if (found === null) return;
  result.value = found;
  state.value = 'done';
}

function stop(): void {
  void door?.stop();
  state.value = 'stopped';
}

function preview(index: number | null): void {
  previewed.value = index;
  const one = index === null ? undefined : result.value?.best[index];
  job.preview(one === undefined ? null : (draft) => takeArrangement(draft, one));
}

function take(one: Arrangement): void {
  preview(null);
  job.change(`Arrangement: ${explain(one, job.committed).split}`, (draft) => takeArrangement(draft, one));
}

function close(): void {
  preview(null);
  result.value = null;
  state.value = 'idle';
}

/** Proposals for another pack than the one shown help nobody. */
watch(
  () => job.committed,
  () => {
    if (result.value === null) return;
    const { input } = needs.value;
    if (input === null || JSON.stringify(input) !== asked) close();
  },
);
onBeforeUnmount(() => {
  if (previewed.value !== null) job.preview(null);
  worker?.terminate();
});
const kept = computed(
  () =>
    Object.values(job.design.modules).filter(({ stays, box }) => stays === true && box !== undefined).length,
);
const rows = computed(() =>
  (result.value?.best ?? []).map((one) => ({ one, ...explain(one, job.committed) })),
);
</script>

<template>
  <div class="proposals">
    <div class="ask">
      <button
        v-if="state !== 'busy'"
        type="button"
        class="btn btn-primary btn-sm"
        :disabled="needs.input === null || !job.editable"
        @click="search"
      >
        Propose arrangements
      </button>
      <template v-else>
        <progress :value="fraction" max="1" aria-label="Search" />
        <span>{{ seen }} that fit so far</span>
        <button type="button" class="btn btn-quiet btn-sm" @click="stop">Cancel</button>
      </template>
      <span v-if="state === 'stopped'" class="soft" role="status">Cancelled.</span>
      <span v-if="state === 'done' && result" role="status"
        ><b>{{ result.feasible }}</b> {{ result.feasible === 1 ? 'division fits' : 'divisions fit'
        }}{{
          result.feasible > rows.length ? `; the best ${rows.length}:` : result.feasible === 0 ? '.' : ':'
        }}</span
      >
      <span v-if="state === 'done' && result && result.tooHeavy > 0" class="soft" data-too-heavy
        >{{ result.tooHeavy }} more
        {{ result.tooHeavy === 1 ? 'fits its boxes and loads' : 'fit their boxes and load' }} an axle beyond
        its limit</span
      >
      <span v-if="kept > 0" class="soft"
        >{{ kept }} {{ kept === 1 ? 'module stays' : 'modules stay' }} in
        {{ kept === 1 ? 'its box' : 'their boxes' }}</span
      >
      <button v-if="rows.length > 0" type="button" class="btn btn-quiet btn-sm" @click="close">
        put away
      </button>
    </div>
    <p v-if="needs.input === null" class="soft">
      Not proposed, because these are missing:
      <template v-for="(gap, i) in needs.gaps.slice(0, 4)" :key="i"
        >{{ i > 0 ? ', ' : '' }}<GapLink :gap="gap" /></template
      >{{ needs.gaps.length > 4 ? ` and ${needs.gaps.length - 4} more` : '' }}.
    </p>
    <p v-if="state === 'done' && rows.length === 0">
      {{
        (result?.tooHeavy ?? 0) > 0
          ? 'Every division that fits its boxes loads an axle beyond its limit. Lighter modules, or boxes at other places, would do.'
          : 'No division of these modules over these boxes fits in rows, turned in plan. Larger boxes or another module would.'
      }}
    </p>
    <table v-if="rows.length > 0" class="list" aria-label="Proposals">
      <thead>
        <tr>
          <th>Division</th>
          <th class="n">shift, points</th>
          <th class="n">box to box</th>
          <th class="n">cable, m</th>
          <th class="n">spare, %</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in rows" :key="i" :class="{ shown: previewed === i }" :data-proposal="i">
          <td>
            <b>{{ row.split }}</b>
            <small>{{ row.why }}</small>
          </td>
          <td class="n">{{ formatNumber(row.one.shiftPoints, 3) }}</td>
          <td class="n">{{ row.one.linksBetween }}</td>
          <td class="n">{{ formatNumber(row.one.linkWayM, 3) }}</td>
          <td class="n">{{ formatNumber(row.one.spareFraction * 100, 2) }}</td>
          <td class="acts">
            <button
              type="button"
              class="btn btn-quiet btn-sm"
              :aria-pressed="previewed === i"
              @click="preview(previewed === i ? null : i)"
            >
              {{ previewed === i ? 'shown' : 'show' }}
            </button>
            <button type="button" class="btn btn-quiet btn-sm" @click="take(row.one)">take</button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.proposals {
  border-top: 1px solid var(--tv-line);
  margin-top: 0.4rem;
  padding-top: 0.5rem;
}

.ask {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  flex-wrap: wrap;
}

progress {
  width: 14rem;
}

.list {
  width: 100%;
  margin-top: 0.4rem;
}

.list th {
  font-weight: 400;
  color: var(--tv-soft);
  font-size: 0.85rem;
}

.list td,
.list th {
  padding: 0.2rem 0.4rem;
  border-bottom: 1px solid var(--tv-line);
}

.list small {
  display: block;
  color: var(--tv-soft);
}

.n {
  text-align: right;
}

.acts {
  white-space: nowrap;
  text-align: right;
}

.shown {
  background: var(--tv-pick);
}
</style>
