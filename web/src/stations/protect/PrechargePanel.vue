<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import {
  busDevices,
  busOf,
  pathOf,
  resistorDuty,
  startsAMinute,
  type PrechargeChooseInput,
  type PrechargeChooseResult,
} from '@torvek/core/precharge';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import PrechargeRise from './PrechargeRise.vue';
import TakeButton from './TakeButton.vue';
import { useCircuit } from './use-circuit';
import { usePrecharge } from './use-precharge';

/** Pre-charge: the rise, what it asks of the resistor, and the ranked resistors. */
const job = useJob();
const shelf = useLibrary();
const { circuitId, circuit, at } = useCircuit();
const main = computed(() => circuit.value?.role === 'main');
/** A branch with contactors of its own has a bus of its own behind them. */
const bus = computed(() => busOf(job.design, circuitId.value));
const run = usePrecharge(circuitId);
const ranked = computed(
  () =>
    (job.evaluation.runs[`precharge.choice:${circuitId.value}`]?.result as PrechargeChooseResult | undefined)
      ?.ranked ?? [],
);
const chosen = computed(() => circuit.value?.resistor);
const label = (key: string) => job.design.parts[key]?.label ?? shelf.library.find(key)?.label ?? key;
/** Normal, shorted and repeated starts against the chosen resistor's ratings: what the findings are judged on. */
const loads = computed(() => {
  const part = job.design.parts[chosen.value ?? ''];
  const choice = job.evaluation.runs[`precharge.choice:${circuitId.value}`]?.input as
    PrechargeChooseInput | undefined;
  if (choice === undefined || part?.kind !== 'resistor') return [];
  const { pulseEnergyJ, continuousW } = part.data;
  const duty = resistorDuty(part.data, choice);
  const starts = startsAMinute(choice.attemptsPerMinute);
  return [
    { label: 'a start', takes: duty.energyJ, may: pulseEnergyJ, unit: 'J' },
    {
      label: `a start on a shorted bus, until ${formatQuantity(choice.timeoutS, 's')}`,
      takes: duty.shortedEnergyJ,
      may: pulseEnergyJ,
      unit: 'J',
    },
    { label: `${starts}, on average`, takes: duty.averagePowerW, may: continuousW, unit: 'W' },
    { label: `${starts} on a short`, takes: duty.shortedPowerW, may: continuousW, unit: 'W' },
  ];
});
/** Devices on this bus with an active discharge: it has to be off while the bus fills. */
const active = computed(() =>
  busDevices(job.design, bus.value).filter((id) => job.design.devices[id]!.activeOhm !== undefined),
);
const offWhileFilling = [
  { value: false, text: 'is off' },
  { value: true, text: 'stays on' },
];
/** What the loop comes to where the design states none. */
const pathMOhm = computed(() => {
  const ohm = job.figure(pathOf(circuitId.value))?.value;
  return ohm == null ? undefined : Number((ohm * 1000).toPrecision(3));
});
const figure = (name: FigureName<'precharge.run'>) => figureId('precharge.run', circuitId.value, name);
const onBus = (name: FigureName<'precharge.bus'>) => figureId('precharge.bus', bus.value, name);
const discharge = (name: FigureName<'precharge.discharge'>) =>
  figureId('precharge.discharge', bus.value, name);
</script>

<template>
  <section class="sheet-card" aria-labelledby="precharge-title">
    <div class="card-head">
      <h2 id="precharge-title">Pre-charge{{ main ? '' : ` of ${circuit?.tag}` }}</h2>
      <span class="hint"
        >voltage with a time limit closes the main; a bare timer would not see a load on the bus</span
      >
    </div>
    <div class="panel-split">
      <div>
        <PrechargeRise v-if="run !== undefined" :run="run" />
        <p v-else-if="main || chosen !== undefined" class="panel-empty">
          The rise is drawn as soon as the pack, the devices’ capacitances and a resistor are given.
        </p>
        <div v-else class="direct" data-direct>
          <p>
            {{ circuit?.tag }} hangs behind contactors of its own: they close onto empty capacitors. Without a
            resistor the whole difference drives the inrush.
          </p>
          <div class="figure-row">
            <FigureValue :id="`precharge.direct:${circuitId}:inrushA`" show-label />
            <FigureValue :id="`precharge.direct:${circuitId}:i2tA2s`" show-label />
          </div>
        </div>
        <div class="figure-row">
          <FigureValue v-if="main || chosen !== undefined" :id="figure('timeToThresholdS')" show-label />
          <FigureValue v-if="main || chosen !== undefined" :id="figure('resistorEnergyJ')" show-label />
          <FigureValue v-if="main || chosen !== undefined" :id="figure('busShortedEnergyJ')" show-label />
          <FigureValue v-if="main || chosen !== undefined" :id="figure('peakCurrentA')" show-label />
          <FigureValue v-if="main || chosen !== undefined" :id="figure('inrushA')" show-label />
          <FigureValue :id="pathOf(circuitId)" show-label />
          <FigureValue :id="onBus('loadOhm')" show-label />
          <FigureValue :id="onBus('capacitanceF')" show-label />
        </div>
      </div>
      <div>
        <NumberField :path="`${at}.thresholdFraction`" />
        <NumberField :path="`${at}.timeoutS`" />
        <NumberField :path="`${at}.wantedTimeS`" />
        <NumberField :path="`${at}.attemptsPerMinute`" />
        <NumberField :path="`${at}.loopResistanceOhm`" :fallback="pathMOhm" />
        <NumberField :path="`${at}.loopInductanceH`" />
        <ChoiceField
          v-for="id in active"
          :key="id"
          :path="`devices.${id}.activeWhileFilling`"
          :label="`Discharge of ${job.design.devices[id]!.tag} then`"
          :options="offWhileFilling"
          none="not said"
        />
        <h3>After shut-down</h3>
        <NumberField path="settings.touchLimitV" />
        <NumberField path="settings.dischargeLimitS" />
        <div class="figure-row">
          <FigureValue :id="discharge('timeToSafeS')" show-label />
          <FigureValue :id="discharge('largestBleedOhmForLimit')" show-label />
          <FigureValue :id="discharge('bleedPowerAtVoltageW')" show-label />
        </div>
      </div>
    </div>
    <table v-if="loads.length > 0" class="grid-table ranked" data-resistor-loads>
      <thead>
        <tr>
          <th scope="col">What the resistor takes</th>
          <th scope="col" class="num">takes</th>
          <th scope="col" class="num">may take</th>
          <th scope="col">share of its rating</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in loads" :key="one.label">
          <td>{{ one.label }}</td>
          <td class="num">{{ formatQuantity(one.takes, one.unit) }}</td>
          <td class="num">{{ formatQuantity(one.may, one.unit) }}</td>
          <td>
            <span class="bar"
              ><span
                :class="{ over: one.takes > one.may }"
                :style="{ width: `${Math.min(100, (one.takes / one.may) * 100)}%` }"
              ></span
            ></span>
            <b :class="{ bad: one.takes > one.may }">{{ formatNumber((one.takes / one.may) * 100) }} %</b>
          </td>
        </tr>
      </tbody>
    </table>
    <table v-if="ranked.length > 0" class="grid-table ranked">
      <thead>
        <tr>
          <th scope="col">Resistors, ranked</th>
          <th scope="col" class="num">time</th>
          <th scope="col" class="num">worst</th>
          <th scope="col" class="num">a run</th>
          <th scope="col" class="num">shorted</th>
          <th scope="col">why not</th>
          <th scope="col"><span class="visually-hidden">Take</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in ranked" :key="one.partId" :class="{ picked: one.partId === chosen }">
          <td>{{ label(one.partId) }}</td>
          <td class="num">
            {{ one.timeToThresholdS === null ? 'never' : formatQuantity(one.timeToThresholdS, 's') }}
          </td>
          <td class="num">{{ one.timeWorstS === null ? 'never' : formatQuantity(one.timeWorstS, 's') }}</td>
          <td class="num">{{ formatQuantity(one.energyJ, 'J') }}</td>
          <td class="num">{{ formatQuantity(one.shortedEnergyJ, 'J') }}</td>
          <td class="why">{{ one.fits ? 'fits' : one.reasons.join('; ') }}</td>
          <td class="num">
            <TakeButton kind="resistor" :part-key="one.partId" />
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.direct {
  padding: 0.6rem 0.8rem;
  background: var(--tv-recess);
}

h3 {
  margin: 0.6rem 0 0.2rem;
}

.ranked {
  margin-top: 0.7rem;
}

.bar {
  display: inline-block;
  width: 8rem;
  height: 0.7rem;
  margin-right: 0.5rem;
  background: var(--tv-recess);
}

.bar span {
  display: block;
  height: 100%;
  background: var(--tv-grey-fill);
}

.bar .over {
  background: var(--tv-stop);
}

.bad {
  color: var(--tv-stop);
}
</style>
