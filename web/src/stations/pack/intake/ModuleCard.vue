<script setup lang="ts">
import { entryOutcome, entryTitle } from '@torvek/core/record';
import type { Id } from '@torvek/core/document';
import { ref, watch } from 'vue';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { RouterLink } from 'vue-router';
import { api, newId } from '../../../api/client';
import AttachFiles from '../../../parts/AttachFiles.vue';
import EntryFiles from '../../book/EntryFiles.vue';
import { useSession } from '../../../stores/session';
import { useJob, type RecordedEntry } from '../../../stores/job';
import type { IntakeRow } from './sheet';
import { momentOf } from '../../../parts/dates';

/** One module: what it is, where it sits, and all that ever happened to it. */
const props = defineProps<{ module: Id; row: IntakeRow }>();
const job = useJob();
const session = useSession();
const entries = ref<(RecordedEntry & { correctedBy: number | null })[] | null>(null);
const failed = ref(false);

watch(
  [() => props.module, () => job.recorded],
  async () => {
    const asked = props.module;
    try {
      const page = await api.get<{ entries: (RecordedEntry & { correctedBy: number | null })[] }>(
        `/jobs/${job.id}/entries?limit=200&subject=${encodeURIComponent(asked)}`,
      );
      if (asked !== props.module) return;
      entries.value = page.entries;
      failed.value = false;
    } catch {
      failed.value = true;
    }
  },
  { immediate: true },
);
const words = ref('');
const attached = ref<{ sha256: string; name: string; type: string }[]>([]);
const busy = ref(false);
const problem = ref<string | null>(null);
async function keep(): Promise<void> {
  const said = words.value.trim() || (attached.value.length > 0 ? `Photo of ${item()?.tag}` : '');
  if (said === '' || busy.value) return;
  busy.value = true;
  problem.value = null;
  try {
    await job.record(
      {
        id: newId('entry'),
        kind: 'note',
        text: said,
        subjects: [props.module],
        attachments: attached.value.map(({ sha256 }) => sha256),
      },
      said,
    );
    words.value = '';
    attached.value = [];
  } catch (error) {
    problem.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
const item = () => job.design.modules[props.module];
const place = () => {
  for (const { tag, modules } of Object.values(job.design.strings)) {
    const at = modules.indexOf(props.module);
    if (at >= 0) return `place ${at + 1} of ${tag}`;
  }
  return 'in no string';
};
const when = (instant: string) => momentOf(instant, job.design.settings.zone);
</script>

<template>
  <section class="sheet-card" :aria-label="`Module ${item()?.tag}`" data-module-card>
    <div class="card-head">
      <h2>{{ item()?.tag }}</h2>
      <span class="hint">
        {{
          [
            row.serial === undefined ? 'no serial number' : `serial ${row.serial}`,
            job.design.parts[item()?.part ?? '']?.label ?? '',
            place(),
            job.design.boxes[item()?.box ?? '']?.tag ?? 'in no box',
          ]
            .filter((text) => text !== '')
            .join(', ')
        }}
      </span>
    </div>
    <p v-if="failed" class="soft">Its history cannot be read while the server is away.</p>
    <p v-else-if="entries !== null && entries.length === 0" class="soft">Nothing is recorded about it yet.</p>
    <ol v-else-if="entries !== null" class="history">
      <li v-for="entry in entries" :key="entry.seq" :class="{ gone: entry.correctedBy !== null }">
        <RouterLink :to="{ name: 'book', params: { job: job.id }, query: { entry: String(entry.seq) } }">{{
          entry.seq
        }}</RouterLink>
        <span class="title"
          >{{ entryTitle(entry.body) }}
          <EntryFiles v-if="entry.attachments.length > 0" :hashes="entry.attachments" />
        </span>
        <b>{{ entry.correctedBy === null ? entryOutcome(entry) : `corrected by ${entry.correctedBy}` }}</b>
        <span class="soft">{{ when(entry.takenAt) }}, {{ entry.by }}</span>
      </li>
    </ol>
    <form v-if="session.mayRecord" class="keep no-print" @submit.prevent="keep">
      <input
        v-model="words"
        class="form-control"
        maxlength="2000"
        :aria-label="`Note about ${item()?.tag}`"
        placeholder="a note about this module, or a photo"
      />
      <AttachFiles v-model="attached" />
      <BButton
        size="sm"
        variant="light"
        type="submit"
        :disabled="busy || (words.trim() === '' && attached.length === 0)"
        >Keep</BButton
      >
      <span v-if="problem" role="alert" class="bad">{{ problem }}</span>
    </form>
  </section>
</template>

<style scoped>
.history {
  list-style: none;
  margin: 0;
  padding: 0;
}

.history li {
  display: grid;
  grid-template-columns: 2.5rem minmax(0, 1fr) 12rem 16rem;
  gap: 0.6rem;
  padding: 0.2rem 0;
  border-bottom: 1px solid var(--tv-line);
}

.keep {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.6rem;
}

.keep .form-control {
  max-width: 26rem;
}

.bad {
  color: var(--tv-stop);
}

.gone .title {
  text-decoration: line-through;
}
</style>
