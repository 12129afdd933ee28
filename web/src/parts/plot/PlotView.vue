<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core';
import type { EChartsCoreOption } from 'echarts/core';
import {
  effect,
  onMounted,
  onUnmounted,
  ref,
  shallowRef,
  stop,
  useTemplateRef,
  watch,
  type ReactiveEffectRunner,
} from 'vue';
import VChart from 'vue-echarts';
import { useSession } from '../../stores/session';
import { fontFamily, token } from './echarts';
import { createIdle } from './idle';

/** A plot with one sentence that says what it shows, and the same as a table. */
export interface PlotTable {
  columns: string[];
  rows: (string | number)[][];
}

const props = defineProps<{
  /** Makes the options; called anew when the theme changes, or anything that it reads. */
  options: () => EChartsCoreOption;
  summary: string;
  height: number;
  table: PlotTable;
}>();
/** A point was pressed: the name of its data item. */
const emit = defineEmits<{ press: [name: string] }>();
const session = useSession();
const ready = ref(false);
const asTable = ref(false);
const option = shallowRef<EChartsCoreOption>({});
const frame = useTemplateRef<HTMLElement>('frame');

function build(): void {
  option.value = {
    animation: false,
    textStyle: { fontFamily, color: token('ink') },
    grid: { left: 46, right: 18, top: 30, bottom: 42 },
    tooltip: {
      trigger: 'axis',
      renderMode: 'richText',
      backgroundColor: token('sheet'),
      borderColor: token('line'),
      textStyle: { color: token('ink'), fontFamily, fontSize: 13 },
    },
    ...props.options(),
  };
  ready.value = true;
}

/** Whatever the options read is followed: when it changes they are made anew, in their own time. */
let made: ReactiveEffectRunner | null = null;
function make(): void {
  if (made === null) made = effect(build, { scheduler: follow });
  else made();
}

/** Marks when everything of it was last on the screen; `npm run bench` reads it. */
function drawn(): void {
  frame.value?.setAttribute('data-drawn-ms', performance.now().toFixed(1));
}

// A plot is drawn, and follows, when the browser has nothing better to do, and one that is not on the screen when it comes there.
const idle = createIdle();
const near = ref(false);
let stale = true;
let withFonts = false;
onMounted(async () => {
  await document.fonts.ready;
  withFonts = true;
  if (stale) follow();
});
useIntersectionObserver(
  frame,
  ([entry]) => {
    near.value = entry?.isIntersecting === true;
    if (near.value && stale) follow();
  },
  { rootMargin: '300px' },
);
function follow(): void {
  stale = !near.value || !withFonts;
  if (!stale) idle.ask(make);
}
/** Paper shows what is off the screen too. */
function print(): void {
  if (stale) make();
  stale = false;
}
window.addEventListener('beforeprint', print);
onUnmounted(() => {
  idle.drop();
  if (made !== null) stop(made);
  window.removeEventListener('beforeprint', print);
});
watch(() => session.theme, follow);
</script>

<template>
  <figure ref="frame" class="plot">
    <VChart
      v-if="ready && !asTable"
      class="chart"
      :style="{ height: `${height}px` }"
      :option="option"
      :update-options="{ replaceMerge: ['series'] }"
      autoresize
      role="img"
      :aria-label="summary"
      @finished="drawn"
      @click="(event: { name?: string }) => event.name !== undefined && emit('press', event.name)"
    />
    <div v-else-if="asTable" class="table-wrap" :style="{ height: `${height}px` }">
      <table class="grid-table">
        <thead>
          <tr>
            <th v-for="column in table.columns" :key="column" scope="col" class="num">{{ column }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in table.rows" :key="i">
            <td v-for="(cell, j) in row" :key="j" class="num">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-else :style="{ height: `${height}px` }" />
    <figcaption>
      <span>{{ summary }}</span>
      <button
        type="button"
        class="btn btn-quiet btn-sm no-print"
        :aria-label="`${asTable ? 'as plot' : 'as table'}: ${summary}`"
        @click="asTable = !asTable"
      >
        {{ asTable ? 'as plot' : 'as table' }}
      </button>
    </figcaption>
  </figure>
</template>

<style scoped>
.plot {
  margin: 0;
}

.chart {
  width: 100%;
}

.table-wrap {
  overflow: auto;
}

figcaption {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 1rem;
  font-size: 0.85rem;
  color: var(--tv-soft);
}

figcaption button {
  flex: none;
  padding: 0.05rem 0.5rem;
}
</style>
