<script setup lang="ts">
import type { StepStatus } from '@torvek/core/design';
import type { EntryOf } from '@torvek/core/record';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { measuredText, type Measured, type ResultBody } from '@torvek/core/record';
import { computed } from 'vue';
import { useJob } from '../../stores/job';
import { momentOf } from '../../parts/dates';

/** The result that counts for a step: its verdict, or why it is stale and whether it would still pass. */
const props = defineProps<{ status: StepStatus; last: EntryOf<ResultBody> }>();
const job = useJob();
const verdict = computed(() => {
  if (props.status.state === 'stale') return 'Stale';
  return props.last.body.verdict === 'pass' ? 'Passed' : 'Failed';
});
const today = computed(() => {
  const { wouldStillPass } = props.status;
  if (wouldStillPass === null) return 'Whether it would still pass cannot be judged.';
  return `Against today’s design it would ${wouldStillPass ? 'still' : 'not'} pass.`;
});
const sayMeasured = (measured: Measured) =>
  measured.kind === 'value'
    ? `${measured.over === true ? 'more than ' : ''}${formatQuantity(measured.value, measured.unit, 4)}`
    : measured.kind !== 'trace'
      ? measuredText(measured)
      : `trace of ${measured.samples.length} samples, pack at ${formatNumber(measured.packVoltageV, 4)} V`;
const when = (instant: string) => momentOf(instant, job.design.settings.zone);
</script>

<template>
  <div class="last" :class="status.state" data-last-result>
    <p>
      <b>{{ verdict }}</b>
      {{ sayMeasured(last.body.measured) }}, {{ when(last.takenAt) }}, {{ last.by }}, entry {{ last.seq
      }}<span v-if="last.instrument?.standIn">
        — by a stand-in instrument: no vehicle was measured{{
          job.demo ? '' : ', and no gate opens by it'
        }}</span
      >
    </p>
    <p v-for="reason in last.body.reasons" :key="reason">{{ reason }}</p>
    <template v-if="status.state === 'stale'">
      <p v-for="row in status.moved" :key="row.figure">
        {{ row.label }} was {{ formatQuantity(row.was, row.unit, 4) }}, is
        {{ row.now === null ? 'no longer computed' : formatQuantity(row.now, row.unit, 4) }}.
      </p>
      <p v-if="status.workSince">Work since on the same part: {{ status.workSince }}</p>
      <p>{{ today }} A re-test is due.</p>
    </template>
  </div>
</template>

<style scoped>
.last {
  border-left: 4px solid var(--tv-pass);
  padding: 0.3rem 0.8rem;
  margin-bottom: 0.7rem;
  background: var(--tv-recess);
  font-size: 0.95rem;
}

.last p {
  margin: 0 0 0.15rem;
}

.last.failed {
  border-left-color: var(--tv-stop);
}

.last.stale {
  border-left-color: var(--tv-mend);
  border-left-style: dashed;
}
</style>
