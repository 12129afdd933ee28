<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import type { PackInput, PackResult } from '@torvek/core/pack';
import { computed } from 'vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';

/** Pack voltage over state of charge, at rest and at peak current, beside the windows of the devices on the bus. */
const job = useJob();
const run = computed(
  () => job.evaluation.runs['pack.pack:pack'] as { input: PackInput; result: PackResult } | undefined,
);
const devices = computed(() =>
  Object.values(job.design.devices).filter(
    ({ minV, maxV }) => minV !== undefined && maxV !== undefined && minV < maxV,
  ),
);
const curves = computed(() => {
  if (run.value === undefined) return null;
  const { input, result } = run.value;
  const rest = input.cell.ocvTable.map(([soc, voltage]): [number, number] => [
    soc * 100,
    voltage * input.series,
  ]);
  const peak = rest.map(([soc, voltage]): [number, number] => [soc, voltage - result.sagAtPeakV]);
  return { rest, peak };
});
const span = computed(() => {
  const values = [
    ...(curves.value?.rest ?? []).map(([, voltage]) => voltage),
    ...(curves.value?.peak ?? []).map(([, voltage]) => voltage),
    run.value?.result.voltageMaxV ?? 0,
    run.value?.result.voltageMinV ?? 0,
    ...devices.value.flatMap(({ minV, maxV }) => [minV!, maxV!]),
  ];
  const low = Math.min(...values);
  const high = Math.max(...values);
  const step = high - low > 150 ? 50 : 10;
  return { min: Math.max(0, Math.floor((low - 4) / step) * step), max: Math.ceil((high + 4) / step) * step };
});
const summary = computed(() => {
  if (run.value === undefined) return 'Voltage over charge: not computed yet.';
  const { result, input } = run.value;
  return `At ${formatNumber(input.socForPeakFraction * 100)} % charge ${formatNumber(input.peakCurrentA)} A pull the pack down by ${formatNumber(result.sagAtPeakV)} V to ${formatNumber(result.voltageAtPeakV)} V; bars show which voltages each device works at.`;
});
const options = computed(() => {
  const shown = curves.value;
  const now = run.value;
  const { min, max } = span.value;
  const bars = devices.value;
  return () => {
    if (shown === null || now === undefined) return {};
    const hv = token('hv');
    const ink = token('ink');
    const number = (value: unknown) => `${formatNumber(Number(value), 4)} V`;
    const [low, high] = now.input.socWindow;
    const out = ({ minV, maxV }: { minV?: number | undefined; maxV?: number | undefined }) =>
      maxV! < now.result.voltageMaxV || minV! > now.result.voltageMinV;
    return {
      grid: [
        { left: 46, right: '38%', top: 30, bottom: 66 },
        { left: '66%', right: 14, top: 30, bottom: 66 },
      ],
      tooltip: undefined,
      xAxis: [
        { ...axis('x', { name: 'state of charge, %', min: 0, max: 100 }), gridIndex: 0 },
        {
          type: 'category',
          gridIndex: 1,
          data: bars.map(({ tag }) => tag),
          axisLabel: {
            interval: 0,
            fontSize: 12,
            color: token('soft'),
            rotate: 38,
            width: 92,
            overflow: 'truncate',
          },
          axisTick: { show: false },
          axisLine: { lineStyle: { color: token('line') } },
        },
      ],
      yAxis: [
        { ...axis('y', { name: 'pack voltage, V', min, max }), gridIndex: 0 },
        {
          ...axis('y', { name: 'what devices work at, V', min, max }),
          gridIndex: 1,
          axisLabel: { show: false },
          axisLine: { show: false },
        },
      ],
      series: [
        {
          id: 'rest',
          name: 'at rest',
          type: 'line',
          data: shown.rest,
          showSymbol: false,
          lineStyle: { color: hv, width: 2.5 },
          itemStyle: { color: hv },
          endLabel: { show: true, formatter: 'at rest', color: hv, fontSize: 12, offset: [-44, -10] },
          tooltip: { valueFormatter: number },
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              limitLine(
                { y: now.result.voltageMaxV },
                `highest ${formatNumber(now.result.voltageMaxV, 4)} V`,
                ink,
                'insideStartTop',
              ),
              limitLine(
                { y: now.result.voltageMinV },
                `lowest ${formatNumber(now.result.voltageMinV, 4)} V`,
                ink,
                'insideEndTop',
              ),
            ],
          },
          markArea: {
            silent: true,
            itemStyle: { color: hv, opacity: 0.08 },
            label: { color: token('soft'), position: 'insideBottom', fontSize: 12 },
            data: [[{ xAxis: low * 100, name: 'charge window' }, { xAxis: high * 100 }]],
          },
        },
        {
          id: 'peak',
          name: 'at peak current',
          type: 'line',
          data: shown.peak,
          showSymbol: false,
          lineStyle: { color: hv, width: 1.6, type: [6, 4] },
          itemStyle: { color: hv },
          endLabel: { show: true, formatter: 'at peak', color: hv, fontSize: 12, offset: [-44, 12] },
          tooltip: { valueFormatter: number },
        },
        {
          id: 'here',
          type: 'scatter',
          data: [[now.input.socForPeakFraction * 100, now.result.voltageAtPeakV]],
          symbolSize: 10,
          itemStyle: { color: ink },
        },
        ...bars.map((device, i) => ({
          id: `device${i}`,
          type: 'line',
          xAxisIndex: 1,
          yAxisIndex: 1,
          data: [
            [device.tag, device.minV],
            [device.tag, device.maxV],
          ],
          symbol: 'none',
          lineStyle: { width: 15, color: out(device) ? token('mend') : token('grey-fill'), cap: 'butt' },
          ...(i === 0 && {
            markLine: {
              precision: 12,
              symbol: 'none',
              silent: true,
              label: { show: false },
              data: [
                { ...limitLine({ y: now.result.voltageMaxV }, '', ink), label: { show: false } },
                { ...limitLine({ y: now.result.voltageMinV }, '', ink), label: { show: false } },
              ],
            },
          }),
        })),
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['charge, %', 'at rest, V', 'at peak current, V'],
  rows: (curves.value?.rest ?? []).map(([soc, voltage], i) => [
    formatNumber(soc),
    formatNumber(voltage, 4),
    formatNumber(curves.value!.peak[i]![1], 4),
  ]),
}));
</script>

<template>
  <PlotView v-if="run !== undefined" :options="options" :summary="summary" :height="316" :table="table" />
  <p v-else class="panel-empty">
    The voltage over state of charge is drawn as soon as a module, how many, the charge window and the peak
    current are given.
  </p>
</template>
