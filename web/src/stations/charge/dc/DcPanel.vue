<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import InletFields from '../ac/InletFields.vue';
import BranchStrip from '../BranchStrip.vue';
import { useSupplies } from '../use-supplies';
import WindowView from './WindowView.vue';

/** A DC station: its window against the pack’s, and every link that limits the current. */
const job = useJob();
const {
  supplies,
  ids,
  supplyId,
  supply,
  inletIds,
  inlets,
  pick,
  stationAnswer,
  add,
  remove,
  addInlet,
  removeOneInlet,
} = useSupplies('station');
const answer = computed(() => stationAnswer(supplyId.value));
const fig = (name: FigureName<'charge.station'>) => figureId('charge.station', supplyId.value, name);
const n = (value: number) => formatNumber(value, 3);
const summary = computed(() => {
  const tag = supply.value?.tag ?? '';
  const now = answer.value;
  if (now === null) return `${tag}: not computed yet.`;
  if (!now.result.possible) return `${tag} and the pack do not meet: no charge.`;
  const least = now.limits.reduce((low, one) => (one.currentA < low.currentA ? one : low));
  return `${tag}: usable from ${n(now.result.usableFromV!)} to ${n(now.result.usableToV!)} V; narrowest is the ${least.what} with ${n(least.currentA)} A.`;
});
const at = (field: string) => `supplies.${supplyId.value}.${field}`;
const inletChoices = computed(() =>
  Object.entries(inlets.value).map(([value, { tag }]) => ({ value, text: tag })),
);
</script>

<template>
  <section class="sheet-card" aria-labelledby="dc-title" data-dc>
    <div class="card-head">
      <h2 id="dc-title">From a DC station</h2>
      <div class="chips" role="group" aria-label="Stations">
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
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="add('station')"
          >New station</BButton
        >
      </div>
      <RemoveButton v-if="supply" :name="supply.tag" @remove="remove(supplyId)" />
    </div>
    <p v-if="!supply" class="panel-empty">
      No DC station. A vehicle that charges from the mains alone needs none.
    </p>
    <template v-else>
      <p class="sentence" role="status">{{ summary }}</p>
      <WindowView v-if="answer" :answer="answer" :tag="supply.tag" :summary="summary" />
      <div class="figures">
        <FigureValue :id="fig('maxPowerKW')" label="By volts and amperes" show-label />
        <FigureValue :id="fig('limitA')" label="Most current" show-label />
        <FigureValue :id="fig('minutes')" label="Time, as charged there" show-label />
        <FigureValue :id="fig('peakA')" label="Peak current" show-label />
        <FigureValue :id="fig('heatW')" label="Heat of the pack" show-label />
      </div>
      <div class="fields">
        <TextField :path="at('tag')" label="Name" required />
        <ChoiceField
          :path="at('inlet')"
          label="Through the inlet"
          :options="inletChoices"
          none="the one that suits"
        />
        <NumberField :path="at('minV')" />
        <NumberField :path="at('maxV')" />
        <NumberField :path="at('maxA')" label="Station at most, current" />
        <NumberField :path="at('maxW')" label="Station at most, power" />
        <NumberField :path="at('fromFraction')" :fallback="10" />
        <NumberField :path="at('toFraction')" :fallback="80" />
      </div>
      <BranchStrip kind="dc-inlet" />
      <p class="soft">
        The station asks nothing of the cells: the vehicle tells it how much they take. What is not limited
        here by temperature is limited by the monitor while it charges: see Time for a cold night.
      </p>
    </template>
  </section>
  <section class="sheet-card" aria-labelledby="dc-inlets-title" data-inlets>
    <div class="card-head">
      <h2 id="dc-inlets-title">Inlets for a station</h2>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="addInlet('station')"
        >New inlet</BButton
      >
    </div>
    <p class="precaution">
      Pins of a DC inlet are live when both its contactors are closed or welded. Prove them parted, with a
      meter that was tried just before, ahead of any work on the inlet; makers’ documents and local rules come
      first.
    </p>
    <InletFields
      v-for="id in inletIds"
      :key="id"
      :inlet-id="id"
      side="station"
      @remove="removeOneInlet(id)"
    />
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
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.5rem 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  align-items: end;
}

.precaution {
  margin: 0 0 0.5rem;
  padding-left: 0.6rem;
  border-left: 3px solid var(--tv-hv);
}
</style>
