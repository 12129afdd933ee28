<script setup lang="ts">
import type { SheetId } from '@torvek/core/sheets';
import { useStorage } from '@vueuse/core';
import { ref } from 'vue';
import { api } from '../api/client';
import { useJob } from '../stores/job';

/** A sheet made for paper by the server, of the design as saved and the record up to now. */
const props = defineProps<{
  sheet: SheetId;
  subject?: string;
  text: string;
  spoken?: string;
  disabled?: boolean;
}>();
const job = useJob();
const paper = useStorage('torvek.paper', navigator.language === 'en-US' ? 'letter' : 'A4');
const busy = ref(false);
const trouble = ref<string | null>(null);

async function print(): Promise<void> {
  if (busy.value) return;
  busy.value = true;
  trouble.value = null;
  try {
    const query = new URLSearchParams({
      paper: paper.value,
      ...(props.subject !== undefined && { subject: props.subject }),
    });
    const { bytes, name } = await api.file(`/jobs/${job.id}/sheets/${props.sheet}?${query}`);
    const { download } = await import('./pdf');
    download(bytes, name);
    if (job.saveState !== 'saved')
      trouble.value = `Printed as version ${job.version}: what was changed since is not saved yet.`;
  } catch (error) {
    trouble.value = `Not printed: ${error instanceof Error ? error.message : 'unknown reason'}.`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <span class="print no-print">
    <button
      type="button"
      class="btn btn-quiet btn-sm"
      :disabled="busy || disabled"
      :data-print="sheet"
      :aria-label="spoken"
      @click="print"
    >
      {{ busy ? 'Setting …' : text }}
    </button>
    <span v-if="trouble" role="alert" class="trouble">{{ trouble }}</span>
  </span>
</template>

<style scoped>
.print {
  display: inline-flex;
  gap: 0.4rem;
  align-items: center;
}

.trouble {
  color: var(--tv-stop);
  font-size: 0.9rem;
}
</style>
