<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { api } from '../../api/client';
import { placeName, sayValue } from '../../parts/place-name';
import { useJob } from '../../stores/job';
import ReleaseBox, { type Release } from './ReleaseBox.vue';
import { momentOf } from '../../parts/dates';

interface SavedChange {
  version: number;
  label: string;
  by: string;
  savedAt: string;
}

interface Difference {
  path: string;
  from: unknown;
  to: unknown;
}

/** Every version of the design, and what differs between any two. */
const job = useJob();
const changes = ref<SavedChange[] | null>(null);
const releases = ref<Release[]>([]);
const from = ref(0);
const to = ref(0);
const found = ref<Difference[] | null>(null);
const problem = ref<string | null>(null);
/** Of one page. */
const most = 50;
const earliest = computed(() => changes.value?.at(-1)?.version ?? 1);
/** What can be compared: releases by their number, and every version. */
const versions = computed(() => {
  const all = [...(changes.value ?? []).map(({ version }) => version), 0];
  const released = releases.value.map(({ number, version }) => ({
    version,
    text: `release ${number}`,
  }));
  return [...released.reverse(), ...all.map((version) => ({ version, text: `version ${version}` }))];
});

async function load(): Promise<void> {
  const { id } = job;
  try {
    const [newest, released] = await Promise.all([
      api.get<SavedChange[]>(`/jobs/${id}/changes?limit=${most}`),
      api.get<Release[]>(`/jobs/${id}/releases`),
    ]);
    // Another job may be open by now.
    if (job.id !== id) return;
    [changes.value, releases.value] = [newest, released];
    problem.value = null;
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'the versions cannot be read';
  }
}

async function earlier(): Promise<void> {
  const { id } = job;
  try {
    const page = await api.get<SavedChange[]>(`/jobs/${id}/changes?limit=${most}&before=${earliest.value}`);
    // Another job may be open by now, or the list may have been read anew.
    if (job.id === id && page[0]?.version === earliest.value - 1)
      changes.value = [...changes.value!, ...page];
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'the earlier versions cannot be read';
  }
}

watch(
  () => [job.id, job.version],
  async () => {
    to.value = job.version;
    found.value = null;
    await load();
  },
  { immediate: true },
);

async function compare(): Promise<void> {
  try {
    found.value = await api.get<Difference[]>(`/jobs/${job.id}/compare?from=${from.value}&to=${to.value}`);
    problem.value = null;
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not compared';
  }
}

const when = (instant: string) => momentOf(instant, job.design.settings.zone);
</script>

<template>
  <div>
    <ReleaseBox :releases="releases" @made="load" />
    <h3>Compare any two</h3>
    <form class="compare" @submit.prevent="compare">
      <label
        >from
        <select v-model="from" class="form-select">
          <option v-for="one in versions" :key="one.text" :value="one.version">{{ one.text }}</option>
        </select></label
      >
      <label
        >to
        <select v-model="to" class="form-select">
          <option v-for="one in versions" :key="one.text" :value="one.version">{{ one.text }}</option>
        </select></label
      >
      <BButton type="submit" size="sm" variant="light">Compare</BButton>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="found !== null" class="found" data-differences>
      <p v-if="found.length === 0">Versions {{ from }} and {{ to }} are the same.</p>
      <template v-else>
        <p class="soft">
          {{ found.length }} {{ found.length === 1 ? 'place' : 'places' }}, version {{ from }} → version
          {{ to }}
        </p>
        <ul>
          <li v-for="one in found.slice(0, 200)" :key="one.path">
            <b>{{ placeName(job.design, one.path) }}</b>
            <span
              >{{ sayValue(job.design, one.path, one.from) }} →
              {{ sayValue(job.design, one.path, one.to) }}</span
            >
          </li>
        </ul>
      </template>
    </div>
    <ol class="versions">
      <li v-for="change in changes ?? []" :key="change.version">
        <b>{{ change.version }}</b> <span>{{ change.label }}</span>
        <small class="soft">{{ change.by }}, {{ when(change.savedAt) }}</small>
      </li>
      <li v-if="changes !== null && earliest === 1"><b>0</b> <span>as first made</span></li>
    </ol>
    <BButton v-if="earliest > 1" size="sm" variant="light" @click="earlier"
      >earlier ones, {{ earliest - 1 }} more</BButton
    >
  </div>
</template>

<style scoped>
h3 {
  margin-top: 0.9rem;
}

.compare {
  margin-top: 0.2rem;
  display: flex;
  gap: 0.5rem;
  align-items: end;
  flex-wrap: wrap;
}

.compare label {
  font-size: 0.85rem;
}

.compare select {
  width: 7.2rem;
  height: 1.9rem;
  padding-top: 0.1rem;
  padding-bottom: 0.1rem;
}

.found {
  margin: 0.6rem 0;
  overflow-x: auto;
}

.found p {
  margin: 0 0 0.2rem;
  font-size: 0.85rem;
}

.found ul {
  list-style: none;
  padding: 0;
  margin: 0;
}

.found li {
  padding: 0.2rem 0;
  font-size: 0.88rem;
  overflow-wrap: anywhere;
}

.found li b {
  display: block;
  font-weight: 500;
}

.versions {
  list-style: none;
  padding: 0;
  margin: 0.6rem 0 0;
}

.versions li {
  padding: 0.25rem 0;
  border-top: 1px solid var(--tv-line);
  font-size: 0.88rem;
}

.versions small {
  display: block;
}

.problem {
  color: var(--tv-stop);
}
</style>
