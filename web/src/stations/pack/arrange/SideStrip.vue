<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import type { Drawn } from './chips';
import type { PlanGeometry } from './plan-geometry';

/** The same boxes from the right side, at the scale of the plan above. */
defineProps<{
  drawn: Drawn;
  plan: PlanGeometry;
  roomPx: number;
  chosen: ReadonlySet<Id>;
  target: string | null;
  /** The whole vehicle, with ground and wheels. */
  whole: boolean;
}>();
</script>

<template>
  <svg
    class="side"
    :width="roomPx"
    :height="plan.sidePx"
    role="img"
    aria-label="The same boxes from the right side"
  >
    <template v-if="whole">
      <line class="ground" x1="0" :x2="roomPx" :y1="plan.z(0)" :y2="plan.z(0)" />
      <circle
        v-for="axle in plan.axles"
        :key="axle"
        class="rim"
        :cx="plan.x(axle)"
        :cy="plan.z(plan.wheelM / 2)"
        :r="(plan.wheelM / 2) * plan.scale"
      />
    </template>
    <g v-for="box in drawn.boxes" :key="box.id">
      <rect
        class="side-box"
        :class="{ target: target === box.id }"
        :x="plan.x(box.xM - box.lengthM / 2)"
        :y="plan.z(box.zM + box.heightM / 2)"
        :width="box.lengthM * plan.scale"
        :height="box.heightM * plan.scale"
      />
      <rect
        v-for="chip in drawn.chips.filter((one) => one.box === box.id)"
        :key="chip.id"
        class="side-chip"
        :class="{ chosen: chosen.has(chip.id) }"
        :x="plan.x(chip.xM - chip.lengthM / 2)"
        :y="plan.z(chip.zM + chip.heightM / 2)"
        :width="Math.max(chip.lengthM * plan.scale - 1, 2)"
        :height="Math.max(chip.heightM * plan.scale - 1, 2)"
      />
    </g>
    <text class="word" x="4" y="13">from the right side</text>
  </svg>
</template>

<style scoped>
.side {
  display: block;
}

.ground {
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.rim {
  fill: none;
  stroke: var(--tv-plate-edge);
  stroke-width: 6;
}

.side-box {
  fill: var(--tv-sheet);
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.side-box.target {
  stroke: var(--tv-act);
  stroke-width: 4;
}

.side-chip {
  fill: var(--tv-sheet);
  stroke: var(--tv-hv);
  stroke-width: 1.2;
}

.side-chip.chosen {
  fill: var(--tv-pick);
  stroke: var(--tv-act);
  stroke-width: 2;
}

.word {
  font-size: 0.78rem;
  fill: var(--tv-soft);
}
</style>
