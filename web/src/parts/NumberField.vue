<script setup lang="ts">
import { fieldAt, setAt, valueOf } from '@torvek/core/document';
import { parseQuantity } from '@torvek/core/quantity';
import { computed, ref, useId, watch } from 'vue';
import { useJob } from '../stores/job';
import { useUnits } from '../stores/units';
import { shownNumber } from './grid/columns';

/**
 * A number of the design, by its path. Text with units and arithmetic is read; while it is being typed everything
 * that follows from it shows already, Enter or leaving the field makes it a change, Esc takes it back. Text that
 * cannot be read stays in the field and out of the document.
 */
const props = defineProps<{
  path: string;
  /** Another name than the field's own, where it stands beside others. */
  label?: string;
  /** What holds when nothing is given, in the shown unit, where it follows from the design. */
  fallback?: number;
  bare?: boolean;
  disabled?: boolean;
}>();

const job = useJob();
const id = useId();
const units = useUnits();
/** In the unit of choice. */
const field = computed(() => fieldAt(props.path)?.field);
const label = computed(() => props.label ?? field.value?.label ?? props.path);
const shape = computed(() => field.value?.shown ?? { unit: field.value?.unit ?? '', scale: 1 });
const as = computed(() =>
  field.value?.asNamed === true
    ? { unit: shape.value.unit, scale: shape.value.scale, offset: 0, converted: false }
    : units.field(shape.value.unit, shape.value.scale),
);
/** What holds when nothing is given, in the stored unit; said to be a default. */
const otherwise = computed(() =>
  props.fallback === undefined ? field.value?.fallback : props.fallback * shape.value.scale,
);
const stored = computed(() => valueOf(job.design, props.path) as number | undefined);
const editing = ref(false);
const text = ref('');
const problem = ref<string | null>(null);

/** What stood there when typing began: somebody else may change it meanwhile. */
let began: unknown;
/** Whether the field asked because of that: only Enter answers yes. */
let asked = false;

const toShown = (value: number | undefined) => shownNumber(value, as.value);

/** The field has become that of another place: what was typed and not taken does not move along. */
watch(
  () => props.path,
  () => {
    if (editing.value) job.preview(null);
    editing.value = false;
    asked = false;
    problem.value = null;
  },
);

watch(
  [stored, () => props.path, as],
  () => {
    if (editing.value || problem.value !== null) return;
    text.value = toShown(stored.value);
  },
  { immediate: true },
);

type Read = { ok: true; value: number | undefined } | { ok: false };

function read(): Read {
  if (text.value.trim() === '') {
    problem.value = null;
    return { ok: true, value: undefined };
  }
  const parsed = parseQuantity(text.value, as.value.unit);
  problem.value = parsed.ok ? null : parsed.message;
  if (!parsed.ok) return { ok: false };
  const stored = (parsed.value - as.value.offset) * as.value.scale;
  if (Math.abs(stored) > 1e9) {
    problem.value = 'is beyond ±1e9';
    return { ok: false };
  }
  return { ok: true, value: Number(stored.toPrecision(15)) };
}

function onInput(): void {
  if (!editing.value) began = valueOf(job.committed, props.path);
  editing.value = true;
  asked = false;
  const now = read();
  job.preview(now.ok ? (draft) => setAt(draft, props.path, now.value) : null);
}

function commit(): void {
  if (!editing.value) return;
  editing.value = false;
  const now = read();
  job.preview(null);
  if (!now.ok) return;
  const before = stored.value;
  if (before !== began && now.value !== before) {
    problem.value = `meanwhile somebody made it ${toShown(before) || 'empty'}; Enter again puts yours`;
    asked = true;
    return;
  }
  if (now.value !== before) {
    const unit = as.value.unit ? ` ${as.value.unit}` : '';
    const say = (value: number | undefined) =>
      value === undefined ? 'not given' : `${toShown(value)}${unit}`;
    job.set(props.path, now.value, `${label.value}: ${say(before)} → ${say(now.value)}`);
  }
  text.value = toShown(now.value);
}

function onEnter(): void {
  if (asked) {
    asked = false;
    began = stored.value;
    editing.value = true;
  }
  commit();
}

function cancel(): void {
  asked = false;
  editing.value = false;
  problem.value = null;
  job.preview(null);
  text.value = toShown(stored.value);
}

const placeholder = computed(() =>
  otherwise.value === undefined ? '' : shownNumber(otherwise.value, { ...as.value, converted: true }),
);
const defaulted = computed(
  () => otherwise.value !== undefined && stored.value === undefined && text.value === '',
);
</script>

<template>
  <div class="number-field" :class="{ bare, wrong: problem !== null }" :data-path="path">
    <label v-if="!bare" :for="id">{{ label }}<small v-if="defaulted" class="default">default</small></label>
    <div class="box">
      <input
        :id="id"
        v-model="text"
        class="form-control"
        :class="{ 'bare-input': bare }"
        type="text"
        inputmode="decimal"
        autocomplete="off"
        spellcheck="false"
        :aria-label="bare ? (as.unit ? `${label}, ${as.unit}` : label) : undefined"
        :aria-invalid="problem !== null"
        :aria-describedby="problem !== null ? `${id}-problem` : undefined"
        :placeholder="placeholder"
        :disabled="disabled"
        :readonly="!job.editable"
        @input="onInput"
        @change="commit"
        @blur="commit"
        @keydown.enter="onEnter"
        @keydown.esc.stop="cancel"
      />
      <span v-if="!bare" class="unit">{{ as.unit }}</span>
    </div>
    <p v-if="problem !== null" :id="`${id}-problem`" class="problem">{{ problem }}</p>
  </div>
</template>

<style scoped>
.number-field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7.6rem;
  align-items: center;
  gap: 0 0.6rem;
  min-height: 2rem;
}

label {
  font-size: 0.9rem;
}

.default {
  margin-left: 0.4rem;
  color: var(--tv-soft);
  font-style: italic;
}

.box {
  display: flex;
  align-items: baseline;
}

input {
  text-align: right;
  min-width: 0;
  flex: 1;
  height: 1.85rem;
}

.box .unit {
  margin-left: 0.25em;
  width: 3.1rem;
  flex: none;
  font-size: 0.85rem;
}

.bare {
  display: block;
  min-height: 0;
}

.wrong input {
  border-color: var(--tv-stop);
}

.problem {
  grid-column: 1 / -1;
  margin: 0;
  font-size: 0.8rem;
  color: var(--tv-stop);
  text-align: right;
}
</style>
