<script setup lang="ts">
import { valueOf } from '@torvek/core/document';
import { computed } from 'vue';
import { useJob } from '../stores/job';

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
}>();
const job = useJob();
const value = computed(() => valueOf(job.design, props.path) as string | number | boolean | undefined);

function choose(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const option = props.options.find((one) => String(one.value) === select.value);
  job.set(props.path, option?.value, `${props.label}: ${option?.text ?? props.none}`);
}
</script>

<template>
  <select
    class="form-select choice-cell"
    :class="{ none: value === undefined }"
    :value="value === undefined ? '' : String(value)"
    :aria-label="label"
    :data-path="path"
    :disabled="!job.editable"
    @change="choose"
  >
    <option value="" :disabled="required">{{ none }}</option>
    <option v-for="one in options" :key="String(one.value)" :value="String(one.value)">{{ one.text }}</option>
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
