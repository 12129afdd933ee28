<script setup lang="ts">
import { mainCircuit } from '@torvek/core/document';
import { deviceLoad } from '@torvek/core/network';
import { cycleMoments, loadProfileOf, type DriveCycleInput } from '@torvek/core/vehicle';
import { useVirtualList } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref, watch } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import Icon from '../../parts/Icon.vue';
import { useJob } from '../../stores/job';
import { readRows, rowsOf, type ProfileRow } from './read-profile';
import { useCircuit } from './use-circuit';

/** One period of the load: seconds and amperes, repeating. Pasted, from a file, from its device or from the drive cycle. */
const job = useJob();
const { circuitId, circuit } = useCircuit();
const path = computed(() => `circuits.${circuitId.value}.loadProfile`);
const stored = computed(() => circuit.value?.loadProfile ?? []);
const rows = ref<ProfileRow[]>([]);
const problem = ref<string | null>(null);
const waiting = ref(0);
const files = ref<HTMLInputElement | null>(null);
watch(
  [stored, path] as const,
  ([profile, now], [, before]) => {
    // Steps that are wrong, or not complete, stay while they are of the same circuit.
    if (now !== before) {
      problem.value = null;
      waiting.value = 0;
    }
    if (problem.value === null && waiting.value === 0)
      rows.value = profile.map(([duration, current]) => [String(duration), String(current)]);
  },
  { immediate: true },
);
/** A step an hour long is thousands of rows: only those in sight are drawn. */
const rowPx = 30;
const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(rows, {
  itemHeight: rowPx,
  overscan: 12,
});

function commit(label = 'Load profile'): void {
  const read = readRows(rows.value);
  problem.value = read.ok ? null : read.message;
  if (!read.ok) return;
  waiting.value = read.waiting;
  // What is half typed is no change yet.
  if (read.waiting > 0) return;
  if (JSON.stringify(read.profile) === JSON.stringify(stored.value)) return;
  job.set(path.value, read.profile.length === 0 ? undefined : read.profile, label);
}

async function add(): Promise<void> {
  rows.value = [...rows.value, ['', '']];
  const at = rows.value.length - 1;
  scrollTo(at);
  await nextTick();
  containerProps.ref.value?.querySelector<HTMLInputElement>(`[data-row="${at}"] input`)?.focus();
}

function remove(index: number): void {
  rows.value = rows.value.filter((_, i) => i !== index);
  commit();
}

/** A block that was copied from a table takes the rows from here on. */
function paste(event: ClipboardEvent, index: number): void {
  const text = event.clipboardData?.getData('text') ?? '';
  if (!/[\n\t;]/.test(text)) return;
  event.preventDefault();
  rows.value = [...rows.value.slice(0, index), ...rowsOf(text), ...rows.value.slice(index + 1)];
  commit('Load profile pasted');
}

async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const of = circuitId.value;
  const text = await input.files?.[0]?.text();
  input.value = '';
  // Meanwhile another circuit may be open.
  if (text === undefined || circuitId.value !== of) return;
  const read = rowsOf(text);
  if (read.length === 0) {
    problem.value = 'The file has no rows of seconds and amperes.';
    return;
  }
  rows.value = read;
  commit('Load profile from a file');
}

const value = (id: 'voltageAtPeakV' | 'voltageMaxV') => job.figure(`pack.pack:pack:${id}`)?.value ?? null;
const ofDevice = computed(() =>
  deviceLoad(job.design, circuitId.value, value('voltageAtPeakV'), value('voltageMaxV')),
);
function takeDevice(): void {
  if (ofDevice.value.ok) job.set(path.value, ofDevice.value.profile, `Load of ${ofDevice.value.by}`);
}
const cycle = computed(
  () => job.evaluation.runs['vehicle.cycle:vehicle']?.input as DriveCycleInput | undefined,
);
function takeCycle(): void {
  if (cycle.value === undefined) return;
  const profile = loadProfileOf(cycleMoments(cycle.value));
  if (profile === null) return;
  job.set(
    path.value,
    profile.map(([s, a]): [number, number] => [Number(s.toPrecision(6)), Number(a.toPrecision(4))]),
    'Load profile from the drive cycle',
  );
}
</script>

<template>
  <div :data-path="path" class="profile">
    <div class="head">
      <span>for, s</span><span>load, A</span>
      <button type="button" class="btn btn-quiet btn-sm" aria-label="Add a step of the load" @click="add">
        <Icon name="plus" :size="12" />
      </button>
    </div>
    <div v-bind="containerProps" class="steps" data-steps>
      <div v-bind="wrapperProps">
        <div v-for="{ data: row, index } in list" :key="index" class="row-of" :data-row="index">
          <input
            v-model="row[0]"
            class="form-control"
            inputmode="decimal"
            :aria-label="`Seconds of load step ${index + 1}`"
            @change="commit()"
            @paste="paste($event, index)"
          />
          <input
            v-model="row[1]"
            class="form-control"
            inputmode="decimal"
            :aria-label="`Amperes of load step ${index + 1}`"
            @change="commit()"
            @keydown.enter="index === rows.length - 1 && add()"
          />
          <button
            type="button"
            class="btn btn-quiet btn-sm"
            :aria-label="`Remove load step ${index + 1}`"
            @click="remove(index)"
          >
            <Icon name="trash" :size="12" />
          </button>
        </div>
      </div>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else-if="waiting > 0" class="soft small">
      {{ waiting === 1 ? 'One row is' : `${waiting} rows are` }} not complete yet.
    </p>
    <div class="from">
      <BButton
        size="sm"
        variant="light"
        :disabled="!ofDevice.ok || !job.editable"
        :title="ofDevice.ok ? ofDevice.by : ofDevice.because"
        @click="takeDevice"
        >From its device</BButton
      >
      <BButton
        v-if="circuitId === mainCircuit || circuit?.role === 'main'"
        size="sm"
        variant="light"
        :disabled="cycle === undefined || !job.editable"
        @click="takeCycle"
        >From the drive cycle</BButton
      >
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="files?.click()"
        >From a file …</BButton
      >
      <input
        ref="files"
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        class="visually-hidden"
        aria-label="Load profile from a file"
        @change="takeFile"
      />
    </div>
    <p v-if="!ofDevice.ok && stored.length === 0" class="soft small">
      From its device: {{ ofDevice.because }}.
    </p>
    <div class="sums">
      <span v-if="rows.length > 20" class="soft small">{{ rows.length }} steps</span>
      <FigureValue :id="`network.load:${circuitId}:rmsA`" show-label />
      <FigureValue :id="`network.load:${circuitId}:peakA`" show-label />
    </div>
  </div>
</template>

<style scoped>
.head,
.row-of {
  display: grid;
  grid-template-columns: 1fr 1fr 2.2rem;
  gap: 0.2rem;
  align-items: center;
}

.head span {
  font-size: 0.85rem;
  color: var(--tv-soft);
  text-align: right;
  padding-right: 0.5rem;
}

.row-of {
  height: 30px;
  border-bottom: 1px solid var(--tv-line);
}

.steps {
  max-height: 16rem;
  overflow-y: auto;
}

.profile {
  margin-bottom: 0.4rem;
}

.form-control {
  text-align: right;
  height: 1.7rem;
  border-color: transparent;
  background: transparent;
}

.form-control:focus,
.form-control:hover {
  border-color: var(--tv-line);
}

.from {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin: 0.4rem 0;
}

.small {
  font-size: 0.82rem;
  margin: 0.2rem 0;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.82rem;
  margin: 0.2rem 0;
}

.sums {
  display: flex;
  gap: 1.4rem;
  margin-top: 0.4rem;
  align-items: baseline;
}
</style>
