<script setup lang="ts">
import { ownBuses } from '@torvek/core/precharge';
import { computed, defineAsyncComponent } from 'vue';
import { useRoute } from 'vue-router';
import NextStrip from '../../parts/NextStrip.vue';
import PanelNav from '../../parts/PanelNav.vue';
import PartField from '../../parts/PartField.vue';
import { useJob } from '../../stores/job';
import CablePanel from './CablePanel.vue';
import CircuitTable from './CircuitTable.vue';
import ContactorPanel from './ContactorPanel.vue';
import FusePanel from './FusePanel.vue';
import PartChoice from './PartChoice.vue';
import { panels, protectPanelOf } from './panels';
import { useCircuit } from './use-circuit';

const PrechargePanel = defineAsyncComponent(() => import('./PrechargePanel.vue'));
const StartPanel = defineAsyncComponent(() => import('./StartPanel.vue'));
const MeasuredRise = defineAsyncComponent(() => import('./MeasuredRise.vue'));
const StringsPanel = defineAsyncComponent(() => import('./StringsPanel.vue'));
const LeadsPanel = defineAsyncComponent(() => import('./LeadsPanel.vue'));
const SensePanel = defineAsyncComponent(() => import('./SensePanel.vue'));
const JointsPanel = defineAsyncComponent(() => import('./JointsPanel.vue'));
const BusbarPanel = defineAsyncComponent(() => import('./BusbarPanel.vue'));
const BondPanel = defineAsyncComponent(() => import('./BondPanel.vue'));
const MarkingPanel = defineAsyncComponent(() => import('./MarkingPanel.vue'));
const DistancesPanel = defineAsyncComponent(() => import('./DistancesPanel.vue'));
const job = useJob();
const route = useRoute();
const { circuitId, circuit } = useCircuit();
const main = computed(() => circuit.value?.role === 'main');
const panel = computed(() => protectPanelOf(route.query));
/** A cable that goes through glands at both ends has no plug. */
const pluggable = computed(() => circuit.value?.ends !== 'gland' || circuit.value.plug !== undefined);
const fills = computed(() => main.value || ownBuses(job.design).includes(circuitId.value));
</script>

<template>
  <div class="protect">
    <NextStrip
      station="protect"
      purpose="Every circuit of the vehicle: contactors, pre-charge, fuse and cable, judged against each other and against the load; its joints, bonds and distances."
    />
    <PanelNav
      station="protect"
      label="Panels of Protect"
      :panels="panels"
      :open="panel"
      :keep="['circuit']"
    />
    <template v-if="panel === 'circuits'">
      <CircuitTable />
      <section class="sheet-card choices" :aria-label="`Chosen parts of ${circuit?.tag}`">
        <PartChoice kind="contactor" :label="main ? 'Main contactors' : 'Contactors'" rules="contactor." />
        <PartChoice kind="fuse" :label="main ? 'Main fuse' : 'Fuse'" rules="fuse." />
        <PartChoice kind="cable" :label="main ? 'Traction cable' : 'Cable'" rules="cable" />
        <PartChoice kind="lug" label="Lugs of the cable" rules="cable.lug" />
        <PartChoice kind="gland" label="Gland of the cable" rules="cable.gland" />
        <PartChoice v-if="pluggable" kind="plug" label="Plug of the cable" rules="plug." />
      </section>
      <FusePanel />
      <CablePanel />
      <ContactorPanel />
    </template>
    <template v-else-if="panel === 'start'">
      <CircuitTable />
      <section
        v-if="fills"
        class="sheet-card choices"
        :aria-label="`Chosen parts of ${circuit?.tag} for its start`"
      >
        <PartChoice kind="contactor" :label="main ? 'Main contactors' : 'Contactors'" rules="contactor." />
        <PartChoice
          kind="resistor"
          :label="main ? 'Pre-charge resistor' : 'Pre-charge resistor of its own'"
          rules="precharge."
        />
        <PartField
          :path="`circuits.${circuitId}.prechargeContactor`"
          kind="contactor"
          label="Pre-charge contactor"
          none="choose one"
        />
      </section>
      <PrechargePanel v-if="fills" />
      <p v-else class="sheet-card panel-empty">
        {{ circuit?.tag }} fills with the bus, or has nothing to fill: no pre-charge of its own is asked for.
        The main circuit has the bus.
      </p>
      <template v-if="main">
        <StartPanel />
        <MeasuredRise />
      </template>
    </template>
    <StringsPanel v-else-if="panel === 'strings'" />
    <template v-else-if="panel === 'leads'">
      <LeadsPanel />
      <SensePanel />
    </template>
    <template v-else-if="panel === 'joints'">
      <JointsPanel />
      <BusbarPanel />
    </template>
    <template v-else>
      <BondPanel />
      <MarkingPanel />
      <DistancesPanel />
    </template>
  </div>
</template>

<style scoped>
.protect {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 0.6rem;
}

.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(14rem, 1fr));
  gap: 0.8rem;
}
</style>
