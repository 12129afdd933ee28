<script setup lang="ts">
import { donorReadings } from '@torvek/core/monitoring';
import { packLayout } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import { token } from '../../../parts/plot/echarts';
import PlotView from '../../../parts/plot/PlotView.vue';
import { useJob } from '../../../stores/job';

/** What is so against what the donor’s monitor tells, over the charge. */
const job = useJob();
const what = ref<'charge' | 'voltage'>('charge');
const readings = computed(() => {
  const { layout } = packLayout(job.design);
  return layout === null ? null : donorReadings(layout, job.design.sensing ?? {});
});
const lines = computed(() => {
  const now = readings.value;
  if (now === null) return { true: [], told: [] };
  return what.value === 'charge'
    ? {
        true: now.charge.map(([at]) => [at * 100, at * 100]),
        told: now.charge.map(([at, told]) => [at * 100, told * 100]),
      }
    : {
        true: now.voltage.map(([at, volts]) => [at * 100, volts]),
        told: now.voltage.map(([at, , told]) => [at * 100, told]),
      };
});
const unit = computed(() => (what.value === 'charge' ? '%' : 'V'));
const options = () => {
  const line = (name: string, data: number[][], type: string, colour: string) => ({
    name,
    type: 'line',
    showSymbol: false,
    data,
    lineStyle: { color: colour, width: 2, type },
    itemStyle: { color: colour },
  });
  return {
    legend: { top: 0, right: 10, textStyle: { color: token('ink') } },
    grid: { left: 58, right: 30, top: 30, bottom: 42 },
    xAxis: {
      type: 'value',
      name: 'true state of charge, %',
      nameLocation: 'middle',
      nameGap: 26,
      min: 0,
      max: 100,
    },
    yAxis: {
      type: 'value',
      name: what.value === 'charge' ? 'state of charge, %' : 'pack voltage, V',
      scale: what.value === 'voltage',
    },
    series: [
      line('as it is', lines.value.true, 'solid', token('ink')),
      line('as told', lines.value.told, 'dashed', token('mend')),
    ],
  };
};
const summary = computed(() => {
  const now = readings.value;
  if (now === null) return '';
  const empty = now.emptyAtFraction;
  const half = now.charge[Math.floor(now.charge.length / 2)]!;
  return what.value === 'voltage'
    ? `At half charge it tells ${formatNumber(now.voltage[Math.floor(now.voltage.length / 2)]![2], 3)} V of ${formatNumber(now.voltage[Math.floor(now.voltage.length / 2)]![1], 3)} V.`
    : `At half charge it tells ${formatNumber(half[1] * 100, 3)} %.${empty === null ? '' : ` It tells empty with ${formatNumber(empty * 100, 3)} % left.`}`;
});
const table = computed(() => ({
  columns: ['true, %', `as it is, ${unit.value}`, `as told, ${unit.value}`],
  rows: lines.value.true.map(([x, y], i) => [
    formatNumber(x!, 3),
    formatNumber(y!, 4),
    formatNumber(lines.value.told[i]![1]!, 4),
  ]),
}));
</script>

<template>
  <div v-if="readings" data-donor-plot>
    <div class="chips" role="group" aria-label="Reading">
      <button
        v-for="one in ['charge', 'voltage'] as const"
        :key="one"
        type="button"
        class="btn btn-sm"
        :class="one === what ? 'btn-primary' : 'btn-light'"
        :aria-pressed="one === what"
        @click="what = one"
      >
        {{ one === 'charge' ? 'State of charge' : 'Pack voltage' }}
      </button>
    </div>
    <PlotView :options="options" :summary="summary" :height="230" :table="table" />
  </div>
</template>

<style scoped>
.chips {
  display: flex;
  gap: 0.3rem;
  margin: 0.3rem 0;
}
</style>
