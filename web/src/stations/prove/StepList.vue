<script setup lang="ts">
import type { StepStatus } from '@torvek/core/design';
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import { useJob } from '../../stores/job';

/** The procedure by gates, each step with its state as shape and word. */
const props = defineProps<{ selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useJob();
const groups = computed(() =>
  job.assessment.gates.map((gate) => ({
    gate,
    steps: job.assessment.steps.filter(({ step }) => step.gate === gate.id),
  })),
);
const list = useTemplateRef('list');
/** A step that was reached from elsewhere is shown in its list too. */
watch(
  () => props.selected,
  () =>
    void nextTick(() => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })),
  { immediate: true },
);
const words: Record<StepStatus['state'], string> = {
  due: 'due',
  passed: 'passed',
  failed: 'failed',
  stale: 'stale',
};
const marks: Record<StepStatus['state'], string> = { due: '·', passed: '✓', failed: '✕', stale: '↻' };
/** A reading by a stand-in is marked; of a walk it says how far it has come. */
function wordOf({ step, state, standIn, walked }: StepStatus): string {
  if (step.expected === null) return 'not computed';
  if (state === 'passed' && standIn) return 'stand-in';
  if (state === 'due' && walked !== null) return `${walked.done} of ${walked.of}`;
  return words[state];
}
const countPassed = (steps: StepStatus[]) => steps.filter(({ state }) => state === 'passed').length;
</script>

<template>
  <nav ref="list" class="steps" aria-label="Steps of the procedure">
    <section v-for="{ gate, steps } in groups" :key="gate.id">
      <h3>
        {{ gate.title }} <span class="soft">{{ countPassed(steps) }} of {{ steps.length }} passed</span>
      </h3>
      <p v-if="!gate.open" class="closed">closed: waits for {{ gate.waitsFor.join('; ') }}</p>
      <ol>
        <li v-for="status in steps" :key="status.step.id">
          <button
            type="button"
            class="visually-plain step"
            :class="[status.state, { selected: selected === status.step.id }]"
            :aria-current="selected === status.step.id ? 'step' : undefined"
            :data-step="status.step.id"
            @click="emit('select', status.step.id)"
          >
            <span class="state-mark" aria-hidden="true">{{ marks[status.state] }}</span>
            <span class="title">{{ status.step.title }}</span>
            <span class="word">{{ wordOf(status) }}</span>
          </button>
        </li>
      </ol>
    </section>
  </nav>
</template>

<style scoped>
.steps h3 {
  margin-top: 0.8rem;
  font-size: 0.9rem;
}

.steps section:first-child h3 {
  margin-top: 0;
}

.steps h3 span {
  font-weight: 400;
  font-size: 0.82rem;
}

.closed {
  margin: 0;
  font-size: 0.82rem;
  color: var(--tv-mend);
}

ol {
  list-style: none;
  padding: 0;
  margin: 0.2rem 0 0;
}

.step {
  display: grid;
  grid-template-columns: 1.2rem 1fr auto;
  gap: 0.35rem;
  width: 100%;
  padding: 0.3rem 0.4rem;
  font-size: 0.88rem;
  border-radius: 2px;
  min-height: 30px;
}

.step:hover {
  background: var(--tv-recess);
}

.selected {
  background: var(--tv-pick);
}

.state-mark {
  font-weight: 600;
  text-align: center;
}

.word {
  font-size: 0.78rem;
  color: var(--tv-soft);
}

.passed .state-mark,
.passed .word {
  color: var(--tv-pass);
}

.failed .state-mark,
.failed .word {
  color: var(--tv-stop);
  font-weight: 600;
}

.stale .state-mark,
.stale .word {
  color: var(--tv-mend);
  font-weight: 600;
}
</style>
