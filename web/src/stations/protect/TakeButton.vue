<script setup lang="ts">
import type { CircuitPartKind } from '@torvek/core/document';
import { choosePart, type AlongPart } from '../../parts/choose-part';
import { computed } from 'vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import { useCircuit } from './use-circuit';

/** Takes a ranked part for the open circuit; says when it is the chosen one. */
const props = defineProps<{
  kind: CircuitPartKind;
  partKey: string;
  /** What is exchanged with it. */
  along?: readonly AlongPart[];
}>();
const job = useJob();
const shelf = useLibrary();
const { circuitId, circuit } = useCircuit();
const name = computed(
  () => (job.design.parts[props.partKey] ?? shelf.library.find(props.partKey))?.label ?? props.partKey,
);
const chosen = () => circuit.value?.[props.kind] === props.partKey;
</script>

<template>
  <span v-if="chosen()" class="soft">chosen</span>
  <button
    v-else
    type="button"
    class="btn btn-quiet btn-sm"
    :aria-label="`take ${name}`"
    @click="choosePart(job, circuitId, kind, partKey, along)"
  >
    take
  </button>
</template>
