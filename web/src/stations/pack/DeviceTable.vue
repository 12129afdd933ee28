<script setup lang="ts">
import { deviceKinds, removeDevice } from '@torvek/core/document';
import { unpinUnused } from '@torvek/core/pack';
import { computed } from 'vue';
import { newId } from '../../api/client';
import { deviceNames as names } from '../../parts/device-names';
import GradeMark from '../../parts/GradeMark.vue';
import RemoveButton from '../../parts/RemoveButton.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';

/** Devices on the bus: voltage windows, capacitance, bleed, and what they draw during pre-charge. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const devices = computed(() =>
  Object.entries(job.design.devices).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const number = (field: string, title: string, label: string, unit: string, scale = 1): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  scale,
  label,
  path: ({ id }) => `devices.${id}.${field}`,
});
const columns: GridColumn<Row>[] = [
  { id: 'mark', title: '', kind: 'slot', label: 'Finding', width: '1.6rem' },
  {
    id: 'tag',
    title: 'Device on the bus',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id }) => `devices.${id}.tag`,
    width: '9.4rem',
  },
  number('minV', 'from', 'Lowest voltage', 'V'),
  number('maxV', 'to', 'Highest voltage', 'V'),
  number('busCapacitanceF', 'capacitance', 'Bus capacitance', 'µF', 1e-6),
  number('bleedOhm', 'bleed', 'Bleed resistor', 'Ω'),
  number('activeOhm', 'active', 'Active discharge at shut-down', 'Ω'),
  number('prechargeLoadOhm', 'in pre-charge', 'Load during pre-charge', 'Ω'),
  number('ratedPowerW', 'heater', 'Rated power of a plain heater', 'kW', 1000),
  number('ratedVoltageV', 'rated at', 'Voltage of that rating', 'V'),
  {
    id: 'monitor',
    title: 'insulation',
    kind: 'choice',
    label: 'Insulation monitor',
    path: ({ id }) => `devices.${id}.insulationMonitor`,
    choices: () => monitors,
    width: '6.2rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.4rem' },
];
const monitors = [
  { value: 'active', text: 'active' },
  { value: 'passive', text: 'passive' },
];
const worst = (id: string) => {
  const found = job.assessment.findings.filter(
    ({ check, accepted }) => accepted === null && check.subjects.includes(id),
  );
  return found[0]?.check.grade;
};
function add(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const kind = deviceKinds.find((one) => one === select.value);
  select.value = '';
  if (kind === undefined) return;
  job.change(`New device: ${names[kind]}`, (draft) => {
    draft.devices[newId('device')] = { tag: names[kind], kind };
  });
}

function remove(id: string, tag: string): void {
  job.change(`Device removed: ${tag}`, (draft) => {
    removeDevice(draft, id);
    unpinUnused(draft);
  });
}
</script>

<template>
  <div data-path="devices">
    <EditGrid v-if="devices.length > 0" label="Devices on the bus" :rows="devices" :columns="columns">
      <template #mark="{ row }"><GradeMark v-if="worst(row.id)" :grade="worst(row.id)!" /></template>
      <template #remove="{ row }">
        <RemoveButton :name="row.name" @remove="remove(row.id, row.name)" />
      </template>
    </EditGrid>
    <p v-else class="soft">
      No device yet. Each one brings its voltage window, and capacitance that has to be pre-charged.
    </p>
    <select class="form-select add" aria-label="Add a device" @change="add">
      <option value="">Add a device …</option>
      <option v-for="kind in deviceKinds" :key="kind" :value="kind">{{ names[kind] }}</option>
    </select>
  </div>
</template>

<style scoped>
/* Eleven columns: their names may take two lines. */
:deep(.grid-table th) {
  white-space: normal;
  vertical-align: bottom;
}

.add {
  width: 12rem;
  margin-top: 0.5rem;
  height: 1.9rem;
  padding-top: 0.15rem;
  padding-bottom: 0.15rem;
}
</style>
