<script setup lang="ts">
import { continuitySheet } from '@torvek/core/low-voltage';
import { removeLoomEnd, removeWire, type Design, type Id } from '@torvek/core/document';
import { unpinUnused } from '@torvek/core/pack';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { newId } from '../../../api/client';
import type { Label } from '../../../parts/labels';
import LabelButton from '../../../parts/LabelButton.vue';
import PrintSheet from '../../../parts/PrintSheet.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { saveCsv } from '../../../parts/save-csv';
import { useJob } from '../../../stores/job';
import AdapterTable from './AdapterTable.vue';
import BundleTable from './BundleTable.vue';
import ColourTable from './ColourTable.vue';
import FaceView from './FaceView.vue';
import LoomView from './LoomView.vue';
import { continuityRows, readWires, wireRows, type ReadWires } from './wire-file';
import WireFields from './WireFields.vue';
import WireTable from './WireTable.vue';

/** The looms: laid out as a tree, their connectors face by face, and every wire from pin to pin. */
const job = useJob();
const route = useRoute();
const picked = ref<Id | null>(null);
const wire = ref<Id | null>(null);
const tables = { wires: 'Wires', bundles: 'Bundles', adapters: 'Adapters', colours: 'Colours' } as const;
const table = ref<keyof typeof tables>('wires');
watch(
  () => route.query.at,
  (at) => {
    const [root, id] = typeof at === 'string' ? at.split('.') : [];
    if (root === 'ends' && id !== undefined) picked.value = id;
    if (root === 'wires' && id !== undefined) wire.value = id;
    if (root !== undefined && Object.hasOwn(tables, root)) table.value = root as keyof typeof tables;
  },
  { immediate: true },
);
const end = computed(() => (picked.value === null ? undefined : job.design.ends?.[picked.value]));
/** As saved: what is being typed into a cell changes no list of hundreds before it is done. */
const slices = computed(() => {
  const {
    ends = {},
    bundles = {},
    wires = {},
    adapters = {},
    colours = {},
    loads = {},
    parts,
  } = job.committed;
  return { ends, bundles, wires, adapters, colours, loads, parts };
});
const lines = computed(() => continuitySheet(slices.value));
const wires = computed(() => Object.keys(slices.value.wires).length);
const metres = computed(() => lines.value.reduce((sum, one) => sum + (one.lengthM ?? 0), 0));
const provisional = computed(
  () => Object.values(slices.value.wires).filter(({ state }) => state !== 'frozen').length,
);
const unknown = computed(
  () => lines.value.filter(({ kind, lengthM }) => kind === 'wire' && lengthM === null).length,
);
const sentence = computed(
  () =>
    `${wires.value} wires, ${metres.value.toFixed(1)} m${unknown.value > 0 ? ` and ${unknown.value} without a length` : ''}; ${provisional.value} provisional, ${wires.value - provisional.value} frozen.`,
);
const labels = computed((): Label[] =>
  lines.value.map((line) => ({
    title: line.tag,
    lines: [`${line.from} ${line.fromPin ?? ''} to ${line.to} ${line.toPin ?? ''}`, line.colour],
    path: `charge?at=${line.kind}s.${line.wire}.tag`,
    foot: '',
  })),
);
function addEnd(kind: 'connector' | 'splice' | 'ground' | 'fuse box' | 'branch'): void {
  const id = newId('end');
  job.change('End of a loom added', (draft) => {
    const all = (draft.ends ??= {});
    all[id] = { tag: `${kind[0]!.toUpperCase()}${kind.slice(1)} ${Object.keys(all).length + 1}`, kind };
  });
  picked.value = id;
}
function removeEnd(): void {
  const id = picked.value;
  if (id === null || end.value === undefined) return;
  job.change(`${end.value.tag} removed`, (draft: Design) => {
    removeLoomEnd(draft, id);
    unpinUnused(draft);
  });
  picked.value = null;
}
function dropWire(id: Id): void {
  job.change(`Wire ${job.design.wires?.[id]?.tag ?? ''} removed`, (draft: Design) => {
    removeWire(draft, id);
    unpinUnused(draft);
  });
}
const read = ref<ReadWires | null>(null);
const files = ref<HTMLInputElement | null>(null);
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (file === undefined) return;
  const text = await file.text();
  // The design of now, whatever happened while the file was read.
  read.value = readWires(text, job.design);
}
function take(): void {
  const rows = read.value?.rows ?? [];
  job.change(`${rows.length} wires from a file`, (draft) => {
    const all = (draft.wires ??= {});
    for (const { id, tag, change } of rows) {
      const own = id === null ? undefined : all[id];
      if (own === undefined) all[newId('wire')] = { tag, state: 'provisional', ...change };
      else Object.assign(own, change);
    }
  });
  read.value = null;
}
const count = (isNew: boolean) => read.value?.rows.filter(({ id }) => (id === null) === isNew).length ?? 0;
const kinds = ['connector', 'splice', 'ground', 'fuse box', 'branch'] as const;
</script>

<template>
  <section class="sheet-card" aria-labelledby="looms-title" data-looms>
    <div class="card-head">
      <h2 id="looms-title">Looms</h2>
      <span v-if="wires > 0" class="hint">{{ sentence }}</span>
    </div>
    <p v-if="Object.keys(slices.ends).length === 0" class="panel-empty">
      No loom yet. Begin with a fuse box, then the connectors and grounds it leads to; bundles between them
      have lengths, and each wire finds its way through them.
    </p>
    <LoomView v-else :picked="picked" @pick="picked = $event" />
    <div class="chips" role="group" aria-label="Add an end">
      <BButton
        v-for="kind in kinds"
        :key="kind"
        size="sm"
        variant="light"
        :disabled="!job.editable"
        @click="addEnd(kind)"
      >
        Add {{ kind }}
      </BButton>
      <RemoveButton v-if="end" class="last" :name="end.tag" @remove="removeEnd" />
    </div>
    <FaceView v-if="picked !== null && end" :key="picked" :end-id="picked" @wire="wire = $event" />
  </section>
  <section class="sheet-card" aria-labelledby="wires-title" data-wires>
    <div class="card-head">
      <h2 id="wires-title">Pin by pin</h2>
      <div class="chips">
        <PrintSheet sheet="looms" text="Continuity sheet" :disabled="wires === 0" />
        <BButton
          size="sm"
          variant="light"
          :disabled="wires === 0"
          @click="saveCsv(job.name, 'continuity', continuityRows(lines))"
        >
          as CSV
        </BButton>
        <BButton
          size="sm"
          variant="light"
          :disabled="wires === 0"
          @click="saveCsv(job.name, 'wires', wireRows(slices))"
        >
          Wires, CSV out
        </BButton>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="files?.click()">CSV in</BButton>
        <input
          ref="files"
          type="file"
          accept=".csv,text/csv"
          class="visually-hidden"
          aria-label="Wires from a file"
          @change="takeFile"
        />
        <LabelButton v-if="wires > 0" what="wires" :labels="labels" />
      </div>
    </div>
    <div v-if="read" class="read" role="status" data-read>
      <p v-for="problem in read.problems.slice(0, 8)" :key="problem" class="problem">{{ problem }}</p>
      <p v-if="read.problems.length > 8" class="problem">and {{ read.problems.length - 8 }} more.</p>
      <b>{{ count(false) }} wires of the file are here already, {{ count(true) }} are new.</b>
      <BButton size="sm" variant="primary" :disabled="read.rows.length === 0 || !job.editable" @click="take">
        Take {{ read.rows.length }}
      </BButton>
      <BButton size="sm" variant="light" @click="read = null">Leave it</BButton>
    </div>
    <div class="chips tables" role="group" aria-label="Table">
      <button
        v-for="(name, one) in tables"
        :key="one"
        type="button"
        class="btn btn-sm"
        :class="table === one ? 'btn-primary' : 'btn-light'"
        :aria-pressed="table === one"
        @click="table = one"
      >
        {{ name }}
      </button>
    </div>
    <WireTable v-if="table === 'wires'" :picked="wire" @pick="wire = $event" @remove="dropWire" />
    <BundleTable v-else-if="table === 'bundles'" />
    <AdapterTable v-else-if="table === 'adapters'" />
    <ColourTable v-else />
    <WireFields v-if="table === 'wires' && wire !== null" :wire-id="wire" />
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
  align-items: center;
}

.last {
  margin-left: auto;
}

.tables {
  margin-bottom: 0.4rem;
}

.read {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem;
  align-items: center;
  padding: 0.4rem 0.6rem;
  margin-bottom: 0.4rem;
  border-left: 3px solid var(--tv-act);
  background: var(--tv-pick);
}

.problem {
  flex-basis: 100%;
  margin: 0;
}
</style>
