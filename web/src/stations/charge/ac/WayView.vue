<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import type { WayLink } from './way';

/** The way from the socket to the cells as a stream: as wide as each link allows, the narrowest marked. */
const props = defineProps<{ links: readonly WayLink[]; flowA: number | null; summary: string }>();
const [width, top, high] = [860, 34, 92];
/** Beyond three times the narrowest a link is simply wide: what governs stays to be seen. */
const most = computed(() => {
  const known = props.links.flatMap(({ phaseA }) => (phaseA === null ? [] : [phaseA]));
  const least = Math.min(...known.filter((one) => one > 0), Infinity);
  return Math.min(Math.max(...known, 1), least * 3);
});
const boxes = computed(() => {
  const each = width / Math.max(1, props.links.length);
  return props.links.map((link, i) => {
    const share = link.phaseA === null ? 0 : Math.max(0.04, Math.min(1, link.phaseA / most.value));
    const tall = share * high;
    return { ...link, x: i * each, each, y: top + (high - tall) / 2, tall };
  });
});
const flow = computed(() => {
  if (props.flowA === null) return 0;
  return Math.max(2, (Math.min(props.flowA, most.value) / most.value) * high);
});
const n = (value: number) => formatNumber(value, 3);
</script>

<template>
  <svg class="way" :viewBox="`0 0 ${width} 188`" role="img" :aria-label="summary" data-way>
    <defs>
      <pattern
        id="way-hatch"
        width="6"
        height="6"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <line x1="0" y1="0" x2="0" y2="6" class="hatch" />
      </pattern>
    </defs>
    <g v-for="box in boxes" :key="box.name" :data-link="box.name" :data-narrowest="box.narrowest">
      <text :x="box.x + box.each / 2" y="16" class="name" :class="{ strong: box.narrowest }">
        {{ box.name }}
      </text>
      <rect
        v-if="box.phaseA !== null"
        :x="box.x + 2"
        :y="box.y"
        :width="box.each - 4"
        :height="box.tall"
        class="room"
        :class="{ narrow: box.narrowest, pack: box.side === 'pack' }"
      />
      <rect
        v-if="box.narrowest"
        :x="box.x + 2"
        :y="box.y"
        :width="box.each - 4"
        :height="box.tall"
        fill="url(#way-hatch)"
      />
      <rect
        v-if="box.phaseA === null"
        :x="box.x + 2"
        :y="top"
        :width="box.each - 4"
        :height="high"
        class="unknown"
      />
      <text v-if="box.phaseA === null" :x="box.x + box.each / 2" :y="top + high / 2 + 4" class="said">?</text>
      <text :x="box.x + box.each / 2" y="150" class="amps" :class="{ strong: box.narrowest }">
        {{ box.phaseA === null ? '—' : `${n(box.phaseA)} A` }}
      </text>
      <text :x="box.x + box.each / 2" y="168" class="said">{{ box.said.split(', ')[0] }}</text>
      <text :x="box.x + box.each / 2" y="182" class="said">
        {{ box.said.split(', ').slice(1).join(', ') }}
      </text>
    </g>
    <template v-if="flowA !== null">
      <rect x="0" :y="top + (high - flow) / 2" :width="width" :height="flow" class="flow" />
      <text x="8" :y="top + high / 2 + 4" class="in">{{ n(flowA) }} A flow on the busiest phase</text>
    </template>
  </svg>
</template>

<style scoped>
.way {
  width: 100%;
  max-height: 230px;
  font-size: 12.5px;
}

text {
  text-anchor: middle;
  fill: var(--tv-ink);
}

.in {
  text-anchor: start;
  fill: var(--tv-sheet);
  font-weight: 600;
}

.said {
  fill: var(--tv-soft);
  font-size: 11.5px;
}

.strong {
  font-weight: 700;
}

.room {
  fill: var(--tv-recess);
  stroke: var(--tv-soft);
  stroke-width: 1;
}

.room.pack {
  stroke: var(--tv-hv);
  stroke-width: 2;
}

.room.narrow {
  stroke: var(--tv-ink);
  stroke-width: 2.5;
}

.hatch {
  stroke: var(--tv-soft);
  stroke-width: 1.4;
}

.unknown {
  fill: none;
  stroke: var(--tv-soft);
  stroke-dasharray: 4 4;
}

.flow {
  fill: var(--tv-act);
  opacity: 0.85;
}
</style>
