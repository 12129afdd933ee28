<script setup lang="ts">
import type { LadderAnswer, LadderItem } from '@torvek/core/charging';
import { thresholdRoles, type Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { newId } from '../../../api/client';
import EditGrid from '../../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../../parts/grid/columns';
import NumberField from '../../../parts/NumberField.vue';
import PrintSheet from '../../../parts/PrintSheet.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { saveCsv, saveJson } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';
import { ladderJson, ladderRows } from './sheet';
import LadderView from './LadderView.vue';

/** Every voltage threshold of the vehicle in one ladder; each is edited where it stands. */
const job = useJob();
const picked = ref<string | null>(null);
const answer = computed(
  () => (job.evaluation.runs['charge.ladder:vehicle']?.result as LadderAnswer | undefined) ?? null,
);
const n = (value: number, digits = 4) => formatNumber(value, digits);
interface Row extends LadderItem {
  id: string;
  name: string;
  gap: number | null;
}
const rows = computed((): Row[] => {
  const now = answer.value;
  if (now === null) return [];
  const byPath = new Map(now.items.map((one) => [one.path, one]));
  return now.result.ordered.map(({ id }, i) => {
    const item = byPath.get(id)!;
    const next = now.result.ordered[i + 1];
    return {
      ...item,
      id,
      name: `${item.owner} ${item.what}`,
      gap: next === undefined ? null : (item.perCellV - next.perCellV) * 1000,
    };
  });
});
const summary = computed(() => {
  const now = answer.value;
  if (now === null) return 'No ladder yet: it takes the cells, and what charges and watches them.';
  const { violations } = now.result;
  if (violations.length === 0)
    return `${now.items.length} thresholds, all in their order with at least ${n(now.marginMv)} mV of a cell where a margin is asked.`;
  const named = (path: string) => now.items.find((one) => one.path === path)!;
  const first = violations[0]!;
  const upper = named(first.upper);
  const lower = named(first.lower);
  return `${violations.length === 1 ? 'One pair is' : `${violations.length} pairs are`} not in order: “${upper.owner}” ${upper.what} ${n(upper.perCellV)} V should lie ${n(first.neededMv)} mV above “${lower.owner}” ${lower.what} ${n(lower.perCellV)} V.`;
});
const columns: GridColumn<Row>[] = [
  {
    id: 'owner',
    title: 'whose',
    kind: 'text',
    path: () => null,
    label: 'Owner',
    text: ({ owner }) => owner,
    width: '12rem',
  },
  {
    id: 'what',
    title: 'does',
    kind: 'text',
    path: () => null,
    label: 'Does',
    text: ({ what }) => what,
    width: '9rem',
  },
  {
    id: 'level',
    title: 'reads',
    kind: 'text',
    path: () => null,
    label: 'Reads',
    text: ({ level }) => level,
    width: '4rem',
  },
  {
    id: 'volts',
    title: 'set to',
    kind: 'number',
    label: 'Set to',
    unit: 'V',
    path: (row) => (row.fixed ? null : row.path),
    text: (row) => n(row.voltageV),
    width: '6rem',
  },
  {
    id: 'cell',
    title: 'by the cell, V',
    kind: 'fixed',
    label: 'By the cell',
    text: (row) => n(row.perCellV, 5),
    width: '6.4rem',
  },
  {
    id: 'gap',
    title: 'to the next, mV',
    kind: 'fixed',
    label: 'To the next',
    text: ({ gap }) => (gap === null ? '' : n(gap, 3)),
    width: '6.4rem',
  },
];
const devices = computed(() =>
  Object.entries(job.design.devices).flatMap(([id, { tag, kind }]) =>
    kind === 'charger'
      ? [{ path: `devices.${id}.endV`, label: `${tag} ends at` }]
      : kind === 'inverter'
        ? [
            { path: `devices.${id}.regenMaxV`, label: `${tag} brakes into at most` },
            { path: `devices.${id}.derateBelowV`, label: `${tag} gives less below` },
            { path: `devices.${id}.cutBelowV`, label: `${tag} stops below` },
          ]
        : [],
  ),
);
interface CutRow {
  id: Id;
  name: string;
}
const cutRows = computed(() =>
  Object.entries(job.design.cuts ?? {}).map(([id, { tag }]): CutRow => ({ id, name: tag })),
);
const cutAt = (row: CutRow, field: string) => `cuts.${row.id}.${field}`;
const choices = (values: readonly string[]) => () => values.map((value) => ({ value, text: value }));
const yes = (field: string, title: string, label: string): GridColumn<CutRow> => ({
  id: field,
  title,
  kind: 'choice',
  label,
  path: (row) => cutAt(row, field),
  choices: () => yesNo,
  none: () => 'not said',
  width: '6.6rem',
});
const cutColumns: GridColumn<CutRow>[] = [
  {
    id: 'tag',
    title: 'cut',
    kind: 'text',
    label: 'Name',
    path: (row) => cutAt(row, 'tag'),
    required: true,
    width: '12rem',
  },
  {
    id: 'opens',
    title: 'opens',
    kind: 'choice',
    label: 'Opens',
    path: (row) => cutAt(row, 'opens'),
    choices: choices(['feed of the mains', 'enable of the charger', 'contactors of the pack']),
    none: () => 'not said',
    width: '10.4rem',
  },
  {
    id: 'level',
    title: 'reads',
    kind: 'choice',
    label: 'Reads',
    path: (row) => cutAt(row, 'level'),
    choices: choices(['cell', 'pack']),
    none: () => 'cell (default)',
    width: '6rem',
  },
  {
    id: 'voltageV',
    title: 'at',
    kind: 'number',
    label: 'Opens at',
    unit: 'V',
    path: (row) => cutAt(row, 'voltageV'),
    width: '4.6rem',
  },
  yes('opensUnpowered', 'open unpowered', 'Open without power'),
  yes('everyPhase', 'every phase', 'Parts every phase'),
  yes('latches', 'stays open', 'Stays open until it is armed again'),
  {
    id: 'armedAt',
    title: 'armed again at',
    kind: 'text',
    label: 'Armed again at',
    path: (row) => cutAt(row, 'armedAt'),
    width: '10rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
interface FurtherRow {
  id: Id;
  name: string;
}
const furtherRows = computed(() =>
  Object.entries(job.design.thresholds ?? {}).map(([id, { tag }]): FurtherRow => ({ id, name: tag })),
);
const furtherAt = (row: FurtherRow, field: string) => `thresholds.${row.id}.${field}`;
const furtherColumns: GridColumn<FurtherRow>[] = [
  {
    id: 'tag',
    title: 'whose',
    kind: 'text',
    label: 'Name',
    path: (row) => furtherAt(row, 'tag'),
    required: true,
    width: '14rem',
  },
  {
    id: 'role',
    title: 'role',
    kind: 'choice',
    label: 'Role',
    path: (row) => furtherAt(row, 'role'),
    choices: () => thresholdRoles.map((value) => ({ value, text: value.replace(/-/g, ' ') })),
    width: '11rem',
  },
  {
    id: 'level',
    title: 'reads',
    kind: 'choice',
    label: 'Reads',
    path: (row) => furtherAt(row, 'level'),
    choices: choices(['cell', 'pack']),
    none: () => 'cell (default)',
    width: '7rem',
  },
  {
    id: 'voltageV',
    title: 'at',
    kind: 'number',
    label: 'At',
    unit: 'V',
    path: (row) => furtherAt(row, 'voltageV'),
    width: '6rem',
  },
  { id: 'remove', title: '', kind: 'slot', label: 'Remove', width: '2.2rem' },
];
function addCut(): void {
  job.change('Independent cut added', (draft) => {
    const all = (draft.cuts ??= {});
    all[newId('cut')] = { tag: `Cut ${Object.keys(all).length + 1}` };
  });
}
function addThreshold(): void {
  job.change('Threshold added', (draft) => {
    const all = (draft.thresholds ??= {});
    all[newId('threshold')] = { tag: `Threshold ${Object.keys(all).length + 1}`, role: 'bms-warn-high' };
  });
}
const removeFrom = (map: 'cuts' | 'thresholds', row: { id: Id; name: string }) =>
  job.change(`${row.name} removed`, (draft) => void delete draft[map]?.[row.id]);
</script>

<template>
  <section class="sheet-card" aria-labelledby="ladder-title" data-ladder>
    <div class="card-head">
      <h2 id="ladder-title">Cut-off ladder</h2>
      <div v-if="answer" class="chips">
        <PrintSheet sheet="ladder" text="Page for the book" />
        <BButton size="sm" variant="light" @click="saveCsv(job.name, 'ladder', ladderRows(answer))"
          >CSV</BButton
        >
        <BButton size="sm" variant="light" @click="saveJson(job.name, 'ladder', ladderJson(job.name, answer))"
          >JSON</BButton
        >
      </div>
    </div>
    <p class="sentence" role="status">{{ summary }}</p>
    <template v-if="answer">
      <LadderView :answer="answer" :picked="picked" :summary="summary" @pick="picked = $event" />
      <EditGrid label="Ladder" :rows="rows" :columns="columns" />
    </template>
  </section>
  <section class="sheet-card" aria-labelledby="lives-title">
    <div class="card-head">
      <h2 id="lives-title">Where each lives</h2>
      <span class="hint">each is typed once, in the device that holds it</span>
    </div>
    <div class="fields">
      <NumberField path="limits.cutHighV" label="Monitor cuts above" />
      <NumberField path="limits.warnHighV" label="Monitor warns above" />
      <NumberField path="limits.balanceFromV" label="Monitor balances from" />
      <NumberField path="limits.warnLowV" label="Monitor warns below" />
      <NumberField path="limits.cutLowV" label="Monitor cuts below" />
      <NumberField path="limits.spreadMv" />
      <NumberField v-for="one in devices" :key="one.path" :path="one.path" :label="one.label" />
      <NumberField path="charging.marginMv" label="Margin between steps" />
    </div>
    <h3>Independent cuts</h3>
    <EditGrid v-if="cutRows.length > 0" label="Independent cuts" :rows="cutRows" :columns="cutColumns">
      <template #remove="{ row }"
        ><RemoveButton :name="row.name" @remove="removeFrom('cuts', row)"
      /></template>
    </EditGrid>
    <p v-else class="panel-empty">
      Nothing ends the charge when the charger does not: a relay of its own in the feed of the mains, or the
      monitor’s loop.
    </p>
    <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="addCut"
      >Another cut</BButton
    >
    <h3>Further thresholds</h3>
    <EditGrid
      v-if="furtherRows.length > 0"
      label="Further thresholds"
      :rows="furtherRows"
      :columns="furtherColumns"
    >
      <template #remove="{ row }"
        ><RemoveButton :name="row.name" @remove="removeFrom('thresholds', row)"
      /></template>
    </EditGrid>
    <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="addThreshold"
      >Another threshold</BButton
    >
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  gap: 0.3rem;
}

.sentence {
  margin: 0 0 0.3rem;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}

h3 {
  margin: 0.8rem 0 0.3rem;
  font-size: 0.95rem;
}

.add {
  margin-top: 0.4rem;
}
</style>
