<script setup lang="ts">
import { computed } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';

/** How many modules a box has room for, on floor and shelves, and what its lifting points bear when it is lifted full. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.boxes).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const number = (field: string, title: string, label: string, unit: string, scale = 1): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  scale,
  label,
  path: ({ id }) => `boxes.${id}.${field}`,
});
const columns: GridColumn<Row>[] = [
  { id: 'name', title: 'Box', kind: 'fixed', label: 'Box', text: ({ name }) => name, width: '9rem' },
  number('shelves', 'shelves', 'Shelves', ''),
  number('shelfMm', 'takes', 'Height a shelf takes', 'mm'),
  number('shelfN', 'holds', 'Force a shelf is made for', 'kN', 1000),
  { id: 'room', title: 'room for', kind: 'slot', label: 'Modules it has room for', width: '5rem' },
  number('liftPoints', 'lift points', 'Lifting points', ''),
  number('liftKg', 'each lifts', 'Load of a lifting point', 'kg'),
  number('liftSpanM', 'apart', 'Points apart, along', 'm'),
  number('slingDeg', 'lean', 'Lean of the slings', '°'),
  { id: 'worst', title: 'worst bears', kind: 'slot', label: 'Worst point bears', width: '6.5rem' },
];
</script>

<template>
  <EditGrid v-if="rows.length > 0" label="Shelves and lifting" :rows="rows" :columns="columns">
    <template #room="{ row }"><FigureValue :id="`pack.box:${row.id}:roomFor`" /></template>
    <template #worst="{ row }"><FigureValue :id="`pack.lift:${row.id}:worstPointKg`" /></template>
  </EditGrid>
</template>
