<script setup lang="ts">
import { hvPrecautions, partPrecautions } from '@torvek/core/commissioning';

/** The usual precautions, open where high voltage may be at hand. */
defineProps<{ hv: boolean }>();
</script>

<template>
  <details class="precautions" :class="{ hv }" :open="hv">
    <summary>{{ hv ? 'High voltage may be at hand' : 'Precautions' }}</summary>
    <ul>
      <li v-for="line in hv ? hvPrecautions : partPrecautions" :key="line">{{ line }}</li>
    </ul>
  </details>
</template>

<style scoped>
.precautions {
  margin: 0.5rem 0;
  padding: 0.4rem 0.8rem;
  border-left: 4px solid var(--tv-grey-fill);
  font-size: 0.92rem;
}

.precautions.hv {
  border-left-color: var(--tv-hv-fill);
}

.precautions.hv summary {
  color: var(--tv-hv);
  font-weight: 600;
}

.precautions ul {
  margin: 0.2rem 0 0;
  padding-left: 1.1rem;
}
</style>
