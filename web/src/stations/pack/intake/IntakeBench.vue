<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import type { PartOf } from '@torvek/core/parts';
import { conditions, looks, type Seen } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, ref, watch } from 'vue';
import { shownNumber } from '../../../parts/grid/columns';
import { readReading } from '../../../parts/reading';
import type { IntakeLine } from './columns';
import { measures, type IntakeRow } from './sheet';

/** One module at the bench: large fields in the order of the work, Enter goes on, the last Enter records. */
const props = defineProps<{
  rows: readonly IntakeLine[];
  kindOf: (id: Id) => PartOf<'module'> | null;
  values: Record<Id, IntakeRow>;
  module: Id | null;
  /** What of it is an outlier, in words. */
  off: (id: Id) => string;
  /** It has rested since its first voltage: a second one can be read. */
  waited: (id: Id) => boolean;
  busy: boolean;
  /** A doubt is open. */
  blocked: boolean;
}>();
const emit = defineEmits<{
  pick: [module: Id];
  set: [module: Id, field: keyof IntakeRow, value: string | number | boolean | undefined, over?: boolean];
  record: [module: Id, then: () => void];
}>();
const at = computed(() =>
  Math.max(
    0,
    props.rows.findIndex(({ id }) => id === props.module),
  ),
);
const row = computed(() => props.rows[at.value]!);
const values = computed(() => props.values[row.value.id] ?? {});
const part = computed(() => props.kindOf(row.value.id));
const criterion = computed(() => {
  if (part.value === null) return {};
  const { cell, cellsInSeries, insulationMinMOhm } = part.value.data;
  return {
    voltageV: `${shown(cell.minV * cellsInSeries)} to ${shown(cell.maxV * cellsInSeries)} V`,
    insulationMOhm: `at least ${shown(insulationMinMOhm)} MΩ`,
  } as Record<string, string>;
});
const shown = (value: number | undefined, scale = 1) =>
  shownNumber(value, { scale, offset: 0, converted: false });

const texts = ref<Record<string, string>>({});
const wrong = ref<Record<string, string>>({});
const measured = computed(() =>
  measures.filter(({ field }) => field !== 'restedV' || props.waited(row.value.id)),
);
/** What lies on the shelf has its number from its arrival: it is its name. */
const fields = computed(() => [
  ...(row.value.shelved ? [] : ['serial' as const]),
  ...measured.value.map(({ field }) => field),
]);
const isOver = (field: (typeof measures)[number]['field']) => values.value.over?.[field] === true;
watch(
  [row, values],
  () => {
    texts.value = {
      serial: values.value.serial ?? '',
      ...Object.fromEntries(
        measures.map(({ field, scale }) => {
          const text = shown(values.value[field], scale);
          return [field, text !== '' && isOver(field) ? `>${text}` : text];
        }),
      ),
    };
    wrong.value = {};
  },
  { immediate: true },
);

const words = (all: readonly string[]) => all.map((value) => ({ value, text: value }));
const seen: {
  field: 'look' | Exclude<keyof Seen, 'dateCode'>;
  title: string;
  choices: { value: string | boolean; text: string }[];
}[] = [
  { field: 'look', title: 'look', choices: words(looks) },
  { field: 'terminals', title: 'terminals', choices: words(conditions) },
  { field: 'seals', title: 'coolant seals', choices: words(conditions) },
  {
    field: 'drained',
    title: 'coolant',
    choices: [
      { value: true, text: 'drained' },
      { value: false, text: 'not drained' },
    ],
  },
];

const form = ref<HTMLElement | null>(null);
const focus = (field: string) =>
  void nextTick(() => {
    const input = form.value?.querySelector<HTMLInputElement>(`[data-field="${field}"]`);
    input?.focus();
    input?.select?.();
  });
watch(
  () => row.value.id,
  () => focus(fields.value[0]!),
  { immediate: true },
);

type Name = 'serial' | (typeof measures)[number]['field'];

/** @returns false while the text cannot be read */
function commit(field: Name): boolean {
  const text = (texts.value[field] ?? '').trim();
  if (field === 'serial') {
    if (text !== (values.value.serial ?? ''))
      emit('set', row.value.id, field, text === '' ? undefined : text.slice(0, 80));
    return true;
  }
  const { unit, scale } = measures.find((one) => one.field === field)!;
  if (text === '') {
    if (values.value[field] !== undefined) emit('set', row.value.id, field, undefined);
    return true;
  }
  const read = readReading(text, unit);
  if (!read.ok) {
    wrong.value = { ...wrong.value, [field]: read.message };
    return false;
  }
  const value = Number((read.value * scale).toPrecision(15));
  if (value !== values.value[field] || read.over !== isOver(field))
    emit('set', row.value.id, field, value, read.over);
  return true;
}

function enter(field: Name): void {
  if (!commit(field)) return;
  const next = fields.value[fields.value.indexOf(field) + 1];
  if (next === undefined) done();
  else focus(next);
}

function done(): void {
  if (props.busy || !fields.value.every(commit)) return;
  const after = props.rows[at.value + 1];
  // What was typed last reaches the sheet first.
  void nextTick(() => {
    if (!props.blocked) emit('record', row.value.id, () => after !== undefined && emit('pick', after.id));
  });
}
</script>

<template>
  <div ref="form" class="at-bench" data-intake-bench>
    <div class="who">
      <BButton variant="light" :disabled="at === 0" @click="emit('pick', rows[at - 1]!.id)">Back</BButton>
      <b>{{ row.name }}</b>
      <span class="soft"
        >{{ at + 1 }} of {{ rows.length }}{{ row.shelved ? ', on the shelf' : '' }}, {{ part?.label }}</span
      >
      <BButton variant="light" :disabled="at === rows.length - 1" @click="emit('pick', rows[at + 1]!.id)"
        >Skip</BButton
      >
    </div>
    <p class="soft">
      Terminals are live as they come: covers on all but the one that is measured, no jewellery, meter proved
      before and after.
    </p>
    <label v-if="!row.shelved" class="line">
      <span>serial</span>
      <input
        v-model="texts.serial"
        data-field="serial"
        class="form-control"
        maxlength="80"
        :aria-label="`Serial number of ${row.name}`"
        @change="commit('serial')"
        @keydown.enter.prevent="enter('serial')"
      />
    </label>
    <label v-for="{ field, title, unit } in measured" :key="field" class="line">
      <span>{{ title }}</span>
      <input
        v-model="texts[field]"
        :data-field="field"
        class="form-control"
        inputmode="decimal"
        :aria-label="`${title} of ${row.name}`"
        :aria-invalid="wrong[field] !== undefined || undefined"
        @change="commit(field)"
        @keydown.enter.prevent="enter(field)"
      />
      <span>{{ unit }}</span>
      <span v-if="wrong[field]" class="bad" role="alert">{{ wrong[field] }}</span>
      <span v-else class="soft">{{ criterion[field] ?? '' }}</span>
    </label>
    <div v-for="{ field, title, choices } in seen" :key="field" class="line">
      <span>{{ title }}</span>
      <span class="looks" role="radiogroup" :aria-label="`${title} of ${row.name}`">
        <BButton
          v-for="{ value, text } in choices"
          :key="text"
          role="radio"
          :aria-checked="values[field] === value"
          :variant="values[field] === value ? 'primary' : 'light'"
          @click="emit('set', row.id, field, values[field] === value ? undefined : value)"
          >{{ text }}</BButton
        >
      </span>
    </div>
    <p v-if="off(row.id)" class="bad">Outlier: {{ off(row.id) }}</p>
    <BButton variant="primary" :disabled="busy || blocked" @click="done">Record and go on</BButton>
  </div>
</template>

<style scoped>
.at-bench {
  font-size: 18px;
  display: grid;
  gap: 0.6rem;
  max-width: 52rem;
}

.at-bench .btn,
.at-bench .form-control {
  min-height: 44px;
  font-size: 18px;
}

.who {
  display: flex;
  gap: 1rem;
  align-items: center;
}

.who b {
  font-size: 1.5rem;
}

.who .soft {
  flex: 1;
}

.line {
  display: grid;
  grid-template-columns: 8rem 14rem 3rem minmax(0, 1fr);
  gap: 0.8rem;
  align-items: center;
}

.looks {
  grid-column: 2 / -1;
  display: flex;
  gap: 0.6rem;
}

.bad {
  color: var(--tv-stop);
}

p {
  margin: 0;
}

.at-bench > .btn {
  justify-self: start;
}
</style>
