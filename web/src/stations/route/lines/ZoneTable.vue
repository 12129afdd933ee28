<script setup lang="ts">
import { zoneKinds } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { gone, kind, number, place, rowsOf, tag, type Row } from './columns';

/** Parts of the vehicle through which runs lead rather, never, or only when something is out of the way. */
const job = useJob();
const zones = computed(() => rowsOf(job.design.zones));
const ofObstacles = (column: GridColumn<Row>): GridColumn<Row> => ({
  ...column,
  path: (row) => (job.design.zones?.[row.id]?.kind === 'obstacle' ? column.path!(row) : null),
});
const zoneColumns: GridColumn<Row>[] = [
  { ...tag('zones', 'zone'), width: '11rem' },
  kind('zones', zoneKinds),
  ...place('zones'),
  ofObstacles(number('zones', 'outHours', 'to take out', 'Hours to take it out', 'h')),
  ofObstacles({
    id: 'staysOut',
    title: 'then',
    kind: 'choice',
    label: 'Afterwards',
    path: ({ id }) => `zones.${id}.staysOut`,
    choices: () => [{ value: true, text: 'stays out' }],
    none: () => 'goes back',
    width: '7.4rem',
  }),
  gone,
];
function addZone(): void {
  const id = newId('zone');
  job.change('Zone added', (draft) => {
    const count = Object.keys((draft.zones ??= {})).length;
    draft.zones[id] = { tag: `Zone ${count + 1}`, kind: 'forbidden' };
  });
}
function remove({ id, name }: Row): void {
  job.change(`Removed: ${name}`, (draft) => {
    delete draft.zones?.[id];
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="zones-title">
    <div class="card-head">
      <h2 id="zones-title">Zones</h2>
      <span class="hint"
        >corridors that suit, places that must stay free, places that are crushed, obstacles that could be
        taken out</span
      >
    </div>
    <EditGrid v-if="zones.length > 0" label="Zones" :rows="zones" :columns="zoneColumns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
    </EditGrid>
    <p v-else class="soft">None yet.</p>
    <BButton size="sm" variant="light" :disabled="!job.editable" @click="addZone">Another zone</BButton>
  </section>
</template>

<style scoped>
.btn {
  margin-top: 0.4rem;
}
</style>
