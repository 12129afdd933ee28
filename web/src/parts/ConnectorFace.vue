<script setup lang="ts">
import { cavityPlaces } from '@torvek/core/low-voltage';
import { computed, ref } from 'vue';

/** A wire that ends in a cavity. */
export interface FaceWire {
  id: string;
  pin: number | null;
  tag: string;
  colour: string;
  /** Which colour its cavity is drawn in. */
  system: 'low voltage' | 'signal' | 'hv';
}

/** The face of a connector, pin by pin: seen from the wires or from the front, which is said. */
const props = defineProps<{ name: string; cavities: number; rows: number; wires: readonly FaceWire[] }>();
const emit = defineEmits<{ wire: [id: string] }>();
const side = ref<'wires' | 'front'>('wires');
const [cellW, cellH] = [104, 58];
const places = computed(() => {
  const all = cavityPlaces(props.cavities, props.rows);
  const columns = Math.max(...all.map(({ column }) => column)) + 1;
  return all.map(({ pin, row, column }) => ({
    pin,
    x: (side.value === 'front' ? column : columns - 1 - column) * cellW,
    y: row * cellH,
    wires: props.wires.filter((one) => one.pin === pin),
  }));
});
const filled = computed(() => places.value.filter(({ wires }) => wires.length > 0).length);
const size = computed(() => ({
  w: Math.max(cellW, ...places.value.map(({ x }) => x + cellW)) + 12,
  h: Math.max(cellH, ...places.value.map(({ y }) => y + cellH)) + 12,
}));
const short = (tag: string) => (tag.length > 13 ? `${tag.slice(0, 12)}…` : tag);
</script>

<template>
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
    :aria-label="`${name}, seen from the ${side}: ${filled} of ${cavities} cavities hold a wire`"
  >
    <rect x="2" y="2" :width="size.w - 4" :height="size.h - 4" rx="8" class="shell" />
    <g
      v-for="one in places"
      :key="one.pin"
      :transform="`translate(${one.x + 6},${one.y + 6})`"
      :data-pin="one.pin"
      :class="[{ filled: one.wires.length > 0, twice: one.wires.length > 1 }, one.wires[0]?.system]"
      @click="one.wires[0] && emit('wire', one.wires[0].id)"
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

<style scoped>
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

.filled.hv .cavity {
  stroke: var(--tv-hv);
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
