<script setup lang="ts">
import { hazardDistanceMm, type Id, type RunItem } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useJob } from '../../../stores/job';
import { unitsPerM, type Side } from './drawing';
import { useDrawn } from './use-drawn';
import { useFrame } from './use-frame';
import { useHand } from './use-hand';

/** The vehicle from above or from its right, to scale, with its runs; the points of one are drawn about, by mouse and by keys. */
const props = defineProps<{
  side: Side;
  runId: Id;
  /** The point that is picked, from 0. */
  point: number | null;
  /** Shows that run alone, large. */
  close: boolean;
}>();
const emit = defineEmits<{ pick: [point: number]; run: [id: Id] }>();
const job = useJob();
const svg = ref<SVGSVGElement | null>(null);
const { width: pixels, height: pixelsHigh } = useElementSize(svg);
const runs = computed(() => job.design.runs ?? {});
const run = computed((): RunItem | undefined => runs.value[props.runId]);

const drawnParts = useDrawn(props);
const { body, wheels, things, rects, zones, marks, hazards, drawn, handles, clips, spots } = drawnParts;

const frame = useFrame(props, drawnParts);
/** So that text is as large as elsewhere, whatever the scale. */
const unit = computed(() =>
  Math.max(
    frame.value.width / Math.max(pixels.value, 200),
    frame.value.height / Math.max(pixelsHigh.value, 100),
  ),
);
const font = computed(() => 12 * unit.value);

const { dragging, start, move, end, cancel, keyed, insert } = useHand(props, svg, things, (i) =>
  emit('pick', i),
);
const name = computed(() => (props.side === 'plan' ? 'From above' : 'From the right'));
const summary = computed(
  () =>
    `${name.value}, to scale: ${drawn.value.length} runs, ${hazards.value.length} lines to stay away from${spots.value.length > 0 ? `; too near to ${spots.value.map(({ tag }) => tag).join(', ')}` : ''}.`,
);
const asked = (kind: keyof typeof hazardDistanceMm) => hazardDistanceMm[kind];
</script>

<template>
  <svg
    ref="svg"
    class="view"
    :viewBox="`${frame.left} ${frame.top} ${frame.width} ${frame.height}`"
    role="group"
    :aria-label="summary"
    :data-view="side"
    @pointermove="move"
    @pointerup="end"
    @pointercancel="cancel"
  >
    <defs>
      <pattern
        :id="`zone-${side}`"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="7" class="hatch" />
      </pattern>
    </defs>
    <rect :x="body.x" :y="body.y" :width="body.w" :height="body.h" rx="12" class="body" />
    <line
      v-if="side === 'side'"
      :x1="frame.left"
      :x2="frame.left + frame.width"
      y1="0"
      y2="0"
      class="ground"
    />
    <g v-for="one in wheels" :key="one.x">
      <circle v-if="side === 'side'" :cx="one.x" :cy="-one.r" :r="one.r" class="wheel" />
      <template v-else>
        <rect :x="one.x - one.r" :y="body.y + 6" :width="2 * one.r" height="20" rx="4" class="wheel" />
        <rect
          :x="one.x - one.r"
          :y="body.y + body.h - 26"
          :width="2 * one.r"
          height="20"
          rx="4"
          class="wheel"
        />
      </template>
    </g>
    <g v-for="zone in zones" :key="zone.id" class="zone" :class="zone.kind">
      <rect
        :x="zone.rect.x"
        :y="zone.rect.y"
        :width="zone.rect.w"
        :height="zone.rect.h"
        :fill="zone.kind === 'corridor' || zone.kind === 'obstacle' ? 'none' : `url(#zone-${side})`"
      />
      <title>{{ zone.tag }}, {{ zone.kind }}</title>
    </g>
    <g v-for="one in rects" :key="one.id" class="thing" :class="{ hv: one.hv }">
      <rect :x="one.rect.x" :y="one.rect.y" :width="one.rect.w" :height="one.rect.h" rx="2" />
      <text
        v-if="one.rect.w > one.tag.length * font * 0.52"
        :x="one.rect.x + one.rect.w / 2"
        :y="one.rect.y + one.rect.h / 2 + font * 0.35"
        :font-size="font"
        text-anchor="middle"
      >
        {{ one.tag }}
      </text>
      <title>{{ one.tag }}</title>
    </g>
    <g v-for="one in marks" :key="one.id" class="mark">
      <path :d="`M${one.x - 5},${one.y}h10M${one.x},${one.y - 5}v10`" />
      <circle :cx="one.x" :cy="one.y" r="2.6" />
      <title>{{ one.tag }}</title>
    </g>
    <g v-for="line in hazards" :key="line.id" class="line" :class="line.kind.replaceAll(' ', '-')">
      <path :d="line.d" :stroke-width="Math.max(line.wide, 1.6 * unit)" />
      <title>{{ line.tag }}, {{ line.kind }}: {{ asked(line.kind) }} mm unless said otherwise</title>
    </g>
    <g
      v-for="one in drawn"
      :key="one.id"
      class="run"
      :class="{ picked: one.id === runId, rough: one.rough, coolant: one.coolant }"
      :data-run="one.id"
    >
      <path v-for="(tube, i) in one.tubes" :key="i" :d="tube" class="tube" :stroke-width="9 * unit" />
      <path :d="one.d" class="way" :stroke-width="(one.id === runId ? 3.4 : 2.2) * unit" />
      <path
        :d="one.d"
        class="touch"
        :stroke-width="14 * unit"
        @click="emit('run', one.id)"
        @dblclick.prevent="one.id === runId && insert($event)"
      >
        <title>{{ one.tag }}{{ one.id === runId ? ': double click adds a point' : '' }}</title>
      </path>
    </g>
    <circle v-for="([x, y], i) in clips" :key="`clip-${i}`" :cx="x" :cy="y" :r="2.2 * unit" class="clip" />
    <g v-for="spot in spots" :key="spot.id" class="spot">
      <circle :cx="spot.x" :cy="spot.y" :r="9 * unit" :stroke-width="2.4 * unit" />
      <text :x="spot.x" :y="spot.y - 13 * unit" :font-size="font" text-anchor="middle">
        {{ formatNumber(spot.distance) }} mm
      </text>
    </g>
    <g v-for="one in handles" :key="one.i">
      <circle
        :cx="one.x"
        :cy="one.y"
        :r="(one.i === point ? 7 : 5.5) * unit"
        :stroke-width="1.8 * unit"
        class="handle"
        :class="{ picked: one.i === point }"
        tabindex="0"
        role="button"
        :aria-label="`Point ${one.i + 1} of ${run?.tag}, ${name.toLowerCase()}: arrow keys move it by a centimetre, with shift by ten`"
        @pointerdown="start(one.i, $event)"
        @keydown="keyed(one.i, $event)"
        @focus="emit('pick', one.i)"
      />
      <text :x="one.x + 8 * unit" :y="one.y - 8 * unit" :font-size="font" class="number">
        {{ one.i + 1 }}
      </text>
    </g>
    <text :x="frame.left + 8 * unit" :y="frame.top + 16 * unit" :font-size="font" class="name">
      {{ name }}
    </text>
    <text
      :x="frame.left + frame.width - 8 * unit"
      :y="frame.top + 16 * unit"
      :font-size="font"
      text-anchor="end"
      class="name"
    >
      {{ dragging?.said ?? 'front →' }}
    </text>
    <g
      class="scale"
      :transform="`translate(${frame.left + 10 * unit} ${frame.top + frame.height - 10 * unit})`"
    >
      <path :d="`M0,${-5 * unit} V0 H${unitsPerM / 2} V${-5 * unit}`" :stroke-width="unit" />
      <text :x="unitsPerM / 2 + 6 * unit" y="0" :font-size="font">0.5 m</text>
    </g>
  </svg>
</template>

<style scoped>
.view {
  display: block;
  width: 100%;
  max-height: 270px;
  background: var(--tv-sheet);
  touch-action: none;
  user-select: none;
}

.body {
  fill: var(--tv-recess);
  stroke: var(--tv-line);
  stroke-width: 1;
}

.ground,
.scale path {
  stroke: var(--tv-soft);
  fill: none;
}

.wheel {
  fill: none;
  stroke: var(--tv-line);
  stroke-width: 3;
}

.thing rect {
  fill: var(--tv-grey-fill);
  stroke: var(--tv-soft);
  stroke-width: 1;
}

.thing.hv rect {
  fill: var(--tv-hv-fill);
  fill-opacity: 0.3;
  stroke: var(--tv-hv);
}

text {
  fill: var(--tv-ink);
}

.name,
.scale text {
  fill: var(--tv-soft);
}

.zone rect {
  stroke: var(--tv-soft);
  stroke-width: 1;
  stroke-dasharray: 4 3;
}

.zone.obstacle rect {
  fill: var(--tv-soft);
  fill-opacity: 0.16;
}

.mark {
  fill: none;
  stroke: var(--tv-ink);
  stroke-width: 1;
}

.hatch {
  stroke: var(--tv-stop);
  stroke-width: 1.4;
  opacity: 0.45;
}

.line path {
  fill: none;
  stroke: var(--tv-soft);
  stroke-dasharray: 8 3;
  opacity: 0.8;
}

.line.coolant path {
  stroke: var(--tv-coolant);
}

.line[class*='loom'] path {
  stroke: var(--tv-lowvolt);
}

.run .tube {
  fill: none;
  stroke: var(--tv-soft);
  opacity: 0.35;
  stroke-linecap: round;
}

.run .way {
  fill: none;
  stroke: var(--tv-hv);
  opacity: 0.55;
  stroke-linejoin: round;
}

.run.coolant .way {
  stroke: var(--tv-coolant);
}

.run.picked .way {
  opacity: 1;
}

.run.rough .way {
  stroke-dasharray: 5 4;
}

.run .touch {
  fill: none;
  stroke: transparent;
  cursor: pointer;
}

.clip {
  fill: var(--tv-ink);
  pointer-events: none;
}

.handle {
  fill: var(--tv-sheet);
  stroke: var(--tv-ink);
  cursor: grab;
}

.handle.picked {
  fill: var(--tv-act);
}

.number {
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--tv-sheet);
  stroke-width: 3px;
}

.spot circle {
  fill: none;
  stroke: var(--tv-stop);
}

.spot text {
  fill: var(--tv-stop);
  font-weight: 600;
  paint-order: stroke;
  stroke: var(--tv-sheet);
  stroke-width: 3px;
}
</style>
