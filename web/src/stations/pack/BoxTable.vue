<script setup lang="ts">
import { removeBox } from '@torvek/core/document';
import { massBlocks } from '@torvek/core/vehicle';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { newId } from '../../api/client';
import Icon from '../../parts/Icon.vue';
import RemoveButton from '../../parts/RemoveButton.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';
import { boxNumber, boxRows, type BoxRow } from './box-columns';

/** Boxes and which module sits in which: their masses stand on the axles in Brief. */
const job = useJob();
const boxes = computed(() => Object.entries(job.design.boxes));
const counts = computed(() => {
  const map = new Map<string, number>();
  for (const { box } of Object.values(job.design.modules))
    if (box !== undefined) map.set(box, (map.get(box) ?? 0) + 1);
  return map;
});
const masses = computed(() => new Map(massBlocks(job.design).blocks.map(({ id, massKg }) => [id, massKg])));
const letter = (id: string | undefined) => {
  const index = id === undefined ? -1 : Object.keys(job.design.boxes).indexOf(id);
  return index < 0 ? '–' : String.fromCharCode(65 + (index % 26));
};

const rows = computed(() => boxRows(job.design));
const columns: GridColumn<BoxRow>[] = [
  { id: 'letter', title: '', kind: 'fixed', label: 'Letter', text: ({ id }) => letter(id), width: '1.6rem' },
  {
    id: 'tag',
    title: 'Box',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id }) => `boxes.${id}.tag`,
    width: '9rem',
  },
  boxNumber('xM', 'x', 'x', 'm'),
  boxNumber('yM', 'y', 'y', 'm'),
  boxNumber('zM', 'z', 'z', 'm'),
  boxNumber('lengthM', 'long', 'Length', 'm'),
  boxNumber('widthM', 'wide', 'Width', 'm'),
  boxNumber('heightM', 'high', 'Height', 'm'),
  boxNumber('emptyKg', 'empty', 'Empty mass', 'kg'),
  {
    id: 'modules',
    title: 'modules',
    kind: 'fixed',
    label: 'Modules',
    text: ({ id }) => String(counts.value.get(id) ?? 0),
  },
  {
    id: 'full',
    title: 'full, kg',
    kind: 'fixed',
    label: 'Full mass',
    text: ({ id }) => (masses.value.has(id) ? formatNumber(masses.value.get(id)!, 4) : '—'),
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.4rem' },
];

function add(): void {
  const tag = `Box ${String.fromCharCode(65 + (boxes.value.length % 26))}`;
  job.change(`New box: ${tag}`, (draft) => {
    draft.boxes[newId('box')] = { tag };
  });
}

function remove(id: string, tag: string): void {
  job.change(`Box removed: ${tag}`, (draft) => {
    removeBox(draft, id);
  });
}
</script>

<template>
  <div data-path="boxes">
    <EditGrid v-if="boxes.length > 0" label="Boxes" :rows="rows" :columns="columns">
      <template #remove="{ row }">
        <RemoveButton :name="row.name" @remove="remove(row.id, row.name)" />
      </template>
    </EditGrid>
    <p v-else class="soft">No box yet. Modules without a box have a mass, but no place on the axles.</p>
    <button type="button" class="btn btn-quiet btn-sm add" @click="add">
      <Icon name="plus" :size="12" /> box
    </button>
  </div>
</template>

<style scoped>
.add {
  margin: 0.5rem 0;
}
</style>
