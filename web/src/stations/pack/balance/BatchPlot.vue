<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../../../parts/plot/PlotView.vue';
import { axis, fontFamily, intervalBars, token } from '../../../parts/plot/echarts';
import type { BalanceRow } from './use-balance';
import { halfWidthMv, verdictText } from './words';

/** Where every resting cell will settle, with its interval, against the target. */
const props = defineProps<{
  rows: BalanceRow[];
  targetV: number;
  toleranceV: number;
  picked: string | null;
}>();
const emit = defineEmits<{ pick: [cell: string] }>();
const mV = (volts: number) => (volts - props.targetV) * 1000;
const points = computed(() =>
  props.rows.flatMap((row, i) =>
    row.phase === 'resting' && row.outlook.settledV !== null
      ? [{ row, i: i + 1, off: mV(row.outlook.settledV), low: row.outlook.lowV, high: row.outlook.highV }]
      : [],
  ),
);
const reach = computed(() => {
  const band = props.toleranceV * 1000;
  const most = Math.max(band * 1.6, ...points.value.map(({ off }) => Math.abs(off) * 1.25));
  const step = 10 ** Math.floor(Math.log10(most));
  return ([1, 2, 4, 6, 8].find((one) => one * step >= Math.min(most, band * 12)) ?? 10) * step;
});
const outside = computed(() => points.value.filter(({ off }) => Math.abs(off) > props.toleranceV * 1000));
const summary = computed(() => {
  if (points.value.length === 0) return 'No rest can be predicted yet: six readings of a cell are needed.';
  const offs = points.value.map(({ off }) => off);
  return `${points.value.length} ${points.value.length === 1 ? 'cell settles' : 'cells settle'} between ${formatNumber(Math.min(...offs), 2)} and ${formatNumber(Math.max(...offs), 2)} mV from the target${
    outside.value.length === 0
      ? ', all inside.'
      : `; outside: ${outside.value
          .slice(0, 6)
          .map(({ row }) => row.tag)
          .join(', ')}.`
  }`;
});
const options = computed(() => {
  const { picked, toleranceV, rows } = props;
  const band = toleranceV * 1000;
  return () => ({
    grid: { left: 48, right: 20, top: 30, bottom: 40 },
    tooltip: { trigger: 'item', renderMode: 'richText' },
    xAxis: axis('x', { name: 'cell, in order of the strings', min: 0, max: rows.length + 1 }),
    yAxis: axis('y', { name: 'settles off the target, mV', min: -reach.value, max: reach.value }),
    series: [
      {
        id: 'intervals',
        type: 'custom',
        clip: true,
        silent: true,
        z: 1,
        data: points.value
          .filter(({ low, high }) => low !== null && high !== null)
          .map(({ i, low, high }) => [i, mV(low!), mV(high!)]),
        renderItem: intervalBars(token('soft'), 1.4, 3),
        encode: { x: 0, y: [1, 2] },
        markArea: {
          silent: true,
          itemStyle: { color: token('pass'), opacity: 0.14 },
          label: {
            show: true,
            position: 'insideTopLeft',
            color: token('pass'),
            fontFamily,
            fontSize: 12,
            formatter: `±${formatNumber(band)} mV`,
          },
          data: [[{ yAxis: -band }, { yAxis: band }]],
        },
      },
      {
        id: 'cells',
        type: 'scatter',
        z: 3,
        data: points.value.map(({ row, i, off }) => {
          const { verdict } = row.outlook;
          const color = token(
            verdict === 'will settle inside' ? 'pass' : verdict === 'too early to tell' ? 'note' : 'stop',
          );
          const early = verdict === 'too early to tell';
          return {
            name: row.id,
            value: [i, Math.max(-reach.value, Math.min(reach.value, off))],
            symbol: verdict.includes('too high')
              ? 'triangle'
              : verdict.includes('too low')
                ? 'pin'
                : 'circle',
            symbolRotate: verdict.includes('too low') ? 180 : 0,
            symbolSize: row.id === picked ? 15 : 9,
            itemStyle: early
              ? { color: token('sheet'), borderColor: color, borderWidth: 2 }
              : { color, borderColor: token('ink'), borderWidth: row.id === picked ? 2 : 0 },
            label: {
              show: row.id === picked || verdict.includes('too high') || verdict.includes('too low'),
              formatter: row.tag,
              position: off > 0 ? 'top' : 'bottom',
              color: token('ink'),
              fontFamily,
              fontSize: 12,
            },
          };
        }),
        tooltip: {
          formatter: (at: { dataIndex: number }) => {
            const { row } = points.value[at.dataIndex]!;
            const half = halfWidthMv(row.outlook);
            return `${row.tag}: ${formatNumber(row.outlook.settledV!, 5)} V${half === null ? '' : ` ± ${formatNumber(half, 2)} mV`}, ${verdictText(row, row.outlook)}`;
          },
        },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['cell', 'settles at, V', '±, mV', 'verdict'],
  rows: points.value.map(({ row }) => {
    const half = halfWidthMv(row.outlook);
    return [
      row.tag,
      formatNumber(row.outlook.settledV!, 5),
      half === null ? '—' : formatNumber(half, 2),
      verdictText(row, row.outlook),
    ];
  }),
}));
</script>

<template>
  <PlotView
    :options="options"
    :summary="summary"
    :height="230"
    :table="table"
    @press="emit('pick', $event)"
  />
</template>
