<script setup lang="ts">
import type { Instrument } from '@torvek/core/record';
import { computed, onMounted, useId, watch } from 'vue';
import { useInstruments } from '../../stores/instruments';
import { spokenKind } from './instrument-words';

/** What is measured with: an instrument of the register, or one that is named by hand. */
const props = defineProps<{ kind: Instrument['kind']; zone: string | undefined }>();
/** Id of a registered instrument, or empty for one named by hand. */
const chosen = defineModel<string>('chosen', { required: true });
const named = defineModel<string>('named', { required: true });
const id = useId();
const register = useInstruments();
onMounted(() => {
  if (register.all.length === 0) void register.load();
});
const registered = computed(() => register.ofKind(props.kind));
const overdue = computed(() =>
  registered.value.find((one) => one.id === chosen.value && register.isOverdue(one, props.zone)),
);
// The first of its kind is taken up by itself; another one is a choice that stays while it fits.
watch(
  registered,
  (those) => {
    if (!those.some(({ id: one }) => one === chosen.value)) chosen.value = those[0]?.id ?? '';
  },
  { immediate: true },
);
</script>

<template>
  <div class="pair">
    <label :for="`${id}i`">Instrument</label>
    <select :id="`${id}i`" v-model="chosen" class="form-select">
      <option v-for="one in registered" :key="one.id" :value="one.id">
        {{ one.name }}, {{ one.serial }}{{ register.isOverdue(one, zone) ? ': calibration overdue' : '' }}
      </option>
      <option value="">not in the register …</option>
    </select>
    <p v-if="overdue" class="overdue" role="status">
      ◆ Its calibration ran out on {{ overdue.calibrationDue }}: the entry will be marked.
    </p>
    <template v-if="chosen === ''">
      <label :for="`${id}n`">Its name</label>
      <input
        :id="`${id}n`"
        v-model="named"
        class="form-control"
        maxlength="120"
        :placeholder="`${spokenKind(kind)}, make and number`"
      />
    </template>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 6rem 1fr;
  gap: 0.5rem;
  align-items: center;
}

.pair label {
  font-size: 0.92rem;
}

.overdue {
  grid-column: 2;
  margin: 0;
  font-size: 0.9rem;
  color: var(--tv-mend);
}
</style>
