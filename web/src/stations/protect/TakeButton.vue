<script setup lang="ts">
import type { CircuitPartKind } from '@torvek/core/document';
import { choosePart, type AlongPart } from '../../parts/choose-part';
import { useJob } from '../../stores/job';
import { useCircuit } from './use-circuit';

/** Takes a ranked part for the open circuit; says when it is the chosen one. */
const props = defineProps<{
  kind: CircuitPartKind;
  partKey: string;
  /** What is exchanged with it. */
  along?: readonly AlongPart[];
}>();
const job = useJob();
const { circuitId, circuit } = useCircuit();
const chosen = () => circuit.value?.[props.kind] === props.partKey;
</script>

<template>
  <span v-if="chosen()" class="soft">chosen</span>
  <button
    v-else
    type="button"
    class="btn btn-quiet btn-sm"
    @click="choosePart(job, circuitId, kind, partKey, along)"
  >
    take
  </button>
</template>
