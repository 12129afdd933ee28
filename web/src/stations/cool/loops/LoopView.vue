<script setup lang="ts">
import type { LoopAnswer } from '@torvek/core/cooling';
import type { Id } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed, ref, shallowRef, watch } from 'vue';
import { elkWorker } from '../../../parts/elk';
import { useJob } from '../../../stores/job';
import { useUnits } from '../../../stores/units';
import { layOutLoop, linesOf, loopGraph, middleOf, type LaidLoop, type LoopGraph } from './loop-graph';
import { glyphs, textYOf } from './loop-drawing';
import { statesOf, type Shown } from './states';

/**
 * A loop laid out from its connections: which way the coolant goes by arrows, how much by the width of its line, how warm by label;
 * what is starved, shut or stands is marked by shape and word.
 */
const props = defineProps<{ loopId: Id; answer: LoopAnswer | null; shown: Shown; picked: Id | null }>();
const emit = defineEmits<{ pick: [id: Id | null] }>();
const job = useJob();
const units = useUnits();
const boxOf = (piece: Id): Id | null =>
  job.design.modules[job.design.plumbing?.[piece]?.modules?.[0] ?? '']?.box ?? null;
const graph = computed(() =>
  loopGraph(props.loopId, {
    loops: job.design.loops ?? {},
    joins: job.design.joins ?? {},
    plumbing: job.design.plumbing ?? {},
    boxOf,
  }),
);
/** What the picture is laid out from: while it stays the same, so does the picture. */
const shape = computed(() => JSON.stringify([props.loopId, graph.value]));
const laid = shallowRef<{ graph: LoopGraph; at: LaidLoop } | null>(null);
const trouble = ref(false);
let latest = 0;
watch(
  shape,
  async () => {
    const turn = (latest += 1);
    const wanted = graph.value;
    if (wanted.nodes.length === 0) {
      laid.value = null;
      return;
    }
    try {
      const at = await layOutLoop(wanted, elkWorker());
      if (turn !== latest) return;
      laid.value = { graph: wanted, at };
      trouble.value = false;
    } catch {
      if (turn === latest) trouble.value = true;
    }
  },
  { immediate: true },
);

const states = computed(() => statesOf(props.answer, props.shown));
const most = computed(() =>
  Math.max(0.1, ...[...states.value.values()].map(({ flow }) => Math.abs(flow ?? 0))),
);
const warm = (c: number) => {
  const { number, unit } = units.show(c, '°C', 3);
  return `${number} ${unit}`;
};
const widthOf = (flow: number | null) =>
  flow === null || Math.abs(flow) < 0.005 ? 1.6 : 2 + (6 * Math.abs(flow)) / most.value;
const edges = computed(() => {
  const at = laid.value;
  if (at === null) return [];
  return at.graph.edges.flatMap((edge) => {
    const points = at.at.edges.get(edge.id) ?? [];
    if (points.length < 2) return [];
    const state = states.value.get(edge.piece);
    const flow = state?.flow ?? null;
    const middle = middleOf(points)!;
    const stands = flow === null || Math.abs(flow) < 0.005;
    return [
      {
        ...edge,
        d: `M${points.map(([x, y]) => `${x},${y}`).join(' L')}`,
        width: widthOf(flow),
        stands,
        known: flow !== null,
        middle,
        textY: textYOf(middle, widthOf(flow), [...at.at.nodes.values()]),
        turn: middle.turn + ((flow ?? 0) < 0 ? 180 : 0),
        text:
          edge.isHose && middle.long > 50 && flow !== null && Math.abs(middle.turn) % 180 < 1
            ? formatNumber(Math.abs(flow), 3)
            : '',
      },
    ];
  });
});
const nodes = computed(() => {
  const at = laid.value;
  if (at === null) return [];
  return at.graph.nodes.flatMap((node) => {
    const spot = at.at.nodes.get(node.id);
    if (spot === undefined) return [];
    const state = node.piece === null ? undefined : states.value.get(node.piece);
    const words = [
      ...(state?.flow === null || state?.flow === undefined
        ? []
        : [`${formatNumber(Math.abs(state.flow), 3)} L/min`]),
      ...(state?.outC === null || state?.outC === undefined ? [] : [warm(state.outC)]),
    ];
    return [
      {
        ...node,
        names: linesOf(node.tag),
        spot,
        state,
        lines: state?.mark == null ? words : [state.mark],
        mark: state?.mark ?? null,
      },
    ];
  });
});
const spoken = (node: (typeof nodes.value)[number]) =>
  [node.tag, node.kind, ...node.lines].filter((one) => one !== '').join(', ');
const label = computed(
  () =>
    `${job.design.loops?.[props.loopId]?.tag ?? ''}: ${nodes.value.filter(({ piece }) => piece !== null).length} pieces and their hoses`,
);
</script>

<template>
  <p v-if="trouble" class="soft" role="status">
    The loop cannot be laid out; the table below holds everything.
  </p>
  <div v-else-if="laid" class="frame">
    <svg
      class="loop"
      :viewBox="`0 0 ${laid.at.width} ${laid.at.height}`"
      :style="{ width: `${Math.min(laid.at.width, 1200)}px` }"
      role="group"
      :aria-label="label"
      @click.self="emit('pick', null)"
    >
      <g
        v-for="edge in edges"
        :key="edge.id"
        class="edge"
        :class="{ stands: edge.stands, picked: edge.isHose && edge.piece === picked, hose: edge.isHose }"
        :data-hose="edge.isHose ? edge.piece : undefined"
        @click.stop="edge.isHose && emit('pick', edge.piece)"
      >
        <path v-if="edge.isHose" class="hit" :d="edge.d" />
        <path class="flow" :d="edge.d" :stroke-width="edge.width" />
        <path
          v-if="!edge.stands && edge.middle.long > 11"
          class="arrow"
          :transform="`translate(${edge.middle.x} ${edge.middle.y}) rotate(${edge.turn})`"
          d="M-4,-5 L5,0 L-4,5 Z"
        />
        <text v-if="edge.text !== ''" class="on-line" :x="edge.middle.x" :y="edge.textY">
          {{ edge.text }}
        </text>
      </g>
      <g
        v-for="node in nodes"
        :key="node.id"
        class="node"
        :class="[
          node.kind,
          { picked: node.piece !== null && node.piece === picked, marked: node.mark !== null },
        ]"
        :data-piece="node.piece ?? undefined"
        :role="node.piece === null ? undefined : 'button'"
        :tabindex="node.piece === null ? undefined : 0"
        :aria-pressed="node.piece === null ? undefined : node.piece === picked"
        :aria-label="spoken(node)"
        @click.stop="node.piece !== null && emit('pick', node.piece)"
        @keydown.enter.prevent="node.piece !== null && emit('pick', node.piece)"
      >
        <title>{{ spoken(node) }}</title>
        <template v-if="node.kind === 'join'">
          <circle :cx="node.spot.x + 4.5" :cy="node.spot.y + 4.5" :r="node.bleed ? 5.5 : 4.5" />
          <path
            v-if="node.bleed"
            class="bleed"
            :d="`M${node.spot.x + 4.5},${node.spot.y - 2} v-7 m-3,0 h6`"
          />
        </template>
        <template v-else>
          <rect
            :x="node.spot.x"
            :y="node.spot.y"
            :width="node.spot.width"
            :height="node.spot.height"
            :rx="node.kind === 'tank' ? 9 : 3"
          />
          <path
            class="glyph"
            :transform="`translate(${node.spot.x + 11} ${node.spot.y + 13})`"
            :d="glyphs[node.kind]"
          />
          <text
            v-for="(line, i) in node.names"
            :key="`name ${i}`"
            :x="node.spot.x + 22"
            :y="node.spot.y + 16 + 14 * i"
            class="tag"
          >
            {{ line }}
          </text>
          <text
            v-for="(line, i) in node.lines"
            :key="i"
            :x="node.spot.x + (node.mark === null ? 8 : 22)"
            :y="node.spot.y + 17 + 14 * (node.names.length + i)"
            class="words"
          >
            {{ line }}
          </text>
          <path
            v-if="node.mark !== null"
            class="mark"
            :transform="`translate(${node.spot.x + 12} ${node.spot.y + 14 + 14 * node.names.length})`"
            d="M0,-6 L6,0 L0,6 L-6,0 Z M0,-6 L0,6 L6,0 Z"
          />
        </template>
      </g>
    </svg>
  </div>
</template>

<style scoped src="./loop-view.css"></style>
