<script setup lang="ts">
import { useId } from 'vue';
import { holdRows, type HoldText } from './hold';

/** Pressure, temperature and weather at the beginning and at the end of a hold. */
const text = defineModel<HoldText>({ required: true });
const id = useId();
const type = (field: keyof HoldText, event: Event) =>
  (text.value = { ...text.value, [field]: (event.target as HTMLInputElement).value });
const spoken = ({ field, label }: (typeof holdRows)[number]) =>
  field === 'minutes' ? label : `${label}, ${field.startsWith('end') ? 'end' : 'beginning'}`;
</script>

<template>
  <div class="hold" data-hold>
    <template v-for="row in holdRows" :key="row.field">
      <label :for="`${id}${row.field}`">{{ row.label }}, {{ row.unit }}</label>
      <input
        :id="`${id}${row.field}`"
        class="form-control"
        inputmode="decimal"
        autocomplete="off"
        :value="text[row.field]"
        :aria-label="`${spoken(row)}, ${row.unit}`"
        :data-field="row.field"
        @input="type(row.field, $event)"
      />
    </template>
  </div>
</template>

<style scoped>
.hold {
  display: grid;
  grid-template-columns: minmax(0, 14rem) 9rem;
  gap: 0.35rem 0.6rem;
  align-items: center;
}

.hold input {
  height: 44px;
  text-align: right;
}
</style>
