<script setup lang="ts">
import { deviceKinds, mainCircuit, removeCircuit, type DeviceKind } from '@torvek/core/document';
import { feedingCircuit, mainDevice } from '@torvek/core/network';
import { unpinUnused } from '@torvek/core/pack';
import { computed } from 'vue';
import { newId } from '../../api/client';
import { deviceNames } from '../../parts/device-names';
import RemoveButton from '../../parts/RemoveButton.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { endsChoices, polesChoices } from './choices';
import { useJob } from '../../stores/job';

/** Every circuit: what it feeds, where it taps, and its parts. */
const emit = defineEmits<{ pick: [symbol: string] }>();
const job = useJob();
interface Row {
  id: string;
  name: string;
  main: boolean;
}
const rows = computed(() =>
  Object.entries(job.design.circuits).map(([id, { tag, role }]): Row => ({
    id,
    name: tag,
    main: role === 'main',
  })),
);
const path = (field: string) => (row: Row) => `circuits.${row.id}.${field}`;
const part = (
  field: 'fuse' | 'contactor' | 'resistor' | 'cable',
  title: string,
  label: string,
  width: string,
) => ({ id: field, title, kind: 'part', part: field, label, path: path(field), width }) as const;
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'Circuit',
    kind: 'text',
    label: 'Name',
    required: true,
    path: path('tag'),
    width: '6.2rem',
  },
  {
    id: 'device',
    title: 'feeds',
    kind: 'choice',
    label: 'Device',
    path: path('device'),
    choices: (row) => devicesFor(row),
    none: ({ main }) => (main ? 'first inverter' : 'nothing'),
    spoken: ({ name }) => `${name} feeds`,
    width: '6.4rem',
  },
  {
    id: 'tap',
    title: 'joins the bus',
    kind: 'choice',
    label: 'Tap',
    path: ({ id, main }) => (main ? null : `circuits.${id}.tap`),
    choices: () => taps,
    none: () => 'after, default',
    spoken: ({ name }) => `${name} joins the bus`,
    width: '6.6rem',
  },
  part('fuse', 'fuse', 'Fuse', '5.4rem'),
  part('contactor', 'contactors', 'Contactors', '5.6rem'),
  {
    id: 'poles',
    title: 'switched',
    kind: 'choice',
    label: 'Poles',
    path: path('poles'),
    choices: () => polesChoices,
    none: ({ id, main }) => (main || job.design.circuits[id]?.contactor ? 'both, default' : '–'),
    spoken: ({ name }) => `Poles that ${name} opens`,
    width: '5rem',
  },
  part('resistor', 'pre-charge', 'Pre-charge resistor', '5.4rem'),
  part('cable', 'cable', 'Cable', '5.2rem'),
  {
    id: 'lengthM',
    title: 'long',
    kind: 'number',
    unit: 'm',
    label: 'Length',
    path: path('lengthM'),
    width: '3.6rem',
  },
  {
    id: 'ends',
    title: 'wall entry',
    kind: 'choice',
    label: 'Cable ends',
    path: path('ends'),
    choices: () => endsChoices,
    none: () => 'not given',
    width: '6rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];

const devicesFor = (row: Row) => {
  const own = job.design.circuits[row.id]?.device;
  return Object.entries(job.design.devices)
    .filter(
      ([id]) =>
        id === own || feedingCircuit(job.design, id) === null || (row.main && mainDevice(job.design) === id),
    )
    .map(([id, { tag }]) => ({ value: id, text: tag }));
};
const unfed = computed(() =>
  Object.entries(job.design.devices).filter(([id]) => feedingCircuit(job.design, id) === null),
);
const taps = [
  { value: 'after', text: 'after mains' },
  { value: 'before', text: 'before mains' },
];

/** A branch for a device that is there, or for a new one of this kind. */
function add(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const [what = '', value = ''] = select.value.split('|');
  select.value = '';
  if (what === '') return;
  const kind = what === 'new' ? (value as DeviceKind) : job.design.devices[value]!.kind;
  const tag = what === 'new' ? newTag(kind) : job.design.devices[value]!.tag;
  const circuit = newId('circuit');
  job.change(`Branch for ${tag}`, (draft) => {
    const device = what === 'new' ? newId('device') : value;
    if (what === 'new') draft.devices[device] = { tag, kind };
    const { contactor, resistor } = draft.circuits[mainCircuit] ?? {};
    draft.circuits[circuit] = { tag, role: 'branch', device };
    // A further inverter has capacitors of its own: it fills through its own pre-charge.
    if (kind === 'inverter' || kind === 'dc-inlet') {
      if (contactor !== undefined) draft.circuits[circuit].contactor = contactor;
      draft.circuits[circuit].poles = 'both';
    }
    if (kind === 'inverter' && resistor !== undefined) draft.circuits[circuit].resistor = resistor;
  });
  emit('pick', `${circuit}/cable`);
}

function newTag(kind: DeviceKind): string {
  const taken = new Set(Object.values(job.design.devices).map(({ tag }) => tag));
  const name = deviceNames[kind];
  if (!taken.has(name)) return name;
  let number = 2;
  while (taken.has(`${name} ${number}`)) number += 1;
  return `${name} ${number}`;
}

function remove({ id, name }: Row): void {
  job.change(`Branch removed: ${name}`, (draft) => {
    removeCircuit(draft, id);
    unpinUnused(draft);
  });
}
</script>

<template>
  <div data-path="circuits">
    <EditGrid label="Circuits" :rows="rows" :columns="columns">
      <template #remove="{ row }">
        <RemoveButton v-if="!row.main" :name="row.name" @remove="remove(row)" />
      </template>
    </EditGrid>
    <select class="form-select add" aria-label="Add a branch" :disabled="!job.editable" @change="add">
      <option value="">Add a branch …</option>
      <optgroup v-if="unfed.length > 0" label="for a device that hangs on no circuit">
        <option v-for="[id, device] in unfed" :key="id" :value="`old|${id}`">{{ device.tag }}</option>
      </optgroup>
      <optgroup label="with a new device">
        <option v-for="kind in deviceKinds" :key="kind" :value="`new|${kind}`">
          {{ deviceNames[kind] }}
        </option>
      </optgroup>
    </select>
  </div>
</template>

<style scoped>
.add {
  width: 12rem;
  margin-top: 0.5rem;
  height: 1.9rem;
  padding-top: 0.15rem;
  padding-bottom: 0.15rem;
}
</style>
