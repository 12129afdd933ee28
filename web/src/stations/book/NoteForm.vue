<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { newId } from '../../api/client';
import AttachFiles from '../../parts/AttachFiles.vue';
import { useJob } from '../../stores/job';
import SubjectPicker from '../prove/SubjectPicker.vue';

/** Something worth keeping that is no measurement: a note with photos, or work that was done. */
const job = useJob();
const shown = ref(false);
const kind = ref<'note' | 'work'>('note');
const text = ref('');
const subjects = ref<string[]>([]);
const attached = ref<{ sha256: string; name: string; type: string }[]>([]);
const problem = ref<string | null>(null);
const busy = ref(false);
let entryId = newId('entry');

async function record(): Promise<void> {
  const words = text.value.trim();
  problem.value = words === '' ? 'Some words are missing.' : null;
  if (problem.value === null && kind.value === 'work' && subjects.value.length === 0)
    problem.value = 'What the work concerned is missing: its results become due again.';
  if (problem.value !== null) return;
  busy.value = true;
  try {
    const attachments = attached.value.map(({ sha256 }) => sha256);
    await job.record(
      {
        id: entryId,
        kind: kind.value,
        attachments,
        ...(kind.value === 'note' ? { text: words } : { what: words, subjects: subjects.value }),
      },
      words,
    );
    entryId = newId('entry');
    text.value = '';
    attached.value = [];
    subjects.value = [];
    shown.value = false;
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="no-print">
    <BButton v-if="!shown" size="sm" variant="light" @click="shown = true"
      >Add a note, a photo or work …</BButton
    >
    <form v-else class="note" @submit.prevent="record">
      <fieldset>
        <legend class="visually-hidden">What it is</legend>
        <label><input v-model="kind" type="radio" class="form-check-input" value="note" /> a note</label>
        <label
          ><input v-model="kind" type="radio" class="form-check-input" value="work" /> work that was
          done</label
        >
      </fieldset>
      <textarea
        v-model="text"
        class="form-control"
        rows="2"
        maxlength="2000"
        :aria-label="kind === 'note' ? 'Note' : 'What was done'"
      ></textarea>
      <SubjectPicker v-if="kind === 'work'" v-model="subjects" label="What was touched" />
      <AttachFiles v-model="attached" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="buttons">
        <BButton type="submit" size="sm" variant="primary" :disabled="busy">Record</BButton>
        <BButton size="sm" variant="light" @click="shown = false">Leave it</BButton>
      </div>
    </form>
  </div>
</template>

<style scoped>
.note {
  display: grid;
  gap: 0.4rem;
  margin-bottom: 0.6rem;
  max-width: 40rem;
}

fieldset,
.buttons {
  display: flex;
  gap: 1rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0;
}
</style>
