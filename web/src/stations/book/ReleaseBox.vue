<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { api, newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import { dayOf } from '../../parts/dates';

export interface Release {
  number: number;
  version: number;
  label: string;
  by: string;
  at: string;
  sha256: string;
}

/** Numbered revisions of the design, frozen with their figures; a new one of what is saved now. */
defineProps<{ releases: Release[] }>();
const emit = defineEmits<{ made: [] }>();
const job = useJob();
const session = useSession();
const label = ref('');
const writing = ref(false);
const problem = ref<string | null>(null);
const day = (instant: string) => dayOf(instant, job.design.settings.zone);

async function release(): Promise<void> {
  problem.value = label.value.trim() === '' ? 'What it is released for is missing.' : null;
  if (problem.value !== null) return;
  try {
    await api.post(`/jobs/${job.id}/releases`, {
      id: newId('release'),
      label: label.value.trim(),
      version: job.version,
    });
    label.value = '';
    writing.value = false;
    emit('made');
  } catch (error) {
    problem.value = error instanceof Error ? `Not released: ${error.message}.` : 'Not released.';
  }
}
</script>

<template>
  <div>
    <p v-if="releases.length === 0" class="soft none">
      No release yet. A release freezes this version with its figures under a number.
    </p>
    <ol>
      <li v-for="one in releases" :key="one.number" :data-release="one.number">
        <b>Release {{ one.number }}</b> {{ one.label }}
        <small class="soft">version {{ one.version }}, {{ one.by }}, {{ day(one.at) }}</small>
      </li>
    </ol>
    <template v-if="session.isDesigner">
      <form v-if="writing" @submit.prevent="release">
        <label
          >Released for<input
            v-model="label"
            class="form-control"
            maxlength="200"
            placeholder="the inspection, the build …"
        /></label>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <BButton type="submit" size="sm" variant="primary" :disabled="job.saveState !== 'saved'"
          >Freeze version {{ job.version }}</BButton
        >
        <BButton size="sm" variant="light" @click="writing = false">Leave it</BButton>
      </form>
      <BButton v-else size="sm" variant="light" @click="writing = true">Release this version …</BButton>
    </template>
  </div>
</template>

<style scoped>
.none,
.problem {
  font-size: 0.88rem;
  margin: 0 0 0.4rem;
}

ol {
  list-style: none;
  padding: 0;
  margin: 0 0 0.4rem;
}

li {
  padding: 0.25rem 0;
  font-size: 0.88rem;
  border-top: 1px solid var(--tv-line);
}

li small {
  display: block;
}

form label {
  font-size: 0.88rem;
  display: block;
  margin-bottom: 0.3rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
