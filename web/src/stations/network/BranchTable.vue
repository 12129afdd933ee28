<script setup lang="ts">
import { deviceKinds, mainCircuit, type DeviceKind } from '@torvek/core/document';
import { feedingCircuit, mainDevice } from '@torvek/core/network';
import { unpinUnused } from '@torvek/core/pack';
import { computed } from 'vue';
import { newId } from '../../api/client';
import ChoiceCell from '../../parts/ChoiceCell.vue';
import { deviceNames } from '../../parts/device-names';
import PartCell from '../../parts/PartCell.vue';
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
const slot = (id: string, title: string, label: string, width: string): GridColumn<Row> => ({
  id,
  title,
  kind: 'slot',
  label,
  width,
});
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'Circuit',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id }) => `circuits.${id}.tag`,
    width: '6.2rem',
  },
  slot('device', 'feeds', 'Device', '6.6rem'),
  slot('tap', 'taps the mains', 'Tap', '5.6rem'),
  slot('fuse', 'fuse', 'Fuse', '5.4rem'),
  slot('contactor', 'contactors', 'Contactors', '5.6rem'),
  slot('poles', 'open', 'Poles', '5rem'),
  slot('resistor', 'pre-charge', 'Pre-charge resistor', '5.4rem'),
  slot('cable', 'cable', 'Cable', '5rem'),
  {
    id: 'lengthM',
    title: 'long',
    kind: 'number',
    unit: 'm',
    label: 'Length',
    path: ({ id }) => `circuits.${id}.lengthM`,
    width: '3.6rem',
  },
  slot('ends', 'at walls', 'Cable ends', '6.4rem'),
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
  { value: 'after', text: 'after' },
  { value: 'before', text: 'before' },
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
    delete draft.circuits[id];
    unpinUnused(draft);
  });
}
</script>

<template>
  <div data-path="circuits">
    <EditGrid label="Circuits" :rows="rows" :columns="columns">
      <template #device="{ row }">
        <ChoiceCell
          :path="`circuits.${row.id}.device`"
          :label="`${row.name} feeds`"
          :options="devicesFor(row)"
          :none="row.main ? 'first inverter' : 'nothing'"
        />
      </template>
      <template #tap="{ row }">
        <span v-if="row.main" class="soft">–</span>
        <ChoiceCell
          v-else
          :path="`circuits.${row.id}.tap`"
          :label="`${row.name} taps`"
          :options="taps"
          none="after, default"
        />
      </template>
      <template #fuse="{ row }">
        <PartCell :path="`circuits.${row.id}.fuse`" kind="fuse" :label="`Fuse of ${row.name}`" none="none" />
      </template>
      <template #contactor="{ row }">
        <PartCell
          :path="`circuits.${row.id}.contactor`"
          kind="contactor"
          :label="`Contactors of ${row.name}`"
          none="none"
        />
      </template>
      <template #poles="{ row }">
        <ChoiceCell
          :path="`circuits.${row.id}.poles`"
          :label="`Poles that ${row.name} opens`"
          :options="polesChoices"
          :none="row.main || job.design.circuits[row.id]?.contactor ? 'both, default' : '–'"
        />
      </template>
      <template #resistor="{ row }">
        <PartCell
          :path="`circuits.${row.id}.resistor`"
          kind="resistor"
          :label="`Pre-charge resistor of ${row.name}`"
          none="none"
        />
      </template>
      <template #cable="{ row }">
        <PartCell
          :path="`circuits.${row.id}.cable`"
          kind="cable"
          :label="`Cable of ${row.name}`"
          none="none"
        />
      </template>
      <template #ends="{ row }">
        <ChoiceCell
          :path="`circuits.${row.id}.ends`"
          :label="`Cable ends of ${row.name}`"
          :options="endsChoices"
          none="not given"
        />
      </template>
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
:deep(td),
:deep([role='gridcell']) {
  padding-inline: 3px;
}

.add {
  width: 12rem;
  margin-top: 0.5rem;
  height: 1.9rem;
  padding-top: 0.15rem;
  padding-bottom: 0.15rem;
}
</style>
