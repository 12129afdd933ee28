<script setup lang="ts">
import type { CircuitPartKind } from '@torvek/core/document';
import { choosePart } from '../../parts/choose-part';
import { useJob } from '../../stores/job';
import { useCircuit } from './use-circuit';

/** Takes a ranked part for the open circuit; says when it is the chosen one. */
const props = defineProps<{ kind: CircuitPartKind; partKey: string }>();
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
    @click="choosePart(job, circuitId, kind, partKey)"
  >
    take
  </button>
</template>
