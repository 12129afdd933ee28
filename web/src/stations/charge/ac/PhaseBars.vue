<script setup lang="ts">
import { onPhaseA, type SupplyAnswer } from '@torvek/core/charging';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';

/** The three phases and the neutral as bars against what is available. */
const props = defineProps<{ answer: SupplyAnswer; neutralRatingA: number | null }>();
const rows = computed(() => {
  const { input, result } = props.answer;
  const phases = input.phases === 1 ? [result.phaseA[0]] : result.phaseA;
  return [
    ...phases.map((value, i) => ({ name: `L${i + 1}`, value, limit: onPhaseA(input, i as 0 | 1 | 2) })),
    { name: 'N', value: result.neutralA, limit: props.neutralRatingA ?? input.inletWireA },
  ];
});
const most = computed(() => Math.max(1, ...rows.value.flatMap(({ value, limit }) => [value, limit])));
const n = (value: number) => formatNumber(value, 3);
</script>

<template>
  <div
    class="bars"
    role="img"
    :aria-label="rows.map((row) => `${row.name} ${n(row.value)} A of ${n(row.limit)} A`).join(', ')"
  >
    <template v-for="row in rows" :key="row.name">
      <b>{{ row.name }}</b>
      <div class="track">
        <div
          class="bar"
          :class="{ neutral: row.name === 'N' }"
          :style="{ width: `${(100 * row.value) / most}%` }"
        />
        <div class="limit" :style="{ left: `${(100 * row.limit) / most}%` }" />
      </div>
      <span class="num"
        >{{ n(row.value) }} <i>of {{ n(row.limit) }} A</i></span
      >
    </template>
  </div>
</template>

<style scoped>
.bars {
  display: grid;
  grid-template-columns: 1.6rem minmax(6rem, 1fr) 8rem;
  gap: 0.3rem 0.6rem;
  align-items: center;
}

.track {
  position: relative;
  height: 0.9rem;
  background: var(--tv-recess);
}

.bar {
  height: 100%;
  background: var(--tv-act);
}

.neutral {
  background: var(--tv-soft);
}

.limit {
  position: absolute;
  top: -2px;
  bottom: -2px;
  width: 2px;
  margin-left: -2px;
  background: var(--tv-ink);
}

i {
  font-style: normal;
  color: var(--tv-soft);
}
</style>
