<script setup lang="ts">
import { cableDuty, type CableDutyInput } from '@torvek/core/conductor';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';
import { useCircuit } from './use-circuit';

/** Conductor temperature over the repeated load, from a cold start until it has settled. */
const job = useJob();
const { circuitId } = useCircuit();
/** So much of the warming is shown. */
const shownPeriods = 60;
const run = computed(() => {
  const found = job.evaluation.runs[`conductor.duty:${circuitId.value}`] as
    { input: CableDutyInput } | undefined;
  if (found === undefined) return null;
  const { input } = found;
  const periodS = input.profile.reduce((sum, [durationS]) => sum + durationS, 0);
  // Two hours, but no fewer than two periods.
  const repeat = Math.max(2, Math.min(shownPeriods, Math.ceil(7200 / periodS)));
  return { input, periodS, repeat, ...cableDuty.calculate({ ...input, repeat }).result };
});
const peak = computed(() => job.figure(`conductor.duty:${circuitId.value}:peakTemperatureC`)?.value ?? null);
const summary = computed(() => {
  const now = run.value;
  if (now === null) return 'The temperature over the load: not computed yet.';
  const limit = `its limit is ${formatNumber(now.input.conductorMaxC)} °C`;
  return peak.value === null
    ? `Over the repeated load the conductor passes 400 °C; ${limit}.`
    : `Over the repeated load the conductor reaches ${formatNumber(peak.value)} °C at the most; ${limit}.`;
});
const minutes = (seconds: number) => seconds / 60;
const options = computed(() => {
  const now = run.value;
  return () => {
    if (now === null) return {};
    const { curve, input } = now;
    const top = Math.max(input.conductorMaxC * 1.06, ...curve.map(([, t]) => t));
    return {
      grid: { left: 52, right: 20, top: 30, bottom: 40 },
      tooltip: {
        trigger: 'axis',
        renderMode: 'richText',
        valueFormatter: (value: number) => `${formatNumber(value)} °C`,
      },
      xAxis: axis('x', { name: 'minutes of the repeated load', min: 0, max: minutes(curve.at(-1)![0]) }),
      yAxis: axis('y', {
        name: 'conductor, °C',
        min: Math.floor(input.ambientC / 10) * 10 - 10,
        max: Math.ceil(top / 10) * 10,
      }),
      series: [
        {
          id: 'temperature',
          name: 'conductor',
          type: 'line',
          showSymbol: false,
          data: curve.map(([timeS, temperatureC]) => [minutes(timeS), temperatureC]),
          lineStyle: { color: token('hv'), width: 2 },
          itemStyle: { color: token('hv') },
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              limitLine(
                { y: input.conductorMaxC },
                `limit ${formatNumber(input.conductorMaxC)} °C`,
                token('stop'),
              ),
            ],
          },
        },
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['minutes', 'conductor, °C'],
  rows: (run.value?.curve ?? [])
    .filter((_, i, all) => i % Math.max(1, Math.floor(all.length / 40)) === 0)
    .map(([timeS, temperatureC]) => [formatNumber(minutes(timeS)), formatNumber(temperatureC)]),
}));
</script>

<template>
  <PlotView
    v-if="run !== null"
    class="duty"
    :options="options"
    :summary="summary"
    :height="190"
    :table="table"
  />
</template>

<style scoped>
.duty {
  margin-top: 0.8rem;
}
</style>
