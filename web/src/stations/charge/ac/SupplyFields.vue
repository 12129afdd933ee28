<script setup lang="ts">
import { supplyKinds, upstreamKinds, type Id } from '@torvek/core/document';
import { residualKinds, tripCurves } from '@torvek/core/parts';
import { computed } from 'vue';
import { figureId } from '@torvek/core/figure';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';

/** What a supply of the mains is: typed figures hold instead of those of its breaker. */
const props = defineProps<{ supplyId: Id }>();
const job = useJob();
const at = (field: string) => `supplies.${props.supplyId}.${field}`;
const supply = computed(() => job.design.supplies?.[props.supplyId]);
const breaker = computed(() => {
  const part = job.design.parts[supply.value?.breaker ?? ''];
  return part?.kind === 'breaker' ? part.data : null;
});
const inlets = computed(() =>
  Object.entries(job.design.inlets ?? {}).map(([value, { tag }]) => ({ value, text: tag })),
);
const figure = (name: 'inrushPeakA' | 'opensFromA' | 'aloneToA') =>
  figureId('charge.breaker', props.supplyId, name);
const hasBefore = computed(
  () => supply.value?.upstreamA !== undefined || supply.value?.upstreamTrip !== undefined,
);
const percent = (share: number | undefined) => (share === undefined ? undefined : share * 100);
const texts = <T extends string | number>(values: readonly T[]) =>
  values.map((value) => ({ value, text: String(value) }));
</script>

<template>
  <div class="figure-row">
    <FigureValue :id="figure('inrushPeakA')" show-label />
    <FigureValue :id="figure('opensFromA')" show-label />
    <FigureValue v-if="hasBefore" :id="figure('aloneToA')" show-label />
  </div>
  <div class="fields">
    <TextField :path="at('tag')" label="Name" required />
    <PartField :path="at('breaker')" kind="breaker" label="Breaker" none="not chosen" />
    <ChoiceField
      :path="at('kind')"
      label="Kind"
      :options="texts(supplyKinds.filter((one) => one !== 'station'))"
      none="—"
    />
    <ChoiceField :path="at('phases')" label="Phases" :options="texts([1, 3])" none="1 (default)" />
    <NumberField :path="at('offersA')" />
    <NumberField :path="at('cableOhm')" />
    <NumberField :path="at('breakerA')" label="Breaker, as typed" :fallback="breaker?.ratedA" />
    <NumberField :path="at('continuousFraction')" />
    <ChoiceField
      :path="at('residual')"
      label="Residual current"
      :options="residualKinds.map((value) => ({ value, text: value === 'none' ? 'none' : `type ${value}` }))"
      :none="
        breaker === null
          ? 'not said'
          : `${breaker.residual === 'none' ? 'none' : `type ${breaker.residual}`} (of the breaker)`
      "
    />
    <ChoiceField
      :path="at('trip')"
      label="Trips by curve"
      :options="texts(tripCurves)"
      :none="breaker === null ? 'not said' : `${breaker.trip} (of the breaker)`"
    />
    <NumberField :path="at('faultA')" />
    <NumberField :path="at('upstreamA')" />
    <ChoiceField
      :path="at('upstreamTrip')"
      label="That one is"
      :options="
        upstreamKinds.map((value) => ({
          value,
          text: value.length > 1 ? value : `breaker of curve ${value}`,
        }))
      "
      none="not said"
    />
    <NumberField :path="at('otherA')" />
    <template v-if="supply?.phases === 3">
      <NumberField v-for="line in [1, 2, 3]" :key="line" :path="at(`other${line}A`)" />
    </template>
    <NumberField :path="at('phaseVoltageV')" />
    <ChoiceField :path="at('inlet')" label="Through the inlet" :options="inlets" none="the one that suits" />
    <NumberField :path="at('fromFraction')" :fallback="percent(job.design.pack.socLowFraction)" />
    <NumberField :path="at('toFraction')" :fallback="percent(job.design.pack.socHighFraction)" />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.2rem 1.6rem;
  align-items: end;
}
</style>
