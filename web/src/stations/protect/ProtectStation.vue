<script setup lang="ts">
import { computed } from 'vue';
import NextStrip from '../../parts/NextStrip.vue';
import BusbarPanel from './BusbarPanel.vue';
import CablePanel from './CablePanel.vue';
import CircuitTable from './CircuitTable.vue';
import CoilPanel from './CoilPanel.vue';
import DistancesPanel from './DistancesPanel.vue';
import FusePanel from './FusePanel.vue';
import MeasuredRise from './MeasuredRise.vue';
import PartChoice from './PartChoice.vue';
import PrechargePanel from './PrechargePanel.vue';
import StartPanel from './StartPanel.vue';
import StringsPanel from './StringsPanel.vue';
import { useCircuit } from './use-circuit';

const { circuit } = useCircuit();
const main = computed(() => circuit.value?.role === 'main');
</script>

<template>
  <div class="protect">
    <NextStrip
      station="protect"
      purpose="Every circuit of the vehicle: contactors, pre-charge, fuse and cable, judged against each other and against the load."
    />
    <CircuitTable />
    <section class="sheet-card choices" :aria-label="`Chosen parts of ${circuit?.tag}`">
      <PartChoice kind="contactor" :label="main ? 'Main contactors' : 'Contactors'" rules="contactor." />
      <PartChoice v-if="main" kind="resistor" label="Pre-charge resistor" rules="precharge." />
      <PartChoice kind="fuse" :label="main ? 'Main fuse' : 'Fuse'" rules="fuse." />
      <PartChoice kind="cable" :label="main ? 'Traction cable' : 'Cable'" rules="cable" />
      <PartChoice kind="lug" label="Lugs of the cable" rules="cable.lug" />
      <PartChoice kind="gland" label="Gland of the cable" rules="cable.gland" />
    </section>
    <template v-if="main">
      <PrechargePanel />
      <StartPanel />
      <MeasuredRise />
    </template>
    <StringsPanel v-if="main" />
    <CoilPanel />
    <FusePanel />
    <CablePanel />
    <DistancesPanel />
    <BusbarPanel />
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
