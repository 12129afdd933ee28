<script setup lang="ts">
import { gapText, type Origin, type TracedStep } from '@torvek/core/figure';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { substitute } from '@torvek/core/working';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import GapLink from '../parts/GapLink.vue';
import { goToPath } from '../parts/go-to-path';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';

/** The working of the selected figure: its own step first, then what led to it. */
const job = useJob();
const slate = useSlate();
const router = useRouter();
const figure = computed(() => (slate.figureId === null ? undefined : job.figure(slate.figureId)));
const steps = computed<TracedStep[]>(() => [...(figure.value?.working ?? [])].reverse());

function originText(origin: Origin | undefined): string {
  switch (origin?.kind) {
    case 'document':
      return 'given';
    case 'default':
      return 'default';
    case 'part':
      return job.design.parts[origin.key]?.number ?? 'part';
    case 'figure':
      return job.figure(origin.id)?.label ?? 'figure';
    case 'constant':
      return origin.source;
    default:
      return 'above';
  }
}

function follow(origin: Origin): void {
  if (origin.kind === 'figure') slate.showWorking(origin.id);
  else if (origin.kind === 'document' || origin.kind === 'default')
    void goToPath(router, job.id, origin.path);
}

const linked = (origin: Origin | undefined) =>
  origin !== undefined && origin.kind !== 'constant' && origin.kind !== 'part';
const say = (value: number | null, unit: string) =>
  value === null ? 'never' : formatQuantity(value, unit, 4);
const sayInput = (value: number, unit: string) => `${formatNumber(value, 4)} ${unit}`.trim();
</script>

<template>
  <div v-if="figure === undefined" class="empty soft">
    Choose any figure to see how it was computed and where each input came from.
  </div>
  <div v-else class="working" :data-working="figure.id">
    <h3>{{ figure.label }}</h3>
    <p class="result">
      {{ figure.value === null ? 'not computed' : formatQuantity(figure.value, figure.unit, 4) }}
    </p>
    <p v-if="figure.limit" class="soft limit">
      <template v-if="figure.limit.max !== undefined"
        >limit: at most {{ formatQuantity(figure.limit.max, figure.unit, 4) }}</template
      >
      <template v-else-if="figure.limit.min !== undefined"
        >limit: at least {{ formatQuantity(figure.limit.min, figure.unit, 4) }}</template
      >
    </p>
    <template v-if="figure.gaps.length > 0">
      <p class="because">Not computed, because</p>
      <ul>
        <li v-for="gap in figure.gaps" :key="gapText(gap)"><GapLink :gap="gap" /></li>
      </ul>
    </template>
    <section v-for="(step, i) in steps" :key="i" class="step">
      <h4>{{ step.label }}</h4>
      <p class="formula">{{ step.symbol }} = {{ step.formula }}</p>
      <p v-if="step.inputs.length > 0 && step.solver === undefined" class="formula substituted">
        = {{ substitute(step) }}
      </p>
      <p class="formula value">= {{ say(step.value, step.unit) }}</p>
      <ul v-if="step.inputs.length > 0" class="inputs">
        <li v-for="input in step.inputs" :key="input.symbol">
          <span class="symbol">{{ input.symbol }}</span>
          <span>{{ sayInput(input.value, input.unit) }}</span>
          <a v-if="linked(input.origin)" href="#" @click.prevent="follow(input.origin!)">{{
            input.label ?? originText(input.origin)
          }}</a>
          <span v-else class="soft">{{ input.label ?? originText(input.origin) }}</span>
        </li>
      </ul>
      <p v-if="step.solver" class="source">
        {{ step.solver.method }}, {{ step.solver.iterations }} iterations, residual
        {{ formatNumber(step.solver.residual, 2) }}
        {{ step.solver.residualUnit }}
      </p>
      <p class="source">{{ step.source }}</p>
    </section>
  </div>
</template>

<style scoped>
.empty {
  padding: 1rem 0.2rem;
}

.result {
  font-size: 1.4rem;
  font-weight: 600;
  margin: 0.1rem 0;
}

.limit {
  margin: 0 0 0.4rem;
}

.because {
  margin: 0.3rem 0 0.1rem;
}

ul {
  padding-left: 1.1rem;
  margin: 0 0 0.4rem;
}

.step {
  border-top: 1px solid var(--tv-line);
  padding: 0.5rem 0;
}

h4 {
  font-size: 0.85rem;
  font-weight: 600;
  margin: 0 0 0.15rem;
}

.formula {
  margin: 0;
  font-size: 0.88rem;
  overflow-wrap: anywhere;
}

.substituted {
  color: var(--tv-soft);
}

.value {
  font-weight: 600;
}

.inputs {
  list-style: none;
  padding: 0.25rem 0 0;
  margin: 0;
  font-size: 0.82rem;
}

.inputs li {
  display: grid;
  grid-template-columns: 2.6rem 7.4rem 1fr;
  gap: 0.3rem;
}

.symbol {
  font-weight: 600;
}

.source {
  font-size: 0.78rem;
  color: var(--tv-soft);
  margin: 0.2rem 0 0;
}
</style>
