<script setup lang="ts">
import { wiresByEnd } from '@torvek/core/low-voltage';
import type { Id } from '@torvek/core/document';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import ConnectorFace, { type FaceWire } from '../../../parts/ConnectorFace.vue';
import PartField from '../../../parts/PartField.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';

/** An end of the looms: a connector with its face, pin by pin; seen from the wires or from the front, which is said. */
const props = defineProps<{ endId: Id }>();
const emit = defineEmits<{ wire: [id: Id] }>();
const job = useJob();
const end = computed(() => job.design.ends?.[props.endId]);
const face = computed(() => {
  const part = job.design.parts[end.value?.connector ?? ''];
  return part?.kind === 'connector' ? part.data : null;
});
const here = computed((): FaceWire[] => {
  const at = wiresByEnd({ wires: job.design.wires ?? {} });
  return (Object.hasOwn(at, props.endId) ? at[props.endId]! : []).map(({ wire, pin }) => {
    const { tag, colour = '', system = 'low voltage' } = job.design.wires![wire]!;
    return { id: wire, pin, tag, colour, system: system === 'low voltage' ? system : 'signal' };
  });
});
const at = (field: string) => `ends.${props.endId}.${field}`;
const devices = computed(() =>
  Object.entries(job.design.devices).map(([value, { tag }]) => ({ value, text: tag })),
);
</script>

<template>
  <div v-if="end" class="one-end" :data-face="endId">
    <div class="fields">
      <TextField :path="at('tag')" label="Name" required />
      <PartField
        v-if="end.kind === 'connector'"
        :path="at('connector')"
        kind="connector"
        label="Connector"
        none="not chosen"
      />
      <TextField :path="at('place')" label="Place" />
      <ChoiceField above :path="at('device')" label="Belongs to" :options="devices" none="nothing" />
      <ChoiceField
        v-if="end.kind === 'ground'"
        above
        :path="at('forSense')"
        label="Ground of sensors"
        :options="yesNo"
        none="no (default)"
      />
    </div>
    <template v-if="face">
      <ConnectorFace
        :name="end.tag"
        :cavities="face.cavities"
        :rows="face.rows"
        :wires="here"
        @wire="emit('wire', $event)"
      />
    </template>
    <p v-else class="soft">
      {{ here.length === 0 ? 'No wire ends here.' : `Ends here: ${here.map(({ tag }) => tag).join(', ')}.` }}
    </p>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 0.2rem 1rem;
  align-items: end;
  margin-bottom: 0.5rem;
}
</style>
