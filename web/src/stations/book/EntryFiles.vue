<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { api } from '../../api/client';
import { useJob } from '../../stores/job';

/** The photos and files of an entry. */
const props = defineProps<{ hashes: string[] }>();
const job = useJob();
const files = ref<{ sha256: string; name: string; type: string; size: number }[]>([]);
const problem = ref<string | null>(null);
const pathOf = (sha256: string) => `/api/jobs/${job.id}/files/${sha256}`;

onMounted(async () => {
  try {
    const all = await api.get<typeof files.value>(`/jobs/${job.id}/files`);
    files.value = all.filter(({ sha256 }) => props.hashes.includes(sha256));
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'the files cannot be read';
  }
});
</script>

<template>
  <p v-if="problem" role="alert">{{ problem }}</p>
  <ul class="files">
    <li v-for="file in files" :key="file.sha256">
      <a :href="pathOf(file.sha256)" target="_blank" rel="noopener">
        <img
          v-if="file.type.startsWith('image/') && file.type !== 'image/heic'"
          :src="pathOf(file.sha256)"
          :alt="file.name"
        />
        <span>{{ file.name }}, {{ Math.max(1, Math.round(file.size / 1024)) }} kB</span>
      </a>
    </li>
  </ul>
</template>

<style scoped>
.files {
  list-style: none;
  padding: 0;
  margin: 0.2rem 0;
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  font-size: 0.85rem;
}

.files img {
  display: block;
  max-width: 12rem;
  max-height: 8rem;
}
</style>
