<script setup lang="ts">
import { brokenLimit, gapText, type Figure, type FigureId } from '@torvek/core/figure';
import { computed } from 'vue';
import { useJob } from '../stores/job';
import { useSlate } from '../stores/slate';
import { useUnits } from '../stores/units';

/** A figure with its unit; opens its working. Out of its limit it shows the limit too. */
const props = defineProps<{ id: FigureId; label?: string; digits?: number; showLabel?: boolean }>();
const job = useJob();
const slate = useSlate();
const units = useUnits();
const figure = computed<Figure | undefined>(() => job.figure(props.id));
const shown = computed(() => {
  const value = figure.value?.value;
  return value === null || value === undefined
    ? null
    : units.show(value, figure.value!.unit, props.digits ?? 3);
});
const out = computed(() => {
  const broken = figure.value === undefined ? null : brokenLimit(figure.value);
  return broken === null ? null : `limit ${units.say(broken, figure.value!.unit)}`;
});
const why = computed(() => figure.value?.gaps.map(gapText).slice(0, 3).join('; ') ?? '');
const name = computed(() => props.label ?? figure.value?.label ?? props.id);
</script>

<template>
  <button
    type="button"
    class="figure visually-plain"
    :class="{ out: out !== null, picked: slate.figureId === id && slate.tab === 'working' }"
    :title="shown === null ? `Not computed, because ${why}` : `${name}: show the working`"
    :data-figure="id"
    @click="slate.showWorking(id)"
  >
    <span v-if="showLabel" class="name">{{ name }}</span>
    <span class="value">
      <template v-if="shown !== null"
        ><span class="digits">{{ shown.number }}</span
        ><span v-if="shown.unit !== ''" class="unit">&nbsp;{{ shown.unit }}</span></template
      >
      <span v-else class="none" :aria-label="`${name} not computed`">—</span>
      <span v-if="out !== null" class="limit">{{ out }}</span>
    </span>
  </button>
</template>

<style scoped>
.figure {
  border-radius: 2px;
  cursor: pointer;
}

.figure:hover .digits,
.picked .digits {
  text-decoration: underline;
  text-decoration-thickness: 1px;
  text-underline-offset: 3px;
}

.name {
  display: block;
  font-size: 0.78rem;
  color: var(--tv-soft);
  line-height: 1.2;
}

.digits {
  font-weight: 600;
}

.out .digits {
  color: var(--tv-stop);
}

.limit {
  margin-left: 0.4em;
  font-size: 0.78rem;
  color: var(--tv-stop);
  white-space: nowrap;
}

.none {
  color: var(--tv-soft);
}
</style>
