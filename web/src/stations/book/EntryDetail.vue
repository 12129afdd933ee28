<script setup lang="ts">
import { formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import { canBeTyped, readRight, typedRight } from './right-value';
import EntryFiles from './EntryFiles.vue';
import type { ListedEntry } from './record-pages';

/** What an entry was judged on, by what, with whom; and its correction by a new one. */
const props = defineProps<{ entry: ListedEntry }>();
const job = useJob();
const session = useSession();
const correcting = ref(false);
const reason = ref('');
/** Of a result: what is right; empty: it only does not count. */
const right = ref('');
const wrong = computed(() =>
  props.entry.body.kind === 'result' && canBeTyped(props.entry.body.measured)
    ? props.entry.body.measured
    : null,
);
const hasRight = ref(false);
const problem = ref<string | null>(null);

function begin(): void {
  correcting.value = true;
  hasRight.value = wrong.value !== null;
  right.value = wrong.value === null ? '' : typedRight(wrong.value);
}
const status = computed(() => job.assessment.steps.find(({ entry }) => entry?.seq === props.entry.seq));
const instrument = computed(() => {
  const one = props.entry.instrument;
  if (one === null) return null;
  if (one.standIn) return `${one.name}: it measures no vehicle`;
  if (one.serial === undefined) return `${one.name} (not in the register)`;
  const due = one.calibrationDue ? `calibration through ${one.calibrationDue}` : 'no calibration kept';
  return `${one.name}, serial ${one.serial}, ${due}${one.overdue ? ', which had run out' : ''}`;
});

async function correct(): Promise<void> {
  problem.value = reason.value.trim() === '' ? 'A reason is needed; the entry itself stays.' : null;
  if (problem.value !== null) return;
  const read = wrong.value !== null && hasRight.value ? readRight(right.value, wrong.value) : null;
  if (read?.ok === false) {
    problem.value = `The right value: ${read.message}.`;
    return;
  }
  try {
    const { seq } = props.entry;
    await job.record(
      {
        id: newId('entry'),
        kind: 'correction',
        of: seq,
        reason: reason.value.trim(),
        ...(read !== null && { right: read.measured }),
      },
      `Correction of entry ${seq}`,
    );
    correcting.value = false;
    reason.value = '';
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'not recorded';
  }
}
</script>

<template>
  <div class="detail">
    <template v-if="entry.body.kind === 'result'">
      <p>Expected {{ entry.body.expected }}. {{ entry.body.reasons.join('. ') }}</p>
      <p v-if="entry.body.details.length > 0">
        <template v-for="(detail, i) in entry.body.details" :key="detail.label"
          >{{ i > 0 ? '; ' : '' }}{{ detail.label }}
          {{ detail.value === null ? 'none' : formatQuantity(detail.value, detail.unit) }}</template
        >
      </p>
      <p v-if="entry.body.confirmedBy">
        Behind the HV gate opened by entry {{ entry.body.confirmedBy
        }}{{ entry.witness ? `, witness ${entry.witness}` : ', alone, with a solo concession' }}.
      </p>
    </template>
    <p v-if="entry.body.kind === 'arrival'">
      {{ entry.body.items.map(({ serial }, i) => serial ?? `row ${i + 1}`).join(', ') }}.
    </p>
    <p v-if="instrument">
      By {{ instrument }}<template v-if="entry.body.kind === 'result'">, {{ entry.body.entered }}</template
      >.
    </p>
    <p v-if="'reason' in entry.body && entry.body.reason !== ''">Reason: {{ entry.body.reason }}</p>
    <p v-if="entry.body.kind === 'gate' && entry.body.witnessPassword">
      The witness’s password was set by {{ entry.body.witnessPassword.by }} on
      {{ entry.body.witnessPassword.at.slice(0, 10) }}, not by themselves.
    </p>
    <p v-if="entry.clockWentBack">
      The server’s clock went back: the entry before was recorded at {{ entry.clockWentBack }}.
    </p>
    <p v-if="entry.body.kind === 'gate' && entry.body.alone">
      Instead of a witness: {{ entry.body.alone.how }}
    </p>
    <p v-if="entry.body.kind === 'deviation' && entry.body.cause">Suspected: {{ entry.body.cause }}</p>
    <p v-if="'remark' in entry.body && entry.body.remark">Remark: {{ entry.body.remark }}</p>
    <p v-if="entry.subjects.length > 0">Concerns {{ entry.subjects.map(({ tag }) => tag).join(', ') }}.</p>
    <p v-if="status?.state === 'stale'" class="stale-line">
      <template v-for="row in status.moved" :key="row.figure"
        >{{ row.label }} was {{ formatQuantity(row.was, row.unit, 4) }}, is
        {{ row.now === null ? 'not computed' : formatQuantity(row.now, row.unit, 4) }}.
      </template>
      {{ status.wouldStillPass ? 'It would still pass; a re-test is due.' : 'A re-test is due.' }}
    </p>
    <p v-if="entry.basis.length > 0" class="soft">
      Judged on
      <template v-for="(row, i) in entry.basis" :key="row.figure"
        >{{ i > 0 ? '; ' : '' }}{{ row.label }} {{ formatQuantity(row.value, row.unit, 4) }}</template
      >, design version {{ entry.against.version }}, core {{ entry.against.core }}.
    </p>
    <EntryFiles v-if="entry.attachments.length > 0" :hashes="entry.attachments" />
    <p class="soft hash">SHA-256 {{ entry.sha256 }}</p>
    <template
      v-if="entry.body.kind !== 'correction' && entry.correctedBy === null && session.may('technician')"
    >
      <BButton v-if="!correcting" size="sm" variant="light" @click="begin"
        >Correct it by a new entry …</BButton
      >
      <form v-else class="correct" @submit.prevent="correct">
        <input
          v-model="reason"
          class="form-control"
          maxlength="2000"
          placeholder="Why this entry does not count"
          aria-label="Reason of the correction"
        />
        <template v-if="wrong !== null">
          <label class="tick"
            ><input v-model="hasRight" type="checkbox" class="form-check-input" /> and this is right, judged
            anew{{ wrong.kind === 'value' ? `, ${wrong.unit}` : ', one a line' }}</label
          >
          <input
            v-if="hasRight && wrong.kind === 'value'"
            v-model="right"
            class="form-control value"
            inputmode="decimal"
            aria-label="The right value"
            data-right
          />
          <textarea
            v-else-if="hasRight"
            v-model="right"
            class="form-control"
            rows="6"
            aria-label="The right readings"
            data-right
          />
        </template>
        <BButton size="sm" variant="primary" type="submit">Record</BButton>
        <BButton size="sm" variant="light" @click="correcting = false">Leave it</BButton>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      </form>
    </template>
  </div>
</template>

<style scoped>
.detail p {
  margin: 0 0 0.2rem;
  font-size: 0.85rem;
}

.stale-line {
  color: var(--tv-mend);
  font-weight: 600;
}

.hash {
  overflow-wrap: anywhere;
}

.correct {
  display: flex;
  gap: 0.4rem;
  flex-wrap: wrap;
}

.correct input.form-control {
  flex: 1;
  min-width: 14rem;
}

.correct input.value {
  flex: 0 1 9rem;
  min-width: 6rem;
}

.tick {
  flex-basis: 100%;
  font-size: 0.9rem;
}

.correct .problem {
  color: var(--tv-stop);
  flex-basis: 100%;
}
</style>
