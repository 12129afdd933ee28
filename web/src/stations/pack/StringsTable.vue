<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { shapeString, takeModuleOut } from '@torvek/core/pack';
import { partKey } from '@torvek/core/parts';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import FigureValue from '../../parts/FigureValue.vue';
import { useJob } from '../../stores/job';
import { countOf } from './count';
import { useModuleKinds } from './module-kinds';

/** Each string by itself: how many modules, of which kind, and what they are in series. Strings may differ while one is worked on. */
const job = useJob();
const kinds = useModuleKinds();
interface Row {
  id: string;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.strings).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const figures: [name: FigureName<'pack.string'>, title: string, digits: number][] = [
  ['cells', 'cells in series', 4],
  ['voltageMinV', 'lowest', 4],
  ['voltageNominalV', 'nominal', 4],
  ['voltageMaxV', 'highest', 4],
  ['capacityAh', 'capacity', 4],
  ['energyKWh', 'energy', 3],
  ['massKg', 'mass', 4],
];
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'String',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id }) => `strings.${id}.tag`,
    width: '4rem',
  },
  { id: 'modules', title: 'modules', kind: 'slot', label: 'Modules', width: '4.2rem' },
  { id: 'part', title: 'kind', kind: 'slot', label: 'Kind of module', width: '9rem' },
  ...figures.map(([id, title]): GridColumn<Row> => ({
    id,
    title,
    kind: 'slot',
    label: title,
    width: '4.8rem',
  })),
  { id: 'out', title: 'take out', kind: 'slot', label: 'Take out', width: '6rem' },
];
const modulesOf = ({ id }: Row) => job.design.strings[id]?.modules ?? [];
const kindOf = (row: Row) => {
  const keys = new Set(modulesOf(row).map((id) => job.design.modules[id]?.part));
  return keys.size === 1 ? [...keys][0]! : '';
};
const refused = ref<Record<string, true>>({});

function setCount(row: Row, event: Event): void {
  const field = event.target as HTMLInputElement;
  const count = countOf(field.value, 400);
  const { [row.id]: _, ...others } = refused.value;
  refused.value = count === null ? { ...others, [row.id]: true } : others;
  if (count === null || count === modulesOf(row).length) return;
  job.change(`${row.name}: ${count} modules`, (draft) =>
    shapeString(draft, row.id, { modules: count }, newId),
  );
}
function setKind(row: Row, event: Event): void {
  const part = kinds.value.find((one) => partKey(one) === (event.target as HTMLSelectElement).value);
  if (part === undefined) return;
  job.change(`${row.name}: ${part.label}`, (draft) => shapeString(draft, row.id, { part }, newId));
}
function takeOut(row: Row, event: Event): void {
  const field = event.target as HTMLSelectElement;
  const id = field.value;
  field.value = '';
  const { tag } = job.design.modules[id] ?? {};
  if (tag !== undefined) job.change(`${tag} taken out of ${row.name}`, (draft) => takeModuleOut(draft, id));
}
</script>

<template>
  <div data-strings-table>
    <EditGrid label="Strings" :rows="rows" :columns="columns">
      <template #modules="{ row }">
        <input
          class="form-control cell"
          inputmode="numeric"
          autocomplete="off"
          :value="modulesOf(row).length"
          :disabled="!job.editable"
          :aria-label="`Modules of ${row.name}`"
          :aria-invalid="refused[row.id] || undefined"
          :title="refused[row.id] ? 'a whole number from 1 to 400' : undefined"
          @change="setCount(row, $event)"
          @keydown.enter="setCount(row, $event)"
          @keydown.stop
          @paste.stop
          @copy.stop
          @mousedown.stop
        />
      </template>
      <template #part="{ row }">
        <select
          class="form-select cell"
          :value="kindOf(row)"
          :disabled="!job.editable"
          :aria-label="`Kind of module in ${row.name}`"
          @change="setKind(row, $event)"
        >
          <option v-if="kindOf(row) === ''" value="" disabled>several kinds</option>
          <option v-for="part in kinds" :key="partKey(part)" :value="partKey(part)">{{ part.label }}</option>
        </select>
      </template>
      <template v-for="[name, , digits] in figures" #[name]="{ row }" :key="name">
        <FigureValue :id="figureId('pack.string', row.id, name)" :digits="digits" />
      </template>
      <template #out="{ row }">
        <select
          class="form-select cell"
          :disabled="!job.editable || modulesOf(row).length < 2"
          :aria-label="`Take a module out of ${row.name}`"
          @change="takeOut(row, $event)"
        >
          <option value="">one …</option>
          <option v-for="id in modulesOf(row)" :key="id" :value="id">
            {{ job.design.modules[id]?.tag }}
          </option>
        </select>
      </template>
    </EditGrid>
    <p v-if="Object.keys(refused).length > 0" class="problem" role="alert">
      Modules: a whole number from 1 to 400.
    </p>
  </div>
</template>

<style scoped>
.cell {
  height: 1.7rem;
  min-height: 1.7rem;
  padding: 0 0.3rem;
  border-color: transparent;
  background-color: transparent;
}

select.cell {
  padding-right: 1.4rem;
  background-position: right 0.2rem center;
}

input.cell {
  text-align: right;
}

.cell:hover,
.cell:focus {
  border-color: var(--tv-line);
}

.problem {
  color: var(--tv-stop);
  font-size: 0.85rem;
  margin: 0.3rem 0 0;
}
</style>
