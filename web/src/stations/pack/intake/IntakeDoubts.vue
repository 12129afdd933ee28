<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import type { useRecording } from './use-recording';

/** What is asked before readings go into the record: another serial, and values that look like slips. */
type Asked = ReturnType<typeof useRecording>;
defineProps<{
  unsaid: Asked['unsaid']['value'];
  open: Asked['open']['value'];
  nameOf(id: Id): string;
}>();
const emit = defineEmits<{ mean: [key: string, what: 'misread' | 'other']; confirm: [key: string] }>();
</script>

<template>
  <div>
    <ul v-if="unsaid.length > 0" class="doubts" role="alert">
      <li v-for="one in unsaid" :key="one.key">
        <b>{{ nameOf(one.module) }}</b> has {{ one.was }} by the record, {{ one.serial }} was typed:
        <BButton variant="light" size="sm" @click="emit('mean', one.key, 'misread')"
          >it had been misread</BButton
        >
        <BButton variant="light" size="sm" @click="emit('mean', one.key, 'other')"
          >another module is in it</BButton
        >
      </li>
    </ul>
    <ul v-if="open.length > 0" class="doubts" role="alert">
      <li v-for="one in open" :key="one.key">
        <b>{{ nameOf(one.module) }}</b> {{ one.question }}
        <BButton variant="light" size="sm" @click="emit('confirm', one.key)">It is right</BButton>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.doubts {
  margin: 0.6rem 0 0;
  padding-left: 1.2rem;
  color: var(--tv-stop);
}
</style>
