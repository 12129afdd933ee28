<script setup lang="ts">
import { readOff, type AxisMarks } from '@torvek/core/library';
import type { TableField } from '@torvek/core/parts';
import { formatNumber, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, reactive, ref } from 'vue';
import { inOrder, rounded } from './curve-text';

/**
 * Reads a curve off a picture of a data sheet: two marks on each axis with their values, then a press for each point.
 * The picture stays in the browser.
 */
const props = defineProps<{ field: TableField }>();
const emit = defineEmits<{ take: [rows: [number, number][], picture: string]; cancel: [] }>();

type MarkId = 'x1' | 'x2' | 'y1' | 'y2';
interface Mark {
  at: [number, number] | null;
  text: string;
}
const picture = ref<{ url: string; name: string; width: number; height: number } | null>(null);
const problem = ref<string | null>(null);
const marks = reactive<Record<MarkId, Mark>>({
  x1: { at: null, text: '' },
  x2: { at: null, text: '' },
  y1: { at: null, text: '' },
  y2: { at: null, text: '' },
});
const scales = reactive({ x: props.field.columns[0].scale, y: props.field.columns[1].scale });
const points = ref<[number, number][]>([]);
/** What the next press on the picture places. */
const placing = ref<MarkId | 'point'>('x1');
const picked = ref<MarkId | number | null>(null);
const zoom = ref(1);
const surface = ref<SVGSVGElement | null>(null);
const order: MarkId[] = ['x1', 'x2', 'y1', 'y2'];
const largestBytes = 20 * 1024 * 1024;

const axisName = (axis: 'x' | 'y') => {
  const { label, unit } = props.field.columns[axis === 'x' ? 0 : 1];
  return unit === '' || unit === 'fraction' ? label.toLowerCase() : `${label.toLowerCase()}, ${unit}`;
};
const markName = (id: MarkId) =>
  `${id[1] === '1' ? 'first' : 'second'} mark on the ${axisName(id[0] as 'x' | 'y')} axis`;

function choose(event: Event): void {
  const [file] = (event.target as HTMLInputElement).files ?? [];
  if (file !== undefined) void load(file);
}
function paste(event: ClipboardEvent): void {
  const file = [...(event.clipboardData?.files ?? [])].find(({ type }) => type.startsWith('image/'));
  if (file !== undefined) void load(file);
}
async function load(file: File): Promise<void> {
  problem.value = null;
  if (!/^image\/(png|jpeg|webp|gif)$/.test(file.type)) {
    problem.value = `${file.name} is no picture that can be shown: PNG, JPEG, WebP or GIF.`;
    return;
  }
  if (file.size > largestBytes) {
    problem.value = `${file.name} is larger than 20 MB.`;
    return;
  }
  const url = await new Promise<string>((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsDataURL(file);
  });
  const image = new Image();
  image.onload = () => {
    picture.value = { url, name: file.name, width: image.naturalWidth, height: image.naturalHeight };
    zoom.value = image.naturalWidth < 400 ? 2 : 1;
    placing.value = order.find((id) => marks[id].at === null) ?? 'point';
  };
  image.onerror = () => (problem.value = `${file.name} cannot be shown as a picture.`);
  image.src = url;
}

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
function press(event: PointerEvent): void {
  const at = placeOf(event);
  const near = nearest(at);
  if (near !== null) {
    picked.value = near;
    dragging = true;
    surface.value!.setPointerCapture(event.pointerId);
    return;
  }
  if (placing.value === 'point') {
    points.value = [...points.value, at];
    picked.value = points.value.length - 1;
    return;
  }
  const id = placing.value;
  marks[id].at = at;
  picked.value = id;
  placing.value = order.find((one) => marks[one].at === null) ?? 'point';
  asked = id;
}
function release(): void {
  dragging = false;
  if (asked !== null) document.querySelector<HTMLInputElement>(`[data-mark="${asked}"]`)?.focus();
  asked = null;
}
function move(event: PointerEvent): void {
  if (dragging && picked.value !== null) put(picked.value, placeOf(event));
}
function put(which: MarkId | number, at: [number, number]): void {
  if (typeof which === 'number') points.value = points.value.map((old, i) => (i === which ? at : old));
  else marks[which].at = at;
}
/** What lies under a press, within a few pixels of the screen. */
function nearest([x, y]: [number, number]): MarkId | number | null {
  const reach = 8 / zoom.value;
  const all: [MarkId | number, [number, number]][] = [
    ...order.flatMap((id): [MarkId, [number, number]][] =>
      marks[id].at === null ? [] : [[id, marks[id].at]],
    ),
    ...points.value.map((at, i): [number, [number, number]] => [i, at]),
  ];
  const found = all
    .map(([which, at]) => ({ which, far: Math.hypot(at[0] - x, at[1] - y) }))
    .filter(({ far }) => far <= reach)
    .sort((a, b) => a.far - b.far)[0];
  return found?.which ?? null;
}
/** Arrows move what is picked by a pixel, with Shift by a fifth. */
function nudge(event: KeyboardEvent): void {
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
  if (picked.value === null) return;
  if (event.key === 'Delete' && typeof picked.value === 'number') {
    remove(picked.value);
    event.preventDefault();
  }
  if (by === undefined || picked.value === null) return;
  event.preventDefault();
  const now = typeof picked.value === 'number' ? points.value[picked.value] : marks[picked.value].at;
  const step = event.shiftKey ? 0.2 : 1;
  if (now) put(picked.value, [now[0] + by[0]! * step, now[1] + by[1]! * step]);
}
function remove(at: number): void {
  points.value = points.value.filter((_, i) => i !== at);
  picked.value = null;
}

const numbers = computed(() => {
  const of = (id: MarkId, unit: string) => {
    const read = parseQuantity(marks[id].text, unit);
    return read.ok ? read.value : null;
  };
  const [x, y] = props.field.columns;
  return { x1: of('x1', x.unit), x2: of('x2', x.unit), y1: of('y1', y.unit), y2: of('y2', y.unit) };
});
const reading = computed(() => {
  const axis = (name: 'x' | 'y'): AxisMarks | null => {
    const [a, b] = [marks[`${name}1`].at, marks[`${name}2`].at];
    const [from, to] = [numbers.value[`${name}1`], numbers.value[`${name}2`]];
    return a === null || b === null || from === null || to === null
      ? null
      : { scale: scales[name], at: [a, b], values: [from, to] };
  };
  const [x, y] = [axis('x'), axis('y')];
  return x === null || y === null ? null : readOff({ x, y });
});
const unset = computed(() => order.filter((id) => marks[id].at === null || numbers.value[id] === null));
const rows = computed(() =>
  reading.value?.ok !== true
    ? []
    : inOrder(
        points.value.map((at) => {
          const [x, y] = (reading.value as { at(pixel: [number, number]): [number, number] }).at(at);
          return [rounded(x), rounded(y)] as [number, number];
        }),
      ),
);
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
          @pointerdown="press"
          @pointermove="move"
          @click="release"
          @pointercancel="dragging = false"
          @keydown="nudge"
        >
          <image :href="picture.url" :width="picture.width" :height="picture.height" />
          <polyline v-if="points.length > 1" class="curve" :points="path" :stroke-width="1.5 / zoom" />
          <g v-for="id in order" :key="id" class="mark" :class="{ picked: picked === id }">
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
      <BButton v-if="points.length > 0" size="sm" variant="light" @click="((points = []), (picked = null))"
        >Points anew</BButton
      >
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
