<script setup lang="ts">
import type { planGeometry } from './plan-geometry';

/** The outline of the vehicle from above, with its axles and wheels. */
defineProps<{ plan: ReturnType<typeof planGeometry>; widthPx: number; whole: boolean }>();
</script>

<template>
  <svg class="under" :width="widthPx" :height="plan.planPx" aria-hidden="true">
    <template v-if="whole">
      <rect
        class="body"
        :x="plan.x(plan.extent.rear + 0.12)"
        :y="plan.y(plan.extent.half)"
        :width="(plan.extent.front - plan.extent.rear - 0.24) * plan.scale"
        :height="2 * plan.extent.half * plan.scale"
        :rx="0.18 * plan.scale"
      />
      <g v-for="axle in plan.axles" :key="axle">
        <line
          class="axle"
          :x1="plan.x(axle)"
          :x2="plan.x(axle)"
          :y1="plan.y(plan.extent.half)"
          :y2="plan.y(-plan.extent.half)"
        />
        <rect
          v-for="side in [1, -1]"
          :key="side"
          class="wheel"
          :x="plan.x(axle - plan.wheelM / 2)"
          :y="plan.y(side * (plan.extent.half - 0.02) + 0.09)"
          :width="plan.wheelM * plan.scale"
          :height="0.18 * plan.scale"
          rx="3"
        />
      </g>
    </template>
  </svg>
</template>

<style scoped>
.under {
  position: absolute;
  inset: 0;
}

.body {
  fill: var(--tv-recess);
  stroke: var(--tv-line);
  stroke-width: 2;
}

.axle {
  stroke: var(--tv-plate-edge);
  stroke-width: 3;
}

.wheel {
  fill: var(--tv-plate-edge);
}
</style>
