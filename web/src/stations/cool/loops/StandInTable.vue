<script setup lang="ts">
import { figureId } from '@torvek/core/figure';
import type { PresentFlows } from '@torvek/core/cooling';
import type { Id } from '@torvek/core/document';
import { unpinUnused } from '@torvek/core/pack';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import FigureValue from '../../../parts/FigureValue.vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import PickMany from '../../../parts/PickMany.vue';
import { removeColumn, tagColumn, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** What stands in for pieces that are not there yet, and what flows meanwhile. */
const props = defineProps<{ loopId: Id }>();
const job = useJob();
const rows = computed(() =>
  Object.entries(job.design.standIns ?? {}).flatMap(([id, { loop, tag }]): Row[] =>
    loop === props.loopId ? [{ id, name: tag }] : [],
  ),
);
const at = (row: Row, field: string) => `standIns.${row.id}.${field}`;
const joins = computed(() =>
  Object.entries(job.design.joins ?? {}).flatMap(([value, { loop, tag }]) =>
    loop === props.loopId ? [{ value, text: tag }] : [],
  ),
);
const pieces = computed(() =>
  Object.entries(job.design.plumbing ?? {}).flatMap(([id, { loop, tag, kind }]) =>
    loop === props.loopId && kind !== 'pump' ? [{ id, tag }] : [],
  ),
);
const join = (field: 'from' | 'to', label: string): GridColumn<Row> => ({
  id: field,
  title: field,
  kind: 'choice',
  label,
  path: (row) => at(row, field),
  choices: () => joins.value,
  none: () => 'left out',
  width: '10rem',
});
const columns: GridColumn<Row>[] = [
  tagColumn('standIns', 'for now', '11rem'),
  join('from', 'From'),
  join('to', 'To'),
  {
    id: 'hose',
    title: 'hose',
    kind: 'part',
    part: 'hose',
    label: 'Hose',
    path: (row) => at(row, 'hose'),
    none: () => 'not chosen',
    width: '9rem',
  },
  {
    id: 'lengthM',
    title: 'length',
    kind: 'number',
    label: 'Length',
    unit: 'm',
    path: (row) => at(row, 'lengthM'),
    width: '5rem',
  },
  {
    id: 'minorK',
    title: 'bends',
    kind: 'number',
    label: 'Bends and nipples, in velocity heads',
    path: (row) => at(row, 'minorK'),
    width: '4.4rem',
  },
  removeColumn,
];
const picked = ref<Id | null>(null);
const shown = computed(() => rows.value.find(({ id }) => id === picked.value) ?? rows.value[0] ?? null);
function add(): void {
  const id = newId('standin');
  job.change('Stand-in added', (draft) => {
    const all = (draft.standIns ??= {});
    all[id] = { tag: `Stub ${Object.keys(all).length + 1}`, loop: props.loopId };
  });
  picked.value = id;
}
const remove = (row: Row) =>
  job.change(`${row.name} removed`, (draft) => {
    delete draft.standIns?.[row.id];
    unpinUnused(draft);
  });
const flows = computed(
  () =>
    (job.evaluation.runs[`cooling.present:${props.loopId}`]?.result as PresentFlows | undefined)
      ?.flowsLPerMin ?? null,
);
const planned = computed(() => {
  const answer = job.evaluation.runs[`cooling.loop:${props.loopId}`]?.result as
    { elements: { id: Id }[]; flows: number[] } | undefined;
  return new Map((answer?.elements ?? []).map(({ id }, i) => [id, answer!.flows[i]!]));
});
const n = (value: number) => formatNumber(Math.abs(value), 3);
/** Plates and jackets, which flow is for, today and as planned. */
const served = computed(() =>
  Object.entries(job.design.plumbing ?? {}).flatMap(([id, { loop, kind, tag }]) => {
    if (loop !== props.loopId || (kind !== 'plate' && kind !== 'jacket') || flows.value === null) return [];
    const [today, plan] = [flows.value[id], planned.value.get(id)];
    return [
      `${tag}: ${today === undefined ? 'not there' : `${n(today)} L/min`}${plan === undefined ? '' : `, planned ${n(plan)}`}`,
    ];
  }),
);
</script>

<template>
  <p v-if="rows.length === 0" class="panel-empty">
    All of the plan is there. A stub or a shop hose that stands in for a radiator or a plate gives the loop
    another flow: listed here, tests of today are judged by the plumbing of today.
  </p>
  <template v-else>
    <div class="figure-row">
      <FigureValue :id="figureId('cooling.present', loopId, 'flowLPerMin')" show-label />
      <FigureValue :id="figureId('cooling.present', loopId, 'volumeL')" show-label />
    </div>
    <EditGrid
      label="Plumbing for now"
      :rows="rows"
      :columns="columns"
      :picked="shown?.id ?? null"
      @pick="picked = $event"
    >
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
    </EditGrid>
    <PickMany
      v-if="shown"
      :key="shown.id"
      :path="at(shown, 'instead')"
      :things="pieces"
      :label="`${shown.name} stands for`"
      none="It stands for no piece of the plan: it is there beside them."
      ask="which pieces"
      :change="`${shown.name}: stands for`"
    />
    <p v-if="served.length > 0" class="served">{{ served.join('; ') }}.</p>
  </template>
  <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add">
    Another stand-in
  </BButton>
</template>

<style scoped>
.add {
  margin-top: 0.4rem;
}

.served {
  margin: 0.2rem 0 0;
  color: var(--tv-soft);
}
</style>
