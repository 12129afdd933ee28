<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import type { HoldAnswer, RouteResult } from '@torvek/core/routing';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import FigureValue from '../../../parts/FigureValue.vue';
import { useJob } from '../../../stores/job';
import { saveCsv } from '../../../parts/save-csv';
import { clipRows } from '../tables';

/** Where the clips of a run go. */
const props = defineProps<{ runId: Id }>();
const job = useJob();
const tag = computed(() => job.design.runs?.[props.runId]?.tag ?? '');
const clips = computed(
  () =>
    (job.evaluation.runs[`routing.run:${props.runId}`]?.result as RouteResult | null | undefined)?.clips ??
    [],
);
/** Where nothing is drilled: what is there and holds it. */
const hold = computed(
  () => (job.evaluation.runs[`routing.hold:${props.runId}`]?.result as HoldAnswer | undefined) ?? null,
);
const held = computed(() =>
  (hold.value?.held ?? []).map(({ atM, by }) => `${by} (${formatNumber(atM, 3)} m)`).join(', '),
);
const at = (value: number) => value.toFixed(3);
</script>

<template>
  <div v-if="hold !== null" data-hold>
    <FigureValue :id="figureId('routing.hold', runId, 'freeSpanM')" show-label />
    <p class="soft">No holes: held at {{ held }}.</p>
  </div>
  <details v-else-if="clips.length > 0" class="clips" data-clips>
    <summary>
      <b>{{ clips.length }}</b> clips,
      {{
        clips.length > 1
          ? `${formatNumber((clips[1]!.atM - clips[0]!.atM) * 1000)} mm apart`
          : 'in the middle'
      }}
    </summary>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">clip</th>
          <th scope="col" class="num">along, m</th>
          <th scope="col" class="num">ahead, m</th>
          <th scope="col" class="num">left, m</th>
          <th scope="col" class="num">up, m</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(clip, i) in clips" :key="i">
          <th scope="row">{{ i + 1 }}</th>
          <td class="num">{{ at(clip.atM) }}</td>
          <td v-for="axis in 3" :key="axis" class="num">{{ at(clip.position[axis - 1]!) }}</td>
        </tr>
      </tbody>
    </table>
    <button
      type="button"
      class="btn btn-sm btn-light"
      @click="saveCsv(job.name, 'clips', clipRows(tag, clips))"
    >
      Clips as CSV
    </button>
  </details>
  <p v-else class="soft">Clips are placed once every leg holds its bends.</p>
</template>

<style scoped>
.clips {
  margin-top: 0.6rem;
  font-size: 0.9rem;
}

.btn {
  margin-top: 0.3rem;
}
</style>
