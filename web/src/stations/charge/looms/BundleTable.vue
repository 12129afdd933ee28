<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { offered, removeColumn, tagColumn, thingsOf, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** Stretches of loom between two ends. */
const job = useJob();
const rows = computed(() => thingsOf(job.design.bundles));
const ends = computed(() => offered(job.design.ends));
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
  tagColumn('bundles', 'bundle', '12rem'),
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
  removeColumn,
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
