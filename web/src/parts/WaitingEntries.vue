<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { useJob } from '../stores/job';
import { timeOf } from './dates';

/** Entries that wait for the server, with their time; those it refused, with why. */
const job = useJob();
const time = (instant: string) => timeOf(instant, job.design.settings.zone ?? 'UTC');
</script>

<template>
  <ul v-if="job.waiting.length > 0" class="waiting" role="status" data-waiting>
    <li v-for="one in job.waiting" :key="one.body.id" :class="{ refused: one.refused !== null }">
      <b>{{ one.refused === null ? 'waiting' : 'refused' }}</b> {{ time(one.body.takenAt) }}, {{ one.title
      }}<template v-if="one.refused !== null">
        : {{ one.refused }}
        <BButton size="sm" variant="light" @click="job.retryEntry(one.body.id)">Try again</BButton>
        <BButton size="sm" variant="light" @click="job.dropEntry(one.body.id)">Give it up</BButton></template
      >
    </li>
  </ul>
</template>

<style scoped>
.waiting {
  list-style: none;
  margin: 0 0 0.6rem;
  padding: 0.4rem 0.8rem;
  border-left: 4px dashed var(--tv-mend);
  background: var(--tv-sheet);
  font-size: 0.92rem;
}

.refused {
  color: var(--tv-stop);
}
</style>
