<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { api } from '../api/client';
import { useJob } from '../stores/job';
import Icon from './Icon.vue';

/** Photos and files that go with what is being recorded: sent at once, kept by their content. */
interface StoredFile {
  sha256: string;
  name: string;
  type: string;
}
const attached = defineModel<StoredFile[]>({ required: true });
const job = useJob();
const input = ref<HTMLInputElement | null>(null);
const camera = ref<HTMLInputElement | null>(null);
const busy = ref(false);
const problem = ref<string | null>(null);

async function add(files: Iterable<File>): Promise<void> {
  problem.value = null;
  busy.value = true;
  const of = job.id;
  for (const file of files) {
    try {
      const path = `/jobs/${of}/files?name=${encodeURIComponent(file.name || 'photo')}`;
      const stored = await api.post<StoredFile>(path, file);
      // Meanwhile another job may be open: the file stays with the one that it was sent to.
      if (job.id === of && !attached.value.some(({ sha256 }) => sha256 === stored.sha256))
        attached.value = [...attached.value, stored];
    } catch (error) {
      problem.value = `${file.name}: ${error instanceof Error ? error.message : 'not sent'}`;
    }
  }
  busy.value = false;
  for (const one of [input.value, camera.value]) if (one !== null) one.value = '';
}
</script>

<template>
  <div class="attach" @dragover.prevent @drop.prevent="add($event.dataTransfer?.files ?? [])">
    <input
      ref="input"
      type="file"
      multiple
      accept="image/png,image/jpeg,image/webp,image/heic,application/pdf,text/plain,.csv"
      class="visually-hidden"
      tabindex="-1"
      aria-label="Files to attach"
      @change="add(($event.target as HTMLInputElement).files ?? [])"
    />
    <input
      ref="camera"
      type="file"
      accept="image/*"
      capture="environment"
      class="visually-hidden"
      tabindex="-1"
      aria-label="Photo to take"
      @change="add(($event.target as HTMLInputElement).files ?? [])"
    />
    <BButton class="tap" size="sm" variant="light" :disabled="busy" @click="camera?.click()">Photo</BButton>
    <BButton class="tap" size="sm" variant="light" :disabled="busy" @click="input?.click()"
      ><Icon name="clip" /> {{ busy ? 'Sending …' : 'File' }}</BButton
    >
    <button
      v-for="file in attached"
      :key="file.sha256"
      type="button"
      class="btn btn-quiet btn-sm"
      :aria-label="`take ${file.name} off`"
      @click="attached = attached.filter(({ sha256 }) => sha256 !== file.sha256)"
    >
      {{ file.name }} ✕
    </button>
    <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
  </div>
</template>

<style scoped>
.attach {
  display: flex;
  gap: 0.4rem;
  flex-wrap: wrap;
  align-items: center;
}

.tap {
  min-height: 40px;
}

.problem {
  color: var(--tv-stop);
  font-size: 0.88rem;
}
</style>
