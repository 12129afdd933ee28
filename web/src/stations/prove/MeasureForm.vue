<script setup lang="ts">
import { type ProcedureStep } from '@torvek/core/commissioning';
import { parseQuantity } from '@torvek/core/quantity';
import { gates, isOfItem, measuredText, type Instrument, type Measured } from '@torvek/core/record';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, nextTick, onMounted, ref, useId, watch } from 'vue';
import { api, newId } from '../../api/client';
import AttachFiles from '../../parts/AttachFiles.vue';
import { useInstruments } from '../../stores/instruments';
import { useJob } from '../../stores/job';
import InstrumentChoice from './InstrumentChoice.vue';
import { spokenKind } from './instrument-words';
import { emptyHold, holdText, type HoldText } from './hold';
import MeasureFields from './MeasureFields.vue';
import { doubtAboutMeasured, measuredFrom } from './measured-from';
import { readTrace } from './paste';
import StandInRow from './StandInRow.vue';
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
const fields = ref<InstanceType<typeof MeasureFields>>();
/** Something was recorded at this step just now: Enter on the empty field goes on. */
let recordedHere = false;
/** Made once per measurement, so that a double Enter records once. */
let entryId = newId('entry');

/** Pressure and temperature at both ends of a hold. */
const hold = ref<HoldText>({ ...emptyHold });
const isTrace = computed(() => props.step.expected?.kind === 'rise');
const isHold = computed(() => props.step.expected?.kind === 'hold');
const rise = computed(() => (props.step.expected?.kind === 'rise' ? props.step.expected : null));
const zone = computed(() => job.design.settings.zone);
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
    fields.value?.focus();
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
    const of = props.step.id;
    const taken = await api.post<NonNullable<typeof reading.value>>(`/jobs/${job.id}/stand-ins`, {
      step: of,
      behaviour: behaviour.value,
      seed,
    });
    // Meanwhile another step may be open: this is no reading of that one.
    if (props.step.id !== of) return;
    reading.value = taken;
    const { measured } = taken;
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

/** What was edited by hand is no reading of the instrument any more. */
function edited(): void {
  reading.value = null;
  problem.value = null;
  question.value = null;
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
  return { kind, name: instrumentName.value.trim() || `${spokenKind(kind)}, not named`, standIn: false };
}

async function record(sure = false): Promise<void> {
  if (busy.value || props.step.expected === null) return;
  if (recordedHere && text.value.trim() === '' && !isHold.value) {
    emit('next');
    return;
  }
  problem.value = null;
  const { expected } = props.step;
  const taken = measuredFrom(expected, {
    text: text.value,
    packVoltage: packVoltage.value,
    hold: hold.value,
  });
  if (!taken.ok) {
    problem.value = taken.message;
    return;
  }
  question.value = sure ? null : doubtAboutMeasured(expected, taken.measured);
  if (question.value !== null) return;
  const instrument = reading.value?.instrument ?? instrumentByHand();
  const of = props.step.id;
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
    // What is typed for another step meanwhile stays.
    if (props.step.id !== of) return;
    clear();
    recordedHere = true;
    fields.value?.focus();
  } catch (error) {
    problem.value = error instanceof Error ? `Not recorded: ${error.message}.` : 'Not recorded.';
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="entry" @submit.prevent="record()">
    <MeasureFields
      ref="fields"
      v-model:text="text"
      v-model:pack-voltage="packVoltage"
      v-model:hold="hold"
      :expected="step.expected"
      :step-id="step.id"
      @edited="edited"
    />
    <InstrumentChoice
      v-if="reading === null"
      v-model:chosen="instrumentId"
      v-model:named="instrumentName"
      :kind="step.instrument"
      :zone="zone"
    />
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
    <StandInRow v-model="behaviour" :instrument="step.instrument" :busy="busy" @take="takeReading" />
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

.big-button {
  min-height: 44px;
  padding: 0 1.2rem;
}

.problem {
  color: var(--tv-stop);
  margin: 0;
}

.by-stand-in {
  margin: 0;
  font-size: 0.9rem;
  color: var(--tv-mend);
}
</style>
