<script setup lang="ts">
import { canOpen } from '@torvek/core/network';
import { useElementSize } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { RouterLink } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import BranchTable from './BranchTable.vue';
import DiagramView from './DiagramView.vue';
import { elkWorker } from '../../parts/elk';
import { exportPdf, exportSvg } from './export';
import { layOut, type Diagram } from './layout';
import StringTable from './StringTable.vue';
import SymbolDetail from './SymbolDetail.vue';
import { useWhatIf } from './what-if';
import WhatIfStrip from './WhatIfStrip.vue';
import { useJob } from '../../stores/job';

const job = useJob();
const whatIf = useWhatIf();
const { network, map, open } = whatIf;
const diagram = shallowRef<Diagram | null>(null);
const trouble = ref<string | null>(null);
const picked = ref<string | null>(null);
const view = ref<InstanceType<typeof DiagramView>>();

/** What a picture is laid out from: while it stays the same, so does the picture. */
const shape = computed(() =>
  JSON.stringify([network.value.symbols, network.value.lines.map(({ id }) => id), network.value.boxes]),
);
let latest = 0;
watch(
  shape,
  async () => {
    const turn = (latest += 1);
    const wanted = network.value;
    if (wanted.symbols.length === 0) {
      diagram.value = null;
      return;
    }
    try {
      const laid = await layOut(wanted, elkWorker());
      if (turn === latest) {
        diagram.value = laid;
        trouble.value = null;
      }
    } catch {
      if (turn === latest)
        trouble.value = 'The diagram cannot be laid out; the tables below hold everything.';
    }
  },
  { immediate: true },
);
watch(network, ({ symbols }) => {
  if (picked.value !== null && !symbols.some(({ id }) => id === picked.value)) picked.value = null;
});

/** The picked symbol and everything between it and its sources. */
const path = computed(() => {
  const found = new Set<string>();
  if (picked.value === null) return found;
  const queue = [picked.value];
  for (let id = queue.pop(); id !== undefined; id = queue.pop()) {
    if (found.has(id)) continue;
    found.add(id);
    for (const line of network.value.lines) if (line.to === id) queue.push(line.from);
  }
  return found;
});

function toggle(id: string): void {
  const symbol = network.value.symbols.find((one) => one.id === id);
  if (symbol === undefined) return;
  const elements = network.value.elements.filter((one) => symbol.elements.includes(one.id) && canOpen(one));
  const switches = elements.some(({ kind }) => kind === 'contactor')
    ? elements.filter(({ kind }) => kind === 'contactor')
    : symbol.kind === 'modules'
      ? []
      : elements;
  if (switches.length === 0) return;
  const ids = switches.map((one) => one.id);
  whatIf.toggle(ids, !ids.some((one) => open.value.has(one)));
}

/** Shrunk a little where that makes it fit; never so far that its texts fall below 11 px. */
const holder = ref<HTMLElement>();
const { width: roomPx } = useElementSize(holder);
const scale = computed(() =>
  diagram.value === null || roomPx.value === 0
    ? 1
    : Math.min(1, Math.max(leastScale, roomPx.value / diagram.value.width)),
);
const leastScale = 0.92;

const busy = ref(false);
async function save(kind: 'svg' | 'A4' | 'A3'): Promise<void> {
  const svg = view.value?.root;
  if (svg === undefined) return;
  busy.value = true;
  trouble.value = null;
  try {
    const title = `${job.name}, version ${job.version}: one-line diagram, ${whatIf.stage.value?.title ?? 'as recorded'}`;
    if (kind === 'svg') exportSvg(svg, job.name);
    else await exportPdf(svg, job.name, title, kind);
  } catch (error) {
    trouble.value = `Not exported: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div class="network">
    <NextStrip
      station="network"
      purpose="How modules, fuses, disconnects, contactors, cables and devices connect, and what is live at each stage."
    />
    <WhatIfStrip v-if="network.symbols.length > 0" :what-if="whatIf" />
    <section v-if="network.symbols.length > 0" class="sheet-card picture" aria-label="One-line diagram">
      <div class="card-head">
        <h2>One-line diagram</h2>
        <span class="hint key">
          <svg width="34" height="10" aria-hidden="true">
            <path d="M0,5 H34" class="one" />
          </svg>
          one pole
          <svg width="34" height="10" aria-hidden="true">
            <path d="M0,5 H34" class="two" />
            <path d="M0,5 H34" class="gap" />
          </svg>
          both poles
        </span>
        <span class="exports no-print">
          <button type="button" class="btn btn-quiet btn-sm" :disabled="busy" @click="save('svg')">
            SVG
          </button>
          <button type="button" class="btn btn-quiet btn-sm" :disabled="busy" @click="save('A4')">
            PDF A4
          </button>
          <button type="button" class="btn btn-quiet btn-sm" :disabled="busy" @click="save('A3')">
            PDF A3
          </button>
        </span>
      </div>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <SymbolDetail :network="network" :picked="picked" :what-if="whatIf" @pick="picked = $event" />
      <div ref="holder" class="scroll">
        <DiagramView
          v-if="diagram"
          ref="view"
          :diagram="diagram"
          :network="network"
          :map="map"
          :open="open"
          :picked="picked"
          :path="path"
          :scale="scale"
          @pick="picked = $event"
          @toggle="toggle"
        />
        <p v-else class="soft">Laying out …</p>
      </div>
      <p class="small">
        At the modules’ highest voltage, between any two places in one box; from one pole to the chassis there
        is only leakage, until there is a second fault. Computed from the design: prove dead with a meter all
        the same.
      </p>
    </section>
    <section v-if="network.symbols.length === 0" class="sheet-card" aria-label="One-line diagram">
      <div class="card-head"><h2>One-line diagram</h2></div>
      <p class="panel-empty">
        The diagram lays itself out as soon as there are modules in a string:
        <RouterLink :to="{ name: 'pack', params: { job: job.id } }">choose them in Pack</RouterLink>. Then
        every circuit below appears in it, and what is live at each stage of the build.
      </p>
    </section>
    <section class="sheet-card">
      <div class="card-head">
        <h2>Circuits</h2>
        <span class="hint">the main one, and a branch for each device</span>
      </div>
      <BranchTable @pick="picked = $event" />
    </section>
    <section class="sheet-card">
      <div class="card-head">
        <h2>Strings</h2>
        <span class="hint">fuse, disconnect and contactors of each</span>
      </div>
      <StringTable />
    </section>
  </div>
</template>

<style scoped>
.network {
  display: grid;
  gap: 0.6rem;
  grid-template-columns: minmax(0, 1fr);
}

.scroll {
  overflow-x: auto;
}

.scroll :deep(svg) {
  margin: 0 auto;
}

.key {
  display: flex;
  align-items: center;
  gap: 0.35rem;
}

.key path {
  fill: none;
  stroke: var(--tv-soft);
  stroke-width: 1.6;
}

.key .two {
  stroke-width: 5;
}

.key .gap {
  stroke: var(--tv-sheet);
  stroke-width: 2;
}

.exports {
  margin-left: auto;
  display: flex;
  gap: 0.3rem;
}

.small {
  margin: 0.45rem 0 0;
  font-size: 0.82rem;
  color: var(--tv-soft);
}

.trouble {
  color: var(--tv-stop);
}
</style>
