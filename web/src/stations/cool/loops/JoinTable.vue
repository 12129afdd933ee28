<script setup lang="ts">
import { removeJoin, type Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { removeColumn, tagColumn, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** Places where hoses meet: their heights say where air stays. */
const props = defineProps<{ loopId: Id }>();
const job = useJob();
const rows = computed(() =>
  Object.entries(job.design.joins ?? {}).flatMap(([id, { loop, tag }]): Row[] =>
    loop === props.loopId ? [{ id, name: tag }] : [],
  ),
);
const at = (row: Row, field: string) => `joins.${row.id}.${field}`;
const number = (field: 'xM' | 'yM' | 'zM', title: string, label: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit: 'm',
  path: (row) => at(row, field),
  width: '5rem',
});
const columns: GridColumn<Row>[] = [
  tagColumn('joins', 'join', '12rem'),
  number('zM', 'height, m', 'Above the ground'),
  number('xM', 'ahead, m', 'Ahead of the front axle'),
  number('yM', 'left, m', 'Left of the middle'),
  {
    id: 'bleed',
    title: 'air out',
    kind: 'choice',
    label: 'Air is let out here',
    path: (row) => at(row, 'bleed'),
    choices: () => [
      { value: true, text: 'bleed' },
      { value: false, text: 'no' },
    ],
    none: () => 'no',
    width: '5rem',
  },
  removeColumn,
];
function add(): void {
  job.change('Join added', (draft) => {
    const all = (draft.joins ??= {});
    all[newId('join')] = { tag: `Join ${Object.keys(all).length + 1}`, loop: props.loopId };
  });
}
function remove(row: Row): void {
  job.change(`${row.name} removed`, (draft) => removeJoin(draft, row.id));
}
</script>

<template>
  <div data-joins>
    <EditGrid v-if="rows.length > 0" :key="loopId" label="Joins of the loop" :rows="rows" :columns="columns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
    </EditGrid>
    <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
      >Another join</BButton
    >
  </div>
</template>

<style scoped>
.add {
  margin-top: 0.4rem;
}
</style>
