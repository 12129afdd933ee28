<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import FigureValue from '../../../parts/FigureValue.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import BranchStrip from '../BranchStrip.vue';
import { useSupplies } from '../use-supplies';
import ChargerTable from './ChargerTable.vue';
import InletFields from './InletFields.vue';
import PhaseBars from './PhaseBars.vue';
import SupplyFields from './SupplyFields.vue';
import WayView from './WayView.vue';
import { waySentence, wayOf } from './way';

/** From the socket to the cells: each link with what it allows, the narrowest marked; and the phases. */
const job = useJob();
const {
  supplies,
  ids,
  supplyId,
  supply,
  inlets,
  inletIds,
  pick,
  mainsAnswer,
  add,
  remove,
  addInlet,
  removeOneInlet,
} = useSupplies('mains');
const answer = computed(() => mainsAnswer(supplyId.value));
const packV = computed(() => job.figure(figureId('pack.pack', 'pack', 'voltageNominalV'))?.value ?? null);
const links = computed(() => wayOf(job.design, supplyId.value, answer.value, packV.value));
const summary = computed(() => waySentence(supply.value?.tag ?? '', links.value, answer.value));
const fig = (name: FigureName<'charge.supply'>) => figureId('charge.supply', supplyId.value, name);
const neutralA = computed(() => {
  const id = supply.value?.inlet ?? inletIds.value[0];
  return id === undefined ? null : (inlets.value[id]?.neutralA ?? null);
});
</script>

<template>
  <section class="sheet-card" aria-labelledby="ac-title" data-ac>
    <div class="card-head">
      <h2 id="ac-title">From the mains</h2>
      <div class="chips" role="group" aria-label="Supplies">
        <button
          v-for="id in ids"
          :key="id"
          type="button"
          class="btn btn-sm"
          :class="id === supplyId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="id === supplyId"
          @click="pick(id)"
        >
          {{ supplies[id]?.tag }}
        </button>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="add('wall box')"
          >New supply</BButton
        >
      </div>
      <RemoveButton v-if="supply" :name="supply.tag" @remove="remove(supplyId)" />
    </div>
    <p v-if="!supply" class="panel-empty">
      No supply of the mains yet. Say where the vehicle is charged: Torvek finds which link is the narrowest,
      what each phase and the neutral carry, and how long it takes.
    </p>
    <template v-else>
      <p class="sentence" role="status">{{ summary }}</p>
      <WayView
        :links="links"
        :flow-a="answer === null ? null : Math.max(...answer.result.phaseA)"
        :summary="summary"
      />
      <div class="two-parts">
        <PhaseBars v-if="answer" :answer="answer" :neutral-rating-a="neutralA" />
        <div class="figures">
          <FigureValue :id="fig('outputW')" label="Into the pack" show-label />
          <FigureValue :id="fig('inputW')" label="Out of the mains" show-label />
          <FigureValue :id="fig('offeredA')" label="Offered to the cells" show-label />
          <FigureValue :id="fig('cRate')" label="C-rate" show-label />
        </div>
      </div>
      <SupplyFields :key="supplyId" :supply-id="supplyId" />
    </template>
  </section>
  <section class="sheet-card" aria-labelledby="chargers-title">
    <div class="card-head"><h2 id="chargers-title">Chargers that are built in</h2></div>
    <ChargerTable />
    <BranchStrip kind="charger" />
  </section>
  <section class="sheet-card" aria-labelledby="inlets-title" data-inlets>
    <div class="card-head">
      <h2 id="inlets-title">Inlets</h2>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="addInlet('mains')"
        >New inlet</BButton
      >
    </div>
    <p v-if="inletIds.length === 0" class="panel-empty">No inlet for the mains yet.</p>
    <InletFields v-for="id in inletIds" :key="id" :inlet-id="id" side="mains" @remove="removeOneInlet(id)" />
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

.two-parts {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 1.4rem;
  align-items: center;
  margin: 0.5rem 0 0.6rem;
}

.figures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0.4rem 1rem;
}
</style>
