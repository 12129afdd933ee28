<script setup lang="ts">
import type { FigureName } from '@torvek/core/figure';
import { busbarMaterials, defaultBarMaxC } from '@torvek/core/conductor';
import { coatings, type Coating } from '@torvek/core/document';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../api/client';
import RemoveButton from '../../parts/RemoveButton.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { download, fileName } from '../../parts/pdf';
import { useJob } from '../../stores/job';
import { barDxf, barSvg, drawBar } from './bar-drawing';

/** Bus bars where two posts are closer than a cable with two lugs can be: computed, drawn to scale, taken away to be cut. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const bars = computed(() => job.design.pack.busbars ?? {});
const rows = computed(() => Object.entries(bars.value).map(([id, { tag }]): Row => ({ id, name: tag })));
const chosen = ref('');
const picked = computed(
  () => (bars.value[chosen.value] === undefined ? rows.value[0]?.id : chosen.value) ?? null,
);
const at = (field: string) => (row: Row) => `pack.busbars.${row.id}.${field}`;
const mm = (field: string, title: string, width = '4.2rem'): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  unit: 'mm',
  label: title,
  path: at(field),
  width,
});
const figure = (id: string, name: FigureName<'busbar.bar'>) => job.figure(`busbar.bar:${id}:${name}`);
const coats: Record<Coating, string> = {
  bare: 'bare',
  dipped: 'dipped',
  powder: 'powder',
  sleeve: 'sleeved',
};
const columns: GridColumn<Row>[] = [
  { id: 'tag', title: 'bar', kind: 'text', label: 'Name', required: true, path: at('tag'), width: '6rem' },
  {
    id: 'circuit',
    title: 'carries',
    kind: 'choice',
    label: 'Current of',
    path: at('circuit'),
    choices: () => Object.entries(job.design.circuits).map(([value, { tag }]) => ({ value, text: tag })),
    none: () => 'as typed',
    width: '5.6rem',
  },
  {
    id: 'currentA',
    title: 'or',
    kind: 'number',
    unit: 'A',
    label: 'Current',
    path: at('currentA'),
    width: '3.6rem',
  },
  {
    id: 'material',
    title: 'metal',
    kind: 'choice',
    label: 'Metal',
    path: at('material'),
    choices: () => busbarMaterials.map((value) => ({ value, text: value })),
    none: () => 'copper, default',
    width: '5.4rem',
  },
  mm('widthMm', 'wide', '3.8rem'),
  mm('thicknessMm', 'thick', '3.8rem'),
  mm('betweenMm', 'studs'),
  mm('holeMm', 'hole', '3.8rem'),
  mm('flexMm', 'flexible'),
  {
    id: 'coating',
    title: 'coating',
    kind: 'choice',
    label: 'Coating',
    path: at('coating'),
    choices: () => coatings.map((value) => ({ value, text: coats[value] })),
    none: () => '?',
    width: '5.2rem',
  },
  {
    id: 'temperature',
    title: 'reaches',
    kind: 'fixed',
    label: 'Temperature',
    text: ({ id }) => {
      const value = figure(id, 'temperatureC')?.value;
      return value == null ? '—' : formatQuantity(value, '°C');
    },
    width: '4.4rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
const drawing = computed(() => {
  const bar = picked.value === null ? undefined : bars.value[picked.value];
  return bar === undefined ? null : drawBar(bar);
});
const facts = computed(() => {
  const id = picked.value;
  if (id === null) return '';
  const say = (name: FigureName<'busbar.bar'>, label: string, unit: string) => {
    const value = figure(id, name)?.value;
    return value == null ? [] : [`${label} ${formatQuantity(value, unit)}`];
  };
  return [
    ...say('temperatureC', 'reaches', '°C'),
    ...say('lossW', 'loses', 'W'),
    ...say('densityAtHoleAPerMm2', 'beside the hole', 'A/mm²'),
    ...say('expansionMmPer50K', 'grows over 50 K by', 'mm'),
  ].join(', ');
});

function add(): void {
  const id = newId('busbar');
  job.change('Bus bar added', (draft) => {
    draft.pack.busbars ??= {};
    draft.pack.busbars[id] = { tag: `Bar ${Object.keys(draft.pack.busbars).length + 1}`, holeMm: 8.4 };
  });
  chosen.value = id;
}
function remove(id: string): void {
  job.change(`Bus bar removed: ${bars.value[id]?.tag ?? ''}`, (draft) => {
    delete draft.pack.busbars?.[id];
  });
}
const save = async (kind: 'svg' | 'dxf') => {
  if (drawing.value === null) return;
  const text = kind === 'svg' ? barSvg(drawing.value) : await barDxf(drawing.value);
  const type = kind === 'svg' ? 'image/svg+xml' : 'application/dxf';
  download(new Blob([text], { type }), fileName(job.name, drawing.value.tag.replace(/[^\w-]+/g, '-'), kind));
};
const marginMm = 14;
</script>

<template>
  <section class="sheet-card" aria-label="Bus bars" data-busbars>
    <div class="card-head">
      <h2>Bus bars</h2>
      <span class="hint"
        >where two posts are closer than a cable with two lugs can be; limit
        {{ formatNumber(defaultBarMaxC) }} °C by default</span
      >
      <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
        >Add a bar</BButton
      >
    </div>
    <p v-if="rows.length === 0" class="panel-empty">No bus bar yet.</p>
    <template v-else>
      <EditGrid label="Bus bars" :rows="rows" :columns="columns" :picked="picked" @pick="chosen = $event">
        <template #remove="{ row }">
          <RemoveButton :name="row.name" @remove="remove(row.id)" />
        </template>
      </EditGrid>
      <div v-if="drawing !== null" class="drawn">
        <svg
          :viewBox="`${-marginMm} ${-marginMm} ${drawing.lengthMm + 2 * marginMm} ${drawing.widthMm + 2 * marginMm + 6}`"
          role="img"
          :aria-label="drawing.notes.join('; ')"
        >
          <rect class="bar" x="0" y="0" :width="drawing.lengthMm" :height="drawing.widthMm" />
          <rect
            v-if="drawing.flex"
            class="flex"
            :x="drawing.flex.fromMm"
            y="0"
            :width="drawing.flex.toMm - drawing.flex.fromMm"
            :height="drawing.widthMm"
          />
          <circle
            v-for="hole in drawing.holes"
            :key="hole.xMm"
            class="hole"
            :cx="hole.xMm"
            :cy="hole.yMm"
            :r="hole.diameterMm / 2"
          />
          <text class="size" :x="drawing.lengthMm / 2" y="-4" text-anchor="middle">
            {{ formatNumber(drawing.lengthMm, 4) }} mm
          </text>
          <text class="size" x="-3" :y="drawing.widthMm / 2 + 2" text-anchor="end">
            {{ formatNumber(drawing.widthMm) }}
          </text>
          <text
            v-for="hole in drawing.holes"
            :key="`t${hole.xMm}`"
            class="size"
            :x="hole.xMm"
            :y="drawing.widthMm + 6"
            text-anchor="middle"
          >
            ⌀ {{ formatNumber(hole.diameterMm) }}
          </text>
          <text
            v-if="drawing.flex"
            class="size"
            :x="drawing.lengthMm / 2"
            :y="drawing.widthMm + 6"
            text-anchor="middle"
          >
            flexible
          </text>
        </svg>
        <p>{{ facts || 'Not computed yet: the current, the sizes or the studs are missing.' }}</p>
        <div class="acts">
          <BButton size="sm" variant="light" @click="save('dxf')">DXF to cut</BButton>
          <BButton size="sm" variant="light" @click="save('svg')">SVG, full size</BButton>
        </div>
      </div>
      <p v-else class="soft">Drawn as soon as width, thickness and the distance of the studs are given.</p>
    </template>
  </section>
</template>

<style scoped>
.add {
  margin-left: auto;
}

.drawn {
  margin-top: 0.6rem;
}

.drawn svg {
  max-width: 100%;
  height: 180px;
}

.bar {
  fill: var(--tv-hv-fill);
  opacity: 0.55;
  stroke: var(--tv-ink);
  stroke-width: 0.5;
}

.flex {
  fill: none;
  stroke: var(--tv-ink);
  stroke-width: 0.5;
  stroke-dasharray: 3 1.5;
}

.hole {
  fill: var(--tv-sheet);
  stroke: var(--tv-ink);
  stroke-width: 0.5;
}

.size {
  font-size: 5px;
  fill: var(--tv-ink);
}

.drawn p {
  margin: 0.3rem 0;
}

.acts {
  display: flex;
  gap: 0.6rem;
}
</style>
