<script setup lang="ts">
import { stationOfGap } from '@torvek/core/design';
import type { Station } from '@torvek/core/document';
import type { Gap } from '@torvek/core/figure';
import { shopShelf } from '@torvek/core/record';
import { computed } from 'vue';
import { useJob } from '../stores/job';
import GapLink from './GapLink.vue';

/** What an unfinished job asks for next at this station, and how much is not checked for lack of it. */
const props = defineProps<{ station: Station; purpose: string }>();
const job = useJob();
const notChecked = computed(() => job.checks.filter(({ state }) => state === 'not-checked'));
const gaps = computed<Gap[]>(() => {
  const seen = new Map<string, Gap>();
  const figures = Object.values(job.evaluation.figures).filter(({ value }) => value === null);
  for (const gap of figures.flatMap((figure) => figure.gaps)) {
    if (stationOfGap(gap) === props.station && 'path' in gap && !seen.has(gap.path)) seen.set(gap.path, gap);
  }
  return [...seen.values()];
});
</script>

<template>
  <p v-if="gaps.length > 0 && job.id !== shopShelf.id" class="next" role="status">
    <span class="purpose">{{ purpose }}</span>
    <strong>Next:</strong>
    <template v-for="(gap, i) in gaps.slice(0, 3)" :key="i">
      <GapLink :gap="gap" short :first="i === 0" /><span
        v-if="i < Math.min(gaps.length, 3) - 1"
        aria-hidden="true"
      >
        ·
      </span>
    </template>
    <span v-if="notChecked.length > 0" class="soft count">not checked ({{ notChecked.length }})</span>
  </p>
</template>

<style scoped>
.next {
  margin: 0;
  padding: 0.45rem 0.9rem;
  background: var(--tv-recess);
  border-left: 3px solid var(--tv-act);
  border-radius: 2px;
  display: flex;
  gap: 0.2rem 0.5rem;
  align-items: baseline;
  flex-wrap: wrap;
}

.count {
  white-space: nowrap;
}

.purpose {
  flex-basis: 100%;
  color: var(--tv-soft);
}
</style>
