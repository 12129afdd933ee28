<script setup lang="ts">
import { setAt, valueOf } from '@torvek/core/document';
import { pin, unpinUnused } from '@torvek/core/pack';
import { partKey, type Part, type PartKind } from '@torvek/core/parts';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import { useJob } from '../stores/job';
import { useLibrary } from '../stores/library';

/** A part chosen for one place of the design: its rating first, for cells are narrow. */
const props = defineProps<{ path: string; kind: PartKind; label: string; none: string }>();
const job = useJob();
const shelf = useLibrary();
const key = computed(() => (valueOf(job.design, props.path) as string | undefined) ?? '');
const choices = computed<Part[]>(() => {
  const known = shelf.library.of(props.kind) as readonly Part[];
  const pinned = job.design.parts[key.value];
  return pinned === undefined || known.some((part) => partKey(part) === key.value)
    ? [...known]
    : [pinned, ...known];
});

function short(part: Part): string {
  switch (part.kind) {
    case 'fuse':
      return `${formatNumber(part.data.ratedA)} A, ${formatNumber(part.data.ratedVoltageV)} V, ${part.number}`;
    case 'contactor':
      return `${formatNumber(part.data.continuousA)} A, ${formatNumber(part.data.ratedVoltageV)} V, ${part.number}`;
    case 'resistor':
      return `${formatQuantity(part.data.resistanceOhm, 'Ω')}, ${part.number}`;
    case 'cable':
      return `${formatNumber(part.data.areaMm2)} mm², ${part.number}`;
    case 'lug':
      return `${part.number}, ${formatNumber(part.data.areaMm2)} mm² on M${formatNumber(part.data.studMm)}`;
    case 'gland':
      return `${part.number}, ${formatNumber(part.data.clampMinMm)}–${formatNumber(part.data.clampMaxMm)} mm`;
    case 'disconnect':
      return `${formatNumber(part.data.continuousA)} A, ${formatNumber(part.data.ratedVoltageV)} V, ${part.number}`;
    case 'plug':
      return `${formatNumber(part.data.areaMm2)} mm², ${formatNumber(part.data.continuousA)} A, ${part.number}`;
    case 'module':
      return part.label;
    default:
      // Cells are narrow: the make is the same for most of them.
      return part.label.startsWith(`${part.make} `) ? part.label.slice(part.make.length + 1) : part.label;
  }
}

function choose(event: Event): void {
  const chosen = (event.target as HTMLSelectElement).value;
  const part = chosen === '' ? undefined : (job.design.parts[chosen] ?? shelf.library.find(chosen));
  job.change(`${props.label}: ${part?.label ?? props.none}`, (draft) => {
    setAt(draft, props.path, part === undefined ? undefined : pin(draft, part));
    unpinUnused(draft);
  });
}
</script>

<template>
  <select
    class="form-select choice-cell"
    :class="{ none: key === '' }"
    :value="key"
    :aria-label="label"
    :data-path="path"
    :disabled="!job.editable"
    @change="choose"
  >
    <option value="">{{ none }}</option>
    <option v-for="part in choices" :key="partKey(part)" :value="partKey(part)">{{ short(part) }}</option>
  </select>
</template>
