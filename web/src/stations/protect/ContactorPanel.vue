<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { coilDefaults, coilOf, rankContactors, releaseMs, type ContactorPlace } from '@torvek/core/contactor';
import { startLowOf, suppressions, thermalCuts, type Suppression } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import RankedTable from './RankedTable.vue';
import { useCircuit } from './use-circuit';

/** The open circuit’s contactors: ranked for their place; pull-in when the 12 V is low; how fast each suppression lets go. */
const job = useJob();
const shelf = useLibrary();
const { circuitId, circuit, at } = useCircuit();
const contactor = computed(() => {
  const part = job.design.parts[circuit.value?.contactor ?? ''];
  return part?.kind === 'contactor' ? part : null;
});
/** A heater is taken off the bus when it gets too hot: by its own contacts, or by the coils of these. */
const heater = computed(() => {
  const id = circuit.value?.device;
  return id !== undefined && job.design.devices[id]?.kind === 'heater' ? id : null;
});
const coil = computed(() => (contactor.value === null ? null : coilOf(contactor.value.data)));
const clampV = computed(() => circuit.value?.clampV ?? coilDefaults.clampV);
const chosen = computed<Suppression>(() => circuit.value?.suppression ?? coilDefaults.suppression);
const words: Record<Suppression, string> = {
  diode: 'plain diode',
  'diode-zener': 'diode and zener',
  tvs: 'TVS',
  none: 'nothing',
};
const releases = computed(() => {
  const own = coil.value;
  if (own === null || !(clampV.value > 0)) return [];
  const times = suppressions
    .filter((one) => one !== 'none')
    .map((one) => ({ one, timeMs: releaseMs(own, one, clampV.value) }));
  const most = Math.max(...times.map(({ timeMs }) => timeMs));
  return times.map((line) => ({
    ...line,
    mechanical: (own.openMs / most) * 100,
    electrical: ((line.timeMs - own.openMs) / most) * 100,
  }));
});
const ranked = computed(() => {
  const place = job.evaluation.runs[`contactor.main:${circuitId.value}`]?.input as ContactorPlace | undefined;
  return place === undefined ? [] : rankContactors(shelf.library.of('contactor'), place);
});
const figure = (name: FigureName<'contactor.coil'>) => figureId('contactor.coil', circuitId.value, name);
/** What holds where the lowest supply is not given: three quarters of the nominal. */
const lowest = computed(() => {
  const { startLowV: _given, ...rest } = job.design.settings;
  return startLowOf(rest);
});
</script>

<template>
  <section class="sheet-card" aria-labelledby="coil-title">
    <div class="card-head">
      <h2 id="coil-title">Contactors and coils of {{ circuit?.tag }}</h2>
      <span class="hint"
        >voltage, load, inrush and fuse rank them; coils pull in when a start pulls the 12 V down, and let
        go</span
      >
    </div>
    <ChoiceField
      v-if="heater !== null"
      class="cut"
      :path="`devices.${heater}.thermalCut`"
      :label="`Thermal cut-out of ${job.design.devices[heater]?.tag ?? ''}`"
      :options="thermalCuts.map((value) => ({ value, text: value }))"
      none="not given"
    />
    <p v-if="contactor === null" class="panel-empty">This circuit has no contactors.</p>
    <p v-else-if="coil === null" class="panel-empty">
      {{ contactor.label }} has no data of its coil: the library takes resistance, inductance, pull-in and
      drop-out.
    </p>
    <div v-else class="panel-split">
      <div>
        <table class="grid-table" data-releases>
          <thead>
            <tr>
              <th scope="col">Suppression</th>
              <th scope="col" class="num">opens after</th>
              <th scope="col">
                <span class="key mechanical"></span> contacts <span class="key electrical"></span> coil
                current
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in releases" :key="line.one" :class="{ picked: line.one === chosen }">
              <td>{{ words[line.one] }}{{ line.one === 'diode' ? '' : `, ${formatNumber(clampV)} V` }}</td>
              <td class="num">{{ formatNumber(line.timeMs) }} ms</td>
              <td class="bars">
                <span class="mechanical" :style="{ width: `${line.mechanical}%` }"></span
                ><span class="electrical" :style="{ width: `${line.electrical}%` }"></span>
              </td>
            </tr>
          </tbody>
        </table>
        <div class="figure-row">
          <FigureValue :id="figure('pullInV')" show-label />
          <FigureValue :id="figure('releaseMs')" show-label />
          <FigureValue :id="figure('holdW')" show-label />
        </div>
      </div>
      <div>
        <ChoiceField
          :path="`${at}.suppression`"
          label="Suppression"
          :options="suppressions.map((value) => ({ value, text: words[value] }))"
          none="plain diode, default"
        />
        <NumberField :path="`${at}.clampV`" />
        <ChoiceField
          path="settings.supplyV"
          label="Low-voltage supply"
          :options="[12, 24].map((value) => ({ value, text: `${value} V` }))"
          none="12 V, default"
        />
        <NumberField path="settings.startLowV" :fallback="lowest" />
        <NumberField path="settings.coilC" />
        <NumberField path="settings.driverV" />
      </div>
    </div>
    <RankedTable
      kind="contactor"
      title="Contactors, ranked"
      plural="contactors"
      :ranked="ranked"
      :chosen="circuit?.contactor"
    />
  </section>
</template>

<style scoped>
.bars {
  width: 46%;
}

.bars span {
  display: inline-block;
  height: 0.8rem;
  vertical-align: middle;
}

.mechanical {
  background: var(--tv-grey-fill);
}

.electrical {
  background: var(--tv-lowvolt);
}

.key {
  display: inline-block;
  width: 0.8rem;
  height: 0.8rem;
  margin: 0 0.2rem 0 0.5rem;
}
</style>
