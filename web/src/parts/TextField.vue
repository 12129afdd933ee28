<script setup lang="ts">
import { valueOf } from '@torvek/core/document';
import { computed, ref, useId, watch } from 'vue';
import { useJob } from '../stores/job';

/** A text of the design, by its path. */
const props = defineProps<{
  path: string;
  label: string;
  bare?: boolean;
  required?: boolean;
  placeholder?: string;
}>();
const job = useJob();
const id = useId();
const stored = computed(() => (valueOf(job.design, props.path) as string | undefined) ?? '');
const text = ref('');
watch([stored, () => props.path], () => (text.value = stored.value), { immediate: true });

function commit(): void {
  const next = text.value.trim().slice(0, 200);
  if (next === '' && props.required) text.value = stored.value;
  else if (next !== stored.value)
    job.set(props.path, next === '' ? undefined : next, `${props.label}: ${next || 'not given'}`);
}
</script>

<template>
  <div class="text-field" :class="{ bare }" :data-path="path">
    <label v-if="!bare" :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="form-control"
      :class="{ 'bare-input': bare }"
      maxlength="200"
      :placeholder="placeholder"
      :readonly="!job.editable"
      :aria-label="bare ? label : undefined"
      @change="commit"
      @keydown.enter="commit"
      @keydown.esc="text = stored"
    />
  </div>
</template>

<style scoped>
.text-field {
  display: grid;
  grid-template-columns: 6rem minmax(0, 1fr);
  align-items: center;
  gap: 0.6rem;
  min-height: 2rem;
}

label {
  font-size: 0.9rem;
}

input {
  height: 1.85rem;
}

.bare {
  display: block;
  min-height: 0;
}
</style>
