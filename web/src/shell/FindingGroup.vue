<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import FindingCard from '../parts/FindingCard.vue';
import GradeMark from '../parts/GradeMark.vue';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';
import { subjectNames, type FindingGroup } from './arrange-findings';

/** Findings of one rule: one by itself is its card, several are one line with their names that unfolds. */
const props = defineProps<{ group: FindingGroup }>();
const job = useJob();
const slate = useSlate();
const open = ref(false);
const first = computed(() => props.group.findings[0]!);
const several = computed(() => props.group.findings.length > 1);
const names = computed(() => subjectNames(props.group.findings, job.design));
// Asked for by key or finder: its card has to be there before it can take the focus.
watch(
  () => slate.findingKey,
  (key) => {
    if (key !== null && props.group.findings.some(({ check }) => check.key === key)) open.value = true;
  },
  { immediate: true },
);
</script>

<template>
  <FindingCard v-if="!several" :finding="first" />
  <div v-else class="several" :data-group="group.rule">
    <button type="button" class="visually-plain head" :aria-expanded="open" @click="open = !open">
      <GradeMark :grade="first.check.grade" />
      <span
        >{{ first.check.rule.title }} <b>× {{ group.findings.length }}</b
        ><span class="soft">: {{ names.join(', ') }}</span></span
      >
    </button>
    <div v-if="open" class="inside">
      <FindingCard v-for="finding in group.findings" :key="finding.check.key" :finding="finding" />
    </div>
  </div>
</template>

<style scoped>
.several {
  padding: 0.5rem 0;
  border-top: 1px solid var(--tv-line);
}

.head {
  display: grid;
  grid-template-columns: 1.1rem 1fr;
  gap: 0.35rem;
  width: 100%;
  font-size: 0.9rem;
}

.head :deep(.grade-mark) {
  align-self: start;
  margin-top: 0.2rem;
}

.inside {
  margin: 0.4rem 0 0 0.55rem;
  padding-left: 0.6rem;
  border-left: 2px solid var(--tv-line);
}
</style>
