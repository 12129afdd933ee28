<script setup lang="ts">
import type { BmsMapInput, BmsMapResult } from '@torvek/core/monitoring';
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed, onUnmounted, ref, useTemplateRef } from 'vue';
import { useJob } from '../../../stores/job';

/** The string as a ladder from its negative end, boards beside it: an end of a board is dragged, or moved by arrows. */
const props = defineProps<{
  input: BmsMapInput;
  result: BmsMapResult;
  picked: Id | null;
  summary: string;
  boardTag: (id: Id) => string;
  moduleTag: (id: Id) => string;
}>();
const emit = defineEmits<{ pick: [id: Id] }>();
const job = useJob();
const width = 860;
const total = computed(() => props.input.modules.reduce((sum, { cells }) => sum + cells, 0));
const cellPx = computed(() => Math.max(4.5, Math.min(16, 560 / Math.max(1, total.value))));
const high = computed(() => total.value * cellPx.value + 40);
/** The negative end lies at the bottom, as potentials rise. */
const yOf = (cell: number) => 20 + (total.value - cell) * cellPx.value;
const modules = computed(() => {
  let at = 0;
  return props.input.modules.map(({ id, cells }) => {
    const from = at;
    at += cells;
    return { id, cells, top: yOf(at), tall: cells * cellPx.value, from };
  });
});
const breaks = computed(() =>
  (props.input.breaks ?? []).flatMap(({ afterModule, kind }) => {
    const module = modules.value.find(({ id }) => id === afterModule);
    if (module === undefined) return [];
    const over = props.result.straddles.find((one) => one.afterModule === afterModule);
    return [
      {
        afterModule,
        kind,
        y: module.top,
        mv: over === undefined ? null : over.mvAtPeak,
        board: over?.board ?? null,
      },
    ];
  }),
);
const boards = computed(() =>
  props.result.boards.map((board) => {
    const first = board.cells[0]!.cell;
    const last = board.cells.at(-1)!.cell;
    const top = yOf(last);
    const tall = (last - first + 1) * cellPx.value;
    return { ...board, first, last, top, tall };
  }),
);
const kinds = {
  'service-disconnect': 'service disconnect',
  fuse: 'fuse',
  contactor: 'contactor',
  link: 'cable to the next box',
};
const n = (value: number) => formatNumber(value, 3);
const sheet = useTemplateRef<SVGSVGElement>('sheet');
const dragging = ref<{ id: Id; first: number } | null>(null);
let last: number | null = null;

const channels = (id: Id) => {
  const part = job.design.parts[job.design.boards?.[id]?.unit ?? ''];
  return part?.kind === 'unit' ? part.data.channels : 1;
};
function put(id: Id, takes: number, final: boolean): void {
  const whole = Math.max(1, Math.min(channels(id), Math.round(takes)));
  const value = whole === channels(id) ? undefined : whole;
  if (final) {
    job.preview(null);
    if (value !== job.committed.boards?.[id]?.takes)
      job.set(`boards.${id}.takes`, value, `${props.boardTag(id)} takes ${whole} cells`);
    return;
  }
  last = whole;
  job.preview((draft) => {
    const own = draft.boards?.[id];
    if (own === undefined) return;
    if (value === undefined) delete own.takes;
    else own.takes = value;
  });
}
function start(event: PointerEvent, board: { id: Id; first: number }): void {
  emit('pick', board.id);
  if (!job.editable) return;
  event.preventDefault();
  dragging.value = { id: board.id, first: board.first };
  last = null;
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', drop);
}
function move(event: PointerEvent): void {
  if (dragging.value === null || sheet.value === null) return;
  const box = sheet.value.getBoundingClientRect();
  const y = ((event.clientY - box.top) / box.height) * high.value;
  const cell = total.value - (y - 20) / cellPx.value;
  put(dragging.value.id, cell - dragging.value.first + 1, false);
}
function drop(): void {
  if (dragging.value !== null && last !== null) put(dragging.value.id, last, true);
  finish();
}
function finish(): void {
  window.removeEventListener('pointermove', move);
  window.removeEventListener('pointerup', drop);
  dragging.value = null;
}
function nudge(event: KeyboardEvent, board: { id: Id; first: number; last: number }): void {
  if (event.key === 'Enter') emit('pick', board.id);
  if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
  if (!job.editable) return;
  event.preventDefault();
  put(board.id, board.last - board.first + 1 + (event.key === 'ArrowUp' ? 1 : -1), true);
}
onUnmounted(() => {
  if (dragging.value !== null) job.preview(null);
  finish();
});
</script>

<template>
  <svg
    ref="sheet"
    class="map"
    :viewBox="`0 0 ${width} ${high}`"
    role="group"
    :aria-label="summary"
    data-map-view
  >
    <text x="20" y="12" class="soft">+ end of the string</text>
    <text x="20" :y="high - 4" class="soft">− end</text>
    <g v-for="module in modules" :key="module.id" :data-module="module.id">
      <rect x="20" :y="module.top" width="180" :height="module.tall" class="module" />
      <text x="30" :y="module.top + module.tall / 2 + 4">
        {{ module.cells > 1 || cellPx > 11 ? moduleTag(module.id) : '' }}
      </text>
      <line
        v-for="i in module.cells - 1"
        :key="i"
        x1="170"
        x2="200"
        :y1="module.top + i * cellPx"
        :y2="module.top + i * cellPx"
        class="cell"
      />
    </g>
    <g
      v-for="one in breaks"
      :key="`${one.afterModule} ${one.kind}`"
      class="break"
      :class="{ hard: one.kind !== 'link', over: one.mv !== null }"
      :data-break="one.kind"
    >
      <line x1="10" :x2="one.mv === null ? 330 : 620" :y1="one.y" :y2="one.y" />
      <text v-if="one.mv === null" x="210" :y="one.y - 4">{{ kinds[one.kind] }}</text>
      <template v-else>
        <text x="628" :y="one.y - 5">{{ kinds[one.kind] }}</text>
        <text x="628" :y="one.y + 11">{{ boardTag(one.board!) }} reaches over it, {{ n(one.mv) }} mV</text>
      </template>
    </g>
    <g
      v-for="board in boards"
      :key="board.id"
      class="board"
      :class="{ picked: board.id === picked }"
      tabindex="0"
      role="button"
      :aria-label="`${boardTag(board.id)}: cells ${board.first} to ${board.last}, ${board.tiedChannels.length} channels tied; arrows move its upper end`"
      :data-board="board.id"
      @click="emit('pick', board.id)"
      @keydown="nudge($event, board)"
    >
      <path
        v-for="one in board.cells"
        :key="one.cell"
        :d="`M200,${yOf(one.cell)} C290,${yOf(one.cell)} 300,${yOf(one.cell)} 400,${yOf(one.cell)}`"
        class="wire"
      />
      <path
        :d="`M200,${yOf(board.first - 1)} H400`"
        class="wire reference"
        :class="{ jumper: board.jumperFrom !== null }"
      />
      <rect x="400" :y="board.top" width="200" :height="Math.max(6, board.tall - 2)" rx="3" class="body" />
      <text v-if="board.tall > 15" x="412" :y="board.top + Math.min(board.tall / 2 + 4, board.tall - 4)">
        {{ boardTag(board.id) }}: {{ board.first }}–{{ board.last
        }}{{ board.tiedChannels.length > 0 ? `, ${board.tiedChannels.length} tied` : '' }}
      </text>
      <rect
        x="560"
        :y="board.top - 5"
        width="40"
        height="12"
        class="handle"
        @pointerdown.stop="start($event, board)"
      />
    </g>
  </svg>
</template>

<style scoped>
.map {
  width: 100%;
  font-size: 12.5px;
  touch-action: none;
}

text {
  fill: var(--tv-ink);
}

.soft {
  fill: var(--tv-soft);
}

.module {
  fill: var(--tv-recess);
  stroke: var(--tv-hv);
}

.cell {
  stroke: var(--tv-hv);
}

.break line {
  stroke: var(--tv-soft);
  stroke-dasharray: 6 4;
}

.break.hard line {
  stroke: var(--tv-ink);
  stroke-width: 2;
}

.break.over line {
  stroke: var(--tv-mend);
  stroke-width: 2.5;
}

.break text {
  fill: var(--tv-soft);
  font-size: 11.5px;
}

.break.over text {
  fill: var(--tv-mend);
  font-weight: 700;
}

.wire {
  fill: none;
  stroke: var(--tv-signal);
  stroke-width: 0.8;
}

.reference {
  stroke: var(--tv-ink);
}

.jumper {
  stroke-dasharray: 3 3;
}

.body {
  fill: var(--tv-sheet);
  stroke: var(--tv-signal);
  stroke-width: 2;
}

.board:focus-visible {
  outline: none;
}

.board:focus-visible .body,
.picked .body {
  fill: var(--tv-pick);
  stroke: var(--tv-act);
}

.handle {
  fill: var(--tv-signal);
  cursor: ns-resize;
}
</style>
