<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import type { Vector } from '@torvek/core/math';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { taped, tapeMm } from '@torvek/core/routing';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { useJob } from '../../../stores/job';
import { lowOrHigh, tapesFor } from './tapes';

/** Places a point by its distances from three marks of the body, as they are read off a tape. */
const props = defineProps<{ runId: Id; point: number }>();
const job = useJob();
type Marks = [Vector, Vector, Vector];
type Tapes = [number, number, number];
const marks = computed(() =>
  Object.entries(job.design.datums ?? {}).flatMap(([id, { tag, xM, yM, zM }]) =>
    xM === undefined || yM === undefined || zM === undefined ? [] : [{ id, tag, at: [xM, yM, zM] as Vector }],
  ),
);
const own = computed(() => job.design.runs?.[props.runId]?.points?.[props.point]);
const rows = reactive(
  tapesFor(
    own.value?.taped,
    marks.value.map(({ id }) => id),
  ),
);
const offText = ref(String(tapeMm));
const side = ref<0 | 1 | null>(null);
const open = ref((own.value?.taped?.length ?? 0) > 0);

const read = computed(() => rows.map(({ text }) => parseQuantity(text, 'm')));
const off = computed(() => parseQuantity(offText.value, 'mm'));
const found = computed(() => {
  const three = rows.map(({ datum }) => marks.value.find(({ id }) => id === datum));
  if (three.some((one) => one === undefined) || new Set(three).size < 3)
    return { ok: false as const, message: 'choose three marks, each once' };
  if (rows.some(({ text }) => text.trim() === ''))
    return { ok: false as const, message: 'a distance from each of the three' };
  if (!off.value.ok || !(off.value.value > 0))
    return { ok: false as const, message: 'what the tape reads to, in mm' };
  const tapes = read.value.map((one) => (one.ok ? one.value : null));
  const bad = tapes.findIndex((one) => one === null);
  if (bad >= 0) return { ok: false as const, message: `the distance from ${three[bad]!.tag} is no length` };
  return taped(three.map((one) => one!.at) as Marks, tapes as Tapes, off.value.value);
});
/** Of both sides the one that was chosen, else the nearer to where the point is now. */
const chosen = computed((): 0 | 1 =>
  found.value.ok ? (side.value ?? lowOrHigh(found.value.places, own.value)) : 0,
);
const say = (place: readonly number[]) => place.map((one) => formatNumber(one, 4)).join(' / ');

function take(): void {
  const answer = found.value;
  if (!answer.ok) return;
  const place = answer.places[chosen.value];
  const tapes = rows.map(({ datum }, i) => {
    const one = read.value[i]!;
    return { datum, distanceM: one.ok ? one.value : 0 };
  });
  const tolMm = Number(answer.tolMm[chosen.value].toFixed(1));
  job.change(
    `Point ${props.point + 1} of ${job.design.runs?.[props.runId]?.tag ?? ''}: by the tape`,
    (draft) => {
      const point = draft.runs?.[props.runId]?.points?.[props.point];
      if (point === undefined) return;
      [point.xM, point.yM, point.zM] = place.map((one) => Number(one.toFixed(4)));
      point.tolMm = tolMm;
      point.taped = tapes;
    },
  );
}
</script>

<template>
  <details class="tape" :open="open" data-tape>
    <summary>Point {{ point + 1 }} by the tape</summary>
    <p v-if="marks.length < 3" class="soft">
      Three marks of the body with a place are needed; there are {{ marks.length }}. They are given under
      <RouterLink :to="{ name: 'route', params: { job: job.id }, query: { panel: 'lines' } }"
        >Lines, zones and places</RouterLink
      >.
    </p>
    <template v-else>
      <div v-for="(row, i) in rows" :key="i" class="row">
        <select v-model="row.datum" class="form-select" :aria-label="`Mark ${i + 1}`">
          <option v-for="one in marks" :key="one.id" :value="one.id">{{ one.tag }}</option>
        </select>
        <input
          v-model="row.text"
          class="form-control"
          inputmode="decimal"
          maxlength="20"
          autocomplete="off"
          :aria-label="`Distance from mark ${i + 1}, m`"
        />
        <span class="soft">m</span>
      </div>
      <div class="row">
        <label :for="`off-${runId}`" class="off">The tape reads to, give or take</label>
        <input
          :id="`off-${runId}`"
          v-model="offText"
          class="form-control"
          inputmode="decimal"
          maxlength="20"
          autocomplete="off"
        />
        <span class="soft">mm</span>
      </div>
      <p v-if="!found.ok" class="soft" role="status">Not placed yet: {{ found.message }}.</p>
      <template v-else>
        <div role="radiogroup" aria-label="Which of both places">
          <label v-for="i in [0, 1] as const" :key="i" class="side">
            <input
              type="radio"
              class="form-check-input"
              :name="`side-${runId}`"
              :checked="chosen === i"
              @change="side = i"
            />
            {{ i === 0 ? 'the higher' : 'the lower' }}: {{ say(found.places[i]) }} m,
            <b>± {{ formatNumber(found.tolMm[i]) }} mm</b>
          </label>
        </div>
        <BButton size="sm" variant="primary" :disabled="!job.editable" @click="take"
          >Place the point there</BButton
        >
      </template>
    </template>
  </details>
</template>

<style scoped>
.tape {
  margin-top: 0.6rem;
  font-size: 0.9rem;
}

.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 5.4rem 1.6rem;
  gap: 0.3rem 0.4rem;
  align-items: center;
  max-width: 30rem;
  margin-top: 0.25rem;
}

.row input {
  text-align: right;
}

.off {
  text-align: right;
}

.side {
  display: flex;
  gap: 0.4rem;
  align-items: baseline;
  margin-top: 0.3rem;
}

p {
  margin: 0.4rem 0 0;
}

.btn {
  margin-top: 0.4rem;
}
</style>
