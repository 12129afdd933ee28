<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref, watch } from 'vue';
import { useJob } from '../../../stores/job';
import type { HarnessRow } from './harness';
import { readHarness, type ReadHarness } from './harness-file';

/** A harness as it was built, in a file, held against the map. */
const props = defineProps<{ all: readonly HarnessRow[]; of: unknown }>();
const job = useJob();
const files = ref<HTMLInputElement | null>(null);
const read = ref<ReadHarness | null>(null);
// Another string or map: what was read belongs to the one before.
watch(
  () => props.of,
  () => (read.value = null),
);
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const text = await input.files?.[0]?.text();
  input.value = '';
  if (text !== undefined) read.value = readHarness(text, props.all);
}
function take(): void {
  const changes = read.value?.changes ?? [];
  job.change(`${changes.length} sense wires from a file`, (draft) => {
    const own = (draft.senseWires ??= {});
    for (const { id, label, change } of changes) own[id] = { ...own[id], tag: label, ...change };
  });
  read.value = null;
}
defineExpose({ choose: () => files.value?.click() });
</script>

<template>
  <div>
    <input
      ref="files"
      type="file"
      accept=".csv,text/csv"
      class="visually-hidden"
      aria-label="Harness from a file"
      @change="takeFile"
    />
    <div v-if="read" class="read" role="status" data-read>
      <p v-for="text in read.miswired" :key="text" class="problem">Wired otherwise. {{ text }}</p>
      <p v-for="text in read.problems.slice(0, 8)" :key="text" class="problem">{{ text }}</p>
      <p v-if="read.problems.length > 8" class="problem">and {{ read.problems.length - 8 }} more.</p>
      <p v-if="read.absent.length > 0" class="soft">
        {{ read.absent.length }} of {{ all.length }} wires are not in the file:
        {{ read.absent.slice(0, 6).join(', ') }}{{ read.absent.length > 6 ? ' …' : '' }}.
      </p>
      <p>
        <b>{{ read.changes.length }} wires end where the map says and bring a colour, length or fuse.</b>
        {{ read.miswired.length > 0 ? 'Do not plug this harness in before the others are set right.' : '' }}
      </p>
      <BButton size="sm" variant="primary" :disabled="read.changes.length === 0" @click="take"
        >Take {{ read.changes.length }} wires</BButton
      >
      <BButton size="sm" variant="light" @click="read = null">Leave it</BButton>
    </div>
  </div>
</template>

<style scoped>
.read {
  padding: 0.5rem 0.8rem;
  margin-bottom: 0.4rem;
  background: var(--tv-recess);
}

.read p {
  margin: 0 0 0.25rem;
}

.problem {
  color: var(--tv-stop);
}
</style>
