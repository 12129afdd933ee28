<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import PanelNav from '../../parts/PanelNav.vue';
import { panels, sensePanelOf } from './panels';

const TopologyPanel = defineAsyncComponent(() => import('./topology/TopologyPanel.vue'));
const MapPanel = defineAsyncComponent(() => import('./map/MapPanel.vue'));
const HarnessPanel = defineAsyncComponent(() => import('./harness/HarnessPanel.vue'));
const LadderPanel = defineAsyncComponent(() => import('./ladder/LadderPanel.vue'));
const PowerPanel = defineAsyncComponent(() => import('./power/PowerPanel.vue'));
const LimitsPanel = defineAsyncComponent(() => import('./limits/LimitsPanel.vue'));
const route = useRoute();
const panel = computed(() => sensePanelOf(route.query));
</script>

<template>
  <div class="sense">
    <NextStrip
      station="sense"
      purpose="Every cell watched: which board reads it, the wire that leads there, and the ladder that proves it before anything is plugged in."
    />
    <PanelNav
      station="sense"
      label="Panels of Sense"
      :panels="panels"
      :open="panel"
      :keep="['string', 'board']"
    />
    <TopologyPanel v-if="panel === 'topology'" />
    <MapPanel v-else-if="panel === 'map'" />
    <HarnessPanel v-else-if="panel === 'harness'" />
    <LadderPanel v-else-if="panel === 'ladder'" />
    <LimitsPanel v-else-if="panel === 'limits'" />
    <PowerPanel v-else />
  </div>
</template>

<style scoped>
.sense {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
</style>
