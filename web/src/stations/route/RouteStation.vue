<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import PanelNav from '../../parts/PanelNav.vue';
import { panels, routePanelOf } from './panels';

const RunsPanel = defineAsyncComponent(() => import('./runs/RunsPanel.vue'));
const LinesPanel = defineAsyncComponent(() => import('./lines/LinesPanel.vue'));
const WallsPanel = defineAsyncComponent(() => import('./walls/WallsPanel.vue'));
const CardPanel = defineAsyncComponent(() => import('./card/CardPanel.vue'));
const CutPanel = defineAsyncComponent(() => import('./cuts/CutPanel.vue'));
const route = useRoute();
const panel = computed(() => routePanelOf(route.query));
</script>

<template>
  <div class="route">
    <NextStrip
      station="route"
      purpose="Where cables and conduits run: what they stay away from, how they are bent, and what is cut from which reel."
    />
    <PanelNav station="route" label="Panels of Route" :panels="panels" :open="panel" :keep="['run']" />
    <RunsPanel v-if="panel === 'runs'" />
    <LinesPanel v-else-if="panel === 'lines'" />
    <WallsPanel v-else-if="panel === 'walls'" />
    <CardPanel v-else-if="panel === 'card'" />
    <CutPanel v-else />
  </div>
</template>

<style scoped>
.route {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
</style>
