<script setup lang="ts">
import type { Overview } from '@torvek/core/design';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import GradeMark from '../parts/GradeMark.vue';
import { sidePx, sideShape } from '../parts/side-shape';

/** A job at a glance: its side, how it stands, what stops it, what comes next. */
const props = defineProps<{ job: string; name: string; overview: Overview | null; failed: boolean }>();
const shape = computed(() => (props.overview === null ? null : sideShape(props.overview.vehicle)));
const boxes = computed(() =>
  (props.overview?.boxes ?? []).map(({ tag, xM, zM, lengthM, heightM }) => ({
    tag,
    x: sidePx(xM - lengthM / 2),
    y: -sidePx(zM + heightM / 2),
    w: sidePx(lengthM),
    h: sidePx(heightM),
  })),
);
const next = computed(() => props.overview?.next ?? null);
</script>

<template>
  <div class="glance">
    <svg
      v-if="shape"
      class="side"
      :viewBox="`${shape.view.left} ${shape.view.top} ${shape.view.width} ${shape.view.height - 80}`"
      role="img"
      :aria-label="`Side of ${name} with ${boxes.length} boxes`"
    >
      <path :d="shape.body" class="body" />
      <rect
        v-for="box in boxes"
        :key="box.tag"
        :x="box.x"
        :y="box.y"
        :width="box.w"
        :height="box.h"
        class="box"
      />
      <circle
        v-for="x in [0, -sidePx(shape.wheelbase)]"
        :key="x"
        :cx="x"
        :cy="-sidePx(shape.wheel) / 2"
        :r="sidePx(shape.wheel) / 2"
        class="wheel"
      />
      <line :x1="shape.view.left" :x2="shape.view.left + shape.view.width" y1="0" y2="0" class="ground" />
    </svg>
    <span v-else class="side" />
    <div class="words">
      <slot />
      <p v-if="failed" class="soft">How it stands cannot be read.</p>
      <p v-else-if="overview === null" class="soft" role="status">Reading how it stands …</p>
      <template v-else>
        <p class="live" :class="overview.live.shape" :data-live="job">
          <b>{{ overview.live.text }}</b><span v-if="overview.live.detail !== ''" class="soft"
            >, {{ overview.live.detail }}</span
          >
        </p>
        <p class="marks">
          <GradeMark v-if="overview.stops > 0" grade="stop" :count="overview.stops" />
          <GradeMark v-if="overview.mends > 0" grade="mend" :count="overview.mends" />
          <span v-if="overview.stale > 0">{{ overview.stale }} to be tested again</span>
          <span v-if="overview.stops + overview.mends + overview.stale === 0" class="soft"
            >nothing open that stops</span
          >
        </p>
        <p v-if="next" class="next" :data-next="job">
          Next:
          <RouterLink
            :to="{
              name: next.station,
              params: { job },
              query: { ...(next.step && { step: next.step }), ...(next.at && { at: next.at }) },
            }"
            >{{ next.text }}</RouterLink
          >
        </p>
        <p v-else class="soft">Nothing is due.</p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.glance {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 0.9rem;
  align-items: center;
}

.side {
  width: 150px;
  max-height: 96px;
}

.body {
  fill: var(--tv-recess);
  stroke: var(--tv-ink);
  stroke-width: 4;
}

.box {
  fill: var(--tv-hv-fill);
  fill-opacity: 0.55;
  stroke: var(--tv-hv);
  stroke-width: 4;
}

.wheel {
  fill: var(--tv-sheet);
  stroke: var(--tv-ink);
  stroke-width: 6;
}

.ground {
  stroke: var(--tv-soft);
  stroke-width: 3;
}

p {
  margin: 0;
}

.marks {
  display: flex;
  gap: 0.8rem;
  align-items: center;
  font-size: 0.9rem;
}

.next {
  font-size: 0.92rem;
}

.bus b,
.stored b {
  color: var(--tv-hv);
}
</style>
