<script setup lang="ts">
import { gapText } from '@torvek/core/figure';
import { interpolate } from '@torvek/core/math';
import { matchInputOf, matchSides, parallelMatch, type MatchSide } from '@torvek/core/balance';
import { formatNumber, formatQuantity, parseQuantity } from '@torvek/core/quantity';
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { computed, ref, watch } from 'vue';
import { newId } from '../../../api/client';
import { useJob } from '../../../stores/job';
import { useSession } from '../../../stores/session';

/** Whether two strings, or a module and its neighbour, may be joined now; which way charge must go before. */
const job = useJob();
const session = useSession();
const sides = computed(() => matchSides(job.design));
const idA = ref('');
const idB = ref('');
const pick = (id: string, place: number): MatchSide | undefined =>
  sides.value.find((side) => side.id === id) ?? sides.value[place];
const a = computed(() => pick(idA.value, 0));
const b = computed(() => pick(idB.value, 1));

/** Sum of the newest intake voltages of a side; undefined while one is missing. */
function recordedV(side: MatchSide | undefined): number | undefined {
  if (side === undefined) return undefined;
  let sum = 0;
  for (const id of side.modules) {
    const measured = job.assessment.steps.find(({ step }) => step.id === `intake-voltage:${id}`)?.entry?.body
      .measured;
    if (measured?.kind !== 'value') return undefined;
    sum += measured.value;
  }
  return sum;
}
const typed = ref({ a: '', b: '', link: '', bench: '' });
watch([idA, idB], () => (typed.value = { ...typed.value, a: '', b: '' }));
const number = (text: string, unit: string) => {
  if (text.trim() === '') return undefined;
  const read = parseQuantity(text, unit);
  return read.ok && read.value >= 0 && read.value <= 1e9 ? read.value : null;
};
const volts = computed(() => ({
  a: number(typed.value.a, 'V'),
  b: number(typed.value.b, 'V'),
  link: number(typed.value.link, 'mΩ'),
  bench: number(typed.value.bench, 'A'),
}));
const wrong = computed(() =>
  (['a', 'b', 'link', 'bench'] as const).filter((field) => volts.value[field] === null),
);
const fromRecord = computed(() => ({ a: recordedV(a.value), b: recordedV(b.value) }));
const used = computed((): [number | undefined, number | undefined] => [
  volts.value.a ?? fromRecord.value.a,
  volts.value.b ?? fromRecord.value.b,
]);
const question = computed(() => {
  if (a.value === undefined || b.value === undefined || a.value.id === b.value.id) return null;
  const { link, bench } = volts.value;
  return matchInputOf(
    job.design,
    a.value,
    b.value,
    used.value,
    link == null ? undefined : link / 1000,
    bench == null || bench === 0 ? undefined : bench,
  );
});
const answer = computed(() => {
  const input = question.value?.input;
  if (input == null || wrong.value.length > 0) return null;
  const parsed = parallelMatch.parse(input);
  return parsed.ok
    ? { ok: true as const, input: parsed.input, ...parallelMatch.calculate(parsed.input) }
    : {
        ok: false as const,
        message: parsed.issues.map(({ path, message }) => `${path} ${message}`).join('; '),
      };
});
const governing = computed(() => {
  const limits = question.value?.limits ?? [];
  const least = Math.min(...limits.map(({ currentA }) => currentA));
  return limits.find(({ currentA }) => currentA === least);
});
const way = computed(() => {
  const found = answer.value;
  if (found === null || !found.ok || found.result.higher === 'equal') return null;
  const [high, low] = found.result.higher === 'a' ? [a.value!, b.value!] : [b.value!, a.value!];
  const hours =
    found.result.benchHours === null
      ? ''
      : `, about ${formatNumber(found.result.benchHours)} h with this gear`;
  return `Charge ${low.tag} up, or discharge ${high.tag} down, by about ${formatNumber(found.result.ahToMove)} Ah${hours}.`;
});
/** How much a cell’s voltage says about its charge there: on a flat curve little. */
const flat = computed(() => {
  const found = answer.value;
  if (found === null || !found.ok) return false;
  const { input } = found;
  const cell = input.a.voltageV / input.series;
  const turned = input.ocvTable.map(([soc, v]): [number, number] => [v, soc]);
  const soc = (v: number) => interpolate(turned, v);
  return Math.abs(soc(cell + 0.005) - soc(cell - 0.005)) > 0.1;
});

const after = ref({ a: '', b: '' });
const said = ref<string | null>(null);
const busy = ref(false);
async function record(): Promise<void> {
  const [afterA, afterB] = [number(after.value.a, 'V'), number(after.value.b, 'V')];
  if (afterA == null || afterB == null || a.value === undefined || b.value === undefined) {
    said.value = 'Voltages after: a number for each, in V.';
    return;
  }
  busy.value = true;
  try {
    const { deltaV } = answer.value?.ok === true ? answer.value.result : { deltaV: 0 };
    await job.record(
      {
        id: newId('entry'),
        kind: 'work',
        what: `${a.value.tag} and ${b.value.tag} brought level: before ${formatNumber(used.value[0] ?? 0, 5)} V and ${formatNumber(used.value[1] ?? 0, 5)} V (${formatNumber(deltaV)} V apart), after ${formatNumber(afterA, 5)} V and ${formatNumber(afterB, 5)} V.`,
        // A string is its modules: their intake voltages are due again.
        subjects: [...new Set([...a.value.modules, ...b.value.modules])],
      },
      `${a.value.tag} and ${b.value.tag} brought level`,
    );
    said.value = 'Recorded; the modules’ voltages are due again.';
    after.value = { a: '', b: '' };
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
              :placeholder="fromRecord[key] === undefined ? '' : formatNumber(fromRecord[key]!, 5)"
            />
            V</label
          >
          <small class="soft">{{
            typed[key].trim() !== ''
              ? 'as typed'
              : fromRecord[key] === undefined
                ? 'not measured at intake'
                : 'sum of the intake voltages'
          }}</small>
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
