<script setup lang="ts">
import { leastSamples, restCurve } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../../../parts/plot/PlotView.vue';
import { axis, fontFamily, intervalBars, token } from '../../../parts/plot/echarts';
import type { BalanceRow } from './use-balance';
import { halfWidthMv, verdictText } from './words';

/** The rest of one cell: readings, the fitted curve to its end, and where it settles with its interval. */
const props = defineProps<{
  row: BalanceRow;
  targetV: number | undefined;
  toleranceV: number;
  restHours: number;
}>();
const samples = computed(() => props.row.samples);
const fitted = computed(() => props.row.outlook.by === 'prediction');
const endH = computed(() => {
  const last = samples.value.at(-1)?.[0] ?? 0;
  return Math.max(props.restHours, last) * 1.04;
});
const curve = computed(() => {
  if (samples.value.length < leastSamples) return [];
  const hours = Array.from({ length: 90 }, (_, i) => endH.value * (i / 89) ** 2);
  return restCurve(samples.value, hours);
});
const summary = computed(() => {
  const { row } = props;
  const { outlook } = row;
  if (row.phase !== 'resting') return `${row.tag} does not rest now.`;
  const [hours, volts] = samples.value.at(-1) ?? [0, null];
  if (volts === null) return `${row.tag} rests and has not been read yet.`;
  const read = `${row.tag}: ${samples.value.length} ${samples.value.length === 1 ? 'reading' : 'readings'}, the last ${formatNumber(volts, 5)} V after ${formatNumber(hours)} h`;
  if (outlook.settledV === null)
    return `${read}; ${leastSamples - samples.value.length} more before its end can be predicted.`;
  const half = halfWidthMv(outlook);
  return `${read}; ${verdictText(row, outlook)}, at ${formatNumber(outlook.settledV, 5)} V${half === null || !fitted.value ? '' : ` ± ${formatNumber(half, 2)} mV`}${
    outlook.settledAfterH === null || outlook.by === 'rested out'
      ? ''
      : `, within 1 mV of it after ${formatNumber(outlook.settledAfterH, 2)} h`
  }.`;
});
const bounds = computed(() => {
  const { targetV, toleranceV, row } = props;
  const volts = samples.value.map(([, v]) => v);
  const all = [
    ...volts.slice(-Math.max(3, Math.ceil(volts.length * 0.9))),
    ...(row.outlook.settledV === null ? [] : [row.outlook.settledV]),
    ...(targetV === undefined ? [] : [targetV - 2 * toleranceV, targetV + 2 * toleranceV]),
  ];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const room = Math.max((high - low) * 0.08, 0.001);
  const step = 0.005;
  return { low: Math.floor((low - room) / step) * step, high: Math.ceil((high + room) / step) * step };
});
const options = computed(() => {
  const { targetV, toleranceV, row } = props;
  const { outlook } = row;
  const { low, high } = bounds.value;
  return () => ({
    grid: { left: 56, right: 92, top: 30, bottom: 40 },
    tooltip: { trigger: 'item', renderMode: 'richText' },
    xAxis: axis('x', { name: 'hours at rest', min: 0, max: Math.ceil(endH.value) }),
    yAxis: axis('y', { name: 'cell voltage, V', min: low, max: high, format: (v) => v.toFixed(3) }),
    series: [
      {
        id: 'fit',
        type: 'line',
        showSymbol: false,
        silent: true,
        data: curve.value,
        lineStyle: { color: token('act'), width: 2 },
        ...(targetV !== undefined && {
          markArea: {
            silent: true,
            itemStyle: { color: token('pass'), opacity: 0.14 },
            label: {
              show: true,
              position: 'insideTopLeft',
              color: token('pass'),
              fontFamily,
              fontSize: 12,
              formatter: `level: ${formatNumber(targetV, 4)} V ± ${formatNumber(toleranceV * 1000)} mV`,
            },
            data: [[{ yAxis: targetV - toleranceV }, { yAxis: targetV + toleranceV }]],
          },
        }),
        ...(outlook.settledV !== null && {
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              {
                yAxis: outlook.settledV,
                lineStyle: { color: token('ink'), type: 'dashed', width: 1.2 },
                label: {
                  position: 'end',
                  formatter: `${fitted.value ? 'settles' : 'settled'}\n${formatNumber(outlook.settledV, 5)} V`,
                  lineHeight: 15,
                  color: token('ink'),
                  fontFamily,
                  fontSize: 12,
                },
              },
            ],
          },
        }),
      },
      {
        id: 'interval',
        type: 'custom',
        clip: true,
        silent: true,
        data:
          outlook.lowV === null || outlook.highV === null || !fitted.value
            ? []
            : [[endH.value * 0.985, outlook.lowV, outlook.highV]],
        encode: { x: 0, y: [1, 2] },
        renderItem: intervalBars(token('ink'), 2, 5),
      },
      {
        id: 'readings',
        type: 'scatter',
        name: 'reading',
        symbolSize: 8,
        itemStyle: { color: token('act'), borderColor: token('sheet'), borderWidth: 1 },
        data: samples.value,
        tooltip: {
          formatter: (at: { dataIndex: number }) => {
            const [hours, volts] = samples.value[at.dataIndex]!;
            return `${formatNumber(hours)} h: ${formatNumber(volts, 5)} V`;
          },
        },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['hours at rest', 'V'],
  rows: samples.value.map(([hours, volts]) => [formatNumber(hours), formatNumber(volts, 5)]),
}));
</script>

<template>
  <PlotView v-if="samples.length > 0" :options="options" :summary="summary" :height="240" :table="table" />
  <p v-else class="panel-empty">{{ summary }}</p>
</template>
