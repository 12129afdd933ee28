<script setup lang="ts">
import { bodiesOf, defaultContactOhm, leastBondTestA, mostBondOhm } from '@torvek/core/bonding';
import { bondStates } from '@torvek/core/bonding';
import { bondWays, mainCircuit, removeBond, type BondWay, laid } from '@torvek/core/document';
import { feedingCircuit } from '@torvek/core/network';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { newId } from '../../api/client';
import EditGrid from '../../parts/grid/EditGrid.vue';
import type { GridColumn } from '../../parts/grid/columns';
import PrintSheet from '../../parts/PrintSheet.vue';
import RemoveButton from '../../parts/RemoveButton.vue';
import { useJob } from '../../stores/job';
import WalkBar from './WalkBar.vue';
import { useWalk } from './use-walk';

/** Every conductive body that one could touch: its bond, the way to the chassis, what was measured. */
const job = useJob();
interface Row {
  id: string;
  name: string;
  tag: string;
  own: boolean;
}
const bodies = computed(() =>
  bodiesOf(laid(job.design), mainCircuit, (id) => feedingCircuit(job.design, id)),
);
const rows = computed(() =>
  bodies.value.map(({ id, tag }): Row => ({
    id,
    tag,
    name: tag,
    own: job.design.bonds?.[id]?.tag !== undefined,
  })),
);
const states = computed(
  () => new Map(bondStates(laid(job.design), job.present).map((state) => [state.id, state.reading])),
);
const bonded = computed(() => rows.value.filter(({ id }) => states.value.has(id)));
const figure = (id: string) => job.figure(`bonding.body:${id}:pathOhm`);
const walk = useWalk(
  computed(() => 'bond' as const),
  bonded,
  (id) => {
    const ohm = states.value.get(id)?.ohm ?? figure(id)?.value ?? null;
    return ohm === null || walk.currentA.value === null ? null : ohm * walk.currentA.value;
  },
);
const words: Record<BondWay, string> = {
  strap: 'strap',
  bolted: 'bolted on',
  none: 'none',
  'not-conductive': 'does not conduct',
};
const bond = (id: string) => job.design.bonds?.[id];
const at = (field: string, only?: BondWay) => (row: Row) =>
  only === undefined || bond(row.id)?.by === only ? `bonds.${row.id}.${field}` : null;
const columns = computed<GridColumn<Row>[]>(() => [
  { id: 'tag', title: 'body', kind: 'slot', label: 'Body', width: '8.8rem' },
  {
    id: 'by',
    title: 'bonded by',
    kind: 'choice',
    label: 'Bonded by',
    path: at('by'),
    choices: () => bondWays.map((value) => ({ value, text: words[value] })),
    none: () => '?',
    width: '7.6rem',
  },
  {
    id: 'to',
    title: 'to',
    kind: 'choice',
    label: 'To',
    path: (row) => (['strap', 'bolted'].includes(bond(row.id)?.by ?? '') ? `bonds.${row.id}.to` : null),
    choices: (row) =>
      bodies.value.filter(({ id }) => id !== row.id).map(({ id, tag }) => ({ value: id, text: tag })),
    none: () => 'chassis',
    width: '7.4rem',
  },
  {
    id: 'areaMm2',
    title: 'strap',
    kind: 'number',
    unit: 'mm²',
    label: 'Area of the strap',
    path: at('areaMm2', 'strap'),
    width: '5rem',
  },
  {
    id: 'lengthM',
    title: 'long',
    kind: 'number',
    unit: 'm',
    label: 'Length of the strap',
    path: at('lengthM', 'strap'),
    width: '4.4rem',
  },
  {
    id: 'contactOhm',
    title: 'contacts',
    kind: 'number',
    unit: 'mΩ',
    scale: 0.001,
    label: 'Contacts of the bond',
    path: (row) =>
      ['strap', 'bolted'].includes(bond(row.id)?.by ?? '') ? `bonds.${row.id}.contactOhm` : null,
    width: '5.8rem',
  },
  { id: 'path', title: 'computed', kind: 'slot', label: 'Way to the chassis, computed', width: '5.6rem' },
  { id: 'measured', title: 'measured', kind: 'slot', label: 'Way to the chassis, measured', width: '8rem' },
  {
    id: 'typed',
    title: 'drop now',
    kind: 'number',
    unit: 'mV',
    scale: 0.001,
    label: 'Drop',
    path: ({ id }) => (states.value.has(id) ? `bond.${id}` : null),
    width: '6.4rem',
  },
]);
/** The design has its own columns, the walk its own: two grids with the same rows. */
const designed = computed(() => columns.value.filter(({ id }) => id !== 'typed'));
const walked = computed<GridColumn<Row>[]>(() => [
  { id: 'tag', title: 'body', kind: 'slot', label: 'Body', width: '14rem' },
  columns.value.find(({ id }) => id === 'typed')!,
  {
    id: 'last',
    title: 'last time',
    kind: 'fixed',
    label: 'Last time',
    text: ({ id }) => {
      const reading = states.value.get(id);
      return reading == null ? '' : new Date(reading.atMs).toISOString().slice(0, 10);
    },
  },
]);
const measured = (id: string) => {
  const reading = states.value.get(id);
  return reading == null
    ? ''
    : `${formatQuantity(reading.ohm, 'Ω')} at ${formatQuantity(reading.currentA, 'A')}`;
};
const fails = (id: string) => {
  const reading = states.value.get(id);
  return reading != null && (reading.ohm >= mostBondOhm || reading.currentA < leastBondTestA);
};

function add(): void {
  const id = newId('bond');
  job.change('Body added', (draft) => {
    draft.bonds ??= {};
    draft.bonds[id] = { tag: `Bracket ${Object.keys(draft.bonds).length + 1}` };
  });
}
function remove({ id, tag }: Row): void {
  job.change(`Body removed: ${tag}`, (draft) => {
    removeBond(draft, id);
  });
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="bond-title" data-bonds>
    <div class="card-head">
      <h2 id="bond-title">Bonds to the chassis</h2>
      <span class="hint"
        >below {{ formatNumber(mostBondOhm) }} Ω at {{ formatNumber(leastBondTestA) }} A or more;
        {{ formatNumber(defaultContactOhm * 1000) }} mΩ for the contacts by default</span
      >
      <PrintSheet sheet="bonds" text="Walk, PDF" />
      <BButton class="add" size="sm" variant="light" :disabled="!job.editable" @click="add"
        >Add a body</BButton
      >
    </div>
    <p v-if="rows.length === 0" class="panel-empty">No box, device or conduit yet.</p>
    <template v-else>
      <EditGrid label="Bonds" :rows="rows" :columns="designed">
        <template #tag="{ row }">
          <span class="body"
            >{{ row.tag }} <RemoveButton v-if="row.own" :name="row.tag" @remove="remove(row)"
          /></span>
        </template>
        <template #path="{ row }">
          <span :class="{ bad: (figure(row.id)?.value ?? 0) > mostBondOhm }">{{
            figure(row.id)?.value == null ? '—' : formatQuantity(figure(row.id)!.value!, 'Ω')
          }}</span>
        </template>
        <template #measured="{ row }">
          <span :class="{ bad: fails(row.id) }">{{ measured(row.id) }}{{ fails(row.id) ? ' ◆' : '' }}</span>
        </template>
      </EditGrid>
      <details class="measure">
        <summary>Measure bonds</summary>
        <p class="soft">
          HV off, locked and proved dead. A current of {{ formatNumber(leastBondTestA) }} A or more from the
          body to the chassis; the meter’s tips beside the clamps, not on them.
        </p>
        <EditGrid label="Drops over bonds" :rows="bonded" :columns="walked" :sheet="walk.sheet">
          <template #tag="{ row }">{{ row.tag }}</template>
        </EditGrid>
        <WalkBar :walk="walk" work="bond" />
      </details>
    </template>
  </section>
</template>

<style scoped>
.add {
  margin-left: auto;
}

.body {
  display: inline-flex;
  gap: 0.3rem;
  align-items: center;
}

.bad {
  color: var(--tv-stop);
  font-weight: 600;
}

.measure {
  margin-top: 0.7rem;
}

.measure p {
  font-size: 0.88rem;
  margin: 0.3rem 0;
}
</style>
