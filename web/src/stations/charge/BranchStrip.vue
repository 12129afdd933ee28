<script setup lang="ts">
import type { DeviceKind, Id } from '@torvek/core/document';
import { figureId } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import { useJob } from '../../stores/job';

/** The branch that fuse and cable are judged by, held against what flows in it; taken over in one step. */
const props = defineProps<{ kind: DeviceKind }>();
const job = useJob();
const rows = computed(() =>
  Object.entries(job.design.circuits).flatMap(([id, circuit]) => {
    if (job.design.devices[circuit.device ?? '']?.kind !== props.kind) return [];
    const flows = job.figure(figureId('charge.branch', id, 'currentA'))?.value ?? null;
    if (flows === null) return [];
    const judged = (circuit.loadProfile ?? []).reduce((most, [, amps]) => Math.max(most, Math.abs(amps)), 0);
    return [{ id, tag: circuit.tag, flows, judged, short: flows > judged * 1.01 }];
  }),
);
const n = (value: number) => formatNumber(value, 3);
/** For an hour: it flows for as long as it likes. */
const take = (id: Id, tag: string, flows: number) =>
  job.change(`Load of ${tag} as charging has it`, (draft) => {
    const own = draft.circuits[id];
    if (own !== undefined) own.loadProfile = [[3600, Math.ceil(flows * 10) / 10]];
  });
</script>

<template>
  <p v-for="row in rows" :key="row.id" class="branch" :data-branch="row.id">
    <span>
      Branch {{ row.tag }}: up to {{ n(row.flows) }} A flow; fuse and cable are judged by
      {{ row.judged === 0 ? 'nothing yet' : `${n(row.judged)} A` }}.
    </span>
    <BButton
      v-if="row.short"
      size="sm"
      variant="primary"
      :disabled="!job.editable"
      @click="take(row.id, row.tag, row.flows)"
      >Judge it by {{ n(Math.ceil(row.flows * 10) / 10) }} A</BButton
    >
  </p>
</template>

<style scoped>
.branch {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem 0.8rem;
  align-items: center;
  margin: 0.4rem 0 0;
}
</style>
