<script setup lang="ts">
import type { SheetId } from '@torvek/core/sheets';
import { useStorage } from '@vueuse/core';
import { computed, onMounted, reactive, ref } from 'vue';
import { api } from '../../api/client';
import { labelKinds, labelsOf, type LabelKind } from '../../parts/label-kinds';
import LabelButton from '../../parts/LabelButton.vue';
import PrintSheet from '../../parts/PrintSheet.vue';
import { useJob } from '../../stores/job';

/** Every sheet that can be printed, on either paper. */
interface Listed {
  id: SheetId;
  title: string;
  subjects: { id: string; tag: string }[];
}
const job = useJob();
const paper = useStorage('torvek.paper', navigator.language === 'en-US' ? 'letter' : 'A4');
const papers = ref<string[]>([]);
const sheets = ref<Listed[]>([]);
const chosen = reactive<Record<string, string>>({});
const labelKind = ref<LabelKind>('cables');
const labels = computed(() =>
  labelsOf(labelKind.value, job.design, job.figure('pack.pack:pack:voltageMaxV')?.value ?? null),
);
const problem = ref<string | null>(null);

onMounted(async () => {
  try {
    const of = job.id;
    const answer = await api.get<{ papers: string[]; sheets: Listed[] }>(`/jobs/${of}/sheets`);
    if (job.id !== of) return;
    papers.value = answer.papers;
    sheets.value = answer.sheets;
    for (const { id, subjects } of answer.sheets) if (subjects[0]) chosen[id] = subjects[0].id;
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'the list of sheets cannot be read';
  }
});
</script>

<template>
  <section class="sheet-card no-print" aria-labelledby="paper-title" data-paper-sheets>
    <div class="card-head">
      <h2 id="paper-title">Sheets for paper</h2>
      <select v-model="paper" class="form-select form-select-sm size" aria-label="Size of paper">
        <option v-for="one in papers" :key="one" :value="one">
          {{ one === 'letter' ? 'US letter' : one }}
        </option>
      </select>
    </div>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <ul>
      <li v-for="{ id, title, subjects } in sheets" :key="id">
        <span>{{ title }}</span>
        <select
          v-if="subjects.length > 0"
          v-model="chosen[id]"
          class="form-select form-select-sm"
          :aria-label="`${title}: of`"
        >
          <option v-for="one in subjects" :key="one.id" :value="one.id">{{ one.tag }}</option>
        </select>
        <span v-else />
        <PrintSheet
          :sheet="id"
          text="PDF"
          v-bind="subjects.length > 0 ? { subject: chosen[id]! } : {}"
          :spoken="`PDF: ${title}`"
        />
      </li>
    </ul>
    <div class="labels">
      <select v-model="labelKind" class="form-select form-select-sm" aria-label="Labels of">
        <option v-for="one in labelKinds" :key="one" :value="one">Labels of {{ one }}</option>
      </select>
      <LabelButton :what="labelKind" :labels="labels" />
    </div>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(8rem, 1fr) minmax(0, 1fr) auto;
  gap: 0.5rem;
  align-items: center;
  padding: 0.15rem 0;
}

.labels {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  margin-top: 0.5rem;
}

.labels > .form-select {
  width: auto;
}

.size {
  width: auto;
  margin-left: auto;
}

.bad {
  color: var(--tv-stop);
}
</style>
