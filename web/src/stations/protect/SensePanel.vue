<script setup lang="ts">
import { senseFusings } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../api/client';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import RemoveButton from '../../parts/RemoveButton.vue';
import { useJob } from '../../stores/job';

/** The thin leads of the monitor: where they are fused, and for what. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.pack.sense ?? {}).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const at = (field: string) => (row: Row) => `pack.sense.${row.id}.${field}`;
const words = { tap: 'at the tap', monitor: 'at the monitor', none: 'nowhere' };
const number = (field: string, title: string, unit: string, label: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  label,
  path: at(field),
  width: '7rem',
});
const columns: GridColumn<Row>[] = [
  { id: 'tag', title: 'leads', kind: 'text', label: 'Name', required: true, path: at('tag'), width: '12rem' },
  {
    id: 'string',
    title: 'of',
    kind: 'choice',
    label: 'String',
    path: at('string'),
    choices: () => Object.entries(job.design.strings).map(([value, { tag }]) => ({ value, text: tag })),
    none: () => 'all strings',
    width: '8rem',
  },
  {
    id: 'fused',
    title: 'fused',
    kind: 'choice',
    label: 'Fused',
    path: at('fused'),
    choices: () => senseFusings.map((value) => ({ value, text: words[value] })),
    none: () => 'not given',
    width: '9rem',
  },
  number('fuseA', 'fuse', 'A', 'Fuse'),
  number('fuseV', 'made for', 'V', 'Voltage of the fuse'),
  number('carriesA', 'a lead carries', 'A', 'A lead carries'),
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];

function add(): void {
  job.change('Sense leads added', (draft) => {
    draft.pack.sense ??= {};
    draft.pack.sense[newId('sense')] = { tag: 'Leads to the monitor' };
  });
}
function remove({ id, name }: Row): void {
  job.change(`Sense leads removed: ${name}`, (draft) => {
    delete draft.pack.sense?.[id];
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="sense-title" data-sense>
    <div class="card-head">
      <h2 id="sense-title">Sense leads</h2>
      <span class="hint">a lead carries what its module’s sheet says, unless a smaller one is typed</span>
      <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
        >Add leads</BButton
      >
    </div>
    <p v-if="rows.length === 0" class="panel-empty">Nothing is said of the sense leads yet.</p>
    <EditGrid v-else label="Sense leads" :rows="rows" :columns="columns">
      <template #remove="{ row }">
        <RemoveButton :name="row.name" @remove="remove(row)" />
      </template>
    </EditGrid>
  </section>
</template>

<style scoped>
.add {
  margin-left: auto;
}
</style>
