<script setup lang="ts">
import NextStrip from '../../parts/NextStrip.vue';
import CablePanel from './CablePanel.vue';
import FusePanel from './FusePanel.vue';
import PartChoice from './PartChoice.vue';
import PrechargePanel from './PrechargePanel.vue';
</script>

<template>
  <div class="protect">
    <NextStrip
      station="protect"
      purpose="The main circuit between pack and bus: contactors, pre-charge, fuse and cable, judged against each other and against the load."
    />
    <section class="sheet-card choices" aria-label="Chosen parts of the main circuit">
      <PartChoice kind="contactor" label="Main contactors" rules="contactor." />
      <PartChoice kind="resistor" label="Pre-charge resistor" rules="precharge." />
      <PartChoice kind="fuse" label="Main fuse" rules="fuse." />
      <PartChoice kind="cable" label="Traction cable" rules="cable." />
    </section>
    <PrechargePanel />
    <FusePanel />
    <CablePanel />
  </div>
</template>

<style scoped>
.protect {
  display: grid;
  gap: 0.6rem;
}

.choices {
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 0.8rem;
}

@media (max-width: 900px) {
  .choices {
    grid-template-columns: 1fr 1fr;
  }
}
</style>
