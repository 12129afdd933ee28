<script setup lang="ts">
import type { CircuitPartKind } from '@torvek/core/document';
import { partKey, type PartOf } from '@torvek/core/parts';
import { computed, useId } from 'vue';
import { choosePart } from '../../parts/choose-part';
import GradeMark from '../../parts/GradeMark.vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import { useCircuit } from './use-circuit';

/** One chosen part of the open circuit, and whether it still holds. */
const props = defineProps<{
  kind: CircuitPartKind;
  label: string;
  rules: string;
}>();
const job = useJob();
const shelf = useLibrary();
const id = useId();
const { circuitId, circuit } = useCircuit();
const key = computed(() => circuit.value?.[props.kind] ?? '');
const choices = computed(() => {
  const known = shelf.library.of(props.kind);
  const pinned = job.design.parts[key.value];
  return pinned === undefined || known.some((part) => partKey(part) === key.value)
    ? known
    : [pinned as PartOf<typeof props.kind>, ...known];
});
/** How the start is controlled is no fault of the resistor. */
const othersRules = /^precharge\.(bare-timer|timer-welds)$/;
/** What is wrong with lug or gland is said at them. */
const endRules = /^cable\.(lug|gland)-/;
/** Rules about this part, of this circuit or of the bus that the main one charges. */
const ours = (rule: string, subjects: readonly string[]) =>
  rule.startsWith(props.rules) &&
  !othersRules.test(rule) &&
  !(props.kind === 'cable' && endRules.test(rule)) &&
  subjects.some(
    (one) =>
      one === circuitId.value ||
      one.startsWith(`${circuitId.value}/`) ||
      (!one.startsWith('circuit-') && job.design.strings[one] === undefined),
  );
const checks = computed(() => job.checks.filter(({ rule, subjects }) => ours(rule.id, subjects)));
const worst = computed(() => {
  const found = job.assessment.findings.filter(
    ({ check, accepted }) => accepted === null && ours(check.rule.id, check.subjects),
  );
  return found[0]?.check;
});
const state = computed(() => {
  if (key.value === '') return 'not chosen';
  if (worst.value !== undefined && worst.value.grade !== 'note') return 'does not hold';
  const open = checks.value.filter(({ state: one }) => one === 'not-checked').length;
  return open > 0 ? `${open} ${open === 1 ? 'gap' : 'gaps'}: not checked` : 'holds in every check made';
});
</script>

<template>
  <div class="choice" :data-path="`circuits.${circuitId}.${kind}`" :data-choice="kind" :data-state="state">
    <label :for="id">{{ label }}</label>
    <select
      :id="id"
      class="form-select"
      :value="key"
      @change="choosePart(job, circuitId, kind, ($event.target as HTMLSelectElement).value)"
    >
      <option value="" disabled>choose one</option>
      <option v-for="part in choices" :key="partKey(part)" :value="partKey(part)">{{ part.label }}</option>
    </select>
    <p :class="{ bad: state === 'does not hold' }">
      <GradeMark v-if="worst" :grade="worst.grade" /> {{ state }}
    </p>
  </div>
</template>

<style scoped>
.choice {
  min-width: 0;
}

label {
  font-size: 0.85rem;
  color: var(--tv-soft);
}

select {
  height: 1.95rem;
  padding-top: 0.15rem;
  padding-bottom: 0.15rem;
}

p {
  margin: 0.15rem 0 0;
  font-size: 0.82rem;
  color: var(--tv-soft);
  display: flex;
  gap: 0.3rem;
  align-items: center;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
