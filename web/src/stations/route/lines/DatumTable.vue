<script setup lang="ts">
import { removeDatum } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import FlagField from '../../../parts/FlagField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { gone, place, rowsOf, tag, type Row } from './columns';

/** Marks of the body from which points are placed by the tape. */
const job = useJob();
const datums = computed(() => rowsOf(job.design.datums));
const datumColumns: GridColumn<Row>[] = [
  { ...tag('datums', 'mark'), width: '18rem' },
  ...place('datums').slice(0, 3),
  {
    id: 'holds',
    title: 'holds a run',
    kind: 'choice',
    label: 'A run can be held here',
    path: ({ id }) => `datums.${id}.holds`,
    choices: () => [
      { value: true, text: 'a clip goes there' },
      { value: false, text: 'no' },
    ],
    none: () => 'no',
    width: '8rem',
  },
  {
    id: 'used',
    title: 'points taped from it',
    kind: 'fixed',
    label: 'Points taped from it',
    text: ({ id }) =>
      String(
        Object.values(job.design.runs ?? {})
          .flatMap(({ points = [] }) => points)
          .filter(({ taped = [] }) => taped.some(({ datum }) => datum === id)).length,
      ),
    width: '8rem',
  },
  gone,
];
function addDatum(): void {
  const id = newId('datum');
  job.change('Mark of the body added', (draft) => {
    const count = Object.keys((draft.datums ??= {})).length;
    draft.datums[id] = { tag: `Mark ${count + 1}` };
  });
}
function dropDatum({ id, name }: Row): void {
  job.change(`Removed: ${name}`, (draft) => removeDatum(draft, id));
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="datums-title" data-datums>
    <div class="card-head">
      <h2 id="datums-title">Marks of the body</h2>
      <span class="hint"
        >bolts, holes and corners that stay where they are: points are placed by the tape from three of
        them</span
      >
    </div>
    <FlagField
      path="vehicle.noNewHoles"
      label="No new holes in the body: runs are held where something is there"
    />
    <EditGrid v-if="datums.length > 0" label="Marks of the body" :rows="datums" :columns="datumColumns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="dropDatum(row)" /></template>
    </EditGrid>
    <p v-else class="soft">None yet. Three that do not lie in a line are enough to begin with.</p>
    <BButton size="sm" variant="light" :disabled="!job.editable" @click="addDatum">Another mark</BButton>
  </section>
</template>

<style scoped>
.btn {
  margin-top: 0.4rem;
}
</style>
