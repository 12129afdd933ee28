<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';

/** What an arrangement comes to, beside what it was before something was picked up. */
export interface TallyItem {
  name: string;
  /** undefined: not computed. */
  value: number | undefined;
  was: number | undefined;
  unit: string;
  digits: number;
  limit?: number | undefined;
}
defineProps<{ items: readonly TallyItem[] }>();
</script>

<template>
  <dl class="tally" aria-label="What the arrangement comes to">
    <div v-for="item in items" :key="item.name" :data-tally="item.name">
      <dt>{{ item.name }}</dt>
      <dd
        :class="{
          moved: item.value !== item.was,
          over: item.limit !== undefined && item.value !== undefined && item.value > item.limit,
        }"
      >
        <template v-if="item.value === undefined"><span class="soft">not computed</span></template>
        <template v-else
          ><b>{{ formatNumber(item.value, item.digits) }}</b
          ><span class="unit">&nbsp;{{ item.unit }}</span></template
        >
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.tally {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 0.2rem 0.6rem;
  margin: 0 0 0.4rem;
}

.tally dt {
  font-weight: 400;
  font-size: 0.82rem;
  color: var(--tv-soft);
}

.tally dd {
  margin: 0;
  white-space: nowrap;
  padding: 0 0.2rem;
  margin-left: -0.2rem;
}

.tally .moved {
  background: var(--tv-pick);
}

.tally .over b {
  color: var(--tv-stop);
}

.unit {
  color: var(--tv-soft);
  font-size: 0.85rem;
}
</style>
