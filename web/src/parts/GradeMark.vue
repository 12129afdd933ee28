<script setup lang="ts">
import { gradeNames, type Grade } from '@torvek/core/finding';
import { computed } from 'vue';

/** Stop: filled octagon. Mend: half-filled diamond. Note: hollow ring. Never colour alone. */
const props = defineProps<{ grade: Grade; count?: number }>();

const label = computed(() =>
  props.count === undefined ? gradeNames[props.grade] : `${props.count} ${gradeNames[props.grade]}`,
);
</script>

<template>
  <span class="grade-mark" :class="grade" role="img" :aria-label="label" :title="label">
    <svg viewBox="0 0 16 16" width="13" height="13" aria-hidden="true">
      <polygon v-if="grade === 'stop'" points="5,1 11,1 15,5 15,11 11,15 5,15 1,11 1,5" fill="currentColor" />
      <template v-else-if="grade === 'mend'">
        <polygon points="8,1 15,8 8,15 1,8" fill="none" stroke="currentColor" stroke-width="1.6" />
        <polygon points="8,1 8,15 1,8" fill="currentColor" />
      </template>
      <circle v-else cx="8" cy="8" r="5.6" fill="none" stroke="currentColor" stroke-width="2" />
    </svg>
    <span v-if="count !== undefined">{{ count }}</span>
  </span>
</template>

<style scoped>
.grade-mark {
  display: inline-flex;
  align-items: center;
  gap: 2px;
  font-size: 0.75rem;
  font-weight: 600;
}

.stop {
  color: var(--tv-stop);
}

.mend {
  color: var(--tv-mend);
}

.note {
  color: var(--tv-note);
}
</style>
