<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { ref } from 'vue';
import { api, ApiError } from '../api/client';
import Icon from '../parts/Icon.vue';
import { useSession } from '../stores/session';

/** Everything as one file, and back: for the owner. */
const session = useSession();
const input = ref<HTMLInputElement | null>(null);
const file = ref<File | null>(null);
const asking = ref(false);
const busy = ref(false);
const problem = ref<string | null>(null);
const problems = ref<{ file: string; message: string }[]>([]);

function choose(chosen: File | undefined): void {
  if (chosen === undefined) return;
  file.value = chosen;
  problem.value = null;
  problems.value = [];
  asking.value = true;
}

async function restore(): Promise<void> {
  if (file.value === null) return;
  asking.value = false;
  busy.value = true;
  try {
    await api.post('/restore', file.value);
    await session.load();
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not restored';
    if (error instanceof ApiError)
      problems.value =
        (error.extra.report as { problems?: typeof problems.value } | undefined)?.problems ?? [];
  } finally {
    busy.value = false;
    if (input.value !== null) input.value.value = '';
  }
}
</script>

<template>
  <section v-if="session.may('owner')" class="sheet-card" aria-labelledby="backup-title">
    <div class="card-head">
      <h2 id="backup-title">Backup</h2>
      <span class="hint">all jobs, records, people, instruments and files in one sealed file</span>
    </div>
    <p class="soft">
      It holds the hashes of everyone’s passwords: keep it where only the owner comes. Restoring puts it in
      the place of everything; what was there is kept beside, in the data folder.
    </p>
    <div class="buttons">
      <a class="btn btn-primary" href="/api/backup" download><Icon name="download" /> Back up everything</a>
      <input
        ref="input"
        type="file"
        accept=".zip"
        class="visually-hidden"
        tabindex="-1"
        aria-label="Backup file"
        @change="choose(($event.target as HTMLInputElement).files?.[0])"
      />
      <BButton variant="light" :disabled="busy" @click="input?.click()"
        ><Icon name="upload" /> {{ busy ? 'Checking and restoring …' : 'Restore from a backup …' }}</BButton
      >
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ul v-if="problems.length > 0">
      <li v-for="one in problems.slice(0, 12)" :key="one.file + one.message">
        <code>{{ one.file || 'the backup' }}</code> {{ one.message }}
      </li>
    </ul>
    <BModal
      v-model="asking"
      title="Put this backup in the place of everything?"
      ok-title="Restore it"
      cancel-title="Leave it"
      cancel-variant="light"
      @ok="restore"
    >
      <p>
        {{ file?.name }} is checked first; when it fits, every job, record, person and instrument here is
        replaced and everyone is signed out. What is here now is kept beside, as a backup in the data folder.
      </p>
    </BModal>
  </section>
</template>

<style scoped>
.buttons {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0.5rem 0 0;
}
</style>
