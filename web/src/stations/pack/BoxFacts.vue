<script setup lang="ts">
import { accessSides, coats, vents } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';
import { boxName, boxNumber, boxRows, type BoxRow } from './box-columns';

/** What a box is as a thing that is built: its anchors, who reaches into it, how it breathes, how modules stand in it. */
const job = useJob();
const rows = computed(() => boxRows(job.design));
const accessTexts = { above: 'above', side: 'the side', below: 'below', none: 'nowhere' };
const ventTexts = { filtered: 'filter', open: 'open', none: 'none' };
const access = accessSides.map((value) => ({ value, text: accessTexts[value] }));
const vent = vents.map((value) => ({ value, text: ventTexts[value] }));
const coat = coats.map((value) => ({ value, text: value }));
const columns: GridColumn<BoxRow>[] = [
  boxName,
  boxNumber('anchors', 'fasteners', 'Fasteners', ''),
  boxNumber('anchorN', 'each holds', 'Force of a fastener', 'kN', 1000),
  { id: 'asked', title: 'asked', kind: 'slot', label: 'Force asked', width: '7rem' },
  {
    id: 'access',
    title: 'reached',
    kind: 'choice',
    label: 'Access',
    path: ({ id }) => `boxes.${id}.accessFrom`,
    choices: () => access,
    none: () => 'not given',
    width: '7.5rem',
  },
  {
    id: 'vent',
    title: 'vent',
    kind: 'choice',
    label: 'Vent',
    path: ({ id }) => `boxes.${id}.vent`,
    choices: () => vent,
    none: () => 'not given',
    width: '8rem',
  },
  {
    id: 'coat',
    title: 'coat inside',
    kind: 'choice',
    label: 'Coat inside',
    path: ({ id }) => `boxes.${id}.coat`,
    choices: () => coat,
    none: () => 'not given',
    width: '6.5rem',
  },
  boxNumber('linkPitchMm', 'link pitch', 'Link pitch', 'mm'),
  {
    id: 'clearance',
    title: 'over ground, mm',
    kind: 'fixed',
    label: 'Ground clearance',
    text: ({ id }) => {
      const { zM, heightM } = job.design.boxes[id] ?? {};
      return zM === undefined || heightM === undefined ? '—' : formatNumber((zM - heightM / 2) * 1000, 3);
    },
  },
];
</script>

<template>
  <div>
    <EditGrid v-if="rows.length > 0" label="Facts of the boxes" :rows="rows" :columns="columns">
      <template #asked="{ row }"><FigureValue :id="`pack.box:${row.id}:anchorForceN`" /></template>
    </EditGrid>
    <div class="below">
      <NumberField path="settings.anchorG" />
      <NumberField path="pack.boxMarginMm" />
    </div>
  </div>
</template>

<style scoped>
.below {
  display: flex;
  gap: 1.5rem;
  margin-top: 0.5rem;
  flex-wrap: wrap;
}

.below :deep(.number-field) {
  width: 22rem;
}
</style>
