<script setup lang="ts">
import type { ProcedureStep } from '@torvek/core/commissioning';
import { computed, ref, useId } from 'vue';
import type { HoldText } from './hold';
import HoldFields from './HoldFields.vue';

/** The fields of one measurement: a value, a list, a ladder, a trace as the scope saved it, or both ends of a hold. */
const props = defineProps<{ expected: ProcedureStep['expected']; stepId: string }>();
const emit = defineEmits<{ edited: [] }>();
const text = defineModel<string>('text', { required: true });
const packVoltage = defineModel<string>('packVoltage', { required: true });
const hold = defineModel<HoldText>('hold', { required: true });
const id = useId();
const field = ref<HTMLElement | null>(null);
defineExpose({ focus: () => field.value?.focus() });
const edited = () => emit('edited');
const isHold = computed(() => props.expected?.kind === 'hold');
const ladder = computed(() => (props.expected?.kind === 'ladder' ? props.expected : null));
const list = computed(() => (props.expected?.kind === 'list' ? props.expected : null));
const isTrace = computed(() => props.expected?.kind === 'rise');
const textRows = computed(() => {
  const rows =
    ladder.value === null ? (list.value?.items.length ?? 4) : ladder.value.cells + ladder.value.tied;
  return Math.min(16, rows + 1);
});
/** How many of the list are typed: the next one is marked. */
const readCount = computed(() => {
  const words = text.value.split(/[\n\t;]+/);
  // The last one is still being typed, until a line ends.
  return words.slice(0, -1).filter((word) => word.trim() !== '').length;
});
const unit = computed(() => props.expected?.unit ?? '');

/** A captured trace as the scope saved it. */
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const of = props.stepId;
  const read = await input.files?.[0]?.text();
  input.value = '';
  // Meanwhile another step may be open.
  if (read === undefined || props.stepId !== of) return;
  text.value = read;
  edited();
}
</script>

<template>
  <HoldFields v-if="isHold" v-model="hold" @input="edited" />
  <label v-else :for="id">{{
    isTrace
      ? 'Trace: seconds and volts, one sample a line'
      : ladder !== null
        ? `Pin 2 to ${ladder.cells + ladder.tied + 1} against pin 1, V, one a line`
        : list !== null
          ? `Readings in the order below, ${unit}, one a line`
          : unit === ''
            ? 'Counted'
            : `Measured, ${unit}`
  }}</label>
  <ol v-if="list !== null" class="items" data-items>
    <li v-for="(item, i) in list.items" :key="item" :class="{ next: i === readCount }">{{ item }}</li>
  </ol>
  <textarea
    v-if="isTrace || ladder !== null || list !== null"
    :id="id"
    ref="field"
    v-model="text"
    class="form-control"
    :rows="textRows"
    spellcheck="false"
    data-measured
    @input="edited"
  />
  <input
    v-else-if="!isHold"
    :id="id"
    ref="field"
    v-model="text"
    class="form-control big"
    inputmode="decimal"
    autocomplete="off"
    data-measured
    @input="edited"
  />
  <p v-if="unit.endsWith('Ω')" class="soft over">
    Beyond the range of the instrument: “&gt;” and where the range ends, for example &gt;{{
      unit === 'Ω' ? '60 MΩ' : '2 GΩ'
    }}.
  </p>
  <template v-if="isTrace">
    <label class="btn btn-light btn-sm file"
      >From a CSV file …<input
        type="file"
        accept=".csv,.txt,text/csv,text/plain"
        class="visually-hidden"
        data-trace-file
        @change="takeFile"
    /></label>
    <label :for="`${id}p`">Pack’s own voltage, V</label>
    <input
      :id="`${id}p`"
      v-model="packVoltage"
      class="form-control"
      inputmode="decimal"
      autocomplete="off"
      @input="edited"
    />
  </template>
</template>

<style scoped>
.big {
  font-size: 1.5rem;
  height: 48px;
  max-width: 16rem;
  text-align: right;
}

.over {
  margin: 0;
  font-size: 0.85rem;
}

.items {
  margin: 0;
  padding-left: 1.6rem;
  columns: 2;
  font-size: 0.9rem;
  color: var(--tv-soft);
}

.items .next {
  color: var(--tv-ink);
  font-weight: 600;
}

.file {
  justify-self: start;
}

label {
  font-size: 0.92rem;
}
</style>
