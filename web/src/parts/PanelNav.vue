<script setup lang="ts" generic="Id extends string">
import { RouterLink, useRoute } from 'vue-router';
import { useJob } from '../stores/job';

/** The panels of a station, as links: `?panel=` names the open one. */
defineProps<{
  station: string;
  label: string;
  panels: readonly { id: Id; title: string }[];
  open: Id;
  /** Names in the address that go along from panel to panel. */
  keep?: readonly string[];
}>();
const job = useJob();
const route = useRoute();
const kept = (names: readonly string[] = []) =>
  Object.fromEntries(names.filter((name) => route.query[name]).map((name) => [name, route.query[name]]));
</script>

<template>
  <nav class="panels no-print" :aria-label="label">
    <RouterLink
      v-for="one in panels"
      :key="one.id"
      :to="{ name: station, params: { job: job.id }, query: { ...kept(keep), panel: one.id } }"
      :class="{ here: open === one.id }"
      :aria-current="open === one.id ? 'page' : undefined"
      >{{ one.title }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.panels {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.panels a {
  padding: 0.3rem 0.8rem;
  border-radius: 3px;
  color: var(--tv-ink);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}

.panels a:hover {
  background: var(--tv-pick);
}

.panels .here {
  background: var(--tv-sheet);
  border-bottom-color: var(--tv-act);
  font-weight: 600;
}
</style>
