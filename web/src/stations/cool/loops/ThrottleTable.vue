<script setup lang="ts">
import { imbalanceAbove, type LoopAnswer } from '@torvek/core/cooling';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';

/** Plates of one kind that share unevenly: what each gets, and the throttle that would even them out. */
const props = defineProps<{ answer: LoopAnswer }>();
const job = useJob();
const groups = computed(() =>
  props.answer.balance.flatMap(({ result }) =>
    result.worstImbalanceFraction === null || result.worstImbalanceFraction <= imbalanceAbove
      ? []
      : [
          {
            part: job.design.parts[job.design.plumbing?.[result.shares[0]!.id]?.plate ?? '']?.label ?? '',
            rows: result.shares.map(({ id, flowLPerMin, ratioToMean }) => ({
              id,
              tag: job.design.plumbing?.[id]?.tag ?? id,
              flow: Math.abs(flowLPerMin),
              ratio: ratioToMean!,
              add: result.balancingKPa.find((one) => one.id === id)?.addKPa ?? null,
            })),
          },
        ],
  ),
);
const n = (value: number) => formatNumber(value, 3);
</script>

<template>
  <details v-for="group in groups" :key="group.part" class="throttles" data-throttles>
    <summary>
      Uneven: {{ group.rows.length }} × {{ group.part }}. What a throttle in each would have to take
    </summary>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">plate</th>
          <th scope="col" class="num">L/min</th>
          <th scope="col" class="num">of the mean</th>
          <th scope="col" class="num">throttle, kPa at the mean</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in group.rows" :key="row.id">
          <th scope="row">{{ row.tag }}</th>
          <td class="num">{{ n(row.flow) }}</td>
          <td class="num">{{ Math.round(100 * row.ratio) }} %</td>
          <td class="num">{{ row.add === null ? 'not computed' : row.add < 0.05 ? 'none' : n(row.add) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      Headers wider, or a reverse return, even it out without throttles: try it before drilling discs.
    </p>
  </details>
</template>

<style scoped>
.throttles {
  margin: 0.4rem 0;
}

.throttles summary {
  cursor: pointer;
  font-size: 0.9rem;
}

.throttles table {
  width: auto;
  min-width: 28rem;
}
</style>
