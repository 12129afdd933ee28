<script setup lang="ts">
import type { Verification } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { api } from '../../api/client';
import { useJob } from '../../stores/job';
import Icon from '../../parts/Icon.vue';
import WaitingEntries from '../../parts/WaitingEntries.vue';
import { useLive } from '../../stores/live';
import { useSession } from '../../stores/session';
import EntryList from './EntryList.vue';
import NoteForm from './NoteForm.vue';
import RevisionList from './RevisionList.vue';

const job = useJob();
const session = useSession();
type Answer = Verification & { restored: { seq: number; at: string }[] };
const verification = ref<Answer | null>(null);
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
    verification.value = await api.get<Answer>(`/jobs/${job.id}/verify`);
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
      <div
        v-if="verification"
        class="verification"
        :class="verification.ok ? 'good' : 'bad'"
        role="status"
        data-verification
      >
        <p v-if="verification.ok">
          <b>The chain fits:</b> {{ verification.entries }} entries, each with its own hash, the one before it
          and the journal beside the database. A complete rewrite of chain and journal together would not
          show.<template v-if="verification.restored.length > 0">
            {{ verification.restored.length }} of them the database had lost and got back from the journal
            (last: entry {{ verification.restored.at(-1)?.seq }}).</template
          >
        </p>
        <template v-else>
          <p>
            <b>The chain is broken at entry {{ verification.problems[0]?.seq }}.</b>
          </p>
          <p v-for="one in verification.problems.slice(0, 12)" :key="`${one.seq}${one.message}`">
            Entry {{ one.seq }} {{ one.message }}.
          </p>
        </template>
      </div>
      <WaitingEntries />
      <EntryList><NoteForm v-if="session.may('technician')" /></EntryList>
    </section>
    <section class="sheet-card">
      <div class="card-head"><h2>Revisions of the design</h2></div>
      <RevisionList />
    </section>
  </div>
</template>

<style scoped>
.book {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  gap: 0.6rem;
  align-items: start;
}

.verify {
  margin-left: auto;
}

.verification {
  padding: 0.3rem 0.7rem;
  border-left: 4px solid var(--tv-pass);
  background: var(--tv-recess);
  margin-bottom: 0.6rem;
}

.verification p {
  margin: 0;
}

.verification.bad {
  border-left-color: var(--tv-stop);
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
