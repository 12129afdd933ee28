<script setup lang="ts">
import { behaviours, standInNames } from '@torvek/core/commissioning';
import type { Instrument } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';

/** An instrument that reads by itself, for practice: what it does, and a reading of it. */
defineProps<{ instrument: Instrument['kind']; busy: boolean }>();
const emit = defineEmits<{ take: [] }>();
const behaviour = defineModel<string>({ required: true });
</script>

<template>
  <fieldset class="stand-in">
    <legend>{{ standInNames[instrument] }}</legend>
    <select v-model="behaviour" class="form-select" aria-label="What the stand-in instrument does">
      <option v-for="one in behaviours[instrument]" :key="one.id" :value="one.id">{{ one.label }}</option>
    </select>
    <BButton variant="light" :disabled="busy" data-stand-in @click="emit('take')">Take a reading</BButton>
    <span class="soft">For practice and for trying the procedure.</span>
  </fieldset>
</template>

<style scoped>
.stand-in {
  display: grid;
  grid-template-columns: minmax(0, 14rem) auto 1fr;
  gap: 0.5rem;
  align-items: center;
  border-top: 1px solid var(--tv-line);
  padding-top: 0.4rem;
  margin-top: 0.5rem;
  font-size: 0.9rem;
}

.stand-in legend {
  font-size: 0.9rem;
  color: var(--tv-soft);
  margin: 0;
  float: none;
}
</style>
