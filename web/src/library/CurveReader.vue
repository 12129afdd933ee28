<script setup lang="ts">
import type { TableField } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref } from 'vue';
import { markIds, useCurve, type MarkId } from './use-curve';
import { usePicture } from './use-picture';

/**
 * Reads a curve off a picture of a data sheet: two marks on each axis with their values, then a press for each point.
 * The picture stays in the browser.
 */
const props = defineProps<{ field: TableField }>();
const emit = defineEmits<{ take: [rows: [number, number][], picture: string]; cancel: [] }>();

const {
  marks,
  scales,
  points,
  placing,
  picked,
  numbers,
  reading,
  unset,
  rows,
  toPlace,
  press,
  put,
  nudge,
  anew,
} = useCurve(props.field);
const zoom = ref(1);
const { picture, problem, choose, paste } = usePicture(({ width }) => {
  zoom.value = width < 400 ? 2 : 1;
  placing.value = toPlace();
});
const surface = ref<SVGSVGElement | null>(null);

const axisName = (axis: 'x' | 'y') => {
  const { label, unit } = props.field.columns[axis === 'x' ? 0 : 1];
  return unit === '' || unit === 'fraction' ? label.toLowerCase() : `${label.toLowerCase()}, ${unit}`;
};
const markName = (id: MarkId) =>
  `${id[1] === '1' ? 'first' : 'second'} mark on the ${axisName(id[0] as 'x' | 'y')} axis`;

function placeOf(event: PointerEvent): [number, number] {
  const box = surface.value!.getBoundingClientRect();
  const { width, height } = picture.value!;
  const within = (value: number, most: number) => Math.min(Math.max(value, 0), most);
  return [
    within(((event.clientX - box.left) / box.width) * width, width),
    within(((event.clientY - box.top) / box.height) * height, height),
  ];
}

let dragging = false;
/** The mark whose value is asked for once the press is over: a press moves the focus to what is pressed. */
let asked: MarkId | null = null;
function onPress(event: PointerEvent): void {
  const pressed = press(placeOf(event), 8 / zoom.value);
  dragging = pressed.dragging;
  asked = pressed.asks;
  if (dragging) surface.value!.setPointerCapture(event.pointerId);
}
function release(): void {
  dragging = false;
  if (asked !== null) document.querySelector<HTMLInputElement>(`[data-mark="${asked}"]`)?.focus();
  asked = null;
}
function onMove(event: PointerEvent): void {
  if (dragging) put(placeOf(event));
}
function onKey(event: KeyboardEvent): void {
  if (nudge(event.key, event.shiftKey)) event.preventDefault();
}

const path = computed(() =>
  [...points.value]
    .sort((a, b) => a[0] - b[0])
    .map(([x, y]) => `${x},${y}`)
    .join(' '),
);
const asks = computed(() => {
  if (picture.value === null) return 'Choose or paste a picture of the plot.';
  if (placing.value !== 'point')
    return `Press the ${markName(placing.value)}: a place whose value is printed.`;
  if (unset.value.length > 0) return `Give the value at the ${markName(unset.value[0]!)}.`;
  if (reading.value?.ok === false) return `This cannot be read: ${reading.value.problem}.`;
  return 'Press points along the curve; drag one, or move it by the arrow keys. Delete takes it away.';
});
const size = computed(() => ({
  width: `${(picture.value?.width ?? 0) * zoom.value}px`,
  height: `${(picture.value?.height ?? 0) * zoom.value}px`,
}));
const r = computed(() => 5 / zoom.value);
</script>

<template>
  <div class="reader" data-curve-reader @paste="paste">
    <p class="asks" role="status" :class="{ bad: reading?.ok === false }">{{ asks }}</p>
    <div class="top">
      <label class="btn btn-light btn-sm"
        >{{ picture === null ? 'Choose a picture' : 'Another picture'
        }}<input
          class="visually-hidden"
          type="file"
          accept="image/png,image/jpeg,image/webp,image/gif"
          aria-label="Picture of the plot"
          @change="choose"
      /></label>
      <template v-if="picture">
        <span class="soft">{{ picture.name }}, {{ picture.width }} × {{ picture.height }}</span>
        <label class="zoom"
          >Size<select v-model.number="zoom" class="form-select form-select-sm">
            <option v-for="one in [0.5, 1, 2, 3]" :key="one" :value="one">{{ one }}×</option>
          </select></label
        >
      </template>
    </div>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <div v-if="picture" class="bench">
      <div class="frame">
        <svg
          ref="surface"
          :style="size"
          :viewBox="`0 0 ${picture.width} ${picture.height}`"
          tabindex="0"
          role="img"
          :aria-label="`Picture of the plot, ${points.length} points read`"
          @pointerdown="onPress"
          @pointermove="onMove"
          @click="release"
          @pointercancel="dragging = false"
          @keydown="onKey"
        >
          <image :href="picture.url" :width="picture.width" :height="picture.height" />
          <polyline v-if="points.length > 1" class="curve" :points="path" :stroke-width="1.5 / zoom" />
          <g v-for="id in markIds" :key="id" class="mark" :class="{ picked: picked === id }">
            <template v-if="marks[id].at">
              <path
                :d="`M${marks[id].at![0] - 2 * r},${marks[id].at![1]}h${4 * r}M${marks[id].at![0]},${marks[id].at![1] - 2 * r}v${4 * r}`"
                :stroke-width="2 / zoom"
              />
              <text :x="marks[id].at![0] + 1.5 * r" :y="marks[id].at![1] - 1.5 * r" :font-size="13 / zoom">
                {{ id }}
              </text>
            </template>
          </g>
          <circle
            v-for="(at, i) in points"
            :key="i"
            class="point"
            :class="{ picked: picked === i }"
            :cx="at[0]"
            :cy="at[1]"
            :r="r"
            :stroke-width="1.5 / zoom"
          />
        </svg>
      </div>
      <div class="side">
        <fieldset v-for="name in ['x', 'y'] as const" :key="name">
          <legend>{{ axisName(name) }}</legend>
          <select
            v-model="scales[name]"
            class="form-select form-select-sm"
            :aria-label="`Division of the ${name} axis`"
          >
            <option value="log">log</option>
            <option value="linear">linear</option>
          </select>
          <label v-for="id in [`${name}1`, `${name}2`] as MarkId[]" :key="id"
            >{{ id
            }}<input
              v-model="marks[id].text"
              class="form-control form-control-sm"
              inputmode="decimal"
              :data-mark="id"
              :aria-label="`Value at the ${markName(id)}`"
              :aria-invalid="marks[id].text !== '' && numbers[id] === null"
            />
            <button
              type="button"
              class="btn btn-quiet btn-sm"
              :aria-label="`Place ${id}`"
              @click="placing = id"
            >
              {{ marks[id].at === null ? 'place' : 'again' }}
            </button></label
          >
        </fieldset>
        <table v-if="rows.length > 0" class="grid-table rows">
          <thead>
            <tr>
              <th scope="col" class="num">{{ axisName('x') }}</th>
              <th scope="col" class="num">{{ axisName('y') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, i) in rows" :key="i">
              <td class="num">{{ formatNumber(row[0]) }}</td>
              <td class="num">{{ formatNumber(row[1]) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
    </div>
    <div class="acts">
      <BButton
        size="sm"
        variant="primary"
        :disabled="rows.length < (field.minRows ?? 1)"
        @click="emit('take', rows, picture!.name)"
        >Take {{ rows.length }} points</BButton
      >
      <BButton v-if="points.length > 0" size="sm" variant="light" @click="anew">Points anew</BButton>
      <BButton size="sm" variant="light" @click="emit('cancel')">Leave it</BButton>
    </div>
  </div>
</template>

<style scoped>
.reader {
  background: var(--tv-recess);
  padding: 0.6rem;
  display: grid;
  gap: 0.5rem;
}

.asks {
  margin: 0;
  font-weight: 600;
}

.top,
.acts {
  display: flex;
  gap: 0.6rem;
  align-items: center;
}

.zoom {
  display: flex;
  gap: 0.3rem;
  align-items: center;
  margin-left: auto;
}

.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 13.5rem;
  gap: 0.6rem;
}

.frame {
  overflow: auto;
  max-height: 30rem;
  background: #fff;
  border: 1px solid var(--tv-line);
}

svg {
  display: block;
  cursor: crosshair;
  touch-action: none;
}

.curve {
  fill: none;
  stroke: #a8261d;
}

.mark path {
  stroke: #6747a8;
}

.mark text {
  fill: #6747a8;
  font-weight: 600;
}

.point {
  fill: rgb(255 255 255 / 60%);
  stroke: #a8261d;
}

.picked.point {
  fill: #a8261d;
}

.picked path {
  stroke: #171d24;
}

.side {
  display: grid;
  gap: 0.5rem;
  align-content: start;
}

fieldset {
  display: grid;
  gap: 0.25rem;
}

legend {
  font-size: 0.9rem;
  font-weight: 600;
  margin: 0;
}

fieldset label {
  display: grid;
  grid-template-columns: 1.6rem minmax(0, 1fr) 3.6rem;
  align-items: center;
  gap: 0.2rem;
}

.rows {
  max-height: 12rem;
}

.bad {
  color: var(--tv-stop);
  margin: 0;
}
</style>
