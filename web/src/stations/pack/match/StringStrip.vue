<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';

/** The modules of a string on a line of volts: where the others stand, the band that is level, and the one in question. */
const props = defineProps<{
  modules: readonly { id: string; tag: string; voltageV: number | null }[];
  module: string;
  moduleV: number | null;
  targetV: number;
  toleranceV: number;
}>();
const width = 900;
const left = 20;
const shown = computed(() =>
  props.modules.flatMap(({ id, tag, voltageV }) => {
    const own = id === props.module;
    const volts = own ? props.moduleV : voltageV;
    return volts === null ? [] : [{ id, tag, own, volts }];
  }),
);
const range = computed(() => {
  const all = [
    ...shown.value.map(({ volts }) => volts),
    props.targetV - props.toleranceV,
    props.targetV + props.toleranceV,
  ];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const pad = Math.max((high - low) * 0.06, 1e-4);
  return [low - pad, high + pad] as const;
});
const x = (volts: number) =>
  left + ((volts - range.value[0]) / (range.value[1] - range.value[0])) * (width - 2 * left);
const ticks = computed(() => {
  const [low, high] = range.value;
  const rough = (high - low) / 6;
  const decade = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((n) => n * decade).find((one) => one >= rough)!;
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.floor(high / step) - first + 1 }, (_, i) => (first + i) * step);
});
const digits = computed(() => Math.max(0, -Math.floor(Math.log10((range.value[1] - range.value[0]) / 6))));
const own = computed(() => shown.value.find((one) => one.own));
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} 86`"
    class="strip"
    role="img"
    :aria-label="`Voltages of the string: middle ${formatNumber(targetV, 5)} V`"
  >
    <rect
      :x="x(targetV - toleranceV)"
      y="14"
      :width="x(targetV + toleranceV) - x(targetV - toleranceV)"
      height="40"
      class="band"
    />
    <line :x1="x(targetV)" :x2="x(targetV)" y1="10" y2="56" class="target" />
    <line :x1="left" :x2="width - left" y1="56" y2="56" class="axis" />
    <g v-for="tick in ticks" :key="tick">
      <line :x1="x(tick)" :x2="x(tick)" y1="56" y2="61" class="axis" />
      <text :x="x(tick)" y="75" text-anchor="middle">{{ tick.toFixed(digits) }} V</text>
    </g>
    <circle
      v-for="one in shown.filter((each) => !each.own)"
      :key="one.id"
      :cx="x(one.volts)"
      cy="36"
      r="5"
      class="other"
    >
      <title>{{ one.tag }} {{ formatNumber(one.volts, 5) }} V</title>
    </circle>
    <template v-if="own">
      <path :d="`M${x(own.volts)} 28 l8 8 l-8 8 l-8 -8 z`" class="own" />
      <text
        :x="x(own.volts)"
        y="20"
        :text-anchor="x(own.volts) > width * 0.8 ? 'end' : x(own.volts) < width * 0.2 ? 'start' : 'middle'"
        class="name"
      >
        {{ own.tag }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
.strip {
  width: 100%;
  max-height: 96px;
  margin-top: 0.4rem;
}

text {
  font-size: 12px;
  fill: var(--tv-soft);
}

.name {
  font-weight: 600;
  fill: var(--tv-ink);
}

.band {
  fill: var(--tv-pass);
  opacity: 0.15;
}

.target {
  stroke: var(--tv-pass);
  stroke-dasharray: 4 3;
}

.axis {
  stroke: var(--tv-soft);
}

.other {
  fill: var(--tv-soft);
  opacity: 0.6;
}

.own {
  fill: var(--tv-act);
}
</style>
