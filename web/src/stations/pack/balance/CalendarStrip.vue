<script setup lang="ts">
import type { BalanceSchedule } from '@torvek/core/balance';
import { useElementSize } from '@vueuse/core';
import { computed, onMounted, ref, watch } from 'vue';
import { weekdayOf } from '../../../parts/dates';
import { daysOf, lanesOf, restingOf } from './calendar';
import type { BalanceRow } from './use-balance';

/** Benches and rests over the days: what was, what is, what is planned from now on. */
const props = defineProps<{
  rows: BalanceRow[];
  schedule: BalanceSchedule;
  benches: number;
  zone: string;
  nowMs: number;
  firstEndMs: number | null;
  picked: string | null;
}>();
const emit = defineEmits<{ pick: [cell: string] }>();

const dayMs = 86.4e6;
const pane = ref<HTMLElement | null>(null);
const { width } = useElementSize(pane);
const span = computed(() => daysOf(props.rows, props.schedule, props.nowMs, props.zone));
const pxPerDay = computed(() => Math.max(46, (width.value - 2) / span.value.days));
const totalPx = computed(() => span.value.days * pxPerDay.value);
const x = (ms: number) => ((ms - span.value.fromMs) / dayMs) * pxPerDay.value;

const together = computed(() => props.benches === 0);
const lanes = computed(() =>
  lanesOf(props.rows, props.schedule, {
    benches: props.benches,
    nowMs: props.nowMs,
    fromMs: span.value.fromMs,
    // What is a pixel apart on the screen.
    closeMs: dayMs / pxPerDay.value,
  }).map((lane) =>
    lane.map((block) => {
      const at = x(block.fromMs);
      return { ...block, x: at, width: Math.max(x(block.toMs) - at, 2) };
    }),
  ),
);
const resting = computed(() => restingOf(props.rows, props.schedule, props.nowMs));
const restTop = computed(() => headPx + lanes.value.length * lanePx + 8);
const restPath = computed(() => {
  const { steps, most } = resting.value;
  if (most === 0) return '';
  const floor = restTop.value + restPx;
  const y = (count: number) => floor - (count / most) * (restPx - 14);
  let path = `M${x(steps[0]![0])},${floor}`;
  let before = floor;
  for (const [at, count] of steps) {
    path += `L${x(at)},${before}L${x(at)},${y(count)}`;
    before = y(count);
  }
  return `${path}L${x(steps.at(-1)![0])},${floor}Z`;
});
const peak = computed(() => resting.value.steps.find(([, count]) => count === resting.value.most));
const readings = computed(() =>
  props.schedule.tasks
    .filter(({ kind }) => kind === 'read')
    .map(({ cell, fromMs }) => ({ cell, x: x(fromMs) })),
);
const headPx = 24;
const lanePx = 24;
const restPx = 54;
const readPx = 20;
const heightPx = computed(() => restTop.value + restPx + readPx);
const summary = computed(() => {
  const { endMs } = props.schedule;
  const loads = props.schedule.tasks.filter(
    ({ kind, state }) => kind === 'load' && state === 'planned',
  ).length;
  if (endMs === null)
    return props.rows.some(({ round }) => round > 0)
      ? 'Nothing is left to be done.'
      : 'Nothing can be planned yet.';
  return `${loads === 0 ? 'No cell is left to be put on' : `${loads} ${loads === 1 ? 'cell is' : 'cells are'} still to be put on`}; the last rest ends ${weekdayOf(endMs, props.zone)} if every one to come ends inside.`;
});

function showNow(): void {
  if (pane.value !== null) pane.value.scrollLeft = Math.max(0, x(props.nowMs) - 200);
}
onMounted(showNow);
watch(width, showNow);
</script>

<template>
  <div class="strip">
    <div class="names" aria-hidden="true">
      <span :style="{ height: `${headPx}px` }"></span>
      <span v-for="(_, i) in lanes" :key="i" :style="{ height: `${lanePx}px` }">{{
        together ? 'all cells' : `bench ${i + 1}`
      }}</span>
      <span :style="{ height: `${restPx + 8}px` }">at rest</span>
      <span :style="{ height: `${readPx}px` }">readings</span>
    </div>
    <div ref="pane" class="pane" tabindex="0" role="group" aria-label="Calendar of balancing">
      <svg :width="totalPx" :height="heightPx" role="img" :aria-label="summary">
        <g v-for="day in span.days" :key="day">
          <rect
            v-if="day % 2 === 0"
            class="shade"
            :x="(day - 1) * pxPerDay"
            y="0"
            :width="pxPerDay"
            :height="heightPx"
          />
          <text class="day" :x="(day - 1) * pxPerDay + 4" y="16">
            {{
              weekdayOf(span.fromMs + (day - 0.5) * dayMs, zone)
                .replace(',', '')
                .slice(0, pxPerDay < 64 ? 6 : 12)
            }}
          </text>
        </g>
        <g v-for="(lane, i) in lanes" :key="i">
          <line
            class="rule"
            x1="0"
            :x2="totalPx"
            :y1="headPx + (i + 1) * lanePx"
            :y2="headPx + (i + 1) * lanePx"
          />
          <g
            v-for="block in lane"
            :key="block.key"
            class="block"
            :class="[block.kind, { picked: picked === block.cell }]"
            @click="emit('pick', block.cell)"
          >
            <title>{{ block.tag }}</title>
            <rect
              :x="block.x"
              :y="headPx + i * lanePx + 3"
              :width="block.width"
              :height="lanePx - 6"
              rx="2"
            />
            <text
              v-if="block.width > block.tag.length * 7.2"
              :x="block.x + 3"
              :y="headPx + i * lanePx + 16.5"
            >
              {{ block.tag }}
            </text>
          </g>
        </g>
        <path v-if="restPath" class="rest" :d="restPath" />
        <text v-if="peak" class="day" :x="Math.min(x(peak[0]) + 3, totalPx - 70)" :y="restTop + 10">
          {{ resting.most }} at rest
        </text>
        <line
          v-for="(one, i) in readings"
          :key="i"
          class="read"
          :x1="one.x"
          :x2="one.x"
          :y1="restTop + restPx + 5"
          :y2="restTop + restPx + 16"
        />
        <template v-if="nowMs < span.toMs">
          <line class="now" :x1="x(nowMs)" :x2="x(nowMs)" y1="20" :y2="heightPx" />
          <text class="now-word" :x="x(nowMs) - 3" text-anchor="end" :y="restTop + 14">now</text>
        </template>
        <template v-if="schedule.endMs !== null">
          <line class="end" :x1="x(schedule.endMs)" :x2="x(schedule.endMs)" y1="20" :y2="heightPx" />
          <text class="day" text-anchor="end" :x="x(schedule.endMs) - 3" :y="restTop + restPx + 16">end</text>
        </template>
        <template v-if="firstEndMs !== null && schedule.endMs !== null && firstEndMs < schedule.endMs - 4e7">
          <line class="first" :x1="x(firstEndMs)" :x2="x(firstEndMs)" y1="20" :y2="heightPx" />
          <text class="day" text-anchor="end" :x="x(firstEndMs) - 3" :y="restTop + restPx - 4">
            first planned
          </text>
        </template>
      </svg>
    </div>
  </div>
  <p class="says">{{ summary }}</p>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: 4.6rem minmax(0, 1fr);
}

.names {
  display: grid;
  align-content: start;
  font-size: 0.82rem;
  color: var(--tv-soft);
}

.names span {
  display: flex;
  align-items: center;
}

.pane {
  overflow-x: auto;
}

.shade {
  fill: var(--tv-recess);
}

.rule {
  stroke: var(--tv-line);
}

.day,
.now-word {
  font-size: 12px;
  fill: var(--tv-soft);
}

.block {
  cursor: pointer;
}

.block text {
  font-size: 12px;
  fill: var(--tv-sheet);
  pointer-events: none;
}

.done rect {
  fill: var(--tv-act);
}

.on rect {
  fill: var(--tv-pass);
}

.planned rect {
  fill: var(--tv-sheet);
  stroke: var(--tv-act);
  stroke-dasharray: 3 2;
}

.planned text {
  fill: var(--tv-ink);
}

.picked rect {
  stroke: var(--tv-ink);
  stroke-width: 2;
  stroke-dasharray: none;
}

.rest {
  fill: var(--tv-grey-fill);
  opacity: 0.7;
}

.read {
  stroke: var(--tv-ink);
  stroke-width: 1.5;
}

.now {
  stroke: var(--tv-stop);
  stroke-width: 1.5;
}

.now-word {
  fill: var(--tv-stop);
}

.end {
  stroke: var(--tv-ink);
  stroke-width: 1.5;
}

.first {
  stroke: var(--tv-soft);
  stroke-dasharray: 4 3;
}

.says {
  margin: 0.2rem 0 0;
  font-size: 0.88rem;
  color: var(--tv-soft);
}
</style>
