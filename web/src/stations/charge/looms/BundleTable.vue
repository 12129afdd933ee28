<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** Stretches of loom between two ends. */
const job = useJob();
interface Row {
  id: Id;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.bundles ?? {}).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const ends = computed(() =>
  Object.entries(job.design.ends ?? {}).map(([value, { tag }]) => ({ value, text: tag })),
);
const at = (row: Row, field: string) => `bundles.${row.id}.${field}`;
const end = (field: 'from' | 'to', label: string): GridColumn<Row> => ({
  id: field,
  title: field,
  kind: 'choice',
  label,
  path: (row) => at(row, field),
  choices: () => ends.value,
  none: () => 'nowhere',
  width: '13rem',
});
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'bundle',
    kind: 'text',
    label: 'Name',
    path: (row) => at(row, 'tag'),
    required: true,
    width: '12rem',
  },
  end('from', 'From'),
  end('to', 'To'),
  {
    id: 'lengthM',
    title: 'length',
    kind: 'number',
    label: 'Length',
    unit: 'm',
    path: (row) => at(row, 'lengthM'),
    width: '6rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
function add(): void {
  job.change('Bundle added', (draft) => {
    const all = (draft.bundles ??= {});
    all[newId('bundle')] = { tag: `Bundle ${Object.keys(all).length + 1}` };
  });
}
const remove = (row: Row) =>
  job.change(`${row.name} removed`, (draft) => void delete draft.bundles?.[row.id]);
</script>

<template>
  <EditGrid v-if="rows.length > 0" label="Bundles" :rows="rows" :columns="columns">
    <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
  </EditGrid>
  <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
    >Another bundle</BButton
  >
</template>

<style scoped>
.add {
  margin-top: 0.4rem;
}
</style>
