<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { lowVoltageW, massBlocks } from '@torvek/core/vehicle';
import { computed, ref } from 'vue';
import FigureValue from '../../parts/FigureValue.vue';
import NextStrip from '../../parts/NextStrip.vue';
import NumberField from '../../parts/NumberField.vue';
import TextField from '../../parts/TextField.vue';
import { useJob } from '../../stores/job';
import DriveCyclePanel from './DriveCyclePanel.vue';
import MassTable from './MassTable.vue';
import RangePlot from './RangePlot.vue';
import SideView from './SideView.vue';

const job = useJob();
/** What the low voltage takes, where nothing is typed for it. */
const lowVoltage = computed(() => job.figure(lowVoltageW)?.value ?? undefined);
const picked = ref<string | null>(null);
const numbers = computed(() => new Map(massBlocks(job.design).blocks.map(({ id }, i) => [id, i + 1])));
const axle = (name: FigureName<'vehicle.axles'>) => figureId('vehicle.axles', 'vehicle', name);
const massPath = 'vehicle.masses:vehicle:' as const;
</script>

<template>
  <div class="brief">
    <NextStrip
      station="brief"
      purpose="The brief says what the vehicle is and must do. Masses and axle loads follow from it, and the range once there is a pack."
    />
    <section class="sheet-card view">
      <SideView :picked="picked" :numbers="numbers" @pick="picked = $event" />
      <table class="grid-table loads">
        <thead>
          <tr>
            <th scope="col">Axle loads</th>
            <th scope="col" class="num">front</th>
            <th scope="col" class="num">rear</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">before, kg</th>
            <td class="num">
              <NumberField path="vehicle.frontKg" bare />
            </td>
            <td class="num">
              <NumberField path="vehicle.rearKg" bare />
            </td>
          </tr>
          <tr>
            <th scope="row">after</th>
            <td class="num"><FigureValue :id="axle('frontKg')" :digits="4" /></td>
            <td class="num"><FigureValue :id="axle('rearKg')" :digits="4" /></td>
          </tr>
          <tr>
            <th scope="row">limit, kg</th>
            <td class="num">
              <NumberField path="vehicle.frontLimitKg" bare />
            </td>
            <td class="num">
              <NumberField path="vehicle.rearLimitKg" bare />
            </td>
          </tr>
          <tr>
            <th scope="row">front share</th>
            <td colspan="2" class="num">
              <FigureValue :id="axle('originalFrontFraction')" /> →
              <FigureValue :id="axle('frontFraction')" />
            </td>
          </tr>
          <tr>
            <th scope="row">shift</th>
            <td colspan="2" class="num"><FigureValue :id="axle('shiftPoints')" /></td>
          </tr>
          <tr>
            <th scope="row">out</th>
            <td colspan="2" class="num"><FigureValue :id="`${massPath}outKg`" /></td>
          </tr>
          <tr>
            <th scope="row">in, with boxes</th>
            <td colspan="2" class="num"><FigureValue :id="`${massPath}inKg`" /></td>
          </tr>
          <tr>
            <th scope="row">mass after</th>
            <td colspan="2" class="num"><FigureValue :id="axle('totalKg')" :digits="4" /></td>
          </tr>
        </tbody>
      </table>
    </section>
    <section class="sheet-card">
      <div class="card-head"><h2>Masses taken out and put in</h2></div>
      <MassTable :picked="picked" :numbers="numbers" @pick="picked = $event" />
    </section>
    <div class="two">
      <section class="sheet-card">
        <div class="card-head"><h2>Vehicle</h2></div>
        <TextField path="vehicle.make" label="Make" />
        <TextField path="vehicle.model" label="Model" />
        <NumberField path="vehicle.year" />
        <NumberField path="vehicle.wheelbaseM" />
        <NumberField path="vehicle.lengthM" />
        <NumberField path="vehicle.frontOverhangM" />
        <NumberField path="vehicle.heightM" />
        <NumberField path="vehicle.wheelDiameterM" />
        <NumberField path="vehicle.clearanceM" />
        <NumberField path="vehicle.grossLimitKg" />
      </section>
      <section class="sheet-card">
        <div class="card-head">
          <h2>Range, two schools</h2>
          <span class="hint">the mass rule for the first hour, road load once the car is known</span>
        </div>
        <div class="schools">
          <FigureValue id="vehicle.range:mass-rule:rangeKm" label="range, mass rule" show-label />
          <FigureValue id="vehicle.range:mass-rule:whPerKm" label="per km, mass rule" show-label />
          <FigureValue id="vehicle.range:road-load:rangeKm" label="range, road load" show-label />
          <FigureValue id="vehicle.range:road-load:whPerKm" label="per km, road load" show-label />
          <template v-if="job.figure('vehicle.winter:vehicle:rangeKm') !== undefined">
            <FigureValue id="vehicle.winter:vehicle:rangeKm" label="range, coldest day" show-label />
            <FigureValue id="vehicle.winter:vehicle:whPerKm" label="per km, coldest day" show-label />
          </template>
        </div>
        <RangePlot />
        <div class="fields">
          <NumberField path="vehicle.wantedRangeKm" />
          <NumberField path="vehicle.whPerKmPerKg" />
          <NumberField path="vehicle.speedKmH" />
          <NumberField path="vehicle.rollingCoefficient" />
          <NumberField path="vehicle.dragAreaM2" />
          <NumberField path="vehicle.drivetrainEfficiency" />
          <NumberField path="vehicle.accessoriesW" :fallback="lowVoltage" />
          <NumberField path="vehicle.gradeFraction" />
          <NumberField path="vehicle.cabinHeatW" />
        </div>
      </section>
    </div>
    <DriveCyclePanel />
  </div>
</template>

<style scoped>
.brief {
  display: grid;
  gap: 0.6rem;
}

.view {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 262px;
  gap: 0.8rem;
  align-items: center;
}

.loads .num {
  width: 5.2rem;
}

.loads th[scope='row'] {
  border-bottom: 1px solid var(--tv-line);
}

.loads td {
  height: 2rem;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 19rem) minmax(0, 1fr);
  gap: 0.6rem;
  align-items: start;
}

/* A column for each way to say it: how far, and on what. */
.schools {
  display: grid;
  grid-auto-flow: column;
  grid-template-rows: auto auto;
  grid-auto-columns: minmax(0, 1fr);
  gap: 0.2rem 1rem;
  margin-bottom: 0.4rem;
}

.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 1.2rem;
  margin-top: 0.5rem;
}

@media (max-width: 1100px) {
  .view,
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
