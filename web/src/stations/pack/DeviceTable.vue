<script setup lang="ts">
import { deviceKinds, type DeviceKind } from '@torvek/core/document';
import { computed } from 'vue';
import { newId } from '../../api/client';
import GradeMark from '../../parts/GradeMark.vue';
import Icon from '../../parts/Icon.vue';
import NumberField from '../../parts/NumberField.vue';
import TextField from '../../parts/TextField.vue';
import { onGridKeys } from '../../parts/grid-keys';
import { useJob } from '../../stores/job';

/** Devices on the bus: voltage windows, capacitance, bleed, and what they draw during pre-charge. */
const job = useJob();
const devices = computed(() => Object.entries(job.design.devices));
const worst = (id: string) => {
  const found = job.assessment.findings.filter(
    ({ check, accepted }) => accepted === null && check.subjects.includes(id),
  );
  return found[0]?.check.grade;
};
const names: Record<DeviceKind, string> = {
  inverter: 'Inverter',
  charger: 'Charger',
  'dc-dc': 'DC-DC',
  heater: 'Heater',
  compressor: 'Compressor',
  'dc-inlet': 'DC inlet',
  other: 'Device',
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
    delete draft.devices[id];
  });
}
</script>

<template>
  <div data-path="devices">
    <table v-if="devices.length > 0" class="grid-table" @keydown="onGridKeys">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Finding</span></th>
          <th scope="col">Device on the bus</th>
          <th scope="col" class="num">from, V</th>
          <th scope="col" class="num">to, V</th>
          <th scope="col" class="num">capacitance, µF</th>
          <th scope="col" class="num">bleed, Ω</th>
          <th scope="col" class="num">draws in pre-charge, Ω</th>
          <th scope="col"><span class="visually-hidden">Remove</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[id, device] in devices" :key="id">
          <td class="mark-cell"><GradeMark v-if="worst(id)" :grade="worst(id)!" /></td>
          <td class="name">
            <TextField :path="`devices.${id}.tag`" :label="`Name of ${device.tag}`" bare required />
          </td>
          <td class="num">
            <NumberField
              :path="`devices.${id}.minV`"
              :label="`Lowest voltage of ${device.tag}`"
              unit="V"
              bare
            />
          </td>
          <td class="num">
            <NumberField
              :path="`devices.${id}.maxV`"
              :label="`Highest voltage of ${device.tag}`"
              unit="V"
              bare
            />
          </td>
          <td class="num">
            <NumberField
              :path="`devices.${id}.busCapacitanceF`"
              :label="`Bus capacitance of ${device.tag}`"
              unit="µF"
              :scale="1e-6"
              bare
            />
          </td>
          <td class="num">
            <NumberField
              :path="`devices.${id}.bleedOhm`"
              :label="`Bleed resistor of ${device.tag}`"
              unit="Ω"
              bare
            />
          </td>
          <td class="num">
            <NumberField
              :path="`devices.${id}.prechargeLoadOhm`"
              :label="`Load of ${device.tag} during pre-charge`"
              unit="Ω"
              bare
            />
          </td>
          <td>
            <button
              type="button"
              class="btn btn-quiet btn-sm"
              :aria-label="`Remove ${device.tag}`"
              @click="remove(id, device.tag)"
            >
              <Icon name="trash" :size="13" />
            </button>
          </td>
        </tr>
      </tbody>
    </table>
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
.mark-cell {
  width: 1.4rem;
}

.name {
  min-width: 11rem;
}

td.num {
  width: 6.2rem;
}

.add {
  width: 12rem;
  margin-top: 0.5rem;
  height: 1.9rem;
  padding-top: 0.15rem;
  padding-bottom: 0.15rem;
}
</style>
