<script setup lang="ts">
import type { LiveMapResult, Network } from '@torvek/core/network';
import { computed, nextTick, ref } from 'vue';
import { glyphPath, isOpen, linePath, shownLine, shownSymbol } from './draw';
import type { Diagram, DrawnSymbol } from './layout';

/** The one-line diagram: boxes as frames, symbols on their lines, live by hatch and by word. */
const props = defineProps<{
  diagram: Diagram;
  network: Network;
  map: LiveMapResult;
  open: ReadonlySet<string>;
  picked: string | null;
  /** Shown size over laid out size. */
  scale: number;
  /** Symbols on the way from the picked one to its sources. */
  path: ReadonlySet<string>;
}>();
const emit = defineEmits<{ pick: [id: string | null]; toggle: [id: string] }>();
const root = ref<SVGSVGElement>();
defineExpose({ root });

const elements = computed(() => new Map(props.network.elements.map((one) => [one.id, one])));
const lines = computed(() =>
  props.diagram.lines.map((drawn) => ({
    drawn,
    state: shownLine(drawn, props.map),
    d: linePath(drawn.points),
    onPath: props.path.has(drawn.line.from) && props.path.has(drawn.line.to),
  })),
);
const symbols = computed(() =>
  props.diagram.symbols.map((drawn) => ({
    drawn,
    id: drawn.symbol.id,
    shown: shownSymbol(drawn, elements.value, props.map, props.open),
    opened: isOpen(drawn, elements.value, props.open),
  })),
);
const focusable = computed(() => props.picked ?? props.diagram.symbols[0]?.symbol.id ?? null);
const middle = ({ glyph }: DrawnSymbol) => [glyph.x + glyph.width / 2, glyph.y + glyph.height / 2] as const;
const spoken = ({ drawn, shown }: (typeof symbols.value)[number]) =>
  [drawn.symbol.tag, drawn.symbol.words, drawn.symbol.rating, shown.text]
    .filter((text) => text !== '')
    .join(', ');

/** Arrows go to the nearest symbol that way. */
function move(event: KeyboardEvent, from: DrawnSymbol): void {
  const way = { ArrowUp: [0, -1], ArrowDown: [0, 1], ArrowLeft: [-1, 0], ArrowRight: [1, 0] }[event.key];
  if (way === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  const [x, y] = middle(from);
  const [wx, wy] = way as [number, number];
  let best: { id: string; cost: number } | null = null;
  for (const one of props.diagram.symbols) {
    const [ox, oy] = middle(one);
    const along = (ox - x) * wx + (oy - y) * wy;
    const off = Math.abs((ox - x) * wy) + Math.abs((oy - y) * wx);
    if (along < 6) continue;
    const cost = along + 2 * off;
    if (best === null || cost < best.cost) best = { id: one.symbol.id, cost };
  }
  if (best === null) return;
  emit('pick', best.id);
  void nextTick(() =>
    root.value?.querySelector<SVGGElement>(`[data-symbol="${CSS.escape(best.id)}"]`)?.focus(),
  );
}
</script>

<template>
  <svg
    ref="root"
    class="diagram"
    :viewBox="`0 0 ${diagram.width} ${diagram.height}`"
    :width="diagram.width * scale"
    :height="diagram.height * scale"
    role="group"
    aria-label="One-line diagram; arrows move between symbols, Enter switches"
    @click.self="emit('pick', null)"
  >
    <defs>
      <pattern id="net-live" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="6" height="6" class="live-ground" />
        <line x1="0" y1="0" x2="0" y2="6" class="live-hatch" />
      </pattern>
      <pattern id="net-stored" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="2" cy="2" r="1.3" class="stored-dot" />
      </pattern>
    </defs>
    <g v-for="frame in diagram.frames" :key="frame.id" class="box">
      <rect :x="frame.x" :y="frame.y" :width="frame.width" :height="frame.height" rx="3" />
      <text :x="frame.title.x" :y="frame.title.y + 11" :font-size="frame.title.sizePx" font-weight="700">
        {{ frame.title.text }}
      </text>
    </g>
    <g
      v-for="line in lines"
      :key="line.drawn.line.id"
      class="line"
      :class="[line.state, { on: line.onPath }]"
    >
      <path v-if="line.onPath" class="path" :d="line.d" />
      <path class="outer" :class="{ pair: line.drawn.line.poles === 2 }" :d="line.d" />
      <path v-if="line.drawn.line.poles === 2" class="inner" :d="line.d" />
    </g>
    <g
      v-for="one in symbols"
      :key="one.id"
      class="symbol"
      :class="[one.shown.state, one.drawn.symbol.kind, { picked: one.id === picked, on: path.has(one.id) }]"
      :data-symbol="one.id"
      :data-state="one.shown.state"
      role="button"
      :tabindex="one.id === focusable ? 0 : -1"
      :aria-pressed="one.id === picked"
      :aria-label="spoken(one)"
      @click.stop="emit('pick', one.id)"
      @dblclick.stop="emit('toggle', one.id)"
      @keydown="move($event, one.drawn)"
      @keydown.enter.prevent="one.id === picked ? emit('toggle', one.id) : emit('pick', one.id)"
      @keydown.space.prevent="emit('pick', one.id)"
    >
      <rect
        class="hit"
        :x="one.drawn.x"
        :y="one.drawn.y"
        :width="one.drawn.width"
        :height="one.drawn.height"
        rx="3"
      />
      <template v-if="one.drawn.symbol.kind === 'bus'">
        <path class="lead" :d="`M${one.drawn.x + one.drawn.axisX},${one.drawn.y} V${one.drawn.glyph.y}`" />
        <rect
          class="plate bar"
          :x="one.drawn.glyph.x"
          :y="one.drawn.glyph.y"
          :width="one.drawn.glyph.width"
          :height="one.drawn.glyph.height"
        />
      </template>
      <template v-else>
        <path
          class="lead"
          :d="`M${one.drawn.x + one.drawn.axisX},${one.drawn.y} V${one.drawn.glyph.y} M${one.drawn.x + one.drawn.axisX},${one.drawn.glyph.y + one.drawn.glyph.height} V${one.drawn.symbol.kind === 'load' ? one.drawn.glyph.y + one.drawn.glyph.height : one.drawn.y + one.drawn.height}`"
        />
        <rect
          class="plate"
          :x="one.drawn.glyph.x"
          :y="one.drawn.glyph.y"
          :width="one.drawn.glyph.width"
          :height="one.drawn.glyph.height"
          rx="3"
        />
        <path
          class="glyph"
          :transform="`translate(${middle(one.drawn).join(' ')})`"
          :d="glyphPath(one.drawn.symbol.kind, one.opened)"
        />
      </template>
      <text
        v-for="(text, i) in one.drawn.texts"
        :key="i"
        :x="text.x"
        :y="text.y + 11"
        :font-size="text.sizePx"
        :font-weight="text.bold ? 600 : 400"
      >
        {{ text.text }}
      </text>
      <text
        class="state"
        :x="one.drawn.state.x"
        :y="one.drawn.state.y + 11"
        :font-size="one.drawn.state.sizePx"
      >
        {{ one.shown.text }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.diagram {
  display: block;
  font-family: 'Atkinson Hyperlegible Next', sans-serif;
}

.box rect {
  fill: var(--tv-recess);
  stroke: var(--tv-plate-edge);
  stroke-width: 1.5;
}

.box text {
  fill: var(--tv-ink);
}

.line path {
  fill: none;
  stroke-linejoin: round;
}

.line .outer,
.lead {
  stroke: var(--tv-soft);
  stroke-width: 1.6;
  fill: none;
}

.line .outer.pair {
  stroke-width: 5;
}

.line .inner {
  stroke: var(--tv-sheet);
  stroke-width: 2;
}

.line.live .outer {
  stroke: var(--tv-hv);
}

.line.live .outer:not(.pair) {
  stroke-width: 2.6;
}

.line.stored .outer {
  stroke: var(--tv-hv);
  stroke-dasharray: 2 3;
}

.line .path {
  stroke: var(--tv-pick);
  stroke-width: 13;
}

.symbol {
  cursor: pointer;
  outline: none;
}

.hit {
  fill: transparent;
}

.symbol:hover .hit {
  fill: var(--tv-recess);
}

.symbol.on .hit {
  fill: var(--tv-pick);
}

.symbol.picked .hit,
.symbol:focus-visible .hit {
  stroke: var(--tv-act);
  stroke-width: 2;
}

.plate {
  fill: var(--tv-sheet);
  stroke: var(--tv-soft);
  stroke-width: 1;
}

.live .plate {
  fill: url('#net-live');
  stroke: var(--tv-hv);
}

.stored .plate {
  fill: url('#net-stored');
  stroke: var(--tv-hv);
}

.live .lead,
.stored .lead {
  stroke: var(--tv-hv);
}

.glyph {
  fill: none;
  stroke: var(--tv-ink);
  stroke-width: 1.8;
}

.modules .glyph {
  stroke-width: 2.2;
}

.live-ground {
  fill: var(--tv-sheet);
}

.live-hatch {
  stroke: var(--tv-hv-fill);
  stroke-width: 2.4;
}

.stored-dot {
  fill: var(--tv-hv-fill);
}

text {
  fill: var(--tv-ink);
}

.state {
  fill: var(--tv-soft);
}

.live .state,
.stored .state {
  fill: var(--tv-hv);
  font-weight: 600;
}
</style>
