<script setup lang="ts">
import { computed } from 'vue';
import ChoiceCell from '../../parts/ChoiceCell.vue';
import PartCell from '../../parts/PartCell.vue';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import { endsChoices, polesChoices } from './choices';
import { useJob } from '../../stores/job';

/** What breaks each string, and where strings and mains sit. */
const job = useJob();
interface Row {
  id: string;
  name: string;
  modules: number;
}
const rows = computed(() =>
  Object.entries(job.design.strings).map(([id, { tag, modules }]): Row => ({
    id,
    name: tag,
    modules: modules.length,
  })),
);
const boxes = computed(() =>
  Object.entries(job.design.boxes).map(([id, { tag }]) => ({ value: id, text: tag })),
);
const slot = (id: string, title: string, label: string, width: string): GridColumn<Row> => ({
  id,
  title,
  kind: 'slot',
  label,
  width,
});
const columns: GridColumn<Row>[] = [
  {
    id: 'tag',
    title: 'String',
    kind: 'text',
    label: 'Name',
    required: true,
    path: ({ id }) => `strings.${id}.tag`,
    width: '5rem',
  },
  slot('disconnectAt', 'disconnect at', 'Service disconnect', '8rem'),
  slot('fuse', 'fuse', 'Fuse', '6rem'),
  slot('fuseAt', 'fuse at', 'Place of the fuse', '7.5rem'),
  slot('contactor', 'contactors', 'Contactors', '6rem'),
  slot('poles', 'open', 'Poles', '6rem'),
  slot('contactorsIn', 'they sit', 'Place of the contactors', '8.5rem'),
  slot('ends', 'walls', 'Cable ends', '8rem'),
];
/** Joints by the modules they lie between. */
const joints = ({ id, modules }: Row) =>
  Array.from({ length: Math.max(modules - 1, 0) }, (_, i) => {
    const list = job.design.strings[id]!.modules;
    const short = (at: number) => (job.design.modules[list[at]!]?.tag ?? '').replace(/^.*-/, '');
    return { value: i + 1, text: `${short(i)}–${short(i + 1)}` };
  });
const fuseJoints = (row: Row) => [{ value: 0, text: 'positive end' }, ...joints(row)];
const places = [
  { value: 'string', text: 'at its positive end' },
  { value: 'combiner', text: 'where strings meet' },
];
</script>

<template>
  <div data-path="strings">
    <EditGrid v-if="rows.length > 0" label="Strings" :rows="rows" :columns="columns">
      <template #disconnectAt="{ row }">
        <ChoiceCell
          :path="`strings.${row.id}.disconnectAt`"
          :label="`Service disconnect of ${row.name}`"
          :options="joints(row)"
          none="none"
        />
      </template>
      <template #fuse="{ row }">
        <PartCell :path="`strings.${row.id}.fuse`" kind="fuse" :label="`Fuse of ${row.name}`" none="none" />
      </template>
      <template #fuseAt="{ row }">
        <ChoiceCell
          :path="`strings.${row.id}.fuseAt`"
          :label="`Place of the fuse of ${row.name}`"
          :options="fuseJoints(row)"
          none="positive end (default)"
        />
      </template>
      <template #contactor="{ row }">
        <PartCell
          :path="`strings.${row.id}.contactor`"
          kind="contactor"
          :label="`Contactors of ${row.name}`"
          none="none"
        />
      </template>
      <template #poles="{ row }">
        <ChoiceCell
          :path="`strings.${row.id}.contactorPoles`"
          :label="`Poles that ${row.name} opens`"
          :options="polesChoices"
          :none="job.design.strings[row.id]?.contactor ? 'both (default)' : '–'"
        />
      </template>
      <template #contactorsIn="{ row }">
        <ChoiceCell
          :path="`strings.${row.id}.contactorsIn`"
          :label="`Place of the contactors of ${row.name}`"
          :options="places"
          none="positive end (default)"
        />
      </template>
      <template #ends="{ row }">
        <ChoiceCell
          :path="`strings.${row.id}.ends`"
          :label="`Cable ends of ${row.name}`"
          :options="endsChoices"
          none="not given"
        />
      </template>
    </EditGrid>
    <p v-else class="soft">No string yet: the pack’s modules are chosen in Pack.</p>
    <div class="boxes">
      <label
        >Strings meet in
        <ChoiceCell
          path="pack.combinerBox"
          label="Strings meet in"
          :options="boxes"
          none="the mains’ box (default)"
        />
      </label>
      <label
        >Mains and bus sit in
        <ChoiceCell
          path="pack.mainsBox"
          label="Mains and bus sit in"
          :options="boxes"
          none="box of the positive end (default)"
        />
      </label>
    </div>
  </div>
</template>

<style scoped>
.boxes {
  display: flex;
  gap: 1.2rem;
  margin-top: 0.6rem;
  flex-wrap: wrap;
}

.boxes label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  font-size: 0.9rem;
}

.boxes select {
  width: 15rem;
}
</style>
