<script setup lang="ts">
import { cellLimits } from '@torvek/core/charging';
import { packLayout } from '@torvek/core/pack';
import { feedsOfBox, occupied, ventWays, type Id } from '@torvek/core/document';
import { figureId, type FigureName } from '@torvek/core/figure';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed } from 'vue';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FigureValue from '../../../parts/FigureValue.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import PickMany from '../../../parts/PickMany.vue';
import RemoveButton from '../../../parts/RemoveButton.vue';
import { useJob } from '../../../stores/job';
import CabinCard from './CabinCard.vue';

/** Boxes of modules on the coldest night: what they lose, what warms them, how long that takes and what it costs. */
const job = useJob();
const limits = computed(() =>
  cellLimits(job.design.cooling, packLayout(job.design).layout?.part.data.chemistry),
);
const boxes = computed(() => occupied(job.design).map((id) => [id, job.design.boxes[id]!] as const));
const fig = (name: FigureName<'cooling.box'>, box: Id) => figureId('cooling.box', box, name);
const value = (name: FigureName<'cooling.box'>, box: Id) => job.figure(fig(name, box))?.value ?? null;
const begun = computed(() => job.design.cooling !== undefined);
const begin = () => job.change('Cooling and cold begun', (draft) => void (draft.cooling ??= {}));
const minutes = (s: number | null) =>
  s === null
    ? 'never'
    : s < 60
      ? 'at once'
      : s < 7200
        ? `${Math.round(s / 60)} min`
        : `${formatNumber(s / 3600, 2)} h`;
const whPerKm = computed(
  () =>
    job.figure(figureId('vehicle.cycle', 'vehicle', 'whPerKm'))?.value ??
    job.figure(figureId('vehicle.range', 'vehicle', 'whPerKm'))?.value ??
    null,
);
const energy = computed(() => {
  const all = boxes.value.map(([id]) => value('energyKWh', id));
  return all.includes(null) ? null : all.reduce<number>((sum, one) => sum + one!, 0);
});
/** What of it the pack gives itself: mains and low voltage leave it alone. */
const outOfPack = computed(() =>
  boxes.value.reduce(
    (sum, [id]) => (feedsOfBox(job.design, id).includes('pack') ? sum + (value('energyKWh', id) ?? 0) : sum),
    0,
  ),
);
const heaterDevices = computed(() =>
  Object.entries(job.design.devices).flatMap(([id, { kind, tag }]) =>
    kind === 'heater' ? [{ value: id, text: tag }] : [],
  ),
);
const loads = computed(() => Object.entries(job.design.loads ?? {}).map(([id, { tag }]) => ({ id, tag })));
const slowest = computed(() => {
  const all = boxes.value.map(([id]) => ({
    id,
    s: value('warmS', id),
    known: job.figure(fig('holdW', id))?.value !== null,
  }));
  if (all.length === 0 || all.some(({ known }) => !known)) return null;
  return all.reduce((worst, one) => (worst.s === null || (one.s !== null && one.s <= worst.s) ? worst : one));
});
const sentence = computed(() => {
  if (energy.value === null || slowest.value === null) return null;
  const tag = job.design.boxes[slowest.value.id]?.tag ?? '';
  const own = outOfPack.value;
  const km =
    whPerKm.value === null || !(whPerKm.value > 0)
      ? ''
      : `, ${formatNumber((1000 * own) / whPerKm.value, 2)} km of range`;
  const costs =
    own === 0
      ? ', nothing of it out of the pack'
      : own < energy.value
        ? `, ${formatNumber(own, 3)} kWh of it out of the pack${km}`
        : km;
  return `From the coldest night to where cells may be charged: ${tag} takes longest, ${minutes(slowest.value.s)}; all together ${formatNumber(energy.value, 3)} kWh${costs}.`;
});
/** Bars of one scale: how long each box takes. */
const longest = computed(() => Math.max(1, ...boxes.value.map(([id]) => value('warmS', id) ?? 0)));
function addWall(box: Id): void {
  job.change(`Wall added to ${job.design.boxes[box]?.tag ?? ''}`, (draft) => {
    const own = draft.boxes[box];
    if (own !== undefined) (own.walls ??= []).push({ thicknessMm: 20, conductivityWPerMK: 0.035 });
  });
}
function removeWall(box: Id, i: number): void {
  job.change(`Wall removed from ${job.design.boxes[box]?.tag ?? ''}`, (draft) => {
    const own = draft.boxes[box];
    own?.walls?.splice(i, 1);
    if (own?.walls?.length === 0) delete own.walls;
  });
}
const heating = ['pack', '12 V', 'mains'].map((one) => ({ value: one, text: one }));
</script>

<template>
  <section class="sheet-card" aria-labelledby="cold-title" data-cold>
    <div class="card-head">
      <h2 id="cold-title">Cold</h2>
      <span class="hint"
        >most cells must not be charged below their limit: how long a night keeps the vehicle waiting</span
      >
    </div>
    <p v-if="!begun" class="panel-empty">
      Nothing is asked of heat and cold yet.
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="begin">Begin</BButton>
    </p>
    <template v-else>
      <div class="two">
        <NumberField path="cooling.coldC" />
        <NumberField path="cooling.cellChargeMinC" :fallback="limits.chargeMinC" />
      </div>
      <p v-if="sentence !== null" class="sentence" role="status">{{ sentence }}</p>
      <p v-if="boxes.length === 0" class="panel-empty">No box holds modules yet.</p>
      <table v-else class="grid-table">
        <thead>
          <tr>
            <th scope="col">box</th>
            <th scope="col" class="num">through its walls</th>
            <th scope="col" class="num">heaters give</th>
            <th scope="col">to warm it</th>
            <th scope="col" class="num">takes</th>
            <th scope="col" class="num">to hold it</th>
            <th scope="col" class="num">would end at</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[id, box] in boxes" :key="id">
            <th scope="row">{{ box.tag }}</th>
            <td class="num"><FigureValue :id="fig('uaWPerK', id)" /></td>
            <td class="num"><FigureValue :id="fig('heaterW', id)" /></td>
            <td class="bar">
              <span
                v-if="value('warmS', id) !== null"
                class="fill"
                :style="{ width: `${Math.max(2, (60 * value('warmS', id)!) / longest)}%` }"
              />
              <button type="button" class="visually-plain" :data-figure="fig('warmS', id)">
                {{ value('holdW', id) === null ? 'not computed' : minutes(value('warmS', id)) }}
              </button>
            </td>
            <td class="num"><FigureValue :id="fig('energyKWh', id)" /></td>
            <td class="num"><FigureValue :id="fig('holdW', id)" /></td>
            <td class="num"><FigureValue :id="fig('finalC', id)" /></td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
  <CabinCard />
  <section
    v-for="[id, box] in begun ? boxes : []"
    :key="id"
    class="sheet-card"
    :aria-label="`Walls and heat of ${box.tag}`"
  >
    <div class="card-head">
      <h3>{{ box.tag }}</h3>
      <span class="hint">walls from inside to outside, and what warms it</span>
    </div>
    <div class="walls">
      <div v-for="(_wall, i) in box.walls ?? []" :key="i" class="wall">
        <NumberField :path="`boxes.${id}.walls.${i}.thicknessMm`" :label="`Layer ${i + 1}`" />
        <NumberField :path="`boxes.${id}.walls.${i}.conductivityWPerMK`" label="conducts" />
        <RemoveButton :name="`layer ${i + 1} of ${box.tag}`" @remove="removeWall(id, i)" />
      </div>
      <BButton
        size="sm"
        variant="light"
        :disabled="!job.editable"
        :aria-label="`Another layer of ${box.tag}`"
        @click="addWall(id)"
        >Another layer</BButton
      >
    </div>
    <div class="two">
      <NumberField :path="`boxes.${id}.bareM2`" />
      <NumberField :path="`boxes.${id}.bridgeWPerK`" />
      <NumberField :path="`boxes.${id}.floorM2`" />
      <NumberField :path="`boxes.${id}.floorKPa`" />
    </div>
    <div class="three">
      <PartField :path="`boxes.${id}.heater`" kind="heater" label="Heater in the box" none="none" />
      <ChoiceField
        :path="`boxes.${id}.heaterVoltage`"
        label="Fed from"
        :options="heating"
        none="pack (default)"
        above
      />
      <ChoiceField
        :path="`boxes.${id}.ventTo`"
        label="Gas of a failing cell goes"
        :options="ventWays.map((one) => ({ value: one, text: one }))"
        none="not said"
        above
      />
    </div>
    <div class="two measured">
      <NumberField :path="`boxes.${id}.heaterW`" />
      <ChoiceField
        v-if="box.heater !== undefined && (box.heaterVoltage ?? 'pack') === 'pack'"
        :path="`boxes.${id}.heaterDevice`"
        label="Its heater is the device"
        :options="heaterDevices"
        none="none of Network"
      />
    </div>
    <PickMany
      v-if="box.heater !== undefined && box.heaterVoltage === '12 V'"
      :path="`boxes.${id}.heaterLoads`"
      :things="loads"
      label="Heater fed as"
      none="No load of the low voltage feeds it yet."
      ask="which loads"
      :change="`${box.tag}: what feeds its heater`"
    />
  </section>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.3rem 1.6rem;
  align-items: end;
}

.three {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(12rem, 1fr));
  gap: 0.3rem 1rem;
  align-items: end;
}

.measured {
  margin-top: 0.3rem;
}

.sentence {
  margin: 0.5rem 0;
}

.bar {
  min-width: 11rem;
}

.fill {
  display: inline-block;
  height: 0.7rem;
  margin-right: 0.4rem;
  background: var(--tv-coolant);
  border-radius: 2px;
}

.walls {
  display: grid;
  gap: 0.15rem;
  justify-items: start;
  margin-bottom: 0.4rem;
}

.wall {
  display: grid;
  grid-template-columns: 16rem 16rem auto;
  gap: 0.2rem 1.4rem;
  align-items: center;
}
</style>
