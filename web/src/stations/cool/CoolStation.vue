<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import PanelNav from '../../parts/PanelNav.vue';
import { coolPanelOf, panels } from './panels';

const LoopsPanel = defineAsyncComponent(() => import('./loops/LoopsPanel.vue'));
const WorstPanel = defineAsyncComponent(() => import('./worst/WorstPanel.vue'));
const TimePanel = defineAsyncComponent(() => import('./time/TimePanel.vue'));
const ColdPanel = defineAsyncComponent(() => import('./cold/ColdPanel.vue'));
const FillPanel = defineAsyncComponent(() => import('./fill/FillPanel.vue'));
const route = useRoute();
const panel = computed(() => coolPanelOf(route.query));
</script>

<template>
  <div class="cool">
    <NextStrip
      station="cool"
      purpose="How the pack and the drive keep their temperature: what each plate gets, how hot and how cold it becomes, and that nothing leaks."
    />
    <PanelNav station="cool" label="Panels of Cool" :panels="panels" :open="panel" :keep="['loop']" />
    <LoopsPanel v-if="panel === 'loops'" />
    <WorstPanel v-else-if="panel === 'worst'" />
    <TimePanel v-else-if="panel === 'time'" />
    <ColdPanel v-else-if="panel === 'cold'" />
    <FillPanel v-else />
  </div>
</template>

<style scoped>
.cool {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
</style>
