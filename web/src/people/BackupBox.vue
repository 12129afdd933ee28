<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BModal } from 'bootstrap-vue-next/components/BModal';
import { onMounted, ref } from 'vue';
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

interface Run {
  name: string;
  at: string;
  bytes: number;
  ok: boolean;
  jobs: number;
  entries: number;
  problems: string[];
}
interface Nightly {
  on: boolean;
  folder: string;
  last: Run | null;
  lastGood: Run | null;
  kept: { name: string; bytes: number }[];
  problem: string | null;
  running: boolean;
}
const nightly = ref<Nightly | null>(null);
const backing = ref(false);
const when = (at: string) => `${at.slice(0, 10)} ${at.slice(11, 16)} UTC`;
const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(bytes < 1e6 ? 2 : 1)} MB`;

onMounted(async () => {
  if (session.may('owner')) nightly.value = await api.get<Nightly>('/backups').catch(() => null);
});

/** Makes one now, in the data folder, and proves it. */
async function backUpHere(): Promise<void> {
  backing.value = true;
  problem.value = null;
  try {
    nightly.value = await api.post<Nightly>('/backups', {});
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not made';
  } finally {
    backing.value = false;
  }
}

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
    <div v-if="nightly" class="nightly" data-nightly>
      <p>
        <b>By itself:</b>
        {{
          nightly.on
            ? 'every night, each proved by restoring it into a scratch folder; seven days, five weeks and twelve months are kept.'
            : 'switched off here.'
        }}
      </p>
      <p v-if="nightly.lastGood" :class="{ warn: nightly.last !== null && !nightly.last.ok }">
        Last good one: <b>{{ when(nightly.lastGood.at) }}</b>, {{ nightly.lastGood.jobs }} jobs,
        {{ nightly.lastGood.entries }} entries, {{ megabytes(nightly.lastGood.bytes) }} (<code>{{
          nightly.lastGood.name
        }}</code
        >). {{ nightly.kept.length }} kept in <code>{{ nightly.folder }}</code>.
      </p>
      <p v-else>There is no good one yet.</p>
      <p v-if="nightly.problem" class="problem">The last attempt failed: {{ nightly.problem }}</p>
      <p v-if="nightly.last && !nightly.last.ok" class="problem">
        The one of {{ when(nightly.last.at) }} does not fit:
        {{ nightly.last.problems.slice(0, 3).join('; ') }}
      </p>
      <p class="soft">
        A copy on another machine is your own doing. With the server stopped,
        <code>npm run restore -- latest --replace</code>
        brings the newest back.
      </p>
      <BButton size="sm" variant="light" :disabled="backing || nightly.running" @click="backUpHere">{{
        backing || nightly.running ? 'Backing up and proving it …' : 'Back up here now'
      }}</BButton>
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
        replaced and everyone is signed out. What is here now is kept beside, in the data folder.
      </p>
    </BModal>
  </section>
</template>

<style scoped>
.nightly {
  margin-top: 0.8rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--tv-line);
  overflow-wrap: anywhere;
}

.nightly p {
  margin: 0 0 0.3rem;
}

.warn {
  border-left: 4px solid var(--tv-mend);
  padding-left: 0.5rem;
}

.buttons {
  display: flex;
  gap: 0.5rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0.5rem 0 0;
}
</style>
