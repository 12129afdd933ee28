<script setup lang="ts">
import { openBoxBeside, type StepStatus } from '@torvek/core/design';
import { gates, measuredText } from '@torvek/core/record';
import { computed, ref, watch } from 'vue';
import GapLink from '../../parts/GapLink.vue';
import { useJob } from '../../stores/job';
import { useSession } from '../../stores/session';
import DeviationPanel from './DeviationPanel.vue';
import GateConfirm from './GateConfirm.vue';
import HoldTimer from './HoldTimer.vue';
import LastResult from './LastResult.vue';
import MeasureForm from './MeasureForm.vue';
import PrecautionsBox from './PrecautionsBox.vue';
import TracePlot from './TracePlot.vue';
import WalkProgress from './WalkProgress.vue';

/** One step at the bench: precautions, what to do, the expectation, the last result, the measurement. */
const props = defineProps<{ status: StepStatus; gateOpen: boolean; waitsFor: string[] }>();
const emit = defineEmits<{ next: [] }>();
const job = useJob();
const session = useSession();
const step = computed(() => props.status.step);
const gate = computed(() => gates.find(({ id }) => id === step.value.gate)!);
/** An HV gate is open for this person when somebody confirmed it, or they work alone with a concession. */
const confirmed = ref(false);
watch(
  () => gate.value.id,
  () => (confirmed.value = false),
);
const deviations = computed(() =>
  job.assessment.deviations.filter(({ result }) => result.body.step === step.value.id).reverse(),
);
const beside = computed(() => openBoxBeside(step.value, job.design, job.assessment.position));
const last = computed(() => props.status.entry);
/** The trace that was recorded last, to be shown against the design of today. */
const recorded = computed(() => {
  const measured = last.value?.body.measured;
  return measured?.kind === 'trace' && step.value.expected?.kind === 'rise'
    ? { ...measured, expected: step.value.expected }
    : null;
});
</script>

<template>
  <section class="bench" :aria-label="step.title">
    <h2>{{ step.title }}</h2>
    <PrecautionsBox :key="step.id" :hazard="step.hazard" />
    <p class="do">{{ step.do }}</p>
    <p class="why soft">{{ step.why }}</p>
    <template v-if="step.expected === null">
      <p>The expectation is not computed, because</p>
      <ul>
        <li v-for="(gap, i) in step.gaps" :key="i"><GapLink :gap="gap" /></li>
      </ul>
    </template>
    <template v-else>
      <p class="expected"><span class="soft">Expected</span> {{ step.expectedText }}</p>
      <p v-if="!gateOpen" class="closed" role="status">
        This gate is closed: it waits for {{ waitsFor.join('; ') }}.
        {{
          gate.hv
            ? 'Nothing is recorded here before that.'
            : 'Before that only a sub-assembly on the bench is recorded here.'
        }}
      </p>
      <GateConfirm
        v-else-if="gate.hv && session.may('technician')"
        :key="gate.id"
        :gate="gate.id"
        :title="gate.title"
        @open="confirmed = $event"
      />
      <LastResult v-if="last" :status="status" :last="last" />
      <p v-if="status.onBench" class="on-bench" data-on-bench>
        On the bench: {{ status.onBench.body.verdict === 'pass' ? 'passed' : 'failed' }},
        {{ measuredText(status.onBench.body.measured) }}, entry {{ status.onBench.seq }}. In the vehicle it is
        tested again.
      </p>
      <WalkProgress v-if="step.walk && status.walked" :step="step" :status="status" />
      <p v-else-if="!session.may('technician')" class="soft">Recording asks for the role technician.</p>
      <p v-else-if="beside" class="closed" role="status">{{ beside }}</p>
      <MeasureForm v-else-if="gateOpen && (!gate.hv || confirmed)" :step="step" @next="emit('next')" />
      <MeasureForm v-else-if="!gate.hv && !gateOpen" :step="step" bench-only @next="emit('next')" />
      <HoldTimer :step="step" />
      <DeviationPanel
        v-for="deviation in deviations"
        :key="deviation.result.seq"
        :deviation="deviation"
        :status="status"
      />
      <template v-if="recorded">
        <h3>Recorded last</h3>
        <TracePlot
          :samples="recorded.samples"
          :pack-voltage-v="recorded.packVoltageV"
          :expected="recorded.expected"
        />
      </template>
    </template>
  </section>
</template>

<style scoped>
.bench {
  font-size: 1.05rem;
}

h2 {
  font-size: 1.3rem;
}

.do {
  margin: 0.6rem 0 0.2rem;
}

.why {
  font-size: 0.92rem;
  margin: 0;
}

.expected {
  font-size: 1.2rem;
  font-weight: 600;
  margin: 0.6rem 0;
}

.expected .soft {
  font-weight: 400;
  font-size: 0.95rem;
  margin-right: 0.4rem;
}

.on-bench {
  padding-left: 0.8rem;
  border-left: 4px solid var(--tv-line);
  font-size: 0.95rem;
}

.closed {
  color: var(--tv-mend);
}

h3 {
  margin-top: 0.8rem;
}
</style>
