<script setup lang="ts">
import { sayField } from '@torvek/core/library';
import { fieldValue, partFields, type Part } from '@torvek/core/parts';
import equal from 'fast-deep-equal';
import { computed } from 'vue';
import { curveOf } from './key-figures';
import PartPlot from './PartPlot.vue';

/** Parts of one kind beside each other: what differs stands out, what is alike is set back. */
const props = defineProps<{ parts: readonly Part[] }>();
const emit = defineEmits<{ close: [] }>();
/** The curve is drawn below. */
const rows = computed(() =>
  partFields[props.parts[0]!.kind]
    .filter(({ name }) => name !== curveOf[props.parts[0]!.kind])
    .map((field) => {
      const values = props.parts.map((part) => fieldValue(part.data, field.name));
      return {
        field,
        alike: values.every((value) => equal(value, values[0])),
        texts: values.map((value) => sayField(field, value)),
      };
    }),
);
const differing = computed(() => rows.value.filter(({ alike }) => !alike).length);
</script>

<template>
  <section class="sheet-card" aria-label="Comparison">
    <div class="card-head">
      <h2>Side by side</h2>
      <span class="hint">{{ differing }} of {{ rows.length }} figures differ</span>
      <button type="button" class="btn btn-quiet btn-sm close" @click="emit('close')">close</button>
    </div>
    <div class="scroll">
      <table class="grid-table">
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">Figure</span></th>
            <th v-for="part in parts" :key="part.id" scope="col">
              <small>{{ part.make }}</small><br />{{ part.number }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.field.name" :class="{ alike: row.alike }">
            <th scope="row">{{ row.field.label }}</th>
            <td v-for="(text, i) in row.texts" :key="i">{{ text }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <PartPlot :parts="parts" :height="250" />
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  table-layout: fixed;
}

th[scope='row'] {
  white-space: normal;
  font-weight: 400;
  color: var(--tv-soft);
}

td {
  font-weight: 600;
}

.alike td {
  font-weight: 400;
  color: var(--tv-soft);
}

.close {
  margin-left: auto;
}
</style>
