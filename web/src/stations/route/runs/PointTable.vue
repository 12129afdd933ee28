<script setup lang="ts">
import { runGeometry, type Id, type RunPoint } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import TapeForm from './TapeForm.vue';
import { useJob } from '../../../stores/job';

/** The points of a run: typed, with the leg to the next and the turn at each. */
const props = defineProps<{ runId: Id; point: number | null }>();
const emit = defineEmits<{ pick: [point: number] }>();
const job = useJob();
interface Row {
  id: string;
  name: string;
  i: number;
}
const run = computed(() => job.design.runs?.[props.runId]);
const points = computed(() => run.value?.points ?? []);
const rows = computed(() =>
  points.value.map((_point, i): Row => ({ id: String(i), name: `point ${i + 1}`, i })),
);
const geometry = computed(() => (run.value === undefined ? null : runGeometry(run.value)));
const legAt = (i: number) => {
  const at = geometry.value?.legs.at.indexOf(i) ?? -1;
  return at < 0 ? null : (geometry.value!.legs.lengths[at] ?? null);
};
const turnAt = (i: number) => {
  const corner = geometry.value?.legs.corners.find(({ at }) => at === i);
  return corner === undefined ? null : (corner.turn * 180) / Math.PI;
};
const short = computed(() => {
  const legs = geometry.value?.path.short ?? [];
  return new Set(legs.map(({ from }) => from));
});
const place = (field: keyof RunPoint) => (row: Row) => `runs.${props.runId}.points.${row.i}.${field}`;
const number = (field: 'xM' | 'yM' | 'zM', title: string, label: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  path: place(field),
  unit: 'm',
  width: '4rem',
});
const columns: GridColumn<Row>[] = [
  { id: 'no', title: '', kind: 'fixed', label: 'Number', text: ({ i }) => String(i + 1), width: '1.8rem' },
  number('xM', 'ahead', 'Ahead of the front axle'),
  number('yM', 'left', 'Left of the middle'),
  number('zM', 'up', 'Above the ground'),
  {
    id: 'after',
    title: 'from here on',
    kind: 'choice',
    label: 'From here on',
    path: place('after'),
    choices: () => [
      { value: 'clipped', text: 'clipped' },
      { value: 'conduit', text: 'in conduit' },
      { value: 'box', text: 'in a box' },
    ],
    none: ({ i }) => (i === 0 ? 'clipped' : 'as before'),
    width: '5.7rem',
  },
  {
    id: 'tolMm',
    title: '±',
    kind: 'number',
    label: 'Give or take',
    path: place('tolMm'),
    unit: 'mm',
    width: '3.2rem',
  },
  {
    id: 'leg',
    title: 'leg, m',
    kind: 'fixed',
    label: 'Leg to the next point',
    text: ({ i }) => {
      const leg = legAt(i);
      return leg === null ? '' : `${formatNumber(leg)}${short.value.has(i) ? ' short' : ''}`;
    },
    width: '4rem',
  },
  {
    id: 'turn',
    title: 'turns, °',
    kind: 'fixed',
    label: 'Turn',
    text: ({ i }) => {
      const turn = turnAt(i);
      return turn === null ? '' : formatNumber(turn);
    },
    width: '3.4rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
function add(): void {
  const last = points.value.at(-1);
  job.change(`Point added to ${run.value?.tag ?? ''}`, (draft) => {
    const own = draft.runs?.[props.runId];
    if (own === undefined) return;
    own.points ??= [];
    const { xM, yM, zM } = last ?? {};
    own.points.push({
      ...(xM !== undefined && { xM: Number((xM - 0.3).toFixed(3)) }),
      ...(yM !== undefined && { yM }),
      ...(zM !== undefined && { zM }),
    });
  });
  emit('pick', points.value.length - 1);
}
function remove(i: number): void {
  job.change(`Point ${i + 1} of ${run.value?.tag ?? ''} removed`, (draft) => {
    const own = draft.runs?.[props.runId];
    const [gone] = own?.points?.splice(i, 1) ?? [];
    const next = own?.points?.[i];
    // What began at it begins at the next: the way of what follows stays.
    if (gone?.after !== undefined && next !== undefined) next.after ??= gone.after;
    if (own?.points?.length === 0) delete own.points;
  });
}
</script>

<template>
  <div data-points>
    <EditGrid
      v-if="rows.length > 0"
      :key="runId"
      :label="`Points of ${run?.tag ?? ''}`"
      :rows="rows"
      :columns="columns"
      :picked="point === null ? null : String(point)"
      @pick="emit('pick', Number($event))"
    >
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row.i)" /></template>
    </EditGrid>
    <p v-else class="soft">No points yet: where it leaves its box, its corners, and where it ends.</p>
    <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">Another point</BButton>
    <TapeForm v-if="rows.length > 0" :key="`${runId} ${point ?? 0}`" :run-id="runId" :point="point ?? 0" />
  </div>
</template>

<style scoped>
.btn {
  margin-top: 0.4rem;
}
</style>
