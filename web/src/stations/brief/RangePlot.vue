<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { range, type RoadLoadInput } from '@torvek/core/vehicle';
import { computed } from 'vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';

/** Range over steady speed by both schools. */
const job = useJob();
const run = computed(
  () => job.evaluation.runs['vehicle.range:road-load']?.input as RoadLoadInput | undefined,
);
const massRule = computed(() => job.figure('vehicle.range:mass-rule:rangeKm')?.value ?? null);
const wanted = computed(() => job.design.vehicle.wantedRangeKm);
const points = computed<[number, number][]>(() => {
  const input = run.value;
  if (input === undefined) return [];
  const top = Math.max(110, Math.ceil(input.speedKmH / 10) * 10 + 10);
  return Array.from({ length: 46 }, (_, i) => 10 + ((top - 10) * i) / 45).flatMap(
    (speedKmH): [number, number][] => {
      const { rangeKm } = range.calculate({ ...input, speedKmH }).result;
      return rangeKm === null ? [] : [[speedKmH, rangeKm]];
    },
  );
});
const here = computed(() => job.figure('vehicle.range:road-load:rangeKm')?.value ?? null);
const summary = computed(() => {
  if (run.value === undefined) return 'Range over speed: not computed yet.';
  const mass =
    massRule.value === null
      ? ''
      : ` The mass rule says ${formatNumber(massRule.value)} km whatever the speed.`;
  return `By road load the range is ${here.value === null ? 'none' : `${formatNumber(here.value)} km`} at ${formatNumber(run.value.speedKmH)} km/h.${mass}`;
});
const options = computed(() => {
  const data = points.value;
  const mass = massRule.value;
  const want = wanted.value;
  const speed = run.value?.speedKmH;
  const at = here.value;
  return () => ({
    xAxis: axis('x', { name: 'steady speed, km/h', min: 10, max: data.at(-1)?.[0] }),
    yAxis: axis('y', { name: 'range, km', min: 0 }),
    series: [
      {
        id: 'road',
        type: 'line',
        name: 'road load, km',
        data,
        showSymbol: false,
        lineStyle: { color: token('act'), width: 2.5 },
        itemStyle: { color: token('act') },
        tooltip: { valueFormatter: (value: unknown) => formatNumber(Number(value)) },
        markLine: {
          precision: 12,
          symbol: 'none',
          silent: true,
          data: [
            ...(mass === null ? [] : [limitLine({ y: mass }, 'mass rule', token('note'), 'insideEndTop')]),
            ...(want === undefined
              ? []
              : [limitLine({ y: want }, 'wanted', token('mend'), 'insideStartTop')]),
          ],
        },
      },
      {
        id: 'here',
        type: 'scatter',
        name: 'brief',
        data: speed !== undefined && at !== null ? [[speed, at]] : [],
        symbolSize: 11,
        itemStyle: { color: token('ink') },
        label: {
          show: true,
          formatter: () => `${formatNumber(at ?? 0)} km`,
          position: 'top',
          color: token('ink'),
          fontSize: 12,
        },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['speed, km/h', 'range by road load, km', 'range by mass rule, km'],
  rows: points.value
    .filter((_, i) => i % 5 === 0)
    .map(([speed, km]) => [
      formatNumber(speed),
      formatNumber(km),
      massRule.value === null ? '—' : formatNumber(massRule.value),
    ]),
}));
</script>

<template>
  <PlotView v-if="run !== undefined" :options="options" :summary="summary" :height="220" :table="table" />
  <p v-else class="panel-empty">
    Range over speed is drawn as soon as the pack, the masses and the road load’s five numbers are given.
  </p>
</template>
