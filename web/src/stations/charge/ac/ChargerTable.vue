<script setup lang="ts">
import { builtCharger, chargerIds, efficiencyAt } from '@torvek/core/charging';
import { chargerPhases, type Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { useJob } from '../../../stores/job';

/** Chargers of the pack: a part each; what is typed holds instead of its sheet, and is seen to. */
const job = useJob();
interface Row {
  id: Id;
  name: string;
}
const rows = computed(() =>
  chargerIds(job.design).map((id): Row => ({ id, name: job.design.devices[id]!.tag })),
);
const at = (row: Row, field: string) => `devices.${row.id}.${field}`;
const built = (row: Row) => builtCharger(row.id, job.design).charger;
const number = (
  field: 'maxInputA' | 'maxOutputA' | 'endV',
  title: string,
  label: string,
  unit: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit,
  path: (row) => at(row, field),
  width: '5.4rem',
});
const n = (value: number) => formatNumber(value, 3);
const said = computed(() =>
  rows.value.map((row) => {
    const one = built(row);
    return one === null
      ? `${row.name}: not given yet.`
      : `${row.name}: draws ${n(one.maxInputA)} A on each phase, gives ${n(one.maxOutputA)} A, ${n(efficiencyAt(one, 1) * 100)} % at full load.`;
  }),
);
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'charger',
    kind: 'text',
    label: 'Name',
    path: (row) => at(row, 'tag'),
    required: true,
    width: '9rem',
  },
  {
    id: 'charger',
    title: 'part',
    kind: 'part',
    part: 'charger',
    label: 'Charger',
    path: (row) => at(row, 'charger'),
    width: '13rem',
  },
  {
    id: 'phase',
    title: 'phase',
    kind: 'choice',
    label: 'Phase',
    path: (row) => at(row, 'phase'),
    choices: () =>
      chargerPhases.map((value) => ({ value, text: value === 'all' ? 'all three' : `L${value}` })),
    none: (row) => {
      const phase = built(row)?.phase;
      return phase === undefined ? '—' : phase === 'all' ? 'all three (part)' : `L${phase} (default)`;
    },
    width: '7.4rem',
  },
  number('maxInputA', 'draws, typed', 'Draws at most, on each phase', 'A'),
  number('maxOutputA', 'gives, typed', 'Gives at most', 'A'),
  {
    id: 'efficiency',
    title: 'η, typed',
    kind: 'number',
    label: 'Efficiency',
    unit: '%',
    scale: 0.01,
    path: (row) => at(row, 'efficiencyFraction'),
    width: '5.4rem',
  },
  number('endV', 'ends at', 'Ends at', 'V'),
];
</script>

<template>
  <template v-if="rows.length > 0">
    <EditGrid label="Chargers" :rows="rows" :columns="columns" />
    <p v-for="line in said" :key="line" class="soft">{{ line }}</p>
  </template>
  <p v-else class="panel-empty">
    No charger among the devices yet: add one in Pack, in its table of devices.
    <RouterLink :to="{ name: 'pack', params: { job: job.id } }">Devices</RouterLink>
  </p>
</template>
