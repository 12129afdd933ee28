<script setup lang="ts">
import { entryKinds, entryOutcome, entryTitle, type EntryKind } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { nextTick, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useJob } from '../../stores/job';
import EntryDetail from './EntryDetail.vue';
import { pageSize, useRecordPages, type ListedEntry } from './record-pages';
import { dayOf, timeOf } from '../../parts/dates';

/** The record, newest first and page by page; an entry opens to what it was judged on. */
const job = useJob();
const route = useRoute();
const pages = useRecordPages();
const { entries, total, problem, reading, trail, kind } = pages;
const opened = ref<number | null>(null);
const kinds: [EntryKind | null, string][] = [
  [null, 'everything'],
  ...Object.values(entryKinds).map(({ kind, many }): [EntryKind, string] => [kind, many]),
];
const zone = () => job.design.settings.zone ?? 'UTC';
const day = (instant: string) => dayOf(instant, zone());
const time = (instant: string) => timeOf(instant, zone());

const isStale = (entry: ListedEntry) =>
  job.assessment.steps.some(({ entry: one, state }) => one?.seq === entry.seq && state === 'stale');

// A link to one entry (`?entry=12`) opens its page and the entry.
watch(
  () => [route.query.entry, total.value],
  async () => {
    const seq = Number(route.query.entry);
    if (!Number.isInteger(seq) || seq < 1 || total.value === 0 || opened.value === seq) return;
    opened.value = seq;
    if (!entries.value.some((entry) => entry.seq === seq)) pages.goTo(seq);
    await nextTick();
    document.querySelector(`[data-entry="${seq}"]`)?.scrollIntoView({ block: 'center' });
  },
  { immediate: true },
);
</script>

<template>
  <div>
    <div class="filter no-print">
      <label
        >Show
        <select
          class="form-select"
          :value="kind ?? ''"
          @change="pages.show((($event.target as HTMLSelectElement).value || null) as EntryKind | null)"
        >
          <option v-for="[one, word] in kinds" :key="word" :value="one ?? ''">{{ word }}</option>
        </select></label
      >
      <slot />
    </div>
    <p v-if="problem" class="problem" role="alert">
      {{ problem }} <BButton size="sm" variant="light" @click="pages.read()">Try again</BButton>
    </p>
    <p v-if="total === 0 && !reading && !problem" class="soft">
      {{
        kind === null
          ? 'Nothing is recorded yet. Results, states, acceptances and corrections are appended here and never changed.'
          : 'Nothing of this kind is recorded.'
      }}
    </p>
    <table v-if="entries.length > 0" class="grid-table" :aria-rowcount="total + 1" :aria-busy="reading">
      <thead>
        <tr>
          <th scope="col" class="num">no.</th>
          <th scope="col">recorded</th>
          <th scope="col">what</th>
          <th scope="col">outcome</th>
          <th scope="col">by</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="entry in entries" :key="entry.id">
          <tr
            :class="{ picked: opened === entry.seq, corrected: entry.correctedBy !== null }"
            :data-entry="entry.seq"
          >
            <td class="num">{{ entry.seq }}</td>
            <td class="when">
              {{ day(entry.recordedAt) }} <small class="soft">{{ time(entry.recordedAt) }}</small>
            </td>
            <td>
              <button
                type="button"
                class="visually-plain title"
                :aria-expanded="opened === entry.seq"
                @click="opened = opened === entry.seq ? null : entry.seq"
              >
                {{ entryTitle(entry.body) }}
              </button>
            </td>
            <td :class="entry.body.kind === 'result' ? entry.body.verdict : ''">
              {{ entryOutcome(entry) }}
              <span v-if="isStale(entry)" class="stale">stale</span>
              <span v-if="entry.instrument?.standIn" class="soft">stand-in</span>
              <span v-if="entry.instrument?.overdue" class="stale">calibration overdue</span>
              <span v-if="entry.correctedBy !== null" class="soft">corrected by {{ entry.correctedBy }}</span>
            </td>
            <td>{{ entry.by }}</td>
          </tr>
          <tr v-if="opened === entry.seq">
            <td />
            <td colspan="4"><EntryDetail :entry="entry" /></td>
          </tr>
        </template>
      </tbody>
    </table>
    <div v-if="total > pageSize" class="pages no-print">
      <BButton size="sm" variant="light" :disabled="trail.length === 1 || reading" @click="pages.newer()"
        >Newer</BButton
      >
      <span class="soft"
        >{{ entries[0]?.seq }} to {{ entries.at(-1)?.seq }}, {{ total.toLocaleString('en-GB') }} in all</span
      >
      <BButton
        size="sm"
        variant="light"
        :disabled="entries.at(-1)?.seq === 1 || reading"
        @click="pages.older()"
        >Older</BButton
      >
    </div>
  </div>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 0.5rem;
}

.filter label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.9rem;
}

.when {
  white-space: nowrap;
}

.grid-table td {
  padding: 0.3rem 0.4rem;
}

.num {
  width: 2.6rem;
}

.title:hover {
  text-decoration: underline;
}

.pass {
  color: var(--tv-pass);
}

.fail,
.problem {
  color: var(--tv-stop);
}

.fail {
  font-weight: 600;
}

.stale {
  color: var(--tv-mend);
  font-weight: 600;
}

.corrected td {
  color: var(--tv-soft);
}

.corrected .title {
  text-decoration: line-through;
}

.pages {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.6rem;
}
</style>
