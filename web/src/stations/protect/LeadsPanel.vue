<script setup lang="ts">
import { removeLead } from '@torvek/core/document';
import type { FigureName } from '@torvek/core/figure';
import { cablesBetweenBoxes } from '@torvek/core/conductor';
import { formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../api/client';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import RemoveButton from '../../parts/RemoveButton.vue';
import { useJob } from '../../stores/job';

/** Cables inside the pack: from box to box, from a string’s ends to where strings meet, from there to the mains. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const leads = computed(() => job.design.pack.leads ?? {});
const rows = computed(() => Object.entries(leads.value).map(([id, { tag }]): Row => ({ id, name: tag })));
/** Ways between boxes that no row describes yet. */
const open = computed(() => cablesBetweenBoxes(job.design));
const at = (field: string) => (row: Row) => `pack.leads.${row.id}.${field}`;
const number = (
  field: string,
  title: string,
  unit: string,
  label: string,
  width: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit,
  label,
  path: at(field),
  width,
});
const part = (kind: 'cable' | 'lug' | 'gland', title: string, label: string, width: string) =>
  ({ id: kind, title, kind: 'part', part: kind, label, path: at(kind), width }) as const;
const strings = () => Object.entries(job.design.strings).map(([value, { tag }]) => ({ value, text: tag }));
/** Joints of its string by the modules they lie between. */
const joints = ({ id }: Row) => {
  const { string } = leads.value[id] ?? {};
  const modules = job.design.strings[string ?? '']?.modules ?? [];
  if (modules.length === 0) return [];
  const tag = (i: number) => (job.design.modules[modules[i]!]?.tag ?? '').replace(/^.*-/, '');
  return [
    { value: 0, text: '− end' },
    ...modules.slice(1).map((_, i) => ({ value: i + 1, text: `${tag(i)}–${tag(i + 1)}` })),
    { value: modules.length, text: '+ end' },
  ];
};
const reaches = (id: string, name: FigureName<'conductor.lead'>, unit: string) => {
  const value = job.figure(`conductor.lead:${id}:${name}`)?.value;
  return value == null ? '—' : formatQuantity(value, unit);
};
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'cable',
    kind: 'text',
    label: 'Name',
    required: true,
    path: at('tag'),
    width: '9.5rem',
  },
  {
    id: 'string',
    title: 'of',
    kind: 'choice',
    label: 'String',
    path: at('string'),
    choices: strings,
    none: () => 'the whole pack',
    width: '4.6rem',
  },
  {
    id: 'joint',
    title: 'at',
    kind: 'choice',
    label: 'Place',
    path: at('joint'),
    choices: joints,
    none: () => 'either end',
    width: '6.2rem',
  },
  part('cable', 'made of', 'Cable', '5.8rem'),
  number('lengthM', 'long', 'm', 'Length', '3.8rem'),
  number('ambientC', 'ambient', '°C', 'Ambient', '4.8rem'),
  part('lug', 'lugs', 'Cable lugs', '6.2rem'),
  number('studMm', 'stud, M', '', 'Stud, M', '3.8rem'),
  part('gland', 'gland', 'Gland', '5.8rem'),
  {
    id: 'carries',
    title: 'carries',
    kind: 'fixed',
    label: 'Ampacity',
    text: ({ id }) => reaches(id, 'ampacityA', 'A'),
    width: '4rem',
  },
  {
    id: 'reaches',
    title: 'reaches',
    kind: 'fixed',
    label: 'Conductor temperature',
    text: ({ id }) => reaches(id, 'conductorTemperatureC', '°C'),
    width: '4rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];

function add(): void {
  const id = newId('lead');
  job.change('Cable of the pack added', (draft) => {
    draft.pack.leads ??= {};
    const [string] = Object.keys(draft.strings);
    draft.pack.leads[id] = {
      tag: `Cable ${Object.keys(draft.pack.leads).length + 1}`,
      ...(string !== undefined && { string, joint: 0 }),
    };
  });
}
/** One row for each way that has none: its place is known, its cable is to be said. */
function addAll(): void {
  const ways = open.value;
  job.change(`${ways.length} cables of the pack added`, (draft) => {
    draft.pack.leads ??= {};
    for (const { string, joint, what } of ways)
      draft.pack.leads[newId('lead')] = {
        tag: what[0]!.toUpperCase() + what.slice(1),
        ...(string !== null && { string, joint }),
      };
  });
}
function remove({ id, name }: Row): void {
  job.change(`Cable of the pack removed: ${name}`, (draft) => {
    removeLead(draft, id);
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="leads-title" data-leads>
    <div class="card-head">
      <h2 id="leads-title">Cables inside the pack</h2>
      <span class="hint"
        >box to box, to where strings meet, from there to the mains; they count in the pack’s resistance</span
      >
      <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
        >Add a cable</BButton
      >
    </div>
    <p v-if="open.length > 0" class="open">
      <b>{{ open.length }}</b> {{ open.length === 1 ? 'way has' : 'ways have' }} no cable yet:
      {{
        open
          .slice(0, 3)
          .map(({ what }) => what)
          .join('; ')
      }}{{ open.length > 3 ? ' …' : '' }}.
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="addAll">A row for each</BButton>
    </p>
    <p v-if="rows.length === 0" class="panel-empty">
      {{
        open.length > 0
          ? 'None is described: their heat, ends and faults are not judged.'
          : 'No cable leaves a box inside the pack.'
      }}
    </p>
    <EditGrid v-else label="Cables inside the pack" :rows="rows" :columns="columns">
      <template #remove="{ row }">
        <RemoveButton :name="row.name" @remove="remove(row)" />
      </template>
    </EditGrid>
  </section>
</template>

<style scoped>
.add {
  margin-left: auto;
}

.open {
  margin: 0 0 0.5rem;
}
</style>
