<script setup lang="ts">
import { closings, passings, wallFaces, type Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../../api/client';
import FigureValue from '../../../parts/FigureValue.vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { gone, number, rowsOf, tag, type Row } from '../lines/columns';
import { unlisted } from './unlisted';

/** Every opening in a wall: what passes it, what closes it, and whether there is room to bend behind it. */
const job = useJob();
const openings = computed(() => rowsOf(job.design.openings));
const choice = (
  field: string,
  title: string,
  label: string,
  options: () => { value: string; text: string }[],
  width: string,
  none = 'not said',
): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'choice',
  label,
  path: ({ id }) => `openings.${id}.${field}`,
  choices: options,
  none: () => none,
  width,
});
const words = (values: readonly string[]) => values.map((value) => ({ value, text: value }));
const named = (things: Record<Id, { tag: string }> = {}) =>
  Object.entries(things).map(([value, { tag: text }]) => ({ value, text }));
const columns: GridColumn<Row>[] = [
  { ...tag('openings', 'opening'), width: '8rem' },
  choice('box', 'in', 'In a wall of', () => named(job.design.boxes), '8rem', 'the vehicle'),
  choice('face', 'face', 'Face', () => words(wallFaces), '5.6rem'),
  choice('passes', 'passes', 'Passes', () => words(passings), '5.8rem'),
  choice('run', 'run', 'The run', () => named(job.design.runs), '7.5rem', 'none'),
  choice('by', 'closed by', 'Closed by', () => words(closings), '6.4rem'),
  { ...number('openings', 'count', 'times', 'How many', ''), width: '3.4rem' },
  { ...number('openings', 'holeMm', 'hole', 'Hole', 'mm'), width: '4.4rem' },
  { ...number('openings', 'insideMm', 'inside', 'Room inside', 'mm'), width: '4.6rem' },
  { ...number('openings', 'outsideMm', 'outside', 'Room outside', 'mm'), width: '4.8rem' },
  gone,
];
const more: GridColumn<Row>[] = [
  { id: 'name', title: 'opening', kind: 'fixed', label: 'Name', text: ({ name }) => name, width: '12rem' },
  { ...number('openings', 'stiffMm', 'stiff behind', 'Stiff behind the wall', 'mm'), width: '7rem' },
  {
    id: 'behind',
    title: 'behind it lies',
    kind: 'text',
    label: 'Behind it lies',
    path: ({ id }) => `openings.${id}.behind`,
    width: '26rem',
  },
];
const faces = computed(() => {
  const subjects = Object.values(job.design.openings ?? {}).flatMap(({ box, face }) =>
    box === undefined || face === undefined ? [] : [{ box, face }],
  );
  const known = new Map(subjects.map((one) => [`${one.box}/${one.face}`, one]));
  return [...known].map(([subject, { box, face }]) => ({
    id: figureId('routing.face', subject, 'takenMm'),
    words: `${job.design.boxes[box]?.tag ?? ''}, ${face}`,
  }));
});
const waiting = computed(() => unlisted(job.design));

function add(given: { box?: Id; run?: Id; hose?: boolean } = {}): void {
  const id = newId('opening');
  job.change('Opening in a wall added', (draft) => {
    const count = Object.keys((draft.openings ??= {})).length;
    const run = draft.runs?.[given.run ?? ''];
    draft.openings[id] = {
      tag: run === undefined ? `Opening ${count + 1}` : run.tag,
      ...(given.box !== undefined && { box: given.box }),
      ...(given.run !== undefined && { run: given.run, passes: given.hose === true ? 'hose' : 'cables' }),
    };
  });
}
function remove({ id, name }: Row): void {
  job.change(`Removed: ${name}`, (draft) => {
    delete draft.openings?.[id];
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="walls-title" data-walls>
    <div class="card-head">
      <h2 id="walls-title">Openings in walls</h2>
      <span class="hint"
        >of boxes and of the vehicle: cables, hoses, looms, vents, and holes that stay unused</span
      >
    </div>
    <EditGrid v-if="openings.length > 0" label="Openings in walls" :rows="openings" :columns="columns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
    </EditGrid>
    <p v-else class="soft">
      None yet. With its hole, what closes it and the room on both sides, an opening is judged for its gland,
      for the bend behind it, and for what would get in.
    </p>
    <div class="acts">
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="add()">Another opening</BButton>
      <span v-if="waiting.length > 0" class="soft">Runs that end at a box without one:</span>
      <BButton
        v-for="one in waiting"
        :key="`${one.run}/${one.box}`"
        size="sm"
        variant="light"
        :disabled="!job.editable"
        @click="add(one)"
        >{{ one.words }}</BButton
      >
    </div>
  </section>
  <section v-if="openings.length > 0" class="sheet-card" aria-labelledby="behind-title">
    <div class="card-head">
      <h2 id="behind-title">Behind them</h2>
      <span class="hint"
        >stiff 40 mm unless said: nut, cap and what of the cable does not bend; what a drill would meet</span
      >
    </div>
    <EditGrid label="Behind the openings" :rows="openings" :columns="more" />
    <div v-if="faces.length > 0" class="figure-row" data-faces>
      <span class="soft">Side by side, with room for the spanner:</span>
      <FigureValue v-for="one in faces" :id="one.id" :key="one.id" :label="one.words" show-label />
    </div>
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  margin-top: 0.5rem;
}

.figure-row {
  margin-top: 0.6rem;
}
</style>
