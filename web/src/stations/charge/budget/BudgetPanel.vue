<script setup lang="ts">
import { feedGroups, fedV, lowVoltageSystem } from '@torvek/core/low-voltage';
import { lowVoltageSchools } from '@torvek/core/document';
import { figureId, type FigureName } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import PickMany from '../../../parts/PickMany.vue';
import { useJob } from '../../../stores/job';
import BranchStrip from '../BranchStrip.vue';
import { yesNo } from '../use-supplies';
import { schoolsOf } from './schools';
import LoadTable from './LoadTable.vue';
import ModeBars from './ModeBars.vue';

/** The low voltage: what draws in each mode, what feeds it, and how long a battery alone carries it. */
const job = useJob();
const fig = (name: FigureName<'low-voltage.budget'>) => figureId('low-voltage.budget', 'vehicle', name);
const coils = (name: FigureName<'low-voltage.coils'>) => figureId('low-voltage.coils', 'vehicle', name);
const source = (name: FigureName<'low-voltage.source'>) => figureId('low-voltage.source', 'vehicle', name);
const loads = computed(() => Object.entries(job.design.loads ?? {}).map(([id, { tag }]) => ({ id, tag })));
const begun = computed(
  () => job.design.lowVoltage !== undefined || Object.keys(job.design.loads ?? {}).length > 0,
);
const begin = () => job.change('Low voltage begun', (draft) => void (draft.lowVoltage ??= {}));
const slices = computed(() => ({
  lowVoltage: job.design.lowVoltage ?? {},
  parts: job.design.parts,
  settings: job.design.settings,
}));
const system = computed(() => lowVoltageSystem(slices.value));
const schools = computed(() => schoolsOf(job.design));
const groups = computed(() => feedGroups({ ...slices.value, loads: job.design.loads ?? {} }).slice(0, 6));
const n = (value: number | null | undefined, digits = 3) =>
  value === null || value === undefined ? '—' : formatNumber(value, digits);
const names = (ids: readonly string[]) => ids.map((id) => job.design.loads?.[id]?.tag ?? id).join(', ');
const or = (value: number | null) => value ?? undefined;
</script>

<template>
  <section class="sheet-card" aria-labelledby="budget-title" data-budget>
    <div class="card-head">
      <h2 id="budget-title">Low voltage</h2>
      <span class="hint">{{ n(system.nominalV) }} V, {{ n(fedV(system)) }} V while it is fed</span>
    </div>
    <template v-if="!begun">
      <p class="panel-empty">
        Nothing is said of the low voltage yet: lamps, wipers, coils and pumps live on it. A converter on the
        pack takes the generator’s place, or a charger on the mains fills a battery that carries every
        journey.
      </p>
      <BButton size="sm" variant="primary" :disabled="!job.editable" @click="begin">Begin</BButton>
    </template>
    <template v-else>
      <ModeBars />
      <div class="figures">
        <FigureValue :id="fig('peakA')" label="Largest peak" show-label />
        <FigureValue :id="fig('marginA')" label="Converter over its loads" show-label />
        <FigureValue :id="fig('hoursOnBatteryDriving')" label="Driving on the battery" show-label />
        <FigureValue :id="fig('hoursEssentialOnly')" label="Essential loads alone" show-label />
        <FigureValue :id="fig('daysParked')" label="Parked until flat" show-label />
      </div>
      <div class="fields">
        <ChoiceField
          path="lowVoltage.school"
          label="Fed by"
          :options="lowVoltageSchools.map((value) => ({ value, text: value }))"
          none="not decided"
        />
        <ChoiceField
          path="lowVoltage.dropper"
          label="Coils behind a dropper"
          :options="yesNo"
          none="no (default)"
        />
        <PartField path="lowVoltage.converter" kind="converter" label="Converter" none="not chosen" />
        <PartField path="lowVoltage.battery" kind="battery" label="Battery" none="not chosen" />
        <NumberField path="lowVoltage.converterA" :fallback="or(system.converterA)" />
        <NumberField path="lowVoltage.batteryAh" :fallback="or(system.batteryAh)" />
        <NumberField
          path="lowVoltage.usableFraction"
          :fallback="system.usableFraction === null ? 50 : system.usableFraction * 100"
        />
        <NumberField path="lowVoltage.systemV" :fallback="fedV(system)" />
        <NumberField path="lowVoltage.deratingFraction" />
        <NumberField path="lowVoltage.mainsChargerA" />
        <NumberField path="lowVoltage.sourceAreaMm2" />
        <NumberField path="lowVoltage.sourceLengthM" />
        <NumberField path="lowVoltage.sourceFuseA" />
        <NumberField path="lowVoltage.batteryFuseA" />
        <NumberField path="lowVoltage.journeyH" />
        <NumberField path="lowVoltage.parkedDays" />
        <NumberField path="lowVoltage.maxDropFraction" />
        <NumberField path="lowVoltage.ambientC" />
      </div>
      <div class="coils">
        <PickMany
          path="lowVoltage.coilLoads"
          :things="loads"
          label="Coils fed as"
          none="No load feeds the coils of the contactors yet."
          ask="which loads"
          change="what feeds the coils"
        />
        <FigureValue :id="source('dropV')" label="Lost, source to battery" show-label />
        <FigureValue :id="coils('drivingW')" label="Held while driving" show-label />
        <FigureValue :id="coils('chargingW')" label="Held while charging" show-label />
      </div>
      <BranchStrip kind="dc-dc" />
    </template>
  </section>
  <section v-if="schools" class="sheet-card" aria-labelledby="schools-title" data-schools>
    <div class="card-head">
      <h2 id="schools-title">Converter, or a battery that the mains fills</h2>
      <span class="hint">the same loads, both ways</span>
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">school</th>
          <th scope="col" class="num">needed</th>
          <th scope="col" class="num">night rain on the battery</th>
          <th scope="col" class="num">essential alone</th>
          <th scope="col" class="num">parked</th>
          <th scope="col">so</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in schools" :key="row.school" :data-school="row.school">
          <th scope="row">{{ row.school }}</th>
          <td class="num">{{ row.needed }}</td>
          <td class="num">{{ n(row.hours) }} h</td>
          <td class="num">{{ n(row.essentialHours) }} h</td>
          <td class="num">{{ n(row.days) }} days</td>
          <td>{{ row.verdict }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">
      Hours are of usable capacity over current; at a high rate and in the cold a lead battery yields less.
    </p>
  </section>
  <section class="sheet-card" aria-labelledby="loads-title" data-loads>
    <div class="card-head">
      <h2 id="loads-title">Loads, wires and fuses</h2>
      <span class="hint"
        >wire and fuse follow from current, length and ambient; what is chosen is judged</span
      >
    </div>
    <LoadTable />
  </section>
  <section v-if="groups.length > 0" class="sheet-card" aria-labelledby="groups-title" data-groups>
    <div class="card-head">
      <h2 id="groups-title">What could share a wire</h2>
      <span class="hint">loads of one place; those of one switch share the feed too</span>
    </div>
    <table class="grid-table">
      <thead>
        <tr>
          <th scope="col">shared</th>
          <th scope="col">place, switch</th>
          <th scope="col">loads: they fail together then</th>
          <th scope="col" class="num">sum, A</th>
          <th scope="col" class="num">wire, mm²</th>
          <th scope="col" class="num">spared, m</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="group in groups" :key="`${group.what} ${group.place} ${group.switchedBy}`">
          <th scope="row">{{ group.what }}</th>
          <td>{{ group.place }}{{ group.switchedBy === null ? '' : `, ${group.switchedBy}` }}</td>
          <td>{{ names(group.loads) }}</td>
          <td class="num">{{ n(group.currentA) }}</td>
          <td class="num">{{ n(group.areaMm2) }}</td>
          <td class="num">{{ n(group.savedM) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.figures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9rem, 1fr));
  gap: 0.4rem 1rem;
  margin: 0.5rem 0;
}

.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
  align-items: end;
}

.coils {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 1.6rem;
  align-items: end;
  margin-top: 0.4rem;
}
</style>
