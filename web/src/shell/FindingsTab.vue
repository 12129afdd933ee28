<script setup lang="ts">
import type { Station } from '@torvek/core/document';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';
import { arrangeFindings, countOf } from './arrange-findings';
import FindingGroup from './FindingGroup.vue';
import { useLooking } from './use-looking';

/** Findings of what is open first; the rest of the station folded under its count. */
const props = defineProps<{ station: Station }>();
const job = useJob();
const slate = useSlate();
const looking = useLooking(() => props.station);
const arranged = computed(() => arrangeFindings(job.assessment.findings, job.design.circuits, looking.value));
const near = computed(() => arranged.value.near);
const rest = computed(() => arranged.value.rest);
const accepted = computed(() => arranged.value.accepted);
const wide = computed(() => props.station === 'prove' || props.station === 'book');
const total = computed(() => countOf(near.value) + countOf(rest.value) + countOf(accepted.value));
const where = computed(() => {
  const { panel, circuit } = looking.value;
  if (circuit !== undefined) return `about ${job.design.circuits[circuit]?.tag ?? 'this circuit'} here`;
  return panel === undefined ? (wide.value ? 'in this job' : 'at this station') : 'in this panel';
});
const checked = computed(() => job.checks.filter(({ state }) => state !== 'not-checked').length);
const notChecked = computed(() => job.checks.length - checked.value);
const unfolded = ref(false);
// Asked for by key or finder: what is folded has to open.
watch(
  () => slate.findingKey,
  (key) => {
    if (rest.value.some(({ findings }) => findings.some(({ check }) => check.key === key)))
      unfolded.value = true;
  },
  { immediate: true },
);
</script>

<template>
  <div>
    <p v-if="near.length === 0" class="soft none">
      No open finding {{ where }}.
      <template v-if="total === 0"
        >{{ checked }} rules were checked{{ notChecked > 0 ? `, ${notChecked} not checked` : '' }}.</template
      >
    </p>
    <FindingGroup
      v-for="group in near"
      :key="`${group.rule} ${group.findings[0]!.check.key}`"
      :group="group"
    />
    <section v-if="rest.length > 0" class="rest" data-rest>
      <button
        type="button"
        class="visually-plain fold"
        :aria-expanded="unfolded"
        @click="unfolded = !unfolded"
      >
        <span aria-hidden="true">{{ unfolded ? '▾' : '▸' }}</span>
        {{ countOf(rest) }} more at this station
      </button>
      <template v-if="unfolded">
        <FindingGroup
          v-for="group in rest"
          :key="`${group.rule} ${group.findings[0]!.check.key}`"
          :group="group"
        />
      </template>
    </section>
    <template v-if="accepted.length > 0">
      <h3 class="group">Accepted</h3>
      <FindingGroup
        v-for="group in accepted"
        :key="`${group.rule} ${group.findings[0]!.check.key}`"
        :group="group"
      />
    </template>
    <p v-if="total > 0" class="soft count">{{ checked }} rules checked, {{ notChecked }} not checked.</p>
    <p class="soft count">
      <RouterLink :to="{ name: 'rules', params: { job: job.id } }">Every rule there is</RouterLink>,
      <RouterLink :to="{ name: 'figures', params: { job: job.id } }">every figure</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.none,
.count {
  font-size: 0.85rem;
  padding: 0.6rem 0;
  margin: 0;
  border-top: 1px solid var(--tv-line);
}

.none {
  border: 0;
}

.rest {
  border-top: 1px solid var(--tv-line);
}

.fold {
  width: 100%;
  min-height: 2rem;
  padding: 0.3rem 0;
  font-size: 0.9rem;
  color: var(--tv-soft);
  text-align: left;
}

.group {
  margin-top: 0.7rem;
  padding-bottom: 0.2rem;
  font-size: 0.85rem;
  color: var(--tv-soft);
}
</style>
