<script setup lang="ts">
import { precautions, type Hazard } from '@torvek/core/commissioning';
import { computed } from 'vue';

/** The usual precautions of a step, by what is at hand; open where that is high voltage. */
const props = defineProps<{ hazard: Hazard }>();
const open = computed(() => props.hazard !== 'part');
/** Orange is high voltage and nothing else. */
const hv = computed(() => open.value && props.hazard !== 'pressure' && props.hazard !== 'low-voltage');
</script>

<template>
  <details class="precautions" :class="{ hv }" :open="open" :data-hazard="hazard">
    <summary>{{ precautions[hazard].title }}</summary>
    <ul>
      <li v-for="line in precautions[hazard].lines" :key="line">{{ line }}</li>
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
