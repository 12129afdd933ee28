<script setup lang="ts">
import { cavityPlaces, wiresByEnd } from '@torvek/core/low-voltage';
import type { Id } from '@torvek/core/document';
import { computed, ref } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import PartField from '../../../parts/PartField.vue';
import TextField from '../../../parts/TextField.vue';
import { useJob } from '../../../stores/job';
import { yesNo } from '../use-supplies';

/** An end of the looms: a connector with its face, pin by pin; seen from the wires or from the front, which is said. */
const props = defineProps<{ endId: Id }>();
const emit = defineEmits<{ wire: [id: Id] }>();
const job = useJob();
const side = ref<'wires' | 'front'>('wires');
const end = computed(() => job.design.ends?.[props.endId]);
const face = computed(() => {
  const part = job.design.parts[end.value?.connector ?? ''];
  return part?.kind === 'connector' ? part.data : null;
});
const here = computed(() => {
  const at = wiresByEnd({ wires: job.design.wires ?? {} });
  return (Object.hasOwn(at, props.endId) ? at[props.endId]! : []).map(({ wire, pin }) => ({
    wire,
    pin,
    tag: job.design.wires![wire]!.tag,
    colour: job.design.wires![wire]!.colour ?? '',
    system: job.design.wires![wire]!.system ?? 'low voltage',
  }));
});
const [cellW, cellH] = [104, 58];
const cavities = computed(() => {
  if (face.value === null) return [];
  const places = cavityPlaces(face.value.cavities, face.value.rows);
  const columns = Math.max(...places.map(({ column }) => column)) + 1;
  return places.map(({ pin, row, column }) => ({
    pin,
    x: (side.value === 'front' ? column : columns - 1 - column) * cellW,
    y: row * cellH,
    wires: here.value.filter((one) => one.pin === pin),
  }));
});
const size = computed(() => ({
  w: Math.max(cellW, ...cavities.value.map(({ x }) => x + cellW)) + 12,
  h: Math.max(cellH, ...cavities.value.map(({ y }) => y + cellH)) + 12,
}));
const short = (tag: string) => (tag.length > 13 ? `${tag.slice(0, 12)}…` : tag);
const at = (field: string) => `ends.${props.endId}.${field}`;
const devices = computed(() =>
  Object.entries(job.design.devices).map(([value, { tag }]) => ({ value, text: tag })),
);
</script>

<template>
  <div v-if="end" class="one-end" :data-face="endId">
    <div class="fields">
      <TextField :path="at('tag')" label="Name" required />
      <PartField
        v-if="end.kind === 'connector'"
        :path="at('connector')"
        kind="connector"
        label="Connector"
        none="not chosen"
      />
      <TextField :path="at('place')" label="Place" />
      <ChoiceField above :path="at('device')" label="Belongs to" :options="devices" none="nothing" />
      <ChoiceField
        v-if="end.kind === 'ground'"
        above
        :path="at('forSense')"
        label="Ground of sensors"
        :options="yesNo"
        none="no (default)"
      />
    </div>
    <template v-if="face">
      <div class="chips" role="group" aria-label="Seen from">
        <button
          v-for="one in ['wires', 'front'] as const"
          :key="one"
          type="button"
          class="btn btn-sm"
          :class="side === one ? 'btn-primary' : 'btn-light'"
          :aria-pressed="side === one"
          @click="side = one"
        >
          {{ one === 'wires' ? 'seen from the wires' : 'seen from the front' }}
        </button>
      </div>
      <svg
        class="face"
        :viewBox="`0 0 ${size.w} ${size.h}`"
        :style="{ width: `min(100%, ${size.w}px)` }"
        role="img"
        :aria-label="`${end.tag}, seen from the ${side}: ${here.length} of ${face.cavities} cavities hold a wire`"
      >
        <rect x="2" y="2" :width="size.w - 4" :height="size.h - 4" rx="8" class="shell" />
        <g
          v-for="one in cavities"
          :key="one.pin"
          :transform="`translate(${one.x + 6},${one.y + 6})`"
          :data-pin="one.pin"
          :class="{
            filled: one.wires.length > 0,
            twice: one.wires.length > 1,
            signal: one.wires[0]?.system !== 'low voltage',
          }"
          @click="one.wires[0] && emit('wire', one.wires[0].wire)"
        >
          <rect x="3" y="3" :width="cellW - 6" :height="cellH - 6" rx="4" class="cavity" />
          <text x="10" y="19" class="pin">{{ one.pin }}</text>
          <text x="10" y="35">{{ one.wires[0] ? short(one.wires[0].tag) : 'blank' }}</text>
          <text x="10" y="49" class="colour">
            {{ one.wires.length > 1 ? `and ${one.wires.length - 1} more` : one.wires[0]?.colour }}
          </text>
        </g>
      </svg>
    </template>
    <p v-else class="soft">
      {{ here.length === 0 ? 'No wire ends here.' : `Ends here: ${here.map(({ tag }) => tag).join(', ')}.` }}
    </p>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
  gap: 0.2rem 1rem;
  align-items: end;
  margin-bottom: 0.5rem;
}

.chips {
  display: flex;
  gap: 0.3rem;
  margin-bottom: 0.4rem;
}

.face {
  font-size: 12px;
  max-height: 260px;
}

text {
  fill: var(--tv-ink);
}

.shell {
  fill: var(--tv-recess);
  stroke: var(--tv-ink);
  stroke-width: 2;
}

.cavity {
  fill: var(--tv-sheet);
  stroke: var(--tv-line);
}

.filled .cavity {
  stroke: var(--tv-lowvolt);
  stroke-width: 2;
}

.filled.signal .cavity {
  stroke: var(--tv-signal);
}

.twice .cavity {
  stroke: var(--tv-mend);
  stroke-dasharray: 4 3;
}

.pin {
  font-weight: 700;
}

.colour {
  fill: var(--tv-soft);
}
</style>
