<script setup lang="ts">
import { computed } from 'vue';
import ChoiceCell from '../../parts/ChoiceCell.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { endsChoices, polesChoices } from './choices';
import { useJob } from '../../stores/job';

/** What breaks each string, and where strings and mains sit. */
const job = useJob();
interface Row {
  id: string;
  name: string;
  modules: number;
}
const rows = computed(() =>
  Object.entries(job.design.strings).map(([id, { tag, modules }]): Row => ({
    id,
    name: tag,
    modules: modules.length,
  })),
);
const boxes = computed(() =>
  Object.entries(job.design.boxes).map(([id, { tag }]) => ({ value: id, text: tag })),
);
const path = (field: string) => (row: Row) => `strings.${row.id}.${field}`;
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'String',
    kind: 'text',
    label: 'Name',
    required: true,
    path: path('tag'),
    width: '5rem',
  },
  {
    id: 'disconnectAt',
    title: 'disconnect at',
    kind: 'choice',
    label: 'Service disconnect',
    path: path('disconnectAt'),
    choices: (row) => joints(row),
    width: '7rem',
  },
  {
    id: 'disconnect',
    title: 'disconnect',
    kind: 'part',
    part: 'disconnect',
    label: 'Make of the disconnect',
    path: path('disconnect'),
    width: '6rem',
  },
  { id: 'fuse', title: 'fuse', kind: 'part', part: 'fuse', label: 'Fuse', path: path('fuse'), width: '6rem' },
  {
    id: 'fuseAt',
    title: 'fuse at',
    kind: 'choice',
    label: 'Place of the fuse',
    path: path('fuseAt'),
    choices: (row) => [{ value: 0, text: 'positive end' }, ...joints(row)],
    none: () => 'positive end, default',
    width: '8rem',
  },
  {
    id: 'contactor',
    title: 'contactors',
    kind: 'part',
    part: 'contactor',
    label: 'Contactors',
    path: path('contactor'),
    width: '6rem',
  },
  {
    id: 'poles',
    title: 'switched',
    kind: 'choice',
    label: 'Poles',
    path: path('contactorPoles'),
    choices: () => polesChoices,
    none: ({ id }) => (job.design.strings[id]?.contactor ? 'both, default' : '–'),
    spoken: ({ name }) => `Poles that ${name} opens`,
    width: '6rem',
  },
  {
    id: 'contactorsIn',
    title: 'contactors sit',
    kind: 'choice',
    label: 'Place of the contactors',
    path: path('contactorsIn'),
    choices: () => places,
    none: () => 'positive end, default',
    width: '8.5rem',
  },
  {
    id: 'ends',
    title: 'wall entry',
    kind: 'choice',
    label: 'Cable ends',
    path: path('ends'),
    choices: () => endsChoices,
    none: () => 'not given',
    width: '8rem',
  },
];
/** Joints by the modules they lie between. */
const joints = ({ id, modules }: Row) =>
  Array.from({ length: Math.max(modules - 1, 0) }, (_, i) => {
    const list = job.design.strings[id]!.modules;
    const short = (at: number) => (job.design.modules[list[at]!]?.tag ?? '').replace(/^.*-/, '');
    return { value: i + 1, text: `${short(i)}–${short(i + 1)}` };
  });
const places = [
  { value: 'string', text: 'at its positive end' },
  { value: 'combiner', text: 'where strings meet' },
];
</script>

<template>
  <div data-path="strings">
    <EditGrid v-if="rows.length > 0" label="Strings" :rows="rows" :columns="columns" />
    <p v-else class="soft">No string yet: the pack’s modules are chosen in Pack.</p>
    <div class="boxes">
      <label
        >Strings meet in
        <ChoiceCell
          path="pack.combinerBox"
          label="Strings meet in"
          :options="boxes"
          none="the mains’ box (default)"
        />
      </label>
      <label
        >Mains and bus sit in
        <ChoiceCell
          path="pack.mainsBox"
          label="Mains and bus sit in"
          :options="boxes"
          none="box of the positive end (default)"
        />
      </label>
    </div>
  </div>
</template>

<style scoped>
.boxes {
  display: flex;
  gap: 1.2rem;
  margin-top: 0.6rem;
  flex-wrap: wrap;
}

.boxes label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.9rem;
}

.boxes select {
  width: 15rem;
}
</style>
