<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import PanelNav from '../../parts/PanelNav.vue';
import { chargePanelOf, panels } from './panels';

const AcPanel = defineAsyncComponent(() => import('./ac/AcPanel.vue'));
const DcPanel = defineAsyncComponent(() => import('./dc/DcPanel.vue'));
const TimePanel = defineAsyncComponent(() => import('./time/TimePanel.vue'));
const LadderPanel = defineAsyncComponent(() => import('./ladder/LadderPanel.vue'));
const BudgetPanel = defineAsyncComponent(() => import('./budget/BudgetPanel.vue'));
const ServicesPanel = defineAsyncComponent(() => import('./services/ServicesPanel.vue'));
const LoomsPanel = defineAsyncComponent(() => import('./looms/LoomsPanel.vue'));
const route = useRoute();
const panel = computed(() => chargePanelOf(route.query));
</script>

<template>
  <div class="charge">
    <NextStrip
      station="charge"
      purpose="From the socket to the cells: what limits the charge and what ends it, and a low voltage that lasts the night."
    />
    <PanelNav station="charge" label="Panels of Charge" :panels="panels" :open="panel" :keep="['supply']" />
    <AcPanel v-if="panel === 'ac'" />
    <DcPanel v-else-if="panel === 'dc'" />
    <TimePanel v-else-if="panel === 'time'" />
    <LadderPanel v-else-if="panel === 'ladder'" />
    <BudgetPanel v-else-if="panel === 'budget'" />
    <ServicesPanel v-else-if="panel === 'services'" />
    <LoomsPanel v-else />
  </div>
</template>

<style scoped>
.charge {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}
</style>
