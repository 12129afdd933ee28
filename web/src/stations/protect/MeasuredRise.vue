<script setup lang="ts">
import { standInReading } from '@torvek/core/commissioning';
import { mainCircuit } from '@torvek/core/document';
import type { Finding } from '@torvek/core/finding';
import {
  busVoltageAt,
  prechargeFit,
  readRise,
  type PrechargeFitResult,
  type RiseReading,
} from '@torvek/core/precharge';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import PlotView from '../../parts/plot/PlotView.vue';
import { axis, token } from '../../parts/plot/echarts';
import { useJob } from '../../stores/job';
import { readTrace } from '../prove/paste';
import { usePrecharge } from './use-precharge';

/** A measured rise over the computed one: what the fit says of capacitance and load. Nothing is recorded here. */
const job = useJob();
const text = ref('');
const source = ref('');
const packV = ref('');
const problem = ref<string | null>(null);
const samples = ref<[number, number][]>([]);
const run = usePrecharge(computed(() => mainCircuit));
const input = computed(() => run.value?.input);
const step = computed(() => job.procedure.find(({ expected }) => expected?.kind === 'rise'));

function read(): void {
  problem.value = null;
  samples.value = [];
  if (text.value.trim() === '') return;
  const found = readTrace(text.value);
  if (found.ok) samples.value = found.samples;
  else problem.value = `${found.message}.`;
}
async function choose(event: Event): Promise<void> {
  const [file] = (event.target as HTMLInputElement).files ?? [];
  if (file === undefined) return;
  source.value = file.name;
  text.value = await file.text();
  read();
}
const behaviours = [
  ['true', 'a bus as designed'],
  ['more-capacitance', 'one device more'],
  ['load-on-bus', 'a load left on'],
] as const;
function standIn(behaviour: string, label: string): void {
  if (step.value === undefined) return;
  const made = standInReading(step.value, job.design, job.evaluation, behaviour, 7);
  if (made?.kind !== 'trace') return;
  source.value = `stand-in scope, ${label}`;
  packV.value = String(made.packVoltageV);
  text.value = made.samples.map(([timeS, voltageV]) => `${timeS}\t${voltageV}`).join('\n');
  read();
}

const packVoltageV = computed(() => {
  const given = Number(packV.value.replace(',', '.'));
  return packV.value.trim() !== '' && Number.isFinite(given) && given > 0 ? given : null;
});
interface Fitted {
  result: PrechargeFitResult;
  findings: Finding[];
  reading: RiseReading;
}
const outcome = computed((): Fitted | { problem: string } | null => {
  if (samples.value.length === 0 || input.value === undefined) return null;
  if (packVoltageV.value === null) return { problem: 'The pack’s voltage at that moment is missing.' };
  const parsed = prechargeFit.parse({
    packVoltageV: packVoltageV.value,
    resistanceOhm: input.value.resistanceOhm,
    samples: samples.value,
  });
  if (!parsed.ok)
    return { problem: parsed.issues.map(({ path, message }) => `${path} ${message}`).join('; ') };
  const { result, findings } = prechargeFit.calculate(parsed.input);
  const reading = readRise(result, {
    capacitanceF: input.value.busCapacitanceF,
    resistanceOhm: input.value.resistanceOhm,
    loadOhm: input.value.parallelLoadOhm ?? null,
  });
  return { result, findings, reading };
});
const fitted = computed(() => (outcome.value === null || 'problem' in outcome.value ? null : outcome.value));
const summary = computed(() =>
  fitted.value === null
    ? 'No measured rise yet.'
    : `Measured against computed: ${fitted.value.reading.words}; the fit misses the samples by ${formatQuantity(fitted.value.result.rmsErrorV, 'V')} rms.`,
);
const options = computed(() => {
  const [now, points, fit] = [input.value, samples.value, fitted.value];
  const packNow = packVoltageV.value;
  return () => {
    if (now === undefined || fit === null || packNow === null) return {};
    const endS = points.at(-1)![0];
    const times = Array.from({ length: 81 }, (_, i) => (endS * i) / 80);
    const { finalVoltageV, timeConstantS } = fit.result;
    const curve = (
      id: string,
      name: string,
      at: (timeS: number) => number,
      color: string,
      type: string,
      dy: number,
    ) => ({
      id,
      name,
      type: 'line',
      data: times.map((timeS): [number, number] => [timeS, at(timeS)]),
      showSymbol: false,
      lineStyle: { color, width: 2, type },
      itemStyle: { color },
      endLabel: { show: true, formatter: name, color, fontSize: 12, offset: [4, dy] },
    });
    return {
      grid: { left: 46, right: 76, top: 30, bottom: 42 },
      xAxis: axis('x', { name: 'time, s', min: 0, max: endS }),
      yAxis: axis('y', { name: 'bus, V', min: 0, max: Math.ceil((packNow * 1.08) / 20) * 20 }),
      series: [
        curve(
          'computed',
          'computed',
          (timeS) => busVoltageAt({ ...now, packVoltageV: packNow }, timeS),
          token('hv'),
          'dashed',
          -9,
        ),
        curve(
          'fit',
          'fit',
          (timeS) => finalVoltageV * -Math.expm1(-timeS / timeConstantS),
          token('ink'),
          'solid',
          9,
        ),
        {
          id: 'samples',
          name: 'measured',
          type: 'scatter',
          data:
            points.length > 2000
              ? points.filter((_, i) => i % Math.ceil(points.length / 2000) === 0)
              : points,
          symbolSize: 5,
          itemStyle: { color: token('act') },
        },
      ],
    };
  };
});
const table = computed(() => ({
  columns: ['time, s', 'measured, V'],
  rows: samples.value.slice(0, 200).map(([timeS, voltageV]) => [formatNumber(timeS), formatNumber(voltageV)]),
}));
</script>

<template>
  <section class="sheet-card" aria-labelledby="rise-title">
    <div class="card-head">
      <h2 id="rise-title">A measured rise</h2>
      <span class="hint"
        >looked at, not recorded:
        <RouterLink :to="{ name: 'prove', params: { job: job.id } }">Prove</RouterLink> records</span
      >
    </div>
    <div class="panel-split">
      <div>
        <PlotView v-if="fitted" :options="options" :summary="summary" :height="230" :table="table" />
        <p v-else class="panel-empty">
          Give a capture of the bus voltage from the moment the pre-charge contactor closed.
        </p>
      </div>
      <div class="asks">
        <label
          >Seconds and volts, a sample a line<textarea
            v-model="text"
            class="form-control"
            rows="4"
            @change="read"
          ></textarea>
        </label>
        <label class="btn btn-light btn-sm"
          >Choose a CSV file<input
            class="visually-hidden"
            type="file"
            accept=".csv,.txt,text/csv,text/plain"
            aria-label="File of the rise"
            @change="choose"
        /></label>
        <div v-if="step" class="stand-ins">
          <span class="soft">stand-in scope:</span>
          <BButton
            v-for="[behaviour, label] in behaviours"
            :key="behaviour"
            size="sm"
            variant="light"
            @click="standIn(behaviour, label)"
            >{{ label }}</BButton
          >
        </div>
        <label
          >Pack voltage then, V<input v-model="packV" class="form-control" inputmode="decimal" maxlength="12"
        /></label>
        <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
        <p v-else-if="outcome && 'problem' in outcome" class="bad" role="alert">{{ outcome.problem }}</p>
        <dl v-if="fitted" class="fit" data-rise-fit>
          <dt>Verdict</dt>
          <dd :class="{ bad: fitted.reading.verdict !== 'as designed' }">{{ fitted.reading.words }}</dd>
          <dt>Capacitance</dt>
          <dd>
            {{ formatQuantity(fitted.result.capacitanceF, 'F') }}
            <span class="soft">designed {{ formatQuantity(input!.busCapacitanceF, 'F') }}</span>
          </dd>
          <dt>Time constant</dt>
          <dd>{{ formatQuantity(fitted.result.timeConstantS, 's') }}</dd>
          <dt>Ends at</dt>
          <dd>{{ formatQuantity(fitted.result.finalVoltageV, 'V') }}</dd>
          <dt>Load on the bus</dt>
          <dd>
            {{
              fitted.result.parallelLoadOhm === null
                ? 'none to be seen'
                : formatQuantity(fitted.result.parallelLoadOhm, 'Ω')
            }}
            <span v-if="input!.parallelLoadOhm !== undefined" class="soft"
              >designed {{ formatQuantity(input!.parallelLoadOhm, 'Ω') }}</span
            >
          </dd>
          <template v-if="source">
            <dt>Source</dt>
            <dd>{{ source }}</dd>
          </template>
        </dl>
        <p v-for="one in fitted?.findings ?? []" :key="one.rule.id" class="soft">{{ one.message }}</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.asks {
  display: grid;
  gap: 0.4rem;
  justify-items: start;
  align-content: start;
}

.asks > label:not(.btn) {
  width: 100%;
}

.stand-ins {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
}

.fit {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0.1rem 0.8rem;
  margin: 0;
}

.fit dt {
  font-weight: 400;
  color: var(--tv-soft);
}

.fit dd,
p {
  margin: 0;
}

.bad {
  color: var(--tv-stop);
}
</style>
