<script setup lang="ts">
import { hazardDistanceMm, hazardKinds, type Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { gone, kind, number, place, rowsOf, tag, type Row } from './columns';
import DatumTable from './DatumTable.vue';
import ZoneTable from './ZoneTable.vue';

/** What runs stay away from, where they should lead and where not, and where devices sit; with the distance of each run to each line. */
const job = useJob();
const hazards = computed(() => rowsOf(job.design.hazards));
const devices = computed(() => rowsOf(job.design.devices));

const hazardColumns: GridColumn<Row>[] = [
  tag('hazards', 'line'),
  kind('hazards', hazardKinds),
  number('hazards', 'minSeparationMm', 'asked', 'Distance asked', 'mm'),
  {
    id: 'usual',
    title: 'unless said, mm',
    kind: 'fixed',
    label: 'Usual',
    text: ({ id }) => String(hazardDistanceMm[job.design.hazards?.[id]?.kind ?? 'other']),
    width: '6rem',
  },
  number('hazards', 'radiusMm', 'half thick', 'Half its thickness', 'mm'),
  {
    id: 'points',
    title: 'points',
    kind: 'fixed',
    label: 'Points',
    text: ({ id }) => String(job.design.hazards?.[id]?.points?.length ?? 0),
    width: '4rem',
  },
  gone,
];
const deviceColumns: GridColumn<Row>[] = [
  { id: 'tag', title: 'device', kind: 'fixed', label: 'Name', text: ({ name }) => name, width: '13rem' },
  ...place('devices'),
];

const picked = ref<Id | null>(null);
const line = computed(() => hazards.value.find(({ id }) => id === picked.value) ?? hazards.value[0]);
interface PointRow extends Row {
  i: number;
}
const pointRows = computed(() =>
  (job.design.hazards?.[line.value?.id ?? '']?.points ?? []).map((_point, i): PointRow => ({
    id: String(i),
    name: `point ${i + 1}`,
    i,
  })),
);
const pointColumns = computed((): GridColumn<PointRow>[] => [
  { id: 'no', title: '', kind: 'fixed', label: 'Number', text: ({ i }) => String(i + 1), width: '2rem' },
  ...(['xM', 'yM', 'zM'] as const).map((field, axis): GridColumn<PointRow> => ({
    id: field,
    title: ['ahead', 'left', 'up'][axis]!,
    kind: 'number',
    label: ['Ahead of the front axle', 'Left of the middle', 'Above the ground'][axis]!,
    path: ({ i }) => `hazards.${line.value?.id}.points.${i}.${field}`,
    unit: 'm',
    width: '5.4rem',
  })),
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
]);

function addHazard(): void {
  const id = newId('hazard');
  job.change('Line to stay away from added', (draft) => {
    const count = Object.keys((draft.hazards ??= {})).length;
    draft.hazards[id] = { tag: `Line ${count + 1}`, kind: 'brake' };
  });
  picked.value = id;
}
function addPoint(): void {
  const of = line.value?.id;
  if (of === undefined) return;
  job.change(`Point added to ${line.value?.name ?? ''}`, (draft) => {
    const own = draft.hazards?.[of];
    if (own === undefined) return;
    own.points ??= [];
    const { xM, yM, zM } = own.points.at(-1) ?? {};
    own.points.push({
      ...(xM !== undefined && { xM: Number((xM - 0.5).toFixed(3)) }),
      ...(yM !== undefined && { yM }),
      ...(zM !== undefined && { zM }),
    });
  });
}
function removePoint(i: number): void {
  const of = line.value?.id ?? '';
  job.change(`Point ${i + 1} of ${line.value?.name ?? ''} removed`, (draft) => {
    draft.hazards?.[of]?.points?.splice(i, 1);
  });
}
function remove({ id, name }: Row): void {
  job.change(`Removed: ${name}`, (draft) => {
    delete draft.hazards?.[id];
  });
}

const runs = computed(() =>
  Object.entries(job.design.runs ?? {}).map(([id, { tag: name }]) => ({ id, name })),
);
/** Distance of a run to a line, as judged. */
function distance(run: Id, hazard: Id): { text: string; bad: boolean } {
  const check = job.checks.find(
    ({ rule, subjects }) =>
      rule.id === 'route.separation' && subjects.includes(run) && subjects.includes(hazard),
  );
  if (check === undefined || check.state === 'not-checked') return { text: 'not checked', bad: false };
  const found = check.values.find(({ label }) => label === 'distance')?.value ?? 0;
  return { text: formatNumber(found), bad: check.state === 'raised' };
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="lines-title" data-lines>
    <div class="card-head">
      <h2 id="lines-title">Lines to stay away from</h2>
      <span class="hint"
        >brake, fuel, coolant, looms, shafts, exhaust, whatever moves; the middle of each</span
      >
    </div>
    <div class="split">
      <div>
        <EditGrid
          v-if="hazards.length > 0"
          label="Lines to stay away from"
          :rows="hazards"
          :columns="hazardColumns"
          :picked="line?.id ?? null"
          @pick="picked = $event"
        >
          <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
        </EditGrid>
        <p v-else class="soft">None yet.</p>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="addHazard">Another line</BButton>
      </div>
      <div v-if="line" class="points">
        <h3>{{ line.name }}</h3>
        <EditGrid
          v-if="pointRows.length > 0"
          :key="line.id"
          :label="`Points of ${line.name}`"
          :rows="pointRows"
          :columns="pointColumns"
        >
          <template #remove="{ row }"
            ><RemoveButton :name="row.name" @remove="removePoint(row.i)"
          /></template>
        </EditGrid>
        <p v-else class="soft">No points yet: two or more say where it runs.</p>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="addPoint">Another point</BButton>
      </div>
    </div>
  </section>
  <section v-if="runs.length > 0 && hazards.length > 0" class="sheet-card" aria-labelledby="distances-title">
    <div class="card-head">
      <h2 id="distances-title">Distances</h2>
      <span class="hint"
        >mm from the outside of the cable or conduit to the outside of the line, at the nearest spot</span
      >
    </div>
    <table class="grid-table distances">
      <thead>
        <tr>
          <th scope="col">run</th>
          <th v-for="one in hazards" :key="one.id" scope="col" class="num">{{ one.name }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in runs" :key="one.id">
          <th scope="row">{{ one.name }}</th>
          <td
            v-for="hazard in hazards"
            :key="hazard.id"
            class="num"
            :class="{ bad: distance(one.id, hazard.id).bad }"
          >
            {{ distance(one.id, hazard.id).text }}
          </td>
        </tr>
      </tbody>
    </table>
  </section>
  <ZoneTable />
  <DatumTable />
  <section class="sheet-card" aria-labelledby="places-title">
    <div class="card-head">
      <h2 id="places-title">Places of devices</h2>
      <span class="hint">middle of each in the vehicle frame, outer sizes; boxes have theirs in Pack</span>
    </div>
    <EditGrid v-if="devices.length > 0" label="Places of devices" :rows="devices" :columns="deviceColumns" />
    <p v-else class="soft">No devices yet: they are named in Pack.</p>
  </section>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 1rem;
}

h3 {
  font-size: 0.95rem;
  margin: 0 0 0.3rem;
}

.btn {
  margin-top: 0.4rem;
}

.points {
  max-width: 34rem;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}

.distances {
  width: auto;
}

@media (max-width: 1100px) {
  .split {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
