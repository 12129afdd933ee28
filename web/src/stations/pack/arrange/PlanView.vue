<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, ref } from 'vue';
import { useJob } from '../../../stores/job';
import { drawnBoxes, type Chip, type DrawnBox } from './chips';
import { flat, planGeometry, stringWays } from './plan-geometry';
import BodyPlan from './BodyPlan.vue';
import SideStrip from './SideStrip.vue';
import { useCarry, type DropPlace } from './use-carry';

/** The vehicle from above, to scale, with every module in its box; its right side below. */
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
  drop: [where: DropPlace];
  key: [event: KeyboardEvent, module: Id];
}>();
const job = useJob();
const root = ref<HTMLElement>();
const { width: roomPx } = useElementSize(root);

const drawn = computed(() => drawnBoxes(job.design));
const plan = computed(() => planGeometry(job.design.vehicle, drawn.value.boxes, props.zoom, roomPx.value));
const ways = computed(() => stringWays(job.design, drawn.value, plan.value));
const px = (value: number) => `${Math.round(value * 10) / 10}px`;

const boxStyle = (box: DrawnBox) => ({
  left: px(plan.value.x(box.xM - box.lengthM / 2)),
  top: px(plan.value.y(box.yM + box.widthM / 2)),
  width: px(box.lengthM * plan.value.scale),
  height: px(box.widthM * plan.value.scale),
});
const chipStyle = (chip: Chip, box: DrawnBox) => ({
  left: px(plan.value.x(chip.xM - chip.lengthM / 2) - plan.value.x(box.xM - box.lengthM / 2)),
  top: px(plan.value.y(chip.yM + chip.widthM / 2) - plan.value.y(box.yM + box.widthM / 2)),
  width: px(Math.max(chip.lengthM * plan.value.scale - 1, 4)),
  height: px(Math.max(chip.widthM * plan.value.scale - 1, 4)),
});
const chipsIn = (box: Id) => drawn.value.chips.filter((chip) => chip.box === box);
const wideEnough = (chip: Chip) =>
  Math.max(chip.lengthM, chip.widthM) * plan.value.scale > 24 &&
  Math.min(chip.lengthM, chip.widthM) * plan.value.scale > 15;
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
  }${chip.stays ? ', stays there' : ''}`;

const boxFacts = (box: DrawnBox) =>
  [
    box.count > 0 ? String(box.count) : '',
    props.boxKg.has(box.id) ? `${formatNumber(props.boxKg.get(box.id)!, 3)} kg` : '',
  ]
    .filter((text) => text !== '')
    .join(', ');
const focusable = computed(
  () => [...props.chosen][0] ?? drawn.value.chips[0]?.id ?? drawn.value.loose[0]?.id ?? null,
);

useCarry({
  root,
  editable: () => job.editable,
  lists: [() => drawn.value.boxes.map(({ id }) => id).join()],
  carry: (module) => emit('carry', module),
  over: (box) => emit('over', box),
  drop: (where) => emit('drop', where),
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
    <div class="plan" :style="{ height: px(plan.planPx) }">
      <BodyPlan :plan="plan" :width-px="roomPx" :whole="zoom === null" />
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
            stays: chip.stays,
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
      <svg class="over" :width="roomPx" :height="plan.planPx" aria-hidden="true">
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
    <SideStrip
      :drawn="drawn"
      :plan="plan"
      :room-px="roomPx"
      :chosen="chosen"
      :target="target"
      :whole="zoom === null"
    />
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

/* Over the body and the boxes. */
.over {
  position: absolute;
  inset: 0;
  pointer-events: none;
  z-index: 2;
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

/* Held at its foot: proposals leave it there. */
.chip.stays {
  box-shadow: inset 0 -4px 0 var(--tv-soft);
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

.way-word {
  position: absolute;
  right: 4px;
  bottom: 0;
  font-size: 0.78rem;
  color: var(--tv-soft);
}
</style>
