<script setup lang="ts">
import type { Check, FigureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import GradeMark from '../../parts/GradeMark.vue';
import PrintSheet from '../../parts/PrintSheet.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { useJob } from '../../stores/job';
import LoadCell from './LoadCell.vue';
import { useCircuit } from './use-circuit';

/** Every circuit of the vehicle: its load, its parts, its faults, and how each criterion stands. */
const job = useJob();
const router = useRouter();
const route = useRoute();
const { circuitId } = useCircuit();
interface Row {
  id: string;
  name: string;
}
const rows = computed(() =>
  Object.entries(job.design.circuits).map(([id, { tag }]): Row => ({ id, name: tag })),
);
const value = (id: FigureId) => job.figure(id)?.value ?? null;
const kilo = (amperes: number | null) => (amperes === null ? '?' : formatNumber(amperes / 1000, 2));

/** A steady load, or rms and peak of a profile. */
function loadText(id: string): string {
  const [rms, peak] = [value(`network.load:${id}:rmsA`), value(`network.load:${id}:peakA`)];
  if (rms === null) return '';
  return peak === null || Math.abs(rms - peak) < 1e-9
    ? formatNumber(rms)
    : `${formatNumber(rms)} / ${formatNumber(peak)}`;
}

const criteria = [
  { id: 'fuse', title: 'fuse', rooms: ['fuse'] },
  { id: 'cable', title: 'cable', rooms: ['cable', 'cable-duty'] },
  { id: 'contactor', title: 'contacts', rooms: ['contactor'] },
] as const;
const byCircuit = computed(() => {
  const found = new Map<string, Check[]>();
  for (const check of job.checks)
    for (const subject of check.subjects) {
      const [circuit = ''] = subject.split('/');
      if (job.design.circuits[circuit] !== undefined)
        found.set(circuit, [...(found.get(circuit) ?? []), check]);
    }
  return found;
});
const order = { stop: 0, mend: 1, note: 2 };
function verdict(id: string, rooms: readonly string[]) {
  const checks = (byCircuit.value.get(id) ?? []).filter(({ rule }) => rooms.includes(rule.id.split('.')[0]!));
  const raised = checks
    .flatMap((check) => (check.state === 'raised' ? [check] : []))
    .sort((a, b) => order[a.grade] - order[b.grade]);
  const open = checks.filter(({ state }) => state === 'not-checked').length;
  if (raised.length > 0) return { grade: raised[0]!.grade, text: raised[0]!.message, open };
  return {
    grade: null,
    text: checks.length === 0 ? 'none' : open > 0 ? `${open} ${open === 1 ? 'gap' : 'gaps'}` : 'holds',
    open,
  };
}

/** The limit of which most is used. */
function governs(id: string): string {
  const uses: [string, number][] = [];
  const use = (label: string, figureId: FigureId) => {
    const figure = job.figure(figureId);
    if (figure?.value != null && figure.limit?.max !== undefined && figure.limit.max > 0)
      uses.push([label, figure.value / figure.limit.max]);
  };
  use('rating', `fuse.main:${id}:rmsFraction`);
  use('clearing', `fuse.main:${id}:clearAtMinS`);
  use('drop', `conductor.cable:${id}:dropFraction`);
  const [load, ampacity] = [value(`network.load:${id}:rmsA`), value(`conductor.cable:${id}:ampacityA`)];
  if (load !== null && ampacity !== null && ampacity > 0) uses.push(['ampacity', load / ampacity]);
  const peak = job.figure(`conductor.duty:${id}:peakTemperatureC`);
  const ambient = job.design.circuits[id]?.ambientC;
  if (
    peak?.value != null &&
    peak.limit?.max !== undefined &&
    ambient !== undefined &&
    peak.limit.max > ambient
  )
    uses.push(['hottest', (peak.value - ambient) / (peak.limit.max - ambient)]);
  const most = uses.sort((a, b) => b[1] - a[1])[0];
  return most === undefined ? '' : `${most[0]} ${most[1] < 0.01 ? '< 1' : formatNumber(most[1] * 100, 2)} %`;
}
const number = (
  field: string,
  title: string,
  label: string,
  unit: string,
  width: string,
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit,
  path: ({ id }) => `circuits.${id}.${field}`,
  width,
});
const columns: GridColumn<Row>[] = [
  { id: 'tag', title: 'circuit', kind: 'slot', label: 'Circuit', width: '5.2rem' },
  {
    id: 'load',
    title: 'load, A',
    kind: 'slot',
    label: 'Load',
    width: '4.6rem',
    // A block that is copied has it too.
    text: ({ id }) => loadText(id),
  },
  number('lengthM', 'long', 'Length, one way', 'm', '3.3rem'),
  number('ambientC', 'ambient', 'Ambient', '°C', '5rem'),
  {
    id: 'fuse',
    title: 'fuse',
    kind: 'part',
    part: 'fuse',
    label: 'Fuse',
    path: ({ id }) => `circuits.${id}.fuse`,
    width: '4.55rem',
  },
  {
    id: 'contactor',
    title: 'contactors',
    kind: 'part',
    part: 'contactor',
    label: 'Contactors',
    path: ({ id }) => `circuits.${id}.contactor`,
    width: '4.55rem',
  },
  {
    id: 'cable',
    title: 'cable',
    kind: 'part',
    part: 'cable',
    label: 'Cable',
    path: ({ id }) => `circuits.${id}.cable`,
    width: '4.55rem',
  },
  {
    id: 'faults',
    title: 'faults, kA',
    kind: 'fixed',
    label: 'Faults',
    text: ({ id }) => {
      const [low, high] = [
        value(`fuse.fault:${id}/smallest:prospectiveA`),
        value(`fuse.fault:${id}/largest:prospectiveA`),
      ];
      return low === null && high === null ? '' : `${kilo(low)} to ${kilo(high)}`;
    },
    width: '4.4rem',
  },
  ...criteria.map(({ id, title }): GridColumn<Row> => ({
    id: `is-${id}`,
    title: title === 'contacts' ? title : `${title} is`,
    kind: 'slot',
    label: `Verdict on ${title}`,
    width: '3.65rem',
  })),
  {
    id: 'governs',
    title: 'nearest limit',
    kind: 'fixed',
    label: 'Nearest limit',
    text: ({ id }) => governs(id),
  },
];
/** In the panel that is open. */
const open = (id: string) =>
  void router.replace({
    query: { ...(route.query.panel !== undefined && { panel: route.query.panel }), circuit: id },
  });
</script>

<template>
  <section class="sheet-card" aria-label="All circuits" data-circuits>
    <div class="card-head">
      <h2>All circuits</h2>
      <span class="hint">load steady in A or W, or rms / peak of a profile; press one to open it below</span>
      <PrintSheet class="at-end" sheet="circuits" text="Schedule, PDF" />
    </div>
    <EditGrid label="Circuits" :rows="rows" :columns="columns" :picked="circuitId" @pick="open">
      <template #tag="{ row }">
        <button
          type="button"
          class="visually-plain open"
          :aria-pressed="circuitId === row.id"
          @click="open(row.id)"
        >
          {{ row.name }}
        </button>
      </template>
      <template #load="{ row }"
        ><LoadCell :circuit="row.id" :name="row.name" :shown="loadText(row.id)"
      /></template>
      <template v-for="{ id, rooms } in criteria" :key="id" #[`is-${id}`]="{ row }">
        <span
          class="verdict"
          :class="{ bad: verdict(row.id, rooms).grade === 'stop' || verdict(row.id, rooms).grade === 'mend' }"
          :title="verdict(row.id, rooms).text"
        >
          <template v-if="verdict(row.id, rooms).grade !== null">
            <GradeMark :grade="verdict(row.id, rooms).grade!" />
            {{ verdict(row.id, rooms).grade === 'note' ? 'note' : 'fails' }}
          </template>
          <template v-else>{{ verdict(row.id, rooms).text }}</template>
        </span>
      </template>
    </EditGrid>
  </section>
</template>

<style scoped>
.at-end {
  margin-left: auto;
}

[data-circuits] :deep(table) {
  table-layout: fixed;
}

.open {
  text-align: left;
  font-weight: 600;
  color: var(--tv-act);
  text-decoration: underline;
  min-height: 1.7rem;
}

.verdict {
  display: inline-flex;
  gap: 0.3rem;
  align-items: center;
  font-size: 0.85rem;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}
</style>
