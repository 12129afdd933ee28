<script setup lang="ts">
import { fieldValue, partFields, type Part } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../parts/plot/PlotView.vue';
import { axis, fontFamily, token } from '../parts/plot/echarts';
import { spreadLabels } from '../parts/plot/spread';
import { curveOf } from './key-figures';

/** The curves of one part, or of several beside each other, each labelled at its end. */
const props = defineProps<{ parts: readonly Part[]; height: number }>();
const field = computed(() => {
  const kind = props.parts[0]?.kind;
  const name = kind === undefined ? undefined : curveOf[kind];
  const found = kind === undefined ? undefined : partFields[kind].find((one) => one.name === name);
  return found?.kind === 'table' ? found : null;
});
const curves = computed(() =>
  field.value === null
    ? []
    : props.parts.flatMap((part) => {
        const rows = fieldValue(part.data, field.value!.name) as [number, number][] | undefined;
        return rows === undefined ? [] : [{ name: part.number, revision: part.revision, rows }];
      }),
);
const names = computed(() => {
  const twice = new Set(curves.value.map(({ name }) => name)).size < curves.value.length;
  return curves.value.map(({ name, revision }) => (twice ? `${name} rev. ${revision}` : name));
});
const dashes = ['solid', 'dashed', 'dotted', [9, 3, 2, 3]] as const;
const withUnit = (label: string, unit: string) =>
  unit === '' || unit === 'fraction' ? label : `${label}, ${unit}`;

const options = computed(() => {
  const [one, all, labels] = [field.value, curves.value, names.value];
  return () => {
    if (one === null) return {};
    const [x, y] = one.columns;
    const scaled = (value: number) => (y.scale === 'log' ? Math.log10(value) : value);
    const values = all.flatMap(({ rows }) => rows.map((row) => scaled(row[1])));
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const plotPx = props.height - 72;
    const offsets = spreadLabels(
      all.map(({ rows }, i) => ({
        id: String(i),
        yPx: ((high - scaled(rows.at(-1)![1])) / (high - low || 1)) * plotPx,
      })),
      plotPx,
    );
    return {
      grid: { left: 58, right: 84, top: 30, bottom: 42 },
      tooltip: {
        trigger: 'item',
        renderMode: 'richText',
        backgroundColor: token('sheet'),
        borderColor: token('line'),
        textStyle: { color: token('ink'), fontFamily, fontSize: 13 },
        formatter: ({ seriesName, value }: { seriesName: string; value: [number, number] }) =>
          `${seriesName}\n${formatNumber(value[0])} ${x.unit}: ${formatNumber(value[1])} ${y.unit}`,
      },
      xAxis: axis('x', {
        name: withUnit(x.label.toLowerCase(), x.unit),
        log: x.scale === 'log',
        format: (value) => formatNumber(value),
      }),
      yAxis: axis('y', {
        name: withUnit(y.label.toLowerCase(), y.unit),
        log: y.scale === 'log',
        format: (value) => formatNumber(value),
      }),
      series: all.map(({ rows }, i) => ({
        id: `curve-${i}`,
        name: labels[i],
        type: 'line',
        data: rows,
        symbol: 'circle',
        symbolSize: 6,
        lineStyle: { color: token(i % 2 === 0 ? 'ink' : 'act'), width: 2, type: dashes[i % dashes.length] },
        itemStyle: { color: token(i % 2 === 0 ? 'ink' : 'act') },
        endLabel: {
          show: true,
          formatter: labels[i],
          color: token(i % 2 === 0 ? 'ink' : 'act'),
          fontSize: 12,
          offset: [4, offsets.get(String(i)) ?? 0],
        },
      })),
    };
  };
});
const summary = computed(() => {
  const [first] = curves.value;
  if (first === undefined || field.value === null) return 'No curve is given.';
  const [x, y] = field.value.columns;
  const [from, to] = [first.rows[0]!, first.rows.at(-1)!];
  const say = ([a, b]: [number, number]) =>
    `${formatNumber(b)} ${y.unit} at ${formatNumber(a)} ${x.unit}`.replaceAll(' fraction', '');
  return `${field.value.label}, ${names.value.join(', ')}: ${names.value.length > 1 ? `${names.value[0]} ` : ''}from ${say(from)} to ${say(to)}.`;
});
const table = computed(() => ({
  columns: ['part', ...(field.value?.columns.map(({ label, unit }) => withUnit(label, unit)) ?? [])],
  rows: curves.value.flatMap(({ rows }, i) =>
    rows.map(([a, b]): (string | number)[] => [names.value[i]!, formatNumber(a), formatNumber(b)]),
  ),
}));
</script>

<template>
  <PlotView v-if="curves.length > 0" :options="options" :summary="summary" :height="height" :table="table" />
</template>
