<script setup lang="ts">
import { mapStrategies, removeBoard, type Design, type Id } from '@torvek/core/document';
import { figureId, type FigureName } from '@torvek/core/figure';
import { unpinUnused } from '@torvek/core/pack';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { useMap } from '../use-map';
import MapView from './MapView.vue';

/** Which board reads which cells: the string as a ladder, breaks beside it, and what each reaching over costs. */
const job = useJob();
const { strings, stringId, input, result, boards, boardTag, moduleTag, pick } = useMap();
const picked = ref<Id | null>(null);
const fig = (name: FigureName<'monitoring.map'>) => figureId('monitoring.map', stringId.value, name);
const stringTag = computed(() => job.design.strings[stringId.value]?.tag ?? '');
const summary = computed(() => {
  const now = result.value;
  if (stringId.value === '') return 'No string of modules yet: begin in Pack.';
  if (now === null) return `${stringTag.value}: no map yet. It takes boards with their units.`;
  const hard = now.straddles.filter(({ kind }) => kind !== 'link').length;
  return `${stringTag.value}: ${now.boards.length} boards, ${now.wires} sense wires; ${
    now.cellsLeft > 0 ? `${now.cellsLeft} cells are left` : 'every cell has a channel'
  }${hard > 0 ? `; ${hard === 1 ? 'one reaches' : `${hard} reach`} over a break that can open under load` : ''}.`;
});
interface Row {
  id: Id;
  name: string;
}
const rows = computed(() => boards.value.map(([id, { tag }]): Row => ({ id, name: tag })));
const at = (row: Row, field: string) => `boards.${row.id}.${field}`;
const boxes = computed(() =>
  Object.entries(job.design.boxes).map(([value, { tag }]) => ({ value, text: tag })),
);
const number = (field: string, title: string, label: string, width = '5rem'): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'number',
  label,
  unit: '',
  path: (row) => at(row, field),
  width,
});
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'board',
    kind: 'text',
    label: 'Name',
    path: (row) => at(row, 'tag'),
    required: true,
    width: '9rem',
  },
  {
    id: 'unit',
    title: 'unit',
    kind: 'part',
    part: 'unit',
    label: 'Unit',
    path: (row) => at(row, 'unit'),
    width: '14rem',
  },
  number('order', 'place', 'Place in its chain'),
  number('takes', 'takes cells', 'Takes cells', '6rem'),
  {
    id: 'box',
    title: 'sits in',
    kind: 'choice',
    label: 'Sits in',
    path: (row) => at(row, 'box'),
    choices: () => boxes.value,
    none: () => 'not said',
    width: '9rem',
  },
  number('address', 'address', 'Address'),
  {
    id: 'plug',
    title: 'plug',
    kind: 'part',
    part: 'connector',
    label: 'Plug of its sense wires',
    path: (row) => at(row, 'plug'),
    width: '12rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
interface SensorRow {
  id: Id;
  name: string;
}
const sensors = computed(() =>
  Object.entries(job.design.sensors ?? {}).map(([id, { tag }]): SensorRow => ({ id, name: tag })),
);
const sensorAt = (row: SensorRow, field: string) => `sensors.${row.id}.${field}`;
const modules = computed(() =>
  Object.entries(job.design.modules).map(([value, { tag }]) => ({ value, text: tag })),
);
const allBoards = computed(() =>
  Object.entries(job.design.boards ?? {}).map(([value, { tag }]) => ({ value, text: tag })),
);
const devices = computed(() =>
  Object.entries(job.design.devices).map(([value, { tag }]) => ({ value, text: tag })),
);
const sensorColumns: GridColumn<SensorRow>[] = [
  {
    id: 'tag',
    title: 'sensor',
    kind: 'text',
    label: 'Name',
    path: (row) => sensorAt(row, 'tag'),
    required: true,
    width: '10rem',
  },
  {
    id: 'module',
    title: 'in the module',
    kind: 'choice',
    label: 'In the module',
    path: (row) => sensorAt(row, 'module'),
    choices: () => modules.value,
    none: () => 'nowhere',
    width: '10rem',
  },
  {
    id: 'board',
    title: 'read by',
    kind: 'choice',
    label: 'Read by',
    path: (row) => sensorAt(row, 'board'),
    choices: () => allBoards.value,
    none: () => 'nobody',
    width: '10rem',
  },
  {
    id: 'place',
    title: 'place in it',
    kind: 'text',
    label: 'Place in it',
    path: (row) => sensorAt(row, 'place'),
    width: '10rem',
  },
  {
    id: 'meanOf',
    title: 'mean of',
    kind: 'number',
    label: 'Mean of sensors',
    unit: '',
    path: (row) => sensorAt(row, 'meanOf'),
    width: '5rem',
  },
  {
    id: 'alsoFor',
    title: 'also read by',
    kind: 'choice',
    label: 'Also read by',
    path: (row) => sensorAt(row, 'alsoFor'),
    choices: () => devices.value,
    none: () => 'no second path',
    width: '10rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
function addBoard(): void {
  const id = newId('board');
  job.change('Board added', (draft) => {
    draft.sensing ??= {};
    const all = (draft.boards ??= {});
    const own = Object.values(all).filter(({ string }) => string === stringId.value);
    const like = own.at(-1);
    all[id] = {
      tag: `${stringTag.value} board ${own.length + 1}`,
      string: stringId.value,
      order: own.length + 1,
      address: Math.max(0, ...Object.values(all).map(({ address }) => address ?? 0)) + 1,
      ...(like?.unit !== undefined && { unit: like.unit }),
      ...(like?.box !== undefined && { box: like.box }),
    };
  });
  picked.value = id;
}
function drop(row: Row): void {
  job.change(`${row.name} removed`, (draft: Design) => {
    removeBoard(draft, row.id);
    unpinUnused(draft);
  });
}
function addSensor(): void {
  job.change('Temperature sensor added', (draft) => {
    const all = (draft.sensors ??= {});
    all[newId('sensor')] = { tag: `T${Object.keys(all).length + 1}` };
  });
}
const dropSensor = (row: SensorRow) =>
  job.change(`${row.name} removed`, (draft) => void delete draft.sensors?.[row.id]);
</script>

<template>
  <section class="sheet-card" aria-labelledby="map-title" data-map>
    <div class="card-head">
      <h2 id="map-title">Map of the channels</h2>
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
    <p class="sentence" role="status">{{ summary }}</p>
    <MapView
      v-if="input && result"
      :input="input"
      :result="result"
      :picked="picked"
      :summary="summary"
      :board-tag="boardTag"
      :module-tag="moduleTag"
      @pick="picked = $event"
    />
    <div class="figures">
      <FigureValue :id="fig('boards')" label="Boards in use" show-label />
      <FigureValue :id="fig('wires')" label="Sense wires" show-label />
      <FigureValue :id="fig('spareChannels')" label="Channels tied" show-label />
      <FigureValue :id="fig('cellsLeft')" label="Cells left" show-label />
      <FigureValue :id="fig('worstMv')" label="A break adds at most" show-label />
    </div>
    <div class="fields">
      <ChoiceField
        path="sensing.strategy"
        label="Channels are shared out"
        :options="
          mapStrategies.map((value) => ({
            value,
            text: value === 'fill' ? 'cell by cell' : 'module by module',
          }))
        "
        none="cell by cell (default)"
      />
      <ChoiceField
        path="sensing.mayStraddle"
        label="Boards may reach over breaks"
        :options="[
          { value: true, text: 'yes' },
          { value: false, text: 'no' },
        ]"
        none="no (default)"
      />
    </div>
    <EditGrid
      v-if="rows.length > 0"
      :key="stringId"
      label="Boards"
      :rows="rows"
      :columns="columns"
      :picked="picked"
      @pick="picked = $event"
    >
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="drop(row)" /></template>
    </EditGrid>
    <BButton
      class="add"
      size="sm"
      variant="light"
      :disabled="!job.editable || stringId === ''"
      @click="addBoard"
      >Another board</BButton
    >
  </section>
  <section class="sheet-card" aria-labelledby="sensors-title" data-sensors>
    <div class="card-head"><h2 id="sensors-title">Temperature sensors</h2></div>
    <EditGrid v-if="sensors.length > 0" label="Temperature sensors" :rows="sensors" :columns="sensorColumns">
      <template #remove="{ row }"><RemoveButton :name="row.name" @remove="dropSensor(row)" /></template>
    </EditGrid>
    <p v-else class="panel-empty">No sensor yet: one in each module, the ends of rows first.</p>
    <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="addSensor"
      >Another sensor</BButton
    >
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.sentence {
  margin: 0 0 0.3rem;
}

.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.5rem 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  margin-bottom: 0.5rem;
}

.add {
  margin-top: 0.4rem;
}
</style>
