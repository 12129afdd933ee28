<script setup lang="ts">
import { behaviours, doubtAbout, standInNames, type ProcedureStep } from '@torvek/core/commissioning';
import { parseQuantity } from '@torvek/core/quantity';
import {
  gates,
  instrumentNames,
  isOfItem,
  measuredText,
  type Instrument,
  type Measured,
} from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, onMounted, ref, useId, watch } from 'vue';
import { api, newId } from '../../api/client';
import AttachFiles from '../../parts/AttachFiles.vue';
import { useInstruments } from '../../stores/instruments';
import { useJob } from '../../stores/job';
import HoldFields from './HoldFields.vue';
import { emptyHold, holdText, readHold, type HoldText } from './hold';
import { ladderDoubt, readLadder, readList } from './ladder';
import { readReading } from '../../parts/reading';
import { readTrace } from './paste';
import TracePlot from './TracePlot.vue';

/** One measurement: typed, pasted or read by a stand-in instrument; asked about when a slip is likely; the server judges. */
const props = defineProps<{
  step: ProcedureStep;
  /** Its gate is closed: only a sub-assembly on the bench is tested. */ benchOnly?: boolean;
}>();
const emit = defineEmits<{ next: [] }>();
const job = useJob();
const id = useId();
const text = ref('');
const packVoltage = ref('');
const remark = ref('');
/** A sub-assembly on the bench, before it is in the vehicle. */
const onBench = ref(props.benchOnly);
/** Behind an HV gate the vehicle itself is tested. */
const atHv = computed(() => gates.find(({ id: one }) => one === props.step.gate)?.hv === true);
const attached = ref<{ sha256: string; name: string; type: string }[]>([]);
const register = useInstruments();
/** Id of a registered instrument, or empty for one named by hand. */
const instrumentId = ref('');
const instrumentName = ref('');
const behaviour = ref('true');
/** A reading that was taken and is not recorded yet. */
const reading = ref<{ measured: Measured; instrument: Instrument } | null>(null);
const problem = ref<string | null>(null);
const question = ref<string | null>(null);
const busy = ref(false);
const field = ref<HTMLElement | null>(null);
/** Something was recorded at this step just now: Enter on the empty field goes on. */
let recordedHere = false;
/** Made once per measurement, so that a double Enter records once. */
let entryId = newId('entry');

/** Pressure and temperature at both ends of a hold. */
const hold = ref<HoldText>({ ...emptyHold });
const isHold = computed(() => props.step.expected?.kind === 'hold');
const ladder = computed(() => (props.step.expected?.kind === 'ladder' ? props.step.expected : null));
const list = computed(() => (props.step.expected?.kind === 'list' ? props.step.expected : null));
const isTrace = computed(() => props.step.expected?.kind === 'rise');
const textRows = computed(() => {
  const rows =
    ladder.value === null ? (list.value?.items.length ?? 4) : ladder.value.cells + ladder.value.tied;
  return Math.min(16, rows + 1);
});
/** How many of the list are typed: the next one is marked. */
const readCount = computed(() => {
  const words = text.value.split(/[\n\t;]+/);
  // The last one is still being typed, until a line ends.
  return words.slice(0, -1).filter((word) => word.trim() !== '').length;
});
const unit = computed(() => props.step.expected?.unit ?? '');
const rise = computed(() => (props.step.expected?.kind === 'rise' ? props.step.expected : null));
const zone = computed(() => job.design.settings.zone);
const registered = computed(() => register.ofKind(props.step.instrument));
const overdue = computed(() =>
  registered.value.find((one) => one.id === instrumentId.value && register.isOverdue(one, zone.value)),
);
// The first of its kind is taken up by itself; another one is a choice that stays while it fits.
watch(
  registered,
  (those) => {
    if (!those.some(({ id: one }) => one === instrumentId.value)) instrumentId.value = those[0]?.id ?? '';
  },
  { immediate: true },
);
const nameOf = (kind: Instrument['kind']) =>
  instrumentNames[kind].replace(/^./, (first) => first.toUpperCase());

function clear(): void {
  text.value = '';
  packVoltage.value = '';
  hold.value = { ...emptyHold };
  remark.value = '';
  attached.value = [];
  reading.value = null;
  problem.value = null;
  question.value = null;
  behaviour.value = 'true';
  entryId = newId('entry');
}

watch(
  () => props.step.id,
  async () => {
    clear();
    recordedHere = false;
    onBench.value = props.benchOnly;
    await nextTick();
    field.value?.focus();
  },
  { immediate: true },
);

onMounted(() => {
  if (register.all.length === 0) void register.load();
});

async function takeReading(): Promise<void> {
  busy.value = true;
  problem.value = null;
  question.value = null;
  try {
    const seed = crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000_000;
    reading.value = await api.post(`/jobs/${job.id}/stand-ins`, {
      step: props.step.id,
      behaviour: behaviour.value,
      seed,
    });
    const { measured } = reading.value!;
    if (measured.kind === 'value') text.value = String(measured.value);
    else if (measured.kind === 'hold') hold.value = holdText(measured);
    else if (measured.kind === 'ladder') text.value = measured.taps.join('\n');
    else if (measured.kind === 'list') text.value = measured.values.join('\n');
    else {
      text.value = measured.samples.map((sample) => sample.join('\t')).join('\n');
      packVoltage.value = String(measured.packVoltageV);
    }
  } catch (error) {
    problem.value = error instanceof Error ? error.message : 'no reading';
  } finally {
    busy.value = false;
  }
}

/** A captured trace as the scope saved it. */
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const of = props.step.id;
  const read = await input.files?.[0]?.text();
  input.value = '';
  // Meanwhile another step may be open.
  if (read === undefined || props.step.id !== of) return;
  text.value = read;
  edited();
}

/** What was edited by hand is no reading of the instrument any more. */
function edited(): void {
  reading.value = null;
  problem.value = null;
  question.value = null;
}

function measuredFromFields(): { measured: Measured; entered: 'typed' | 'pasted' } | null {
  if (isHold.value) {
    const read = readHold(hold.value);
    if (!read.ok) {
      problem.value = read.message;
      return null;
    }
    return { measured: read.measured, entered: 'typed' };
  }
  if (isTrace.value) {
    const trace = readTrace(text.value);
    const pack = parseQuantity(packVoltage.value, 'V');
    if (!trace.ok) problem.value = `Trace: ${trace.message}.`;
    else if (!pack.ok || pack.value <= 0)
      problem.value = 'Pack voltage: the pack’s own voltage by a meter, above 0 V.';
    if (!trace.ok || !pack.ok || pack.value <= 0) return null;
    return {
      measured: { kind: 'trace', samples: trace.samples, packVoltageV: pack.value, unit: 'V' },
      entered: 'pasted',
    };
  }
  if (ladder.value !== null) {
    const read = readLadder(text.value, ladder.value.cells + ladder.value.tied);
    if (!read.ok) {
      problem.value = `Ladder: ${read.message}.`;
      return null;
    }
    return { measured: { kind: 'ladder', taps: read.taps, unit: 'V' }, entered: 'pasted' };
  }
  if (list.value !== null) {
    const { items } = list.value;
    const read = readList(text.value, items, unit.value);
    if (!read.ok) {
      problem.value = `Readings: ${read.message}.`;
      return null;
    }
    return { measured: { kind: 'list', values: read.values, unit: unit.value }, entered: 'pasted' };
  }
  const read = readReading(text.value, unit.value);
  if (!read.ok) {
    problem.value = `Value: ${read.message}.`;
    return null;
  }
  const { value, over } = read;
  return {
    measured: { kind: 'value', value, unit: unit.value, ...(over && { over: true }) },
    entered: 'typed',
  };
}

const trace = computed(() => {
  if (!isTrace.value || rise.value === null || text.value.trim() === '') return null;
  const read = readTrace(text.value);
  const pack = parseQuantity(packVoltage.value, 'V');
  return read.ok && pack.ok && pack.value > 0 ? { samples: read.samples, packVoltageV: pack.value } : null;
});

/** What was measured with, when no stand-in read it. */
function instrumentByHand(): { id: string } | Instrument {
  if (instrumentId.value !== '') return { id: instrumentId.value };
  const kind = props.step.instrument;
  return { kind, name: instrumentName.value.trim() || `${nameOf(kind)}, not named`, standIn: false };
}

async function record(sure = false): Promise<void> {
  if (busy.value || props.step.expected === null) return;
  if (recordedHere && text.value.trim() === '' && !isHold.value) {
    emit('next');
    return;
  }
  problem.value = null;
  const taken = measuredFromFields();
  if (taken === null) return;
  if (!sure && taken.measured.kind === 'value' && taken.measured.over !== true) {
    question.value = doubtAbout(props.step.expected, taken.measured.value);
    if (question.value !== null) return;
  }
  if (!sure && taken.measured.kind === 'ladder' && ladder.value !== null) {
    const { cells, cellMinV, cellMaxV } = ladder.value;
    question.value = ladderDoubt(taken.measured.taps, cells, cellMinV, cellMaxV);
    if (question.value !== null) return;
  }
  question.value = null;
  const instrument = reading.value?.instrument ?? instrumentByHand();
  busy.value = true;
  try {
    await job.record(
      {
        id: entryId,
        kind: 'result',
        step: props.step.id,
        measured: taken.measured,
        entered: reading.value === null ? taken.entered : 'stand-in',
        instrument,
        attachments: attached.value.map(({ sha256 }) => sha256),
        ...(onBench.value && { occasion: 'bench' }),
        ...(remark.value.trim() !== '' && { remark: remark.value.trim() }),
      },
      `${props.step.title}: ${isTrace.value ? 'trace' : measuredText(taken.measured)}`,
    );
    clear();
    recordedHere = true;
    field.value?.focus();
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="entry" @submit.prevent="record()">
    <HoldFields v-if="isHold" v-model="hold" @input="edited" />
    <label v-else :for="id">{{
      isTrace
        ? 'Trace: seconds and volts, one sample a line'
        : ladder !== null
          ? `Pin 2 to ${ladder.cells + ladder.tied + 1} against pin 1, V, one a line`
          : list !== null
            ? `Readings in the order below, ${unit}, one a line`
            : unit === ''
              ? 'Counted'
              : `Measured, ${unit}`
    }}</label>
    <ol v-if="list !== null" class="items" data-items>
      <li v-for="(item, i) in list.items" :key="item" :class="{ next: i === readCount }">{{ item }}</li>
    </ol>
    <textarea
      v-if="isTrace || ladder !== null || list !== null"
      :id="id"
      ref="field"
      v-model="text"
      class="form-control"
      :rows="textRows"
      spellcheck="false"
      data-measured
      @input="edited"
    />
    <input
      v-else-if="!isHold"
      :id="id"
      ref="field"
      v-model="text"
      class="form-control big"
      inputmode="decimal"
      autocomplete="off"
      data-measured
      @input="edited"
    />
    <p v-if="unit.endsWith('Ω')" class="soft over">
      Beyond the range of the instrument: “&gt;” and where the range ends, for example &gt;{{
        unit === 'Ω' ? '60 MΩ' : '2 GΩ'
      }}.
    </p>
    <template v-if="isTrace">
      <label class="btn btn-light btn-sm file"
        >From a CSV file …<input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          class="visually-hidden"
          data-trace-file
          @change="takeFile"
      /></label>
      <label :for="`${id}p`">Pack’s own voltage, V</label>
      <input
        :id="`${id}p`"
        v-model="packVoltage"
        class="form-control"
        inputmode="decimal"
        autocomplete="off"
        @input="edited"
      />
    </template>
    <div v-if="reading === null" class="pair">
      <label :for="`${id}i`">Instrument</label>
      <select :id="`${id}i`" v-model="instrumentId" class="form-select">
        <option v-for="one in registered" :key="one.id" :value="one.id">
          {{ one.name }}, {{ one.serial }}{{ register.isOverdue(one, zone) ? ': calibration overdue' : '' }}
        </option>
        <option value="">not in the register …</option>
      </select>
      <p v-if="overdue" class="overdue" role="status">
        ◆ Its calibration ran out on {{ overdue.calibrationDue }}: the entry will be marked.
      </p>
      <template v-if="instrumentId === ''">
        <label :for="`${id}n`">Its name</label>
        <input
          :id="`${id}n`"
          v-model="instrumentName"
          class="form-control"
          maxlength="120"
          :placeholder="`${nameOf(step.instrument)}, make and number`"
        />
      </template>
    </div>
    <p v-else class="by-stand-in">
      Read by the {{ reading.instrument.name.toLowerCase() }}: this measures no vehicle, and the record will
      say so.
    </p>
    <label v-if="!isOfItem(step.id) && !atHv" class="occasion"
      ><input
        v-model="onBench"
        type="checkbox"
        class="form-check-input"
        :disabled="benchOnly"
        data-occasion
      />
      on the bench, before it is in the vehicle: kept beside the test there</label
    >
    <div class="pair">
      <label :for="`${id}r`">Remark</label>
      <input :id="`${id}r`" v-model="remark" class="form-control" maxlength="2000" />
    </div>
    <AttachFiles v-model="attached" />
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="question" class="question" role="alert">
      <p>{{ question }}</p>
      <BButton variant="primary" @click="record(true)">Record it as it stands</BButton>
      <BButton variant="light" @click="question = null">Back to the value</BButton>
    </div>
    <div v-else class="buttons">
      <BButton type="submit" variant="primary" class="big-button" :disabled="busy">Record</BButton>
      <BButton variant="light" class="big-button" @click="emit('next')">Next step</BButton>
    </div>
    <TracePlot
      v-if="trace !== null && rise !== null"
      :samples="trace.samples"
      :pack-voltage-v="trace.packVoltageV"
      :expected="rise"
    />
    <fieldset class="stand-in">
      <legend>{{ standInNames[step.instrument] }}</legend>
      <select v-model="behaviour" class="form-select" aria-label="What the stand-in instrument does">
        <option v-for="one in behaviours[step.instrument]" :key="one.id" :value="one.id">
          {{ one.label }}
        </option>
      </select>
      <BButton variant="light" :disabled="busy" data-stand-in @click="takeReading">Take a reading</BButton>
      <span class="soft">For practice and for trying the procedure.</span>
    </fieldset>
  </form>
</template>

<style scoped>
.entry {
  display: grid;
  gap: 0.35rem;
  max-width: 38rem;
}

.entry label {
  font-size: 0.92rem;
}

.big {
  font-size: 1.5rem;
  height: 48px;
  max-width: 16rem;
  text-align: right;
}

.over {
  margin: 0;
  font-size: 0.85rem;
}

.items {
  margin: 0;
  padding-left: 1.6rem;
  columns: 2;
  font-size: 0.9rem;
  color: var(--tv-soft);
}

.items .next {
  color: var(--tv-ink);
  font-weight: 600;
}

.pair {
  display: grid;
  grid-template-columns: 6rem 1fr;
  gap: 0.5rem;
  align-items: center;
}

.buttons,
.question {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  flex-wrap: wrap;
  margin: 0.3rem 0;
}

.question p {
  flex-basis: 100%;
  margin: 0;
  font-weight: 600;
}

.file {
  justify-self: start;
}

.big-button {
  min-height: 44px;
  padding: 0 1.2rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0;
}

.overdue {
  grid-column: 2;
  margin: 0;
  font-size: 0.9rem;
  color: var(--tv-mend);
}

.by-stand-in {
  margin: 0;
  font-size: 0.9rem;
  color: var(--tv-mend);
}

.stand-in {
  display: grid;
  grid-template-columns: minmax(0, 14rem) auto 1fr;
  gap: 0.5rem;
  align-items: center;
  border-top: 1px solid var(--tv-line);
  padding-top: 0.4rem;
  margin-top: 0.5rem;
  font-size: 0.9rem;
}

.stand-in legend {
  font-size: 0.9rem;
  color: var(--tv-soft);
  margin: 0;
  float: none;
}
</style>
