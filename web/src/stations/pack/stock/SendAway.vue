<script setup lang="ts">
import { shopShelf } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref } from 'vue';
import { api } from '../../../api/client';
import { useJob } from '../../../stores/job';

/** Where a thing may go that this job does not need: another job, or the shelf of the shop. */
defineProps<{ busy: boolean }>();
const emit = defineEmits<{ send: [to: { id: string; name: string }] }>();
const job = useJob();
const jobs = ref<{ id: string; name: string }[]>([]);
const problem = ref<string | null>(null);
const to = ref('');
const offered = computed(() =>
  [shopShelf, ...jobs.value.filter(({ id }) => id !== shopShelf.id)].filter(({ id }) => id !== job.id),
);
onMounted(async () => {
  try {
    jobs.value = await api.get('/jobs');
  } catch {
    problem.value = 'Other jobs are not known just now: the server does not answer.';
  }
});
function send(): void {
  const one = offered.value.find(({ id }) => id === to.value);
  if (one !== undefined) emit('send', one);
}
</script>

<template>
  <div class="line">
    <select v-model="to" class="form-select" aria-label="Other job">
      <option value="">into which job …</option>
      <option v-for="one in offered" :key="one.id" :value="one.id">{{ one.name }}</option>
    </select>
    <BButton size="sm" variant="light" :disabled="to === '' || busy" @click="send">Send it there</BButton>
  </div>
  <p v-if="problem" class="soft">{{ problem }}</p>
  <p v-else-if="to !== ''" class="soft">
    What is recorded of it goes along, quoted with the hash of each entry. Here it is no more.
  </p>
</template>

<style scoped>
.line {
  display: flex;
  gap: 0.5rem;
}

.line .btn {
  white-space: nowrap;
}

p {
  margin: 0;
}
</style>
