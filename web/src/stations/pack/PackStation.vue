<script setup lang="ts">
import FigureValue from '../../parts/FigureValue.vue';
import NextStrip from '../../parts/NextStrip.vue';
import NumberField from '../../parts/NumberField.vue';
import BoxTable from './BoxTable.vue';
import DeviceTable from './DeviceTable.vue';
import PackShape from './PackShape.vue';
import VoltagePlot from './VoltagePlot.vue';

const figures = [
  'voltageNominalV',
  'capacityAh',
  'energyKWh',
  'usableEnergyKWh',
  'resistanceOhm',
  'sagAtPeakV',
  'cellVoltageAtPeakV',
  'shortCircuitCurrentA',
  'massKg',
].map((name) => `pack.pack:pack:${name}`);
</script>

<template>
  <div class="pack">
    <NextStrip
      station="pack"
      purpose="The pack: which modules, how many in series and in strings, how far they are used, and what hangs on the bus."
    />
    <section class="sheet-card top">
      <div class="fields">
        <div class="card-head"><h2>Pack</h2></div>
        <PackShape />
        <NumberField path="pack.socLowFraction" label="Used from" unit="%" :scale="0.01" />
        <NumberField path="pack.socHighFraction" label="to" unit="%" :scale="0.01" />
        <NumberField path="pack.peakCurrentA" label="Peak current" unit="A" />
        <NumberField
          path="pack.socForPeakFraction"
          label="Peak judged at"
          unit="%"
          :scale="0.01"
          :fallback="50"
        />
        <NumberField
          path="pack.linkResistanceOhm"
          label="All links together"
          unit="mΩ"
          :scale="0.001"
          :fallback="0"
        />
      </div>
      <VoltagePlot />
    </section>
    <section class="sheet-card figures" aria-label="Pack figures">
      <FigureValue v-for="id in figures" :id="id" :key="id" show-label />
    </section>
    <section class="sheet-card">
      <div class="card-head">
        <h2>Devices on the bus</h2>
        <span class="hint">behind the main contactors</span>
      </div>
      <DeviceTable />
    </section>
    <section class="sheet-card">
      <div class="card-head"><h2>Boxes and modules</h2></div>
      <BoxTable />
    </section>
  </div>
</template>

<style scoped>
.pack {
  display: grid;
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
