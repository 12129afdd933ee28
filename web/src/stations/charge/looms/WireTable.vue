<script setup lang="ts">
import { loomSystems, oldWire, wireStates, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { removeColumn, thingsOf, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { codesOf } from './codes';

/** Every wire from pin to pin; its length follows from the bundles unless it is typed. */
defineProps<{ picked: Id | null }>();
const emit = defineEmits<{ pick: [id: Id]; remove: [id: Id] }>();
const job = useJob();
const rows = computed(() => thingsOf(job.design.wires));
const at = (row: Row, field: string) => `wires.${row.id}.${field}`;
/** The same list as long as nobody touches an end: rows are drawn anew when what they offer is another. */
const endItems = computed(() => job.design.ends);
const ends = computed(() =>
  Object.entries(endItems.value ?? {}).map(([value, { tag }]) => ({ value, text: tag })),
);
const texts = <T extends string>(values: readonly T[]) => {
  const all = values.map((value) => ({ value, text: value }));
  return () => all;
};
const choice = (
  field: string,
  title: string,
  label: string,
  choices: GridColumn<Row>['choices'],
  none: string,
  width: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'choice',
  label,
  path: (row) => at(row, field),
  choices: choices!,
  none: () => none,
  width,
});
const number = (
  field: string,
  title: string,
  label: string,
  unit: string,
  width = '3.4rem',
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit,
  path: (row) => at(row, field),
  width,
});
const said = (name: 'lengthM' | 'currentA', row: Row) => {
  const value = job.figure(figureId('looms.wire', row.id, name))?.value ?? null;
  return value === null ? '' : formatNumber(value, 3);
};
const side = ref<'ends' | 'wire'>('ends');
const name: GridColumn<Row> = {
  id: 'tag',
  title: 'wire',
  kind: 'text',
  label: 'Name',
  path: (row) => at(row, 'tag'),
  required: true,
  width: '13rem',
};
/** A column that is there once the job has a code of colours. */
const colourItems = computed(() => job.design.colours);
const codes = computed(() => codesOf(colourItems.value));
const hasCode = computed(() => codes.value.length > 0);
const byCode: GridColumn<Row> = {
  id: 'code',
  title: 'by the code',
  kind: 'choice',
  label: 'Colour by the code',
  path: (row) => at(row, 'code'),
  choices: () => codes.value,
  none: () => 'by none',
  width: '11rem',
};
const columns = computed((): GridColumn<Row>[] =>
  side.value === 'ends'
    ? [
        name,
        choice('from', 'from', 'From', () => ends.value, 'nowhere', '10rem'),
        number('fromPin', 'pin', 'Pin there', ''),
        choice('to', 'to', 'To', () => ends.value, 'nowhere', '10rem'),
        number('toPin', 'pin', 'Pin at the far end', ''),
        {
          id: 'colour',
          title: 'colour',
          kind: 'text',
          label: 'Colour',
          path: (row) => at(row, 'colour'),
          width: '8rem',
        },
        ...(hasCode.value ? [byCode] : []),
        {
          id: 'long',
          title: 'm',
          kind: 'fixed',
          label: 'Length',
          text: (row) => said('lengthM', row),
          width: '3.6rem',
        },
        removeColumn,
      ]
    : [
        name,
        {
          id: 'wire',
          title: 'part',
          kind: 'part',
          part: 'wire',
          label: 'Wire',
          path: (row) => at(row, 'wire'),
          width: '10rem',
        },
        number('lengthM', 'typed', 'Length, typed', 'm', '4.6rem'),
        {
          id: 'amps',
          title: 'A',
          kind: 'fixed',
          label: 'Current',
          text: (row) => said('currentA', row),
          width: '3.6rem',
        },
        number('fuseA', 'fuse', 'Fuse', 'A', '4rem'),
        choice('system', 'system', 'System', texts(loomSystems), 'low voltage (default)', '9rem'),
        choice('state', 'state', 'State', texts(wireStates), 'provisional (default)', '9rem'),
        choice('was', 'old loom', 'Of the old loom', texts(oldWire), 'new (default)', '8rem'),
        removeColumn,
      ],
);
function add(): void {
  const id = newId('wire');
  job.change('Wire added', (draft) => {
    const all = (draft.wires ??= {});
    all[id] = { tag: `Wire ${Object.keys(all).length + 1}`, state: 'provisional' };
  });
  emit('pick', id);
}
</script>

<template>
  <div v-if="rows.length > 0" class="chips" role="group" aria-label="Columns">
    <button
      v-for="one in ['ends', 'wire'] as const"
      :key="one"
      type="button"
      class="btn btn-sm"
      :class="side === one ? 'btn-primary' : 'btn-light'"
      :aria-pressed="side === one"
      @click="side = one"
    >
      {{ one === 'ends' ? 'From pin to pin' : 'What each is' }}
    </button>
  </div>
  <EditGrid
    v-if="rows.length > 0"
    :key="side"
    label="Wires"
    :rows="rows"
    :columns="columns"
    :picked="picked"
    @pick="emit('pick', $event)"
  >
    <template #remove="{ row }"><RemoveButton :name="row.name" @remove="emit('remove', row.id)" /></template>
  </EditGrid>
  <p v-else class="panel-empty">No wire yet. A whole list can come from a file.</p>
  <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add">Another wire</BButton>
</template>

<style scoped>
.chips {
  display: flex;
  gap: 0.3rem;
  margin-bottom: 0.4rem;
}

.add {
  margin-top: 0.4rem;
}
</style>
