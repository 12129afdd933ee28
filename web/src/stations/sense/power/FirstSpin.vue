<script setup lang="ts">
import { currentSigns, type Id } from '@torvek/core/document';
import { spunDevices, type SpinAnswer } from '@torvek/core/monitoring';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import NumberField from '../../../parts/NumberField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** With how few modules each device wakes, what goes with it; and what tells the current. */
const job = useJob();
const n = (value: number | null) => (value === null ? 'not given' : formatNumber(value, 3));
const spins = computed(() =>
  spunDevices(job.design).map((id) => ({
    id,
    tag: job.design.devices[id]!.tag,
    answer: (job.evaluation.runs[`monitoring.spin:${id}`]?.result as SpinAnswer | undefined) ?? null,
  })),
);
const modulesOf = (answer: SpinAnswer) => {
  const ids = job.design.strings[answer.string]?.modules.slice(0, answer.modules ?? 0) ?? [];
  const tags = ids.map((id) => job.design.modules[id]?.tag ?? id);
  return tags.length <= 2 ? tags.join(', ') : `${tags[0]} to ${tags.at(-1)}`;
};
interface Row {
  id: Id;
  name: string;
}
const sensors = computed(() =>
  Object.entries(job.design.currentSensors ?? {}).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const at = (row: Row, field: string) => `currentSensors.${row.id}.${field}`;
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'current sensor',
    kind: 'text',
    label: 'Name',
    path: (row) => at(row, 'tag'),
    required: true,
    width: '11rem',
  },
  {
    id: 'string',
    title: 'sees',
    kind: 'choice',
    label: 'Sees',
    path: (row) => at(row, 'string'),
    choices: () =>
      Object.entries(job.design.strings).map(([value, { tag }]) => ({ value, text: `string ${tag}` })),
    none: () => 'the whole pack',
    width: '10rem',
  },
  {
    id: 'rangeA',
    title: 'reads up to',
    kind: 'number',
    unit: 'A',
    label: 'Reads up to',
    path: (row) => at(row, 'rangeA'),
    width: '8rem',
  },
  {
    id: 'sign',
    title: 'reads',
    kind: 'choice',
    label: 'Reads',
    path: (row) => at(row, 'sign'),
    choices: () => currentSigns.map((value) => ({ value, text: value })),
    none: () => 'not said',
    width: '11rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
function add(): void {
  job.change('Current sensor added', (draft) => {
    const all = (draft.currentSensors ??= {});
    all[newId('current')] = { tag: `Current ${Object.keys(all).length + 1}` };
  });
}
const remove = (row: Row) =>
  job.change(`${row.name} removed`, (draft) => void delete draft.currentSensors?.[row.id]);
</script>

<template>
  <section class="sheet-card" aria-labelledby="spin-title" data-spin>
    <div class="card-head">
      <h2 id="spin-title">First spin on a part of the pack</h2>
      <span class="hint">the fewest modules that wake each device</span>
    </div>
    <div class="fields">
      <NumberField path="sensing.spinCellV" />
      <NumberField path="sensing.spinA" />
    </div>
    <p v-if="spins.length === 0" class="soft">
      Say what the cells stand at, or what may flow at the most: modules, limits and fuse follow.
    </p>
    <table v-else class="grid-table">
      <thead>
        <tr>
          <th scope="col">device</th>
          <th scope="col">modules</th>
          <th scope="col" class="num">V then</th>
          <th scope="col" class="num">V full</th>
          <th scope="col" class="num">cells</th>
          <th scope="col" class="num">monitor cuts, V</th>
          <th scope="col" class="num">short, A</th>
          <th scope="col">fuse</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ id, tag, answer } in spins" :key="id">
          <th scope="row">{{ tag }}</th>
          <td v-if="answer === null" colspan="7" class="soft">
            not computed: it is not said from how many volts it works
          </td>
          <td v-else-if="answer.modules === null" colspan="7">all modules of a string do not wake it</td>
          <template v-else>
            <td>{{ answer.modules }}: {{ modulesOf(answer) }}</td>
            <td class="num">{{ n(answer.voltageV) }}</td>
            <td class="num">{{ n(answer.highestV) }}</td>
            <td class="num">{{ answer.cells }}</td>
            <td class="num">
              {{ answer.cutLowV === null ? 'not given' : `${n(answer.cutLowV)} to ${n(answer.cutHighV)}` }}
            </td>
            <td class="num">{{ n(answer.shortA) }}</td>
            <td>
              {{
                answer.fuse?.label ?? (answer.currentA === null ? 'current not given' : 'none in the library')
              }}
            </td>
          </template>
        </tr>
      </tbody>
    </table>
    <p v-if="spins.some(({ answer }) => answer?.usualCellV === true)" class="soft">
      Cells taken at half charge,
      {{ n(spins.find(({ answer }) => answer !== null)?.answer?.cellV ?? null) }} V each, by the module’s
      data. Driven wheels off the ground; the rest of the pack apart and covered.
    </p>
    <div class="card-head second">
      <h2>Current sensors</h2>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">Another sensor</BButton>
    </div>
    <p v-if="sensors.length === 0" class="soft">
      None yet: what is counted as charge, and every current limit, rests on one.
    </p>
    <EditGrid v-else label="Current sensors" :columns="columns" :rows="sensors">
      <template #remove="{ row }">
        <RemoveButton :name="row.name" @remove="remove(row)" />
      </template>
    </EditGrid>
  </section>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
}

.fields :deep(.number-field) {
  width: 21rem;
}

.second {
  margin-top: 0.9rem;
}
</style>
