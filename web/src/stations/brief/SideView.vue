<script setup lang="ts">
import type { FigureName } from '@torvek/core/figure';
import { massBlocks, placed } from '@torvek/core/vehicle';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import { sidePx, sideShape } from '../../parts/side-shape';
import { useJob } from '../../stores/job';

/** The vehicle from its right side, to scale: what leaves, what comes, and what the axles carry before and after. */
defineProps<{ picked: string | null; numbers: Map<string, number> }>();
const emit = defineEmits<{ pick: [id: string] }>();
const job = useJob();
const vehicle = computed(() => job.design.vehicle);
const blocks = computed(() => placed(massBlocks(job.design).blocks));
const shape = computed(() => sideShape(vehicle.value));
const wheelbase = computed(() => shape.value.wheelbase);
const wheel = computed(() => shape.value.wheel);
const floor = computed(() => shape.value.floor);
const px = sidePx;
const view = computed(() => shape.value.view);
const body = computed(() => shape.value.body);

type Placed = ReturnType<typeof placed>[number];
function size(block: Placed) {
  const side = Math.sqrt(Math.abs(block.massKg) / 400) || 0.15;
  const long = block.lengthM ?? side;
  const high = block.heightM ?? side;
  const z = block.zM ?? floor.value + high / 2 + 0.1;
  return {
    x: px(block.xM - long / 2),
    y: -px(z + high / 2),
    w: Math.max(px(long), 6),
    h: Math.max(px(high), 6),
  };
}

const drawn = computed(() =>
  blocks.value.map((block) => ({ block, ...size(block) })).sort((a, b) => b.w * b.h - a.w * a.h),
);
const clipped = (x: number) =>
  Math.min(Math.max(x, view.value.left + 10), view.value.left + view.value.width - 10);
const figure = (name: FigureName<'vehicle.axles'>) =>
  job.figure(`vehicle.axles:vehicle:${name}`)?.value ?? null;
const loads = computed(() => [
  { x: 0, before: vehicle.value.frontKg, after: figure('frontKg') },
  { x: -px(wheelbase.value), before: vehicle.value.rearKg, after: figure('rearKg') },
]);
const centre = computed(() => {
  const rear = figure('rearKg');
  const total = figure('totalKg');
  const { frontKg, rearKg } = vehicle.value;
  return {
    before:
      frontKg !== undefined && rearKg !== undefined && frontKg + rearKg > 0
        ? (-px(wheelbase.value) * rearKg) / (frontKg + rearKg)
        : null,
    after: rear !== null && total !== null ? (-px(wheelbase.value) * rear) / total : null,
  };
});
const summary = computed(
  () =>
    `Side view to scale with ${blocks.value.length} masses; ` +
    (figure('frontKg') === null
      ? 'axle loads are not computed yet.'
      : `front axle ${formatNumber(figure('frontKg')!, 4)} kg, rear axle ${formatNumber(figure('rearKg')!, 4)} kg.`),
);
const inside = (drawnBlock: { block: Placed; w: number; h: number }) =>
  drawnBlock.w > 24 && drawnBlock.h > 22;
</script>

<template>
  <svg
    class="side"
    :viewBox="`${view.left} ${view.top} ${view.width} ${view.height}`"
    role="img"
    :aria-label="summary"
  >
    <defs>
      <pattern id="removed" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="9" class="hatch" />
      </pattern>
    </defs>
    <line :x1="view.left" :x2="view.left + view.width" y1="0" y2="0" class="ground" />
    <path :d="body" class="body" />
    <g v-for="load in loads" :key="load.x">
      <circle :cx="load.x" :cy="-px(wheel) / 2" :r="px(wheel) / 2" class="wheel" />
      <circle :cx="load.x" :cy="-px(wheel) / 2" :r="px(wheel) / 6" class="hub" />
    </g>
    <g
      v-for="one in drawn"
      :key="one.block.id"
      class="mass"
      :class="[one.block.kind, { picked: picked === one.block.id }]"
      @click="emit('pick', one.block.id)"
    >
      <rect :x="one.x" :y="one.y" :width="one.w" :height="one.h" rx="2" />
      <text
        :x="clipped(one.x + Math.min(one.w / 2, 20))"
        :y="inside(one) ? one.y + Math.min(one.h / 2 + 6, 22) : one.y + one.h + 17"
        text-anchor="middle"
      >
        {{ numbers.get(one.block.id) }}
      </text>
      <title>
        {{ one.block.name }}: {{ formatNumber(one.block.massKg) }} kg at x =
        {{ formatNumber(one.block.xM) }} m
      </title>
    </g>
    <g v-for="load in loads" :key="`load${load.x}`" class="load">
      <path :d="`M${load.x},6 l-7,12 h14 Z`" />
      <text :x="load.x" y="38" text-anchor="middle">
        {{ load.before === undefined ? '—' : formatNumber(load.before, 4) }} →
      </text>
      <text :x="load.x" y="60" text-anchor="middle" class="after">
        {{ load.after === null ? 'not computed' : `${formatNumber(load.after, 4)} kg` }}
      </text>
    </g>
    <g v-if="centre.before !== null" class="centre">
      <line :x1="centre.before" :x2="centre.before" y1="4" y2="26" class="before" />
      <text :x="centre.before" y="40" text-anchor="middle">before</text>
    </g>
    <g v-if="centre.after !== null" class="centre">
      <line :x1="centre.after" :x2="centre.after" y1="4" y2="46" class="now" />
      <text :x="centre.after" y="60" text-anchor="middle">centre of mass</text>
    </g>
    <g class="scale" :transform="`translate(${view.left + 12} ${view.top + view.height - 12})`">
      <path d="M0,-5 V0 H100 V-5" />
      <text x="106" y="1">1 m</text>
    </g>
    <text :x="view.left + view.width - 8" :y="view.top + view.height - 11" text-anchor="end" class="way">
      front →
    </text>
  </svg>
</template>

<style scoped>
.side {
  width: 100%;
  max-height: 330px;
}

.ground {
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.body {
  fill: var(--tv-recess);
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.wheel {
  fill: none;
  stroke: var(--tv-soft);
  stroke-width: 9;
}

.hub {
  fill: var(--tv-soft);
}

.mass {
  cursor: pointer;
}

.mass rect {
  stroke: var(--tv-ink);
  stroke-width: 1.6;
  fill: var(--tv-grey-fill);
}

.mass.box rect {
  fill: var(--tv-hv-fill);
  stroke: var(--tv-hv);
}

.mass.loop rect {
  stroke: var(--tv-coolant);
}

.mass.out rect {
  fill: url('#removed');
  stroke-dasharray: 5 4;
  stroke: var(--tv-soft);
}

.hatch {
  stroke: var(--tv-soft);
  stroke-width: 1;
  opacity: 0.5;
}

.mass.picked rect {
  stroke-width: 4;
}

text {
  font-size: 17px;
  fill: var(--tv-ink);
}

.mass text {
  font-weight: 600;
  font-size: 18px;
  paint-order: stroke;
  stroke: var(--tv-sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
}

.load path {
  fill: var(--tv-ink);
}

.load text {
  fill: var(--tv-soft);
}

.load .after {
  fill: var(--tv-ink);
  font-weight: 600;
  font-size: 19px;
}

.centre .before {
  stroke: var(--tv-soft);
  stroke-width: 2;
  stroke-dasharray: 3 3;
}

.centre .now {
  stroke: var(--tv-ink);
  stroke-width: 3;
}

.centre text,
.scale text,
.way {
  font-size: 15px;
  fill: var(--tv-soft);
}

.scale path {
  fill: none;
  stroke: var(--tv-soft);
  stroke-width: 2;
}
</style>
