<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { removeColumn, tagColumn, thingsOf, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { pinText, readPins } from './pin-pairs';

/** Adapters between plugs whose pins are numbered in different ways. */
const job = useJob();
const rows = computed(() => thingsOf(job.design.adapters));
const plugs = computed(() =>
  Object.entries(job.design.ends ?? {})
    .filter(([, { kind }]) => kind === 'connector')
    .map(([value, { tag }]) => ({ value, text: tag })),
);
const at = (row: Row, field: string) => `adapters.${row.id}.${field}`;
const plug = (field: 'from' | 'to', title: string, label: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'choice',
  label,
  path: (row) => at(row, field),
  choices: () => plugs.value,
  none: () => 'nowhere',
  width: '13rem',
});
const columns: GridColumn<Row>[] = [
  tagColumn('adapters', 'adapter', '12rem'),
  plug('from', 'plug', 'Plug'),
  plug('to', 'goes on to', 'Goes on to'),
  { id: 'pins', title: 'its pin – their pin', kind: 'slot', label: 'Pin to pin', width: '18rem' },
  removeColumn,
];
const problems = ref<Record<Id, string>>({});
const typed = ref<Record<Id, string>>({});
const textOf = ({ id }: Row) => typed.value[id] ?? pinText(job.design.adapters?.[id]?.pins ?? []);
function take(row: Row, text: string): void {
  const read = readPins(text);
  if ('problem' in read) {
    // What was typed stays until it can be read.
    typed.value[row.id] = text;
    problems.value[row.id] = read.problem;
    return;
  }
  delete typed.value[row.id];
  delete problems.value[row.id];
  if (pinText(read.pins) === pinText(job.design.adapters?.[row.id]?.pins ?? [])) return;
  job.change(`${row.name}: pins`, (draft) => {
    const adapter = draft.adapters?.[row.id];
    if (adapter === undefined) return;
    if (read.pins.length === 0) delete adapter.pins;
    else adapter.pins = read.pins;
  });
}
function add(): void {
  job.change('Adapter added', (draft) => {
    const all = (draft.adapters ??= {});
    all[newId('adapter')] = { tag: `Adapter ${Object.keys(all).length + 1}` };
  });
}
const remove = (row: Row) =>
  job.change(`${row.name} removed`, (draft) => void delete draft.adapters?.[row.id]);
</script>

<template>
  <p v-if="rows.length === 0" class="panel-empty">
    An adapter joins an old plug to a new one whose pins are numbered otherwise: pin for pin, for the
    continuity sheet and for what each pin carries.
  </p>
  <EditGrid v-else label="Adapters" :rows="rows" :columns="columns">
    <template #pins="{ row }">
      <input
        class="pins"
        type="text"
        :value="textOf(row)"
        :aria-label="`Pins of ${row.name}`"
        :aria-invalid="problems[row.id] !== undefined"
        placeholder="1-3, 2-5"
        :disabled="!job.editable"
        @change="take(row, ($event.target as HTMLInputElement).value)"
        @keydown.stop
        @paste.stop
        @copy.stop
        @mousedown.stop
      />
    </template>
    <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
  </EditGrid>
  <p v-for="(problem, id) in problems" :key="id" class="problem" role="alert">
    {{ job.design.adapters?.[id]?.tag ?? '' }}: {{ problem }}.
  </p>
  <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add">
    Another adapter
  </BButton>
</template>

<style scoped>
.add {
  margin-top: 0.4rem;
}

.pins {
  width: 100%;
  border: 0;
  background: transparent;
}

.problem {
  margin: 0.3rem 0 0;
  color: var(--tv-stop);
}
</style>
