<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import NumberField from '../../../parts/NumberField.vue';
import PickMany from '../../../parts/PickMany.vue';
import { useJob } from '../../../stores/job';
import { codesOf } from './codes';

/** The picked wire: what hangs on it, what it carries, and what it is twisted with. */
const props = defineProps<{ wireId: Id }>();
const job = useJob();
const wire = computed(() => job.design.wires?.[props.wireId]);
const at = (field: string) => `wires.${props.wireId}.${field}`;
const loads = computed(() => Object.entries(job.design.loads ?? {}).map(([id, { tag }]) => ({ id, tag })));
const others = computed(() =>
  Object.entries(job.design.wires ?? {})
    .filter(([id]) => id !== props.wireId)
    .map(([value, { tag }]) => ({ value, text: tag })),
);
const codes = computed(() => codesOf(job.design.colours));
</script>

<template>
  <section v-if="wire" aria-labelledby="wire-title" data-wire-fields>
    <h3 id="wire-title">{{ wire.tag }}</h3>
    <PickMany
      :path="at('carries')"
      :things="loads"
      label="Feeds"
      none="It feeds no load of the budget."
      ask="which loads"
      :change="`${wire.tag}: loads`"
    />
    <div class="two">
      <NumberField :path="at('currentA')" label="Current, typed instead" />
      <ChoiceField
        :path="at('code')"
        label="Colour by the code"
        :options="codes"
        :none="codes.length === 0 ? 'no code yet' : 'by none'"
      />
      <ChoiceField :path="at('twistedWith')" label="Twisted with" :options="others" none="no other" />
    </div>
  </section>
</template>

<style scoped>
h3 {
  margin: 0.8rem 0 0;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}
</style>
