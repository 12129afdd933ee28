<script setup lang="ts">
import { boltClasses, jointPlaces, threadMetals, type JointPlace } from '@torvek/core/document';
import { jointsOf, proofShare } from '@torvek/core/joints';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import PrintSheet from '../../parts/PrintSheet.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import RemoveButton from '../../parts/RemoveButton.vue';
import { useJob } from '../../stores/job';
import JointDetail from './JointDetail.vue';
import JointWalk from './JointWalk.vue';

/** Joints: how each kind is made, judged by thread, faces and stack; then walked along with a wrench and a meter. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const kinds = computed(() => job.design.joints ?? {});
const rows = computed(() => Object.entries(kinds.value).map(([id, { tag }]): Row => ({ id, name: tag })));
const chosen = ref('');
const picked = computed(
  () => (kinds.value[chosen.value] === undefined ? rows.value[0]?.id : chosen.value) ?? null,
);
const counts = computed(() => {
  const found = new Map<string | null, number>();
  for (const { kind } of jointsOf(job.design)) found.set(kind, (found.get(kind) ?? 0) + 1);
  return found;
});
const at = (field: string) => (row: Row) => `joints.${row.id}.${field}`;
const of = (row: Row) => kinds.value[row.id];
const placeWords: Record<JointPlace, string> = {
  modules: 'module posts',
  lugs: 'cable lugs',
  bars: 'bar ends',
};
const choices = (all: readonly string[]) => () => all.map((value) => ({ value, text: value }));
const columns: GridColumn<Row>[] = [
  { id: 'tag', title: 'kind', kind: 'text', label: 'Name', required: true, path: at('tag'), width: '8.4rem' },
  {
    id: 'on',
    title: 'on',
    kind: 'choice',
    label: 'On',
    path: at('on'),
    choices: () => jointPlaces.map((value) => ({ value, text: placeWords[value] })),
    width: '7rem',
  },
  {
    id: 'circuit',
    title: 'of',
    kind: 'choice',
    label: 'Of the circuit',
    path: (row) => (of(row)?.on === 'lugs' ? at('circuit')(row) : null),
    choices: () => Object.entries(job.design.circuits).map(([value, { tag }]) => ({ value, text: tag })),
    none: () => 'all on its stud',
    width: '6.6rem',
  },
  {
    id: 'count',
    title: 'joints',
    kind: 'fixed',
    label: 'Joints',
    text: ({ id }) => String(counts.value.get(id) ?? 0),
    width: '3.2rem',
  },
  {
    id: 'studMm',
    title: 'M',
    kind: 'number',
    label: 'Stud, M',
    path: (row) => (of(row)?.circuit === undefined ? at('studMm')(row) : null),
    text: (row) => formatNumber(job.design.circuits[of(row)?.circuit ?? '']?.studMm ?? 0),
    width: '3rem',
  },
  {
    id: 'boltClass',
    title: 'class',
    kind: 'choice',
    label: 'Class of the bolts',
    path: at('boltClass'),
    choices: choices(boltClasses),
    none: () => '?',
    width: '4.8rem',
  },
  {
    id: 'torqueNm',
    title: 'torque',
    kind: 'number',
    unit: 'N·m',
    label: 'Torque',
    path: at('torqueNm'),
    width: '5.2rem',
  },
  {
    id: 'share',
    title: 'of proof',
    kind: 'slot',
    label: 'Of the proof stress',
    width: '4.4rem',
  },
  {
    id: 'engagementMm',
    title: 'in',
    kind: 'number',
    unit: 'mm',
    label: 'Thread that is in',
    path: at('engagementMm'),
    width: '4rem',
  },
  {
    id: 'threadIn',
    title: 'into',
    kind: 'choice',
    label: 'The thread goes into',
    path: at('threadIn'),
    choices: choices(threadMetals),
    none: () => '?',
    width: '6.2rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
const share = (id: string) => job.figure(`joints.kind:${id}:proofShare`)?.value ?? null;
const without = computed(() => counts.value.get(null) ?? 0);

function add(): void {
  const id = newId('joint');
  job.change('Kind of joint added', (draft) => {
    draft.joints ??= {};
    const used = new Set(Object.values(draft.joints).map(({ on }) => on));
    const on = jointPlaces.find((place) => !used.has(place)) ?? 'lugs';
    draft.joints[id] = { tag: `${placeWords[on]} ${Object.keys(draft.joints).length + 1}`, on };
  });
  chosen.value = id;
}
function remove(id: string): void {
  job.change(`Kind of joint removed: ${kinds.value[id]?.tag ?? ''}`, (draft) => {
    delete draft.joints?.[id];
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="joints-title" data-joints>
    <div class="card-head">
      <h2 id="joints-title">Joints</h2>
      <span class="hint">
        {{
          counts.size === 0
            ? 'no joint yet'
            : `${[...counts.values()].reduce((a, b) => a + b, 0)} carry the pack’s current`
        }}{{ without > 0 ? `, ${without} without a kind` : '' }}; the makers’ torques go before all
      </span>
      <PrintSheet sheet="torques" text="Walk, PDF" :disabled="counts.size === 0" />
      <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
        >Add a kind</BButton
      >
    </div>
    <p v-if="rows.length === 0" class="panel-empty">
      Say how each kind of joint is made: posts of the modules, lugs of the cables, ends of the bars. Thread,
      faces and stack are judged, and a walk with the meter finds the joint that differs.
    </p>
    <template v-else>
      <EditGrid
        label="Kinds of joints"
        :rows="rows"
        :columns="columns"
        :picked="picked"
        @pick="chosen = $event"
      >
        <template #share="{ row }">
          <span :class="{ bad: (share(row.id) ?? 0) > proofShare }"
            >{{ share(row.id) === null ? '—' : `${formatNumber(share(row.id)! * 100, 2)} %` }}
          </span>
        </template>
        <template #remove="{ row }">
          <RemoveButton :name="row.name" @remove="remove(row.id)" />
        </template>
      </EditGrid>
      <JointDetail v-if="picked !== null" :key="picked" :kind="picked" />
    </template>
  </section>
  <JointWalk v-if="picked !== null" :kind="picked" />
</template>

<style scoped>
.add {
  margin-left: auto;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
