<script setup lang="ts">
import type { BatchScores } from '@torvek/core/balance';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../../parts/plot/echarts';

/** One quantity over the batch: a point for each module, the median, and where outliers begin. */
const props = defineProps<{
  title: string;
  unit: string;
  /** Stored value over shown value. */
  scale: number;
  points: { id: string; tag: string; value: number; outlier: boolean }[];
  scores: BatchScores;
  picked: string | null;
}>();
const emit = defineEmits<{ pick: [id: string] }>();
const outliers = computed(() => props.points.filter(({ outlier }) => outlier));
const shown = (value: number) => value / props.scale;
const summary = computed(() => {
  const { median } = props.scores;
  if (median === null) return `${props.title}: nothing measured yet.`;
  const out = outliers.value.length;
  return `${props.points.length} modules, median ${formatNumber(shown(median), 5)} ${props.unit}; ${
    props.scores.bounds === null
      ? 'too few for a rule on outliers.'
      : out === 0
        ? 'no outlier.'
        : `${out === 1 ? 'one outlier' : `${out} outliers`}: ${outliers.value
            .slice(0, 5)
            .map(({ tag }) => tag)
            .join(', ')}.`
  }`;
});
const options = computed(() => {
  const { points, scores, picked, title, unit } = props;
  return () => ({
    grid: { left: 46, right: 24, top: 34, bottom: 42 },
    tooltip: { trigger: 'item', renderMode: 'richText' },
    xAxis: axis('x', { name: 'module, in order of the strings', min: 0, max: points.length + 1 }),
    yAxis: { ...axis('y', { name: `${title}, ${unit}` }), scale: true },
    series: [
      {
        id: 'modules',
        type: 'scatter',
        name: title,
        data: points.map(({ id, tag, value, outlier }, i) => ({
          name: id,
          value: [i + 1, shown(value)],
          symbol: outlier ? 'diamond' : 'circle',
          symbolSize: id === picked ? 15 : outlier ? 13 : 8,
          itemStyle: {
            color: token(outlier ? 'stop' : 'act'),
            borderColor: token('ink'),
            borderWidth: id === picked ? 2.5 : 0,
          },
          label: {
            show: outlier || id === picked,
            formatter: tag,
            position: 'top',
            color: token('ink'),
            fontSize: 12,
          },
        })),
        tooltip: {
          formatter: (at: { dataIndex: number }) => {
            const point = points[at.dataIndex]!;
            return `${point.tag}: ${formatNumber(shown(point.value), 5)} ${unit}`;
          },
        },
        markLine: {
          precision: 12,
          symbol: 'none',
          silent: true,
          data: [
            ...(scores.median === null
              ? []
              : [limitLine({ y: shown(scores.median) }, 'median', token('note'), 'insideEndTop')]),
            ...(scores.bounds ?? []).flatMap((bound, i) =>
              !Number.isFinite(bound)
                ? []
                : limitLine(
                    { y: shown(bound) },
                    'outliers beyond',
                    token('stop'),
                    i === 0 ? 'insideStartBottom' : 'insideStartTop',
                  ),
            ),
          ],
        },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['module', `${props.title}, ${props.unit}`, 'score'],
  rows: props.points.map(({ tag, value }, i) => [
    tag,
    formatNumber(shown(value), 5),
    props.scores.scores[i] == null ? '—' : formatNumber(props.scores.scores[i], 2),
  ]),
}));
</script>

<template>
  <PlotView
    v-if="points.length > 0"
    :options="options"
    :summary="summary"
    :height="220"
    :table="table"
    @press="emit('pick', $event)"
  />
  <p v-else class="panel-empty">No {{ title }} yet: type or paste readings into the table.</p>
</template>
