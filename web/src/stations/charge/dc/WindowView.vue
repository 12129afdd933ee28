<script setup lang="ts">
import type { StationAnswer } from '@torvek/core/charging';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';

/** The window of a station against the pack’s, and below it what each link of the way carries. */
const props = defineProps<{ answer: StationAnswer; tag: string; summary: string }>();
const width = 860;
const left = 150;
const scale = computed(() => {
  const { packMinV, packMaxV, stationMinV, stationMaxV } = props.answer.window;
  const low = Math.min(packMinV, stationMinV);
  const high = Math.max(packMaxV, stationMaxV);
  const pad = (high - low) * 0.06;
  return (volts: number) => left + ((volts - low + pad) / (high - low + 2 * pad)) * (width - left - 90);
});
const bars = computed(() => {
  const { packMinV, packMaxV, stationMinV, stationMaxV } = props.answer.window;
  const x = scale.value;
  return [
    { name: props.tag, from: stationMinV, to: stationMaxV, y: 18, is: 'station' },
    { name: 'Pack', from: packMinV, to: packMaxV, y: 50, is: 'pack' },
  ].map((one) => ({ ...one, x: x(one.from), w: x(one.to) - x(one.from) }));
});
const shared = computed(() => {
  const { possible, usableFromV, usableToV } = props.answer.result;
  if (!possible) return null;
  const [a, b] = [scale.value(usableFromV!), scale.value(usableToV!)];
  return { x: a, w: b - a };
});
const links = computed(() => {
  const { limits } = props.answer;
  const least = Math.min(...limits.map(({ currentA }) => currentA));
  const most = Math.min(Math.max(...limits.map(({ currentA }) => currentA)), least * 3);
  return limits.map((one, i) => ({
    ...one,
    y: 112 + i * 22,
    w: (Math.min(one.currentA, most) / most) * (width - left - 90),
    governs: one.currentA <= least * (1 + 1e-9),
  }));
});
const n = (value: number) => formatNumber(value, 3);
const high = computed(() => 112 + links.value.length * 22 + 4);
</script>

<template>
  <svg class="window" :viewBox="`0 0 ${width} ${high}`" role="img" :aria-label="summary" data-window>
    <rect v-if="shared" :x="shared.x" y="10" :width="shared.w" height="68" class="shared" />
    <g v-for="bar in bars" :key="bar.is">
      <text :x="left - 10" :y="bar.y + 13" class="name">{{ bar.name }}</text>
      <rect :x="bar.x" :y="bar.y" :width="bar.w" height="18" :class="bar.is" />
      <text :x="bar.x + 5" :y="bar.y + 13.5" class="volts">{{ n(bar.from) }} V</text>
      <text :x="bar.x + bar.w - 5" :y="bar.y + 13.5" class="volts end">{{ n(bar.to) }} V</text>
    </g>
    <text :x="left - 10" y="100" class="name soft">carries</text>
    <g v-for="link in links" :key="link.what" :data-link="link.what" :data-narrowest="link.governs">
      <text :x="left - 10" :y="link.y + 12" class="name" :class="{ strong: link.governs }">
        {{ link.what }}
      </text>
      <rect
        :x="left"
        :y="link.y"
        :width="link.w"
        height="14"
        class="link"
        :class="{ governs: link.governs }"
      />
      <text :x="left + link.w + 8" :y="link.y + 12" class="amps" :class="{ strong: link.governs }">
        {{ n(link.currentA) }} A{{ link.governs ? ', the narrowest' : '' }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.window {
  width: 100%;
  max-height: 300px;
  font-size: 12.5px;
}

text {
  fill: var(--tv-ink);
}

.name {
  text-anchor: end;
}

.end {
  text-anchor: end;
}

.soft {
  fill: var(--tv-soft);
}

.strong {
  font-weight: 700;
}

.station {
  fill: var(--tv-recess);
  stroke: var(--tv-soft);
}

.pack {
  fill: var(--tv-recess);
  stroke: var(--tv-hv);
  stroke-width: 2;
}

.shared {
  fill: var(--tv-pick);
}

.link {
  fill: var(--tv-soft);
  opacity: 0.55;
}

.governs {
  fill: var(--tv-act);
  opacity: 1;
}
</style>
