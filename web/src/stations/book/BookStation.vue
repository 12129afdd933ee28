<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import type { Verification } from '@torvek/core/record';
import { computed, ref, watch } from 'vue';
import { api } from '../../api/client';
import { useJob } from '../../stores/job';
import Icon from '../../parts/Icon.vue';
import WaitingEntries from '../../parts/WaitingEntries.vue';
import { useLive } from '../../stores/live';
import { useSession } from '../../stores/session';
import EntryList from './EntryList.vue';
import NoteForm from './NoteForm.vue';
import PaperSheets from './PaperSheets.vue';
import PaperCheck from './PaperCheck.vue';
import RevisionList from './RevisionList.vue';
import VerificationBox from './VerificationBox.vue';

const job = useJob();
const session = useSession();
const verification = ref<Verification | null>(null);
const problem = ref<string | null>(null);
const live = useLive();
const percent = computed(() => {
  const fraction = live.progress.verify;
  return fraction === undefined ? '' : `${Math.round(fraction * 100)} %`;
});
const busy = ref(false);

async function verify(): Promise<void> {
  busy.value = true;
  problem.value = null;
  try {
    verification.value = await api.get<Verification>(`/jobs/${job.id}/verify`);
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not verified';
  } finally {
    busy.value = false;
  }
}

watch(
  () => job.recorded,
  () => (verification.value = null),
);
</script>

<template>
  <div class="book">
    <section class="sheet-card">
      <div class="card-head">
        <h2>Record</h2>
        <span class="hint">append-only, chained by hashes</span>
        <BButton size="sm" variant="primary" class="verify" :disabled="busy" @click="verify">{{
          busy ? `Verifying … ${percent}` : 'Verify the chain'
        }}</BButton>
        <a class="btn btn-quiet btn-sm no-print" :href="`/api/jobs/${job.id}/export`" download
          ><Icon name="download" /> Take away</a
        >
      </div>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <VerificationBox v-if="verification" :found="verification" />
      <WaitingEntries />
      <EntryList><NoteForm v-if="session.may('technician')" /></EntryList>
    </section>
    <div class="side">
      <PaperSheets />
      <section class="sheet-card">
        <div class="card-head"><h2>Revisions of the design</h2></div>
        <RevisionList />
        <PaperCheck />
      </section>
    </div>
  </div>
</template>

<style scoped>
.book {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 0.6rem;
  align-items: start;
}

.side {
  display: grid;
  gap: 0.6rem;
}

.verify {
  margin-left: auto;
}

p.bad {
  color: var(--tv-stop);
}

@media (max-width: 1100px) {
  .book {
    grid-template-columns: 1fr;
  }
}
</style>
