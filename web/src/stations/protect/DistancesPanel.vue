<script setup lang="ts">
import type { FigureName } from '@torvek/core/figure';
import { distanceDefaults } from '@torvek/core/distances';
import { materialGroups } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';

/** Clearance and creepage in every box: what its voltage, dirt and height ask, and what is there. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.boxes).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const asked = (id: string, name: FigureName<'distances.box'>) => {
  const value = job.figure(`distances.box:${id}:${name}`)?.value ?? null;
  return value === null ? 'not computed' : formatNumber(value);
};
const degrees = ['1, sealed', '2, dry dirt', '3, conducting dirt'];
const at = (field: string) => (row: Row) => `boxes.${row.id}.${field}`;
const lowVoltage = (id: string, title: string, label: string): GridColumn<Row> => ({
  id,
  title,
  kind: 'number',
  unit: 'mm',
  label,
  path: at(id),
  width: '5rem',
});
const columns: GridColumn<Row>[] = [
  { id: 'tag', title: 'box', kind: 'slot', label: 'Box', width: '6rem' },
  {
    id: 'pollution',
    title: 'pollution',
    width: '5.4rem',
    kind: 'choice',
    label: 'Pollution degree',
    path: at('pollution'),
    choices: () => degrees.map((text, i) => ({ value: i + 1, text })),
    none: () => `${distanceDefaults.pollution}, default`,
  },
  {
    id: 'material',
    title: 'material',
    width: '4.6rem',
    kind: 'choice',
    label: 'Material group',
    path: at('material'),
    choices: () => materialGroups.map((value) => ({ value, text: value })),
    none: () => `${distanceDefaults.material}, default`,
  },
  {
    id: 'clearanceMm',
    title: 'clearance',
    kind: 'number',
    unit: 'mm',
    label: 'Clearance',
    path: at('clearanceMm'),
    width: '4.8rem',
  },
  {
    id: 'clearance',
    title: 'asked',
    kind: 'fixed',
    label: 'Clearance asked',
    text: ({ id }) => asked(id, 'clearanceMm'),
    width: '4rem',
  },
  {
    id: 'creepageMm',
    title: 'creepage',
    kind: 'number',
    unit: 'mm',
    label: 'Creepage',
    path: at('creepageMm'),
    width: '4.8rem',
  },
  {
    id: 'creepage',
    title: 'asked',
    kind: 'fixed',
    label: 'Creepage asked',
    text: ({ id }) => asked(id, 'creepageMm'),
    width: '4rem',
  },
  lowVoltage('lowVoltageGapMm', 'to 12 V, air', 'Clearance to low voltage'),
  lowVoltage('lowVoltageCreepMm', 'surface', 'Creepage to low voltage'),
  {
    id: 'reinforced',
    title: 'asked',
    kind: 'fixed',
    label: 'To low voltage asked, clearance and creepage',
    text: ({ id }) => `${asked(id, 'reinforcedClearanceMm')} / ${asked(id, 'reinforcedCreepageMm')}`,
    width: '4rem',
  },
];
</script>

<template>
  <section class="sheet-card" aria-labelledby="distances-title" data-distances>
    <div class="card-head">
      <h2 id="distances-title">Distances in boxes</h2>
      <span class="hint"
        >the least gap through the air and along a surface, between poles and to the box</span
      >
    </div>
    <div class="place">
      <NumberField path="settings.impulseV" />
      <NumberField path="settings.altitudeM" />
    </div>
    <p v-if="rows.length === 0" class="panel-empty">There is no box yet: Pack, Arrange has them.</p>
    <EditGrid v-else label="Distances in boxes" :rows="rows" :columns="columns">
      <template #tag="{ row }">{{ row.name }}</template>
    </EditGrid>
  </section>
</template>

<style scoped>
.place {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 20rem));
  gap: 0.2rem 2rem;
  margin-bottom: 0.4rem;
}
</style>
