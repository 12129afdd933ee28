<script setup lang="ts">
import type { ProcedureStep } from '@torvek/core/commissioning';
import { parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { useCallbacks } from '../../stores/callbacks';
import { useJob } from '../../stores/job';

/** A hold, a charge or a rest of this step: whatever page is open, one is called back. */
const props = defineProps<{ step: ProcedureStep }>();
const job = useJob();
const calls = useCallbacks();
const minutes = ref('');
const problem = ref<string | null>(null);
const usual = computed(() =>
  props.step.expected?.kind === 'hold' ? props.step.expected.minutes : (props.step.waitMinutes ?? null),
);
watch(
  () => props.step.id,
  () => {
    minutes.value = usual.value === null ? '' : String(usual.value);
    problem.value = null;
  },
  { immediate: true },
);
function begin(): void {
  const read = parseQuantity(minutes.value, 'min');
  problem.value = read.ok && read.value > 0 && read.value <= 20_000 ? null : 'minutes, more than none';
  if (problem.value !== null || !read.ok) return;
  calls.begin({ job: job.id, jobName: job.name, step: props.step.id, title: props.step.title }, read.value);
}
</script>

<template>
  <form class="timer no-print" @submit.prevent="begin">
    <label
      >Call me back in
      <input
        v-model="minutes"
        class="form-control"
        inputmode="decimal"
        aria-label="Call me back in, minutes"
      />
      min</label
    >
    <BButton type="submit" size="sm" variant="light">Begin</BButton>
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </form>
</template>

<style scoped>
.timer {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.9rem;
}

.timer .form-control {
  display: inline-block;
  width: 5rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
