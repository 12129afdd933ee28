<script setup lang="ts">
import type { ImportReport } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api, ApiError } from '../api/client';
import Icon from '../parts/Icon.vue';

/** Brings a job in from a file: checked through first, and only then, when asked, written. */
const props = defineProps<{
  jobs: readonly { id: string; name: string; version: number; entries: number }[];
}>();
const emit = defineEmits<{ done: [] }>();
const input = ref<HTMLInputElement | null>(null);
const file = ref<File | null>(null);
const report = ref<ImportReport | null>(null);
const busy = ref<string | null>(null);
const problem = ref<string | null>(null);
const done = ref<string | null>(null);

/** The same job, when it is here already: nothing is written over it. */
const here = computed(() => props.jobs.find(({ id }) => id === report.value?.job?.id) ?? null);
const compared = computed(() => {
  if (here.value === null || report.value === null) return '';
  const { version, entries } = here.value;
  const ahead = report.value.version > version || report.value.entries > entries;
  const behind = report.value.version < version || report.value.entries < entries;
  if (ahead && behind) return 'Each has something that the other lacks: they went apart.';
  if (ahead) return 'The file is ahead of it: whoever made it went on elsewhere.';
  return behind ? 'The one here is ahead of the file.' : 'Both have come equally far.';
});

async function check(chosen: File | undefined): Promise<void> {
  report.value = null;
  problem.value = null;
  done.value = null;
  if (chosen === undefined) return;
  file.value = chosen;
  busy.value = 'Checking seal, hashes, changes and the chain of the record …';
  try {
    report.value = await api.post<ImportReport>('/import/check', chosen);
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not checked';
  } finally {
    busy.value = null;
    if (input.value !== null) input.value.value = '';
  }
}

async function bring(): Promise<void> {
  if (file.value === null) return;
  busy.value = 'Bringing it in …';
  problem.value = null;
  try {
    const { job, entries } = await api.post<ImportReport>('/import', file.value);
    done.value = `“${job?.name}” is here with ${entries} entries; its chain fits.`;
    report.value = null;
    emit('done');
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not brought in';
    if (error instanceof ApiError && error.extra.report !== undefined)
      report.value = error.extra.report as ImportReport;
  } finally {
    busy.value = null;
  }
}
</script>

<template>
  <div class="import">
    <input
      ref="input"
      type="file"
      accept=".zip"
      class="visually-hidden"
      tabindex="-1"
      aria-label="File of a job"
      data-import
      @change="check(($event.target as HTMLInputElement).files?.[0])"
    />
    <BButton variant="light" :disabled="busy !== null" @click="input?.click()"
      ><Icon name="upload" /> Bring in a job from a file</BButton
    >
    <p v-if="busy" role="status">{{ busy }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-if="done" role="status">{{ done }}</p>
    <div v-if="report" class="report" :class="{ bad: !report.ok }" data-import-report>
      <template v-if="report.ok">
        <p>
          <b>“{{ report.job?.name }}” fits:</b> version {{ report.version }}, {{ report.changes }} changes,
          {{ report.entries }} entries whose chain verifies, {{ report.releases }} releases,
          {{ report.files }} files. Nothing is written yet.
        </p>
        <p data-vouched>
          <b>Vouched for by: {{ report.vouchedBy }}.</b> That its chain fits shows that nothing was altered
          since it was made whole, not who made it: a paper or the shop it came from can say more.
        </p>
        <div v-if="here" class="here" role="status" data-here>
          <p>
            <b>This job is here already, as “{{ here.name }}”:</b> version {{ here.version }},
            {{ here.entries }} entries. {{ compared }} A record is never written over, so it is not brought in
            a second time: open the one that is here, or bring the file in at a shop that does not have it.
          </p>
          <RouterLink class="btn btn-primary" :to="{ name: 'book', params: { job: here.id } }"
            >Open its record</RouterLink
          >
          <BButton variant="light" @click="report = null">Leave it</BButton>
        </div>
        <div v-else class="buttons">
          <BButton variant="primary" :disabled="busy !== null" @click="bring">Bring it in</BButton>
          <BButton variant="light" @click="report = null">Leave it</BButton>
        </div>
      </template>
      <template v-else>
        <p><b>This file does not fit, and nothing of it was taken:</b></p>
        <ul>
          <li v-for="one in report.problems.slice(0, 12)" :key="one.file + one.message">
            <code>{{ one.file || 'the archive' }}</code> {{ one.message }}
          </li>
        </ul>
        <BButton size="sm" variant="light" @click="report = null">Leave it</BButton>
      </template>
    </div>
  </div>
</template>

<style scoped>
.import {
  margin-top: 0.9rem;
  padding-top: 0.9rem;
  border-top: 1px solid var(--tv-line);
}

.import p {
  margin: 0.4rem 0;
}

.report {
  margin-top: 0.5rem;
  padding: 0.4rem 0.9rem 0.6rem;
  border-left: 4px solid var(--tv-pass);
  background: var(--tv-recess);
}

.buttons {
  display: flex;
  gap: 0.5rem;
}

.report.bad {
  border-left-color: var(--tv-stop);
}

.problem {
  color: var(--tv-stop);
}

ul {
  padding-left: 1.1rem;
  overflow-wrap: anywhere;
}
</style>
