<script setup lang="ts">
import {
  busVoltageAt,
  resistorEnergyAt,
  type PrechargeInput,
  type PrechargeResult,
} from '@torvek/core/precharge';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useCircuit } from './use-circuit';

/** The rise of the bus with threshold and time limit, the energy in the resistor, and where the main closes. */
const props = defineProps<{ run: { input: PrechargeInput; result: PrechargeResult } }>();
const { circuit } = useCircuit();
/** The next of 1, 2, 5 × a power of ten above a value. */
function niceAbove(value: number): number {
  const decade = 10 ** Math.floor(Math.log10(value));
  return decade * (value <= 2 * decade ? 2 : value <= 5 * decade ? 5 : 10);
}

/** A limit more than this many times as late as the threshold is only named, so that the rise stays readable. */
const mostShownTimes = 14;
const endS = computed(() => {
  const { input, result } = props.run;
  const risen = Math.max(result.timeConstantS * 6, (result.timeToThresholdS ?? 0) * 1.6);
  return input.timeoutS <= risen * (mostShownTimes / 2) ? input.timeoutS * 1.04 : risen;
});
const points = computed<[timeS: number, voltageV: number, energyJ: number][]>(() => {
  const { input } = props.run;
  // Denser where the curve is steep.
  return Array.from({ length: 141 }, (_, i): [number, number, number] => {
    const timeS = endS.value * (i / 140) ** 2;
    return [timeS, busVoltageAt(input, timeS), resistorEnergyAt(input, timeS)];
  });
});
/** Where the main closes: at the threshold if that is in time, or by the timer whatever the bus. */
const closing = computed(() => {
  const { input, result } = props.run;
  const { completion, timerS } = circuit.value ?? {};
  if (completion === 'timer')
    return timerS !== undefined && timerS > 0
      ? { timeS: timerS, voltageV: busVoltageAt(input, timerS), by: 'timer closes the main' }
      : null;
  return result.completes && result.timeToThresholdS !== null
    ? {
        timeS: result.timeToThresholdS,
        voltageV: input.thresholdFraction * input.packVoltageV,
        by: 'main closes',
      }
    : null;
});
const summary = computed(() => {
  const { input, result } = props.run;
  const reach =
    result.timeToThresholdS === null
      ? `never reaches the threshold; it ends at ${formatNumber(result.finalVoltageV)} V`
      : `reaches ${formatNumber(input.thresholdFraction * 100)} % after ${formatQuantity(result.timeToThresholdS, 's')}; the limit is ${formatQuantity(input.timeoutS, 's')}`;
  const timer =
    circuit.value?.completion === 'timer' && closing.value !== null
      ? ` The timer closes the main after ${formatQuantity(closing.value.timeS, 's')}, at ${formatNumber(closing.value.voltageV)} V.`
      : '';
  return `The bus of ${formatQuantity(input.busCapacitanceF, 'F')} ${reach}.${timer}`;
});
const options = computed(() => {
  const data = points.value;
  const now = props.run;
  const closes = closing.value;
  const end = endS.value;
  return () => {
    const { input } = now;
    const hv = token('hv');
    const ink = token('ink');
    const soft = token('soft');
    const limit = `limit ${formatQuantity(input.timeoutS, 's')}`;
    return {
      grid: { left: 46, right: 52, top: 30, bottom: 42 },
      xAxis: axis('x', { name: 'time from closing the pre-charge contactor, s', min: 0, max: end }),
      yAxis: [
        axis('y', { name: 'bus, V', min: 0, max: Math.ceil((input.packVoltageV * 1.08) / 20) * 20 }),
        {
          ...axis('y', { name: 'in the resistor, J', min: 0, max: niceAbove(data.at(-1)![2] * 1.5) }),
          position: 'right',
          splitLine: { show: false },
          nameTextStyle: { color: soft, fontSize: 12, align: 'right', padding: [0, -44, 0, 0] },
        },
      ],
      series: [
        {
          id: 'rise',
          name: 'bus, V',
          type: 'line',
          data: data.map(([timeS, voltageV]) => [timeS, voltageV]),
          showSymbol: false,
          lineStyle: { color: hv, width: 2.5 },
          itemStyle: { color: hv },
          tooltip: { valueFormatter: (value: unknown) => `${formatNumber(Number(value))} V` },
          markLine: {
            precision: 12,
            symbol: 'none',
            silent: true,
            data: [
              limitLine(
                { y: input.packVoltageV },
                `pack ${formatNumber(input.packVoltageV, 4)} V`,
                ink,
                'insideStartTop',
              ),
              limitLine(
                { y: input.thresholdFraction * input.packVoltageV },
                `threshold ${formatNumber(input.thresholdFraction * 100)} %`,
                token('mend'),
                'insideEndBottom',
              ),
              ...(input.timeoutS <= end
                ? [limitLine({ x: input.timeoutS }, limit, token('stop'), 'insideStartTop')]
                : []),
            ],
          },
        },
        {
          id: 'energy',
          name: 'in the resistor, J',
          type: 'line',
          yAxisIndex: 1,
          data: data.map(([timeS, , energyJ]) => [timeS, energyJ]),
          showSymbol: false,
          lineStyle: { color: soft, width: 1.5, type: 'dotted' },
          endLabel: { show: true, formatter: 'energy', color: soft, fontSize: 12, offset: [-96, 12] },
          itemStyle: { color: soft },
          tooltip: { valueFormatter: (value: unknown) => formatQuantity(Number(value), 'J') },
        },
        {
          id: 'close',
          type: 'scatter',
          tooltip: { show: false },
          data: closes === null || closes.timeS > end ? [] : [[closes.timeS, closes.voltageV]],
          symbolSize: 10,
          itemStyle: { color: ink },
          label: {
            show: true,
            position: 'right',
            distance: 10,
            offset: [0, 16],
            formatter: () => (closes === null ? '' : `${closes.by}, ${formatQuantity(closes.timeS, 's')}`),
            color: ink,
            fontSize: 12,
            backgroundColor: token('sheet'),
          },
        },
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['time, s', 'bus, V', 'in the resistor, J'],
  rows: points.value
    .filter((_, i) => i % 8 === 0)
    .map(([time, voltage, energy]) => [formatNumber(time), formatNumber(voltage), formatNumber(energy)]),
}));
</script>

<template>
  <PlotView :options="options" :summary="summary" :height="240" :table="table" />
</template>
