<script setup lang="ts">
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { busVoltageAt, prechargeFit } from '@torvek/core/precharge';
import type { Expectation } from '@torvek/core/commissioning';
import { computed } from 'vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, token } from '../../parts/plot/echarts';

/** A measured rise with its fit over it, and the rise the design expects. */
const props = defineProps<{
  samples: [number, number][];
  packVoltageV: number;
  expected: Extract<Expectation, { kind: 'rise' }>;
}>();
const fit = computed(() => {
  const parsed = prechargeFit.parse({
    packVoltageV: props.packVoltageV,
    resistanceOhm: props.expected.resistanceOhm,
    samples: props.samples,
  });
  return parsed.ok ? prechargeFit.calculate(parsed.input).result : null;
});
const designed = computed(() =>
  props.samples.map(([time]): [number, number] => [
    time,
    busVoltageAt(
      {
        packVoltageV: props.packVoltageV,
        busCapacitanceF: props.expected.capacitanceF,
        resistanceOhm: props.expected.resistanceOhm,
        ...(props.expected.loadOhm !== null && { parallelLoadOhm: props.expected.loadOhm }),
      },
      time,
    ),
  ]),
);
const fitted = computed(() =>
  fit.value === null
    ? []
    : props.samples.map(([time]): [number, number] => [
        time,
        fit.value!.finalVoltageV * -Math.expm1(-time / fit.value!.timeConstantS),
      ]),
);
const summary = computed(() =>
  fit.value === null
    ? 'The trace cannot be fitted.'
    : `The trace fits ${formatQuantity(fit.value.capacitanceF, 'F')} where ${formatQuantity(props.expected.capacitanceF, 'F')} are designed, ` +
      (fit.value.parallelLoadOhm === null
        ? 'and no load on the bus.'
        : `and a load of about ${formatQuantity(fit.value.parallelLoadOhm, 'Ω')}.`),
);
const options = computed(() => {
  const { samples } = props;
  const lines = { fitted: fitted.value, designed: designed.value };
  const up = (lines.fitted.at(-1)?.[1] ?? 0) >= (lines.designed.at(-1)?.[1] ?? 0) ? -8 : 8;
  return () => ({
    grid: { left: 46, right: 70, top: 30, bottom: 42 },
    xAxis: axis('x', { name: 'time from closing the pre-charge contactor, s', min: 0 }),
    yAxis: axis('y', { name: 'bus voltage, V', min: 0 }),
    series: [
      {
        id: 'measured',
        name: 'measured, V',
        type: 'scatter',
        data: samples,
        symbolSize: 5,
        itemStyle: { color: token('ink') },
      },
      {
        id: 'fit',
        name: 'fit, V',
        type: 'line',
        data: lines.fitted,
        showSymbol: false,
        lineStyle: { color: token('hv'), width: 2 },
        itemStyle: { color: token('hv') },
        endLabel: { show: true, formatter: 'fit', color: token('hv'), offset: [4, up] },
        tooltip: { valueFormatter: (value: unknown) => formatNumber(Number(value)) },
      },
      {
        id: 'design',
        name: 'designed, V',
        type: 'line',
        data: lines.designed,
        showSymbol: false,
        lineStyle: { color: token('soft'), width: 1.5, type: 'dashed' },
        itemStyle: { color: token('soft') },
        endLabel: { show: true, formatter: 'designed', color: token('soft'), offset: [4, -up] },
        tooltip: { valueFormatter: (value: unknown) => formatNumber(Number(value)) },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['time, s', 'measured, V', 'fit, V', 'designed, V'],
  rows: props.samples.map(([time, voltage], i) => [
    formatNumber(time),
    formatNumber(voltage, 4),
    fitted.value[i] ? formatNumber(fitted.value[i][1], 4) : '—',
    formatNumber(designed.value[i]![1], 4),
  ]),
}));
</script>

<template>
  <PlotView :options="options" :summary="summary" :height="230" :table="table" />
</template>
