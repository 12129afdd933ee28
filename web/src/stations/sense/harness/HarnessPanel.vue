<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import type { Label } from '../../../parts/labels';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import LabelButton from '../../../parts/LabelButton.vue';
import NumberField from '../../../parts/NumberField.vue';
import { saveCsv } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import { cutRows, harnessRows, harnessTable } from './harness';

/** The sense harness as it follows from the map: every wire from its tap to its pin. */
const job = useJob();
const { strings, stringId, wires, result, pick } = useMap();
const all = computed(() =>
  harnessRows(
    wires.value,
    {
      boards: job.design.boards ?? {},
      modules: job.design.modules,
      senseWires: job.design.senseWires ?? {},
      pack: job.design.pack,
    },
    stringId.value,
  ),
);
const board = ref<Id | null>(null);
const boards = computed(() => result.value?.boards ?? []);
const shown = computed(() =>
  board.value === null ? all.value : all.value.filter((one) => one.board === board.value),
);
interface Row {
  id: string;
  name: string;
  index: number;
}
const rows = computed(() => shown.value.map(({ id, label }, index): Row => ({ id, name: label, index })));
const at = (row: Row) => shown.value[row.index]!;
const columns: GridColumn<Row>[] = [
  {
    id: 'number',
    title: 'wire',
    kind: 'text',
    label: 'Wire',
    path: () => null,
    text: (row) => String(at(row).number),
    width: '3.4rem',
  },
  {
    id: 'label',
    title: 'label',
    kind: 'text',
    label: 'Label',
    path: () => null,
    text: (row) => at(row).label,
    width: '8rem',
  },
  {
    id: 'from',
    title: 'from',
    kind: 'text',
    label: 'From',
    path: () => null,
    text: (row) => at(row).from,
    width: '16rem',
  },
  {
    id: 'board',
    title: 'to board',
    kind: 'text',
    label: 'To board',
    path: () => null,
    text: (row) => at(row).boardTag,
    width: '8rem',
  },
  { id: 'pin', title: 'pin', kind: 'fixed', label: 'Pin', text: (row) => String(at(row).pin), width: '3rem' },
  {
    id: 'colour',
    title: 'colour',
    kind: 'text',
    label: 'Colour',
    path: () => null,
    text: (row) => at(row).colour,
    width: '6rem',
  },
  {
    id: 'long',
    title: 'm',
    kind: 'fixed',
    label: 'Length',
    text: (row) => (at(row).lengthM === null ? '' : String(at(row).lengthM)),
    width: '4rem',
  },
  {
    id: 'fuse',
    title: 'fuse, A',
    kind: 'fixed',
    label: 'Fuse',
    text: (row) => (at(row).fuseA === null ? '' : String(at(row).fuseA)),
    width: '4rem',
  },
];
const labels = computed((): Label[] =>
  shown.value
    .filter(({ what }) => what !== 'tie')
    .map((row) => ({
      title: row.label,
      lines: [row.from, row.colour],
      path: `sense?panel=harness&string=${stringId.value}`,
    })),
);
/** Length of every wire of the shown boards in one step; single ones are overridden by their ids. */
const lengthM = ref('');
const lengthProblem = ref<string | null>(null);
function setLengths(): void {
  const value = Number(lengthM.value.replace(',', '.'));
  lengthProblem.value = value > 0 && value < 20 ? null : 'a length between 0 and 20 m';
  if (lengthProblem.value !== null) return;
  job.change(`Sense wires: ${value} m`, (draft) => {
    const own = (draft.senseWires ??= {});
    for (const row of shown.value)
      if (row.what === 'tap' || row.what === 'reference')
        own[row.id] = { ...own[row.id], tag: row.label, lengthM: value };
  });
}
const sense = computed(() => Object.keys(job.design.pack.sense ?? {})[0]);
</script>

<template>
  <section class="sheet-card" aria-labelledby="harness-title" data-harness>
    <div class="card-head">
      <h2 id="harness-title">Sense harness</h2>
      <div class="chips" role="group" aria-label="Strings">
        <button
          v-for="one in strings"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === stringId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === stringId"
          @click="pick(one.id)"
        >
          {{ one.tag }}
        </button>
      </div>
    </div>
    <p v-if="all.length === 0" class="panel-empty">
      No harness yet: it follows from the map. Donor boards that stay in their modules need none.
    </p>
    <template v-else>
      <div class="chips" role="group" aria-label="Boards">
        <button
          type="button"
          class="btn btn-sm"
          :class="board === null ? 'btn-primary' : 'btn-light'"
          :aria-pressed="board === null"
          @click="board = null"
        >
          all {{ all.length }} wires
        </button>
        <button
          v-for="one in boards"
          :key="one.id"
          type="button"
          class="btn btn-sm"
          :class="one.id === board ? 'btn-primary' : 'btn-light'"
          :aria-pressed="one.id === board"
          @click="board = one.id"
        >
          {{ job.design.boards?.[one.id]?.tag }}
        </button>
      </div>
      <div class="chips tools">
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'sense-harness', harnessTable(shown))"
          >Wires, CSV</BButton
        >
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'sense-cuts', cutRows(all))"
          >Cut list, CSV</BButton
        >
        <LabelButton what="sense wires" :labels="labels" />
        <label class="length">
          every wire shown, m
          <input
            v-model="lengthM"
            class="form-control"
            inputmode="decimal"
            aria-label="Length of every wire shown, m"
            @keydown.enter="setLengths"
          />
        </label>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="setLengths">Set</BButton>
        <span v-if="lengthProblem" role="alert">{{ lengthProblem }}</span>
      </div>
      <EditGrid :key="`${stringId} ${board}`" label="Sense wires" :rows="rows" :columns="columns" />
      <div v-if="sense" class="fields">
        <NumberField :path="`pack.sense.${sense}.areaMm2`" label="Area of the leads" />
        <NumberField :path="`pack.sense.${sense}.fuseA`" label="Fuse of the leads" />
      </div>
      <p class="soft">
        Ties are bridges in the plug to the wire of the top cell; a jumper comes from the pin of the board
        before. Fuses sit at the taps.
      </p>
    </template>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
}

.tools {
  margin: 0.4rem 0;
}

.length {
  display: flex;
  gap: 0.4rem;
  align-items: center;
  margin-left: auto;
}

.length input {
  width: 5rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  margin-top: 0.4rem;
}
</style>
