<script setup lang="ts">
import { inletRating } from '@torvek/core/charging';
import { inletCurrents, inletLocks, inletReleases, type Id } from '@torvek/core/document';
import { stationLinks } from '@torvek/core/parts';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';

/** An inlet, seen from the mains or from a station. */
const props = defineProps<{ inletId: Id; side: 'mains' | 'station' }>();
defineEmits<{ remove: [] }>();
const job = useJob();
const at = (field: string) => `inlets.${props.inletId}.${field}`;
const inlet = computed(() => job.design.inlets?.[props.inletId]);
const rating = computed(() =>
  inlet.value === undefined ? null : inletRating(inlet.value, job.design.parts),
);
const texts = (values: readonly string[]) => values.map((value) => ({ value, text: value }));
const contacts = computed(() =>
  Object.entries(job.design.devices)
    .filter(([, { kind }]) => kind === 'dc-inlet')
    .map(([value, { tag }]) => ({ value, text: tag })),
);
const or = (value: number | null | undefined) => value ?? undefined;
</script>

<template>
  <div v-if="inlet" class="inlet" :data-inlet="inletId">
    <div class="top">
      <TextField :path="at('tag')" label="Name" required />
      <PartField :path="at('inlet')" kind="inlet" label="Inlet" none="not chosen" />
      <RemoveButton :name="inlet.tag" @remove="$emit('remove')" />
    </div>
    <div class="fields">
      <ChoiceField :path="at('current')" label="Takes" :options="texts(inletCurrents)" none="—" />
      <template v-if="side === 'mains'">
        <NumberField :path="at('ratedA')" :fallback="or(rating?.mainsA)" />
        <NumberField :path="at('wireA')" />
        <NumberField :path="at('neutralA')" />
      </template>
      <template v-else>
        <ChoiceField :path="at('device')" label="Its DC contacts" :options="contacts" none="not said" />
        <NumberField :path="at('stationA')" :fallback="or(rating?.stationA)" />
        <NumberField :path="at('sensors')" :fallback="or(rating?.sensors)" />
        <ChoiceField
          :path="at('weldCheck')"
          label="Contactors are checked for welding"
          :options="yesNo"
          none="not said"
        />
        <ChoiceField
          :path="at('monitorPauses')"
          label="Own insulation monitor pauses"
          :options="yesNo"
          none="not said"
        />
      </template>
      <PartField
        :path="at('controller')"
        kind="controller"
        label="Charge controller"
        none="the charger answers the pilot"
      />
      <template v-if="inlet.controller !== undefined">
        <NumberField :path="at('wakes')" />
        <ChoiceField
          v-if="inlet.current !== 'mains'"
          :path="at('stationLink')"
          label="Stations talk by"
          :options="texts(stationLinks)"
          none="not said"
        />
      </template>
      <ChoiceField
        :path="at('lock')"
        label="Lock"
        :options="texts(inletLocks)"
        :none="
          rating?.lock == null ? 'not said' : rating.lock ? 'motor (of the inlet)' : 'none (of the inlet)'
        "
      />
      <ChoiceField
        :path="at('lockReadBack')"
        label="Lock’s position is read first"
        :options="yesNo"
        none="not said"
      />
      <ChoiceField
        :path="at('release')"
        label="Release when it fails"
        :options="texts(inletReleases)"
        none="not said"
      />
      <ChoiceField
        :path="at('driveInhibit')"
        label="Drive blocked while plugged in"
        :options="yesNo"
        none="not said"
      />
    </div>
  </div>
</template>

<style scoped>
.inlet + .inlet {
  margin-top: 0.8rem;
  padding-top: 0.6rem;
  border-top: 1px solid var(--tv-line);
}

.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 2.2rem;
  gap: 0.2rem 1.6rem;
  align-items: end;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  margin-top: 0.2rem;
}
</style>
