<script setup lang="ts">
import type { BendCardResult } from '@torvek/core/routing';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref } from 'vue';
import { halfBent, seen } from './tube-drawing';

/** The straight tube with its marks, and the tube as it is after so many bends, to be looked at from all sides. */
const props = defineProps<{ card: BendCardResult; done: number; startMm: number }>();
const turn = ref(35);
const tilt = ref(25);
const width = 880;
const straight = computed(() => {
  const { cutLengthMm, bends } = props.card;
  const scale = (width - 40) / cutLengthMm;
  const x = (mm: number) => 20 + mm * scale;
  return {
    from: x(0),
    to: x(cutLengthMm),
    bends: bends.map(({ number, startMarkMm, endMarkMm, centreMarkMm }) => ({
      number,
      x: x(startMarkMm),
      w: Math.max(1.5, x(endMarkMm) - x(startMarkMm)),
      mid: x(centreMarkMm),
      mark: startMarkMm,
    })),
  };
});
const bentView = computed(() => {
  const { points, straightFrom } = halfBent(props.card, props.done, props.startMm);
  const flat = seen(points, turn.value, tilt.value);
  const [xs, ys] = [flat.map(([x]) => x), flat.map(([, y]) => y)];
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [top, bottom] = [Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((width - 60) / Math.max(right - left, 1), 150 / Math.max(bottom - top, 1));
  const [offX, offY] = [(width - (right - left) * scale) / 2, (170 - (bottom - top) * scale) / 2];
  const at = ([x, y]: [number, number]) =>
    `${(offX + (x - left) * scale).toFixed(1)},${(offY + (y - top) * scale).toFixed(1)}`;
  return {
    made: flat
      .slice(0, straightFrom + 1)
      .map(at)
      .join(' '),
    rest: flat.slice(straightFrom).map(at).join(' '),
    start: at(flat[0]!).split(',').map(Number) as [number, number],
  };
});
const drag = ref<{ x: number; y: number } | null>(null);
function grab(event: PointerEvent): void {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  drag.value = { x: event.clientX, y: event.clientY };
}
function move(event: PointerEvent): void {
  if (drag.value === null) return;
  turn.value += (event.clientX - drag.value.x) * 0.5;
  tilt.value = Math.max(-89, Math.min(89, tilt.value + (event.clientY - drag.value.y) * 0.5));
  drag.value = { x: event.clientX, y: event.clientY };
}
const keys: Record<string, [number, number]> = {
  ArrowLeft: [-10, 0],
  ArrowRight: [10, 0],
  ArrowUp: [0, -10],
  ArrowDown: [0, 10],
};
function keyed(event: KeyboardEvent): void {
  const by = keys[event.key];
  if (by === undefined) return;
  event.preventDefault();
  turn.value += by[0];
  tilt.value = Math.max(-89, Math.min(89, tilt.value + by[1]));
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} 66`"
    class="straight"
    role="img"
    :aria-label="`Straight tube of ${formatNumber(card.cutLengthMm, 5)} mm with the marks of ${card.bends.length} bends`"
  >
    <rect :x="straight.from" y="30" :width="straight.to - straight.from" height="12" rx="2" class="tube" />
    <g v-for="bend in straight.bends" :key="bend.number" :class="{ made: bend.number <= done }">
      <rect :x="bend.x" y="30" :width="bend.w" height="12" class="bend" />
      <line :x1="bend.x" :x2="bend.x" y1="24" y2="48" class="mark" />
      <text :x="bend.mid" y="18" text-anchor="middle" class="no">{{ bend.number }}</text>
      <text :x="bend.x" y="61" text-anchor="middle">{{ formatNumber(bend.mark, 5) }}</text>
    </g>
    <text :x="straight.from" y="18" class="end">start</text>
    <text :x="straight.to" y="61" text-anchor="end" class="end">
      {{ formatNumber(card.cutLengthMm, 5) }} mm
    </text>
  </svg>
  <svg
    :viewBox="`0 0 ${width} 186`"
    class="bent"
    tabindex="0"
    role="img"
    :aria-label="`The tube after ${done} of ${card.bends.length} bends; arrow keys turn it`"
    @pointerdown="grab"
    @pointermove="move"
    @pointerup="drag = null"
    @pointercancel="drag = null"
    @keydown="keyed"
  >
    <polyline :points="bentView.made" class="pipe" />
    <polyline :points="bentView.rest" class="pipe rest" />
    <circle :cx="bentView.start[0]" :cy="bentView.start[1]" r="5" class="start" />
    <text :x="bentView.start[0]" :y="bentView.start[1] - 10" text-anchor="middle">start</text>
    <text x="868" y="180" text-anchor="end" class="end">
      after {{ done }} of {{ card.bends.length }} bends; drag it to look from another side
    </text>
  </svg>
</template>

<style scoped>
.straight,
.bent {
  width: 100%;
  display: block;
}

.bent {
  touch-action: none;
  cursor: grab;
}

.tube {
  fill: var(--tv-grey-fill);
  stroke: var(--tv-soft);
}

.bend {
  fill: var(--tv-soft);
  opacity: 0.35;
}

.made .bend {
  fill: var(--tv-act);
  opacity: 0.8;
}

.mark {
  stroke: var(--tv-ink);
  stroke-width: 1.5;
}

text {
  font-size: 12px;
  fill: var(--tv-ink);
}

.no {
  font-weight: 600;
}

.end {
  fill: var(--tv-soft);
}

.pipe {
  fill: none;
  stroke: var(--tv-act);
  stroke-width: 7;
  stroke-linejoin: round;
  stroke-linecap: round;
}

.rest {
  stroke: var(--tv-soft);
  opacity: 0.45;
}

.start {
  fill: var(--tv-sheet);
  stroke: var(--tv-ink);
  stroke-width: 2;
}
</style>
