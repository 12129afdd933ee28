<script setup lang="ts">
import { useId } from 'vue';
import ChoiceCell from './ChoiceCell.vue';

/** One choice of the design with its label before it, in line with number fields; or above it. */
defineProps<{
  path: string;
  label: string;
  options: readonly { value: string | number | boolean; text: string }[];
  /** What it says when nothing is chosen; a default is said to be one. */
  none: string;
  above?: boolean;
}>();
const id = useId();
</script>

<template>
  <div class="choice-field" :class="{ above }">
    <label :for="id">{{ label }}</label>
    <ChoiceCell :id="id" :path="path" :label="label" :options="options" :none="none" />
  </div>
</template>

<style scoped>
.choice-field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(7.6rem, 1.1fr);
  align-items: center;
  gap: 0 0.6rem;
  min-height: 2rem;
  font-size: 0.9rem;
}

.above {
  grid-template-columns: minmax(0, 1fr);
  gap: 0.2rem;
}

.choice-field :deep(.choice-cell) {
  height: 1.85rem;
  font-size: 0.9rem;
}
</style>
