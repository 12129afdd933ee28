<script setup lang="ts">
import { stationOfCheck } from '@torvek/core/design';
import type { Station } from '@torvek/core/document';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import FindingCard from '../parts/FindingCard.vue';
import { useJob } from '../stores/job';

/** Findings of this station; those of others one line below. */
const props = defineProps<{ station: Station }>();
const job = useJob();
const all = computed(() => job.assessment.findings);
const wide = computed(() => props.station === 'prove' || props.station === 'book');
const here = computed(() =>
  all.value.filter(({ check }) => wide.value || stationOfCheck(check) === props.station),
);
const open = computed(() => here.value.filter(({ accepted }) => accepted === null));
const accepted = computed(() => here.value.filter((finding) => finding.accepted !== null));
const checked = computed(() => job.checks.filter(({ state }) => state !== 'not-checked').length);
const notChecked = computed(() => job.checks.length - checked.value);
</script>

<template>
  <div>
    <p v-if="here.length === 0" class="soft none">
      No finding {{ wide ? 'in this job' : 'at this station' }}. {{ checked }} rules were checked{{
        notChecked > 0 ? `, ${notChecked} not checked` : ''
      }}.
    </p>
    <FindingCard v-for="finding in open" :key="finding.check.key" :finding="finding" />
    <template v-if="accepted.length > 0">
      <h3 class="group">Accepted</h3>
      <FindingCard v-for="finding in accepted" :key="finding.check.key" :finding="finding" />
    </template>
    <p v-if="here.length > 0" class="soft count">
      {{ checked }} rules checked, {{ notChecked }} not checked.
    </p>
    <p class="soft count">
      <RouterLink :to="{ name: 'rules', params: { job: job.id } }">Every rule there is</RouterLink>
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

.group {
  margin-top: 0.7rem;
  padding-bottom: 0.2rem;
  font-size: 0.85rem;
  color: var(--tv-soft);
}
</style>
