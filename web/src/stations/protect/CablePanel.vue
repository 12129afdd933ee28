<script setup lang="ts">
import { figureId, type FigureName } from '@torvek/core/figure';
import { rankGlands, rankLugs, sizeTable, type CableEnd, type CablePlace } from '@torvek/core/conductor';
import { laid, runsOfCircuit, type Install } from '@torvek/core/document';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceField from '../../parts/ChoiceField.vue';
import FigureValue from '../../parts/FigureValue.vue';
import NumberField from '../../parts/NumberField.vue';
import { useJob } from '../../stores/job';
import { useLibrary } from '../../stores/library';
import { useUnits } from '../../stores/units';
import RankedTable from './RankedTable.vue';
import TakeButton from './TakeButton.vue';
import DutyPlot from './DutyPlot.vue';
import StretchTable from './StretchTable.vue';
import { useCircuit } from './use-circuit';

/** The cable: every area in this place, what it carries, how hot, what it drops, what governs. */
const job = useJob();
const shelf = useLibrary();
const units = useUnits();
const { circuitId, circuit, at } = useCircuit();
/** The class of insulation that is compared: that of the chosen cable. */
const chosenClass = computed(() => {
  const part = job.design.parts[circuit.value?.cable ?? ''];
  return part?.kind === 'cable' ? part.data.conductorMaxC : undefined;
});
const classes = computed(() =>
  [...new Set(shelf.library.of('cable').map(({ data }) => data.conductorMaxC))].sort((a, b) => a - b),
);
const picked = ref<number | null>(null);
watch(circuitId, () => (picked.value = null));
const shownClass = computed(() => picked.value ?? chosenClass.value ?? classes.value[0]);
const sizes = computed(() => {
  const place = job.evaluation.runs[`conductor.sizes:${circuitId.value}`]?.input as CablePlace | undefined;
  return place === undefined
    ? []
    : sizeTable(place, {
        cables: shelf.library.of('cable'),
        lugs: shelf.library.of('lug'),
        glands: shelf.library.of('gland'),
        ...(shownClass.value !== undefined && { conductorMaxC: shownClass.value }),
      });
});
/** What the chosen cable asks of its ends: lugs and glands are ranked before one is chosen. */
const end = computed(
  () => job.evaluation.runs[`conductor.ends:${circuitId.value}`]?.input as CableEnd | undefined,
);
const lugs = computed(() => (end.value === undefined ? [] : rankLugs(shelf.library.of('lug'), end.value)));
const glands = computed(() =>
  end.value === undefined ? [] : rankGlands(shelf.library.of('gland'), end.value),
);
const installs: { value: Install; text: string }[] = [
  { value: 'free-air', text: 'free air' },
  { value: 'steel-conduit', text: 'steel conduit' },
];
const routed = computed(() => runsOfCircuit(job.design.runs, circuitId.value));
const routedM = computed(() => laid(job.design).circuits[circuitId.value]?.lengthM ?? null);
const figure = (name: FigureName<'conductor.cable'>) => figureId('conductor.cable', circuitId.value, name);
/** A temperature in what a person reads them in; its unit stands beside. */
const warm = (celsius: number) => units.show(celsius, '°C').number;
const percent = (value: number | null) => (value === null ? '—' : `${formatNumber(value * 100)} %`);
const bar = (use: number | null) => ({ width: `${Math.min(100, (use ?? 0) * 100)}%` });
</script>

<template>
  <section class="sheet-card" aria-labelledby="cable-title">
    <div class="card-head">
      <h2 id="cable-title">Cable of {{ circuit?.tag }}</h2>
      <select
        class="form-select class"
        aria-label="Class of insulation"
        :value="shownClass"
        @change="picked = Number(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="one in classes" :key="one" :value="one">{{ one }} °C insulation</option>
      </select>
      <span class="hint"
        >judged by the whole circuit: mean square, load over time, drop, the fuse over all faults, lugs and
        gland</span
      >
    </div>
    <div class="panel-split">
      <div class="sizes">
        <table v-if="sizes.length > 0" class="grid-table">
          <thead>
            <tr>
              <th scope="col" class="num">area</th>
              <th scope="col" class="num">ampacity</th>
              <th scope="col">of it used</th>
              <th
                scope="col"
                class="num"
                title="conductor at the mean square of the load, and hottest over the load"
              >
                steady / load
              </th>
              <th scope="col" class="num">drop</th>
              <th scope="col">nearest limit</th>
              <th scope="col"><span class="visually-hidden">Take</span></th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="one in sizes"
              :key="one.partKey"
              :class="{ picked: one.partKey === circuit?.cable, out: !one.fits }"
              :title="one.reasons.join('; ')"
            >
              <td class="num">
                <span v-if="!one.fits" class="fails" title="fails">✕ </span>{{ one.areaMm2
                }}<span class="unit">&nbsp;mm²</span
                ><small v-if="units.gauge(one.areaMm2)" class="soft"
                  >&nbsp;{{ units.gauge(one.areaMm2) }}</small
                >
              </td>
              <td class="num">{{ one.ampacityA === null ? '—' : formatQuantity(one.ampacityA, 'A') }}</td>
              <td class="use">
                <span class="track"
                  ><span
                    class="fill"
                    :class="{ over: (one.ampacityUse ?? 0) > 1 }"
                    :style="bar(one.ampacityUse)"
                /></span>
                {{ one.ampacityUse === null ? '' : percent(one.ampacityUse) }}
              </td>
              <td class="num warmth">
                {{ one.conductorTemperatureC === null ? `> ${warm(400)}` : warm(one.conductorTemperatureC) }}
                / {{ one.peakC === null ? '—' : warm(one.peakC)
                }}<span class="unit">&nbsp;{{ units.choice.temperature }}</span>
              </td>
              <td class="num" :title="one.voltageDropV === null ? '' : formatQuantity(one.voltageDropV, 'V')">
                {{ percent(one.dropFraction) }}
              </td>
              <td class="governs">
                {{ one.governs
                }}<small v-if="one.fits && one.along.length > 0" class="soft along"
                  >+ {{ one.along.map(({ kind }) => kind).join(', ') }}</small
                >
              </td>
              <td class="num">
                <TakeButton kind="cable" :part-key="one.partKey" :along="one.fits ? one.along : []" />
              </td>
            </tr>
          </tbody>
        </table>
        <DutyPlot v-if="sizes.length > 0" />
        <p v-else class="panel-empty">
          All areas are compared as soon as the load, the length, the ambient and the pack are given.
        </p>
      </div>
      <div>
        <p v-if="routed.length > 0" class="routed" data-routed>
          Routed: {{ routedM === null ? 'its length is not computed' : formatQuantity(routedM, 'm') }}, by
          <RouterLink
            v-for="[id, run] in routed"
            :key="id"
            :to="{ name: 'route', params: { job: job.id }, query: { run: id } }"
            >{{ run.tag }}</RouterLink>. A length typed here does not count.
        </p>
        <NumberField v-else-if="(circuit?.stretches?.length ?? 0) === 0" :path="`${at}.lengthM`" />
        <NumberField :path="`${at}.ambientC`" />
        <ChoiceField
          :path="`${at}.install`"
          label="Installation"
          :options="installs"
          none="free air, default"
        />
        <template v-if="circuit?.install === 'steel-conduit'">
          <NumberField :path="`${at}.conduitInnerMm`" />
          <NumberField :path="`${at}.conduitOuterMm`" />
        </template>
        <NumberField :path="`${at}.studMm`" />
        <NumberField :path="`${at}.parallel`" />
        <NumberField
          v-if="(circuit?.parallel ?? 1) > 1"
          :path="`${at}.unevenM`"
          label="Longest is longer by"
          unit="m"
          :fallback="0"
        />
        <NumberField :path="`${at}.grouped`" />
        <NumberField :path="`${at}.maxDropFraction`" />
        <NumberField :path="`${at}.contactOhm`" />
        <div class="figure-row">
          <FigureValue :id="figure('ampacityA')" show-label />
          <FigureValue :id="figure('conductorTemperatureC')" show-label />
          <FigureValue :id="figure('dropFraction')" show-label />
          <FigureValue :id="figure('lossW')" show-label />
          <FigureValue :id="figure('timeConstantS')" show-label />
        </div>
      </div>
    </div>
    <StretchTable v-if="routed.length === 0" />
    <div v-if="end" class="ends">
      <div>
        <RankedTable
          kind="lug"
          title="Lugs, ranked"
          plural="lugs"
          :ranked="lugs"
          :chosen="circuit?.lug"
          :short="3"
        />
      </div>
      <div>
        <RankedTable
          kind="gland"
          title="Glands, ranked"
          plural="glands"
          :ranked="glands"
          :chosen="circuit?.gland"
          :short="3"
        />
      </div>
    </div>
  </section>
</template>

<style scoped>
.routed {
  font-size: 0.9rem;
  margin: 0.2rem 0;
}

td,
th {
  padding-left: 0.25rem;
  padding-right: 0.25rem;
}

.fails {
  color: var(--tv-stop);
}

.out td {
  color: var(--tv-soft);
}

.sizes {
  min-width: 0;
  overflow-x: auto;
}

.use,
.warmth {
  white-space: nowrap;
}

.along {
  display: block;
}

.governs {
  line-height: 1.15;
}

.ends {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0 1.2rem;
}

.track {
  display: inline-block;
  width: 30px;
  height: 8px;
  background: var(--tv-recess);
  border: 1px solid var(--tv-line);
  margin-right: 0.3rem;
}

.fill {
  display: block;
  height: 100%;
  background: var(--tv-hv-fill);
}

.over {
  background: repeating-linear-gradient(45deg, var(--tv-stop) 0 4px, var(--tv-sheet) 4px 6px);
}

.class {
  width: 11rem;
  height: 1.8rem;
  padding-top: 0;
  padding-bottom: 0;
}
</style>
