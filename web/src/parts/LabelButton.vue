<script setup lang="ts">
import { useStorage } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useJob } from '../stores/job';
import { labelSheets, printLabels, type Label } from './labels';

/** Labels to print and stick on; how large they are is remembered in this browser. */
const props = defineProps<{ what: string; labels: readonly Label[] }>();
const job = useJob();
const size = useStorage('torvek.labels', 'middle');
const sheet = computed(() => labelSheets.find(({ id }) => id === size.value) ?? labelSheets[1]!);
const busy = ref(false);
const trouble = ref<string | null>(null);
async function print(): Promise<void> {
  busy.value = true;
  trouble.value = null;
  try {
    await printLabels({ id: job.id, name: job.name }, props.what, props.labels, sheet.value);
  } catch (error) {
    trouble.value = `Not made: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <span class="labels">
    <button type="button" class="btn btn-quiet btn-sm" :disabled="busy || labels.length === 0" @click="print">
      Labels with QR, PDF
    </button>
    <select v-model="size" class="form-select form-select-sm" aria-label="Size of the labels">
      <option v-for="one in labelSheets" :key="one.id" :value="one.id">{{ one.text }}</option>
    </select>
    <span v-if="trouble" role="alert" class="trouble">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.labels {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}

.form-select {
  width: auto;
}

.trouble {
  color: var(--tv-stop);
}
</style>
