<script setup lang="ts">
import type { Id } from '@torvek/core/document';
import { computed } from 'vue';
import { useJob } from '../../../stores/job';
import { loomTree } from './tree';

/** The loom laid out by itself as a tree: bundles with their lengths and how many wires run in them. */
defineProps<{ picked: Id | null }>();
const emit = defineEmits<{ pick: [id: Id] }>();
const job = useJob();
const tree = computed(() =>
  loomTree({
    ends: job.committed.ends ?? {},
    bundles: job.committed.bundles ?? {},
    wires: job.committed.wires ?? {},
    adapters: job.committed.adapters ?? {},
  }),
);
const width = computed(() => Math.max(tree.value.width, 640));
const summary = computed(
  () =>
    `${tree.value.ends.length} ends, ${tree.value.branches.filter(({ kind }) => kind === 'bundle').length} bundles, ${Object.keys(job.design.wires ?? {}).length} wires`,
);
</script>

<template>
  <div class="scroll">
    <svg
      class="loom"
      :viewBox="`0 0 ${width} ${tree.height}`"
      :style="{ width: `min(100%, ${width * 1.12}px)`, minWidth: `${width * 0.96}px` }"
      role="group"
      :aria-label="summary"
      data-loom
    >
      <g v-for="branch in tree.branches" :key="branch.id" :data-bundle="branch.id">
        <path
          :d="`M${branch.from.x},${branch.from.y} V${branch.to.y} H${branch.to.x}`"
          :style="{ strokeWidth: `${1.5 + Math.min(6, branch.wires * 0.45)}px` }"
          class="bundle"
          :class="{ unknown: branch.lengthM === null, adapter: branch.kind === 'adapter' }"
        />
        <text :x="branch.from.x + 14" :y="branch.to.y - 6" class="long">{{ branch.text }}</text>
      </g>
      <g
        v-for="end in tree.ends"
        :key="end.id"
        class="end"
        :class="[end.kind.replace(' ', '-'), { picked: end.id === picked }]"
        tabindex="0"
        role="button"
        :aria-label="`${end.kind} ${end.tag}, ${end.wires} wires`"
        :data-end="end.id"
        @click="emit('pick', end.id)"
        @keydown.enter="emit('pick', end.id)"
      >
        <rect v-if="end.kind === 'connector'" :x="end.x - 5" :y="end.y - 9" width="10" height="18" rx="2" />
        <rect v-else-if="end.kind === 'fuse box'" :x="end.x - 9" :y="end.y - 11" width="18" height="22" />
        <path
          v-else-if="end.kind === 'ground'"
          :d="`M${end.x},${end.y - 8} V${end.y + 8} M${end.x + 5},${end.y - 5} V${end.y + 5} M${end.x + 10},${end.y - 2} V${end.y + 2}`"
          class="ground"
        />
        <circle v-else :cx="end.x" :cy="end.y" :r="end.kind === 'splice' ? 6 : 4" />
        <!-- To the left of the first there is no room. -->
        <text
          v-if="end.inner"
          :x="end.x < 100 ? end.x - 9 : end.x - 7"
          :y="end.x < 100 ? end.y + 23 : end.y + 16"
          :class="{ inner: end.x >= 100 }"
        >
          {{ end.tag.length > 19 ? `${end.tag.slice(0, 18)}…` : end.tag }}
          <title>{{ end.tag }}</title>
        </text>
        <text
          v-else
          :x="end.x + (end.kind === 'fuse box' ? -9 : 16)"
          :y="end.y + (end.kind === 'fuse box' ? -20 : 4)"
        >
          {{ end.tag.length > 26 ? `${end.tag.slice(0, 25)}…` : end.tag }}
          <title>{{ end.tag }}</title>
        </text>
      </g>
    </svg>
    <p v-if="tree.rings.length > 0" class="soft">
      {{ tree.rings.length }} bundles or adapters close a ring and are not drawn: wires take the shorter way.
    </p>
  </div>
</template>

<style scoped>
.scroll {
  overflow: auto;
  max-height: 420px;
}

.loom {
  font-size: 12.5px;
}

text {
  fill: var(--tv-ink);
}

.inner {
  text-anchor: end;
}

.bundle {
  fill: none;
  stroke: var(--tv-lowvolt);
  stroke-linejoin: round;
}

.bundle.adapter {
  stroke: var(--tv-ink);
  stroke-dasharray: 2 3;
}

.bundle.unknown {
  stroke-dasharray: 5 4;
}

.long {
  font-size: 11.5px;
  fill: var(--tv-soft);
}

.end {
  cursor: pointer;
}

.end rect,
.end circle {
  fill: var(--tv-sheet);
  stroke: var(--tv-ink);
  stroke-width: 2;
}

.end .ground {
  stroke: var(--tv-ink);
  stroke-width: 2.5;
}

.end:focus-visible {
  outline: 2px solid var(--tv-act);
}

.picked rect,
.picked circle {
  fill: var(--tv-pick);
  stroke: var(--tv-act);
}

.picked text {
  font-weight: 700;
}
</style>
