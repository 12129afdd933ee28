<script setup lang="ts">
import { screenEnds, senseMarkings, sheaths, type ScreenEnd, type Sheath } from '@torvek/core/document';
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import TextField from '../../parts/TextField.vue';
import { useJob } from '../../stores/job';

/** How cables are known and screened, how sense leads are told from them, and what charges the pack. */
const job = useJob();
interface Row {
  id: string;
  name: string;
}
const named = (all: Record<string, { tag: string }>) =>
  Object.entries(all).map(([id, { tag }]): Row => ({ id, name: tag }));
const cables = computed(() => named(job.design.circuits));
const chargers = computed(() =>
  named(Object.fromEntries(Object.entries(job.design.devices).filter(([, { kind }]) => kind === 'charger'))),
);
const ends: Record<ScreenEnd, string> = {
  clamp: 'clamped all round',
  pigtail: 'led off by a tail',
  open: 'open',
};
const colours: Record<Sheath, string> = {
  orange: 'orange',
  'orange-sleeve': 'in an orange sleeve',
  other: 'another colour',
};
const yesNo = (yes: string, no: string) => () => [
  { value: true, text: yes },
  { value: false, text: no },
];
const ask = () => '?';
const at = (head: string, field: string) => (row: Row) => `${head}.${row.id}.${field}`;
const end = (field: 'screenFrom' | 'screenTo', title: string): GridColumn<Row> => ({
  id: field,
  title,
  kind: 'choice',
  label: title,
  path: (row) => (job.design.circuits[row.id]?.screened === true ? `circuits.${row.id}.${field}` : null),
  choices: () => screenEnds.map((value) => ({ value, text: ends[value] })),
  none: ask,
});
const cableColumns: GridColumn<Row>[] = [
  { id: 'tag', title: 'cable of', kind: 'slot', label: 'Cable', width: '9rem' },
  {
    id: 'sheath',
    title: 'sheath',
    kind: 'choice',
    label: 'Sheath',
    path: at('circuits', 'sheath'),
    choices: () => sheaths.map((value) => ({ value, text: colours[value] })),
    none: ask,
  },
  {
    id: 'screened',
    title: 'screen',
    kind: 'choice',
    label: 'Screen',
    path: at('circuits', 'screened'),
    choices: yesNo('screened', 'none'),
    none: ask,
  },
  end('screenFrom', 'its end at the source'),
  end('screenTo', 'its end at the device'),
];
const chargerColumns: GridColumn<Row>[] = [
  { id: 'tag', title: 'charger', kind: 'slot', label: 'Charger', width: '12rem' },
  {
    id: 'isolation',
    title: 'mains and pack',
    kind: 'choice',
    label: 'Mains and pack',
    path: at('devices', 'isolation'),
    choices: () => [
      { value: 'isolated', text: 'isolated from each other' },
      { value: 'none', text: 'not isolated' },
    ],
    none: ask,
  },
  {
    id: 'unattended',
    title: 'runs',
    kind: 'choice',
    label: 'Runs',
    path: at('devices', 'unattended'),
    choices: yesNo('with nobody there', 'only attended'),
    none: ask,
  },
  {
    id: 'ownCutOff',
    title: 'ends',
    kind: 'choice',
    label: 'Ends',
    path: at('devices', 'ownCutOff'),
    choices: yesNo('by its own voltage', 'by nothing of its own'),
    none: ask,
  },
];
const sleeve = computed(() => job.design.settings.senseMarking === 'sleeve');
const markingWords = { orange: 'orange as well', sleeve: 'in sleeves of another colour' } as const;
</script>

<template>
  <section class="sheet-card" aria-labelledby="marking-title" data-marking>
    <div class="card-head">
      <h2 id="marking-title">Screens and marking</h2>
      <span class="hint">orange marks what is of high voltage; screens end in a clamp all round</span>
    </div>
    <EditGrid label="Screens and sheaths" :rows="cables" :columns="cableColumns">
      <template #tag="{ row }">{{ row.name }}</template>
    </EditGrid>
    <div class="sense">
      <ChoiceField
        path="settings.senseMarking"
        label="Thin sense leads are"
        :options="senseMarkings.map((value) => ({ value, text: markingWords[value] }))"
        none="orange as well, default"
      />
      <TextField v-if="sleeve" path="settings.sleeveColour" label="Colour of the sleeves" />
    </div>
  </section>
  <section class="sheet-card" aria-labelledby="sources-title" data-sources>
    <div class="card-head">
      <h2 id="sources-title">What charges the pack</h2>
      <span class="hint">a source that is not isolated ties the pack to the mains</span>
    </div>
    <p v-if="chargers.length === 0" class="panel-empty">No charger among the devices: Pack has them.</p>
    <EditGrid v-else label="Chargers" :rows="chargers" :columns="chargerColumns">
      <template #tag="{ row }">{{ row.name }}</template>
    </EditGrid>
  </section>
</template>

<style scoped>
.sense {
  display: grid;
  grid-template-columns: 25rem minmax(0, 20rem);
  gap: 0.8rem;
  align-items: center;
  margin-top: 0.6rem;
  font-size: 0.9rem;
}

@media (max-width: 900px) {
  .sense {
    grid-template-columns: 1fr;
  }
}
</style>
