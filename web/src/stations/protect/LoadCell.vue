<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useJob } from '../../stores/job';
import { readSteady } from './read-profile';

/** The load of a circuit in the table: a steady one is typed here, in amperes or watts; a profile is shown and edited below. */
const props = defineProps<{ circuit: string; name: string; shown: string }>();
const job = useJob();
const profile = computed(() => job.design.circuits[props.circuit]?.loadProfile ?? []);
const steady = computed(() => profile.value.length <= 1);
const typed = ref<string | null>(null);
const problem = ref<string | null>(null);
watch(
  () => props.circuit,
  () => {
    typed.value = null;
    problem.value = null;
  },
);

function commit(): void {
  const text = typed.value?.trim();
  if (text === undefined) return;
  if (text === '') {
    typed.value = null;
    problem.value = null;
    if (profile.value.length === 1)
      job.set(`circuits.${props.circuit}.loadProfile`, undefined, `Load of ${props.name}`);
    return;
  }
  const read = readSteady(text, job.figure('pack.pack:pack:voltageAtPeakV')?.value ?? null);
  problem.value = read.ok ? null : read.message;
  if (!read.ok) return;
  typed.value = null;
  const [durationS = 3600] = profile.value[0] ?? [];
  job.set(`circuits.${props.circuit}.loadProfile`, [[durationS, read.currentA]], `Load of ${props.name}`);
}

/** The load of the next circuit, as Enter does in a table. */
function goOn(event: KeyboardEvent): void {
  commit();
  if (problem.value !== null) return;
  const all = [...document.querySelectorAll<HTMLInputElement>('[data-circuits] [data-load]')];
  const next = all[all.indexOf(event.target as HTMLInputElement) + (event.shiftKey ? -1 : 1)];
  next?.focus();
  next?.select();
}

function leave(): void {
  typed.value = null;
  problem.value = null;
}
</script>

<template>
  <span v-if="!steady" class="many" :title="`${profile.length} steps: edited below`">{{ shown }}</span>
  <input
    v-else
    class="form-control load"
    :class="{ wrong: problem }"
    inputmode="decimal"
    autocomplete="off"
    :disabled="!job.editable"
    :value="typed ?? shown"
    :aria-label="`Load of ${name}, A or W`"
    :aria-invalid="problem !== null"
    :title="problem ?? 'amperes, or watts at the pack’s lowest voltage'"
    :data-load="circuit"
    @input="typed = ($event.target as HTMLInputElement).value"
    @change="commit"
    @keydown.enter.stop.prevent="goOn"
    @keydown.esc.stop="leave"
    @keydown.stop
  />
</template>

<style scoped>
.load {
  height: 1.7rem;
  padding: 0 0.3rem;
  text-align: right;
  border-color: transparent;
  background: transparent;
}

.load:hover,
.load:focus {
  border-color: var(--tv-line);
}

.wrong {
  border-color: var(--tv-stop);
}

.many {
  display: block;
  font-size: 0.9rem;
  text-align: right;
  white-space: nowrap;
}
</style>
