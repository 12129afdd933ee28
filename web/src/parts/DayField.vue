<script setup lang="ts">
import { VueDatePicker } from '@vuepic/vue-datepicker';
import '@vuepic/vue-datepicker/dist/main.css';
import { dayOf, readDay } from './dates';

/** A day, typed or picked; it reads as everywhere. Stored as `2026-11-16`. */
const day = defineModel<string | null>({ required: true });
defineProps<{ label: string; invalid?: boolean }>();
</script>

<template>
  <VueDatePicker
    v-model="day"
    class="day-field"
    model-type="yyyy-MM-dd"
    auto-apply
    teleport
    :formats="{ input: (date: Date) => dayOf(date) }"
    :text-input="{ format: (text: string) => readDay(text), applyOnBlur: true, enterSubmit: true }"
    :time-config="{ enableTimePicker: false }"
    :input-attrs="{ hideInputIcon: true, clearable: true, ...(invalid && { state: false }) }"
    :aria-labels="{ input: label }"
    placeholder="no day"
  />
</template>

<style scoped>
.day-field {
  --dp-border-radius: 2px;
  --dp-font-family: var(--bs-body-font-family);
  --dp-font-size: 0.95rem;
  --dp-background-color: var(--tv-sheet);
  --dp-text-color: var(--tv-ink);
  --dp-border-color: var(--tv-line);
  --dp-menu-border-color: var(--tv-line);
  --dp-primary-color: var(--tv-act);
  --dp-input-padding: 4px 30px 4px 10px;

  width: 11rem;
}

.day-field :deep(.dp__input) {
  font-family: inherit;
}
</style>
