<script setup lang="ts">
import type { CircuitPartKind } from '@torvek/core/document';
import { computed, ref } from 'vue';
import TakeButton from './TakeButton.vue';

/** Parts ranked for the open circuit: why each does not fit, and one press that takes it. */
const props = defineProps<{
  kind: CircuitPartKind;
  title: string;
  /** In the plural, for the button that shows all. */
  plural: string;
  ranked: readonly { partKey: string; label: string; fits: boolean; reasons: readonly string[] }[];
  chosen: string | undefined;
  /** How many are listed before all are asked for. */
  short?: number;
}>();
const shortList = computed(() => props.short ?? 7);
/** All of them only when they are asked for. */
const all = ref(false);
const listed = computed(() =>
  all.value
    ? props.ranked
    : props.ranked.filter(({ partKey }, i) => i < shortList.value || partKey === props.chosen),
);
</script>

<template>
  <template v-if="ranked.length > 0">
    <table class="grid-table ranked" :data-ranked="kind">
      <thead>
        <tr>
          <th scope="col">{{ title }}</th>
          <th scope="col">why not</th>
          <th scope="col"><span class="visually-hidden">Take</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in listed" :key="one.partKey" :class="{ picked: one.partKey === chosen }">
          <td>{{ one.label }}</td>
          <td class="why">{{ one.fits ? 'fits' : one.reasons.join('; ') }}</td>
          <td class="num">
            <TakeButton :kind="kind" :part-key="one.partKey" />
          </td>
        </tr>
      </tbody>
    </table>
    <button
      v-if="ranked.length > shortList"
      type="button"
      class="btn btn-quiet btn-sm"
      :aria-expanded="all"
      @click="all = !all"
    >
      {{ all ? 'Only the first' : `All ${ranked.length} ${plural}` }}
    </button>
  </template>
</template>

<style scoped>
.ranked {
  margin-top: 0.7rem;
}
</style>
