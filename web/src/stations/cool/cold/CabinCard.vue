<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import { useJob } from '../../../stores/job';

/** The cabin in the coldest night: heat it needs, what its heater reaches, and whether its screen stays clear. */
const job = useJob();
const begun = computed(() => job.design.cabin !== undefined);
const begin = () => job.change('Cabin begun', (draft) => void (draft.cabin ??= {}));
const fig = (name: FigureName<'cooling.cabin'>) => figureId('cooling.cabin', 'cabin', name);
const value = (name: FigureName<'cooling.cabin'>) => job.figure(fig(name))?.value ?? null;
const heaters = computed(() =>
  Object.entries(job.design.devices)
    .filter(([, { kind }]) => kind !== 'inverter' && kind !== 'charger')
    .map(([id, { tag }]) => ({ value: id, text: tag })),
);
const sentence = computed(() => {
  const [needed, reaches, screen, dew] = [
    value('neededW'),
    value('reachesC'),
    value('screenC'),
    value('dewC'),
  ];
  if (needed === null || reaches === null || screen === null || dew === null) return null;
  const clear = screen - dew;
  return `It needs ${formatNumber(needed, 3)} W and could reach ${formatQuantity(reaches, '°C', 3)}; the screen is ${formatNumber(Math.abs(clear), 2)} K ${clear < 0 ? 'below' : 'above'} where its air mists.`;
});
</script>

<template>
  <section class="sheet-card" aria-labelledby="cabin-title" data-cabin>
    <div class="card-head">
      <h2 id="cabin-title">Cabin</h2>
      <span class="hint">warm enough, and a clear screen, on the coldest night</span>
    </div>
    <p v-if="!begun" class="panel-empty">
      Nothing is said of the cabin.
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="begin">Begin</BButton>
    </p>
    <template v-else>
      <p v-if="sentence !== null" role="status">{{ sentence }}</p>
      <div class="figure-row">
        <FigureValue :id="fig('wPerK')" show-label />
        <FigureValue :id="fig('neededW')" show-label />
        <FigureValue :id="fig('givesW')" show-label />
        <FigureValue :id="fig('reachesC')" show-label />
        <FigureValue :id="fig('screenC')" show-label />
        <FigureValue :id="fig('dewC')" show-label />
      </div>
      <div class="fields">
        <ChoiceField path="cabin.heater" label="Heated by" :options="heaters" none="not said" />
        <NumberField path="cabin.wantedC" />
        <NumberField path="cabin.glassM2" />
        <NumberField path="cabin.glassWPerM2K" />
        <NumberField path="cabin.bodyM2" />
        <NumberField path="cabin.bodyWPerM2K" />
        <NumberField path="cabin.freshM3PerH" />
        <NumberField path="cabin.people" />
        <NumberField path="cabin.insideWPerM2K" />
        <NumberField path="cabin.outsideWPerM2K" />
      </div>
    </template>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.3rem 1.6rem;
  align-items: end;
}

p {
  margin: 0 0 0.5rem;
}
</style>
