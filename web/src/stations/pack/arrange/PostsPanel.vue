<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { useJob } from '../../../stores/job';

/** Which way round each module is mounted, in series order. */
const job = useJob();
interface Row {
  id: string;
  name: string;
  string: string;
  box: string;
}
const rows = computed(() =>
  Object.values(job.design.strings).flatMap(({ tag: string, modules }) =>
    modules.flatMap((id): Row[] => {
      const module = job.design.modules[id];
      return module === undefined
        ? []
        : [{ id, name: module.tag, string, box: job.design.boxes[module.box ?? '']?.tag ?? 'no box' }];
    }),
  ),
);
const said = computed(
  () => rows.value.filter(({ id }) => job.design.modules[id]?.plusSide !== undefined).length,
);
const columns: GridColumn<Row>[] = [
  {
    id: 'string',
    title: 'string',
    kind: 'slot',
    label: 'String',
    width: '5rem',
  },
  { id: 'name', title: 'module', kind: 'slot', label: 'Module', width: '8rem' },
  { id: 'box', title: 'box', kind: 'slot', label: 'Box', width: '10rem' },
  {
    id: 'plusSide',
    title: 'positive post',
    kind: 'choice',
    label: 'Positive post',
    path: ({ id }) => `modules.${id}.plusSide`,
    choices: () => ['left', 'right'].map((value) => ({ value, text: value })),
    none: () => 'not given',
    width: '9rem',
  },
];

/** As straight links ask: one left, the next right, from the negative end of each string. */
function alternate(): void {
  job.change('Modules of each string mounted in turn', (draft) => {
    for (const { modules } of Object.values(draft.strings))
      modules.forEach((id, i) => {
        draft.modules[id]!.plusSide = i % 2 === 0 ? 'left' : 'right';
      });
  });
}
</script>

<template>
  <details class="sheet-card" data-posts>
    <summary>
      <h2>Which way round</h2>
      <span class="hint"
        >positive posts, seen along the row: {{ said }} of {{ rows.length }} given; straight links need them
        in turn</span
      >
    </summary>
    <p v-if="rows.length === 0" class="panel-empty">No module stands in a string yet.</p>
    <template v-else>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="alternate"
        >Left and right in turn, each string</BButton
      >
      <EditGrid label="Positive posts" :rows="rows" :columns="columns">
        <template #string="{ row }">{{ row.string }}</template>
        <template #name="{ row }">{{ row.name }}</template>
        <template #box="{ row }">{{ row.box }}</template>
      </EditGrid>
    </template>
  </details>
</template>

<style scoped>
summary {
  display: flex;
  gap: 0.8rem;
  align-items: baseline;
  cursor: pointer;
}

summary h2 {
  margin: 0;
}

.btn {
  margin: 0.5rem 0;
}
</style>
