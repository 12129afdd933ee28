<script setup lang="ts">
import { positionText } from '@torvek/core/design';
import { formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import { useJob, type RecordedEntry } from '../../stores/job';

/** The record, newest first; an entry opens to what it was judged on, and can be corrected by a new one. */
const job = useJob();
const kind = ref<'all' | RecordedEntry['body']['kind']>('all');
const opened = ref<number | null>(null);
const correcting = ref<number | null>(null);
const reason = ref('');
const problem = ref<string | null>(null);
const kinds = ['all', 'result', 'acceptance', 'position', 'work', 'correction'] as const;
const shown = computed(() =>
  [...job.entries].reverse().filter(({ body }) => kind.value === 'all' || body.kind === kind.value),
);
const zone = () => job.design.settings.zone ?? 'UTC';
const day = (instant: string) =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: '2-digit',
    month: 'short',
    year: 'numeric',
    timeZone: zone(),
  });
const time = (instant: string) =>
  new Date(instant).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone() });

function title({ body }: RecordedEntry): string {
  switch (body.kind) {
    case 'result':
      return body.title;
    case 'acceptance':
      return `Accepted: ${body.message}`;
    case 'position':
      return positionText(body);
    case 'work':
      return body.what;
    case 'correction':
      return `Entry ${body.of} corrected`;
  }
}

function outcome({ body }: RecordedEntry): string {
  if (body.kind !== 'result') return '';
  const value =
    body.measured.kind === 'value'
      ? formatQuantity(body.measured.value, body.measured.unit, 4)
      : `${body.measured.samples.length} samples`;
  return `${value}, ${body.verdict === 'pass' ? 'passed' : 'failed'}`;
}

const statusOf = (entry: RecordedEntry) =>
  job.assessment.steps.find(({ entry: one }) => one?.seq === entry.seq);

async function correct(of: number): Promise<void> {
  if (reason.value.trim() === '') {
    problem.value = 'A reason is needed; the entry itself stays.';
    return;
  }
  problem.value = null;
  try {
    await job.record({ id: newId('entry'), kind: 'correction', of, reason: reason.value.trim() });
    correcting.value = null;
    reason.value = '';
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not recorded';
  }
}
</script>

<template>
  <div>
    <div class="filter" role="group" aria-label="Kinds of entries">
      <button
        v-for="one in kinds"
        :key="one"
        type="button"
        class="btn btn-quiet btn-sm"
        :aria-pressed="kind === one"
        :class="{ on: kind === one }"
        @click="kind = one"
      >
        {{ one }}
      </button>
    </div>
    <p v-if="job.entries.length === 0" class="soft">
      Nothing is recorded yet. Results, states, acceptances and corrections are appended here and never
      changed.
    </p>
    <table v-else class="grid-table">
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
        <template v-for="entry in shown" :key="entry.id">
          <tr
            :class="{ picked: opened === entry.seq, corrected: job.assessment.corrected.has(entry.seq) }"
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
                {{ title(entry) }}
              </button>
            </td>
            <td :class="entry.body.kind === 'result' ? entry.body.verdict : ''">
              {{ outcome(entry) }}
              <span v-if="statusOf(entry)?.state === 'stale'" class="stale">stale</span>
              <span v-if="entry.instrument?.standIn" class="soft">stand-in</span>
              <span v-if="job.assessment.corrected.has(entry.seq)" class="soft">corrected</span>
            </td>
            <td>{{ entry.by }}</td>
          </tr>
          <tr v-if="opened === entry.seq" class="detail">
            <td />
            <td colspan="4">
              <p v-if="entry.body.kind === 'result'">
                Expected {{ entry.body.expected }}. {{ entry.body.reasons.join('. ') }}
                <template v-if="entry.instrument">
                  By {{ entry.instrument.name }}, {{ entry.body.entered }}.</template
                >
              </p>
              <p v-if="entry.body.kind === 'result' && entry.body.details.length > 0">
                <template v-for="(detail, i) in entry.body.details" :key="detail.label"
                  >{{ i > 0 ? '; ' : '' }}{{ detail.label }}
                  {{ detail.value === null ? 'none' : formatQuantity(detail.value, detail.unit) }}</template
                >
              </p>
              <p v-if="entry.body.kind === 'acceptance' || entry.body.kind === 'correction'">
                Reason: {{ entry.body.reason }}
              </p>
              <p v-if="'remark' in entry.body && entry.body.remark">Remark: {{ entry.body.remark }}</p>
              <p v-if="statusOf(entry)?.state === 'stale'" class="stale-line">
                <template v-for="row in statusOf(entry)!.moved" :key="row.figure"
                  >{{ row.label }} was {{ formatQuantity(row.was, row.unit, 4) }}, is
                  {{ row.now === null ? 'not computed' : formatQuantity(row.now, row.unit, 4) }}.
                </template>
                {{
                  statusOf(entry)!.wouldStillPass
                    ? 'It would still pass; a re-test is due.'
                    : 'A re-test is due.'
                }}
              </p>
              <p v-if="entry.basis.length > 0" class="soft">
                Judged on
                <template v-for="(row, i) in entry.basis" :key="row.figure"
                  >{{ i > 0 ? '; ' : '' }}{{ row.label }}
                  {{ formatQuantity(row.value, row.unit, 4) }}</template
                >, design version {{ entry.against.version }}, core {{ entry.against.core }}.
              </p>
              <p class="soft hash">SHA-256 {{ entry.sha256 }}</p>
              <template v-if="entry.body.kind !== 'correction' && !job.assessment.corrected.has(entry.seq)">
                <BButton
                  v-if="correcting !== entry.seq"
                  size="sm"
                  variant="light"
                  @click="correcting = entry.seq"
                  >Correct it by a new entry …</BButton
                >
                <form v-else class="correct" @submit.prevent="correct(entry.seq)">
                  <input
                    v-model="reason"
                    class="form-control"
                    maxlength="2000"
                    placeholder="Why this entry does not count"
                    aria-label="Reason of the correction"
                  />
                  <BButton size="sm" variant="primary" type="submit">Record</BButton>
                  <BButton size="sm" variant="light" @click="correcting = null">Leave it</BButton>
                  <p v-if="problem" class="problem">{{ problem }}</p>
                </form>
              </template>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.filter {
  display: flex;
  gap: 0.3rem;
  margin-bottom: 0.5rem;
}

.on {
  background: var(--tv-pick);
  border-color: var(--tv-act);
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

.fail {
  color: var(--tv-stop);
  font-weight: 600;
}

.stale,
.stale-line {
  color: var(--tv-mend);
  font-weight: 600;
}

.corrected td {
  color: var(--tv-soft);
  text-decoration: line-through;
}

.detail p {
  margin: 0 0 0.2rem;
  font-size: 0.85rem;
}

.hash {
  overflow-wrap: anywhere;
}

.correct {
  display: flex;
  gap: 0.4rem;
  flex-wrap: wrap;
}

.correct input {
  flex: 1;
  min-width: 14rem;
}

.problem {
  color: var(--tv-stop);
  flex-basis: 100%;
}
</style>
