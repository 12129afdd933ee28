<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import FigureValue from '../../parts/FigureValue.vue';
import NextStrip from '../../parts/NextStrip.vue';
import NumberField from '../../parts/NumberField.vue';
import PanelNav from '../../parts/PanelNav.vue';
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import BoxFacts from './BoxFacts.vue';
import BoxLifting from './BoxLifting.vue';
import BoxTable from './BoxTable.vue';
import LinksOut from './LinksOut.vue';
import DeviceTable from './DeviceTable.vue';
import PackShape from './PackShape.vue';
import StringsTable from './StringsTable.vue';
import { packPanelOf, panels } from './panels';
import VoltagePlot from './VoltagePlot.vue';
import { useJob } from '../../stores/job';

const ArrangePanel = defineAsyncComponent(() => import('./arrange/ArrangePanel.vue'));
const MatchPanel = defineAsyncComponent(() => import('./match/MatchPanel.vue'));
const BalancePanel = defineAsyncComponent(() => import('./balance/BalancePanel.vue'));
const IntoStringPanel = defineAsyncComponent(() => import('./match/IntoStringPanel.vue'));
const GroupPanel = defineAsyncComponent(() => import('./match/GroupPanel.vue'));
const PostsPanel = defineAsyncComponent(() => import('./arrange/PostsPanel.vue'));
const StockPanel = defineAsyncComponent(() => import('./stock/StockPanel.vue'));
const IntakePanel = defineAsyncComponent(() => import('./intake/IntakePanel.vue'));
const job = useJob();
const route = useRoute();
const panel = computed(() => packPanelOf(route.query));

const names: FigureName<'pack.pack'>[] = [
  'voltageNominalV',
  'capacityAh',
  'energyKWh',
  'usableEnergyKWh',
  'resistanceOhm',
  'sagAtPeakV',
  'cellVoltageAtPeakV',
  'shortCircuitCurrentA',
  'massKg',
];
const figures = names.map((name) => figureId('pack.pack', 'pack', name));
</script>

<template>
  <div class="pack">
    <NextStrip
      station="pack"
      purpose="The pack: which modules, how many in series and in strings, how far they are used, and what hangs on the bus."
    />
    <PanelNav station="pack" label="Panels of Pack" :panels="panels" :open="panel" />
    <template v-if="panel === 'pack'">
      <section class="sheet-card top">
        <div class="fields">
          <div class="card-head"><h2>Pack</h2></div>
          <PackShape />
          <NumberField path="pack.socLowFraction" />
          <NumberField path="pack.socHighFraction" label="to" />
          <NumberField path="pack.peakCurrentA" />
          <NumberField path="pack.socForPeakFraction" />
          <NumberField path="pack.chargeA" />
          <NumberField path="pack.regenPeakA" />
          <NumberField path="pack.linkResistanceOhm" />
        </div>
        <VoltagePlot />
      </section>
      <section class="sheet-card figures" aria-label="Pack figures">
        <FigureValue v-for="id in figures" :id="id" :key="id" show-label />
      </section>
      <section v-if="Object.keys(job.design.strings).length > 1" class="sheet-card">
        <div class="card-head">
          <h2>Strings</h2>
          <span class="hint">each by itself; strings that differ must not be joined</span>
        </div>
        <StringsTable />
      </section>
      <section class="sheet-card">
        <div class="card-head">
          <h2>Devices on the bus</h2>
          <span class="hint">how each is connected stands in Network</span>
        </div>
        <DeviceTable />
      </section>
    </template>
    <template v-else-if="panel === 'arrange'">
      <ArrangePanel />
      <section class="sheet-card">
        <div class="card-head">
          <h2>Boxes</h2>
          <span class="hint">middle of each in the vehicle frame, outer sizes</span>
        </div>
        <BoxTable />
      </section>
      <section class="sheet-card">
        <div class="card-head">
          <h2>How they are built</h2>
          <span class="hint">anchors against the g-load, access, vents, link pitch</span>
        </div>
        <BoxFacts />
      </section>
      <section class="sheet-card">
        <div class="card-head">
          <h2>Shelves and lifting</h2>
          <span class="hint"
            >of several slings two are counted to bear; they lean by 45° from the upright where nothing is
            said</span
          >
        </div>
        <BoxLifting />
      </section>
      <PostsPanel />
    </template>
    <StockPanel v-else-if="panel === 'stock'" />
    <IntakePanel v-else-if="panel === 'intake'" />
    <template v-else-if="panel === 'match'">
      <IntoStringPanel />
      <MatchPanel />
      <GroupPanel />
    </template>
    <BalancePanel v-else-if="panel === 'balance'" />
    <LinksOut v-else />
  </div>
</template>

<style scoped>
.pack {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}

.top {
  display: grid;
  grid-template-columns: 276px minmax(0, 1fr);
  gap: 1rem;
}

.fields :deep(.number-field) {
  grid-template-columns: minmax(0, 1fr) 8.2rem;
}

.figures {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(8.4rem, 1fr));
  gap: 0.5rem 0.8rem;
}

@media (max-width: 1100px) {
  .top {
    grid-template-columns: 1fr;
  }
}
</style>
