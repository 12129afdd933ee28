<script setup lang="ts">
import { removeColour, type Design, type Id } from '@torvek/core/document';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, onMounted, ref } from 'vue';
import { api, newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import { removeColumn, tagColumn, thingsOf, type Thing as Row } from '../../../parts/grid/things';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';

/** The shop’s code of colours: what wires of each purpose look like; a job may take it from another. */
const job = useJob();
const rows = computed(() => thingsOf(job.design.colours));
const used = (id: Id) => Object.values(job.design.wires ?? {}).filter(({ code }) => code === id).length;
const columns: GridColumn<Row>[] = [
  tagColumn('colours', 'purpose', '16rem'),
  {
    id: 'colour',
    title: 'colour',
    kind: 'text',
    label: 'Colour',
    path: ({ id }) => `colours.${id}.colour`,
    width: '12rem',
  },
  {
    id: 'used',
    title: 'wires',
    kind: 'fixed',
    label: 'Wires that go by it',
    text: ({ id }) => String(used(id)),
    width: '4rem',
  },
  removeColumn,
];
function add(): void {
  job.change('Colour added', (draft) => {
    const all = (draft.colours ??= {});
    all[newId('colour')] = { tag: `Purpose ${Object.keys(all).length + 1}` };
  });
}
const remove = (row: Row) =>
  job.change(`${row.name} removed`, (draft: Design) => removeColour(draft, row.id));

const others = ref<{ id: string; name: string }[]>([]);
const from = ref('');
const told = ref<string | null>(null);
onMounted(async () => {
  try {
    const jobs = await api.get<{ id: string; name: string }[]>('/jobs');
    others.value = jobs.filter(({ id }) => id !== job.id);
  } catch {
    // Without the list there is nothing to take from; the table itself works.
    others.value = [];
  }
});
async function takeFrom(): Promise<void> {
  const [id, open] = [from.value, job.id];
  if (id === '') return;
  told.value = null;
  let theirs: NonNullable<Design['colours']>;
  try {
    theirs = (await api.get<{ design: Design }>(`/jobs/${id}`)).design.colours ?? {};
  } catch (error) {
    told.value = error instanceof Error ? error.message : 'That job could not be read.';
    return;
  }
  // Another job may be open by now.
  if (job.id !== open) return;
  const known = new Set(Object.values(job.design.colours ?? {}).map(({ tag }) => tag.toLowerCase()));
  const fresh = Object.values(theirs).filter(({ tag }) => !known.has(tag.toLowerCase()));
  told.value =
    fresh.length === 0
      ? 'Nothing there that is not here already.'
      : `${fresh.length} ${fresh.length === 1 ? 'colour' : 'colours'} taken.`;
  if (fresh.length > 0)
    job.change('Colours of another job', (draft) => {
      const all = (draft.colours ??= {});
      for (const one of fresh) all[newId('colour')] = { ...one };
    });
  from.value = '';
}
</script>

<template>
  <p v-if="rows.length === 0" class="panel-empty">
    The shop’s code: which colour a wire of which purpose has. A wire that goes by it takes its colour on
    sheets and labels; one that differs is found.
  </p>
  <EditGrid v-else label="Colours of wires" :rows="rows" :columns="columns">
    <template #remove="{ row }"><RemoveButton :name="row.name" @remove="remove(row)" /></template>
  </EditGrid>
  <div class="below">
    <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">Another purpose</BButton>
    <label v-if="others.length > 0">
      As in
      <select v-model="from" class="form-select form-select-sm" :disabled="!job.editable" @change="takeFrom">
        <option value="">another job …</option>
        <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
    </label>
    <span v-if="told" role="status">{{ told }}</span>
  </div>
</template>

<style scoped>
.below {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: center;
  margin-top: 0.4rem;
}

label {
  display: flex;
  white-space: nowrap;
  gap: 0.4rem;
  align-items: center;
}
</style>
