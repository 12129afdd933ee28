<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { cycleChoices, mainCircuit } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { cycleMoments, driveCycles, loadProfileOf, type DriveCycleInput } from '@torvek/core/vehicle';
import { computed, ref } from 'vue';
import ChoiceCell from '../../parts/ChoiceCell.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';
import { readCycle } from './read-cycle';

/** What a drive cycle asks of the battery, second by second; it becomes the load of the main circuit by a click. */
const job = useJob();
const figure = (name: FigureName<'vehicle.cycle'>) => figureId('vehicle.cycle', 'vehicle', name);
const options = computed(() =>
  cycleChoices
    .filter((id) => id !== 'own' || job.design.vehicle.ownCycle !== undefined)
    .map((value) => ({
      value,
      text:
        value === 'own'
          ? `own: ${job.design.vehicle.ownCycle?.tag ?? ''}`
          : `${driveCycles[value].title}: ${driveCycles[value].what}`,
    })),
);
const input = computed(
  () => job.evaluation.runs['vehicle.cycle:vehicle']?.input as DriveCycleInput | undefined,
);
const moments = computed(() => (input.value === undefined ? [] : cycleMoments(input.value)));
const profile = computed(() => (moments.value.length === 0 ? null : loadProfileOf(moments.value)));
const taken = computed(
  () =>
    profile.value !== null &&
    JSON.stringify(rounded(profile.value)) === JSON.stringify(job.design.circuits[mainCircuit]?.loadProfile),
);
const rounded = (steps: [number, number][]) =>
  steps.map(([seconds, amps]): [number, number] => [
    Number(seconds.toPrecision(6)),
    Number(amps.toPrecision(4)),
  ]);

function take(): void {
  if (profile.value !== null)
    job.set(
      `circuits.${mainCircuit}.loadProfile`,
      rounded(profile.value),
      'Load profile from the drive cycle',
    );
}

const problem = ref<string | null>(null);
async function bring(event: Event): Promise<void> {
  const picker = event.target as HTMLInputElement;
  const file = picker.files?.[0];
  picker.value = '';
  if (file === undefined) return;
  problem.value = null;
  if (file.size > 4_000_000) {
    problem.value = `${file.name} is larger than 4 MB.`;
    return;
  }
  const read = readCycle(await file.text());
  if (!read.ok) {
    problem.value = `${file.name}: ${read.message}`;
    return;
  }
  job.change(`Drive cycle from ${file.name}`, ({ vehicle }) => {
    vehicle.ownCycle = { tag: file.name.slice(0, 80), points: read.points };
    vehicle.cycle = 'own';
  });
}

const summary = computed(() => {
  const peak = job.figure(figure('peakA'))?.value;
  const rms = job.figure(figure('rmsA'))?.value;
  return peak == null || rms == null
    ? 'Battery current over the cycle: not computed.'
    : `Over this cycle the battery gives up to ${formatNumber(peak)} A, ${formatNumber(rms)} A rms.`;
});
const plot = computed(() => {
  const steps = moments.value;
  return () => ({
    grid: { left: 46, right: 52, top: 30, bottom: 42 },
    xAxis: axis('x', { name: 'time, s', min: 0, max: Math.ceil(steps.at(-1)?.timeS ?? 1) }),
    yAxis: [
      axis('y', { name: 'battery current, A' }),
      {
        ...axis('y', { name: 'speed, km/h', min: 0 }),
        position: 'right' as const,
        splitLine: { show: false },
        nameTextStyle: { align: 'right' as const, color: token('soft'), padding: [0, -40, 0, 0] },
      },
    ],
    series: [
      {
        id: 'speed',
        type: 'line',
        name: 'speed, km/h',
        yAxisIndex: 1,
        data: steps.map(({ timeS, speedKmH }) => [timeS, speedKmH]),
        showSymbol: false,
        lineStyle: { color: token('soft'), width: 1.5, type: 'dashed' },
        itemStyle: { color: token('soft') },
        tooltip: { valueFormatter: (value: unknown) => formatNumber(Number(value)) },
        endLabel: { show: false },
      },
      {
        id: 'current',
        type: 'line',
        name: 'battery current, A',
        data: steps.flatMap(({ timeS, currentA }) => (currentA === null ? [] : [[timeS, currentA]])),
        showSymbol: false,
        lineStyle: { color: token('hv'), width: 2 },
        itemStyle: { color: token('hv') },
        tooltip: { valueFormatter: (value: unknown) => formatNumber(Number(value)) },
      },
    ],
  });
});
const table = computed(() => ({
  columns: ['time, s', 'speed, km/h', 'power, kW', 'current, A'],
  rows: moments.value
    .filter((_, i) => i % Math.ceil(moments.value.length / 200) === 0)
    .map(({ timeS, speedKmH, powerW, currentA }) => [
      formatNumber(timeS),
      formatNumber(speedKmH),
      formatNumber(powerW / 1000),
      currentA === null ? '—' : formatNumber(currentA),
    ]),
}));
</script>

<template>
  <section class="sheet-card cycle" aria-label="Drive cycle" data-path="vehicle.cycle">
    <div class="card-head">
      <h2>Over a drive cycle</h2>
      <span class="hint">with inertia and braking; the second school’s load on the battery</span>
    </div>
    <div class="ask">
      <ChoiceCell path="vehicle.cycle" label="Drive cycle" :options="options" none="choose a cycle" />
      <label v-if="job.editable" class="btn btn-quiet btn-sm"
        >CSV: s, km/h …<input type="file" accept=".csv,.txt,.tsv,text/csv" hidden @change="bring"
      /></label>
      <button
        v-if="profile !== null && job.editable"
        type="button"
        class="btn btn-primary btn-sm"
        :disabled="taken"
        @click="take"
      >
        {{ taken ? 'is the load of the main circuit' : 'Take as load of the main circuit' }}
      </button>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template v-if="job.design.vehicle.cycle !== undefined">
      <div class="figures">
        <FigureValue :id="figure('distanceKm')" label="distance" show-label />
        <FigureValue :id="figure('whPerKm')" label="per km" show-label />
        <FigureValue :id="figure('rangeKm')" label="range" show-label />
        <FigureValue :id="figure('peakA')" label="peak current" show-label />
        <FigureValue :id="figure('regenPeakA')" label="back into the pack" show-label />
        <FigureValue :id="figure('rmsA')" label="current, rms" show-label />
      </div>
      <PlotView v-if="moments.length > 0" :options="plot" :summary="summary" :height="230" :table="table" />
      <p v-else class="panel-empty">The current is drawn as soon as pack, masses and road load are given.</p>
      <div class="fields">
        <NumberField path="vehicle.topSpeedKmH" />
        <NumberField path="vehicle.regenFraction" />
        <NumberField path="vehicle.rotatingMassFraction" />
      </div>
    </template>
    <p v-else class="soft">
      Town, country, motorway, hill or a short burst, all invented; or speed over time of your own.
    </p>
  </section>
</template>

<style scoped>
.ask {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  margin-bottom: 0.5rem;
  flex-wrap: wrap;
}

.ask .choice-cell {
  width: 21rem;
  font-size: 0.9rem;
}

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  margin-bottom: 0.3rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 0 1.2rem;
  margin-top: 0.4rem;
}

.problem {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
