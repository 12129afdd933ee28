<script setup lang="ts">
import { brokenLimit, gapText, type Figure } from '@torvek/core/figure';
import { computed, ref } from 'vue';
import FigureValue from '../parts/FigureValue.vue';
import { subjectName } from '../parts/place-name';
import { useJob } from '../stores/job';

/** Every figure of this job with the id by which programs ask for it; a press on one opens its working. */
const job = useJob();
const words = ref('');
const kinds = ['all', 'out of its limit', 'not computed'] as const;
const shown = ref<(typeof kinds)[number]>('all');

interface Line {
  figure: Figure;
  of: string;
  because: string;
}
const lines = computed(() =>
  Object.values(job.evaluation.figures).map((figure): Line => {
    const of = subjectName(job.design, figure.id.split(':')[1] ?? '');
    return { figure, of, because: figure.value === null ? figure.gaps.map(gapText).join('; ') : '' };
  }),
);
const listed = computed(() => {
  const asked = words.value.trim().toLowerCase();
  return lines.value.filter(
    ({ figure, of }) =>
      (shown.value === 'all' ||
        (shown.value === 'not computed' ? figure.value === null : brokenLimit(figure) !== null)) &&
      (asked === '' || [figure.id, figure.label, of].some((text) => text.toLowerCase().includes(asked))),
  );
});
const rooms = computed(() => {
  const found = new Map<string, Line[]>();
  for (const line of listed.value) {
    const room = line.figure.id.split('.')[0]!;
    found.set(room, [...(found.get(room) ?? []), line]);
  }
  return [...found].sort(([a], [b]) => (a < b ? -1 : 1));
});
</script>

<template>
  <section class="sheet-card" aria-label="Figures">
    <div class="card-head">
      <h2>Figures</h2>
      <span class="hint">{{ lines.length }} of this job; press one to see how it comes about</span>
    </div>
    <div class="asks">
      <input
        v-model="words"
        class="form-control"
        type="search"
        maxlength="80"
        placeholder="a word of the figure"
        aria-label="Search in figures"
      />
      <select v-model="shown" class="form-select" aria-label="Figures shown">
        <option v-for="one in kinds" :key="one" :value="one">{{ one }}</option>
      </select>
      <span class="soft" role="status">{{ listed.length }} shown</span>
    </div>
    <p v-if="listed.length === 0" class="panel-empty">No figure is like that.</p>
    <section v-for="[room, own] in rooms" :key="room" :aria-label="room">
      <h3>{{ room }}</h3>
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col">figure</th>
            <th scope="col">of</th>
            <th scope="col" class="num">value</th>
            <th scope="col">id</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in own" :key="line.figure.id" :data-listed="line.figure.id">
            <td>{{ line.figure.label }}</td>
            <td>{{ line.of }}</td>
            <td class="num"><FigureValue :id="line.figure.id" :digits="4" /></td>
            <td class="id">
              {{ line.figure.id }}
              <span v-if="line.because !== ''" class="soft">not computed: {{ line.because }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </section>
</template>

<style scoped>
.asks {
  display: flex;
  gap: 0.8rem;
  align-items: center;
}

.asks .form-control {
  width: 16rem;
}

.asks .form-select {
  width: 10rem;
}

h3 {
  font-size: 1rem;
  margin: 0.9rem 0 0.1rem;
}

table {
  table-layout: fixed;
  width: 100%;
}

th:nth-child(1) {
  width: 27%;
}

th:nth-child(2) {
  width: 17%;
}

th:nth-child(3) {
  width: 21%;
}

th:last-child,
.id {
  padding-left: 1rem;
}

.id {
  font-size: 0.82rem;
  overflow-wrap: anywhere;
}
</style>
