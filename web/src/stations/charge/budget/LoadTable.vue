<script setup lang="ts">
import { loadTimes, removeLoad, type Design, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { largestWireMm2 } from '@torvek/core/low-voltage';
import { unpinUnused } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';

/** Every load in one table, in two turns: what it draws, and how it is fed. */
const job = useJob();
interface Row {
  id: Id;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.loads ?? {}).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const side = ref<'draws' | 'fed' | 'where'>('draws');
const at = (row: Row, field: string) => `loads.${row.id}.${field}`;
const value = (name: 'currentA' | 'areaMm2' | 'dropV' | 'fuseA', row: Row) =>
  job.figure(figureId('low-voltage.load', row.id, name))?.value ?? null;
const said = (number: number | null) => (number === null ? '—' : formatNumber(number, 3));
const name: GridColumn<Row> = {
  id: 'tag',
  title: 'load',
  kind: 'text',
  label: 'Name',
  path: (row) => at(row, 'tag'),
  required: true,
  width: '12rem',
};
const number = (
  field: string,
  title: string,
  label: string,
  unit: string,
  width = '4.6rem',
  scale?: number,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit,
  path: (row) => at(row, field),
  width,
  ...(scale !== undefined && { scale }),
});
const text = (field: string, title: string, label: string, width = '7rem'): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'text',
  label,
  path: (row) => at(row, field),
  width,
});
const yes = (field: string, title: string, label: string, none: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'choice',
  label,
  path: (row) => at(row, field),
  choices: () => yesNo,
  none: () => none,
  width: '5.6rem',
});
const fixed = (
  field: 'currentA' | 'areaMm2' | 'dropV' | 'fuseA',
  title: string,
  label: string,
): GridColumn<Row> => ({
  id: `is-${field}`,
  title,
  kind: 'fixed',
  label,
  text: (row) => said(value(field, row)),
  width: '4.4rem',
});
const remove: GridColumn<Row> = { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' };
const turns = {
  draws: 'What each draws',
  fed: 'Wire and fuse',
  where: 'Switch and place',
} as const;
const cable: GridColumn<Row> = {
  id: 'cable',
  title: 'cable',
  kind: 'part',
  part: 'cable',
  label: 'Cable of a feed above 35 mm²',
  path: (row) => at(row, 'cable'),
  width: '11rem',
};
/** Some feed is beyond the table of wires: a column that most vehicles do without. */
const thick = computed(() =>
  rows.value.some(
    (row) => job.design.loads?.[row.id]?.cable !== undefined || (value('areaMm2', row) ?? 0) > largestWireMm2,
  ),
);
const columns = computed((): GridColumn<Row>[] => {
  if (side.value === 'draws')
    return [
      name,
      number('powerW', 'power', 'Power', 'W'),
      number('dutyFraction', 'on', 'On for', '%', '4.2rem', 0.01),
      {
        id: 'when',
        title: 'while',
        kind: 'choice',
        label: 'While',
        path: (row) => at(row, 'when'),
        choices: () => loadTimes.map((one) => ({ value: one, text: one })),
        none: () => 'not said',
        width: '7rem',
      },
      yes('essential', 'must live', 'Cannot be left out', 'yes (default)'),
      yes('steadyPower', 'keeps its W', 'Same power at any voltage', 'no (default)'),
      number('peakW', 'peak', 'Peak', 'W'),
      fixed('currentA', 'A', 'Current'),
      remove,
    ];
  if (side.value === 'fed')
    return [
      name,
      number('lengthM', 'feed', 'Feed', 'm', '4.2rem'),
      number('returnLengthM', 'return', 'Return', 'm', '4.4rem'),
      fixed('currentA', 'A', 'Current'),
      fixed('areaMm2', 'least mm²', 'Wire needed'),
      {
        id: 'wire',
        title: 'wire',
        kind: 'part',
        part: 'wire',
        label: 'Wire',
        path: (row) => at(row, 'wire'),
        width: '11rem',
      },
      ...(thick.value ? [cable] : []),
      fixed('dropV', 'drop, V', 'Drop'),
      fixed('fuseA', 'fuse up to', 'Fuse at most'),
      number('fuseA', 'fuse', 'Fuse', 'A', '4.2rem'),
      remove,
    ];
  return [
    name,
    text('switchedBy', 'switched by', 'Switched by', '9rem'),
    text('place', 'place', 'Place', '9rem'),
    {
      id: 'relay',
      title: 'relay',
      kind: 'part',
      part: 'relay',
      label: 'Relay',
      path: (row) => at(row, 'relay'),
      width: '11rem',
    },
    text('behind', 'shares the fuse', 'Behind the fuse', '8rem'),
    number('toFuseM', 'to its fuse', 'To its fuse', 'm', '5rem'),
    number('ambientC', 'ambient', 'Ambient', '°C', '5rem'),
    remove,
  ];
});
function add(): void {
  job.change('Load added', (draft) => {
    const all = (draft.loads ??= {});
    all[newId('load')] = { tag: `Load ${Object.keys(all).length + 1}` };
  });
}
function drop(row: Row): void {
  job.change(`${row.name} removed`, (draft: Design) => {
    removeLoad(draft, row.id);
    unpinUnused(draft);
  });
}
</script>

<template>
  <div class="chips" role="group" aria-label="Table">
    <button
      v-for="one in ['draws', 'fed', 'where'] as const"
      :key="one"
      type="button"
      class="btn btn-sm"
      :class="side === one ? 'btn-primary' : 'btn-light'"
      :aria-pressed="side === one"
      @click="side = one"
    >
      {{ turns[one] }}
    </button>
  </div>
  <EditGrid v-if="rows.length > 0" :key="side" label="Loads" :rows="rows" :columns="columns">
    <template #remove="{ row }"><RemoveButton :name="row.name" @remove="drop(row)" /></template>
  </EditGrid>
  <p v-else class="panel-empty">No load yet: begin with coils, lamps, wipers and what the engine drove.</p>
  <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add">Another load</BButton>
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
