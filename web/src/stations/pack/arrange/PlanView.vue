<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { useElementSize } from '@vueuse/core';
import Sortable from 'sortablejs';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useJob } from '../../../stores/job';
import { drawnBoxes, type Chip, type DrawnBox } from './chips';

/** The vehicle from above and from its right side, to scale, with every module in its box. */
const props = defineProps<{
  chosen: ReadonlySet<Id>;
  /** The box that a carried module is over; `none`: the shelf beside the vehicle; null: nothing is carried. */
  target: string | null;
  boxKg: Map<Id, number>;
  /** The box that fills the view; null: the whole vehicle. */
  zoom: Id | null;
}>();
const emit = defineEmits<{
  choose: [module: Id, add: boolean];
  carry: [module: Id];
  over: [box: string | null];
  drop: [where: { box: string | null; before: Id | null }];
  key: [event: KeyboardEvent, module: Id];
}>();
const job = useJob();
const root = ref<HTMLElement>();
const { width: roomPx } = useElementSize(root);

const drawn = computed(() => drawnBoxes(job.design));
const vehicle = computed(() => job.design.vehicle);
const extent = computed(() => {
  const { boxes } = drawn.value;
  const only = boxes.find(({ id }) => id === props.zoom);
  if (only !== undefined)
    return {
      rear: only.xM - only.lengthM / 2 - 0.12,
      front: only.xM + only.lengthM / 2 + 0.12,
      half: 0,
      low: only.yM - only.widthM / 2 - 0.1,
      high: only.yM + only.widthM / 2 + 0.1,
      top: only.zM + only.heightM / 2 + 0.08,
      bottom: only.zM - only.heightM / 2 - 0.05,
    };
  const { wheelbaseM = 2.6, frontOverhangM, lengthM } = vehicle.value;
  const base = Math.min(Math.max(wheelbaseM, 0.5), 15);
  const front = Math.min(Math.max(frontOverhangM ?? base * 0.3, 0), 5);
  const rear = front - Math.min(Math.max(lengthM ?? base * 1.6, base + front), 25);
  const half = Math.max(0.75, ...boxes.map((box) => Math.abs(box.yM) + box.widthM / 2 + 0.12));
  const reach = boxes.flatMap((box) => [box.xM - box.lengthM / 2, box.xM + box.lengthM / 2]);
  return {
    rear: Math.min(rear, ...reach) - 0.12,
    front: Math.max(front, ...reach) + 0.12,
    half,
    low: -half - 0.08,
    high: half + 0.22,
    top: Math.max(1, ...boxes.map((box) => box.zM + box.heightM / 2 + 0.1)),
    bottom: -0.06,
  };
});
const scale = computed(() => {
  const { rear, front } = extent.value;
  const byWidth = Math.max(roomPx.value, 300) / Math.max(front - rear, 0.3);
  return props.zoom === null ? byWidth : Math.min(byWidth, 420 / (extent.value.high - extent.value.low));
});
const planPx = computed(() => (extent.value.high - extent.value.low) * scale.value);
const sidePx = computed(() => (extent.value.top - extent.value.bottom) * scale.value);
const x = (metres: number) => (metres - extent.value.rear) * scale.value + leftPx.value;
/** A box that fills the height stands in the middle. */
const leftPx = computed(() =>
  Math.max((roomPx.value - (extent.value.front - extent.value.rear) * scale.value) / 2, 0),
);
const y = (metres: number) => (extent.value.high - metres) * scale.value;
const z = (metres: number) => (extent.value.top - metres) * scale.value;
const px = (value: number) => `${Math.round(value * 10) / 10}px`;

const boxStyle = (box: DrawnBox) => ({
  left: px(x(box.xM - box.lengthM / 2)),
  top: px(y(box.yM + box.widthM / 2)),
  width: px(box.lengthM * scale.value),
  height: px(box.widthM * scale.value),
});
const chipStyle = (chip: Chip, box: DrawnBox) => ({
  left: px(x(chip.xM - chip.lengthM / 2) - x(box.xM - box.lengthM / 2)),
  top: px(y(chip.yM + chip.widthM / 2) - y(box.yM + box.widthM / 2)),
  width: px(Math.max(chip.lengthM * scale.value - 1, 4)),
  height: px(Math.max(chip.widthM * scale.value - 1, 4)),
});
const chipsIn = (box: Id) => drawn.value.chips.filter((chip) => chip.box === box);
const wideEnough = (chip: Chip) =>
  Math.max(chip.lengthM, chip.widthM) * scale.value > 24 &&
  Math.min(chip.lengthM, chip.widthM) * scale.value > 15;
const flat = (chip: Chip) => chip.lengthM > chip.widthM;
const many = computed(
  () => Object.values(job.design.strings).filter(({ modules }) => modules.length > 0).length > 1,
);
const label = (chip: Chip) => {
  if (chip.string === null) return [chip.tag];
  const place = String(chip.string.place).padStart(2, '0');
  return many.value ? [chip.string.tag, place] : [place];
};
const spoken = (chip: Chip) =>
  `${chip.tag}, ${chip.string === null ? 'in no string' : `place ${chip.string.place} of ${chip.string.tag}`}, ${
    drawn.value.boxes.find(({ id }) => id === chip.box)?.tag ?? 'in no box'
  }`;

/** The way of each string through its modules, from the mains and back. */
const ways = computed(() => {
  const at = new Map(drawn.value.chips.map((chip) => [chip.id, chip]));
  const { combinerBox, mainsBox } = job.design.pack;
  const home = drawn.value.boxes.find(({ id }) => id === (combinerBox ?? mainsBox));
  return Object.entries(job.design.strings).map(([id, { tag, modules }], index) => {
    const points = modules.flatMap((module): [number, number][] => {
      const chip = at.get(module);
      return chip === undefined ? [] : [passing(chip)];
    });
    const start = points[0];
    const end = points.at(-1);
    const leads: [number, number][][] =
      home === undefined || start === undefined || end === undefined
        ? []
        : [
            [[x(home.xM), y(home.yM)], start],
            [end, [x(home.xM), y(home.yM)]],
          ];
    return { id, tag, index, d: pathOf(points), leads: leads.map(pathOf), start, end };
  });
});
const boxFacts = (box: DrawnBox) =>
  [
    box.count > 0 ? String(box.count) : '',
    props.boxKg.has(box.id) ? `${formatNumber(props.boxKg.get(box.id)!, 3)} kg` : '',
  ]
    .filter((text) => text !== '')
    .join(', ');
/** Where the way passes a module: beside its text. */
const passing = (chip: Chip): [number, number] =>
  flat(chip) ? [x(chip.xM + chip.lengthM * 0.3), y(chip.yM)] : [x(chip.xM + chip.lengthM * 0.28), y(chip.yM)];
const pathOf = (points: readonly [number, number][]) =>
  points.map(([px1, py1], i) => `${i === 0 ? 'M' : 'L'}${Math.round(px1)},${Math.round(py1)}`).join(' ');

const axles = computed(() => [0, -Math.min(Math.max(vehicle.value.wheelbaseM ?? 2.6, 0.5), 15)]);
const wheel = computed(() => Math.min(vehicle.value.wheelDiameterM ?? 0.65, 2));
const focusable = computed(
  () => [...props.chosen][0] ?? drawn.value.chips[0]?.id ?? drawn.value.loose[0]?.id ?? null,
);

const sortables: Sortable[] = [];
let carried: Id | null = null;

/** What lies under the pointer: a box or the shelf, and a module that is not the carried one. */
function under(event: { clientX: number; clientY: number }): { box: string | null; before: Id | null } {
  const found = document.elementsFromPoint(event.clientX, event.clientY) as HTMLElement[];
  const box = found.find((one) => one.dataset?.box !== undefined)?.dataset.box ?? null;
  const before =
    found.find(
      (one) =>
        one.dataset?.module !== undefined && one.dataset.module !== carried && root.value?.contains(one),
    )?.dataset.module ?? null;
  return { box, before };
}
let last: { clientX: number; clientY: number } | null = null;
let frame = 0;
function follow(event: PointerEvent): void {
  last = { clientX: event.clientX, clientY: event.clientY };
  if (frame !== 0) return;
  frame = requestAnimationFrame(() => {
    frame = 0;
    if (last !== null && carried !== null) emit('over', under(last).box);
  });
}

function install(): void {
  for (const one of sortables.splice(0)) one.destroy();
  if (!job.editable) return;
  for (const list of root.value?.querySelectorAll<HTMLElement>('[data-box]') ?? [])
    sortables.push(
      Sortable.create(list, {
        group: { name: 'modules', pull: true, put: true },
        sort: false,
        draggable: '.chip',
        forceFallback: true,
        fallbackOnBody: true,
        fallbackTolerance: 4,
        fallbackClass: 'carried-chip',
        onStart: ({ item }) => {
          carried = item.dataset.module ?? null;
          if (carried !== null) emit('carry', carried);
          document.addEventListener('pointermove', follow);
        },
        // The picture is drawn from the design: nothing is moved in the page until the design has changed.
        onMove: () => false,
        onEnd: () => {
          document.removeEventListener('pointermove', follow);
          cancelAnimationFrame(frame);
          frame = 0;
          const where = last === null ? { box: null, before: null } : under(last);
          carried = null;
          last = null;
          emit('drop', where);
        },
      }),
    );
}
onMounted(install);
watch([() => drawn.value.boxes.map(({ id }) => id).join(), () => job.editable], () => nextTick(install));
onBeforeUnmount(() => {
  document.removeEventListener('pointermove', follow);
  for (const one of sortables) one.destroy();
});

function focus(module: Id): void {
  void nextTick(() =>
    root.value?.querySelector<HTMLElement>(`[data-module="${CSS.escape(module)}"]`)?.focus(),
  );
}
defineExpose({ focus });
</script>

<template>
  <div ref="root" class="plan-view">
    <div class="plan" :style="{ height: px(planPx) }">
      <svg class="under" :width="roomPx" :height="planPx" aria-hidden="true">
        <template v-if="zoom === null">
          <rect
            class="body"
            :x="x(extent.rear + 0.12)"
            :y="y(extent.half)"
            :width="(extent.front - extent.rear - 0.24) * scale"
            :height="2 * extent.half * scale"
            :rx="0.18 * scale"
          />
          <g v-for="axle in axles" :key="axle">
            <line class="axle" :x1="x(axle)" :x2="x(axle)" :y1="y(extent.half)" :y2="y(-extent.half)" />
            <rect
              v-for="side in [1, -1]"
              :key="side"
              class="wheel"
              :x="x(axle - wheel / 2)"
              :y="y(side * (extent.half - 0.02) + 0.09)"
              :width="wheel * scale"
              :height="0.18 * scale"
              rx="3"
            />
          </g>
        </template>
      </svg>
      <div
        v-for="box in drawn.boxes"
        :key="box.id"
        class="box"
        :class="{ target: target === box.id, bad: box.trouble !== '' }"
        :data-box="box.id"
        :style="boxStyle(box)"
      >
        <span class="box-tag">
          <b>{{ box.tag }}</b>
          {{ boxFacts(box) }}
          <em v-if="box.trouble">{{ box.trouble }}</em>
        </span>
        <button
          v-for="chip in chipsIn(box.id)"
          :key="chip.id"
          type="button"
          class="chip"
          :class="{
            chosen: chosen.has(chip.id),
            flat: flat(chip),
            second: (chip.string?.index ?? 0) % 2 === 1,
            stacked: chip.layer > 0,
          }"
          :data-module="chip.id"
          :style="chipStyle(chip, box)"
          :tabindex="chip.id === focusable ? 0 : -1"
          :aria-label="spoken(chip)"
          :aria-pressed="chosen.has(chip.id)"
          :title="spoken(chip)"
          @click="emit('choose', chip.id, $event.ctrlKey || $event.metaKey || $event.shiftKey)"
          @keydown="emit('key', $event, chip.id)"
        >
          <template v-if="wideEnough(chip)"
            ><span v-for="part in label(chip)" :key="part">{{ part }}</span></template
          >
        </button>
      </div>
      <svg class="over" :width="roomPx" :height="planPx" aria-hidden="true">
        <g v-for="way in ways" :key="way.id" :class="{ second: way.index % 2 === 1 }">
          <path class="way" :d="way.d" />
          <path v-for="(lead, i) in way.leads" :key="i" class="way lead" :d="lead" />
          <template v-if="way.start && way.end">
            <circle class="end" :cx="way.start[0]" :cy="way.start[1]" r="5" />
            <path class="sign" :d="`M${way.start[0] - 3},${way.start[1]} h6`" />
            <circle class="end" :cx="way.end[0]" :cy="way.end[1]" r="5" />
            <path
              class="sign"
              :d="`M${way.end[0] - 3},${way.end[1]} h6 M${way.end[0]},${way.end[1] - 3} v6`"
            />
          </template>
        </g>
      </svg>
      <span class="way-word">from above, front →</span>
    </div>
    <svg
      class="side"
      :width="roomPx"
      :height="sidePx"
      role="img"
      aria-label="The same boxes from the right side"
    >
      <template v-if="zoom === null">
        <line class="ground" x1="0" :x2="roomPx" :y1="z(0)" :y2="z(0)" />
        <circle
          v-for="axle in axles"
          :key="axle"
          class="rim"
          :cx="x(axle)"
          :cy="z(wheel / 2)"
          :r="(wheel / 2) * scale"
        />
      </template>
      <g v-for="box in drawn.boxes" :key="box.id">
        <rect
          class="side-box"
          :class="{ target: target === box.id }"
          :x="x(box.xM - box.lengthM / 2)"
          :y="z(box.zM + box.heightM / 2)"
          :width="box.lengthM * scale"
          :height="box.heightM * scale"
        />
        <rect
          v-for="chip in chipsIn(box.id)"
          :key="chip.id"
          class="side-chip"
          :class="{ chosen: chosen.has(chip.id) }"
          :x="x(chip.xM - chip.lengthM / 2)"
          :y="z(chip.zM + chip.heightM / 2)"
          :width="Math.max(chip.lengthM * scale - 1, 2)"
          :height="Math.max(chip.heightM * scale - 1, 2)"
        />
      </g>
      <text class="way-text" x="4" y="13">from the right side</text>
    </svg>
    <div class="shelf" data-box="none" :class="{ target: target === 'none' }">
      <span class="soft">In no box{{ drawn.loose.length === 0 ? ': none' : '' }}</span>
      <button
        v-for="chip in drawn.loose"
        :key="chip.id"
        type="button"
        class="chip loose"
        :class="{ chosen: chosen.has(chip.id) }"
        :data-module="chip.id"
        :tabindex="chip.id === focusable ? 0 : -1"
        :aria-label="spoken(chip)"
        :aria-pressed="chosen.has(chip.id)"
        @click="emit('choose', chip.id, $event.ctrlKey || $event.metaKey || $event.shiftKey)"
        @keydown="emit('key', $event, chip.id)"
      >
        {{ chip.tag }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.plan-view {
  position: relative;
  user-select: none;
}

.plan {
  position: relative;
}

.under,
.over {
  position: absolute;
  inset: 0;
}

.over {
  pointer-events: none;
  z-index: 2;
}

.body {
  fill: var(--tv-recess);
  stroke: var(--tv-line);
  stroke-width: 2;
}

.axle {
  stroke: var(--tv-plate-edge);
  stroke-width: 3;
}

.wheel {
  fill: var(--tv-plate-edge);
}

.box {
  position: absolute;
  border: 2px solid var(--tv-soft);
  border-radius: 2px;
  background: var(--tv-sheet);
}

.box.target,
.shelf.target {
  outline: 3px solid var(--tv-act);
  background: var(--tv-pick);
}

.box.bad {
  border-style: dashed;
  border-color: var(--tv-stop);
}

.box-tag {
  position: absolute;
  left: -2px;
  bottom: calc(100% + 1px);
  white-space: nowrap;
  font-size: 0.8rem;
  line-height: 1.1;
  pointer-events: none;
  padding: 0 2px;
  background: var(--tv-recess);
}

.box-tag em {
  color: var(--tv-stop);
  font-style: normal;
  font-weight: 600;
}

.chip {
  position: absolute;
  padding: 1px 0 0 2px;
  border: 1.5px solid var(--tv-hv);
  border-radius: 2px;
  background: var(--tv-sheet);
  color: var(--tv-ink);
  font-size: 11.5px;
  line-height: 1.05;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  justify-content: flex-start;
  overflow: hidden;
  cursor: grab;
  touch-action: none;
}

.chip.flat {
  flex-direction: row;
  gap: 4px;
  justify-content: flex-start;
  align-items: center;
  padding: 0 3px;
}

.chip.second {
  background: repeating-linear-gradient(90deg, var(--tv-sheet) 0 5px, var(--tv-recess) 5px 8px);
  border-style: double;
  border-width: 3px;
  padding: 0 0 0 1px;
}

.chip.chosen {
  background: var(--tv-pick);
  outline: 2.5px solid var(--tv-act);
  z-index: 1;
}

.chip.loose {
  position: static;
  display: inline-block;
  padding: 0.2rem 0.4rem;
  min-height: 28px;
}

.shelf {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem;
  align-items: center;
  min-height: 34px;
  padding: 0.2rem 0.5rem;
  border: 1px dashed var(--tv-plate-edge);
  border-radius: 3px;
  margin-top: 0.4rem;
}

.way {
  fill: none;
  stroke: var(--tv-act);
  stroke-width: 2;
  stroke-linejoin: round;
}

.second .way {
  stroke-dasharray: 6 3;
}

.way.lead {
  stroke-width: 1.2;
  opacity: 0.6;
}

.end {
  fill: var(--tv-sheet);
  stroke: var(--tv-act);
  stroke-width: 1.5;
}

.sign {
  stroke: var(--tv-act);
  stroke-width: 1.6;
}

.way-word,
.way-text {
  font-size: 0.78rem;
  color: var(--tv-soft);
  fill: var(--tv-soft);
}

.way-word {
  position: absolute;
  right: 4px;
  bottom: 0;
}

.side {
  display: block;
}

.ground {
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.rim {
  fill: none;
  stroke: var(--tv-plate-edge);
  stroke-width: 6;
}

.side-box {
  fill: var(--tv-sheet);
  stroke: var(--tv-soft);
  stroke-width: 2;
}

.side-box.target {
  stroke: var(--tv-act);
  stroke-width: 4;
}

.side-chip {
  fill: var(--tv-sheet);
  stroke: var(--tv-hv);
  stroke-width: 1.2;
}

.side-chip.chosen {
  fill: var(--tv-pick);
  stroke: var(--tv-act);
  stroke-width: 2;
}
</style>
