<script setup lang="ts">
import { useStorage } from '@vueuse/core';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { momentOf } from '../../../parts/dates';
import { logColumns, readCellLog, unitOf, type CellLog, type LogChoice, type LogSetting } from './cell-log';

/** A file of a monitor or a logger: how it is read is seen and can be changed before anything is recorded. */
const props = defineProps<{
  name: string;
  text: string;
  setting: LogSetting;
  /** Modules with several cells, which a list may count by itself. */
  modules: readonly { id: string; tag: string }[];
  zone: string | undefined;
  busy: boolean;
}>();
const emit = defineEmits<{ record: [log: CellLog]; cancel: [] }>();

/** Columns chosen once hold for the next file with the same headings. */
const remembered = useStorage<Record<string, LogChoice>>('torvek.logs', {});
const signature = computed(() => {
  const { head, choice } = readCellLog(props.text, props.setting);
  return `${head.join('|').slice(0, 400)}/${choice.columns.length}`;
});
const asked = ref<LogChoice | null>(remembered.value[signature.value] ?? null);
const begin = ref('');
const log = computed(() => readCellLog(props.text, props.setting, asked.value, begin.value));
const choice = computed(() => log.value.choice);
const set = (change: Partial<LogChoice>) => (asked.value = { ...choice.value, ...change });
const setColumn = (at: number, event: Event) => {
  const to = logColumns.find((one) => one === (event.target as HTMLSelectElement).value)!;
  const columns = choice.value.columns.map((one, i) => (i === at ? to : one));
  const isVolts = to === 'volts' || to === 'each';
  set({ columns, ...(isVolts && { unit: unitOf(log.value.first.map((row) => row[at] ?? '')) }) });
};
const valueOf = (event: Event) => (event.target as HTMLSelectElement).value;
const words: Record<(typeof logColumns)[number], string> = {
  skip: 'not read',
  date: 'day',
  time: 'time',
  cell: 'name or number of the cell',
  volts: 'voltage',
  each: 'voltages of this cell',
};
const span = computed(() => {
  const { cells } = log.value;
  if (cells.length === 0) return '';
  const when = (at: number) => momentOf(new Date(at).toISOString(), props.zone);
  const first = Math.min(...cells.map(({ samples }) => samples[0]![0]));
  const last = Math.max(...cells.map(({ samples }) => samples.at(-1)![0]));
  return first === last ? when(first) : `${when(first)} to ${when(last)}`;
});

function record(): void {
  if (asked.value !== null) remembered.value = { ...remembered.value, [signature.value]: asked.value };
  emit('record', log.value);
}
</script>

<template>
  <section class="sheet-card log-form" :aria-label="`Readings from ${name}`" data-log-form>
    <div class="card-head">
      <h2>{{ name }}</h2>
      <span class="hint">how its columns are read; nothing is recorded yet</span>
    </div>
    <div class="lines">
      <table class="grid-table">
        <thead>
          <tr>
            <th v-for="(column, i) in choice.columns" :key="i" scope="col">
              <div class="heading">{{ log.head[i] || `column ${i + 1}` }}</div>
              <select
                class="form-select choice-cell"
                :aria-label="`What ${log.head[i] || `column ${i + 1}`} holds`"
                :value="column"
                @change="setColumn(i, $event)"
              >
                <option v-for="one in logColumns" :key="one" :value="one">{{ words[one] }}</option>
              </select>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, r) in log.first" :key="r">
            <td v-for="(column, i) in choice.columns" :key="i" :class="{ soft: column === 'skip' }">
              {{ row[i] ?? '' }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div class="asks">
      <label
        >unit
        <select
          class="form-select"
          :value="choice.unit"
          @change="set({ unit: valueOf($event) === 'mV' ? 'mV' : 'V' })"
        >
          <option>V</option>
          <option>mV</option>
        </select>
      </label>
      <template v-if="log.numbered">
        <label
          >numbers count the cells of
          <select class="form-select" :value="choice.of ?? ''" @change="set({ of: valueOf($event) || null })">
            <option value="">the pack, in series order</option>
            <option v-for="one in modules" :key="one.id" :value="one.id">{{ one.tag }}</option>
          </select>
        </label>
        <label
          >the first is
          <select
            class="form-select"
            :value="choice.firstNumber"
            @change="set({ firstNumber: Number(valueOf($event)) })"
          >
            <option :value="1">1</option>
            <option :value="0">0</option>
          </select>
        </label>
      </template>
      <label v-if="log.eitherOrder"
        >dates have the
        <select
          class="form-select"
          :value="choice.dates"
          @change="set({ dates: valueOf($event) === 'month first' ? 'month first' : 'day first' })"
        >
          <option>day first</option>
          <option>month first</option>
        </select>
      </label>
      <label v-if="choice.elapsed !== null"
        >times since the beginning in
        <select
          class="form-select"
          :value="choice.elapsed"
          @change="
            set({ elapsed: (['s', 'min', 'h'] as const).find((one) => one === valueOf($event)) ?? 's' })
          "
        >
          <option>s</option>
          <option>min</option>
          <option>h</option>
        </select>
      </label>
      <label v-if="log.needsBegin"
        >it began
        <input
          v-model="begin"
          class="form-control"
          maxlength="40"
          :placeholder="choice.elapsed === null ? '2026-11-18' : '2026-11-18 08:30'"
          aria-label="When the log began"
        />
      </label>
    </div>
    <ul v-if="log.problems.length > 0" class="problems" role="alert">
      <li v-for="one in log.problems" :key="one">{{ one }}</li>
    </ul>
    <p v-else role="status">
      {{ log.count }} {{ log.count === 1 ? 'reading' : 'readings' }} of {{ log.cells.length }}
      {{ log.cells.length === 1 ? 'cell' : 'cells' }}, {{ span
      }}<template v-if="log.thinnedFrom !== null"
        >; up to {{ log.thinnedFrom }} a cell, averaged to 300</template
      >.
    </p>
    <div class="acts">
      <BButton size="sm" variant="primary" :disabled="busy || log.problems.length > 0" @click="record"
        >Record {{ log.count }}</BButton
      >
      <BButton size="sm" variant="light" :disabled="busy" @click="emit('cancel')">Leave it</BButton>
    </div>
  </section>
</template>

<style scoped>
.lines {
  overflow-x: auto;
}

.heading {
  font-weight: 600;
  white-space: nowrap;
}

th .choice-cell {
  min-width: 7rem;
}

td {
  white-space: nowrap;
}

.asks,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  margin-top: 0.6rem;
}

.asks label {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  font-size: 0.9rem;
}

.asks .form-select,
.asks .form-control {
  width: auto;
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
}

.problems {
  margin: 0.6rem 0 0;
  padding-left: 1.2rem;
  color: var(--tv-stop);
}

p {
  margin: 0.6rem 0 0;
}
</style>
