<script setup lang="ts">
import { formatNumber } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { newId } from '../../../api/client';
import { useInstruments } from '../../../stores/instruments';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import StringStrip from './StringStrip.vue';
import { timeText, useIntoString } from './use-into-string';

/** One module that goes in series with others: brought to where they stand, rested, and read again. */
const job = useJob();
const session = useSession();
const register = useInstruments();
if (register.all.length === 0) void register.load();
const {
  candidates,
  chosen,
  module,
  tag,
  newcomer,
  typed,
  numbers,
  wrong,
  answer,
  outlook,
  known,
  verb,
  since,
} = useIntoString();

const said = ref<string | null>(null);
const busy = ref(false);
async function send(body: { kind: string } & Record<string, unknown>, title: string): Promise<boolean> {
  if (busy.value) return false;
  busy.value = true;
  said.value = null;
  try {
    await job.record({ id: newId('entry'), ...body }, title);
    said.value = `${title}: recorded.`;
    return true;
  } catch (error) {
    said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
    return false;
  } finally {
    busy.value = false;
  }
}
const cells = () => {
  const part = job.design.parts[job.design.modules[module.value]?.part ?? ''];
  const count = part?.kind === 'module' ? part.data.cellsInSeries : 0;
  return Array.from({ length: count }, (_, i) => `${module.value}/cell-${i + 1}`);
};
function begin(): void {
  const found = answer.value;
  if (found === null || found.stopV === null) return;
  const charging = found.way === 'charge up';
  const recipe = [
    { label: 'before', value: numbers.value.volts ?? newcomer.value!.moduleV!, unit: 'V' },
    { label: 'neighbours’ middle', value: found.targetV, unit: 'V' },
    { label: 'charge to move', value: found.ahToMove, unit: 'Ah' },
    charging
      ? { label: 'supply', value: numbers.value.supply!, unit: 'A' }
      : { label: 'load', value: numbers.value.load!, unit: 'Ω' },
    { label: 'stop at', value: found.stopV, unit: 'V' },
    { label: 'about', value: found.hours!, unit: 'h' },
  ];
  void send(
    { kind: 'balance', act: 'on', gear: charging ? 'charger' : 'load', cells: cells(), recipe },
    `${charging ? 'Supply' : 'Load'} onto ${tag.value}`,
  );
}
const end = () =>
  send(
    { kind: 'balance', act: 'off', gear: newcomer.value?.gear ?? 'load', cells: cells(), recipe: [] },
    `${newcomer.value?.gear === 'charger' ? 'Supply' : 'Load'} off ${tag.value}`,
  );
async function reading(): Promise<void> {
  const value = numbers.value.reading;
  if (value == null) return;
  const meter = register.ofKind('meter')[0];
  const done = await send(
    {
      kind: 'result',
      step: `intake-voltage:${module.value}`,
      entered: 'typed',
      measured: { kind: 'value', value, unit: 'V' },
      instrument:
        meter === undefined
          ? { kind: 'meter', name: 'meter, not registered', standIn: false }
          : { id: meter.id },
    },
    `Voltage of ${tag.value}`,
  );
  if (done) typed.value.reading = '';
}
</script>

<template>
  <section class="sheet-card" aria-label="One module into its string" data-into-string>
    <div class="card-head">
      <h2>One module into its string</h2>
      <span class="hint">in series nothing equalises by itself: what is off stays off</span>
    </div>
    <p v-if="candidates.length === 0" class="panel-empty">A string of several modules is needed.</p>
    <template v-else-if="newcomer !== null">
      <div class="asked">
        <label
          >module
          <select
            class="form-select"
            aria-label="Module"
            :value="module"
            @change="chosen = ($event.target as HTMLSelectElement).value"
          >
            <option v-for="one in candidates" :key="one.id" :value="one.id">
              {{ one.tag }}, {{ one.string }}
            </option>
          </select></label
        >
        <label
          >at rest
          <input
            v-model="typed.volts"
            class="form-control"
            inputmode="decimal"
            aria-label="Voltage at rest"
            :placeholder="newcomer.moduleV === null ? '' : formatNumber(newcomer.moduleV, 5)"
          />
          V</label
        >
        <label
          >load
          <input v-model="typed.load" class="form-control" inputmode="decimal" aria-label="Load" /> Ω</label
        >
        <label
          >supply
          <input v-model="typed.supply" class="form-control" inputmode="decimal" aria-label="Supply" />
          A</label
        >
      </div>
      <p v-if="wrong" class="bad" role="alert">
        A voltage, resistance or current cannot be read: a number above 0.
      </p>
      <p v-else-if="answer === null" class="soft">
        Not computed, because
        {{
          known === 0
            ? `no other module of ${newcomer.string} was measured; Intake takes their voltages`
            : `the voltage of ${tag} was not measured`
        }}.
      </p>
      <template v-else>
        <StringStrip
          :modules="newcomer.modules"
          :module="module"
          :module-v="numbers.volts ?? newcomer.moduleV"
          :target-v="answer.targetV"
          :tolerance-v="answer.toleranceV"
        />
        <dl class="figures">
          <div>
            <dt>neighbours’ middle</dt>
            <dd>
              <b>{{ formatNumber(answer.targetV, 5) }}</b> V
              <small>of {{ known }}, {{ formatNumber(answer.spreadV * 1000, 2) }} mV apart</small>
            </dd>
          </div>
          <div>
            <dt>{{ tag }} is off by</dt>
            <dd :class="{ bad: answer.way !== 'none' }">
              <b>{{ formatNumber(answer.offV * 1000, 3) }}</b> mV
              <small>± {{ formatNumber(answer.toleranceV * 1000, 3) }} mV is level</small>
            </dd>
          </div>
          <div>
            <dt>charge to move</dt>
            <dd>
              <b>{{ formatNumber(answer.ahToMove) }}</b> Ah
              <small
                >± {{ formatNumber(answer.ahUnsure, 2) }} Ah for 5 mV a cell{{
                  answer.capacityAssumed ? ', capacity of its sheet' : ''
                }}</small
              >
            </dd>
          </div>
          <div v-if="answer.hours !== null">
            <dt>with this gear</dt>
            <dd>
              <b>{{ timeText(answer.hours) }}</b>
            </dd>
          </div>
          <div v-if="answer.stopV !== null">
            <dt>stop when it reads</dt>
            <dd>
              <b>{{ formatNumber(answer.stopV, 5) }}</b> V
              <small>{{ answer.way === 'charge up' ? 'while it charges' : 'under the load' }}</small>
            </dd>
          </div>
          <div v-if="answer.loadW !== null && answer.refused.length === 0">
            <dt>in the load at first</dt>
            <dd>
              <b>{{ formatNumber(answer.currentA ?? 0) }}</b> A, <b>{{ formatNumber(answer.loadW) }}</b> W
            </dd>
          </div>
        </dl>
        <p class="verdict" :class="{ bad: answer.refused.length > 0 }" data-verdict>
          {{
            answer.refused.length > 0
              ? `Not with this gear: ${answer.refused.join('; ')}.`
              : answer.way === 'none'
                ? `${tag} stands where its neighbours stand: it may go in.`
                : `${tag} is to be ${verb}${answer.hours === null ? `: type the ${answer.way === 'charge up' ? 'supply’s current' : 'load'}` : ''}.`
          }}
        </p>
        <p v-if="newcomer.phase === 'on'" data-phase>
          {{ newcomer.gear === 'charger' ? 'The supply' : 'The load' }} is on since {{ since }}.
        </p>
        <p v-else-if="outlook !== null" data-phase>
          Rests since {{ since }}, {{ newcomer.rest.length }}
          {{ newcomer.rest.length === 1 ? 'reading' : 'readings' }}:
          {{
            outlook.by === 'too few readings'
              ? 'six readings tell where it will settle.'
              : `${outlook.by === 'rested out' ? 'settled at' : 'will settle at'} ${formatNumber(outlook.settledV ?? 0, 5)} V, ${outlook.verdict}.`
          }}
        </p>
        <p v-else-if="newcomer.phase === 'resting'" data-phase>
          Rests since {{ since }}: read it now and then.
        </p>
        <div v-if="session.mayRecord" class="acts">
          <BButton v-if="newcomer.phase === 'on'" size="sm" variant="primary" :disabled="busy" @click="end">{{
            newcomer.gear === 'charger' ? 'Supply is off' : 'Load is off'
          }}</BButton>
          <BButton
            v-else
            size="sm"
            variant="primary"
            :disabled="busy || answer.stopV === null || wrong"
            @click="begin"
            >{{ answer.way === 'charge up' ? 'Supply is on' : 'Load is on' }}</BButton
          >
          <form class="read" @submit.prevent="reading">
            <label
              >reads now
              <input
                v-model="typed.reading"
                class="form-control"
                inputmode="decimal"
                aria-label="Reads now"
              />
              V</label
            >
            <BButton size="sm" variant="light" type="submit" :disabled="busy || numbers.reading == null"
              >Record the reading</BButton
            >
          </form>
        </div>
        <ul class="watch">
          <li>
            The module is out of the string, or both of its links are: nothing else hangs on it while it is
            {{ verb }}.
          </li>
          <li>
            Somebody stays with it, or gear that cuts off by itself at that voltage. A resistor of this heat
            burns fingers and benches: on its heat sink, in the open.
          </li>
          <li>
            Rated gloves, rated tools, one hand at the posts, no jewellery. The maker’s documents come first;
            a lone voltage says nothing of cells that differ within the module.
          </li>
        </ul>
      </template>
    </template>
    <p v-if="said" role="status">{{ said }}</p>
  </section>
</template>

<style scoped>
.asked,
.acts,
.read {
  display: flex;
  flex-wrap: wrap;
  gap: 0.5rem 1.2rem;
  align-items: center;
}

label {
  display: flex;
  gap: 0.5rem;
  align-items: center;
}

label .form-control {
  width: 6.5rem;
  text-align: right;
}

label .form-select {
  width: auto;
  min-width: 11rem;
}

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 2rem;
  margin: 0.6rem 0 0.3rem;
}

.figures dt {
  font-weight: 400;
  font-size: 0.85rem;
  color: var(--tv-soft);
}

.figures dd {
  margin: 0;
}

.figures small {
  color: var(--tv-soft);
}

.verdict {
  font-weight: 600;
  margin: 0.3rem 0;
}

.bad {
  color: var(--tv-stop);
}

.watch {
  font-size: 0.9rem;
  padding-left: 1.2rem;
  margin: 0.6rem 0 0;
}

p {
  margin: 0.3rem 0;
}
</style>
