<script setup lang="ts">
import { dropsOf, fluidTableOf, type LoopAnswer } from '@torvek/core/cooling';
import {
  laid,
  partOfPiece,
  plumbingKinds,
  removePiece,
  type Id,
  type PlumbingKind,
} from '@torvek/core/document';
import type { PartKind } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import PartCell from '../../../parts/PartCell.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { statesOf, type Shown } from './states';

/** What a loop is made of, and between which joins: the table that its picture is drawn from. */
const props = defineProps<{ loopId: Id; answer: LoopAnswer | null; shown: Shown; picked: Id | null }>();
const emit = defineEmits<{ pick: [id: Id] }>();
const job = useJob();
interface Row {
  id: Id;
  name: string;
  kind: PlumbingKind;
}
const plumbing = computed(() => job.design.plumbing ?? {});
const rows = computed(() =>
  Object.entries(plumbing.value).flatMap(([id, one]): Row[] =>
    one.loop === props.loopId ? [{ id, name: one.tag, kind: one.kind }] : [],
  ),
);
const joins = computed(() =>
  Object.entries(job.design.joins ?? {})
    .filter(([, { loop }]) => loop === props.loopId || loop === undefined)
    .map(([value, { tag }]) => ({ value, text: tag })),
);
const states = computed(() => statesOf(props.answer, props.shown));
const drops = computed(() => {
  if (props.answer === null) return new Map<Id, number>();
  const part = job.design.parts[job.design.loops?.[props.loopId]?.coolant ?? ''];
  const all = dropsOf(props.answer, fluidTableOf(part?.kind === 'coolant' ? part.data : undefined));
  return new Map(props.answer.elements.map(({ id }, i) => [id, all[i]!]));
});
const partKindOf: Partial<Record<PlumbingKind, { field: string; kind: PartKind }>> = {
  pump: { field: 'pump', kind: 'pump' },
  plate: { field: 'plate', kind: 'plate' },
  jacket: { field: 'plate', kind: 'plate' },
  radiator: { field: 'radiator', kind: 'radiator' },
  heater: { field: 'heater', kind: 'heater' },
  hose: { field: 'hose', kind: 'hose' },
};
/** Hoses that lie in a run of Route: their length is the run’s. */
const routed = computed(
  () => new Set(Object.values(job.design.runs ?? {}).flatMap(({ hoses = [] }) => hoses)),
);
const asLaid = computed(() => laid(job.design).plumbing ?? {});
const at = (row: Row, field: string) => `plumbing.${row.id}.${field}`;
const said = (value: number | null | undefined, digits = 3) =>
  value === null || value === undefined ? '' : formatNumber(value, digits);
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'piece',
    kind: 'text',
    label: 'Name',
    path: (row) => at(row, 'tag'),
    required: true,
    width: '8.6rem',
  },
  {
    id: 'from',
    title: 'from',
    kind: 'choice',
    label: 'From',
    path: (row) => at(row, 'from'),
    choices: () => joins.value,
    none: () => 'where from',
    width: '9.4rem',
  },
  {
    id: 'to',
    title: 'to',
    kind: 'choice',
    label: 'To',
    path: (row) => at(row, 'to'),
    choices: () => joins.value,
    none: () => 'where to',
    width: '9.4rem',
  },
  { id: 'part', title: 'part', kind: 'slot', label: 'Part', width: '8.4rem' },
  {
    id: 'length',
    title: 'long',
    kind: 'number',
    label: 'Length',
    unit: 'm',
    path: (row) => (row.kind === 'hose' && !routed.value.has(row.id) ? at(row, 'lengthM') : null),
    text: ({ id }) => (routed.value.has(id) ? said(asLaid.value[id]?.lengthM) : ''),
    width: '3.6rem',
  },
  {
    id: 'open',
    title: 'valve open',
    kind: 'number',
    label: 'Open',
    unit: '%',
    scale: 0.01,
    path: (row) => (row.kind === 'valve' ? at(row, 'openFraction') : null),
    width: '3.6rem',
  },
  {
    id: 'flow',
    title: 'L/min',
    kind: 'fixed',
    label: 'Flow',
    text: ({ id }) => said(states.value.get(id)?.flow),
    width: '4rem',
  },
  {
    id: 'drop',
    title: 'kPa',
    kind: 'fixed',
    label: 'Pressure drop',
    text: ({ id }) => said(drops.value.get(id)),
    width: '4rem',
  },
  {
    id: 'out',
    title: 'out, °C',
    kind: 'fixed',
    label: 'Leaves with',
    text: ({ id }) => said(states.value.get(id)?.outC),
    width: '4.4rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
const hasPart = (row: Row) => partKindOf[row.kind];
const nonePart = (row: Row) =>
  partOfPiece(plumbing.value[row.id]!) === undefined &&
  (plumbing.value[row.id]!.kPaPerLpm ?? plumbing.value[row.id]!.readings) !== undefined
    ? 'own figures'
    : 'which one';
/** A piece goes on where the picked one, or the last, ends: pieces added one after the other are a chain that is closed by hand. */
function add(kind: PlumbingKind): void {
  const id = newId('piece');
  const join = (): Id => newId('join');
  job.change(`${kind} added`, (draft) => {
    const all = (draft.plumbing ??= {});
    const joined = (draft.joins ??= {});
    const named = (at: Id) => {
      const inLoop = Object.values(joined).filter(({ loop }) => loop === props.loopId).length;
      joined[at] = { tag: `Join ${inLoop + 1}`, loop: props.loopId };
      return at;
    };
    const before = all[props.picked ?? ''] ?? all[rows.value.at(-1)?.id ?? ''];
    const from = before?.to ?? named(join());
    const to = named(join());
    const count = Object.values(all).filter((one) => one.kind === kind).length;
    const name = `${kind[0]!.toUpperCase()}${kind.slice(1)} ${count + 1}`;
    all[id] = { tag: name, loop: props.loopId, kind, from, to, ...(kind === 'valve' && { kvM3PerH: 2.5 }) };
  });
  emit('pick', id);
}
function remove(row: Row): void {
  job.change(`${row.name} removed`, (draft) => removePiece(draft, row.id));
}
</script>

<template>
  <div data-pieces>
    <EditGrid
      v-if="rows.length > 0"
      :key="loopId"
      label="Pieces of the loop"
      :rows="rows"
      :columns="columns"
      :picked="picked"
      @pick="emit('pick', $event)"
    >
      <template #part="{ row }">
        <PartCell
          v-if="hasPart(row)"
          :path="at(row, hasPart(row)!.field)"
          :kind="hasPart(row)!.kind"
          :label="`Part of ${row.name}`"
          :none="nonePart(row)"
        />
      </template>
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
    </EditGrid>
    <div class="adds" role="group" aria-label="Add a piece">
      <BButton
        v-for="kind in plumbingKinds"
        :key="kind"
        size="sm"
        variant="light"
        :disabled="!job.editable"
        @click="add(kind)"
        >+ {{ kind }}</BButton
      >
    </div>
  </div>
</template>

<style scoped>
.adds {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  margin-top: 0.4rem;
}
</style>
