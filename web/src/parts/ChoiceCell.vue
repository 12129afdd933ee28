<script setup lang="ts">
import { setAt, valueOf } from '@torvek/core/document';
import { computed, ref } from 'vue';
import { useJob } from '../stores/job';
import type { GridSheet } from './grid/columns';

/** One choice of the design by its path, in a cell of a table or beside a label. */
const props = defineProps<{
  path: string;
  /** Spoken, and in the name of the change. */
  label: string;
  options: readonly { value: string | number | boolean; text: string }[];
  /** What it says when nothing is chosen; a default is said to be one. */
  none: string;
  /** True when it cannot be left unchosen. */
  required?: boolean;
  /** What it is a choice of, when it is not the design. */
  sheet?: GridSheet | undefined;
}>();
const job = useJob();
const value = computed(
  () => valueOf(props.sheet?.shown ?? job.design, props.path) as string | number | boolean | undefined,
);
/** In a long table most lists are never opened: of a long one only what is chosen is there until somebody comes near. */
const manyOptions = 20;
const near = ref(false);
const listed = computed(() =>
  near.value || props.options.length <= manyOptions
    ? props.options
    : props.options.filter((one) => String(one.value) === String(value.value)),
);
const editable = computed(() => props.sheet?.editable ?? job.editable);

function choose(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const option = props.options.find((one) => String(one.value) === select.value);
  const said = `${props.label}: ${option?.text ?? props.none}`;
  if (props.sheet === undefined) job.set(props.path, option?.value, said);
  else props.sheet.change(said, (draft) => setAt(draft, props.path, option?.value));
}
</script>

<template>
  <select
    class="form-select choice-cell"
    :class="{ none: value === undefined }"
    :value="value === undefined ? '' : String(value)"
    :aria-label="label"
    :data-path="path"
    :disabled="!editable"
    @pointerenter="near = true"
    @focus="near = true"
    @change="choose"
  >
    <option value="" :disabled="required">{{ none }}</option>
    <option v-for="one in listed" :key="String(one.value)" :value="String(one.value)">{{ one.text }}</option>
  </select>
</template>

<style>
.choice-cell.form-select {
  height: 1.75rem;
  padding: 0 0.85rem 0 0.25rem;
  font-size: 0.82rem;
  background-position: right 0.2rem center;
  background-size: 9px 7px;
  text-overflow: ellipsis;
}

.choice-cell.none {
  color: var(--tv-soft);
}
</style>
