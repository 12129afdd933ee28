<script setup lang="ts">
import { stationOfPath } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { massBlocks } from '@torvek/core/vehicle';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { newId } from '../../api/client';
import GapLink from '../../parts/GapLink.vue';
import Icon from '../../parts/Icon.vue';
import RemoveButton from '../../parts/RemoveButton.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';

/** Masses out and in, edited in place; battery boxes, cables and coolant loops follow from their stations. */
const props = defineProps<{ picked: string | null; numbers: Map<string, number> }>();
const emit = defineEmits<{ pick: [id: string] }>();
const job = useJob();
type Block = ReturnType<typeof massBlocks>['blocks'][number];
/** A mass of its own, or one that follows: a battery box with its modules, cables of a run, a coolant loop. */
interface Row {
  id: string;
  name: string;
  box: Block | null;
}
/** Where each that follows is made. */
const follows: Partial<Record<Block['kind'], { word: string; path: (id: string) => string }>> = {
  box: { word: 'box', path: (id) => `boxes.${id}` },
  loose: { word: 'no box', path: (id) => `modules.${id}.box` },
  run: { word: 'run', path: (id) => `runs.${id}.points` },
  loop: { word: 'loop', path: (id) => `loops.${id}` },
};
const wayOf = ({ kind, id }: Block) => {
  const { word, path } = follows[kind]!;
  const at = path(id);
  return { word, to: { name: stationOfPath(at), params: { job: job.id }, query: { at } } };
};
const list = computed(() => massBlocks(job.design));
const rows = computed((): Row[] => [
  ...Object.entries(job.design.masses).map(([id, { tag }]) => ({ id, name: tag, box: null })),
  ...list.value.blocks
    .filter(({ kind }) => kind in follows)
    .map((box) => ({ id: box.id, name: box.name, box })),
]);

const number = (
  field: 'massKg' | 'xM' | 'zM' | 'lengthM' | 'heightM',
  title: string,
  label: string,
  unit: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  label,
  path: ({ id, box }) => (box === null ? `masses.${id}.${field}` : null),
  text: ({ box }) => (box?.[field] === undefined ? '' : formatNumber(box[field], 4)),
});
const columns: GridColumn<Row>[] = [
  {
    id: 'no',
    title: 'no.',
    kind: 'fixed',
    label: 'Number',
    text: ({ id }) => String(props.numbers.get(id) ?? '·'),
  },
  {
    id: 'tag',
    title: 'Mass',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id, box }) => (box === null ? `masses.${id}.tag` : null),
    text: ({ name }) => name,
  },
  { id: 'way', title: 'way', kind: 'slot', label: 'Way' },
  number('massKg', 'mass', 'Mass', 'kg'),
  number('xM', 'x', 'x', 'm'),
  number('zM', 'z', 'z', 'm'),
  number('lengthM', 'long', 'Length', 'm'),
  number('heightM', 'high', 'Height', 'm'),
  { id: 'remove', title: '', kind: 'slot', label: 'Remove' },
];

/** A list of masses that is pasted makes its rows; they go out or in as the last row of those that are there. */
const grow = computed(() => ({
  own: Object.keys(job.design.masses).length,
  row: (): Row => ({ id: newId('mass'), name: 'mass', box: null }),
  make: (draft: object, added: readonly Row[]) => {
    const { masses } = draft as typeof job.design;
    const change = Object.values(masses).at(-1)?.change ?? 'out';
    for (const { id } of added)
      masses[id] = { tag: change === 'out' ? 'Part taken out' : 'Part put in', change };
  },
}));

function add(change: 'out' | 'in'): void {
  const id = newId('mass');
  const tag = change === 'out' ? 'Part taken out' : 'Part put in';
  job.change(`New mass: ${tag}`, (draft) => {
    draft.masses[id] = { tag, change };
  });
  emit('pick', id);
}

function remove(id: string, tag: string): void {
  job.change(`Mass removed: ${tag}`, (draft) => {
    delete draft.masses[id];
  });
}

function turn(id: string): void {
  const item = job.design.masses[id]!;
  const change = item.change === 'out' ? 'in' : 'out';
  job.set(`masses.${id}.change`, change, `${item.tag}: ${change}`);
}
</script>

<template>
  <div data-path="masses">
    <EditGrid
      label="Masses"
      :rows="rows"
      :columns="columns"
      :picked="picked"
      :grow="grow"
      @pick="emit('pick', $event)"
    >
      <template #way="{ row }">
        <RouterLink
          v-if="row.box"
          tabindex="-1"
          :to="wayOf(row.box).to"
          :aria-label="`${row.name}: ${wayOf(row.box).word}`"
          >{{ wayOf(row.box).word }}</RouterLink
        >
        <button
          v-else
          type="button"
          tabindex="-1"
          class="btn btn-quiet btn-sm way"
          :aria-label="`${row.name} goes ${job.design.masses[row.id]?.change}; change`"
          @click="turn(row.id)"
        >
          {{ job.design.masses[row.id]?.change }}
        </button>
      </template>
      <template #remove="{ row }">
        <RemoveButton v-if="!row.box" :name="row.name" @remove="remove(row.id, row.name)" />
      </template>
    </EditGrid>
    <div class="add">
      <button type="button" class="btn btn-quiet btn-sm" @click="add('out')">
        <Icon name="plus" :size="12" /> taken out
      </button>
      <button type="button" class="btn btn-quiet btn-sm" @click="add('in')">
        <Icon name="plus" :size="12" /> put in
      </button>
      <span class="soft">x counts from the front axle, forward positive; z from the ground.</span>
    </div>
    <p v-if="list.uncounted.length > 0" class="soft uncounted" role="status">
      Not in the mass yet:
      <template v-for="(gap, i) in list.uncounted" :key="i"
        ><template v-if="i > 0">, </template><GapLink :gap="gap" short
      /></template>
    </p>
  </div>
</template>

<style scoped>
.way {
  width: 2.6rem;
  padding: 0.05rem 0;
}

.uncounted {
  margin: 0.4rem 0 0;
  font-size: 0.85rem;
}

.add {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
  font-size: 0.85rem;
}
</style>
