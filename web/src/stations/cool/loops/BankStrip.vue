<script setup lang="ts">
import { pin } from '@torvek/core/pack';
import type { Id } from '@torvek/core/document';
import { partKey } from '@torvek/core/parts';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useLibrary } from '../../../stores/library';
import { banksOf, makeBank, turnReturn } from './bank';

/** A row of plates between two headers in one step; and those that were made so, to be turned round. */
const props = defineProps<{ loopId: Id }>();
const job = useJob();
const shelf = useLibrary();
const open = ref(false);
const plates = computed(() => shelf.library.of('plate'));
const hoses = computed(() => shelf.library.of('hose'));
const boxes = computed(() =>
  Object.entries(job.design.boxes).filter(([id]) =>
    Object.values(job.design.modules).some(({ box }) => box === id),
  ),
);
const joins = computed(() =>
  Object.entries(job.design.joins ?? {}).filter(([, { loop }]) => loop === props.loopId),
);
const wish = ref({
  count: 4,
  returns: 'direct' as 'direct' | 'reverse',
  plate: '',
  hose: '',
  spacing: 0.2,
  box: '',
  from: '',
  to: '',
});
const inBox = computed(() =>
  Object.values(job.design.strings)
    .flatMap(({ modules }) => modules)
    .filter((id) => job.design.modules[id]?.box === wish.value.box),
);
watch(
  () => wish.value.box,
  () => {
    if (inBox.value.length > 0) wish.value.count = Math.max(2, Math.ceil(inBox.value.length / 2));
  },
);
const banks = computed(() => banksOf(job.design, props.loopId));
const problem = computed(() => {
  const { count, spacing, plate, hose } = wish.value;
  if (plate === '') return 'Plate: which one it is.';
  if (hose === '') return 'Header: which hose it is.';
  if (!Number.isInteger(count) || count < 2 || count > 60) return 'Plates: a whole number from 2 to 60.';
  return !(spacing > 0 && spacing < 20) ? 'Between plates: above 0, in m.' : null;
});
const tried = ref(false);
function make(): void {
  tried.value = true;
  if (problem.value !== null) return;
  const { count, returns, spacing, from, to } = wish.value;
  const bank = newId('bank');
  job.change(`Bank of ${count} plates`, (draft) => {
    makeBank(draft, bank, {
      loop: props.loopId,
      from: from === '' ? null : from,
      to: to === '' ? null : to,
      plates: count,
      returns,
      plate: pin(
        draft,
        plates.value.find((one) => partKey(one) === wish.value.plate)!,
      ),
      hose: pin(
        draft,
        hoses.value.find((one) => partKey(one) === wish.value.hose)!,
      ),
      spacingM: spacing,
      modules: inBox.value,
    });
  });
  open.value = false;
  tried.value = false;
}
const turn = (id: Id, plates_: number, returns: string) =>
  job.change(`Bank of ${plates_} plates: ${returns === 'direct' ? 'reverse' : 'direct'} return`, (draft) =>
    turnReturn(draft, id),
  );
</script>

<template>
  <div class="banks" data-banks>
    <div class="line">
      <BButton size="sm" variant="light" :disabled="!job.editable" :aria-expanded="open" @click="open = !open"
        >Bank of plates …</BButton
      >
      <span v-for="bank in banks" :key="bank.id" class="bank">
        Bank of {{ bank.plates }}: {{ bank.returns }} return
        <BButton
          size="sm"
          variant="light"
          :disabled="!job.editable"
          @click="turn(bank.id, bank.plates, bank.returns)"
          >to {{ bank.returns === 'direct' ? 'reverse' : 'direct' }} return</BButton
        >
      </span>
    </div>
    <form v-if="open" class="form" @submit.prevent="make">
      <label
        >For the modules in
        <select v-model="wish.box" class="form-select" aria-label="For the modules in">
          <option value="">no box</option>
          <option v-for="[id, box] in boxes" :key="id" :value="id">{{ box.tag }}</option>
        </select></label
      >
      <label>Plates<input v-model.number="wish.count" class="form-control" inputmode="numeric" /></label>
      <label
        >Plate
        <select v-model="wish.plate" class="form-select" aria-label="Plate">
          <option value="">which one</option>
          <option v-for="one in plates" :key="partKey(one)" :value="partKey(one)">{{ one.label }}</option>
        </select></label
      >
      <label
        >Headers
        <select v-model="wish.hose" class="form-select" aria-label="Headers">
          <option value="">which hose</option>
          <option v-for="one in hoses" :key="partKey(one)" :value="partKey(one)">{{ one.label }}</option>
        </select></label
      >
      <label
        >Between plates, m<input v-model.number="wish.spacing" class="form-control" inputmode="decimal"
      /></label>
      <label
        >Fed from
        <select v-model="wish.from" class="form-select" aria-label="Fed from">
          <option value="">a new join</option>
          <option v-for="[id, join] in joins" :key="id" :value="id">{{ join.tag }}</option>
        </select></label
      >
      <label
        >Drained to
        <select v-model="wish.to" class="form-select" aria-label="Drained to">
          <option value="">a new join</option>
          <option v-for="[id, join] in joins" :key="id" :value="id">{{ join.tag }}</option>
        </select></label
      >
      <label
        >Return
        <select v-model="wish.returns" class="form-select" aria-label="Return">
          <option value="direct">direct: back from the near plate</option>
          <option value="reverse">reverse: back from the far plate</option>
        </select></label
      >
      <BButton type="submit" size="sm" variant="primary">Make the bank</BButton>
      <p v-if="tried && problem !== null" class="problem" role="alert">{{ problem }}</p>
    </form>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1rem;
  align-items: center;
}

.bank {
  font-size: 0.9rem;
}

.form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(11rem, 1fr));
  gap: 0.5rem 0.8rem;
  align-items: end;
  margin-top: 0.5rem;
  padding: 0.6rem;
  background: var(--tv-recess);
  border-radius: 3px;
}

.form label {
  font-size: 0.85rem;
  color: var(--tv-soft);
}

.problem {
  grid-column: 1 / -1;
  margin: 0;
  color: var(--tv-stop);
}
</style>
