<script setup lang="ts">
import { valueOf } from '@torvek/core/document';
import { computed, useId } from 'vue';
import { useJob } from '../stores/job';

/** A yes or no of the design, by its path; absent is no. */
const props = defineProps<{ path: string; label: string }>();
const job = useJob();
const id = useId();
const on = computed(() => valueOf(job.design, props.path) === true);
const set = (event: Event) => {
  const { checked } = event.target as HTMLInputElement;
  job.set(props.path, checked || undefined, `${props.label}: ${checked ? 'yes' : 'no'}`);
};
</script>

<template>
  <div class="flag" :data-path="path">
    <input
      :id="id"
      type="checkbox"
      class="form-check-input"
      :checked="on"
      :disabled="!job.editable"
      @change="set"
    />
    <label :for="id">{{ label }}</label>
  </div>
</template>

<style scoped>
.flag {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 1.9rem;
}
</style>
