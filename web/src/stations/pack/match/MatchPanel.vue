<script setup lang="ts">
import { gapText } from '@torvek/core/figure';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { ref } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';
import { typedNumber, useMatch } from './use-match';

/** Whether two strings, or a module and its neighbour, may be joined now; which way charge must go before. */
const job = useJob();
const session = useSession();
const {
  sides,
  idA,
  idB,
  a,
  b,
  typed,
  volts,
  wrong,
  fromRecord,
  day,
  whereFrom,
  before,
  used,
  question,
  answer,
  governing,
  way,
  flat,
} = useMatch();

const after = ref({ a: '', b: '' });
const said = ref<string | null>(null);
const busy = ref(false);
async function record(): Promise<void> {
  const [afterA, afterB] = [typedNumber(after.value.a, 'V'), typedNumber(after.value.b, 'V')];
  const [beforeA, beforeB] = used.value;
  if (beforeA === undefined || beforeB === undefined) {
    said.value = 'Voltages before: measured or typed, for each.';
    return;
  }
  if (afterA == null || afterB == null || a.value === undefined || b.value === undefined) {
    said.value = 'Voltages after: a number for each, in V.';
    return;
  }
  busy.value = true;
  try {
    const { link, bench, hours } = volts.value;
    await job.record(
      {
        id: newId('entry'),
        kind: 'levelled',
        sides: [
          { id: a.value.id, beforeV: beforeA, afterV: afterA },
          { id: b.value.id, beforeV: beforeB, afterV: afterB },
        ],
        ...(link != null && link > 0 && { linkOhm: link / 1000 }),
        ...(bench != null && bench > 0 && { gearA: bench }),
        ...(hours != null && hours > 0 && { hours }),
      },
      `${a.value.tag} and ${b.value.tag} brought level`,
    );
    said.value = 'Recorded; the modules’ voltages are due again.';
    after.value = { a: '', b: '' };
    typed.value = { ...typed.value, a: '', b: '', hours: '' };
  } catch (error) {
    said.value = `Not recorded: ${error instanceof Error ? error.message : 'unknown reason'}`;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <section class="sheet-card match" aria-label="Match" data-match>
    <div class="card-head">
      <h2>Match</h2>
      <span class="hint"
        >two strings, or a replacement and the module it joins, before they are put side by side</span
      >
    </div>
    <p v-if="sides.length < 2" class="panel-empty">Two strings or modules are needed.</p>
    <template v-else>
      <div class="sides">
        <fieldset v-for="key in ['a', 'b'] as const" :key="key">
          <legend>{{ key === 'a' ? 'one' : 'the other' }}</legend>
          <select
            class="form-select"
            :aria-label="key === 'a' ? 'One side' : 'The other side'"
            :value="(key === 'a' ? a : b)?.id"
            @change="
              (event) =>
                key === 'a'
                  ? (idA = (event.target as HTMLSelectElement).value)
                  : (idB = (event.target as HTMLSelectElement).value)
            "
          >
            <option v-for="side in sides" :key="side.id" :value="side.id">{{ side.tag }}</option>
          </select>
          <label
            >at rest
            <input
              v-model="typed[key]"
              class="form-control"
              inputmode="decimal"
              :aria-label="key === 'a' ? 'Voltage of one' : 'Voltage of the other'"
              :placeholder="fromRecord[key] === null ? '' : formatNumber(fromRecord[key]!.voltageV, 5)"
            />
            V</label
          >
          <small class="soft">{{ typed[key].trim() !== '' ? 'as typed' : whereFrom(fromRecord[key]) }}</small>
        </fieldset>
        <fieldset>
          <legend>between them</legend>
          <label
            >joint and leads
            <input
              v-model="typed.link"
              class="form-control"
              inputmode="decimal"
              aria-label="Resistance between"
            />
            mΩ</label
          >
          <label
            >bench gear
            <input
              v-model="typed.bench"
              class="form-control"
              inputmode="decimal"
              aria-label="Bench current"
            />
            A</label
          >
        </fieldset>
      </div>
      <p v-if="before !== null" class="soft" data-before>
        Brought level on {{ day(before.takenAt) }}:
        {{
          before.body.sides
            .map(
              ({ tag, beforeV, afterV }) =>
                `${tag} ${formatNumber(beforeV, 5)} to ${formatNumber(afterV, 5)} V`,
            )
            .join(', ')
        }}. Go on from there, or measure again.
      </p>
      <p v-if="wrong.length > 0" class="bad" role="alert">
        A voltage, resistance or current cannot be read: a number, 0 or more.
      </p>
      <p v-else-if="question === null" class="soft">Two different ones.</p>
      <p v-else-if="question.input === null" class="soft">
        Not computed, because {{ question.gaps.map(gapText).join('; ') }}.
      </p>
      <p v-else-if="answer !== null && !answer.ok" class="bad" role="alert">
        Not computed: {{ answer.message }}.
      </p>
      <template v-else-if="answer !== null && answer.ok">
        <dl class="figures">
          <div>
            <dt>apart</dt>
            <dd>
              <b>{{ formatNumber(answer.result.deltaV) }}</b> V
            </dd>
          </div>
          <div>
            <dt>current when joined</dt>
            <dd :class="{ bad: !answer.result.withinLimit }">
              <b>{{ formatNumber(answer.result.equalisingCurrentA) }}</b> A
            </dd>
          </div>
          <div>
            <dt>least limit in the path</dt>
            <dd>
              <b>{{ formatNumber(governing?.currentA ?? 0) }}</b> A <small>{{ governing?.label }}</small>
            </dd>
          </div>
          <div>
            <dt>voltages may differ by</dt>
            <dd>
              <b>{{ formatNumber(answer.result.maxDeltaV) }}</b> V
            </dd>
          </div>
          <div>
            <dt>charge between them</dt>
            <dd>
              <b>{{ formatNumber(answer.result.ahToMove) }}</b> Ah
            </dd>
          </div>
        </dl>
        <p class="verdict" :class="{ bad: !answer.result.withinLimit }" data-verdict>
          {{
            answer.result.withinLimit
              ? `Joining drives ${formatNumber(answer.result.equalisingCurrentA)} A, within ${formatNumber(governing?.currentA ?? 0)} A.`
              : `Do not join: ${formatNumber(answer.result.equalisingCurrentA)} A would flow, ${formatNumber(governing?.currentA ?? 0)} A are allowed.`
          }}
          {{ way }}
        </p>
        <p v-for="finding in answer.findings" :key="finding.message" class="bad">{{ finding.message }}</p>
        <ul class="watch">
          <li v-if="flat">
            The curve is flat there: a few millivolts stand for much charge. Trust the current more than the
            charge, and measure again after an hour.
          </li>
          <li>
            Both at rest for an hour, at one temperature, measured with the same meter, proved before and
            after.
          </li>
          <li>
            Isolate, rated gloves, one hand at the posts, a second person, no jewellery. Join through a fused
            lead, watch the current fall and stay until it has; makers’ documents come first.
          </li>
          <li>
            Limits:
            {{
              question.limits
                .map(({ label, currentA }) => `${label} ${formatQuantity(currentA, 'A')}`)
                .join(', ')
            }}.
          </li>
        </ul>
        <div v-if="session.mayRecord" class="after">
          <b>Done:</b>
          <label
            >{{ a?.tag }} after
            <input v-model="after.a" class="form-control" inputmode="decimal" aria-label="One, after" />
            V</label
          >
          <label
            >{{ b?.tag }} after
            <input v-model="after.b" class="form-control" inputmode="decimal" aria-label="The other, after" />
            V</label
          >
          <label
            >it took
            <input
              v-model="typed.hours"
              class="form-control"
              inputmode="decimal"
              aria-label="It took, hours"
            />
            h</label
          >
          <BButton size="sm" variant="primary" :disabled="busy" @click="record">Record</BButton>
        </div>
      </template>
      <p v-if="said" role="status">{{ said }}</p>
    </template>
  </section>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 1rem;
}

fieldset {
  display: grid;
  gap: 0.35rem;
  align-content: start;
}

legend {
  font-size: 0.85rem;
  color: var(--tv-soft);
  margin: 0;
  float: none;
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

.figures {
  display: flex;
  flex-wrap: wrap;
  gap: 0.4rem 2rem;
  margin: 0.8rem 0 0.3rem;
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
}

.after {
  display: flex;
  flex-wrap: wrap;
  gap: 0.6rem 1rem;
  align-items: center;
}
</style>
