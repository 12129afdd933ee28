<script setup lang="ts">
import type { RouteResult } from '@torvek/core/routing';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { defineAsyncComponent, ref, watch } from 'vue';
import { download, fileName } from '../../../parts/pdf';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import { useRuns } from '../use-runs';
import ClipList from './ClipList.vue';
import PointTable from './PointTable.vue';
import ProposedWays from './ProposedWays.vue';
import RouteView from './RouteView.vue';
import RunFields from './RunFields.vue';

/** Where cables run: two views to scale, the table they are drawn from, and what each run is. */
const SpaceView = defineAsyncComponent(() => import('../space/SpaceView.vue'));
const job = useJob();
const { runs, ids, runId, run, pick, add, remove } = useRuns();
const point = ref<number | null>(null);
const close = ref(false);
const space = ref(false);
watch(runId, () => (point.value = null));

/** Both views at full size, for whoever makes brackets or checks the frame. */
async function save(kind: 'svg' | 'dxf'): Promise<void> {
  const { viewsDxf, viewsOf, viewsSvg } = await import('../take/views');
  const clips = Object.fromEntries(
    ids.value.map((id) => {
      const made = job.evaluation.runs[`routing.run:${id}`]?.result as RouteResult | null | undefined;
      return [id, made?.clips.map(({ position }) => position) ?? []];
    }),
  );
  const views = viewsOf(job.design, clips, [
    `${job.name}, version ${job.version}, millimetres of the vehicle`,
    'As drawn: ends that are not fixed still move, and what is measured in place counts before it.',
  ]);
  const text = kind === 'svg' ? viewsSvg(views) : await viewsDxf(views);
  const type = kind === 'svg' ? 'image/svg+xml' : 'application/dxf';
  download(new Blob([text], { type }), fileName(job.name, 'routes', kind));
}
</script>

<template>
  <section class="sheet-card" aria-labelledby="runs-title" data-runs>
    <div class="card-head">
      <h2 id="runs-title">Runs</h2>
      <div class="chips" role="group" aria-label="Runs">
        <button
          v-for="id in ids"
          :key="id"
          type="button"
          class="btn btn-sm"
          :class="id === runId ? 'btn-primary' : 'btn-light'"
          :aria-pressed="id === runId"
          @click="pick(id)"
        >
          {{ runs[id]?.tag }}
        </button>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="add">New run</BButton>
      </div>
      <button
        v-if="run"
        type="button"
        class="btn btn-sm btn-quiet space"
        :aria-pressed="space"
        @click="space = !space"
      >
        {{ space ? 'Two views' : 'In 3D' }}
      </button>
      <button
        v-if="run && !space"
        type="button"
        class="btn btn-sm btn-quiet close"
        :aria-pressed="close"
        @click="close = !close"
      >
        {{ close ? 'Whole vehicle' : 'This run alone' }}
      </button>
      <template v-if="run && !space">
        <button type="button" class="btn btn-sm btn-quiet" @click="save('svg')">SVG</button>
        <button type="button" class="btn btn-sm btn-quiet" @click="save('dxf')">DXF</button>
      </template>
      <RemoveButton v-if="run" :name="run.tag" @remove="remove(runId)" />
    </div>
    <SpaceView v-if="space" :run-id="runId" />
    <template v-else>
      <RouteView
        side="plan"
        :run-id="runId"
        :point="point"
        :close="close"
        @pick="point = $event"
        @run="pick"
      />
      <RouteView
        side="side"
        :run-id="runId"
        :point="point"
        :close="close"
        @pick="point = $event"
        @run="pick"
      />
    </template>
    <p v-if="!run" class="panel-empty">
      No run yet. A run says where a cable leads: its length, drop, mass and bends follow, and a length that
      is typed for its circuit no longer counts.
    </p>
    <div v-else class="below">
      <div>
        <ProposedWays :key="runId" :run-id="runId" />
        <PointTable :run-id="runId" :point="point" @pick="point = $event" />
        <ClipList :run-id="runId" />
      </div>
      <RunFields :key="runId" :run-id="runId" />
    </div>
  </section>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 0.3rem;
}

.space {
  margin-left: auto;
}

.below {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr);
  gap: 1rem;
  margin-top: 0.5rem;
}

@media (max-width: 1100px) {
  .below {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
