<script setup lang="ts">
import type { LadderAnswer, LadderItem } from '@torvek/core/charging';
import { setAt } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed, onUnmounted, ref, useTemplateRef } from 'vue';
import { spreadLabels } from '../../../parts/plot/spread';
import { useJob } from '../../../stores/job';
import { ladderScale, ownersOf, storedV } from './scale';

/** Every threshold by the cell on one scale, a column for each owner; a mark is dragged, or moved by arrows, and lands where it belongs. */
const props = defineProps<{ answer: LadderAnswer; picked: string | null; summary: string }>();
const emit = defineEmits<{ pick: [path: string] }>();
const job = useJob();
const [width, high, left, top] = [880, 430, 62, 40];
const items = computed(() => props.answer.items);
/** While a mark is dragged the scale stays as it was. */
const frozen = ref<number[] | null>(null);
const scale = computed(() => ladderScale(frozen.value ?? items.value.map(({ perCellV }) => perCellV), high));
const owners = computed(() => ownersOf(items.value));
const each = computed(() => (width - left) / Math.max(1, owners.value.length));
const n = (value: number) => formatNumber(value, 4);
const marks = computed(() =>
  owners.value.flatMap((owner, column) => {
    const own = items.value.filter((item) => item.owner === owner);
    const moved = spreadLabels(
      own.map((item) => ({ id: item.path, yPx: scale.value.toY(item.perCellV) })),
      high + 6,
    );
    return own.map((item) => {
      const y = top + scale.value.toY(item.perCellV);
      return {
        ...item,
        x: left + column * each.value,
        y,
        textY: y + (moved.get(item.path) ?? 0),
        said: `${item.what} ${n(item.perCellV)} V`,
      };
    });
  }),
);
/** What is said of a wrong pair stands under the right one of the two, where nothing else does. */
const below = (a: { x: number; textY: number }, b: { x: number; textY: number }) => {
  const right = a.x > b.x ? a : b;
  return { x: right.x + 38, y: right.textY + 17 };
};
const lines = computed(() =>
  props.answer.result.violations.flatMap(({ upper, lower, gapMv, neededMv }) => {
    const [a, b] = [upper, lower].map((path) => marks.value.find((one) => one.path === path));
    if (a === undefined || b === undefined) return [];
    const mid = (one: typeof a) => one.x + 22;
    return [
      {
        key: `${upper} ${lower}`,
        d: `M${mid(a)},${a.y} L${mid(b)},${b.y}`,
        ...below(a, b),
        text: `${n(gapMv)} mV, ${n(neededMv)} asked`,
      },
    ];
  }),
);
const sheet = useTemplateRef<SVGSVGElement>('sheet');
let dragging: LadderItem | null = null;
let lastV: number | null = null;

function put(item: LadderItem, volts: number, final: boolean): void {
  if (final) {
    job.preview(null);
    if (volts !== item.voltageV) job.set(item.path, volts, `${item.owner} ${item.what}: ${n(volts)} V`);
    return;
  }
  job.preview((draft) => setAt(draft, item.path, volts));
}
function start(event: PointerEvent, item: LadderItem): void {
  emit('pick', item.path);
  if (item.fixed || !job.editable) return;
  event.preventDefault();
  dragging = { ...item };
  lastV = null;
  frozen.value = items.value.map(({ perCellV }) => perCellV);
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', drop);
  window.addEventListener('keydown', cancel);
}
function move(event: PointerEvent): void {
  if (dragging === null || sheet.value === null) return;
  const box = sheet.value.getBoundingClientRect();
  const y = ((event.clientY - box.top) / box.height) * (high + top + 16) - top;
  lastV = storedV(dragging, scale.value.toV(y));
  put(dragging, lastV, false);
}
function finish(): void {
  window.removeEventListener('pointermove', move);
  window.removeEventListener('pointerup', drop);
  window.removeEventListener('keydown', cancel);
  dragging = null;
  frozen.value = null;
}
function drop(): void {
  if (dragging !== null && lastV !== null) put(dragging, lastV, true);
  finish();
}
function cancel(event: KeyboardEvent): void {
  if (event.key !== 'Escape') return;
  job.preview(null);
  finish();
}
/** A millivolt of a cell at each press, ten with Shift; of a pack as near as it is rounded. */
function nudge(event: KeyboardEvent, item: LadderItem): void {
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault();
    emit('pick', item.path);
    return;
  }
  if ((event.key !== 'ArrowUp' && event.key !== 'ArrowDown') || item.fixed || !job.editable) return;
  event.preventDefault();
  const step = (event.shiftKey ? 0.01 : 0.001) * (event.key === 'ArrowUp' ? 1 : -1);
  const next = storedV(item, item.perCellV + step);
  const least = item.level === 'pack' ? 0.1 : 0.001;
  put(
    item,
    next === item.voltageV ? Number((item.voltageV + Math.sign(step) * least).toFixed(3)) : next,
    true,
  );
}
onUnmounted(() => {
  if (dragging !== null) job.preview(null);
  finish();
});
</script>

<template>
  <svg
    ref="sheet"
    class="ladder"
    :viewBox="`0 0 ${width} ${high + top + 16}`"
    role="group"
    :aria-label="summary"
    data-ladder-view
  >
    <g v-for="tick in scale.ticks" :key="tick">
      <line :x1="left - 6" :x2="width" :y1="top + scale.toY(tick)" :y2="top + scale.toY(tick)" class="tick" />
      <text :x="left - 10" :y="top + scale.toY(tick) + 4" class="volts">{{ n(tick) }}</text>
    </g>
    <text x="2" y="31" class="unit">V by the cell</text>
    <g v-if="scale.cut">
      <rect
        :x="left - 12"
        :y="top + scale.cut.fromY"
        :width="width - left + 12"
        :height="scale.cut.toY - scale.cut.fromY"
        class="cut"
      />
      <text :x="width / 2" :y="top + (scale.cut.fromY + scale.cut.toY) / 2 + 4" class="cut-text">
        nothing between: the scale is cut here
      </text>
    </g>
    <g v-for="(owner, i) in owners" :key="owner">
      <text :x="left + i * each" y="14" class="owner">
        {{ owner.length > each / 7 ? `${owner.slice(0, Math.floor(each / 7) - 1)}…` : owner }}
        <title>{{ owner }}</title>
      </text>
      <line
        :x1="left + i * each + 22"
        :x2="left + i * each + 22"
        :y1="top - 14"
        :y2="top + high"
        class="rail"
      />
    </g>
    <g v-for="line in lines" :key="line.key" class="wrong" data-violation>
      <path :d="line.d" />
      <text :x="line.x" :y="line.y">{{ line.text }}</text>
    </g>
    <g
      v-for="mark in marks"
      :key="mark.path"
      class="mark"
      :class="{ picked: mark.path === picked, fixed: mark.fixed }"
      tabindex="0"
      role="button"
      :aria-label="`${mark.owner} ${mark.said}${mark.fixed ? ', of the sheet' : ', arrows move it'}`"
      :data-mark="mark.path"
      @pointerdown="start($event, mark)"
      @keydown="nudge($event, mark)"
    >
      <rect :x="mark.x" :y="mark.textY - 11" :width="each - 8" height="22" class="grip" />
      <line :x1="mark.x + 10" :x2="mark.x + 34" :y1="mark.y" :y2="mark.y" class="bar" />
      <path
        v-if="mark.textY !== mark.y"
        :d="`M${mark.x + 34},${mark.y} L${mark.x + 38},${mark.textY}`"
        class="lead"
      />
      <text :x="mark.x + 40" :y="mark.textY + 4">{{ mark.said }}</text>
    </g>
  </svg>
</template>

<style scoped>
.ladder {
  width: 100%;
  font-size: 12.5px;
  touch-action: none;
  user-select: none;
}

text {
  fill: var(--tv-ink);
}

.tick {
  stroke: var(--tv-line);
}

.volts {
  text-anchor: end;
  fill: var(--tv-soft);
}

.unit {
  fill: var(--tv-soft);
}

.owner {
  font-weight: 700;
}

.rail {
  stroke: var(--tv-soft);
  stroke-width: 1;
}

.cut {
  fill: var(--tv-recess);
}

.cut-text {
  text-anchor: middle;
  fill: var(--tv-soft);
}

.grip {
  fill: var(--tv-sheet);
  opacity: 0;
}

.mark {
  cursor: ns-resize;
}

.mark.fixed {
  cursor: default;
}

.bar {
  stroke: var(--tv-act);
  stroke-width: 4;
}

.fixed .bar {
  stroke: var(--tv-ink);
}

.lead {
  fill: none;
  stroke: var(--tv-soft);
}

.mark:focus-visible {
  outline: none;
}

.mark:focus-visible .grip,
.mark:hover .grip,
.picked .grip {
  fill: var(--tv-pick);
  opacity: 1;
}

.wrong path {
  fill: none;
  stroke: var(--tv-mend);
  stroke-width: 2;
  stroke-dasharray: 5 3;
}

.wrong text {
  fill: var(--tv-mend);
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--tv-sheet);
  stroke-width: 4px;
}
</style>
