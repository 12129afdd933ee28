<script setup lang="ts">
import type { PartKind } from '@torvek/core/parts';
import PartCell from './PartCell.vue';

/** One part chosen for a place of the design, with its label above. */
defineProps<{ path: string; kind: PartKind; label: string; none: string }>();
</script>

<template>
  <label class="part-field">
    <span>{{ label }}</span>
    <PartCell :path="path" :kind="kind" :label="label" :none="none" />
  </label>
</template>

<style scoped>
.part-field {
  display: block;
  min-width: 0;
}

.part-field span {
  display: block;
  margin-bottom: 0.12rem;
  font-size: 0.85rem;
  line-height: 1.5;
  color: var(--tv-soft);
}

.part-field :deep(.choice-cell) {
  height: 1.95rem;
  font-size: 1rem;
}
</style>
