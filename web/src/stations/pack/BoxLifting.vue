<script setup lang="ts">
import { computed } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';
import { boxName, boxNumber, boxRows, type BoxRow } from './box-columns';

/** How many modules a box has room for, on floor and shelves, and what its lifting points bear when it is lifted full. */
const job = useJob();
const rows = computed(() => boxRows(job.design));
const columns: GridColumn<BoxRow>[] = [
  boxName,
  boxNumber('shelves', 'shelves', 'Shelves', ''),
  boxNumber('shelfMm', 'takes', 'Height a shelf takes', 'mm'),
  boxNumber('shelfN', 'holds', 'Force a shelf is made for', 'kN', 1000),
  { id: 'room', title: 'room for', kind: 'slot', label: 'Modules it has room for', width: '5rem' },
  boxNumber('liftPoints', 'lift points', 'Lifting points', ''),
  boxNumber('liftKg', 'each lifts', 'Load of a lifting point', 'kg'),
  boxNumber('liftSpanM', 'apart', 'Points apart, along', 'm'),
  boxNumber('slingDeg', 'lean', 'Lean of the slings', '°'),
  { id: 'worst', title: 'worst bears', kind: 'slot', label: 'Worst point bears', width: '6.5rem' },
];
</script>

<template>
  <EditGrid v-if="rows.length > 0" label="Shelves and lifting" :rows="rows" :columns="columns">
    <template #room="{ row }"><FigureValue :id="`pack.box:${row.id}:roomFor`" /></template>
    <template #worst="{ row }"><FigureValue :id="`pack.lift:${row.id}:worstPointKg`" /></template>
  </EditGrid>
</template>
