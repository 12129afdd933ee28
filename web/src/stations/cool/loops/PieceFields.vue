<script setup lang="ts">
import { contactKPerW, fitDrop, type LoopAnswer } from '@torvek/core/cooling';
import { busyWhen, heaterFeeds, laid, switchings, type Id, type PlumbingItem } from '@torvek/core/document';
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';
import ChoiceField from '../../../parts/ChoiceField.vue';
import NumberField from '../../../parts/NumberField.vue';
import PartField from '../../../parts/PartField.vue';
import PickMany from '../../../parts/PickMany.vue';
import { useJob } from '../../../stores/job';
import RadiatorReading from './RadiatorReading.vue';
import { statesOf, type Shown } from './states';

/** The picked piece: what it is, what it cools, what was read of it, and how it would be otherwise. */
const props = defineProps<{
  pieceId: Id;
  answer: LoopAnswer | null;
  shown: Shown;
  trying: readonly string[];
}>();
const emit = defineEmits<{ try: [what: 'shut' | 'swap' | 'away', id: Id] }>();
const job = useJob();
const piece = computed((): PlumbingItem | undefined => job.design.plumbing?.[props.pieceId]);
const at = (field: string) => `plumbing.${props.pieceId}.${field}`;
const state = computed(() => statesOf(props.answer, props.shown).get(props.pieceId));
const kind = computed(() => piece.value?.kind);
const options = (all: readonly string[]) => all.map((value) => ({ value, text: value }));
const heaters = computed(() =>
  Object.entries(job.design.devices).flatMap(([value, { kind: own, tag }]) =>
    own === 'heater' ? [{ value, text: tag }] : [],
  ),
);
const devices = computed(() =>
  Object.entries(job.design.devices).map(([value, { tag }]) => ({ value, text: tag })),
);
/** Cores of other loops that could stand before this one. */
const cores = computed(() =>
  Object.entries(job.design.plumbing ?? {}).flatMap(([value, one]) =>
    one.kind === 'radiator' && one.loop !== piece.value?.loop ? [{ value, text: one.tag }] : [],
  ),
);
const tagged = (map: Readonly<Record<Id, { tag: string }>>) =>
  Object.entries(map).map(([id, { tag }]) => ({ id, tag }));
const modules = computed(() => tagged(job.design.modules));
const loads = computed(() => tagged(job.design.loads ?? {}));
const contact = computed(() =>
  piece.value === undefined ? null : contactKPerW(piece.value, job.design.parts[piece.value.plate ?? '']),
);

const reading = ref('');
const fitted = computed(() => (piece.value?.readings === undefined ? null : fitDrop(piece.value.readings)));
const trouble = ref<string | null>(null);
watch(
  () => props.pieceId,
  () => {
    reading.value = '';
    trouble.value = null;
  },
);
/** "2.1 L in 60 s at 7.5 kPa", or flow and pressure. */
function addReading(): void {
  const text = reading.value.replaceAll(',', '.');
  const timed = /^\s*([\d.]+)\s*L?\s+(?:in\s+)?([\d.]+)\s*s\s+(?:at\s+)?([\d.]+)\s*(?:kPa)?\s*$/i.exec(text);
  const plain = /^\s*([\d.]+)\s*(?:L\/min)?[\s;]+([\d.]+)\s*(?:kPa)?\s*$/i.exec(text);
  const flow = timed !== null ? (Number(timed[1]) * 60) / Number(timed[2]) : Number(plain?.[1] ?? NaN);
  const pressure = Number((timed !== null ? timed[3] : plain?.[2]) ?? NaN);
  if (!(flow > 0 && flow < 1e6 && pressure > 0 && pressure < 1e6)) {
    trouble.value = 'Litres, seconds and kPa (2 L in 60 s at 7.5), or L/min and kPa (2 7.5).';
    return;
  }
  trouble.value = null;
  reading.value = '';
  job.change(`${piece.value?.tag ?? ''}: reading added`, (draft) => {
    const own = draft.plumbing?.[props.pieceId];
    if (own === undefined) return;
    own.readings = [
      ...(own.readings ?? []),
      [Number(flow.toPrecision(6)), pressure] as [number, number],
    ].sort((a, b) => a[0] - b[0]);
  });
}
function dropReadings(): void {
  job.change(`${piece.value?.tag ?? ''}: readings removed`, (draft) => {
    delete draft.plumbing?.[props.pieceId]?.readings;
  });
}
const n = formatNumber;
/** The run of Route that a hose lies in: its length is the run’s. */
const carrier = computed(() => {
  const found = Object.entries(job.design.runs ?? {}).find(([, { hoses }]) => hoses?.includes(props.pieceId));
  if (found === undefined) return null;
  const [id, { tag }] = found;
  return { id, tag, lengthM: laid(job.design).plumbing?.[props.pieceId]?.lengthM ?? null };
});
const tries = computed(() =>
  kind.value === 'pump'
    ? [{ what: 'away' as const, text: 'without it' }]
    : kind.value === 'hose'
      ? [
          { what: 'swap' as const, text: 'ends swapped' },
          { what: 'away' as const, text: 'without it' },
        ]
      : kind.value === 'valve'
        ? [
            { what: 'shut' as const, text: 'shut' },
            { what: 'swap' as const, text: 'turned round' },
          ]
        : [
            { what: 'swap' as const, text: 'turned round' },
            { what: 'away' as const, text: 'without it' },
          ],
);
</script>

<template>
  <section v-if="piece" class="fields" aria-labelledby="piece-title" data-piece-fields>
    <div class="card-head">
      <h3 id="piece-title">{{ piece.tag }}</h3>
      <span class="hint">{{ piece.kind }}</span>
      <span v-if="state?.flow !== null && state?.flow !== undefined" class="hint"
        >{{ n(Math.abs(state.flow)) }} L/min<template v-if="state.flow < -0.005"
          >, against its direction</template
        ></span
      >
    </div>
    <div class="tries" role="group" aria-label="What if">
      <span class="soft">What if:</span>
      <BButton
        v-for="one in tries"
        :key="one.what"
        size="sm"
        :variant="trying.includes(`${one.what} ${pieceId}`) ? 'primary' : 'light'"
        :aria-pressed="trying.includes(`${one.what} ${pieceId}`)"
        @click="emit('try', one.what, pieceId)"
        >{{ one.text }}</BButton
      >
    </div>
    <div class="two">
      <template v-if="kind === 'hose'">
        <p v-if="carrier" class="soft routed">
          {{ carrier.lengthM === null ? 'Its length is not computed' : `${n(carrier.lengthM)} m long` }}, by
          its run
          <RouterLink :to="{ path: 'route', query: { panel: 'runs', run: carrier.id } }">{{
            carrier.tag
          }}</RouterLink>.
        </p>
        <NumberField v-else :path="at('lengthM')" />
        <NumberField :path="at('minorK')" />
      </template>
      <template v-else-if="kind === 'valve'">
        <NumberField :path="at('kvM3PerH')" />
        <NumberField :path="at('openFraction')" />
      </template>
      <ChoiceField
        v-if="kind === 'pump' || kind === 'radiator'"
        :path="at('switched')"
        label="Switched"
        :options="options(switchings)"
        none="always"
      />
      <PartField v-if="kind === 'radiator'" :path="at('fan')" kind="fan" label="Fan" none="no fan" />
      <template v-if="kind === 'radiator'">
        <NumberField :path="at('airKgPerS')" />
        <NumberField :path="at('uaWPerK')" />
        <ChoiceField :path="at('behind')" label="Stands behind" :options="cores" none="no other core" />
        <template v-if="piece.radiator === undefined">
          <NumberField :path="at('coreWidthMm')" />
          <NumberField :path="at('coreHeightMm')" />
          <NumberField :path="at('coreDepthMm')" />
        </template>
      </template>
      <template v-if="kind === 'jacket'">
        <ChoiceField :path="at('device')" label="Cools" :options="devices" none="no device: a motor" />
        <ChoiceField
          :path="at('busy')"
          label="Busy while"
          :options="options(busyWhen)"
          none="by its device"
        />
        <NumberField :path="at('lossFraction')" />
        <NumberField :path="at('heatW')" />
        <NumberField :path="at('coolantMaxC')" />
      </template>
      <template v-if="kind === 'heater'">
        <ChoiceField
          :path="at('fedFrom')"
          label="Fed from"
          :options="options(heaterFeeds)"
          none="pack (default)"
        />
        <ChoiceField
          v-if="(piece.fedFrom ?? 'pack') === 'pack'"
          :path="at('heaterDevice')"
          label="Is the device"
          :options="heaters"
          none="none of Network"
        />
        <NumberField :path="at('coolantMaxC')" />
        <NumberField :path="at('heatW')" label="Gives, measured" />
      </template>
      <template v-if="kind === 'plate'">
        <NumberField :path="at('fillerMm')" />
        <NumberField :path="at('fillerWPerMK')" />
      </template>
      <template v-if="kind === 'plate' || kind === 'jacket' || kind === 'radiator' || kind === 'heater'">
        <NumberField class="long-unit" :path="at('kPaPerLpm')" />
        <NumberField class="long-unit" :path="at('kPaPerLpm2')" />
        <NumberField :path="at('leastLPerMin')" />
      </template>
    </div>
    <PickMany
      v-if="kind === 'plate'"
      :path="at('modules')"
      :things="modules"
      label="On it"
      none="No module lies on it."
      ask="which modules"
      :change="`${piece.tag}: modules on it`"
    >
      <span v-if="contact !== null" class="soft">From cells to coolant {{ n(contact) }} K/W.</span>
    </PickMany>
    <PickMany
      v-if="
        kind === 'pump' ||
        (kind === 'radiator' && piece.fan !== undefined) ||
        (kind === 'heater' && piece.fedFrom === '12 V')
      "
      :path="at('loads')"
      :things="loads"
      label="Fed as"
      none="No load of the low voltage feeds it yet."
      ask="which loads"
      :change="`${piece.tag}: what feeds it`"
    />
    <RadiatorReading v-if="kind === 'radiator'" :key="pieceId" :piece-id="pieceId" />
    <div v-if="kind !== 'pump' && kind !== 'hose' && kind !== 'valve'" class="readings">
      <label
        >Timed reading<input
          v-model="reading"
          class="form-control"
          placeholder="2 L in 60 s at 7.5 kPa"
          :readonly="!job.editable"
          @keydown.enter.prevent="addReading"
      /></label>
      <BButton size="sm" variant="light" :disabled="!job.editable" @click="addReading">Add</BButton>
      <p v-if="trouble !== null" class="problem" role="alert">{{ trouble }}</p>
      <p v-if="piece.readings" class="soft">
        {{ piece.readings.map(([q, p]) => `${n(q)} L/min ${n(p)} kPa`).join('; ') }}.
        <template v-if="fitted !== null"
          >Fitted: {{ n(fitted.kPaPerLpm) }}·Q + {{ n(fitted.kPaPerLpm2) }}·Q² kPa, within
          {{ (100 * fitted.worstFraction).toFixed(1) }} %.</template
        >
        <template v-else>Two flows at least make a curve.</template>
        <BButton size="sm" variant="light" :disabled="!job.editable" @click="dropReadings">remove</BButton>
      </p>
    </div>
  </section>
</template>

<style scoped>
.tries,
.readings {
  display: flex;
  flex-wrap: wrap;
  gap: 0.35rem;
  align-items: end;
  margin: 0.3rem 0;
}

.two {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(19rem, 1fr));
  gap: 0.1rem 1.6rem;
}

.long-unit {
  padding-right: 2.4rem;
}

.readings label {
  font-size: 0.85rem;
  color: var(--tv-soft);
  width: 15rem;
}

.readings p {
  flex-basis: 100%;
  margin: 0;
}

.problem {
  color: var(--tv-stop);
}
</style>
