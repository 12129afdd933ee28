<script setup lang="ts">
import type { ProcedureStep } from '@torvek/core/commissioning';
import type { StepStatus } from '@torvek/core/design';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useJob } from '../../stores/job';

/** A step that is recorded along walks: how far they have come, what is off, and where to go on. */
const props = defineProps<{ step: ProcedureStep; status: StepStatus }>();
const job = useJob();
const walked = computed(() => props.status.walked!);
const left = computed(
  () => walked.value.of - walked.value.done - walked.value.bad.length - walked.value.again.length,
);
const bond = computed(() => props.step.walk?.work === 'bond');
const cut = computed(() => props.step.walk?.work === 'cut');
const things = computed(() => (cut.value ? 'runs' : bond.value ? 'bodies' : 'joints'));
const way = computed(() =>
  cut.value
    ? { name: 'route', query: { panel: 'cuts' } }
    : { name: 'protect', query: { panel: bond.value ? 'bonds' : 'joints' } },
);
const few = (names: readonly string[]) =>
  names.length <= 6 ? names.join(', ') : `${names.slice(0, 5).join(', ')} and ${names.length - 5} more`;
const share = (count: number) => ({ width: `${(count / walked.value.of) * 100}%` });
</script>

<template>
  <div class="walk" data-walk>
    <p>
      <b>{{ walked.done }} of {{ walked.of }}</b> {{ things }} are recorded as expected<template
        v-if="left > 0"
        >, {{ left }} are still to do</template
      >.
    </p>
    <div class="track" aria-hidden="true">
      <span class="done" :style="share(walked.done)" /><span
        class="bad"
        :style="share(walked.bad.length)"
      /><span class="again" :style="share(walked.again.length)" />
    </div>
    <p v-if="walked.bad.length > 0" class="off">✕ Not as expected: {{ few(walked.bad) }}.</p>
    <p v-if="walked.again.length > 0" class="due">
      ↻ Due again since “{{ status.workSince }}”: {{ few(walked.again) }}.
    </p>
    <p v-if="status.standIn" class="due">By a stand-in: no vehicle was measured.</p>
    <RouterLink class="btn btn-primary go" :to="{ ...way, params: { job: job.id } }">{{
      cut ? 'Record the cut in Route' : 'Go on with the walk in Protect'
    }}</RouterLink>
  </div>
</template>

<style scoped>
.walk p {
  margin: 0 0 0.4rem;
}

.track {
  display: flex;
  height: 14px;
  max-width: 30rem;
  margin-bottom: 0.5rem;
  background: var(--tv-recess);
  border: 1px solid var(--tv-line);
}

.done {
  background: var(--tv-pass);
}

.bad {
  background: var(--tv-stop);
}

.again {
  background: repeating-linear-gradient(45deg, var(--tv-mend) 0 4px, var(--tv-sheet) 4px 7px);
}

.off {
  color: var(--tv-stop);
}

.due {
  color: var(--tv-mend);
}

.go {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
</style>
