<script setup lang="ts">
import type { Stretch } from '@torvek/core/document';
import type { CableInput, CableResult } from '@torvek/core/conductor';
import { cable } from '@torvek/core/conductor';
import { formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import RemoveButton from '../../parts/RemoveButton.vue';
import { useJob } from '../../stores/job';
import { useCircuit } from './use-circuit';

/** The cable’s way in parts, each with its own place: the hottest governs, drops add up. */
const job = useJob();
const { circuitId, circuit, at } = useCircuit();
interface Row {
  id: string;
  name: string;
  i: number;
}
const stretches = computed(() => circuit.value?.stretches ?? []);
const rows = computed(() =>
  stretches.value.map(({ tag }, i): Row => ({ id: `${circuitId.value}-${i}`, name: tag, i })),
);
const results = computed<CableResult[]>(() => {
  const run = job.evaluation.runs[`conductor.cable:${circuitId.value}`] as
    { input: CableInput[] } | undefined;
  return run?.input.length === stretches.value.length
    ? run.input.map((input) => cable.calculate(input).result)
    : [];
});
const place = (field: keyof Stretch) => (row: Row) => `${at.value}.stretches.${row.i}.${field}`;
const number = (field: keyof Stretch, title: string, unit?: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label: title,
  path: place(field),
  ...(unit !== undefined && { unit }),
  width: '5.4rem',
});
const steel = (row: Row) => (stretches.value[row.i]?.install ?? circuit.value?.install) === 'steel-conduit';
const inSteel = (field: 'conduitInnerMm' | 'conduitOuterMm', title: string): GridColumn<Row> => ({
  ...number(field, title, 'mm'),
  path: (row) => (steel(row) ? place(field)(row) : null),
});
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'part of the way',
    kind: 'text',
    required: true,
    label: 'Name',
    path: place('tag'),
    width: '9rem',
  },
  number('lengthM', 'long', 'm'),
  number('ambientC', 'ambient', '°C'),
  {
    id: 'install',
    title: 'installation',
    kind: 'choice',
    label: 'Installation',
    path: place('install'),
    choices: () => [
      { value: 'free-air', text: 'free air' },
      { value: 'steel-conduit', text: 'steel conduit' },
    ],
    none: () => 'as the cable',
    width: '8rem',
  },
  inSteel('conduitInnerMm', 'inside'),
  inSteel('conduitOuterMm', 'outside'),
  number('grouped', 'touch'),
  {
    id: 'ampacity',
    title: 'carries',
    kind: 'fixed',
    label: 'Ampacity',
    text: ({ i }) => (results.value[i] === undefined ? '—' : formatQuantity(results.value[i].ampacityA, 'A')),
    width: '5rem',
  },
  {
    id: 'temperature',
    title: 'reaches',
    kind: 'fixed',
    label: 'Conductor',
    text: ({ i }) => {
      const temperatureC = results.value[i]?.conductorTemperatureC;
      return temperatureC === undefined
        ? '—'
        : temperatureC === null
          ? '> 400 °C'
          : formatQuantity(temperatureC, '°C');
    },
    width: '5rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];

function add(): void {
  job.change('Part of the way added', (draft) => {
    const own = draft.circuits[circuitId.value];
    if (own === undefined) return;
    // The first part takes over what stood for the whole cable.
    own.stretches ??= [];
    own.stretches.push({
      tag: `Part ${own.stretches.length + 1}`,
      ...(own.stretches.length === 0 && own.lengthM !== undefined && { lengthM: own.lengthM }),
    });
  });
}
function remove(i: number): void {
  job.change(`Part of the way removed: ${stretches.value[i]?.tag ?? ''}`, (draft) => {
    const own = draft.circuits[circuitId.value];
    own?.stretches?.splice(i, 1);
    if (own?.stretches?.length === 0) delete own.stretches;
  });
}
</script>

<template>
  <div class="stretches" data-stretches>
    <EditGrid v-if="rows.length > 0" label="Parts of the way" :rows="rows" :columns="columns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row.i)" /></template>
    </EditGrid>
    <div class="line">
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">{{
        rows.length === 0 ? 'Give the way in parts' : 'Another part'
      }}</BButton>
      <span class="soft">{{
        rows.length === 0
          ? 'where parts of it lie hotter, in a conduit or among others'
          : 'the part that carries least governs; drops and losses add up'
      }}</span>
    </div>
  </div>
</template>

<style scoped>
.stretches {
  margin-top: 0.8rem;
}

.line {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.4rem;
  font-size: 0.88rem;
}
</style>
