<script setup lang="ts">
import { mainCircuit } from '@torvek/core/document';
import { choosePart } from '../../parts/choose-part';
import { useJob } from '../../stores/job';

/** Takes a ranked part for the main circuit; says when it is the chosen one. */
const props = defineProps<{ kind: 'contactor' | 'resistor' | 'fuse' | 'cable'; partKey: string }>();
const job = useJob();
const chosen = () => job.design.circuits[mainCircuit]?.[props.kind] === props.partKey;
</script>

<template>
  <span v-if="chosen()" class="soft">chosen</span>
  <button v-else type="button" class="btn btn-quiet btn-sm" @click="choosePart(job, kind, partKey)">
    take
  </button>
</template>
