<script setup lang="ts">
import { mainCircuit } from '@torvek/core/document';
import { catalogueOf, partKey } from '@torvek/core/parts';
import {
  busVoltageAt,
  type PrechargeChooseResult,
  type PrechargeInput,
  type PrechargeResult,
} from '@torvek/core/precharge';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import { choosePart } from '../../parts/choose-part';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, limitLine, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';

/** Pre-charge: the rise with threshold and time limit, the resistor's energies, and the ranked resistors. */
const job = useJob();
const at = `circuits.${mainCircuit}`;
const run = computed(
  () =>
    job.evaluation.runs[`precharge.run:${mainCircuit}`] as
      { input: PrechargeInput; result: PrechargeResult } | undefined,
);
const ranked = computed(
  () =>
    (job.evaluation.runs[`precharge.choice:${mainCircuit}`]?.result as PrechargeChooseResult | undefined)
      ?.ranked ?? [],
);
const chosen = computed(() => job.design.circuits[mainCircuit]?.resistor);
const label = (key: string) =>
  job.design.parts[key]?.label ?? catalogueOf('resistor').find((part) => partKey(part) === key)?.label ?? key;
const points = computed<[number, number][]>(() => {
  if (run.value === undefined) return [];
  const { input, result } = run.value;
  const end = Math.min(
    input.timeoutS * 1.05,
    Math.max(result.timeConstantS * 8, (result.timeToThresholdS ?? 0) * 1.6),
  );
  return Array.from({ length: 121 }, (_, i): [number, number] => [
    (end * i) / 120,
    busVoltageAt(input, (end * i) / 120),
  ]);
});
const summary = computed(() => {
  if (run.value === undefined) return 'Pre-charge: not computed yet.';
  const { input, result } = run.value;
  const reach =
    result.timeToThresholdS === null
      ? `never reaches the threshold; it ends at ${formatNumber(result.finalVoltageV)} V`
      : `reaches ${formatNumber(input.thresholdFraction * 100)} % after ${formatQuantity(result.timeToThresholdS, 's')}; the limit is ${formatQuantity(input.timeoutS, 's')}`;
  return `The bus of ${formatQuantity(input.busCapacitanceF, 'F')} ${reach}.`;
});
const options = computed(() => {
  const data = points.value;
  const now = run.value;
  return () => {
    if (now === undefined) return {};
    const { input, result } = now;
    const hv = token('hv');
    const end = data.at(-1)![0];
    return {
      xAxis: axis('x', { name: 'time from closing the pre-charge contactor, s', min: 0, max: end }),
      yAxis: axis('y', {
        name: 'bus voltage, V',
        min: 0,
        max: Math.ceil((input.packVoltageV * 1.08) / 20) * 20,
      }),
      series: [
        {
          id: 'rise',
          name: 'bus, V',
          type: 'line',
          data,
          showSymbol: false,
          lineStyle: { color: hv, width: 2.5 },
          itemStyle: { color: hv },
          tooltip: { valueFormatter: (value: unknown) => `${formatNumber(Number(value))} V` },
          markLine: {
            symbol: 'none',
            silent: true,
            data: [
              limitLine(
                { y: input.packVoltageV },
                `pack ${formatNumber(input.packVoltageV, 4)} V`,
                token('ink'),
                'insideStartTop',
              ),
              limitLine(
                { y: input.thresholdFraction * input.packVoltageV },
                `threshold ${formatNumber(input.thresholdFraction * 100)} %`,
                token('mend'),
                'insideEndBottom',
              ),
              ...(input.timeoutS <= end
                ? [
                    limitLine(
                      { x: input.timeoutS },
                      `limit ${formatQuantity(input.timeoutS, 's')}`,
                      token('stop'),
                      'insideEndBottom',
                    ),
                  ]
                : []),
            ],
          },
        },
        {
          id: 'close',
          type: 'scatter',
          data:
            result.timeToThresholdS === null || result.timeToThresholdS > end
              ? []
              : [[result.timeToThresholdS, input.thresholdFraction * input.packVoltageV]],
          symbolSize: 10,
          itemStyle: { color: token('ink') },
          label: {
            show: true,
            position: 'bottom',
            distance: 12,
            formatter: () => `main closes, ${formatQuantity(result.timeToThresholdS ?? 0, 's')}`,
            color: token('ink'),
            fontSize: 12,
            align: 'left',
          },
        },
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['time, s', 'bus, V'],
  rows: points.value
    .filter((_, i) => i % 8 === 0)
    .map(([time, voltage]) => [formatNumber(time), formatNumber(voltage)]),
}));
const figure = (name: string) => `precharge.run:${mainCircuit}:${name}`;
</script>

<template>
  <section class="sheet-card" aria-labelledby="precharge-title">
    <div class="card-head">
      <h2 id="precharge-title">Pre-charge</h2>
      <span class="hint"
        >voltage with a time limit closes the main; a bare timer would not see a load on the bus</span
      >
    </div>
    <div class="split">
      <div>
        <PlotView
          v-if="run !== undefined"
          :options="options"
          :summary="summary"
          :height="240"
          :table="table"
        />
        <p v-else class="soft empty">
          The rise is drawn as soon as the pack, the devices’ capacitances and a resistor are given.
        </p>
        <div class="figures">
          <FigureValue :id="figure('timeToThresholdS')" show-label />
          <FigureValue :id="figure('resistorEnergyJ')" show-label />
          <FigureValue :id="figure('busShortedEnergyJ')" show-label />
          <FigureValue :id="figure('peakCurrentA')" show-label />
          <FigureValue :id="figure('inrushA')" show-label />
          <FigureValue id="precharge.bus:bus:capacitanceF" show-label />
        </div>
      </div>
      <div>
        <NumberField
          :path="`${at}.thresholdFraction`"
          label="Threshold"
          unit="%"
          :scale="0.01"
          :fallback="95"
        />
        <NumberField :path="`${at}.timeoutS`" label="Time limit" unit="s" :fallback="3" />
        <NumberField :path="`${at}.wantedTimeS`" label="Wanted time" unit="s" :fallback="0.3" />
        <NumberField :path="`${at}.attemptsPerMinute`" label="Starts a minute" :fallback="3" />
        <h3>After shut-down</h3>
        <NumberField path="settings.touchLimitV" label="Touch limit" unit="V" :fallback="60" />
        <NumberField path="settings.dischargeLimitS" label="Time allowed" unit="s" :fallback="5" />
        <div class="figures">
          <FigureValue id="precharge.discharge:bus:timeToSafeS" show-label />
          <FigureValue id="precharge.discharge:bus:largestBleedOhmForLimit" show-label />
          <FigureValue id="precharge.discharge:bus:bleedPowerAtVoltageW" show-label />
        </div>
      </div>
    </div>
    <table v-if="ranked.length > 0" class="grid-table ranked">
      <thead>
        <tr>
          <th scope="col">Resistors, ranked</th>
          <th scope="col" class="num">time</th>
          <th scope="col" class="num">worst</th>
          <th scope="col" class="num">a run</th>
          <th scope="col" class="num">shorted</th>
          <th scope="col">why not</th>
          <th scope="col"><span class="visually-hidden">Take</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in ranked" :key="one.partId" :class="{ picked: one.partId === chosen }">
          <td>{{ label(one.partId) }}</td>
          <td class="num">{{ formatQuantity(one.timeToThresholdS, 's') }}</td>
          <td class="num">{{ formatQuantity(one.timeWorstS, 's') }}</td>
          <td class="num">{{ formatQuantity(one.energyJ, 'J') }}</td>
          <td class="num">{{ formatQuantity(one.shortedEnergyJ, 'J') }}</td>
          <td class="why">{{ one.fits ? 'fits' : one.reasons.join('; ') }}</td>
          <td class="num">
            <span v-if="one.partId === chosen" class="soft">chosen</span>
            <button
              v-else
              type="button"
              class="btn btn-quiet btn-sm"
              @click="choosePart(job, 'resistor', one.partId)"
            >
              take
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 262px;
  gap: 1rem;
}

h3 {
  margin: 0.6rem 0 0.2rem;
}

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.3rem;
  margin-top: 0.5rem;
}

.ranked {
  margin-top: 0.7rem;
}

.why {
  font-size: 0.82rem;
  color: var(--tv-soft);
  max-width: 24rem;
}

.empty {
  padding: 3rem 1rem;
}

@media (max-width: 1100px) {
  .split {
    grid-template-columns: 1fr;
  }
}
</style>
